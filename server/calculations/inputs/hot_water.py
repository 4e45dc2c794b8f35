"""Stores of hot water, and what the rooms that they serve draw."""

from collections.abc import Iterable, Mapping
from typing import Any

from calculations.inputs.schedules import holidays, year_plan
from calculations.lookups import Lookups
from pendrum_core.model.hot_water import Collector, Draw, HotWaterStore
from pendrum_core.model.rooms import Room
from pendrum_core.schedule.pattern import DayPattern, constant, step_averages
from projects.resolver import Effective
from projects.rows import Row

_OF_COLLECTOR = {
    "collector_m2": "area_m2",
    "collector_tilt_deg": "tilt_deg",
    "collector_azimuth_deg": "azimuth_deg",
    "collector_eta0": "eta0",
    "collector_a1_w_m2k": "a1_w_m2k",
    "collector_a2_w_m2k2": "a2_w_m2k2",
    "collector_excess_k": "excess_k",
    "tank_l": "tank_l",
    "tank_most_c": "most_c",
}


def litres_day(use: Row, people: float, area_m2: float) -> float:
    """What a room of a use draws on the busiest day [L]."""
    by_person, by_area = use["hot_water_l_person_day"] * people, use["hot_water_l_m2_day"] * area_m2
    return float(by_person + by_area + use["hot_water_l_room_day"])


def hot_water_stores(
    look: Lookups, rooms: Mapping[str, Room], effective: Mapping[str, Mapping[str, Effective]]
) -> Iterable[HotWaterStore]:
    """Every store with the draws of its rooms; where there is one store, rooms that name none draw from it."""
    stores = look.every("hot_water")
    only = next(iter(stores)) if len(stores) == 1 else None
    draws: dict[str, dict[float, float]] = {identity: {} for identity in stores}
    for identity, room in rooms.items() if stores else ():
        row = look.existing("room", identity)
        store, use = row["hot_water"] or only, look.row("use", row["use"])
        if store is None or use is None:
            continue
        people = (effective[identity]["people_per_m2"].value or 0.0) * room.floor_area_m2 if row["occupied"] else 0.0
        litres = litres_day(use, people, room.floor_area_m2)
        if litres > 0.0:
            draws[store][use["hot_water_c"]] = draws[store].get(use["hot_water_c"], 0.0) + litres
    for identity, row in stores.items():
        yield _store(look, row, tuple(Draw(litres, hot) for hot, litres in draws[identity].items()))


def _store(look: Lookups, row: Row, draws: tuple[Draw, ...]) -> HotWaterStore:
    of_sun = {core: row[field] for field, core in _OF_COLLECTOR.items()}
    plain: dict[str, Any] = {
        field: value for field, value in row.items() if field not in _OF_COLLECTOR and field != "profile"
    }
    return HotWaterStore(
        **plain,
        draws=draws,
        profile=_busiest(look, row["profile"]),
        cold_c=look.said("site", "cold_water_c"),
        collector=Collector(**of_sun) if row["collector_m2"] else None,
    )


def _busiest(look: Lookups, schedule: str | None) -> DayPattern:
    """The day of the year that has the most in it; even all day without a schedule."""
    if schedule is None:
        return constant(1.0)
    plan = year_plan(look.existing("schedule", schedule))
    used = sorted(set(plan.days(look.said("project", "year"), holidays(look))))
    return max((plan.pattern(name) for name in used), key=lambda pattern: float(step_averages(pattern).mean()))
