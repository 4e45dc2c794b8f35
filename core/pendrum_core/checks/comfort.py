"""Snags of thermostats and humidity."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.room.outcome.loads import RoomLoads
from pendrum_core.room.thermostat.controlled import Missed, flat_out_h

_NOTICED_K, _STEPS_AN_HOUR = 0.05, 6


def comfort_snags(results: BuildingResults) -> Iterator[Snag]:
    """Rooms whose set-points or humidity limits are missed, and devices that work against each other."""
    for room_id, loads in results.rooms.items():
        if loads.control is not None:
            yield from _short(room_id, loads, results)
        if loads.cooling is None:
            yield from _too_warm(room_id, loads, results)
    yield from _humidity(results)


def _too_warm(room_id: str, loads: RoomLoads, results: BuildingResults) -> Iterator[Snag]:
    """Rooms without cooling that stand above the limit of their use."""
    if loads.floating_peak_c is None:
        return
    served_c = results.served_air_c(room_id)
    air_c = loads.air_c if served_c is None else served_c
    above = (air_c > loads.room.warm_limit_c + _NOTICED_K).sum(axis=1)
    day = int(above.argmax())
    if not above[day]:
        return
    month, step = (int(i) for i in np.unravel_index(int(air_c.argmax()), air_c.shape))
    months = results.building.climate.months
    peak = f"{MONTHS[day_number(months[month]) - 1]} {clock(step)}"
    yield Snag(
        DOUBTFUL,
        "too_warm",
        kind="room",
        id=room_id,
        stage="loads",
        sentence=f"{_title(loads)} is not cooled and reaches {float(air_c.max()):.1f} °C ({peak}); it is above its limit of "
        f"{loads.room.warm_limit_c:.0f} °C for {above[day] / _STEPS_AN_HOUR:.1f} h of the {MONTHS[day_number(months[day]) - 1]} "
        "design day.",
        way_out="shade it, ventilate it, cool it, or raise the limit of its use",
    )


def _title(loads: RoomLoads) -> str:
    return f"{loads.room.number} {loads.room.name}"


def _short(room_id: str, loads: RoomLoads, results: BuildingResults) -> Iterator[Snag]:
    control, thermostat = loads.control, loads.room.thermostat
    assert control is not None and thermostat is not None
    leader = results.rooms.get(thermostat.leader or "")
    for code, day, missed, what, most in (
        (
            "cooling_short",
            control.summer,
            control.summer.too_warm(),
            "above its cooling",
            thermostat.cooling_capacity_w,
        ),
        (
            "heating_short",
            control.winter,
            control.winter.too_cold(),
            "below its heating",
            thermostat.heating_capacity_w,
        ),
    ):
        if missed is None or (most is None and leader is None):
            continue
        plant = f"its {most / 1000.0:.2f} kW" if most is not None else "its plant"
        led = f", led by the sensor of {_title(leader)}" if leader else ""
        hours = flat_out_h(day.plant_w[missed.day], most)
        yield Snag(
            DOUBTFUL,
            code,
            kind="room",
            id=room_id,
            stage="loads",
            sentence=f"{_title(loads)}{led}: with {plant} it comes {missed.kelvin:.1f} K {what} set-point, {missed.hours:.1f} h "
            f"{_when(missed, what, results)}" + (f"; flat out for {hours:.1f} h." if hours else "."),
            way_out="more capacity, another set-point, or less load" if leader is None else "a sensor of its own",
        )
    if thermostat.leader and leader is None:
        yield Snag(
            DOUBTFUL,
            "leader_missing",
            kind="room",
            id=room_id,
            stage="rooms",
            sentence=f"{_title(loads)} follows the sensor of a room that is not calculated; it uses one of its own.",
            way_out="choose another sensor room",
        )
    drawn = thermostat.drawn_air
    if drawn is not None and not drawn.only_cooler and loads.room.cooled:
        yield Snag(
            DOUBTFUL,
            "extract_with_cooling",
            kind="room",
            id=room_id,
            stage="uses",
            sentence=f"{_title(loads)} is cooled, and its extract fan draws outdoor air in above {drawn.above_c:.1f} °C: the two "
            "work against each other on warm days.",
            way_out="switch one of them off",
        )


def _when(missed: Missed, what: str, results: BuildingResults) -> str:
    if what.startswith("below"):
        return f"of the winter day, worst at {clock(missed.step)}"
    month = MONTHS[day_number(results.building.climate.months[missed.day]) - 1]
    return f"in {month}, worst at {clock(missed.step)}"


def _humidity(results: BuildingResults) -> Iterator[Snag]:
    for room_id, moisture in results.moisture.items():
        loads = results.rooms[room_id]
        limits = loads.room.humidity
        assert limits is not None
        if limits.high is not None and moisture.highest > limits.high + 0.005:
            month = MONTHS[day_number(results.building.climate.months[moisture.month]) - 1]
            yield Snag(
                DOUBTFUL,
                "too_humid",
                kind="room",
                id=room_id,
                stage="uses",
                sentence=f"{_title(loads)} reaches {moisture.highest:.0%} relative humidity ({month} {clock(moisture.step)}), its limit "
                f"is {limits.high:.0%}; keeping it takes {moisture.drying_w / 1000.0:.2f} kW of drying.",
                way_out="drier supply air, more of it, or another limit",
            )
        if limits.low is not None and moisture.humidifying_kg_s > 0.0:
            yield Snag(
                NOTE,
                "too_dry",
                kind="room",
                id=room_id,
                stage="uses",
                sentence=f"{_title(loads)} dries to {moisture.winter_relative:.0%} on the winter day, its limit is {limits.low:.0%}; "
                f"{moisture.humidifying_kg_s * 3600.0:.1f} kg/h of water ({moisture.humidifying_w / 1000.0:.2f} kW) keep it.",
                way_out="plan a humidifier, or lower the limit",
            )
