"""The kit list: every piece of equipment with its duties, for procurement."""

from collections.abc import Iterator

from pendrum_core.model.catalogue import RADIATOR
from pendrum_core.model.plant import BEAMS
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit_air import extract_kit, system_kit
from pendrum_core.results.kit_item import Buying, Choice, Duty, KitItem
from pendrum_core.results.kit_water import water_kit

__all__ = ["KitItem", "kit_list"]

_WINTER, _SUMMER = "Winter day, less what the air brings", "Summer's days, less what the air takes"


def kit_list(results: BuildingResults) -> Iterator[KitItem]:
    """All equipment of a building, systems first."""
    buying = Buying(results.building.catalogue)
    for system in results.building.systems:
        if system.id in results.systems:
            yield from system_kit(results, system, results.coils.get(system.id, {}).values(), buying)
    yield from extract_kit(results)
    yield from water_kit(results, buying)
    yield from _rooms_kit(results, buying)


def _rooms_kit(results: BuildingResults, buying: Buying) -> Iterator[KitItem]:
    """What stands in rooms at the ends of circuits."""

    def piece(room_id: str, code: str, item: str, *duties: Duty, choice: Choice) -> KitItem:
        room = results.rooms[room_id].room
        return KitItem(
            2,
            room_id,
            code=code,
            tag=f"{code} {room.number}",
            item=item,
            serves=f"{room.number} {room.name}",
            duties=duties,
            size=choice.size,
            why=choice.why,
            weight_kg=choice.weight_kg(),
        )

    def asked(room_id: str, duty_w: float, *, warm: bool) -> Duty:
        margins = results.building.margins_of(room_id)
        margin = margins.heating if warm else margins.cooling
        return Duty("Duty", duty_w / (1.0 + margin), "load", _WINTER if warm else _SUMMER, margin)

    for room_id, emitter in results.emitters.items():
        if emitter.duty_w <= 0.0:
            continue
        duty = asked(room_id, emitter.duty_w, warm=True)
        if emitter.length_m is not None:
            length = Duty("Length", emitter.length_m, "length", "Duty at the circuit's temperatures")
            choice = Choice(f"{emitter.length_m:g} m")
            yield piece(room_id, "R", "Radiant panels, duty and length", duty, length, choice=choice)
            continue
        choice = buying.choose(
            RADIATOR,
            f"{emitter.chosen_w:g} W" if emitter.chosen_w else "above the series",
            why="The next of the series above the rating." if emitter.chosen_w else "",
            output_w=emitter.rating_w,
        )
        chosen_w = choice.row.output_w if choice.row else emitter.chosen_w
        rating = Duty(
            "Rating", emitter.rating_w, "load", f"Duty over {emitter.factor:.3f}, its factor", chosen=chosen_w
        )
        yield piece(room_id, "R", "Radiator, duty and rating", duty, rating, choice=choice)
    for room_id, ceiling in results.ceilings.items():
        if ceiling.duty_w > 0.0:
            beams = ceiling.kind == BEAMS
            what, quantity = ("Length", "length") if beams else ("Active area", "area")
            most = None if ceiling.most == float("inf") else min(ceiling.needed, ceiling.most)
            yield piece(
                room_id,
                "C",
                "Chilled beams, duty and length" if beams else "Chilled ceiling, duty and active area",
                asked(room_id, ceiling.duty_w, warm=False),
                Duty(what, ceiling.needed, quantity, "Duty at the circuit's temperatures", chosen=most),
                choice=Choice(""),
            )
    for room_id, floor in results.floors.items():
        if floor.duty_w > 0.0:
            yield piece(
                room_id,
                "F",
                "Heated floor, duty and pipe",
                asked(room_id, floor.duty_w, warm=True),
                Duty("Pipe", floor.pipe_m, "length"),
                choice=Choice(f"{floor.area_m2:.1f} m², {floor.loops} {'loop' if floor.loops == 1 else 'loops'}"),
            )
