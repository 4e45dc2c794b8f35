"""When a circuit runs, and what water flows in it then.

A circuit runs in its hours, and by the outdoor air: of heating, from where it starts and colder until where it stops and warmer; of
chilled water the other way. Between both it goes on as it was, so that a mild hour does not switch it to and fro.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import log

import numpy as np
from numpy.typing import NDArray
from scipy.special import lambertw

from pendrum_core.model.climate import Climate
from pendrum_core.model.schedules import DayPattern, step_averages
from pendrum_core.model.systems import BY_HOURS, BY_OUTDOORS, Circuit

Array = NDArray[np.float64]
_LEAST_MEAN = 1e-6  # and as far below 1: there the water is the room's, or does not cool
Flags = NDArray[np.bool_]


def runs(circuit: Circuit, outdoor_c: Array, on: Array | None = None) -> Flags:
    """Whether it runs at every step of days or of a year that follow themselves, (..., steps).

    Args:
        outdoor_c: dry-bulb over steps [°C].
        on: of its hours, above a half while it may run; None: at any hour.

    Source: two-point rule with hysteresis of heating limit controls (EN 12098-1).
    """
    allowed = np.ones(outdoor_c.shape, dtype=bool) if on is None else np.broadcast_to(on > 0.5, outdoor_c.shape)
    starts = circuit.stops_c if circuit.starts_c is None else circuit.starts_c
    stops = circuit.starts_c if circuit.stops_c is None else circuit.stops_c
    if starts is None or stops is None:
        return np.asarray(allowed)
    sign = 1.0 if circuit.kind == "heating" else -1.0
    mark = np.where(sign * outdoor_c >= sign * stops, 0, np.where(sign * outdoor_c <= sign * starts, 1, -1))
    # What holds between both is what was told last, the day before at the latest; told by neither, it runs on.
    twice = np.concatenate([mark, mark], axis=-1)
    last = np.maximum.accumulate(np.where(twice >= 0, np.arange(twice.shape[-1]), -1), axis=-1)
    held = np.take_along_axis(twice, np.maximum(last, 0), axis=-1)
    state = np.where(last < 0, 1, held)[..., outdoor_c.shape[-1] :]
    return np.asarray(allowed & (state == 1))


def flow_temperature_c(circuit: Circuit, outdoor_c: Array, by_hours_c: Array | None = None) -> Array:
    """Flow temperature by the circuit's rule [°C]: fixed, by a line from `reset_cold_c` to `reset_mild_c` outdoors, or by its schedule.

    Args:
        outdoor_c: dry-bulb over steps [°C].
        by_hours_c: what its schedule says, alike [°C]; None: the design flow where the rule asks for it.

    Source: linear compensation of heating practice (EN 12098-1).
    """
    if circuit.flow_rule == BY_OUTDOORS:
        ends = (circuit.reset_cold_c, circuit.reset_mild_c), (circuit.flow_c, circuit.flow_mild_c)
        return np.asarray(np.interp(outdoor_c, *ends))
    if circuit.flow_rule == BY_HOURS and by_hours_c is not None:
        return np.asarray(np.broadcast_to(by_hours_c, outdoor_c.shape).astype(float))
    return np.full_like(outdoor_c, circuit.flow_c)


def part_flow(circuit: Circuit, flow_c: Array, share: Array, difference_k: float) -> tuple[Array, Array]:
    """Flow, of the design flow [-], and what its water cools or warms by [K], where a `share` of the design load is asked.

    At constant flow (three-way valves, or none) the difference follows the load. Where two-way valves throttle, a heating circuit's
    emitters get as much as lets them give the load, so that hotter water than is needed comes back colder; a chilled circuit keeps
    its design difference. Never more than the design flow.

    Args:
        flow_c: flow temperature over steps [°C].
        share: of the design load, 0 to 1.
        difference_k: between flow and return at design [K].

    Source: EN 442-2 (output by the power of the logarithmic mean excess temperature); heat balance of the water.
    """
    constant = np.ones_like(share), np.asarray(difference_k * share)
    if circuit.water_flow != "variable":
        return constant
    if circuit.kind != "heating":
        return np.asarray(share), np.where(share > 0.0, difference_k, 0.0)
    excess_k = circuit.flow_c - circuit.rated_room_c
    if excess_k <= difference_k or difference_k <= 0.0:
        return constant
    design_k = difference_k / log(excess_k / (excess_k - difference_k))
    above_k = np.maximum(flow_c - circuit.rated_room_c, 1e-9)
    needed = np.clip(design_k * share ** (1.0 / circuit.rated_exponent) / above_k, _LEAST_MEAN, 1.0 - _LEAST_MEAN)
    cooled = np.maximum(above_k * (1.0 - _left(needed)), difference_k * share)
    return difference_k * share / np.maximum(cooled, 1e-9), cooled


def _left(mean: Array) -> Array:
    """Excess temperature that is left of 1 at the end where its logarithmic mean is `mean`, 0 to 1 [-].

    u = ln(1/r) solves mean u = 1 - exp(-u): u = 1/mean + W(-exp(-1/mean) / mean), with Lambert's W.
    """
    many = 1.0 / mean
    return np.asarray(np.exp(-(many + lambertw(-many * np.exp(-many)).real)))


@dataclass(frozen=True)
class Running:
    """A circuit over steps: whether it runs, and its flow temperature [°C]."""

    on: Flags
    flow_c: Array


def on_design_days(circuit: Circuit, climate: Climate, summer_c: Array, winter_c: Array) -> tuple[Running, Running]:
    """A circuit on the summer's design days, (months, 144), and on the winter day, (1, 144).

    Source: see `runs` and `flow_temperature_c`.
    """
    months = [month.month - 1 for month in climate.months]
    winter_hours, winter_flow = (
        None if pattern is None else step_averages(pattern)[None]
        for pattern in (circuit.running_winter, circuit.flow_winter)
    )
    hours, flow = (_of_months(patterns, months) for patterns in (circuit.running, circuit.flow_by_month))
    return (
        Running(runs(circuit, summer_c, hours), flow_temperature_c(circuit, summer_c, flow)),
        Running(runs(circuit, winter_c, winter_hours), flow_temperature_c(circuit, winter_c, winter_flow)),
    )


def _of_months(patterns: Sequence[DayPattern], months: Sequence[int]) -> Array | None:
    return np.stack([step_averages(patterns[month]) for month in months]) if patterns else None
