"""The whole proof book."""

from collections.abc import Callable, Iterator, Sequence

from pendrum_core.proof.air_paths import plate_entries, vav_entries
from pendrum_core.proof.cases import Case, load_case
from pendrum_core.proof.entry import Entry
from pendrum_core.proof.fabric import periodic_entries, u_value_entries
from pendrum_core.proof.place import place_entries
from pendrum_core.proof.room_units import room_unit_entries
from pendrum_core.proof.rooms import room_entries
from pendrum_core.proof.systems import air_entries, duct_entries, shape_entries, water_entries
from pendrum_core.proof.tariffs import tariff_entries
from pendrum_core.proof.water_plant import boiler_entries, circuit_entries
from pendrum_core.proof.year import year_entries

_BEFORE: dict[str, Callable[[Case], Iterator[Entry]]] = {
    "sun_mid_latitude": place_entries,
    "u_values_layered": u_value_entries,
    "wall_light_periodic": periodic_entries,
}
_AFTER: dict[str, Callable[[Case], Iterator[Entry]]] = {
    "air_mixing_cooling_coil": air_entries,
    "air_vav_multi_room_steps": vav_entries,
    "air_plate_recovery_steam": plate_entries,
    "doas_fan_coils_shared_rooms": room_unit_entries,
    "duct_tree_nine_sections": duct_entries,
    "duct_rectangular_flat_oval": shape_entries,
    "radiator_conversion_and_vessel": water_entries,
    "water_radiators_80_60": circuit_entries,
    "plant_boilers_staged": boiler_entries,
    "year_light_room": year_entries,
    "tariff_demand_emissions": tariff_entries,
}


def proof() -> list[Entry]:
    """Run every case on this installation."""
    before = [entry for name, entries in _BEFORE.items() for entry in entries(load_case(name))]
    after = [entry for name, entries in _AFTER.items() for entry in entries(load_case(name)) if _proves(entry)]
    return [*before, *room_entries(), *after]


def _proves(entry: Entry) -> bool:
    """Whether the bound is narrow enough for the figure to say something: a duty of nearly nothing has a wide one."""
    return entry.quantity in ("temperature", "time") or entry.within <= 0.02 * abs(entry.expected)


def as_text(entries: Sequence[Entry]) -> str:
    """The book as plain text."""
    lines, chapter = [], ""
    for entry in entries:
        if entry.chapter != chapter:
            chapter = entry.chapter
            lines += ["", chapter]
        lines += [f"  {entry}", f"         {entry.source}"]
    good = sum(entry.holds for entry in entries)
    return "\n".join([*lines[1:], "", f"{good} of {len(entries)} hold."])
