"""The kit list: every piece of equipment with its duty, for procurement."""

from collections.abc import Iterator

from pendrum_core.model.catalogue import RADIATOR
from pendrum_core.model.plant import BEAMS
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit_air import extract_kit, system_kit
from pendrum_core.results.kit_item import Buying, KitItem
from pendrum_core.results.kit_water import water_kit

__all__ = ["KitItem", "kit_list"]


def kit_list(results: BuildingResults) -> Iterator[KitItem]:
    """All equipment of a building, systems first."""
    buying = Buying(results.building.catalogue)
    for system in results.building.systems:
        if system.id in results.systems:
            yield from system_kit(system, results.systems[system.id], results.coils.get(system.id, {}).values(), buying)
    yield from extract_kit(results)
    yield from water_kit(results, buying)
    for room_id, emitter in results.emitters.items():
        if emitter.duty_w > 0.0:
            room = results.rooms[room_id].room
            panel = emitter.length_m is not None
            yield KitItem(
                2,
                room_id,
                tag=f"R {room.number}",
                item="Radiant panels, duty and length" if panel else "Radiator, duty and rating",
                serves=f"{room.number} {room.name}",
                duty=emitter.duty_w,
                duty_quantity="load",
                second=emitter.length_m or emitter.rating_w,
                second_quantity="length" if panel else "load",
                size=f"{emitter.length_m:g} m"
                if panel
                else buying.named(
                    RADIATOR,
                    f"{emitter.chosen_w:g} W" if emitter.chosen_w else "above the series",
                    output_w=emitter.rating_w,
                ),
            )
    for room_id, ceiling in results.ceilings.items():
        if ceiling.duty_w > 0.0:
            room = results.rooms[room_id].room
            beams = ceiling.kind == BEAMS
            yield KitItem(
                2,
                room_id,
                tag=f"C {room.number}",
                item="Chilled beams, duty and length" if beams else "Chilled ceiling, duty and active area",
                serves=f"{room.number} {room.name}",
                duty=ceiling.duty_w,
                duty_quantity="load",
                second=min(ceiling.needed, ceiling.most),
                second_quantity="length" if beams else "area",
            )
    for room_id, floor in results.floors.items():
        if floor.duty_w > 0.0:
            room = results.rooms[room_id].room
            yield KitItem(
                2,
                room_id,
                tag=f"F {room.number}",
                item="Heated floor, duty and pipe",
                serves=f"{room.number} {room.name}",
                duty=floor.duty_w,
                duty_quantity="load",
                second=floor.pipe_m,
                second_quantity="length",
                size=f"{floor.area_m2:.1f} m², {floor.loops} {'loop' if floor.loops == 1 else 'loops'}",
            )
