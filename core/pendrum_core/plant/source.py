"""The source of a circuit: what its ends ask of it at every step, and the units that give it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import GROSS_OVER_NET, KINDS, PART, RETURN, PlantUnit
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.staging import EfficiencyTable, Staged, Unit, stage

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Course:
    """What is asked of a source: summer days (months, steps) and the winter day (1, steps); ends alone, with losses, and with hot water [W].

    `hot_w` is what stores of hot water take through any day, (steps,).
    """

    summer_w: Array
    winter_w: Array
    summer_ends_w: Array
    winter_ends_w: Array
    hot_w: Array

    @property
    def peak(self) -> tuple[float, int | None, int]:
        """Largest load [W], month index (None: the winter day), step."""
        summer, winter = float(self.summer_w.max(initial=0.0)), float(self.winter_w.max(initial=0.0))
        if winter >= summer:
            return winter, None, int(self.winter_w[0].argmax())
        month, step = np.unravel_index(int(self.summer_w.argmax()), self.summer_w.shape)
        return summer, int(month), int(step)


@dataclass(frozen=True)
class PlantResult:
    """A plant.

    Attributes:
        design_w: load that its units are sized for: the course's peak with the circuit's margin.
        capacity_w: by unit, in order; of standby units too.
        working: indices of the units that are no standby.
        summer, winter: staging at every step; `gross_over_net` of each working unit's fuel, (units).
        flow_c, winter_flow_c, return_c, winter_return_c: water at every step [°C].
        without_largest_w: capacity of all units with the largest one out.
    """

    course: Course
    design_w: float
    capacity_w: tuple[float, ...]
    working: tuple[int, ...]
    summer: Staged
    winter: Staged
    gross_over_net: tuple[float, ...]
    flow_c: Array
    winter_flow_c: Array
    return_c: Array
    winter_return_c: Array
    without_largest_w: float

    @property
    def working_w(self) -> float:
        """Capacity of the units that share the load [W]."""
        return sum(self.capacity_w[i] for i in self.working)


def whole_course(
    circuit: Circuit,
    summer_ends_w: Array,
    winter_ends_w: Array,
    hot_first_w: Array,
    hot_beside_w: Array,
    pipes_lose_w: float = 0.0,
) -> Course:
    """What ends ask, what is lost on the way to them, and what stores of hot water take, (steps,).

    Lost is a share of the load, or what insulated pipes lose at the design temperatures while anything is asked.

    While a store goes first, heating waits: the source gives the larger of the two, and the store's heat is not made up for.
    Other stores add to the heating.
    """
    summer, winter = (
        np.maximum(with_losses_w(circuit, ends, pipes_lose_w), hot_first_w) + hot_beside_w
        for ends in (summer_ends_w, winter_ends_w)
    )
    return Course(summer, winter, summer_ends_w, winter_ends_w, hot_first_w + hot_beside_w)


def with_losses_w(circuit: Circuit, ends_w: Array, pipes_lose_w: float) -> Array:
    """What ends ask with what is lost on the way [W].

    Source: heat balance of the circuit.
    """
    return np.asarray(ends_w * (1.0 + circuit.lost_share) + np.where(ends_w > 0.0, pipes_lose_w, 0.0))


def flow_temperature_c(circuit: Circuit, outdoor_c: Array) -> Array:
    """Flow temperature by the circuit's rule [°C]: fixed, or by a line from `reset_cold_c` to `reset_mild_c` outdoors.

    Source: linear compensation of heating practice (EN 12098-1).
    """
    if circuit.flow_rule != "outdoors":
        return np.full_like(outdoor_c, circuit.flow_c)
    ends = (circuit.reset_cold_c, circuit.reset_mild_c), (circuit.flow_c, circuit.flow_mild_c)
    return np.asarray(np.interp(outdoor_c, *ends))


def staged_unit(unit: PlantUnit, capacity_w: float) -> Unit:
    """A unit of a capacity as staging takes it, its efficiencies on net value."""
    kind = KINDS[unit.kind]
    to_net = GROSS_OVER_NET[unit.fuel] if unit.gross else 1.0
    rows = ((unit.part_cool, unit.part_warm), (unit.full_cool, unit.full_warm))
    table = EfficiencyTable(
        (PART, 1.0), (kind.cool_c, kind.warm_c), tuple(tuple(to_net * e for e in row) for row in rows)
    )
    return Unit(
        unit.name,
        capacity_w,
        table,
        least_part=unit.least_part,
        idle_share=unit.idle_share,
        running_w=unit.running_w,
        running_w_w=unit.running_w_w,
        resting_w=unit.resting_w,
    )


def size_plant(
    circuit: Circuit, units: Sequence[PlantUnit], course: Course, margin: float, outdoor_c: Array, winter_c: float
) -> PlantResult:
    """Capacities of the units and how they share the load at every step.

    Water comes back as much warmer or colder than it went as the load is of the design load, at constant flow.

    Raises:
        ValueError: there is no unit that works.
    """
    design = course.peak[0] * (1.0 + margin)
    capacities = tuple(unit.capacity_w if unit.capacity_w is not None else unit.share * design for unit in units)
    working = tuple(i for i, unit in enumerate(units) if not unit.standby and capacities[i] > 0.0)
    if not working:
        raise ValueError(f"circuit {circuit.name}: none of its units works; one of them must not be a standby")
    members = [staged_unit(units[i], capacities[i]) for i in working]
    difference = circuit.flow_c - circuit.return_c
    waters = []
    for outdoors, load in ((outdoor_c, course.summer_w), (np.full_like(course.winter_w, winter_c), course.winter_w)):
        flow = flow_temperature_c(circuit, outdoors)
        waters.append((outdoors, flow, flow - difference * load / max(course.peak[0], 1e-9)))
    # Units of one plant may rest on different temperatures; where they do, the first decides.
    by_return = KINDS[units[working[0]].kind].of == RETURN
    summer, winter = (
        stage(members, load, back if by_return else outdoors, circuit.staging, circuit.kept_warm)
        for load, (outdoors, _, back) in zip((course.summer_w, course.winter_w), waters, strict=True)
    )
    return PlantResult(
        course,
        design,
        capacity_w=capacities,
        working=working,
        summer=summer,
        winter=winter,
        gross_over_net=tuple(GROSS_OVER_NET[units[i].fuel] for i in working),
        flow_c=waters[0][1],
        winter_flow_c=waters[1][1],
        return_c=waters[0][2],
        winter_return_c=waters[1][2],
        without_largest_w=sum(capacities) - max(capacities),
    )
