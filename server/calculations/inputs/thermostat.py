"""Set-points over the day, limits of plant and what else a room's thermostat is told."""

from dataclasses import dataclass

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.model.rooms import HumidityLimits
from pendrum_core.model.schedules import DayPattern, constant, crossings, where_on
from pendrum_core.model.thermostats import NEVER_COOLED, NEVER_HEATED, NO_COOLING, NO_HEATING, DrawnAir, Thermostat
from projects.resolver import Effective, value_of_use
from projects.rows import Row

Values = dict[str, Effective]
Days = tuple[DayPattern, ...]
_OPERATIVE = 0.5
_TRIGGER_BAND_K = 0.5


@dataclass(frozen=True)
class Goal:
    """One of the two set-points of a room: whether it has it, the value and whether that is its own, the value away."""

    there: bool
    value_c: float
    own: bool
    away_c: float


def thermostat_of(look: Lookups, use: Row, room: Row, values: Values, volume_m3: float) -> Thermostat | None:
    """A room's thermostat; None where its set-points are held day and night and its plant is sized without limits."""
    weight = {"air": 0.0, "operative": _OPERATIVE, "mixed": use["radiant_weight"]}[use["sensing"]]
    drawn = _triggered_extract(look, room) or _drawn_air(look, use, volume_m3)
    heat, cool = goals_of(values)
    goes_down = heat.there and _moves(use, "heating", heat)
    # A room that names itself has a sensor of its own.
    sensor = values["sensor_room"].value
    leader = sensor if sensor != room["id"] else None
    limited = any(value is not None for value in (room["heating_capacity_w"], room["cooling_capacity_w"], leader))
    if not (goes_down or (cool.there and _moves(use, "cooling", cool)) or weight or drawn or limited):
        return None
    heating, winter = _remembered(look, use["id"], "heating", heat) if heat.there else (NEVER_HEATED, NEVER_HEATED[0])
    cooling, _ = _remembered(look, use["id"], "cooling", cool) if cool.there else (NEVER_COOLED, NEVER_COOLED[0])
    return Thermostat(
        heating=heating,
        cooling=cooling,
        winter=winter,
        radiant_weight=weight,
        heating_capacity_w=room["heating_capacity_w"],
        cooling_capacity_w=room["cooling_capacity_w"],
        warm_up_h=values["warm_up_h"].value,
        pull_down_h=values["pull_down_h"].value,
        reheat_w_m2=use["reheat_w_m2"] if use["warm_up"] == "allowance" and goes_down else None,
        drawn_air=drawn,
        leader=leader,
    )


def goals_of(values: Values) -> tuple[Goal, Goal]:
    """Heating and cooling."""
    heating = ("heated", "heating_setpoint_c", "heating_setback_c")
    cooling = ("cooled", "cooling_setpoint_c", "cooling_setup_c")
    heat, cool = (
        Goal(values[on].value, values[field].value, values[field].origin == "own", values[away].value)
        for on, field, away in (heating, cooling)
    )
    return heat, cool


def crossed(look: Lookups, use: Row, values: Values) -> tuple[int, tuple[tuple[int, int], ...]] | None:
    """First month (1..12) whose heating set-point is above its cooling set-point, and the minutes of the day when."""
    heat, cool = goals_of(values)
    if not (heat.there and cool.there):
        return None
    found: tuple[int, tuple[tuple[int, int], ...]] | None = look.remembered(
        "crossed", f"{use['id']}/{heat}/{cool}", lambda: _crossed(look, use["id"], heat, cool)
    )
    return found


def _crossed(look: Lookups, use: str, heat: Goal, cool: Goal) -> tuple[int, tuple[tuple[int, int], ...]] | None:
    lows, highs = (_remembered(look, use, what, goal)[0] for what, goal in (("heating", heat), ("cooling", cool)))
    for month, (low, high) in enumerate(zip(lows, highs, strict=True), 1):
        if found := crossings(low, high):
            return month, found
    return None


