"""Outdoor air of a system that serves several rooms.

Procedures: "62.1 full" (ANSI/ASHRAE 62.1-2019, 6.2 and normative appendix A), "62.1 simplified" (6.2.5.3 of the same),
and "sum" (EN 16798-1:2019: people and building parts of all rooms added, no efficiency of the system).
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.systems import Terminal

Array = NDArray[np.float64]


def breathing_air_m3_s(people_m3_s: float, area_m3_s: float, air_changes: float, volume_m3: float) -> float:
    """Outdoor air of the breathing zone, Vbz = max(Rp P + Ra A, n V / 3600) [m3/s].

    The sum is eq. 6-1; least air changes of outdoor air are what many building rules ask of workshops, stores and wet
    rooms besides (EN 16798-1:2019 knows them as predefined ventilation rates).
    """
    return max(people_m3_s + area_m3_s, air_changes * volume_m3 / 3600.0)


def zone_outdoor_air_m3_s(terminal: Terminal, floor_area_m2: float, volume_m3: float) -> float:
    """Voz = Vbz/Ez (eq. 6-2) [m3/s]."""
    breathing = breathing_air_m3_s(
        terminal.air_per_person_m3_s * terminal.people,
        terminal.air_per_area_m3_s_m2 * floor_area_m2,
        terminal.outdoor_air_changes,
        volume_m3,
    )
    return breathing / terminal.effectiveness


@dataclass(frozen=True)
class Breathing:
    """What a room's breathing zone needs [m3/s]: for its people when all are there, for its area, and at least."""

    people_m3_s: float
    area_m3_s: float
    least_m3_s: float

    def at(self, present: Array | float) -> Array | float:
        """With this share of its people there [m3/s]. Source: ANSI/ASHRAE 62.1-2019, eq. 6-1 and 6.2.6.1 (reset by population)."""
        return np.maximum(self.people_m3_s * present + self.area_m3_s, self.least_m3_s)


def breathing_of(terminal: Terminal, floor_area_m2: float, volume_m3: float) -> Breathing:
    """The parts of a room's outdoor air [m3/s]. Source: see `breathing_air_m3_s`."""
    return Breathing(
        terminal.air_per_person_m3_s * terminal.people,
        terminal.air_per_area_m3_s_m2 * floor_area_m2,
        terminal.outdoor_air_changes * volume_m3 / 3600.0,
    )


def demanded_share(needs: Mapping[str, Breathing], present: Mapping[str, Array], people_share: float) -> Array | float:
    """Of a system's design intake, what the people who are there leave of it, over the steps [-].

    `present` is the share of each room's people over the steps; rooms without stay as they are designed.

    Source: ANSI/ASHRAE 62.1-2019, 6.2.6.1: the intake by the current population, at the design's efficiency.
    """
    design = sum(float(need.at(people_share)) for need in needs.values())
    if design <= 0.0:
        return 1.0
    now = sum((need.at(present.get(room, people_share)) for room, need in needs.items()), start=np.zeros(()))
    return np.minimum(now / design, 1.0)


SIMPLIFIED_EFFICIENCY, SIMPLIFIED_LEAST = 0.75, 1.5  # Ev, and supply over Voz that the simplified procedure asks for
_WITHOUT_SHARE = ("one zone", "outdoor air only")
_DIVERSE_BELOW = 0.6  # D from which on the simplified procedure's Ev falls


def simplified_efficiency(people_share: float) -> float:
    """Ev of the simplified procedure [-]. Source: ANSI/ASHRAE 62.1-2019, eqs. 6-7a and 6-7b."""
    return 0.88 * people_share + 0.22 if people_share < _DIVERSE_BELOW else SIMPLIFIED_EFFICIENCY


@dataclass(frozen=True)
class SystemOutdoorAir:
    """Outdoor air of a system.

    Attributes:
        rule: by which it was found: "one zone" (62.1, 6.2.3), "outdoor air only" (6.2.4), "62.1 full",
            "62.1 simplified", or "sum" (EN 16798-1).
        people_share: D, of all rooms' people those that are there at one time; 1 where the rule knows none [-].
        uncorrected_m3_s: Vou = D sum(Rp P) + sum(Ra A).
        zones_m3_s: sum of what each room needs, Voz.
        average_fraction: Xs = Vou over the supply flow [-].
        critical_room: the room with the largest Zd = Voz/Vdz.
        critical_fraction: its Zd [-].
        efficiency: Ev by the rule [-]; 1 where the rule has none.
        intake_m3_s: Vot, at most the supply flow.
    """

    rule: str
    uncorrected_m3_s: float
    zones_m3_s: float
    average_fraction: float
    critical_room: str
    critical_fraction: float
    efficiency: float
    intake_m3_s: float
    people_share: float = 1.0


def system_outdoor_air(
    breathing_m3_s: Mapping[str, float],
    zone_m3_s: Mapping[str, float],
    supply_m3_s: Mapping[str, float],
    procedure: str = "62.1 full",
    outdoor_air_only: bool = False,
    least_m3_s: Mapping[str, float] | None = None,
    people_share: float = 1.0,
    together_m3_s: float | None = None,
) -> SystemOutdoorAir:
    """Outdoor air intake of a system; maps by room [m3/s], `breathing_m3_s` with `people_share` of the people. `least_m3_s`: least supply flows of a variable system, which stand
    in the zones' fractions (62.1, Zpz by the least expected discharge).

    Where 62.1 is followed, a single zone takes Vot = Voz (6.2.3, eq. 6-3) and a system of outdoor air alone
    Vot = sum(Voz) (6.2.4, eq. 6-4): both hold the zones' own effectiveness and know no efficiency of the system. Else
    full (eqs. A-1, A-2, 6-6 to 6-8), or simplified with Ev by eq. 6-7. The sum of EN 16798-1 counts what each room needs
    with its own effectiveness; `together_m3_s` is that sum for the
    people who are there at one time, None for all.
    """
    total = sum(supply_m3_s.values())
    uncorrected, zones = sum(breathing_m3_s.values()), sum(zone_m3_s.values())
    discharge = supply_m3_s if least_m3_s is None else least_m3_s
    fraction = {room: min(1.0, zone_m3_s[room] / flow) for room, flow in discharge.items() if flow > 0.0}
    critical = max(fraction, key=lambda room: fraction[room])
    average = uncorrected / total
    rule, needed, efficiency = procedure, zones, 1.0
    if procedure == "sum" and together_m3_s is not None:
        needed = together_m3_s
    if procedure != "sum" and outdoor_air_only:
        rule = "outdoor air only"
    elif procedure != "sum" and len(supply_m3_s) == 1:
        rule = "one zone"
    elif procedure != "sum":
        full = min(1.0, 1.0 + average - fraction[critical])
        efficiency = simplified_efficiency(people_share) if procedure == "62.1 simplified" else full
        needed = uncorrected / efficiency if efficiency > 0.0 else total
    intake = min(total, needed)
    return SystemOutdoorAir(
        rule,
        uncorrected,
        zones_m3_s=zones,
        average_fraction=average,
        critical_room=critical,
        critical_fraction=fraction[critical],
        efficiency=efficiency,
        intake_m3_s=intake,
        people_share=1.0 if rule in _WITHOUT_SHARE else people_share,
    )
