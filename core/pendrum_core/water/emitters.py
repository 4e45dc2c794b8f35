"""Radiators at other temperatures than their rating. Source: EN 442-2:2014."""

from dataclasses import dataclass
from math import log

from scipy.optimize import brentq

from pendrum_core.water.properties import specific_heat_j_kgk

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


# Ratings at 75/65/20 of an ordinary series [W], next to the preferred numbers R10 of ISO 3.
RATINGS_W = (
    300.0,
    400.0,
    500.0,
    650.0,
    800.0,
    1000.0,
    1250.0,
    1600.0,
    2000.0,
    2500.0,
    3150.0,
    4000.0,
    5000.0,
    6300.0,
    8000.0,
    10000.0,
    12500.0,
    16000.0,
)
LOGARITHMIC_BELOW = 0.7  # (return - room)/(flow - room), from which on EN 442-2 allows the arithmetic mean


@dataclass(frozen=True)
class EmitterResult:
    """A radiator's duty and the rating to buy.

    Attributes:
        duty_w: at the circuit's temperatures.
        rule: "logarithmic" or "arithmetic", the mean that decides.
        factor: output at these temperatures over the rating, by that rule [-].
        rating_w: needed at 75/65/20; `logarithmic_w`, `arithmetic_w` by either mean.
        chosen_w: next of the series; None above it.
        chosen_return_c, chosen_flow_kg_s: return temperature and water flow with which the chosen one gives the duty, at the
            circuit's flow temperature; those of design without one.
    """

    duty_w: float
    rule: str
    factor: float
    rating_w: float
    logarithmic_w: float
    arithmetic_w: float
    chosen_w: float | None
    chosen_return_c: float
    chosen_flow_kg_s: float


def size_radiator(
    duty_w: float,
    flow_c: float,
    return_c: float,
    room_c: float,
    exponent: float,
    series_w: tuple[float, ...] = RATINGS_W,
) -> EmitterResult:
    """Rating at 75/65/20 that gives the duty, and the next of a series.

    The logarithmic mean decides where (return - room)/(flow - room) is below 0.7; above, the arithmetic one is as good.
    """
    factors = {
        name: output_factor(flow_c, return_c, room_c, exponent, logarithmic=name == "logarithmic")
        for name in ("logarithmic", "arithmetic")
    }
    rule = "logarithmic" if (return_c - room_c) / (flow_c - room_c) < LOGARITHMIC_BELOW else "arithmetic"
    needed = duty_w / factors[rule]
    chosen = next((rating for rating in series_w if rating >= needed), None) if duty_w > 0.0 else None
    back = return_c if chosen is None else return_of(duty_w / chosen, flow_c, room_c, exponent)
    flow = duty_w / (specific_heat_j_kgk((flow_c + back) / 2.0) * (flow_c - back))
    return EmitterResult(
        duty_w,
        rule,
        factor=factors[rule],
        rating_w=needed,
        logarithmic_w=duty_w / factors["logarithmic"],
        arithmetic_w=duty_w / factors["arithmetic"],
        chosen_w=chosen,
        chosen_return_c=back,
        chosen_flow_kg_s=flow,
    )


def return_of(output_share: float, flow_c: float, room_c: float, exponent: float) -> float:
    """Return temperature at which a radiator gives a share of its rating [°C], by the logarithmic mean.

    Raises:
        ValueError: it cannot give so much at this flow temperature.
    """
    excess = mean_excess_k(RATING_FLOW_C, RATING_RETURN_C, RATING_ROOM_C, True) * output_share ** (1.0 / exponent)
    if not 0.0 < excess < flow_c - room_c:
        raise ValueError(
            f"a share of {output_share:.3g} of the rating is beyond a flow of {flow_c} °C in a room of {room_c} °C"
        )
    low, high = room_c + 1e-9 * (flow_c - room_c), flow_c - 1e-9 * (flow_c - room_c)
    return float(brentq(lambda back: mean_excess_k(flow_c, back, room_c, True) - excess, low, high, xtol=1e-9))