def set_points_of_use(look: Lookups, use: Row) -> tuple[Days, Days]:
    """Heating and cooling set-points of January to December, as a room without values of its own has them."""
    low, high, down, up = (
        value_of_use(look, use, field)
        for field in ("heating_setpoint_c", "cooling_setpoint_c", "heating_setback_c", "cooling_setup_c")
    )
    heat, cool = Goal(use["heated"], low, False, down), Goal(use["cooled"], high, False, up)
    heating = _remembered(look, use["id"], "heating", heat)[0] if heat.there else NEVER_HEATED
    cooling = _remembered(look, use["id"], "cooling", cool)[0] if cool.there else NEVER_COOLED
    return heating, cooling


def humidity_of(look: Lookups, use: Row) -> HumidityLimits | None:
    """Humidity limits of a use; None where it has none."""
    if use["humidity_low"] is None and use["humidity_high"] is None:
        return None
    patterns = design_patterns(look, use["humidity_schedule"]).by_month
    return HumidityLimits(use["humidity_low"], use["humidity_high"], patterns)


def _moves(use: Row, what: str, goal: Goal) -> bool:
    """Whether a set-point is not the same day and night."""
    by_programme = use[f"{what}_programme"] is not None and not goal.own
    return by_programme or (use["setpoint_schedule"] is not None and use[f"{what}_away"] != "hold")


def _remembered(look: Lookups, use: str, what: str, goal: Goal) -> tuple[Days, DayPattern]:
    found: tuple[Days, DayPattern] = look.remembered(
        f"{what} set-points", f"{use}/{goal}", lambda: _set_points(look, use, what, goal)
    )
    return found


def _set_points(look: Lookups, use_id: str, what: str, goal: Goal) -> tuple[Days, DayPattern]:
    """Set-points of January to December and of the winter day.

    A programme of temperatures stands for the use's value, not for one that a room has of its own.
    """
    use = look.existing("use", use_id)
    value = constant(goal.value_c)
    days: Days = (value,) * 12
    winter = value
    programme = use[f"{what}_programme"]
    if programme is not None and not goal.own:
        found = design_patterns(look, programme, "highest" if what == "heating" else "lowest")
        days, winter = found.by_month, found.winter
    if use["setpoint_schedule"] is None or use[f"{what}_away"] == "hold":
        return days, winter
    off = NO_HEATING if what == "heating" else NO_COOLING
    away = off if use[f"{what}_away"] == "off" else goal.away_c
    on = design_patterns(look, use["setpoint_schedule"], "highest")
    return (
        tuple(where_on(present, day, away) for present, day in zip(on.by_month, days, strict=True)),
        where_on(on.winter, winter, away),
    )


def _triggered_extract(look: Lookups, room: Row) -> DrawnAir | None:
    """Extracts of the room that run by its temperature, as one; fully on half a kelvin above where they begin."""
    rows = [row for row in look.many("extracts of room", room["id"]) if row["above_c"] is not None]
    if not rows:
        return None
    return DrawnAir(
        flow_m3_s=sum(row["flow_m3_s"] for row in rows),
        above_c=min(row["above_c"] for row in rows),
        band_k=_TRIGGER_BAND_K,
        only_cooler=False,
        patterns=design_patterns(look, rows[0]["schedule"], "highest").by_month,
    )


def _drawn_air(look: Lookups, use: Row, volume_m3: float) -> DrawnAir | None:
    if use["drawn_air"] == "none" or not use["drawn_air_ach"]:
        return None
    return DrawnAir(
        flow_m3_s=use["drawn_air_ach"] * volume_m3 / 3600.0,
        above_c=use["drawn_air_above_c"],
        band_k=use["drawn_air_band_k"],
        only_cooler=use["drawn_air"] == "windows",
        patterns=design_patterns(look, use["drawn_air_schedule"], "highest").by_month,
    )
