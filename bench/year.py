"""Measures the year: rooms of the trial building on air systems with plant, every size in a process of its own."""

import json
import os
import resource
import subprocess
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SIZES = (50, 500, 1000)


def measure(rooms: int) -> dict[str, float]:
    """Figures of one building size; to be called in a fresh process."""
    sys.path[:0] = [str(ROOT), str(ROOT / "server")]
    os.environ["PENDRUM_VAR"] = tempfile.mkdtemp(prefix="pendrum-bench-")
    os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"
    import django

    django.setup()
    from django.core.management import call_command

    from accounts.demo import demo_engineer
    from bench.run import reference_ms
    from calculations.service import results_of
    from calculations.weather_files import weather_file
    from calculations.year import run_year
    from demo.trial import load_trial
    from demo.weather import load_weather
    from projects.document import load_document

    call_command("migrate", verbosity=0)
    owner = demo_engineer()
    small = load_trial(owner, 2)
    load_weather(small)
    its = load_document(small)
    run_year(its, weather_file(small), results_of(its).results, lambda share, doing: None)  # libraries, compiled loops
    project = load_trial(owner, rooms)
    load_weather(project)
    document = load_document(project)
    results = results_of(document).results
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    pace, start = reference_ms(), time.perf_counter()
    hours, summary = run_year(document, weather_file(project), results, lambda share, doing: None)
    seconds = time.perf_counter() - start
    return {
        "rooms": rooms,
        "air systems": len(results.systems),
        "plants": len(results.plants),
        "year s": round(seconds, 2),
        "faults": len(summary["faults"]),
        "hours kept MB": round(sum(array.nbytes for array in hours.values()) / 1e6),
        "peak memory before MB": round(before),
        "peak memory MB": round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024),
        "reference loop ms": round(pace),
    }


def main() -> None:
    """Measure every size and print a table."""
    if len(sys.argv) > 1:
        print(json.dumps(measure(int(sys.argv[1]))))
        return
    rows = []
    for size in SIZES:
        told = subprocess.run(
            [sys.executable, __file__, str(size)],
            capture_output=True,
            text=True,
            check=True,
            env=os.environ | {"PYTHONPATH": str(ROOT)},
        )
        rows.append(json.loads(told.stdout.strip().splitlines()[-1]))
    for name in rows[0]:
        print(f"| {name} | " + " | ".join(str(row[name]) for row in rows) + " |")


if __name__ == "__main__":
    main()
