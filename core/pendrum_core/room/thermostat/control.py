"""Thermostats of a stack of rooms: from set-points by schedule to what the plant does on every design day.

Source: set-points by definition of the schedules that they follow.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import Room
from pendrum_core.model.thermostats import DrawnAir, Thermostat
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.harmonics import OMEGA_RAD_S, At, step_response, to_harmonics, to_steps
from pendrum_core.room.balance.solve import Solved
from pendrum_core.room.days.summer import mean_surface_k, radiant_w
from pendrum_core.room.days.winter import WinterParts, radiant_shares
from pendrum_core.room.thermostat.controlled import Control, Day
from pendrum_core.room.thermostat.kernel import Kernel, RadiantPlant, convolved, kernel, radiant_kernel
from pendrum_core.room.thermostat.march import Drawn, Marched, Task, Windows, march
from pendrum_core.schedule.pattern import DayPattern, step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Single = NDArray[np.float32]
_STEPS_PER_HOUR = STEPS_PER_DAY // 24


@dataclass(frozen=True)
class Command:
    """Share of its own capacity that a room's plant is told to give: summer (months, 144), winter (144,); heating > 0."""

    summer: Array
    winter: Array
    most_heating_w: float
    most_cooling_w: float


def _days(patterns: Sequence[DayPattern], months: Sequence[int]) -> Array:
    return np.stack([step_averages(patterns[month - 1]) for month in months])


def _every(courses: Sequence[Sequence[DayPattern]], months: Sequence[int]) -> Array:
    """Days of many rooms, (R, M, 144); those of one use are looked up once."""
    known: dict[tuple[int, ...], Array] = {}
    keys = [tuple(map(id, patterns)) for patterns in courses]
    for key, patterns in zip(keys, courses, strict=True):
        if key not in known:
            known[key] = _days(patterns, months)
    return np.stack([known[key] for key in keys])


def rises(low: Array, steps: int) -> list[tuple[int, int, float]]:
    """Where a periodic course of heating set-points goes up: (first step, length [steps], target [°C]) of the warm-up before it.

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
) -> Windows | None:
    """Warm-ups and pull-downs of all rooms and days that have a sensor of their own."""
    # Rooms of one use share their set-points: what was found for one of them serves for all.
    known: dict[tuple[int, bytes], Array] = {}
    found = []
    for room, thermostat in enumerate(thermostats):
        for course, hours, sign in (
            (low[room], thermostat.warm_up_h, 1.0),
            (-high[room], thermostat.pull_down_h, -1.0),
        ):
            steps = 0 if orders[room] else round(hours * _STEPS_PER_HOUR)
            if not steps:
                continue
            key = (steps, course.tobytes())
            if key not in known:
                rises_of = [(day, *rise) for day, values in enumerate(course) for rise in rises(values, steps)]
                known[key] = np.array(rises_of, dtype=np.float64).reshape(-1, 4)
            rows = known[key]
            found.append(
                np.column_stack([np.full(len(rows), room), rows[:, :3], np.full(len(rows), sign), sign * rows[:, 3]])
            )
    if not found:
        return None
    table = np.concatenate(found)
    room, day, begin, length, sign = table[:, :5].astype(np.int64).T
    return Windows(room, day, begin, length, sign, target_k=table[:, 5])


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


def response_k_w(solved: Solved, exchange_w_k: Array) -> Complex:
    """Air temperature per watt into it, with the rooms' exchange with outdoor air [W/K]; (R, 361) [K/W]."""
    store = 1j * OMEGA_RAD_S[None, :] * solved.stack.capacity_j_k[:, None]
    return np.asarray(1.0 / (store + exchange_w_k[:, None] + solved.row.own_air))


def _kernel(solved: Solved, exchange_w_k: Array, weight: Array) -> Kernel:
    """Answers of the rooms' air to heat that is brought into it."""
    row = solved.row
    surfaces = row.mean_gain * row.convected_sum
    return kernel(
        response_k_w(solved, exchange_w_k), surfaces, weight, solved.stack.capacity_j_k, solved.row.follows_at_once
    )


def _radiant_plant(solved: Solved) -> RadiantPlant | None:
    """Emitters of the winter day where some of them radiate."""
    share, row = radiant_shares(solved), solved.row
    if not share.any():
        return None
    area = solved.stack.total_area[:, None]
    to_air = (row.convected_sum + row.through_mean * row.face_sum) / area
    return RadiantPlant(share, to_air, row.mean_gain * row.face_sum / area)


def _plant_kernel(solved: Solved, exchange_w_k: Array, weight: Array) -> Kernel | None:
    """Answers to the heat of emitters; none where it all goes into the air."""
    plant, row = _radiant_plant(solved), solved.row
    if plant is None:
        return None
    return radiant_kernel(response_k_w(solved, exchange_w_k), row.mean_gain * row.convected_sum, weight, plant)


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
    sound = summer[2].settled & winter[2].settled
    days = zip(_season(solved, *summer, winter=False), _season(solved, *winter, winter=True), sound, strict=True)
    return [Control(warm, cold_day) if fine else None for warm, cold_day, fine in days]


