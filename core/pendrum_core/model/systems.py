"""Air systems and water circuits as inputs."""

from dataclasses import dataclass, field

from pendrum_core.model.catalogue import STANDARDS, Sizes
from pendrum_core.model.plant import CeilingBuild, FloorBuild, PlantUnit, Rejection
from pendrum_core.model.unit_parts import COOLING_COIL, HEATING_COIL, HUMIDIFYING, USUAL_PARTS, UnitPart
from pendrum_core.schedule.pattern import DayPattern

SUPPLY, RETURN, OUTDOOR, EXHAUST = "supply", "return", "outdoor", "exhaust"  # networks of ducts
NETWORKS = (SUPPLY, RETURN, OUTDOOR, EXHAUST)


@dataclass(frozen=True)
class Fitted:
    """Fittings of one kind in a section.

    Attributes:
        kind: key of the table of fittings (network/fittings.py); empty for one of the engineer's own.
        count: how many; of a pipe section in flow and return together.
        coefficient: C of each, in place of the table's [-].
    """

    kind: str
    count: int
    coefficient: float | None = None


@dataclass(frozen=True)
class Section:
    """A duct or pipe section of a tree.

    Attributes:
        parent: id of the section before it; None at the fan or pump.
        length_m: route length; a pipe section stands for flow and return together.
        loss_coefficient: C (or zeta) at the section's own velocity beside that of `fittings` [-].
        component_drop_pa: of anything else in it, at design flow [Pa].
        end: id of the room or system served at its end; None for a section that only carries others.
        end_share: of what stands at its end, where several ways lead there [-]; None: alike of what no other way takes.
        end_drop_pa: of the terminal, emitter or coil with its valve, at design flow [Pa].
        valve_kv_m3_h: of a pipe's end, the valve there: m3/h at 1 bar; None where its drop is in `end_drop_pa`.
        pinned_diameter_m: inner diameter fixed by the engineer [m].
        through: of a pipe, the room that it runs through; None: that at its end, where it ends at one.
        network: of a duct: SUPPLY, RETURN, OUTDOOR or EXHAUST; see duct/lanes.py.
        shape, height_limit_m: of a duct: "round", "rectangular" or "flat oval", and what it may be high at most [m].
        pinned_width_m, pinned_height_m: of a duct that is not round, fixed together by the engineer [m].
    """

    id: str
    name: str
    parent: str | None
    length_m: float
    loss_coefficient: float
    component_drop_pa: float = 0.0
    end: str | None = None
    end_drop_pa: float = 0.0
    pinned_diameter_m: float | None = None
    shape: str = "round"
    height_limit_m: float | None = None
    pinned_width_m: float | None = None
    pinned_height_m: float | None = None
    valve_kv_m3_h: float | None = None
    fittings: tuple[Fitted, ...] = ()
    network: str = SUPPLY
    through: str | None = None
    end_share: float | None = None


@dataclass(frozen=True)
class Extract:
    """Air that leaves a room to outdoors by a fan: a hood, a toilet, a process.

    Attributes:
        flow_m3_s: while it runs, of air at 20 °C.
        by_unit: whether it leaves through the lane of the room's air system, with its recovery, and not by a fan of its own.
        by_month: share of it that runs, January to December; empty: always.
        winter: the same on the winter day; None: always.
        fan_pa, fan_efficiency: its own fan, total pressure [Pa] and efficiency with its motor [-].
        triggered: whether it runs by the room's temperature; then it is no part of the standing balance.
    """

    id: str
    name: str
    room: str
    flow_m3_s: float
    by_unit: bool = False
    by_month: tuple[DayPattern, ...] = ()
    winter: DayPattern | None = None
    fan_pa: float = 0.0
    fan_efficiency: float = 0.5
    triggered: bool = False


@dataclass(frozen=True)
class Transfer:
    """Air that flows from one room into another, of air at 20 °C [m3/s]; None: what balances the room it flows into."""

    id: str
    source: str
    target: str
    flow_m3_s: float | None


