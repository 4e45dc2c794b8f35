"""Reference cases in a folder of one's own: each of a form that is known is run, and told as ok, fail or absent."""

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from pendrum_core.proof.air_paths import plate_entries, vav_entries
from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.proof.fabric import periodic_entries, u_value_entries
from pendrum_core.proof.place import place_entries
from pendrum_core.proof.room_units import room_unit_entries
from pendrum_core.proof.rooms import floating_entries, held_entries, several_entries, winter_entries
from pendrum_core.proof.systems import air_entries, duct_entries, shape_entries, water_entries
from pendrum_core.proof.tariffs import tariff_entries
from pendrum_core.proof.water_plant import boiler_entries, circuit_entries
from pendrum_core.proof.year import year_entries

# A form is known by what it expects; the first that fits counts.
_FORMS: tuple[tuple[Callable[[Any, Any], bool], Callable[[Case], Iterator[Entry]]], ...] = (
    (lambda i, e: "elements" in i and "rooms" in i and "rooms" in e, several_entries),
    (lambda i, e: "elements" in i and "rooms" in i and "cooling_load_W" in e, held_entries),
    (lambda i, e: "elements" in i and "rooms" in i and "peak_air_temperature_C" in e, floating_entries),
    (lambda i, e: "elements" in i and "no_sky_depression" in e, winter_entries),
    (lambda i, e: "tau" in i and "planes" in i, place_entries),
    (lambda i, e: "elements" in i and isinstance(e, list), u_value_entries),
    (lambda i, e: "iso_13786_24h" in e, periodic_entries),
    (lambda i, e: "coil_duty" in e and "mixed" in e, air_entries),
    (lambda i, e: "sections" in i and "rectangular_sides_mm" in i and "terminals" in e, shape_entries),
    (lambda i, e: "sections" in i and "terminals" in e and "fan" in e, duct_entries),
    (lambda i, e: "operating_points" in e, water_entries),
    (lambda i, e: "radiators" in i and "expansion_vessel" in e, circuit_entries),
    (lambda i, e: "building" in i and "weather" in i and "ideal" in e, year_entries),
    (lambda i, e: "tariff" in i and "months" in e, tariff_entries),
    (lambda i, e: "boilers" in i and "bins" in i, boiler_entries),
    (lambda i, e: "system" in i and "steps" in i and "steps" in e, vav_entries),
    (lambda i, e: "outdoor_air_unit" in i and "fan_coil_bypass_factor" in i, room_unit_entries),
    (lambda i, e: "exchanger" in i and "unit" in i and "outdoor" in i, plate_entries),
)


@dataclass(frozen=True)
class Told:
    """What became of one case: "ok", "fail" or "absent", and why."""

    name: str
    state: str
    detail: str = ""

    def __str__(self) -> str:
        return f"{self.state:7}{self.name}" + (f": {self.detail}" if self.detail else "")


def run_case(path: Path) -> Told:
    """Run one case; what cannot be read is absent with its reason, never passed over."""
    try:
        case = json.loads(path.read_text())
        inputs, expected = case["inputs"], case["expected"]
        entries = next((make for fits, make in _FORMS if fits(inputs, expected)), None)
    except (ValueError, KeyError, TypeError) as error:
        return Told(path.stem, "absent", f"no case: {error}")
    if entries is None:
        return Told(path.stem, "absent", "its form is not read")
    try:
        found = list(entries(case))
    except (ValueError, KeyError, TypeError, IndexError) as error:
        return Told(path.stem, "absent", f"{type(error).__name__} {error}")
    wrong = [entry for entry in found if not entry.holds]
    return Told(path.stem, "fail" if wrong else "ok", "; ".join(map(str, wrong)) or f"{len(found)} figures")


def run_folder(folder: Path) -> list[Told]:
    """Run all cases of a folder, by name."""
    return [run_case(path) for path in sorted(folder.glob("*.json"))]
