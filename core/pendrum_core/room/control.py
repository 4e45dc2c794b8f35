"""Thermostats of a stack of rooms: from set-points by schedule to what the plant does on every design day."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.model.thermostats import DrawnAir, Thermostat
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.results.control import Control, Day
from pendrum_core.room.harmonics import OMEGA_RAD_S, step_response, to_harmonics, to_steps
from pendrum_core.room.kernel import Kernel, kernel
from pendrum_core.room.loads import Solved, WinterParts, mean_surface_k
from pendrum_core.room.march import Drawn, Marched, Task, Windows, march
from pendrum_core.schedule.pattern import DayPattern, step_averages

Array = NDArray[np.float64]
_STEPS_PER_HOUR = STEPS_PER_DAY // 24
OPERATIVE = 0.5  # share of the mean surface temperature, ISO 7726 at low air speed


@dataclass(frozen=True)
class Command:
    """Share of its own capacity that a room's plant is told to give: summer (months, 144), winter (144,); heating > 0."""

    summer: Array
    winter: Array
    most_heating_w: float
    most_cooling_w: float


def _days(patterns: Sequence[DayPattern], months: Sequence[int]) -> Array:
    return np.stack([step_averages(patterns[month - 1]) for month in months])


def rises(low: Array, steps: int) -> list[tuple[int, int, float]]:
    """Where a periodic course of heating set-points goes up: (first step, length, target) of the warm-up before it.

    A warm-up never reaches into a time that already has that set-point.
    """
    found = []
    for at in np.flatnonzero(low > np.roll(low, 1)):
        target = float(low[at])
        length = 0
        while length < steps and low[(at - 1 - length) % STEPS_PER_DAY] < target:
            length += 1
        if length:
            found.append((int((at - length) % STEPS_PER_DAY), length, target))
    return found


def _windows(
    low: Array, high: Array, thermostats: Sequence[Thermostat], orders: Sequence[Command | None]
) -> list[Windows]:
    """Warm-ups and pull-downs of all rooms and days that have a sensor of their own, those of the same hours together."""
    alike: dict[tuple[int, int, float], list[tuple[int, int, float]]] = {}
    for room, thermostat in enumerate(thermostats):
        for course, hours, sign in (
            (low[room], thermostat.warm_up_h, 1.0),
            (-high[room], thermostat.pull_down_h, -1.0),
        ):
            steps = 0 if orders[room] else round(hours * _STEPS_PER_HOUR)
            known: dict[bytes, list[tuple[int, int, float]]] = {}
            for day, values in enumerate(course if steps else ()):
                key = values.tobytes()
                if key not in known:
                    known[key] = rises(values, steps)
                for begin, length, goal in known[key]:
                    alike.setdefault((begin, length, sign), []).append((room, day, sign * goal))
    found = []
    for (begin, length, sign), places in alike.items():
        rooms, days, targets = zip(*places, strict=True)
        found.append(Windows(begin, length, sign, np.array(rooms), np.array(days), np.array(targets)))
    return found


def _limits(thermostats: Sequence[Thermostat]) -> tuple[Array, Array]:
    heating = [t.heating_capacity_w for t in thermostats]
    cooling = [t.cooling_capacity_w for t in thermostats]
    return tuple(np.array([np.inf if most is None else most for most in row]) for row in (heating, cooling))  # type: ignore[return-value]


def _drawn(
    rooms: Sequence[Room], devices: Sequence[DrawnAir | None], solved: Solved, months: list[int]
) -> Drawn | None:
    if not any(devices):
        return None
    outside = solved.outside
    shape = (len(rooms), len(months), STEPS_PER_DAY)
    conductance = np.zeros(shape)
    for index, device in enumerate(devices):
        if device is not None:
            conductance[index] = device.flow_m3_s * outside.air_heat_j_m3k * _days(device.patterns, months)
    reference = np.array([room.cooling_setpoint_c for room in rooms])
    return Drawn(
        conductance=conductance,
        above_k=np.array([d.above_c if d else 0.0 for d in devices]) - reference,
        band_k=np.array([max(d.band_k, 0.01) if d else 1.0 for d in devices]),
        only_cooler=np.array([bool(d and d.only_cooler) for d in devices]),
        outdoor_k=outside.dry_bulb_c[None] - reference[:, None, None],
    )


def _kernel(solved: Solved, exchange_w_k: Array, weight: Array) -> Kernel:
    """Answers of the rooms' air, with their exchange with outdoor air [W/K]."""
    stack, row = solved.stack, solved.row
    store = 1j * OMEGA_RAD_S[None, :] * stack.capacity_j_k[:, None]
    response = 1.0 / (store + exchange_w_k[:, None] + row.own_air)
    return kernel(response, row.mean_gain * row.convected_sum, weight, stack.capacity_j_k)


def _given(commands: Sequence[Command | None], days: str, shape: tuple[int, ...]) -> Array | None:
    """Power told to followers; NaN where a room has its own sensor."""
    if not any(commands):
        return None
    given = np.full(shape, np.nan)
    for index, command in enumerate(commands):
        if command is not None:
            share = command.summer if days == "summer" else command.winter[None]
            given[index] = np.where(share > 0.0, share * command.most_heating_w, share * command.most_cooling_w)
    return given