@dataclass(frozen=True)
class Terminal:
    """A room on an air system.

    Attributes:
        rank: 1 where this system serves the room first, 2 where it takes what the first leaves.
        shared: whether another system serves the room too.
        people: at full presence [-].
        air_per_person_m3_s, air_per_area_m3_s_m2: breathing-zone outdoor air.
        outdoor_air_changes: outdoor air that it is never less than [1/h].
        effectiveness: zone air distribution effectiveness Ez [-].
        minimum_air_changes: [1/h].
        pinned_flow_m3_s: supply flow fixed by the engineer.
        constant: whether its flow stays at design where the system's is variable.
        least_share: of its design flow that it never goes below, in place of the system's [-].
        reheats: whether it has the system's kind of reheat; outlets: how many it feeds.
    """

    room: str
    people: float
    air_per_person_m3_s: float
    air_per_area_m3_s_m2: float
    effectiveness: float
    minimum_air_changes: float
    pinned_flow_m3_s: float | None = None
    outdoor_air_changes: float = 0.0
    rank: int = 1
    shared: bool = False
    constant: bool = False
    least_share: float | None = None
    reheats: bool = True
    outlets: int = 1


OWN_PEAK, COINCIDENT = "own peak", "coincident"
SERIES, PARALLEL = "series", "parallel"  # how a fan stands in a terminal
CENTRAL, MAKE_UP, ROOM_UNIT = "central", "make-up", "room units"
WATER_REHEAT = "hot water"


