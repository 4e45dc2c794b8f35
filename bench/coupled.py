"""Rooms that all feel each other: 10 by 10 by 4 of them, stud partitions and slabs of 200 mm. `python bench/coupled.py`

Floating, held, and under thermostats: the full calculation, and an edit of one room's gains in the middle.
"""

import sys
import time
from dataclasses import replace
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "core")]

from core.tests.rooms import CLIMATE  # noqa: E402
from core.tests.test_neighbours import block  # noqa: E402
from core.tests.test_thermostat import thermostat  # noqa: E402
from pendrum_core.model.building import Building  # noqa: E402
from pendrum_core.run import Memory, calculate_loads  # noqa: E402


def reference_ms() -> float:
    """The machine's own pace: a million additions."""
    start = time.perf_counter()
    total = 0
    for i in range(1_000_000):
        total += i
    return (time.perf_counter() - start) * 1000


def main() -> None:
    """Print one line a kind."""
    calculate_loads(Building(CLIMATE, block(2, 1, 1)), Memory())  # libraries, compiled loops
    floating = block(10, 10, 4)
    held = tuple(replace(room, cooled=True, heated=True) for room in floating)
    kinds = {
        "floating": floating,
        "held": held,
        "thermostats": tuple(replace(r, thermostat=thermostat()) for r in held),
    }
    for name, rooms in kinds.items():
        memory, start = Memory(), time.perf_counter()
        found = calculate_loads(Building(CLIMATE, rooms), memory)
        full = time.perf_counter() - start
        at = len(rooms) // 2
        more = replace(rooms[at], gains=tuple(replace(g, sensible_w=1.5 * g.sensible_w) for g in rooms[at].gains))
        start = time.perf_counter()
        again = calculate_loads(Building(CLIMATE, (*rooms[:at], more, *rooms[at + 1 :])), memory)
        edit = time.perf_counter() - start
        print(f"{name}: {len(rooms)} rooms, {full:.2f} s in full, {edit * 1000:.0f} ms for an edit of one, "
              f"{len(found.failures) + len(again.failures)} left out; reference loop {reference_ms():.0f} ms")  # fmt: skip


if __name__ == "__main__":
    main()
