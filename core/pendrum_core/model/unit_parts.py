"""Parts of a unit's supply lane as inputs: their kinds, and in which order no unit has them."""

from dataclasses import dataclass

HEATING_COIL, COOLING_COIL, FAN = "heating coil", "cooling coil", "fan"
STEAM, ADIABATIC = "steam humidifier", "adiabatic humidifier"
FILTER, ATTENUATOR, OTHER = "filter", "attenuator", "other"
HUMIDIFYING = {STEAM: "steam", ADIABATIC: "adiabatic"}  # kinds of air/humidifier.py
COILS = (HEATING_COIL, COOLING_COIL)
MOST_ROWS = 12  # of a coil
KINDS = (HEATING_COIL, COOLING_COIL, STEAM, ADIABATIC, FAN, FILTER, ATTENUATOR, OTHER)


@dataclass(frozen=True)
class UnitPart:
    """A part of a unit: its kind, and what it takes at design flow [Pa]; of a filter dirty, and `clean_pa` when it is new.

    Of a coil `rows` where they are pinned, and the velocity of the largest flow in its face, where that is not the usual one.
    """

    kind: str
    drop_pa: float = 0.0
    clean_pa: float | None = None
    rows: int | None = None
    face_velocity_m_s: float | None = None


USUAL_PARTS = (
    UnitPart(FILTER, 150.0),
    UnitPart(HEATING_COIL, 40.0),
    UnitPart(COOLING_COIL, 80.0),
    UnitPart(FAN),
    UnitPart(OTHER, 80.0),
)


def refused(parts: tuple[str, ...]) -> str:
    """Why no unit can have these parts in this order; empty where it can."""
    coils = [kind for kind in parts if kind in COILS]
    if parts.count(FAN) != 1:
        return f"a unit has one supply fan, not {parts.count(FAN)}"
    if parts.count(COOLING_COIL) > 1:
        return f"a unit has one cooling coil at most, not {parts.count(COOLING_COIL)}"
    if sum(kind in HUMIDIFYING for kind in parts) > 1:
        return "a unit has one humidifier at most"
    if any(a == b for a, b in zip(coils, coils[1:], strict=False)) or coils.count(HEATING_COIL) > 2:
        return "two heating coils stand one before and one behind the cooling coil"
    return ""