def controlled(
    solved: Solved, held_w: Array, cold: WinterParts, commands: Mapping[str, Command] | None = None
) -> list[Control | None]:
    """What thermostats make of rooms that all have one; None where the day does not settle.

    Args:
        held_w: heat that reaches the air held at the cooling set-point, (R, months, 144).
        cold: the same on the winter day.
        commands: of rooms that follow another one's sensor, by id.
    """
    rooms = solved.stack.rooms
    thermostats = [room.thermostat for room in rooms if room.thermostat is not None]
    orders = [(commands or {}).get(room.id) for room in rooms]
    weight = np.array([t.radiant_weight for t in thermostats])
    summer = _summer(solved, held_w, thermostats, weight, orders)
    winter = _winter(solved, cold, thermostats, weight, orders)
    controls: list[Control | None] = []
    for index in range(len(rooms)):
        sound = summer[1].settled[index] and winter[1].settled[index]
        controls.append(
            Control(_day(solved, *summer, index, False), _day(solved, *winter, index, True)) if sound else None
        )
    return controls


def _day(solved: Solved, task: Task, done: Marched, index: int, winter: bool) -> Day:
    room = solved.stack.rooms[index]
    reference = room.heating_setpoint_c if winter else room.cooling_setpoint_c
    surfaces = task.free_surfaces_k[index] + _surfaces_k(solved, done.air_k[index], index)
    air = done.air_k[index]
    plant, drawn = done.plant_w[index], done.drawn_w[index]
    return Day(
        plant_w=plant,
        drawn_w=drawn,
        storage_w=-plant - drawn - task.free_w[index],
        air_c=(air + reference).astype(np.float32),
        operative_c=((1.0 - OPERATIVE) * air + OPERATIVE * surfaces + reference).astype(np.float32),
        sensed_c=(done.sensed_k[index] + reference).astype(np.float32),
        low_c=(task.low_k[index] + reference).astype(np.float32),
        high_c=(task.high_k[index] + reference).astype(np.float32),
    )


def _surfaces_k(solved: Solved, air_k: Array, index: int) -> Array:
    """What the air's own course adds to the mean surface temperature, (days, 144) [K]."""
    follow = step_response(solved.row.mean_gain[index] * solved.row.convected_sum[index])
    return to_steps(to_harmonics(air_k) * follow)


def _summer(
    solved: Solved, held_w: Array, thermostats: Sequence[Thermostat], weight: Array, orders: Sequence[Command | None]
) -> tuple[Task, Marched]:
    rooms = solved.stack.rooms
    months = [month.month for month in solved.outside.climate.months]
    reference = np.array([room.cooling_setpoint_c for room in rooms])[:, None, None]
    low = np.stack([_days(t.heating, months) for t in thermostats]) - reference
    high = np.stack([_days(t.cooling, months) for t in thermostats]) - reference
    most_heating, most_cooling = _limits(thermostats)
    task = Task(
        kernel=_kernel(solved, solved.stack.exchange_w_k, weight),
        free_w=held_w,
        free_surfaces_k=mean_surface_k(solved),
        low_k=low,
        high_k=high,
        most_heating_w=most_heating,
        most_cooling_w=most_cooling,
        radiant_weight=weight,
        windows=_windows(low, high, thermostats, orders),
        drawn=_drawn(rooms, [t.drawn_air for t in thermostats], solved, months),
        given_w=_given(orders, "summer", held_w.shape),
    )
    return task, march(task)


def _winter(
    solved: Solved,
    cold: WinterParts,
    thermostats: Sequence[Thermostat],
    weight: Array,
    orders: Sequence[Command | None],
) -> tuple[Task, Marched]:
    rooms = solved.stack.rooms
    day = np.ones((len(rooms), 1, STEPS_PER_DAY))
    low = np.stack([_days((t.winter,), (1,)) for t in thermostats])
    # With an allowance in place of a warm-up worked out, the load is that of the held set-point.
    simple = np.array([t.reheat_w_m2 is not None for t in thermostats])[:, None, None]
    low = np.where(simple, low.max(axis=2, keepdims=True), low)
    low = low - np.array([room.heating_setpoint_c for room in rooms])[:, None, None]
    high = np.full(low.shape, np.inf)
    leak = np.array([room.winter_leak_m3_s + room.direct_outdoor_air_m3_s for room in rooms])
    most_heating, most_cooling = _limits(thermostats)
    task = Task(
        kernel=_kernel(solved, leak * solved.outside.air_heat_j_m3k, weight),
        free_w=cold.net_w[:, None, None] * day + (0.0 if cold.gains_w is None else cold.gains_w.sum(axis=1)[:, None]),
        free_surfaces_k=cold.surfaces_k[:, None, None] * day,
        low_k=low,
        high_k=high,
        most_heating_w=most_heating,
        most_cooling_w=most_cooling,
        radiant_weight=weight,
        windows=_windows(low, high, thermostats, orders),
        given_w=_given(orders, "winter", low.shape),
    )
    return task, march(task)
