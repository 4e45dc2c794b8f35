"""People, lights and equipment of a room."""

from typing import NamedTuple

from calculations.inputs.schedules import DesignPatterns, design_patterns
from calculations.lookups import Lookups
from pendrum_core.model.rooms import Gain
from pendrum_core.model.schedules import DayPattern, multiplied
from pendrum_core.people.activity import REFERENCE_C, PersonHeat, person_heat
from projects.resolver import Effective
from projects.rows import Row


def person_of(use: Row, room_c: float) -> PersonHeat:
    """Heat of one person of a use: entered, or by activity and room temperature."""
    if use["activity"] is None:
        return PersonHeat(use["person_sensible_w"], use["person_latent_w"])
    return person_heat(use["activity"], room_c)


def item_w(item: Row, area_m2: float, people: float) -> float:
    """Nameplate power of an item times its count and how much of it is used [W]."""
    per = {"w": 1.0, "w_m2": area_m2, "w_per_person": people}[item["basis"]]
    return float(item["value"] * per * item["count"] * item["usage_factor"])


class ToldGain(NamedTuple):
    """A gain at full schedule, and the schedule that it follows; `person` is a schedule of watts that a person gives."""

    category: str
    name: str
    sensible_w: float
    latent_w: float
    radiant_share: float
    schedule: str | None
    person: str | None = None
    person_w: float = 0.0


def return_share(look: Lookups, room: Row, use: Row) -> float:
    """Of its lights' heat, what goes into the return air: nothing where no unit with return air serves the room first."""
    system = look.row("air_system", room["air_system"] or room["second_system"])
    returns = system is not None and system["arrangement"] == "central" and not system["outdoor_only"]
    return float(use["lights_return_share"]) if returns else 0.0


def told_return_gains(use: Row, values: dict[str, Effective], area: float, share: float) -> tuple[ToldGain, ...]:
    """What the lights give into the return air, where they do."""
    watts = values["lights_w_m2"].value * area * share
    return (ToldGain("lights", "Lights, return air", watts, 0.0, 0.0, use["lights_schedule"]),) if watts else ()


def return_gains_of(
    look: Lookups, use: Row, values: dict[str, Effective], area: float, share: float
) -> tuple[Gain, ...]:
    """The same on the design days."""
    return tuple(_on_design_days(look, told) for told in told_return_gains(use, values, area, share))


def told_gains(
    look: Lookups, use: Row, values: dict[str, Effective], area: float, occupied: bool = True, to_return: float = 0.0
) -> tuple[ToldGain, ...]:
    """Every gain of a room that is not nothing; nobody is in a room that is not occupied. `to_return` is the lights' share that never gets into it."""
    people = values["people_per_m2"].value * area if occupied else 0.0
    room_c = values["cooling_setpoint_c"].value if values["cooled"].value else REFERENCE_C
    person = person_of(use, room_c)
    # A schedule of W per person sets the sensible part, the latent one follows it.
    gives = use["person_schedule"] if person.sensible_w else None
    radiant, lights = use["lights_radiant_share"], values["lights_w_m2"].value * area * (1.0 - to_return)
    found = [
        ToldGain(
            "people",
            "People",
            sensible_w=people * person.sensible_w,
            latent_w=people * person.latent_w,
            radiant_share=use["people_radiant_share"],
            schedule=use["people_schedule"],
            person=gives,
            person_w=person.sensible_w,
        ),
        ToldGain("lights", "Lights", lights, 0.0, radiant, use["lights_schedule"]),
        ToldGain("lights", "Task lights", use["task_lights_w_m2"] * area, 0.0, radiant, use["task_lights_schedule"]),
        _equipment("Equipment", values["equipment_w_m2"].value * area, use, "equipment_", use["equipment_schedule"]),
    ]
    found += [
        _equipment(item["name"], item_w(item, area, people), item, "", item["schedule"])
        for item in look.many("items of use", use["id"])
    ]
    return tuple(gain for gain in found if gain.sensible_w or gain.latent_w)


def gains_of(
    look: Lookups, use: Row, values: dict[str, Effective], area: float, occupied: bool = True, to_return: float = 0.0
) -> tuple[Gain, ...]:
    """The gains of a room on the design days."""
    return tuple(_on_design_days(look, told) for told in told_gains(look, use, values, area, occupied, to_return))


def _on_design_days(look: Lookups, told: ToldGain) -> Gain:
    patterns = design_patterns(look, told.schedule)
    if told.person is not None:
        key = f"{told.schedule}/{told.person}/{told.person_w}"
        person, watts = told.person, told.person_w
        patterns = look.remembered("person patterns", key, lambda: _scaled(look, told.schedule, person, watts))
    # Without a pattern of its own the winter day has the usual one; how much of it counts is the project's choice.
    winter = patterns.winter if patterns.winter_chosen else patterns.by_month[0]
    return Gain(
        told.category,
        told.sensible_w,
        latent_w=told.latent_w,
        radiant_share=told.radiant_share,
        pattern=patterns.by_month[0],
        by_month=patterns.by_month,
        name=told.name,
        winter=winter,
    )


def _equipment(name: str, power: float, row: Row, prefix: str, schedule: str | None) -> ToldGain:
    latent = power * row[f"{prefix}latent_share"]
    kept = power * (1.0 - row[f"{prefix}vented_share"])
    return ToldGain("equipment", name, kept - latent, latent, row[f"{prefix}radiant_share"], schedule)


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
