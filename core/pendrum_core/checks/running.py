"""What in the hours, outdoor limits and flow temperatures of circuits deserves a second look."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.climate import day_number
from pendrum_core.model.systems import BY_HOURS, Circuit
from pendrum_core.plant.source import Course
from pendrum_core.quantities.times import clock, design_day
from pendrum_core.results.building import BuildingResults

_NOTICED_W = 50.0
_MUCH = 0.1  # of the largest load that it carries
_NOTICED_K = 0.5
COLDEST_C, HOTTEST_C = -15.0, 95.0  # that a circuit may flow at


def running_snags(results: BuildingResults) -> Iterator[Snag]:
    """Circuits of which something is asked while they do not run, or that flow too cold or too warm at their largest load."""
    for circuit in results.building.circuits:
        course = results.courses.get(circuit.id)
        if course is None:
            continue
        yield from _stopped(results, circuit, course)
        if circuit.flow_rule == BY_HOURS and circuit.id in results.plants:
            yield from _flow(results, circuit, course)


def _stopped(results: BuildingResults, circuit: Circuit, course: Course) -> Iterator[Snag]:
    stopped = course.stopped
    if stopped.peak_w < _NOTICED_W:
        return
    much = stopped.peak_w > _MUCH * course.peak[0]
    yield Snag(
        DOUBTFUL if much else NOTE,
        "circuit_stopped",
        kind="circuit",
        id=circuit.id,
        stage="water",
        sentence=f"{circuit.name}: {stopped.peak_w / 1000:.1f} kW are asked of it on {_day(results, stopped.month)} at "
        f"{clock(stopped.step)}, when it does not run.",
        way_out="longer hours, another temperature at which it stops, or ends that ask for nothing then",
    )


def _flow(results: BuildingResults, circuit: Circuit, course: Course) -> Iterator[Snag]:
    plant = results.plants[circuit.id]
    by_hours = np.concatenate([plant.flow_c, plant.winter_flow_c])
    farthest = float(by_hours.flat[int(np.abs(by_hours - circuit.flow_c).argmax())])
    if not COLDEST_C <= farthest <= HOTTEST_C:
        yield Snag(
            DOUBTFUL,
            "flow_beyond",
            kind="circuit",
            id=circuit.id,
            stage="water",
            sentence=f"{circuit.name}: by its schedule it flows at {farthest:.0f} °C.",
            way_out=f"a schedule of temperatures from {COLDEST_C:g} to {HOTTEST_C:g} °C",
        )
    _, month, step = course.peak
    flow = float(plant.winter_flow_c[0, step] if month is None else plant.flow_c[month, step])
    sign = 1.0 if circuit.kind == "heating" else -1.0
    if sign * (circuit.flow_c - flow) > _NOTICED_K:
        yield Snag(
            DOUBTFUL,
            "flow_short",
            kind="circuit",
            id=circuit.id,
            stage="water",
            sentence=f"{circuit.name}: at its largest load, on {_day(results, month)} at {clock(step)}, it flows at {flow:.1f} °C by its "
            f"schedule; what stands at its ends is sized for {circuit.flow_c:.1f} °C.",
            way_out="the design flow temperature in the schedule's design days, or another design flow temperature",
        )


def _day(results: BuildingResults, month: int | None) -> str:
    return design_day(None if month is None else day_number(results.building.climate.months[month]))
