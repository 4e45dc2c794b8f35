"""Calculations of projects: one state per project and process, results always of a stated document version.

A calculation has two halves. The loads are worked out with the edit that changes them; what serves the rooms follows
when it is asked for, so that new peaks are on the screen before ducts and pipes are sized, and an edit that is
overtaken by the next one never sizes them at all.
"""

import os
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
from projects.rows import Document

# Results are kept of as many projects as fit; the one that was asked for last always does. Per room and project from
# bench/run.py, rounded up.
_KEPT_MB = float(os.environ.get("PENDRUM_RESULTS_MB", "400"))
_ROOM_MB, _OPTION_ROOM_MB, _PROJECT_MB = 0.45, 0.12, 4.0
_KEEP_PAYLOADS = 32
_KEEP_RECORDS = 24  # documents whose records are kept when what was worked out for them is not
# For how long an edit waits for the calculation of another one before it is answered without results.
PATIENCE_S = 0.3
SOURCES: tuple[str, ...] = tuple(CATEGORIES)  # of loads, in the order of their parts
_BASE_PATIENCE_S = 0.1
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
    shared: bool = False  # begun with what was known of its base
    newest: int = 0  # the latest version that was seen: what is older need not be calculated any more

    @property
    def megabytes(self) -> float:
        """About what it takes."""
        return _PROJECT_MB + (_OPTION_ROOM_MB if self.shared else _ROOM_MB) * len(self.memory.rooms)


_states: OrderedDict[str, _State] = OrderedDict()
_states_lock = threading.Lock()


def _state(document: Document) -> _State:
    project = document.project
    with _states_lock:
        if document.base is not None and document.base in _states:
            # As long as an option is worked in, so is what it shares with its base.
            _states.move_to_end(document.base)
        state = _states.get(project) or _begun(_states.get(document.base or ""))
        _states[project] = state
        _states.move_to_end(project)
        total = sum(kept.megabytes for kept in _states.values())
        while total > _KEPT_MB and len(_states) > 1:
            total -= _states.popitem(last=False)[1].megabytes
        return state


def _begun(base: _State | None) -> _State:
    """A new state; that of an option knows all that was worked out for its base, so that only what differs is worked out."""
    # Where the base is being worked out just now, an option begins on its own rather than wait with everybody behind it.
    if base is None or not base.lock.acquire(timeout=_BASE_PATIENCE_S):
        return _State()
    try:
        return _State(snapshots=base.snapshots.copy(), memory=base.memory.copy(), shared=True)
    finally:
        base.lock.release()


def forget_all() -> None:
    """Drop every state (tests roll the database back under them)."""
    with _states_lock:
        _states.clear()
        _records.clear()


def loads_of(document: Document) -> Calculated[BuildingLoads]:
    """Loads of a document's rooms, from memory or worked out now."""
    state = _state(document)

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


def loads_if_free(document: Document, base_version: int) -> dict[str, Any] | None:
    """Records of the loads that differ from those of a version, unless others keep the calculation busy or the document has
    moved on meanwhile: then None, and whoever wants them asks again.
    """
    state = _state(document)
    state.newest = max(state.newest, document.version)
    if not state.lock.acquire(timeout=PATIENCE_S):
        return None
    try:
        if document.version < state.newest:
            return None
        return loads_since(document, base_version)
    finally:
        state.lock.release()


def results_of(document: Document) -> Calculated[BuildingResults]:
    """Everything worked out for a document, from memory or now; its payload is that of the plant alone."""
    state = _state(document)

    def work() -> tuple[BuildingResults, Payload]:
        loads = loads_of(document).results
        assert state.snapshot is not None
        results = calculate_plant(loads, state.memory)
        payload = state.plant_maker.make(state.snapshot, results)
        _keep_records(document, state.loads.payloads[document.version] | payload)
        return results, payload

    with state.lock:
        return state.plant.of(document.version, work)


_records: OrderedDict[tuple[str, int], Payload] = OrderedDict()


def _keep_records(document: Document, found: Payload) -> None:
    with _states_lock:
        _records[document.project, document.version] = found
        _records.move_to_end((document.project, document.version))
        while len(_records) > _KEEP_RECORDS:
            _records.popitem(last=False)


def records_of(document: Document) -> Payload:
    """All records of a document; of those that were asked for lately without working anything out again."""
    kept = _records.get((document.project, document.version))
    if kept is None:
        kept = loads_of(document).payload | results_of(document).payload
        _keep_records(document, kept)
    return kept


def tried(before: Document, after: Document) -> tuple[BuildingLoads, BuildingLoads]:
    """Loads of a document, and what they would become; nothing of the second is kept."""
    now = loads_of(before)
    state = _state(before)
    with state.lock:
        snapshots, memory = state.snapshots.copy(), state.memory.copy()
    return now.results, calculate_loads(snapshots.take(after).building, memory)


def tried_whole(before: Document, after: Document) -> BuildingResults:
    """Loads of what a document would become, with what serves the rooms; nothing of it is kept."""
    results_of(before)
    state = _state(before)
    with state.lock:
        snapshots, memory = state.snapshots.copy(), state.memory.copy()
    return calculate_plant(calculate_loads(snapshots.take(after).building, memory), memory)


def whole(document: Document) -> dict[str, Any]:
    """All results, for a first load."""
    loads, plant = loads_of(document), results_of(document)
    ms = loads.milliseconds + plant.milliseconds
    return _told(plant) | {"milliseconds": ms, "changed": loads.payload | plant.payload, "all": True}


def loads_since(document: Document, base_version: int) -> dict[str, Any]:
    """Records of the loads that differ from those of `base_version`; all of them where those are not kept any more."""
    done = loads_of(document)
    return _since(done, _state(document).loads.payloads.get(base_version))


def plant_since(document: Document, base_version: int) -> dict[str, Any]:
    """The same of what serves the rooms."""
    done = results_of(document)
    return _since(done, _state(document).plant.payloads.get(base_version))


def _since(done: Calculated[Any], kept: Payload | None) -> dict[str, Any]:
    if kept is None:
        return _told(done) | {"changed": done.payload, "all": True}
    return {**_told(done), **difference(kept, done.payload), "all": False}


def _told(done: Calculated[Any]) -> dict[str, Any]:
    return {
        "version": done.version,
        "milliseconds": done.milliseconds,
        "rooms_calculated": done.results.rooms_calculated,
        "gone": {},
        "categories": list(SOURCES),
    }