def _season(solved: Solved, task: Task, free_surfaces_k: Array, done: Marched, winter: bool) -> list[Day]:
    """The days of every room; `free_surfaces_k` is the mean surface temperature with the air held at the reference."""
    held = (room.heating_setpoint_c if winter else room.cooling_setpoint_c for room in solved.stack.rooms)
    reference = np.fromiter(held, dtype=np.float64)[:, None, None]
    # What the air's own course adds to the mean surface temperature.
    follow = step_response(solved.row.mean_gain * solved.row.convected_sum)
    surfaces = free_surfaces_k + to_steps(to_harmonics(done.air_k) * follow[:, None])
    radiant = _radiant_plant(solved) if winter else None
    if radiant is not None:
        answer = step_response(radiant.share[:, None] * radiant.to_surfaces)
        surfaces += to_steps(to_harmonics(done.plant_w) * answer[:, None])
    air, mean, sensed, low, high = (
        (values + reference).astype(np.float32)
        for values in (done.air_k, surfaces, done.sensed_k, task.low_k, task.high_k)
    )
    rows = zip(done.plant_w, done.drawn_w, air, mean, sensed, _shared(low), _shared(high), strict=True)
    return [Day(*row) for row in rows]


def _shared(courses: Single) -> list[Single]:
    """Courses of rooms, the equal ones as one object: rooms of one use have the same set-points."""
    known: dict[bytes, Single] = {}
    return [known.setdefault(course.tobytes(), course.copy()) for course in courses]


def _free_summer(solved: Solved, held_w: Array, answer: Kernel, weight: Array) -> tuple[Array, Array, Array]:
    """Without plant: the air over each step, what is sensed at its end, and the surfaces with the air held [K].

    The heat that reaches the held air is known as averages over steps. What falls onto the faces jumps at their
    beginnings and comes through in between, so that its way to the air is folded as a whole.
    """
    row, area = solved.row, solved.stack.total_area[:, None]
    radiant = radiant_w(solved)
    falling = to_harmonics(radiant)
    through = (row.convected_sum + row.through_mean * row.face_sum) / area
    response = response_k_w(solved, solved.stack.exchange_w_k)
    arriving = to_steps(falling * step_response(through)[:, None])
    rest = held_w - arriving
    air = convolved(answer.held.air, rest) + to_steps(falling * step_response(response * through)[:, None])
    share = weight[:, None]
    sensed = response * ((1.0 - share) + share * row.mean_gain * row.convected_sum)
    end = convolved(answer.held.end, rest) + to_steps(falling * step_response(sensed * through, At.END)[:, None])
    surfaces = mean_surface_k(solved, radiant)
    if weight.any():
        end += weight[:, None, None] * mean_surface_k(solved, radiant, At.END)
    return air, end, surfaces


def _summer(
    solved: Solved, held_w: Array, thermostats: Sequence[Thermostat], weight: Array, orders: Sequence[Command | None]
) -> tuple[Task, Array, Marched]:
    rooms = solved.stack.rooms
    months = [month.month for month in solved.outside.climate.months]
    reference = np.array([room.cooling_setpoint_c for room in rooms])[:, None, None]
    low = _every([t.heating for t in thermostats], months) - reference
    high = _every([t.cooling for t in thermostats], months) - reference
    most_heating, most_cooling = _limits(thermostats)
    answer = _kernel(solved, solved.stack.exchange_w_k, weight)
    free_air, free_end, surfaces = _free_summer(solved, held_w, answer, weight)
    task = Task(
        kernel=answer,
        free_air_k=free_air,
        free_end_k=free_end,
        low_k=low,
        high_k=high,
        most_heating_w=most_heating,
        most_cooling_w=most_cooling,
        windows=_windows(low, high, thermostats, orders),
        drawn=_drawn(rooms, [t.drawn_air for t in thermostats], solved, months),
        given_w=_given(orders, "summer", held_w.shape),
    )
    return task, surfaces, march(task)


def _winter(
    solved: Solved,
    cold: WinterParts,
    thermostats: Sequence[Thermostat],
    weight: Array,
    orders: Sequence[Command | None],
) -> tuple[Task, Array, Marched]:
    rooms = solved.stack.rooms
    day = np.ones((len(rooms), 1, STEPS_PER_DAY))
    low = _every([(t.winter,) for t in thermostats], (1,))
    # With an allowance in place of a warm-up worked out, the load is that of the held set-point.
    simple = np.array([t.reheat_w_m2 is not None for t in thermostats])[:, None, None]
    low = np.where(simple, low.max(axis=2, keepdims=True), low)
    low = low - np.array([room.heating_setpoint_c for room in rooms])[:, None, None]
    high = np.full(low.shape, np.inf)
    leak = np.array([room.winter_leak_m3_s + room.direct_outdoor_air_m3_s + room.transfer_m3_s for room in rooms])
    most_heating, most_cooling = _limits(thermostats)
    exchange = leak * solved.outside.air_heat_j_m3k
    into_air = _kernel(solved, exchange, weight)
    free = cold.net_w[:, None, None] * day + (0.0 if cold.gains_w is None else cold.gains_w.sum(axis=1)[:, None])
    surfaces = cold.surfaces_k[:, None, None] * day
    task = Task(
        kernel=_plant_kernel(solved, exchange, weight) or into_air,
        free_air_k=convolved(into_air.held.air, free),
        free_end_k=convolved(into_air.held.end, free) + weight[:, None, None] * surfaces,
        low_k=low,
        high_k=high,
        most_heating_w=most_heating,
        most_cooling_w=most_cooling,
        windows=_windows(low, high, thermostats, orders),
        given_w=_given(orders, "winter", low.shape),
    )
    return task, surfaces, march(task)
