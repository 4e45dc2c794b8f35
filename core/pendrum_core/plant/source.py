"""The source of a circuit: what its ends ask of it at every step, and the units that give it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.plant import (
    CONDENSER,
    GROSS_OVER_NET,
    KINDS,
    OUTDOORS,
    PART,
    RETURN,
    SOURCE,
    TOWER,
    PlantUnit,
    Rejection,
)
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.ground import extracted_w, source_c
from pendrum_core.plant.rejection import Cooler, Rejected, settle_with, size_cooler
from pendrum_core.plant.running import Running, flow_temperature_c, part_flow
from pendrum_core.plant.staging import EfficiencyTable, Staged, Unit, stage

Array = NDArray[np.float64]
Busy = Mapping[str, Array]  # by unit: share of the time in which it does something else, over steps
LEAST_FACTOR = 0.5  # of an efficiency, however far its water is from what it is told for


@dataclass(frozen=True)
class Course:
    """What is asked of a source: summer days (months, steps) and the winter day (1, steps); ends alone, with losses, and with hot water [W].

    `hot_w` is what stores of hot water take through any day, (steps,). `stopped_summer_w`, `stopped_winter_w` are what ends ask while
    the circuit does not run: nothing carries it; `back_summer_w`, `back_winter_w` what rooms get back of what it loses [W].
    """

    summer_w: Array
    winter_w: Array
    summer_ends_w: Array
    winter_ends_w: Array
    hot_w: Array
    back_summer_w: Array = field(default_factory=lambda: np.zeros((1, 1)))
    back_winter_w: Array = field(default_factory=lambda: np.zeros((1, 1)))
    stopped_summer_w: Array = field(default_factory=lambda: np.zeros((1, 1)))
    stopped_winter_w: Array = field(default_factory=lambda: np.zeros((1, 1)))

    @property
    def peak(self) -> tuple[float, int | None, int]:
        """Largest load [W], month index (None: the winter day), step."""
        found = _largest(self.summer_w, self.winter_w)
        return found.peak_w, found.month, found.step

    @property
    def stopped(self) -> "Largest":
        """Largest of what is asked while it does not run."""
        return _largest(self.stopped_summer_w, self.stopped_winter_w)


@dataclass(frozen=True)
class Largest:
    """Largest load [W], month index (None: the winter day), step."""

    peak_w: float
    month: int | None
    step: int


def _largest(summer_w: Array, winter_w: Array) -> Largest:
    summer, winter = float(summer_w.max(initial=0.0)), float(winter_w.max(initial=0.0))
    if winter >= summer:
        return Largest(winter, None, int(winter_w[0].argmax()))
    month, step = np.unravel_index(int(summer_w.argmax()), summer_w.shape)
    return Largest(summer, int(month), int(step))


@dataclass(frozen=True)
class PlantResult:
    """A plant.

    Attributes:
        design_w: load that its units are sized for: the course's peak with the circuit's margin.
        capacity_w: by unit, in order; of standby units too. then_w: what each can give where the load is largest.
        working: indices of the units that are no standby.
        summer, winter: staging at every step; `gross_over_net` of each working unit's fuel, (units).
        flow_c, winter_flow_c, return_c, winter_return_c: water at every step [°C].
        without_largest_w: capacity of all units with the largest one out.
        difference_k: between flow and return where the load is largest [K].
        cooler, rejected: of chillers cooled by water, sized, and over the summer's days; `made_up_kg_s` what a tower loses of
            water then.
    """

    course: Course
    design_w: float
    capacity_w: tuple[float, ...]
    then_w: tuple[float, ...]
    working: tuple[int, ...]
    summer: Staged
    winter: Staged
    gross_over_net: tuple[float, ...]
    flow_c: Array
    winter_flow_c: Array
    return_c: Array
    winter_return_c: Array
    without_largest_w: float
    difference_k: float
    cooler: Cooler | None = None
    rejected: Rejected | None = None
    made_up_kg_s: Array | None = None

    def extracted_w(self, row: int) -> float:
        """The most that a working unit draws from its source on the design days, output less power [W]. Source: its heat balance."""
        return max(
            float(extracted_w(day.output_w[row], day.fuel_w[row]).max(initial=0.0))
            for day in (self.summer, self.winter)
        )

    @property
    def working_w(self) -> float:
        """What the units that share the load can give where it is largest [W]."""
        return sum(self.then_w[i] for i in self.working)


def whole_course(
    circuit: Circuit,
    summer_ends_w: Array,
    winter_ends_w: Array,
    hot_first_w: Array,
    hot_beside_w: Array,
    pipes_lose_w: float = 0.0,
    given_back_w: tuple[Array, Array] = (np.zeros(1), np.zeros(1)),
) -> Course:
    """What ends ask, what is lost on the way to them, and what stores of hot water take, (steps,).

    Lost is a share of the load, or what pipes lose at the design temperatures while anything is asked, with the heat of pumps; `given_back_w`
    of it comes back to rooms, on summer's days and on the winter day, see water/losses.py.

    While a store goes first, heating waits: the source gives the larger of the two, and the store's heat is not made up for.
    Other stores add to the heating.
    """
    summer, winter = (
        np.maximum(with_losses_w(circuit, ends, pipes_lose_w) - back, hot_first_w) + hot_beside_w
        for ends, back in zip((summer_ends_w, winter_ends_w), given_back_w, strict=True)
    )
    hot_w = hot_first_w + hot_beside_w
    return Course(summer, winter, summer_ends_w, winter_ends_w, hot_w, *given_back_w)


def with_losses_w(circuit: Circuit, ends_w: Array, pipes_lose_w: float) -> Array:
    """What ends ask with what is lost on the way [W].

    Source: heat balance of the circuit.
    """
    return np.asarray(ends_w * (1.0 + circuit.lost_share) + np.where(ends_w > 0.0, pipes_lose_w, 0.0))


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
        output_c=None if kind.heats is None else (kind.cool_c, kind.warm_c),
        output_share=(unit.other_share, 1.0),
    )


def by_flow(unit: PlantUnit, flow_c: Array) -> Array:
    """What the water's temperature makes of a machine's efficiency [-]: a share for each kelvin from what it is told for, never below half.

    Source: straight line through makers' figures at two flow temperatures, as EN 14825 interpolates.
    """
    heats = KINDS[unit.kind].heats
    if heats is None or unit.flow_share_k == 0.0:
        return np.ones_like(flow_c)
    away = flow_c - unit.told_flow_c if heats else unit.told_flow_c - flow_c
    return np.asarray(np.maximum(1.0 - unit.flow_share_k * away, LEAST_FACTOR))


@dataclass(frozen=True)
class AirOutside:
    """Outdoor air over steps, dry-bulb and wet-bulb [°C], and its pressure [Pa]; `warmth` of the ground's year, see plant/ground.py."""

    dry_bulb_c: Array
    wet_bulb_c: Array
    pressure_pa: float
    warmth: Array | float = 0.0


