"""Radiators at other temperatures than their rating. Source: EN 442-2:2014."""

from dataclasses import dataclass
from math import log

RATING_FLOW_C, RATING_RETURN_C, RATING_ROOM_C = 75.0, 65.0, 20.0


def mean_excess_k(flow_c: float, return_c: float, room_c: float, logarithmic: bool = False) -> float:
    """Mean excess temperature of a radiator [K]: arithmetic as EN 442 does, or logarithmic.

    Raises:
        ValueError: the flow is not above the return, or the return not above the room.
    """
    if not flow_c > return_c > room_c:
        raise ValueError(f"flow {flow_c}, return {return_c} and room {room_c} °C must fall in this order")
    if not logarithmic:
        return (flow_c + return_c) / 2.0 - room_c
    return (flow_c - return_c) / log((flow_c - room_c) / (return_c - room_c))


def output_factor(flow_c: float, return_c: float, room_c: float, exponent: float, logarithmic: bool = False) -> float:
    """Output over the rating at 75/65/20: (dT/dTn)^n [-], the same mean for both."""
    rated = mean_excess_k(RATING_FLOW_C, RATING_RETURN_C, RATING_ROOM_C, logarithmic)
    return float((mean_excess_k(flow_c, return_c, room_c, logarithmic) / rated) ** exponent)


@dataclass(frozen=True)
class EmitterResult:
    """A radiator's duty and the rating to buy.

    Attributes:
        duty_w: at the circuit's temperatures.
        factor: output at these temperatures over the rating [-].
        rating_w: needed at 75/65/20.
    """

    duty_w: float
    factor: float
    rating_w: float


def size_radiator(duty_w: float, flow_c: float, return_c: float, room_c: float, exponent: float) -> EmitterResult:
    """Rating at 75/65/20 that gives the duty.

    The logarithmic mean is used, as EN 442's arithmetic one overrates wide temperature drops.
    """
    factor = output_factor(flow_c, return_c, room_c, exponent, logarithmic=True)
    return EmitterResult(duty_w, factor, duty_w / factor)
