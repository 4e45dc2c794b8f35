"""Measures how fast and how large: `make bench`. Writes a table to stdout; docs/performance.md keeps one.

Every size runs in a process of its own, with a database of its own, so that peak memory is the size's alone.
"""

import json
import os
import resource
import subprocess
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SIZES = (50, 100, 250, 500, 1000)


def measure(rooms: int) -> dict[str, float]:
    """Figures of one building size; to be called in a fresh process."""
    sys.path[:0] = [str(ROOT), str(ROOT / "server")]
    os.environ["PENDRUM_VAR"] = tempfile.mkdtemp(prefix="pendrum-bench-")
    os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"
    os.environ["PENDRUM_HOSTS"] = "testserver"
    import django

    django.setup()
    from config.memory import calm_memory

    calm_memory()
    from django.core.management import call_command
    from django.test import Client

    from accounts.demo import demo_engineer
    from calculations import service
    from demo.trial import load_trial
    from pendrum_core.run import Memory, calculate
    from projects import document
    from projects.models import Project

    call_command("migrate", verbosity=0)
    owner = demo_engineer()
    load_trial(owner, 2)
    project = load_trial(owner, rooms)
    small = Project.objects.exclude(pk=project.pk).first()
    service.results_of(document.load_document(small))  # libraries imported, sun worked out

    pace: list[float] = []

    def timed(work):
        pace.append(reference_ms())
        start = time.perf_counter()
        result = work()
        return (time.perf_counter() - start) * 1000, result

    document.forget_all()
    load_ms, _ = timed(lambda: document.load_document(project))
    client = Client()
    client.force_login(owner)
    client.get(f"/api/projects/{small.id}/document")  # the routes imported
    document.forget_all()
    read_ms, answer = timed(lambda: client.get(f"/api/projects/{project.id}/document"))
    loaded = document.load_document(project)
    building = service._state(loaded).snapshots.take(loaded).building
    full_ms, _ = timed(lambda: calculate(building, Memory()))
    first_ms, _ = timed(lambda: client.get(f"/api/projects/{project.id}/results"))

    room_ids = list(loaded.of("room"))
    edits, floor = [], 30.0
    version = loaded.version
    for index in range(12):
        floor += 0.25
        change = {
            "op": "set",
            "kind": "room",
            "id": room_ids[index % len(room_ids)],
            "fields": {"floor_area_m2": floor},
        }
        body = {"base_version": version, "label": "bench", "changes": [change]}
        path = f"/api/projects/{project.id}/changes"
        ms, answer = timed(lambda b=body, p=path: client.post(p, b, content_type="application/json"))
        version = answer.json()["version"]
        edits.append(ms)
    schedule = next(row for row in loaded.of("schedule").values() if row["name"] == "Working hours")
    patterns = [dict(schedule["patterns"][0], steps=[[420, 0.0], [1140, 1.0], [1440, 0.0]]), *schedule["patterns"][1:]]
    use = next(iter(loaded.of("use")))
    wool = next(row["id"] for row in loaded.of("layer").values() if row["thickness_m"] == 0.12)
    shared: dict[str, list[float]] = {}
    for turn in range(5):
        for name, kind, identity, fields in (
            ("schedule", "schedule", schedule["id"], {"patterns": patterns if turn % 2 else schedule["patterns"]}),
            ("use", "use", use, {"lights_value": 9.0 + turn}),
            ("layer", "layer", wool, {"thickness_m": 0.13 + turn / 100}),
        ):
            change = {"op": "set", "kind": kind, "id": identity, "fields": fields}
            body = {"base_version": version, "label": "bench", "changes": [change]}
            ms, answer = timed(
                lambda b=body: client.post(f"/api/projects/{project.id}/changes", b, content_type="application/json")
            )
            if answer.json()["version"] != version:
                shared.setdefault(name, []).append(ms)
            version = answer.json()["version"]
    thermostat_ms = thermostats(project, use, timed, client, version)
    return {
        "rooms": rooms,
        "surfaces": len(loaded.of("surface")),
        "full calculation ms": round(full_ms),
        "edit of one room, median ms": round(sorted(edits)[len(edits) // 2]),
        "edit of one room, worst ms": round(max(edits)),
        **{f"{name} of all rooms, median ms": round(sorted(ms)[len(ms) // 2]) for name, ms in shared.items()},
        "thermostats in all rooms ms": round(thermostat_ms[0]),
        "edit of one of them ms": round(thermostat_ms[1]),
        "import of a table of all ms": round(thermostat_ms[2]),
        "document from the database ms": round(load_ms),
        "document over HTTP ms": round(read_ms),
        "first results over HTTP ms": round(first_ms),
        "reference loop, median ms": round(sorted(pace)[len(pace) // 2]),
        "peak memory MB": round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024),
    }


def reference_ms() -> float:
    """A million additions: how fast the machine is just then."""
    start, total = time.perf_counter(), 0
    for number in range(1_000_000):
        total += number
    return (time.perf_counter() - start) * 1000


def thermostats(project, use: str, timed, client, version: int) -> tuple[float, float, float]:
    """Time to give every room a night setback with warm-up, to edit one of them, and to compare a table of all rooms."""
    from django.core.files.uploadedfile import SimpleUploadedFile

    from exchange.rooms.table import rooms_xlsx
    from projects.document import load_document

    hours = {"id": "a", "name": "Day", "steps": [[420, 0], [1080, 1], [1440, 0]]}
    fields = {"name": "Open", "kind": "on_off", "patterns": [hours], "base": "a"}
    away = {"setpoint_schedule": "open", "heating_away": "setback", "cooling_away": "setup"}

    def send(*changes: dict) -> None:
        nonlocal version
        body = {"base_version": version, "label": "bench", "changes": list(changes)}
        answer = client.post(f"/api/projects/{project.id}/changes", body, content_type="application/json")
        version = answer.json()["version"]

    send({"op": "create", "kind": "schedule", "id": "open", "fields": fields})
    all_ms, _ = timed(lambda: send({"op": "set", "kind": "use", "id": use, "fields": away}))
    project.refresh_from_db()
    document = load_document(project)
    room = next(iter(document.of("room")))
    send({"op": "set", "kind": "room", "id": room, "fields": {"floor_area_m2": 31}})
    one_ms, _ = timed(lambda: send({"op": "set", "kind": "room", "id": room, "fields": {"floor_area_m2": 32}}))
    data = rooms_xlsx(document, "SI")
    path = f"/api/projects/{project.id}/rooms/read"
    import_ms, _ = timed(lambda: client.post(path, {"file": SimpleUploadedFile("rooms.xlsx", data)}))
    return all_ms, one_ms, import_ms


def main() -> None:
    """Run every size and print a table."""
    rows = []
    for size in SIZES:
        done = subprocess.run([sys.executable, __file__, str(size)], check=True, capture_output=True, text=True)
        rows.append(json.loads(done.stdout.strip().splitlines()[-1]))
        print(f"{size} rooms measured", file=sys.stderr)
    print("| " + " | ".join(rows[0]) + " |")
    print("|" + "---:|" * len(rows[0]))
    for row in rows:
        print("| " + " | ".join(f"{value:,}" for value in row.values()) + " |")


if __name__ == "__main__":
    if len(sys.argv) > 1:
        print(json.dumps(measure(int(sys.argv[1]))))
    else:
        main()
