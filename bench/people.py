"""Several people at work on one project, over two web processes with a worker each.

    python bench/people.py [--people 10] [--rooms 500] [--minutes 5] [--seed 1]

Each asks every one and a half seconds what changed, as a window does, and edits a room about every three seconds; where
somebody else changed the same field meanwhile, the edit is sent again on what is there now, as somebody would who chooses
their own value. Ends with 1 where an acknowledged edit is not there, an answer is a 5xx, both processes tell different
documents or results, or 95 of 100 edits took longer than half a second.
"""

import argparse
import random
import sys
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from run import reference_ms
from trial_server import Client, Server

AIM_S, EVERY_S = 0.5, 1.5
_FIELDS = {
    "floor_area_m2": lambda dice: round(dice.uniform(10.0, 60.0), 2),
    "height_m": lambda dice: round(dice.uniform(2.4, 4.0), 2),
    "name": lambda dice: f"Room {dice.randrange(10_000)}",
    "lights_w_m2": lambda dice: round(dice.uniform(4.0, 14.0), 1),
}


@dataclass
class Work:
    """What all did: seconds of edits, acknowledged values with the version that each made, conflicts, and what fell."""

    seconds: list[float] = field(default_factory=list)
    said: dict[tuple[str, str], tuple[int, Any]] = field(default_factory=dict)
    conflicts: int = 0
    fallen: list[str] = field(default_factory=list)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def acknowledged(self, room: str, name: str, value: Any, version: int, took: float) -> None:
        """Note an edit; of two of one field the later version stands."""
        with self.lock:
            self.seconds.append(took)
            if version > self.said.get((room, name), (0, None))[0]:
                self.said[room, name] = (version, value)


def person(server: Server, project: str, rooms: list[str], until: float, dice: random.Random, work: Work) -> None:
    """Ask and edit until it is time."""
    client = Client(server)
    path = f"{server.base}/api/projects/{project}"
    version = client.session.get(f"{path}/since?version=0", timeout=60).json()["version"]
    while time.monotonic() < until:
        time.sleep(EVERY_S * dice.uniform(0.8, 1.2))
        answer = client.session.get(f"{path}/since", params={"version": version}, timeout=60)
        if answer.status_code >= 500:
            work.fallen.append(f"since: {answer.status_code} {answer.text[:200]}")
            continue
        version = answer.json()["version"]
        if dice.random() < 0.5:
            continue
        room, name = dice.choice(rooms), dice.choice(list(_FIELDS))
        value = _FIELDS[name](dice)
        change = {"op": "set", "kind": "room", "id": room, "fields": {name: value}}
        while True:
            begin = time.monotonic()
            body = {"base_version": version, "label": "x", "changes": [change]}
            answer = client.session.post(f"{path}/changes", json=body, timeout=60)
            took = time.monotonic() - begin
            if answer.status_code == 409:
                work.conflicts += 1
                version = client.session.get(f"{path}/since", params={"version": version}, timeout=60).json()["version"]
                continue
            break
        if answer.status_code == 200:
            version = answer.json()["version"]
            work.acknowledged(room, name, value, version, took)
        else:
            work.fallen.append(f"edit: {answer.status_code} {answer.text[:200]}")


def differences(one: Any, other: Any, path: str) -> Iterator[str]:
    """Where two answers are not the same to the last digit."""
    if isinstance(one, dict) and isinstance(other, dict):
        for key in sorted(one.keys() | other.keys()):
            yield from differences(one.get(key), other.get(key), f"{path}/{key}")
    elif isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        for at, (a, b) in enumerate(zip(one, other, strict=True)):
            yield from differences(a, b, f"{path}/{at}")
    elif one != other:
        yield f"{path}: {one!r} and {other!r}"


def main() -> int:
    """Let them work, then look whether everything is there."""
    words = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    words.add_argument("--people", type=int, default=10)
    words.add_argument("--rooms", type=int, default=500)
    words.add_argument("--minutes", type=float, default=5.0)
    words.add_argument("--seed", type=int, default=1)
    options = words.parse_args()
    first = Server(data=("load_trial", str(options.rooms)))
    second = Server(beside=first)
    try:
        clients = [Client(first), Client(second)]
        project = clients[0].json("/api/session")["projects"][-1]["id"]
        path = f"/api/projects/{project}"
        rooms = [row["id"] for row in clients[0].json(f"{path}/document")["objects"]["room"]]
        for client in clients:
            client.json(f"{path}/results")  # both have opened it
        work, until = Work(), time.monotonic() + 60 * options.minutes
        threads = [
            threading.Thread(
                target=person,
                args=((first, second)[number % 2], project, rooms, until, random.Random(options.seed + number), work),
            )
            for number in range(options.people)
        ]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        documents = [client.json(f"{path}/document") for client in clients]
        results = [client.json(f"{path}/results") for client in clients]
        now = {row["id"]: row for row in documents[0]["objects"]["room"]}
        for (room, name), (version, value) in work.said.items():
            if now[room][name] != value:
                work.fallen.append(f"{name} of {room} is {now[room][name]!r}; version {version} made it {value!r}")
        if documents[0]["objects"] != documents[1]["objects"]:
            work.fallen.append("both processes tell different documents")
        work.fallen += list(differences(results[0]["changed"], results[1]["changed"], "results"))
        work.seconds.sort()
        p95 = work.seconds[int(0.95 * len(work.seconds))]
        print(
            f"{options.people} people, {options.rooms} rooms, {options.minutes:g} minutes: {len(work.seconds)} edits, "
            f"{work.conflicts} conflicts, median {work.seconds[len(work.seconds) // 2] * 1000:.0f} ms, "
            f"95 of 100 within {p95 * 1000:.0f} ms, slowest {work.seconds[-1] * 1000:.0f} ms, "
            f"reference loop {reference_ms():.0f} ms, {len(work.fallen)} fell"
        )
        print(*work.fallen[:20], sep="\n")
        return 1 if work.fallen or p95 > AIM_S else 0
    finally:
        for server in (first, second):
            server.kill()


if __name__ == "__main__":
    sys.exit(main())