@dataclass(frozen=True)
class AirSystem:
    """An air system.

    Attributes:
        of: id of the system as it is drawn, where that is one set of equipment per room; else its own.
        kind: CENTRAL, MAKE_UP (its flows are what its rooms' extracts take, of outdoor air alone) or ROOM_UNIT (the air of one
            room, and no outdoor air).
        parts: what stands in its supply lane behind the mixing, in order; see air/parts.py.
        supply_rule: "rooms" (with constant flow, as cold as the room that asks for the coldest), "fixed", or "outdoors" (by a line
            from winter_supply_c at `reset_cold_c` outdoors to supply_c at `reset_warm_c`).
        sizes: of motors and round ducts that are sold.
        dry_to_c: temperature off the cooling coil while the air is humid; None: it does not dry for itself.
        volume: "constant" or "variable" flow at the terminals.
        sizing: of its terminals' flows: OWN_PEAK, each for its room's own largest load, or COINCIDENT, for what its rooms ask at
            the one step at which they ask the most together.
        least_share: of a variable terminal's design flow that it never goes below [-].
        reheat: at the terminals: "electric", WATER_REHEAT from the circuit that feeds its heating coil, or "none".
        terminal_fan: of its terminals: SERIES or PARALLEL, or "none"; see air/terminal_fans.py. terminal_fan_w_m3_s: electricity by flow
            [W per m3/s]; terminal_fan_share: flow of one in parallel, of the terminal's design flow [-].
        outdoor_only: whether it takes outdoor air alone.
        economizer, economizer_limit: kind, see air/economizer.py, and limit [°C] or [J/kg].
        recovery_sensible, recovery_latent: effectivenesses, 0 where there is no exchanger [-].
        frost, frost_limit_c: protection of the exchanger, see air/recovery.py.
        return_fan_pa: total pressure of a return fan, 0 where there is none [Pa].
        held_pa: pressure that the supply fan's control holds at part flow [Pa].
        duct_leak_share: of the fan's flow, lost into the return plenum, where no class is given [-].
        duct_method, duct_leak_class, duct_insulation_m, duct_around_c: see duct/methods.py.
        running, running_winter: above 0.5 while it runs, January to December and the winter day; empty and None: always.
        supply_c: coldest air at the rooms' terminals, for which airflows are sized [°C].
        winter_supply_c: supply temperature on the winter day [°C].
        bypass_factor: of the cooling coil [-].
        fan_efficiency, motor_efficiency: total, and motor with drive [-].
        motor_margin: on shaft power before the next standard motor [-].
        outlet_velocity_m_s: in the fan outlet.
        friction_limit_pa_m, velocity_limit_m_s, branch_velocity_m_s, runout_velocity_m_s: of duct sizing, see duct/methods.py.
        roughness_m: of the ducts.
        ventilation: procedure of its outdoor air, see air/outdoor_air.py.
        people_share: of all its rooms' people, those that are there at one time [-].
        outdoor_by_people: whether its outdoor air follows the people who are there; the winter day takes all of it.
    """

    id: str
    name: str
    terminals: tuple[Terminal, ...]
    sections: tuple[Section, ...]
    supply_c: float = 14.0
    winter_supply_c: float = 20.0
    bypass_factor: float = 0.12
    fan_efficiency: float = 0.65
    motor_efficiency: float = 0.85
    motor_margin: float = 0.15
    outlet_velocity_m_s: float = 8.0
    friction_limit_pa_m: float = 0.8
    velocity_limit_m_s: float = 7.0
    branch_velocity_m_s: float | None = None
    runout_velocity_m_s: float | None = None
    roughness_m: float = 9e-5
    ventilation: str = "62.1 full"
    people_share: float = 1.0
    terminal_fan: str = "none"
    terminal_fan_w_m3_s: float = 400.0
    terminal_fan_share: float = 0.5
    outdoor_by_people: bool = False
    volume: str = "constant"
    sizing: str = OWN_PEAK
    least_share: float = 0.3
    reheat: str = "electric"
    outdoor_only: bool = False
    economizer: str = "none"
    economizer_limit: float = 0.0
    recovery_sensible: float = 0.0
    recovery_latent: float = 0.0
    frost: str = "none"
    frost_limit_c: float = 1.0
    return_fan_pa: float = 0.0
    held_pa: float = 150.0
    duct_leak_share: float = 0.0
    duct_method: str = "equal friction"
    duct_leak_class: str = ""
    duct_insulation_m: float | None = None
    duct_around_c: float = 24.0
    running: tuple[DayPattern, ...] = ()
    running_winter: DayPattern | None = None
    of: str = ""
    kind: str = CENTRAL
    parts: tuple[UnitPart, ...] = USUAL_PARTS
    supply_rule: str = "rooms"
    reset_cold_c: float = 5.0
    reset_warm_c: float = 20.0
    dry_to_c: float | None = None
    sizes: Sizes = STANDARDS

    @property
    def drawn(self) -> str:
        """Id of the system as it is drawn."""
        return self.of or self.id

    @property
    def fitted(self) -> tuple[UnitPart, ...]:
        """Parts that count: units in rooms have no heating coil, their rooms' emitters heat."""
        return tuple(part for part in self.parts if self.kind != ROOM_UNIT or part.kind != HEATING_COIL)

    @property
    def cools(self) -> bool:
        """Whether it has a cooling coil."""
        return any(part.kind == COOLING_COIL for part in self.parts)

    @property
    def cleaner_pa(self) -> float:
        """What its filters take less in the mean of their lives than when they are dirty [Pa]: half of the way to new ones."""
        return sum((part.drop_pa - part.clean_pa) / 2.0 for part in self.fitted if part.clean_pa is not None)

    @property
    def draws_return(self) -> bool:
        """Whether its supply fan draws the air back from the rooms: it mixes it in, and no fan stands in the return."""
        return not self.takes_outdoor_air_alone and self.return_fan_pa <= 0.0

    @property
    def follows_load(self) -> bool:
        """Whether its terminals follow the rooms' cooling: of a unit that cannot cool they stay at their design flow."""
        return self.volume == "variable" and self.kind == CENTRAL and self.cools

    @property
    def dries_to_c(self) -> float | None:
        """Off its coil while the air is humid, where a heating coil behind it brings the air back [°C]; else None."""
        kinds = [part.kind for part in self.fitted]
        again = COOLING_COIL in kinds and HEATING_COIL in kinds[kinds.index(COOLING_COIL) :]
        return self.dry_to_c if again else None

    @property
    def humidifier(self) -> str:
        """Kind of its humidifier, see air/humidifier.py; it keeps the rooms' lower limits of humidity in winter."""
        return next((HUMIDIFYING[part.kind] for part in self.parts if part.kind in HUMIDIFYING), "none")

    @property
    def takes_outdoor_air_alone(self) -> bool:
        """Whether no air comes back into its supply."""
        return self.outdoor_only or self.kind == MAKE_UP


