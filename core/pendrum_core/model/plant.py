"""Units that make heat and cold, as inputs."""

from dataclasses import dataclass

BOILER, DISTRICT, HEAT_PUMP, CHILLER = "boiler", "district", "heat pump", "chiller"
WATER_CHILLER = "water-cooled chiller"
GROUND_PUMP, WELL_PUMP = "ground heat pump", "well heat pump"
HEAT_PUMPS = (HEAT_PUMP, GROUND_PUMP, WELL_PUMP)
RETURN, OUTDOORS, CONDENSER, SOURCE = "return", "outdoors", "condenser water", "source"
TOWER, DRY_COOLER = "tower", "dry cooler"


@dataclass(frozen=True)
class UnitKind:
    """What the efficiency of a kind of unit rests on, at which two temperatures it is told, and the most that is believable.

    `heats` says whether what it gives falls with colder outdoors, or (False) with warmer; None: it gives the same at any.
    """

    of: str
    cool_c: float
    warm_c: float
    believable: float
    heats: bool | None = None


# Boilers by the return (30 and 60 °C, EN 15502-1), machines by outdoor air: heating at -7 and 7 °C, cooling at 20 and 35 °C
# (EN 14825), or by the condenser water that enters at 20 and 30 °C; heat pumps by the brine that comes from the ground at -5 and
# 5 °C, or by the water of a well at 10 and 15 °C (EN 14511-2, operating conditions); district heat by nothing.
KINDS = {
    BOILER: UnitKind(RETURN, 30.0, 60.0, 1.11),
    DISTRICT: UnitKind(RETURN, 30.0, 60.0, 1.0),
    HEAT_PUMP: UnitKind(OUTDOORS, -7.0, 7.0, 8.0, heats=True),
    CHILLER: UnitKind(OUTDOORS, 20.0, 35.0, 15.0, heats=False),
    WATER_CHILLER: UnitKind(CONDENSER, 20.0, 30.0, 20.0, heats=False),
    GROUND_PUMP: UnitKind(SOURCE, -5.0, 5.0, 9.0, heats=True),
    WELL_PUMP: UnitKind(SOURCE, 10.0, 15.0, 11.0, heats=True),
}
PART = 0.3  # part load at which the second pair of efficiencies is told

# Gross over net calorific value. Source: EN ISO 52000-1, EN 437; electricity and district heat have no such pair.
GROSS_OVER_NET = {
    "natural gas": 1.11,
    "liquid gas": 1.09,
    "heating oil": 1.06,
    "wood pellets": 1.08,
    "electricity": 1.0,
    "district heat": 1.0,
}


@dataclass(frozen=True)
class Rejection:
    """Where water-cooled chillers put their heat.

    Attributes:
        kind: TOWER or DRY_COOLER.
        approach_k: of the water to the air's wet-bulb (tower) or dry-bulb at design [K]; range_k: what the water is cooled by [K].
        least_c: coldest water that the chillers may have [°C].
        fan_w_w: fans at full speed, over the heat rejected at design [W/W].
        drop_pa: of the condenser water's way, with cooler and condensers [Pa]; pump_efficiency with motor [-].
        cycles: of concentration: dissolved matter in a tower's water over that in what makes it up [-].
        above_pump_m: water of the tower above its pump; suction_pa: lost on the way to the pump; npsh_m: that the pump needs [m].
    """

    kind: str = TOWER
    approach_k: float = 4.0
    range_k: float = 5.0
    least_c: float = 20.0
    fan_w_w: float = 0.015
    drop_pa: float = 120_000.0
    pump_efficiency: float = 0.6
    cycles: float = 4.0
    above_pump_m: float = 2.0
    suction_pa: float = 10_000.0
    npsh_m: float = 3.0


@dataclass(frozen=True)
class FloorBuild:
    """How heated floors are built.

    Attributes:
        spacing_m: of the pipes, 0.05 to 0.375; pipe_m their outer diameter; cover_m of screed above them [m].
        covering_m2k_w: resistance of what lies on it, 0 to 0.15.
        area_share: of a room's floor that is heated [-].
    """

    spacing_m: float = 0.15
    pipe_m: float = 0.016
    cover_m: float = 0.045
    covering_m2k_w: float = 0.1
    area_share: float = 0.85


CEILINGS, BEAMS = "ceilings", "beams"


@dataclass(frozen=True)
class CeilingBuild:
    """What cools rooms at the ends of a chilled circuit.

    Attributes:
        kind: CEILINGS or BEAMS.
        rating_w_m2, rating_w_m: of a ceiling's area and of a beam's length, rooms 8 K warmer than the mean of the water.
        exponent: of that difference [-].
        area_share: of a room's floor that a ceiling covers at most [-].
    """

    kind: str = CEILINGS
    rating_w_m2: float = 80.0
    rating_w_m: float = 250.0
    exponent: float = 1.1
    area_share: float = 0.7


@dataclass(frozen=True)
class PlantUnit:
    """A boiler, district connection, heat pump or chiller.

    Attributes:
        capacity_w: pinned; None: `share` of the circuit's design load.
        full_cool, full_warm, part_cool, part_warm: efficiencies at full and at 30 % load, at the kind's two temperatures; of
            boilers on the value that `gross` says.
        least_part, idle_share, running_w, running_w_w, resting_w: see plant/staging.py.
        other_share: of a heat pump's or chiller's capacity (told at 7 °C, 35 °C, 30 °C, 5 °C of brine or 15 °C of a well), what it
            can give at its kind's other temperature [-].
        told_flow_c, flow_share_k: water that its efficiencies are told for [°C], and of them what a kelvin away costs, of a heat
            pump hotter, of a chiller colder [1/K].
        source_cold_c, source_warm_c: what comes from ground or well when it is coldest and warmest in the year [°C].
        reverses: id of the heat pump that this chiller is the other side of; its time is shared, heating first.
        standby: whether it only stands in for another.
        fuel: key of GROSS_OVER_NET.
    """

    id: str
    name: str
    kind: str
    capacity_w: float | None
    share: float
    full_cool: float
    full_warm: float
    part_cool: float
    part_warm: float
    least_part: float = 0.2
    idle_share: float = 0.0
    running_w: float = 0.0
    running_w_w: float = 0.0
    resting_w: float = 0.0
    standby: bool = False
    fuel: str = "natural gas"
    gross: bool = False
    other_share: float = 1.0
    told_flow_c: float = 35.0
    flow_share_k: float = 0.0
    source_cold_c: float = 0.0
    source_warm_c: float = 10.0
    reverses: str | None = None