@dataclass(frozen=True)
class Water:
    """Water of a circuit over steps [°C], and whether the circuit runs."""

    flow_c: Array
    return_c: Array
    on: NDArray[np.bool_] | bool = True


@dataclass(frozen=True)
class Members:
    """The units of a plant that share its load, each with what its efficiency rests on."""

    circuit: Circuit
    units: tuple[Unit, ...]
    kinds: tuple[str, ...]  # RETURN, OUTDOORS, CONDENSER or SOURCE
    inputs: tuple[PlantUnit, ...]

    def conditions(self, air: AirOutside, return_c: Array, condenser_c: Array) -> Array:
        """Temperature that each unit works at, (units, steps) [°C]. Source: see model/plant.py."""
        of = {RETURN: return_c, OUTDOORS: air.dry_bulb_c, CONDENSER: condenser_c}
        return np.stack(
            [
                np.broadcast_to(source_c(unit, air.warmth) if kind == SOURCE else of[kind], return_c.shape)
                for kind, unit in zip(self.kinds, self.inputs, strict=True)
            ]
        )

    def heat_w(self, staged: Staged) -> Array:
        """What those that are cooled by water reject, output and power [W]. Source: their heat balance."""
        rows = [i for i, kind in enumerate(self.kinds) if kind == CONDENSER]
        return np.asarray(staged.output_w[rows].sum(axis=0) + staged.fuel_w[rows].sum(axis=0))

    def shared(
        self, load_w: Array, air: AirOutside, water: Water, condenser_c: Array, busy: Busy | None = None
    ) -> Staged:
        """The load shared at every step [W]. Source: see plant/staging.py."""
        at = self.conditions(air, water.return_c, condenser_c)
        better = np.stack([by_flow(unit, water.flow_c) for unit in self.inputs])
        free = [np.broadcast_to(1.0 - (busy or {}).get(unit.id, 0.0), load_w.shape) for unit in self.inputs]
        return stage(
            self.units,
            load_w,
            at,
            self.circuit.staging,
            self.circuit.kept_warm & np.asarray(water.on),
            better,
            np.stack(free),
        )

    def run(
        self, load_w: Array, air: AirOutside, water: Water, cooler: Cooler | None, busy: Busy | None = None
    ) -> tuple[Staged, Rejected | None]:
        """The load shared, with the cooler that takes the heat of those cooled by water [W].

        Source: see plant/staging.py and plant/rejection.py.
        """
        if cooler is None:
            return self.shared(load_w, air, water, air.wet_bulb_c, busy), None
        rejected = settle_with(
            cooler,
            lambda condenser_c: self.heat_w(self.shared(load_w, air, water, condenser_c, busy)),
            _cooled_by(cooler.inputs, air),
        )
        return self.shared(load_w, air, water, rejected.water_c, busy), rejected

    def busy(self, staged: Staged) -> dict[str, Array]:
        """Share of the time that each unit of these works, by id, (steps) [-]. Source: output over what it can give."""
        return {unit.id: used for unit, used in zip(self.inputs, staged.used, strict=True)}


def _cooled_by(inputs: Rejection, air: AirOutside) -> Array:
    return air.wet_bulb_c if inputs.kind == TOWER else air.dry_bulb_c


