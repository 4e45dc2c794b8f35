"""People, lights and equipment of a room."""

from calculations.inputs.schedules import DesignPatterns, design_patterns
from calculations.lookups import Lookups
from pendrum_core.model.rooms import Gain
from pendrum_core.model.schedules import DayPattern, multiplied
from pendrum_core.people.activity import REFERENCE_C, PersonHeat, person_heat
from projects.document import Row
from projects.resolver import Effective


def person_of(use: Row, room_c: float) -> PersonHeat:
    """Heat of one person of a use: entered, or by activity and room temperature."""
    if use["activity"] is None:
        return PersonHeat(use["person_sensible_w"], use["person_latent_w"])
    return person_heat(use["activity"], room_c)


def item_w(item: Row, area_m2: float, people: float) -> float:
    """Nameplate power of an item times its count and how much of it is used [W]."""
    per = {"w": 1.0, "w_m2": area_m2, "w_per_person": people}[item["basis"]]
    return float(item["value"] * per * item["count"] * item["usage_factor"])


def gains_of(
    look: Lookups, use: Row, values: dict[str, Effective], area: float, occupied: bool = True
) -> tuple[Gain, ...]:
    """Every gain of a room that is not nothing; nobody is in a room that is not occupied."""
    people = values["people_per_m2"].value * area if occupied else 0.0
    room_c = values["cooling_setpoint_c"].value if values["cooled"].value else REFERENCE_C
    person = person_of(use, room_c)
    lights = values["lights_w_m2"].value * area
    found = [
        _people(look, use, people, person),
        _gain(look, "lights", "Lights", lights, 0.0, use["lights_radiant_share"], use["lights_schedule"]),
        _gain(look, "lights", "Task lights", use["task_lights_w_m2"] * area, 0.0, use["lights_radiant_share"],
              use["task_lights_schedule"]),
        _equipment(look, "Equipment", values["equipment_w_m2"].value * area, use, "equipment_", use["equipment_schedule"]),
    ]  # fmt: skip
    found += [
        _equipment(look, item["name"], item_w(item, area, people), item, "", item["schedule"])
        for item in look.many("items of use", use["id"])
    ]
    return tuple(gain for gain in found if gain.sensible_w or gain.latent_w)


def _gain(
    look: Lookups, category: str, name: str, sensible: float, latent: float, radiant: float, schedule: str | None
) -> Gain:
    return _with(design_patterns(look, schedule), category, name, sensible, latent, radiant)


def _with(patterns: DesignPatterns, category: str, name: str, sensible: float, latent: float, radiant: float) -> Gain:
    # Without a pattern of its own the winter day has the usual one; how much of it counts is the project's choice.
    winter = patterns.winter if patterns.winter_chosen else patterns.by_month[0]
    return Gain(category, sensible, latent, radiant, patterns.by_month[0], patterns.by_month, name, winter)


def _equipment(look: Lookups, name: str, power: float, row: Row, prefix: str, schedule: str | None) -> Gain:
    latent = power * row[f"{prefix}latent_share"]
    kept = power * (1.0 - row[f"{prefix}vented_share"])
    return _gain(look, "equipment", name, kept - latent, latent, row[f"{prefix}radiant_share"], schedule)


def _people(look: Lookups, use: Row, people: float, person: PersonHeat) -> Gain:
    """Presence times what one gives; a schedule of W per person sets the sensible part, the latent one follows it."""
    presence = design_patterns(look, use["people_schedule"])
    sensible, latent = people * person.sensible_w, people * person.latent_w
    if use["person_schedule"] is None or not person.sensible_w:
        return _with(presence, "people", "People", sensible, latent, use["people_radiant_share"])
    key = f"{use['people_schedule']}/{use['person_schedule']}/{person.sensible_w}"
    patterns: DesignPatterns = look.remembered(
        "person patterns", key, lambda: _scaled(look, use["people_schedule"], use["person_schedule"], person.sensible_w)
    )
    return _with(patterns, "people", "People", sensible, latent, use["people_radiant_share"])


def _scaled(look: Lookups, presence: str | None, person: str, sensible_w: float) -> DesignPatterns:
    there, gives = design_patterns(look, presence), design_patterns(look, person)
    made: dict[tuple[int, int], DayPattern] = {}
    by_month = []
    for one, other in zip(there.by_month, gives.by_month, strict=True):
        key = (id(one), id(other))
        if key not in made:
            made[key] = multiplied(one, other, 1.0 / sensible_w)
        by_month.append(made[key])
    return DesignPatterns(tuple(by_month), there.winter, there.chosen, there.winter_chosen)
