"""The networks of an air system's ducts beside its supply: return from its rooms, outdoor air in, exhaust air out.

Return sections end at rooms, as supply sections do; the sections of outdoor and exhaust air end outdoors, those of several
ends share alike. Flows are of air of 20 °C.

Leaks: what leaks into return ducts is air of the void around them, the rooms' own. The unit gets what its balance says, so that
grilles take so much less. Outdoor ducts carry what leaks into them beside the outdoor air that is wanted; of the exhaust so much
less comes to its outlet.

Source: as of the supply network, see network.py; pressures against the void are those of a network from its open end to the fan.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.duct.methods import DuctRules
from pendrum_core.duct.network import DuctResult, air, size_tree
from pendrum_core.model.systems import EXHAUST, OUTDOOR, RETURN, Section
from pendrum_core.network.friction import Fluid

DUCT_AIR_C = 20.0
_LEAK_ROUNDS = 2


@dataclass(frozen=True)
class LaneFlows:
    """Design flows that the networks carry, of air of 20 °C [m3/s]: what comes back from each room over the steps, and from
    all at one time; what is taken in and let out.
    """

    returned_m3_s: Mapping[str, NDArray[np.float64]]
    together_m3_s: float
    outdoor_m3_s: float
    exhaust_m3_s: float


def size_lanes(
    sections: tuple[Section, ...], flows: LaneFlows, rules: DuctRules, pressure_pa: float
) -> dict[str, DuctResult]:
    """The networks that have any section and any flow [pressures in Pa], by name.

    Raises:
        TreeError: sections of a network that are not a tree.
        ValueError: a rule that is none.
    """
    # What goes out is past what its warmth could change.
    bare, drawn = replace(rules, insulation_m=None), replace(rules, suction=True)
    fluid = air(DUCT_AIR_C, pressure_pa)
    found: dict[str, DuctResult] = {}
    returning = tuple(section for section in sections if section.network == RETURN)
    if any(section.end in flows.returned_m3_s for section in returning):
        most = {room: max(0.0, float(course.max())) for room, course in flows.returned_m3_s.items()}
        found[RETURN] = _with_leaks_within(returning, most, fluid, drawn, flows.returned_m3_s)
    for network, flow in ((OUTDOOR, flows.outdoor_m3_s), (EXHAUST, flows.exhaust_m3_s)):
        its = tuple(section for section in sections if section.network == network)
        carrying = {section.parent for section in its}
        ends = [section.id for section in its if section.id not in carrying]
        if ends and flow > 0.0:
            open_ended = tuple(replace(one, end=one.id if one.id in ends else None) for one in its)
            through = dict.fromkeys(ends, flow / len(ends))
            found[network] = (
                size_tree(open_ended, through, fluid, drawn)
                if network == OUTDOOR
                else _with_leaks_within(open_ended, through, fluid, bare)
            )
    return found


def _with_leaks_within(
    sections: tuple[Section, ...],
    end_flow_m3_s: Mapping[str, float],
    fluid: Fluid,
    rules: DuctRules,
    courses_m3_s: Mapping[str, NDArray[np.float64]] | None = None,
) -> DuctResult:
    """A network whose fan carries the flows of its ends, what leaks among them: so much less flows at the ends themselves."""
    found = size_tree(sections, end_flow_m3_s, fluid, rules, courses_m3_s=courses_m3_s)
    for _ in range(_LEAK_ROUNDS if found.leak_share > 0.0 else 0):
        left = 1.0 - found.leak_share
        courses = None if courses_m3_s is None else {room: left * course for room, course in courses_m3_s.items()}
        found = size_tree(
            sections, {end: left * flow for end, flow in end_flow_m3_s.items()}, fluid, rules, courses_m3_s=courses
        )
    return found


def in_front_pa(lanes: Mapping[str, DuctResult], draws_return: bool) -> float:
    """What the supply fan draws through: outdoor air, and return air that it mixes and that has no fan of its own; the larger [Pa].

    Source: both meet at one pressure in the mixing, the smaller is throttled there.
    """
    names = (OUTDOOR, RETURN) if draws_return else (OUTDOOR,)
    return max((lanes[name].paths.index_loss_pa for name in names if name in lanes), default=0.0)


def behind_pa(lanes: Mapping[str, DuctResult]) -> float:
    """What a return fan has to overcome: the return network and that of the exhaust air [Pa].

    Source: two networks in series.
    """
    return sum(lanes[name].paths.index_loss_pa for name in (RETURN, EXHAUST) if name in lanes)