NOWHERE, BY_AREA, BY_RUN = "nowhere", "area", "run"  # who gets what a circuit's pipes lose
BY_OUTDOORS, BY_HOURS = "outdoors", "schedule"  # how a circuit's flow temperature goes, where it is not fixed
RADIATORS, UNDERFLOOR, PANELS = "radiators", "underfloor", "radiant panels"
WATER, REFRIGERANT = "water", "refrigerant"
MIXED, EXCHANGER, DIRECT = "mixed", "exchanger", "direct"  # how a circuit hangs on the one that feeds it
TWO_PIPES, REVERSE_RETURN = "two pipes", "reverse return"


@dataclass(frozen=True)
class Circuit:
    """A two-pipe circuit.

    Attributes:
        kind: "heating" or "chilled".
        medium: WATER, or REFRIGERANT between the coils of units and its machines: without pump and sized pipes.
        flow_c, return_c: design temperatures [°C]; of a refrigerant `flow_c` is where it boils or condenses.
        source_drop_pa: boiler or chiller with its fittings [Pa].
        pump_margin: on the head [-].
        pump_efficiency, motor_efficiency, motor_margin: [-].
        motor_class: "own" for `motor_efficiency`, or a class of plant/motors.py.
        pinned_head_pa: head that the engineer fixed; None: as calculated [Pa].
        pump_count, pump_standby, pump_control: pumps on duty together, waiting, and their control, see water/pump.py.
        water_flow: "constant", or "variable" where valves throttle and the flow follows the load.
        diversity: of the flow that all ends take together at one time over the sum of their own, where the engineer set it [-];
            None: at variable flow as their courses say, at constant flow all of it.
        other_pump_efficiency, other_motor_efficiency, other_pump_control: of another pump of the same duty, to see what it saves; None
            and empty: as of this one.
        piping: TWO_PIPES, or REVERSE_RETURN of its mains, see water/reverse.py.
        pipe: key of the series of pipes (water/pipes.py); `roughness_m` None: as that series says [m].
        glycol, glycol_share: "none", "ethylene" or "propylene", and its share by mass [-].
        rated_exponent, rated_flow_c, rated_return_c, rated_room_c: n of the radiators [-], temperatures of their rating [°C].
        flow_rule: "fixed"; BY_OUTDOORS: from `flow_c` at `reset_cold_c` outdoors to `flow_mild_c` at `reset_mild_c` [°C]; or BY_HOURS:
            `flow_by_month`, January to December, and `flow_winter` on the winter day [°C].
        running, running_winter: above 0.5 while it may run, January to December and the winter day; empty and None: always.
        starts_c, stops_c: outdoors, of heating from the first downwards and until the second upwards, of chilled water the other way;
            one alone is both; None: at any outdoor temperature [°C].
        loss_share: of what the ends ask, lost on the way [-]; in its place `loss_w_m2` of the floor of the rooms at its ends [W/m2], or
            `pipe_insulation_m`, which goes before both, see water/insulation.py:
            thickness around pipes [m], with `pipe_insulation_w_mk` its conductivity and `pipe_around_c` the air around [°C].
        loss_to: who gets what is lost: NOWHERE, rooms BY_AREA or BY_RUN of the pipes, see water/losses.py.
        buffer_h, buffer_k: least run that a buffer gives its smallest unit [h], None without a buffer, and between which temperatures it
            works [K]; pinned_buffer_m3 its volume where the engineer fixed it.
        staging, kept_warm: of its units, see plant/staging.py.
        static_height_m, safety_valve_pa, source_content_m3: of its expansion vessel; gauge pressure.
        source, connection, approach_k: id of the circuit that feeds it in place of units of its own, and how (water/feeds.py); the
            approach of an exchanger's flows.
        sizes: of motors and, where its `pipe` is OWN_PIPES, of pipes that are sold.
        units: what feeds it; none where it is not worked out. `rejection`: where its water-cooled chillers put their heat.
        emitters: RADIATORS, PANELS overhead or UNDERFLOOR in its rooms; panel_w_m: output of a metre of panel at its rating [W/m]; `floor`: how heated floors are built; `ceiling`: what cools the rooms
            of a chilled circuit.
    """

    id: str
    name: str
    kind: str
    sections: tuple[Section, ...]
    flow_c: float
    return_c: float
    friction_limit_pa_m: float = 150.0
    velocity_limit_m_s: float = 1.5
    pipe: str = "steel"
    piping: str = TWO_PIPES
    roughness_m: float | None = None
    glycol: str = "none"
    glycol_share: float = 0.3
    source_drop_pa: float = 15_000.0
    pump_margin: float = 0.10
    pump_efficiency: float = 0.55
    motor_efficiency: float = 0.85
    motor_margin: float = 0.15
    motor_class: str = "own"
    pinned_head_pa: float | None = None
    pump_count: int = 1
    pump_standby: int = 0
    pump_control: str = "constant speed"
    water_flow: str = "constant"
    diversity: float | None = None
    other_pump_efficiency: float | None = None
    other_motor_efficiency: float | None = None
    other_pump_control: str = ""
    rated_exponent: float = 1.3
    rated_flow_c: float = 75.0
    rated_return_c: float = 65.0
    rated_room_c: float = 20.0
    flow_rule: str = "fixed"
    flow_mild_c: float = 35.0
    reset_cold_c: float = -10.0
    reset_mild_c: float = 15.0
    flow_by_month: tuple[DayPattern, ...] = ()
    flow_winter: DayPattern | None = None
    running: tuple[DayPattern, ...] = ()
    running_winter: DayPattern | None = None
    starts_c: float | None = None
    stops_c: float | None = None
    loss_share: float = 0.0
    loss_w_m2: float | None = None
    loss_to: str = NOWHERE
    pipe_insulation_m: float | None = None
    pipe_insulation_w_mk: float = 0.035
    pipe_around_c: float = 20.0
    buffer_h: float | None = None
    buffer_k: float = 5.0
    pinned_buffer_m3: float | None = None
    staging: str = "in turn"
    kept_warm: bool = False
    static_height_m: float = 8.0
    safety_valve_pa: float = 3e5
    source_content_m3: float = 0.05
    medium: str = WATER
    source: str | None = None
    connection: str = MIXED
    approach_k: float = 3.0
    sizes: Sizes = STANDARDS
    units: tuple[PlantUnit, ...] = ()
    rejection: Rejection = field(default_factory=Rejection)
    emitters: str = RADIATORS
    panel_w_m: float = 300.0
    floor: FloorBuild = field(default_factory=FloorBuild)
    ceiling: CeilingBuild = field(default_factory=CeilingBuild)

    @property
    def by_refrigerant(self) -> bool:
        """Whether no water flows in it."""
        return self.medium == REFRIGERANT

    @property
    def lost_share(self) -> float:
        """Of what the ends ask, lost on the way, where that is stated so [-]."""
        return self.loss_share if self.loses_a_share else 0.0

    @property
    def loses_a_share(self) -> bool:
        """Whether what it loses is a share of the load, and not a figure of its own."""
        return self.pipe_insulation_m is None and self.loss_w_m2 is None
