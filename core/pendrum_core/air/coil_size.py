"""Coils from the side of what flows in them: face, rows, and what those rows give.

The air through a coil is walked with an apparatus dew point and a bypass factor (coil.py). How many rows make such a coil, and how
many the water asks for the duty, is found here by effectiveness and transfer units; the larger number counts.

Source: cooling coils by enthalpy, dry and wet, the larger of both (Braun, Klein and Mitchell 1989, ASHRAE Transactions 95);
rows as crossflow passes in overall counterflow (Kays and London, Compact Heat Exchangers, 3rd ed., ch. 2).
"""

from dataclasses import dataclass
from math import ceil, exp, expm1, inf, log

from pendrum_core.air.fin_tube import REFRIGERANT_W_M2K, RowConductance, row_conductance, water_film_w_m2k
from pendrum_core.model.unit_parts import MOST_ROWS
from pendrum_core.moist_air import enthalpy_j_kg, saturation_humidity_ratio, specific_heat_j_kgk
from pendrum_core.water.properties import specific_heat_j_kgk as water_j_kgk

FACE_M_S = 2.5
_STANDARD_KG_M3 = 1.2
_SPAN_K = 4.0  # over which saturated air's specific heat is taken where what flows in the tubes keeps its temperature
_EQUAL = 1e-9


@dataclass(frozen=True)
class Entering:
    """Air in front of a coil: dry air [kg/s], its temperature [°C], humidity ratio [kg/kg] and pressure [Pa]."""

    flow_kg_s: float
    dry_bulb_c: float
    humidity_ratio: float
    pressure_pa: float


@dataclass(frozen=True)
class Inside:
    """What flows in the tubes.

    Attributes:
        flow_c, return_c: temperature at the inlet and wanted at the outlet [°C]; of a refrigerant both where it boils or condenses.
        heat_j_kgk: its specific heat; that of water where none is told.
    """

    flow_c: float
    return_c: float
    refrigerant: bool = False
    heat_j_kgk: float | None = None

    @property
    def specific_heat_j_kgk(self) -> float:
        """At its mean temperature [J/kgK]. Source: IAPWS SR6-08(2011), or as told."""
        return water_j_kgk((self.flow_c + self.return_c) / 2.0) if self.heat_j_kgk is None else self.heat_j_kgk

    def flow_kg_s(self, duty_w: float) -> float:
        """Water that carries a duty [kg/s]; nought of a refrigerant, whose flow is its machine's.

        Source: heat balance of the water.
        """
        if self.refrigerant:
            return 0.0
        return duty_w / (self.specific_heat_j_kgk * abs(self.flow_c - self.return_c))


@dataclass(frozen=True)
class CoilSize:
    """A coil as it is bought.

    Attributes:
        duty_w: at the time of its largest duty; `capacity_w` what its rows give then.
        face_m2, face_velocity_m_s: face, and velocity of the largest flow in it.
        rows: pinned, or the larger of the two that follow; pinned says which.
        rows_for_duty: that the duty asks of what flows in the tubes; None where not even MOST_ROWS give it.
        rows_for_bypass: of a cooling coil, that make its bypass factor.
        bypass_factor: that the rows make [-]; 0 of a heating coil.
        water_kg_s, flow_c, return_c: what flows in the tubes, see Inside.
        entering: air in front of it then.
    """

    kind: str
    duty_w: float
    capacity_w: float
    face_m2: float
    face_velocity_m_s: float
    rows: int
    pinned: bool
    rows_for_duty: int | None
    rows_for_bypass: int | None
    bypass_factor: float
    water_kg_s: float
    flow_c: float
    return_c: float
    refrigerant: bool
    entering: Entering


def effectiveness(transfer_units: float, ratio: float, rows: int) -> float:
    """Temperature (or enthalpy) change of the air over the difference of the two inlets [-], at least one row.

    `transfer_units` of all rows on the air's capacity rate; `ratio` of that rate to the one in the tubes, 0 where that keeps
    its temperature.

    Source: Kays and London, 3rd ed., table 2-1: one row, tubes mixed and air unmixed; identical passes in overall counterflow.
    """
    through = 1.0 - exp(-transfer_units / rows)
    if ratio < _EQUAL:
        return 1.0 - (1.0 - through) ** rows
    one = -expm1(-ratio * through) / ratio
    if abs(ratio - 1.0) < _EQUAL:
        return rows * one / (1.0 + (rows - 1.0) * one)
    grown = ((1.0 - one * ratio) / (1.0 - one)) ** rows
    return (grown - 1.0) / (grown - ratio)


def _saturated_j_kg(temperature_c: float, pressure_pa: float) -> float:
    return float(enthalpy_j_kg(temperature_c, saturation_humidity_ratio(temperature_c, pressure_pa)))


