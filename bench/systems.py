"""Measures what serves the rooms, without the rooms themselves: `python bench/systems.py [rooms]`.

Air systems in full and after an edit of one terminal, circuits with their plant, and one walk of a unit over 8,760 steps. Every figure is
the fastest and the median of several, beside the reference loop of the same minutes.
"""

import os
import statistics
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
HOURS, TURNS = 8760, 12


def told(name: str, work) -> None:
    """Time some work several times and print it."""
    from bench.run import reference_ms

    pace, spans = [], []
    for turn in range(TURNS):
        pace.append(reference_ms())
        start = time.perf_counter()
        work(turn)
        spans.append((time.perf_counter() - start) * 1000)
    print(
        f"{name}: fastest {min(spans):.0f} ms, median {statistics.median(spans):.0f} ms (loop {statistics.median(pace):.0f} ms)"
    )


def main(rooms: int) -> None:
    """All of them, for a building of so many rooms."""
    sys.path[:0] = [str(ROOT), str(ROOT / "server"), str(ROOT / "core")]
    os.environ["PENDRUM_VAR"] = tempfile.mkdtemp(prefix="pendrum-bench-")
    os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"
    import django

    django.setup()
    import numpy as np
    from django.core.management import call_command

    from accounts.demo import demo_engineer
    from calculations import service
    from demo.trial import load_trial
    from pendrum_core.air.path import Rooms
    from pendrum_core.air.unit import unit_of
    from pendrum_core.air.walk import walk
    from pendrum_core.run import Memory, calculate_loads
    from pendrum_core.run.plant import calculate_plant
    from pendrum_core.run.systems import size_systems
    from projects import document

    call_command("migrate", verbosity=0)
    loaded = document.load_document(load_trial(demo_engineer(), rooms))
    building = service._state(loaded).snapshots.take(loaded).building
    memory = Memory()
    loads = calculate_loads(building, memory)
    print(f"{rooms} rooms, {len(building.systems)} systems, {len(building.circuits)} circuits")
    told("systems in full", lambda turn: size_systems(loads, Memory(), []))
    results = calculate_plant(loads, memory)
    first = building.systems[0]

    def edited(turn: int) -> None:
        terminal = replace(first.terminals[0], pinned_flow_m3_s=0.1 + turn / 1000.0)
        system = replace(first, terminals=(terminal, *first.terminals[1:]))
        calculate_plant(replace(loads, building=replace(building, systems=(system, *building.systems[1:]))), memory)

    told("an edit of one terminal, to all duties behind it", edited)
    calculate_plant(loads, memory)
    told(
        "circuits, plant, coils and rooms' moisture in full, systems known", lambda turn: calculate_plant(loads, memory)
    )
    sized = results.systems[first.id]
    unit = unit_of(
        first, sized.fan, sized.return_m3_s, sized.least_outdoor_kg_s, sized.pressure_pa, sized.ducts, sized.lanes
    )
    served = list(sized.served.values())

    def year_of(parts) -> np.ndarray:
        flat = np.array([np.asarray(part, dtype=float).ravel() for part in parts])
        return np.ascontiguousarray(np.tile(flat, HOURS // flat.shape[1] + 1)[:, :HOURS])

    flow, air = year_of(room.flow_kg_s for room in served), year_of(room.air_c for room in served)
    latent = year_of(results.rooms[room].latent_w for room in sized.served)
    still = np.zeros_like(flow)
    outdoor_c, outdoor_w = year_of([loads.outdoors.dry_bulb_c, loads.outdoors.humidity_ratio])
    plain = Rooms(flow, still, air, latent, still, np.zeros(HOURS))
    name = f"a walk of one unit with {len(served)} rooms over {HOURS} steps"
    told(name, lambda turn: walk(unit, plain, outdoor_c, outdoor_w))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 500)
