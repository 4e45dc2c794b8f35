"""Authority of the control valves at the ends of a circuit.

A valve steers what flows through its emitter as far as the pressure across it is its own: authority is its drop when it is open, at
design flow, over what stands across it when it is closed. Where valves throttle, that is what its own section takes, with
what balancing leaves over; where the flow is constant and a three-way valve mixes, what the emitter beyond it takes.

Source: definition of valve authority, EN 60534-1 and common practice of VDI/VDE 2173; drop by Kv.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.duct.network import valve_drop_pa, valve_kv_m3_h
from pendrum_core.model.systems import Circuit
from pendrum_core.water.network import CircuitResult

LEAST_AUTHORITY, GOOD_AUTHORITY = 0.3, 0.5


@dataclass(frozen=True)
class ValveAuthority:
    """A control valve: its drop at design flow and what stands across it when it is closed [Pa].

    `good_kv_m3_h` is the Kv of a valve that would have half of that.
    """

    drop_pa: float
    closed_pa: float
    good_kv_m3_h: float

    @property
    def authority(self) -> float:
        """Share of what stands across it when closed [-]. Source: definition."""
        return self.drop_pa / self.closed_pa


def authorities(circuit: Circuit, found: CircuitResult) -> Mapping[str, ValveAuthority]:
    """By section, of those whose valve has a Kv and a flow [Pa, m3/h]. Source: module."""
    valves = {}
    for section in circuit.sections:
        sized = found.sections[section.id]
        if section.valve_kv_m3_h is None or section.end is None or sized.flow_m3_s <= 0.0:
            continue
        density = found.fluid.density_kg_m3
        drop = valve_drop_pa(sized.flow_m3_s, section.valve_kv_m3_h, density)
        if circuit.water_flow == "variable":
            closed = sized.loss_pa + found.paths.balancing_pa[section.id]
        else:
            closed = drop + section.end_drop_pa
        good = valve_kv_m3_h(sized.flow_m3_s, GOOD_AUTHORITY * closed, density)
        valves[section.id] = ValveAuthority(drop, closed, good)
    return valves