def members_of(circuit: Circuit, capacity_w: Sequence[float], working: Sequence[int]) -> Members:
    """The working units of a plant with their capacities [W]. Source: inputs."""
    return Members(
        circuit,
        tuple(staged_unit(circuit.units[i], capacity_w[i]) for i in working),
        tuple(KINDS[circuit.units[i].kind].of for i in working),
        tuple(circuit.units[i] for i in working),
    )


def return_c(circuit: Circuit, flow_c: Array, share: Array, difference_k: float) -> Array:
    """Water that comes back where a `share` of the design load is asked [°C]; `difference_k` is of flow and return at design.

    Source: see `part_flow`.
    """
    _, cooled = part_flow(circuit, flow_c, np.clip(share, 0.0, 1.0), abs(difference_k))
    return np.asarray(flow_c - np.sign(difference_k) * cooled)


def _gives(unit: PlantUnit, air: AirOutside, at: tuple[int, int]) -> float:
    """What a unit can give with the air or the ground of a step, of its capacity [-]; of others all of it."""
    of = KINDS[unit.kind].of
    if of not in (OUTDOORS, SOURCE):
        return 1.0
    here = air.dry_bulb_c if of == OUTDOORS else np.broadcast_to(source_c(unit, air.warmth), air.dry_bulb_c.shape)
    return float(staged_unit(unit, 1.0).most_w(np.array(here[at])))


def _cooler(members: Members, load_w: Array, margin: float, air: AirOutside, water: Water) -> Cooler | None:
    """The cooler of chillers cooled by water, for the largest heat with that step's air; None where there are none."""
    if CONDENSER not in members.kinds:
        return None
    inputs = members.circuit.rejection
    outdoors = _cooled_by(inputs, air)
    condenser_c = np.maximum(outdoors + inputs.approach_k, inputs.least_c)
    heat = members.heat_w(members.shared(load_w, air, water, condenser_c))
    at = int(heat.argmax())
    if float(heat.ravel()[at]) <= 0.0:
        return None
    return size_cooler(inputs, float(heat.ravel()[at]) * (1.0 + margin), float(outdoors.ravel()[at]), air.pressure_pa)


def size_plant(
    circuit: Circuit,
    units: Sequence[PlantUnit],
    course: Course,
    margin: float,
    summer: AirOutside,
    winter: AirOutside,
    running: tuple[Running, Running] | None = None,
    busy: tuple[Busy, Busy] | None = None,
) -> PlantResult:
    """Capacities of the units and how they share the load at every step.

    What water comes back with is that of `part_flow`. `running` tells the circuit on summer's days and on the winter day; None: it
    always runs, without hours of its own. `busy` is of units that do something else then.

    Raises:
        ValueError: there is no unit that works, or no cooler can do what is asked of it.
    """
    design = course.peak[0] * (1.0 + margin)
    # A machine's share is met where the load is largest: what it is bought by is its capacity at the temperature that it is told at.
    peak_w, month, step = course.peak
    gives = tuple(_gives(unit, *((winter, (0, step)) if month is None else (summer, (month, step)))) for unit in units)
    capacities = tuple(
        unit.capacity_w if unit.capacity_w is not None else unit.share * design / share
        for unit, share in zip(units, gives, strict=True)
    )
    working = tuple(i for i, unit in enumerate(units) if not unit.standby and capacities[i] > 0.0)
    if not working:
        raise ValueError(f"circuit {circuit.name}: none of its units works; one of them must not be a standby")
    members = members_of(circuit, capacities, working)
    difference = circuit.flow_c - circuit.return_c
    waters: list[Water] = []
    always = (Running(np.array(True), flow_temperature_c(circuit, air.dry_bulb_c)) for air in (summer, winter))
    for at, load in zip(running or always, (course.summer_w, course.winter_w), strict=True):
        waters.append(Water(at.flow_c, return_c(circuit, at.flow_c, load / max(peak_w, 1e-9), difference), at.on))
    cooler = _cooler(members, course.summer_w, margin, summer, waters[0])
    warm, rejected = members.run(course.summer_w, summer, waters[0], cooler, busy[0] if busy else None)
    cold, _ = members.run(course.winter_w, winter, waters[1], cooler, busy[1] if busy else None)
    then = tuple(capacity * share for capacity, share in zip(capacities, gives, strict=True))
    return PlantResult(
        course,
        design,
        capacity_w=capacities,
        then_w=then,
        working=working,
        summer=warm,
        winter=cold,
        gross_over_net=tuple(GROSS_OVER_NET[units[i].fuel] for i in working),
        flow_c=waters[0].flow_c,
        winter_flow_c=waters[1].flow_c,
        return_c=waters[0].return_c,
        winter_return_c=waters[1].return_c,
        without_largest_w=sum(then) - max(then),
        difference_k=difference,
        cooler=cooler,
        rejected=rejected,
        made_up_kg_s=None
        if cooler is None or rejected is None
        else cooler.made_up_kg_s(rejected.heat_w, rejected.speed, summer.dry_bulb_c, summer.wet_bulb_c),
    )
