"""Calculations of projects: one state per project and process, results always of a stated document version.

A calculation has two halves. The loads are worked out with the edit that changes them; what serves the rooms follows
when it is asked for, so that new peaks are on the screen before ducts and pipes are sized, and an edit that is
overtaken by the next one never sizes them at all.
"""

import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from calculations.records.loads import LoadsMaker
from calculations.records.payload import Payload, difference
from calculations.records.plant import PlantMaker
from calculations.snapshot import Snapshot, Snapshots
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.results.building import BuildingLoads, BuildingResults
from pendrum_core.run import Memory, calculate_loads, calculate_plant
from projects.document import Document

_KEEP_PROJECTS = 4
_KEEP_PAYLOADS = 4
Found = TypeVar("Found", bound=BuildingLoads)


@dataclass(frozen=True)
class Calculated(Generic[Found]):
    """One half of the results of one document version: the loads, or these with what serves the rooms.

    `payload` holds the records of this half alone, `milliseconds` is what it took.
    """

    version: int
    results: Found
    payload: Payload
    milliseconds: float


class _Half(Generic[Found]):
    """What is kept of one half. Courses are kept of the latest version alone; of those before it only the records."""

    def __init__(self) -> None:
        self.latest: Calculated[Found] | None = None
        self.payloads: OrderedDict[int, Payload] = OrderedDict()

    def of(self, version: int, work: Callable[[], tuple[Found, Payload]]) -> Calculated[Found]:
        """The kept results of a version, or those that are worked out now."""
        if self.latest is None or self.latest.version != version:
            start = time.perf_counter()
            results, payload = work()
            self.latest = Calculated(version, results, payload, (time.perf_counter() - start) * 1000.0)
            self.payloads[version] = payload
            while len(self.payloads) > _KEEP_PAYLOADS:
                self.payloads.popitem(last=False)
        return self.latest


@dataclass
class _State:
    # One that the same thread may take twice: the second half asks for the first.
    lock: threading.RLock = field(default_factory=threading.RLock)
    snapshots: Snapshots = field(default_factory=Snapshots)
    snapshot: Snapshot | None = None
    memory: Memory = field(default_factory=Memory)
    loads_maker: LoadsMaker = field(default_factory=LoadsMaker)
    plant_maker: PlantMaker = field(default_factory=PlantMaker)
    loads: _Half[BuildingLoads] = field(default_factory=_Half)
    plant: _Half[BuildingResults] = field(default_factory=_Half)


_states: OrderedDict[str, _State] = OrderedDict()
_states_lock = threading.Lock()


def _state(project: str) -> _State:
    with _states_lock:
        state = _states.setdefault(project, _State())
        _states.move_to_end(project)
        while len(_states) > _KEEP_PROJECTS:
            _states.popitem(last=False)
        return state


def forget_all() -> None:
    """Drop every state (tests roll the database back under them)."""
    with _states_lock:
        _states.clear()


def loads_of(document: Document) -> Calculated[BuildingLoads]:
    """Loads of a document's rooms, from memory or worked out now."""
    state = _state(document.project)

    def work() -> tuple[BuildingLoads, Payload]:
        snapshot = state.snapshots.take(document)
        loads = calculate_loads(snapshot.building, state.memory)
        payload = state.loads_maker.make(snapshot, loads)
        # Records of definitions are remembered as well: only now is everything asked for that this version needs.
        snapshot.look.forget_before()
        state.snapshot = snapshot
        return loads, payload

    with state.lock:
        return state.loads.of(document.version, work)


def results_of(document: Document) -> Calculated[BuildingResults]:
    """Everything worked out for a document, from memory or now; its payload is that of the plant alone."""
    state = _state(document.project)

    def work() -> tuple[BuildingResults, Payload]:
        loads = loads_of(document).results
        assert state.snapshot is not None
        results = calculate_plant(loads, state.memory)
        return results, state.plant_maker.make(state.snapshot, results)

    with state.lock:
        return state.plant.of(document.version, work)


def tried(before: Document, after: Document) -> tuple[BuildingLoads, BuildingLoads]:
    """Loads of a document, and what they would become; nothing of the second is kept."""
    now = loads_of(before)
    state = _state(before.project)
    with state.lock:
        snapshots, memory = state.snapshots.copy(), state.memory.copy()
    return now.results, calculate_loads(snapshots.take(after).building, memory)


def whole(document: Document) -> dict[str, Any]:
    """All results, for a first load."""
    loads, plant = loads_of(document), results_of(document)
    ms = loads.milliseconds + plant.milliseconds
    return _told(plant) | {"milliseconds": ms, "changed": loads.payload | plant.payload, "all": True}


def loads_since(document: Document, base_version: int) -> dict[str, Any]:
    """Records of the loads that differ from those of `base_version`; all of them where those are not kept any more."""
    done = loads_of(document)
    return _since(done, _state(document.project).loads.payloads.get(base_version))


def plant_since(document: Document, base_version: int) -> dict[str, Any]:
    """The same of what serves the rooms."""
    done = results_of(document)
    return _since(done, _state(document.project).plant.payloads.get(base_version))


def _since(done: Calculated[Any], kept: Payload | None) -> dict[str, Any]:
    if kept is None:
        return _told(done) | {"changed": done.payload, "all": True}
    return _told(done) | difference(kept, done.payload) | {"all": False}


def _told(done: Calculated[Any]) -> dict[str, Any]:
    return {
        "version": done.version,
        "milliseconds": done.milliseconds,
        "rooms_calculated": done.results.rooms_calculated,
        "gone": {},
        "categories": list(CATEGORIES),
    }