def _row(air: Entering, inside: Inside, face_m2: float, wetness: float) -> RowConductance:
    film = (
        REFRIGERANT_W_M2K if inside.refrigerant else water_film_w_m2k(max(0.0, (inside.flow_c + inside.return_c) / 2.0))
    )
    return row_conductance(air.flow_kg_s / (_STANDARD_KG_M3 * face_m2), film, wetness)


def capacities_w(
    air: Entering, inside: Inside, water_kg_s: float, face_m2: float, most_rows: int = MOST_ROWS
) -> list[float]:
    """What coils of one row, two rows and so on give to the air, or take out of it, without its sign [W].

    Source: see above; a coil that cools is taken as all dry and as all wet, whichever gives more.
    """
    counts = range(1, most_rows + 1)
    cp = float(specific_heat_j_kgk(air.humidity_ratio))
    rate = air.flow_kg_s * cp
    water_w_k = inf if inside.refrigerant else water_kg_s * inside.specific_heat_j_kgk
    dry = _row(air, inside, face_m2, 1.0)
    units = face_m2 / (1.0 / dry.outside + 1.0 / dry.inside) / rate
    across = rate * abs(air.dry_bulb_c - inside.flow_c)
    given = [effectiveness(n * units, rate / water_w_k, n) * across for n in counts]
    if inside.flow_c >= air.dry_bulb_c:
        return given
    there = _saturated_j_kg(inside.flow_c, air.pressure_pa)
    above = float(enthalpy_j_kg(air.dry_bulb_c, air.humidity_ratio)) - there
    if above <= 0.0:
        return given
    end = inside.flow_c + _SPAN_K if inside.refrigerant else inside.return_c
    saturated = (_saturated_j_kg(end, air.pressure_pa) - there) / (end - inside.flow_c)
    wet = _row(air, inside, face_m2, saturated / cp)
    # Potentials of enthalpy: the air's film conducts by cp, the tubes' by the specific heat of saturated air.
    units = face_m2 / (cp / wet.outside + saturated / wet.inside) / air.flow_kg_s
    ratio = air.flow_kg_s * saturated / water_w_k
    return [
        max(dry_w, effectiveness(n * units, ratio, n) * air.flow_kg_s * above)
        for n, dry_w in zip(counts, given, strict=True)
    ]


def size_coil(
    kind: str,
    duty_w: float,
    air: Entering,
    inside: Inside,
    largest_m3_s: float,
    face_velocity_m_s: float = FACE_M_S,
    bypass_factor: float | None = None,
    rows: int | None = None,
) -> CoilSize:
    """Face and rows of a coil for its largest duty; `bypass_factor` of one that cools, `rows` where they are pinned.

    Source: face = flow/velocity; rows by bypass = ln(1/bypass) over a row's transfer units (Threlkeld 1970); rows by duty by
    effectiveness.

    Raises:
        ValueError: no flow, or a velocity or a bypass factor that cannot be.
    """
    if not (air.flow_kg_s > 0.0 and face_velocity_m_s > 0.0 and largest_m3_s > 0.0):
        raise ValueError(
            f"a coil needs air: {air.flow_kg_s:g} kg/s, {largest_m3_s:g} m3/s at {face_velocity_m_s:g} m/s"
        )
    if bypass_factor is not None and not 0.0 <= bypass_factor < 1.0:
        raise ValueError(f"bypass_factor {bypass_factor:g} lies between 0 and 1")
    face = largest_m3_s / face_velocity_m_s
    water = inside.flow_kg_s(duty_w)
    gives = capacities_w(air, inside, water, face)
    for_duty = next((n for n, given in enumerate(gives, 1) if given >= duty_w), None)
    # A row's transfer units in the largest flow: what passes all rows untouched is the bypass.
    outside = row_conductance(face_velocity_m_s, REFRIGERANT_W_M2K).outside
    row_units = outside / (_STANDARD_KG_M3 * face_velocity_m_s * float(specific_heat_j_kgk(air.humidity_ratio)))
    for_bypass = None
    if bypass_factor is not None:
        wanted = MOST_ROWS if bypass_factor == 0.0 else ceil(log(1.0 / bypass_factor) / row_units - 1e-9)
        for_bypass = min(MOST_ROWS, max(1, wanted))
    chosen = rows or max(for_duty or MOST_ROWS, for_bypass or 1)
    return CoilSize(
        kind,
        duty_w,
        capacity_w=gives[chosen - 1],
        face_m2=face,
        face_velocity_m_s=face_velocity_m_s,
        rows=chosen,
        pinned=rows is not None,
        rows_for_duty=for_duty,
        rows_for_bypass=for_bypass,
        bypass_factor=exp(-chosen * row_units) if bypass_factor is not None else 0.0,
        water_kg_s=water,
        flow_c=inside.flow_c,
        return_c=inside.return_c,
        refrigerant=inside.refrigerant,
        entering=air,
    )
