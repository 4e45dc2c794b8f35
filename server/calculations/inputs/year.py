"""Rooms over a year as the core takes them: schedules day by day, in local standard time."""

from datetime import date, timedelta

from calculations.inputs.gains import return_share, told_gains, told_return_gains
from calculations.inputs.schedules import holidays, month_day, year_plan
from calculations.inputs.thermostat import Goal, goals_of
from calculations.lookups import Lookups
from pendrum_core.model.rooms import Room
from pendrum_core.model.schedules import (
    CONSTANT_ONE,
    DayPattern,
    constant,
    in_daylight_saving,
    multiplied,
    shifted,
    where_on,
)
from pendrum_core.model.thermostats import NO_COOLING, NO_HEATING
from pendrum_core.model.year import YearCourse, YearDrawnAir, YearGain, YearRoom
from projects.resolver import Effective
from projects.rows import Row

_TRIGGER_BAND_K = 0.5


class Courses:
    """Courses of a project's schedules over so many days of its year; each is made once."""

    def __init__(self, look: Lookups, days: int) -> None:
        self._look, self._days = look, days
        self._known: dict[str | None, YearCourse] = {None: YearCourse((CONSTANT_ONE,), (0,) * days)}

    def of(self, schedule: str | None) -> YearCourse:
        """A schedule's course; none given means always full."""
        if schedule not in self._known:
            assert schedule is not None
            self._known[schedule] = self._made(schedule)
        return self._known[schedule]

    def constant(self, value: float) -> YearCourse:
        """The same value all year."""
        return YearCourse((constant(value),), (0,) * self._days)

    def together(self, one: YearCourse, other: YearCourse, join: "Join") -> YearCourse:
        """Two courses joined day by day."""
        places: dict[tuple[int, int], int] = {}
        patterns: list[DayPattern] = []
        days = []
        for pair in zip(one.days, other.days, strict=True):
            if pair not in places:
                places[pair] = len(patterns)
                patterns.append(join(one.patterns[pair[0]], other.patterns[pair[1]]))
            days.append(places[pair])
        return YearCourse(tuple(patterns), tuple(days))

    def _made(self, schedule: str) -> YearCourse:
        look = self._look
        year, off = look.said("project", "year"), holidays(look)
        plan = year_plan(look.existing("schedule", schedule))
        saving = (look.said("site", "saving_from"), look.said("site", "saving_to"))
        start, end = (month_day(day) if day else None for day in saving)
        names = plan.days(year, off)
        places: dict[tuple[str, bool], int] = {}
        patterns: list[DayPattern] = []
        days = []
        for number in range(self._days):
            name = names[min(number, len(names) - 1)]
            on = date(year, 1, 1) + timedelta(min(number, len(names) - 1))
            key = (name, in_daylight_saving(on.month, on.day, start, end))
            if key not in places:
                places[key] = len(patterns)
                patterns.append(shifted(plan.pattern(name), -60) if key[1] else plan.pattern(name))
            days.append(places[key])
        return YearCourse(tuple(patterns), tuple(days))


class Join:
    """How two day patterns become one."""

    def __call__(self, one: DayPattern, other: DayPattern) -> DayPattern:
        raise NotImplementedError


class _Times(Join):
    def __init__(self, factor: float) -> None:
        self.factor = factor

    def __call__(self, one: DayPattern, other: DayPattern) -> DayPattern:
        return multiplied(one, other, self.factor)


class _WhereOn(Join):
    def __init__(self, outside: float) -> None:
        self.outside = outside

    def __call__(self, one: DayPattern, other: DayPattern) -> DayPattern:
        return where_on(one, other, self.outside)


def year_room(look: Lookups, courses: Courses, room: Room, values: dict[str, Effective]) -> YearRoom:
    """A calculated room over the year."""
    row = look.existing("room", room.id)
    use = look.existing("use", row["use"])
    gains = []
    share = return_share(look, row, use)
    for told in told_gains(look, use, values, room.floor_area_m2, row["occupied"], share):
        course = courses.of(told.schedule)
        if told.person is not None:
            course = courses.together(course, courses.of(told.person), _Times(1.0 / told.person_w))
        gains.append(YearGain(told.category, told.sensible_w, told.radiant_share, course, told.latent_w))
    heat, cool = goals_of(values)
    return YearRoom(
        room,
        tuple(gains),
        heating=_set_points(courses, use, "heating", heat),
        cooling=_set_points(courses, use, "cooling", cool),
        heating_w=row["heating_capacity_w"],
        cooling_w=row["cooling_capacity_w"],
        drawn=_drawn(look, courses, use, row, room),
        people=courses.of(use["people_schedule"]) if row["occupied"] and values["people_per_m2"].value else None,
        warm_limit_c=room.warm_limit_c,
        humidity_kept=courses.of(use["humidity_schedule"]),
        return_gains=tuple(
            YearGain(told.category, told.sensible_w, 0.0, courses.of(told.schedule))
            for told in told_return_gains(use, values, room.floor_area_m2, share)
        ),
    )


def _set_points(courses: Courses, use: Row, what: str, goal: Goal) -> YearCourse | None:
    """Set-points day by day; a programme stands for the use's value, not for one that a room has of its own."""
    if not goal.there:
        return None
    programme = use[f"{what}_programme"]
    points = courses.of(programme) if programme is not None and not goal.own else courses.constant(goal.value_c)
    if use["setpoint_schedule"] is None or use[f"{what}_away"] == "hold":
        return points
    off = NO_HEATING if what == "heating" else NO_COOLING
    away = off if use[f"{what}_away"] == "off" else goal.away_c
    return courses.together(courses.of(use["setpoint_schedule"]), points, _WhereOn(away))


def _drawn(look: Lookups, courses: Courses, use: Row, row: Row, room: Room) -> YearDrawnAir | None:
    triggered = [one for one in look.many("extracts of room", row["id"]) if one["above_c"] is not None]
    if triggered:
        flow, above = sum(one["flow_m3_s"] for one in triggered), min(one["above_c"] for one in triggered)
        return YearDrawnAir(flow, above, _TRIGGER_BAND_K, False, courses.of(triggered[0]["schedule"]))
    if use["drawn_air"] == "none" or not use["drawn_air_ach"]:
        return None
    return YearDrawnAir(
        use["drawn_air_ach"] * room.volume_m3 / 3600.0,
        use["drawn_air_above_c"],
        use["drawn_air_band_k"],
        use["drawn_air"] == "windows",
        courses.of(use["drawn_air_schedule"]),
    )
