"""Radiators and radiant panels at other temperatures than their rating. Source: EN 442-2:2014; EN 14037-2:2016 has the same form, K ΔT^n."""

from dataclasses import dataclass, replace
from math import log

from scipy.optimize import brentq

from pendrum_core.model.systems import Circuit
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


@dataclass(frozen=True)
class Rated:
    """How radiators are rated: temperatures of their rating [°C] and exponent of their excess [-]."""

    flow_c: float = RATING_FLOW_C
    return_c: float = RATING_RETURN_C
    room_c: float = RATING_ROOM_C
    exponent: float = 1.3

    def excess_k(self, logarithmic: bool) -> float:
        """Mean excess at the rating [K]. Source: EN 442-2:2014."""
        return mean_excess_k(self.flow_c, self.return_c, self.room_c, logarithmic)


def output_factor(
    flow_c: float,
    return_c: float,
    room_c: float,
    exponent: float,
    logarithmic: bool = False,
    rated: Rated | None = None,
) -> float:
    """Output over the rating, at 75/65/20 where no other is told: (dT/dTn)^n [-], the same mean for both."""
    at_rating = (rated or Rated()).excess_k(logarithmic)
    return float((mean_excess_k(flow_c, return_c, room_c, logarithmic) / at_rating) ** exponent)


def rated_of(circuit: Circuit) -> Rated:
    """How a circuit's radiators are rated. Source: inputs."""
    return Rated(circuit.rated_flow_c, circuit.rated_return_c, circuit.rated_room_c, circuit.rated_exponent)


# Ratings of an ordinary series [W], next to the preferred numbers R10 of ISO 3.
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
        rating_w: needed at the temperatures of the rating; `logarithmic_w`, `arithmetic_w` by either mean.
        chosen_w: next of the series; None above it.
        chosen_return_c, chosen_flow_kg_s: return temperature and water flow with which the chosen one gives the duty, at the
            circuit's flow temperature; those of design without one.
        length_m: of radiant panels, in place of a size of a series; None of radiators, and above the longest.
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
    length_m: float | None = None


def size_radiator(
    duty_w: float, flow_c: float, return_c: float, room_c: float, rated: Rated, series_w: tuple[float, ...] = RATINGS_W
) -> EmitterResult:
    """Rating at its temperatures that gives the duty, and the next of a series.

    The logarithmic mean decides where (return - room)/(flow - room) is below 0.7; above, the arithmetic one is as good.
    """
    factors = {
        name: output_factor(flow_c, return_c, room_c, rated.exponent, name == "logarithmic", rated)
        for name in ("logarithmic", "arithmetic")
    }
    rule = "logarithmic" if (return_c - room_c) / (flow_c - room_c) < LOGARITHMIC_BELOW else "arithmetic"
    needed = duty_w / factors[rule]
    chosen = next((rating for rating in series_w if rating >= needed), None) if duty_w > 0.0 else None
    back = return_c if chosen is None else return_of(duty_w / chosen, flow_c, room_c, rated)
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


def return_of(output_share: float, flow_c: float, room_c: float, rated: Rated) -> float:
    """Return temperature at which a radiator gives a share of its rating [°C], by the logarithmic mean.

    Raises:
        ValueError: it cannot give so much at this flow temperature.
    """
    excess = rated.excess_k(True) * output_share ** (1.0 / rated.exponent)
    if not 0.0 < excess < flow_c - room_c:
        raise ValueError(
            f"a share of {output_share:.3g} of the rating is beyond a flow of {flow_c} °C in a room of {room_c} °C"
        )
    low, high = room_c + 1e-9 * (flow_c - room_c), flow_c - 1e-9 * (flow_c - room_c)
    return float(brentq(lambda back: mean_excess_k(flow_c, back, room_c, True) - excess, low, high, xtol=1e-9))


PANEL_STEP_M, LONGEST_PANEL_M = 0.5, 400.0


def size_panel(
    duty_w: float, flow_c: float, return_c: float, room_c: float, rated: Rated, panel_w_m: float
) -> EmitterResult:
    """Radiant panels for a duty [W] that are bought by length, of half a metre more at a time; `panel_w_m` is what a metre gives at its
    rating [W/m].

    Source: EN 14037-2:2016, characteristic K ΔT^n.
    """
    steps = tuple(PANEL_STEP_M * n * panel_w_m for n in range(1, int(LONGEST_PANEL_M / PANEL_STEP_M) + 1))
    found = size_radiator(duty_w, flow_c, return_c, room_c, rated, steps)
    return replace(found, length_m=None if found.chosen_w is None else found.chosen_w / panel_w_m)
