"""Outdoor air of a system that serves several rooms.

Procedures: "62.1 full" (ANSI/ASHRAE 62.1-2019, 6.2 and normative appendix A), "62.1 simplified" (6.2.5.3 of the same,
no occupant diversity), and "sum" (EN 16798-1:2019: people and building parts of all rooms added, no efficiency of the
system).
"""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.model.systems import Terminal


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


SIMPLIFIED_EFFICIENCY, SIMPLIFIED_LEAST = 0.75, 1.5  # Ev, and supply over Voz that the simplified procedure asks for


@dataclass(frozen=True)
class SystemOutdoorAir:
    """Outdoor air of a system; no occupant diversity is taken.

    Attributes:
        rule: by which it was found: "one zone" (62.1, 6.2.3), "outdoor air only" (6.2.4), "62.1 full",
            "62.1 simplified", or "sum" (EN 16798-1).
        uncorrected_m3_s: Vou = sum(Rp P + Ra A).
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


def system_outdoor_air(
    breathing_m3_s: Mapping[str, float],
    zone_m3_s: Mapping[str, float],
    supply_m3_s: Mapping[str, float],
    procedure: str = "62.1 full",
    outdoor_air_only: bool = False,
    least_m3_s: Mapping[str, float] | None = None,
) -> SystemOutdoorAir:
    """Outdoor air intake of a system; maps by room [m3/s]. `least_m3_s`: least supply flows of a variable system, which stand
    in the zones' fractions (62.1, Zpz by the least expected discharge).

    Where 62.1 is followed, a single zone takes Vot = Voz (6.2.3, eq. 6-3) and a system of outdoor air alone
    Vot = sum(Voz) (6.2.4, eq. 6-4): both hold the zones' own effectiveness and know no efficiency of the system. Else
    full (eqs. A-1, A-2, 6-6 to 6-8), or simplified with Ev 0.75 (with no diversity D is 1: eq. 6-7 gives 0.88 D + 0.22
    below D 0.60). The sum of EN 16798-1 counts what each room needs with its own effectiveness.
    """
    total = sum(supply_m3_s.values())
    uncorrected, zones = sum(breathing_m3_s.values()), sum(zone_m3_s.values())
    discharge = supply_m3_s if least_m3_s is None else least_m3_s
    fraction = {room: min(1.0, zone_m3_s[room] / flow) for room, flow in discharge.items() if flow > 0.0}
    critical = max(fraction, key=lambda room: fraction[room])
    average = uncorrected / total
    rule, needed, efficiency = procedure, zones, 1.0
    if procedure != "sum" and outdoor_air_only:
        rule = "outdoor air only"
    elif procedure != "sum" and len(supply_m3_s) == 1:
        rule = "one zone"
    elif procedure != "sum":
        full = min(1.0, 1.0 + average - fraction[critical])
        efficiency = SIMPLIFIED_EFFICIENCY if procedure == "62.1 simplified" else full
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
    )
