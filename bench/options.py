"""Measures options of a large building: opening one, editing in it, comparing ten, and what they take."""

import os
import resource
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
ROOMS, OPTIONS = 500, 10


def main() -> None:
    """Measure and print a table."""
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
    from bench.run import reference_ms
    from demo.trial import load_trial

    call_command("migrate", verbosity=0)
    owner = demo_engineer()
    project = load_trial(owner, ROOMS).id
    client = Client()
    client.force_login(owner)

    def timed(work):
        start = time.perf_counter()
        answer = work()
        return (time.perf_counter() - start) * 1000, answer

    def post(path, body):
        return client.post(f"/api/projects/{path}", body, content_type="application/json").json()

    objects = client.get(f"/api/projects/{project}/document").json()["objects"]
    client.get(f"/api/projects/{project}/results")
    megabytes = lambda: resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024  # noqa: E731
    before, pace = megabytes(), reference_ms()
    glass = objects["glazing"][0]["id"]
    opened, edits, firsts, ids = [], [], [], []
    for number in range(OPTIONS):
        identity = post(f"{project}/options", {"name": f"Option {number}"})["id"]
        ids.append(identity)
        ms, answer = timed(lambda i=identity: client.get(f"/api/projects/{i}/document"))
        opened.append(ms)
        firsts.append(timed(lambda i=identity: client.get(f"/api/projects/{i}/results"))[0])
        change = {"op": "set", "kind": "glazing", "id": glass, "fields": {"u_value": 0.6 + number / 10}}
        body = {"base_version": answer.json()["version"], "label": "x", "changes": [change]}
        done = post(f"{identity}/changes", body)
        room = {
            "op": "set",
            "kind": "room",
            "id": objects["room"][number]["id"],
            "fields": {"floor_area_m2": 30 + number},
        }
        body = {"base_version": done["version"], "label": "x", "changes": [room]}
        edits.append(timed(lambda i=identity, b=body: post(f"{i}/changes", b))[0])
        client.get(f"/api/projects/{identity}/results")
    query = "&".join(f"options={identity}" for identity in ids)
    first, _ = timed(lambda: client.get(f"/api/projects/{project}/compare?{query}"))
    again, _ = timed(lambda: client.get(f"/api/projects/{project}/compare?{query}"))
    middle = lambda values: round(sorted(values)[len(values) // 2])  # noqa: E731
    for name, value in (
        ("rooms", ROOMS), ("options", OPTIONS), ("opening one, document, median ms", middle(opened)),
        ("opening one, results, median ms", middle(firsts)), ("edit of one room in one, median ms", middle(edits)),
        ("comparing all, ms", round(again)), ("comparing all the first time, ms", round(first)),
        ("memory for one more option, MB", round((megabytes() - before) / OPTIONS, 1)), ("reference loop ms", round(pace)),
    ):  # fmt: skip
        print(f"| {name} | {value} |")


if __name__ == "__main__":
    main()
