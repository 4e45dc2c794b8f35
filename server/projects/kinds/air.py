"""Air systems and their ducts, and what sections of ducts and pipes have in common."""

from typing import Annotated, ClassVar, Self

from pydantic import Field, model_validator

from pendrum_core.model.unit_parts import COILS, FILTER, MOST_ROWS, OTHER, USUAL_PARTS, refused
from pendrum_core.model.unit_parts import KINDS as PART_KINDS
from pendrum_core.network.fittings import FITTINGS
from projects.fields import Coordinate, Id, Name
from projects.kinds.declare import About, Kind, Ref, called, link, number, options, whole
from projects.kinds.passed_on import MarginFields

PART_WORDS = {kind: "anything else" if kind == OTHER else kind for kind in PART_KINDS}


class UnitPart(Kind):
    """A part of a unit's supply lane."""

    kind: Annotated[str, options("Part", PART_WORDS)]
    drop_pa: Annotated[
        float, number("Pressure drop", "pressure", 0, 2000, hint="At design flow; of a filter when it is dirty.")
    ] = 0.0
    clean_pa: (
        Annotated[
            float,
            number(
                "Drop when new",
                "pressure",
                0,
                2000,
                hint="Of a filter. The fan is sized for dirty ones, the year counts the mean.",
            ),
        ]
        | None
    ) = None
    rows: (
        Annotated[
            int, whole("Rows", 1, MOST_ROWS, hint="Of a coil. Empty: as many as its duty and its bypass factor ask.")
        ]
        | None
    ) = None
    face_velocity_m_s: (
        Annotated[
            float, number("Face velocity", "velocity", 0.5, 5, hint="Of a coil, at the largest flow. Empty: 2.5 m/s.")
        ]
        | None
    ) = None

    @model_validator(mode="after")
    def coils_have_rows(self) -> Self:
        if self.kind not in COILS and (self.rows is not None or self.face_velocity_m_s is not None):
            raise ValueError(f"only a coil has rows and a face, not a part of kind {self.kind!r}")
        return self

    @model_validator(mode="after")
    def new_ones_take_less(self) -> Self:
        if self.clean_pa is not None and self.kind != FILTER:
            raise ValueError(f"only a filter is told by what it takes when it is new, not a part of kind {self.kind!r}")
        if self.clean_pa is not None and self.clean_pa > self.drop_pa:
            raise ValueError(f"a new one takes {self.clean_pa:g} Pa, more than the {self.drop_pa:g} Pa of a dirty one")
        return self


class AirSystemFields(MarginFields):
    """An air system: its unit, and how its terminals are fed."""

    name: Annotated[Name, called("Name")]
    supply_c: Annotated[float, number("Coldest supply air", "temperature", -8, 30)] = 14.0
    winter_supply_c: Annotated[float, number("Supply air in winter", "temperature", 0, 50)] = 20.0
    bypass_factor: Annotated[float, number("Coil bypass factor", "ratio", 0, 0.5)] = 0.12
    fan_efficiency: Annotated[float, number("Total efficiency", "percent", 0.05, 1)] = 0.65
    motor_efficiency: Annotated[float, number("Motor and drive", "percent", 0.05, 1)] = 0.85
    motor_margin: Annotated[float, number("Margin before the next motor", "percent", 0, 1)] = 0.15
    parts: Annotated[
        list[UnitPart],
        Field(min_length=1, max_length=24),
        called("Parts of the unit", hint="In the order in which supply air passes them, behind the mixing."),
    ] = [UnitPart(kind=part.kind, drop_pa=part.drop_pa) for part in USUAL_PARTS]
    outlet_velocity_m_s: Annotated[float, number("Outlet velocity", "velocity", 0, 30)] = 8.0
    friction_limit_pa_m: Annotated[float, number("Friction at most", "friction_rate", 0.01, 20)] = 0.8
    velocity_limit_m_s: Annotated[float, number("Velocity at most", "velocity", 0.1, 30)] = 7.0
    branch_velocity_m_s: (
        Annotated[
            float,
            number("In branches", "velocity", 0.1, 30, hint="Sections that carry runouts alone. Empty: as in mains."),
        ]
        | None
    ) = None
    runout_velocity_m_s: (
        Annotated[
            float,
            number(
                "In runouts",
                "velocity",
                0.1,
                30,
                hint="Sections that lead to one end, for its noise. Empty: as in mains.",
            ),
        ]
        | None
    ) = None
    volume: Annotated[str, options("Air volume", ["constant", "variable"])] = "constant"
    sizing: Annotated[
        str,
        options(
            "Flows sized for",
            {"own peak": "each room's own peak", "coincident": "the hour of all together"},
            hint="At the hour of all together rooms whose peak is at another hour get less then, and are told as too warm.",
        ),
    ] = "own peak"
    least_share: Annotated[float, number("Least flow of a terminal", "percent", 0, 1)] = 0.3
    reheat: Annotated[
        str,
        options(
            "Reheat at terminals",
            {"electric": "electric", "hot water": "hot water, from its coil's circuit", "none": "none"},
        ),
    ] = "electric"
    terminal_fan: Annotated[
        str,
        options(
            "Fans in terminals",
            {"none": "none", "series": "in series, run with the unit", "parallel": "in parallel, run with the reheat"},
            hint="They move the room's own air; what they take warms it.",
        ),
    ] = "none"
    terminal_fan_w_m3_s: Annotated[float, number("Their electricity by flow", "specific_fan_power", 0, 3000)] = 400.0
    terminal_fan_share: Annotated[
        float, number("Their flow, of the terminal's", "percent", 0.1, 1, hint="Of fans in parallel.")
    ] = 0.5
    outdoor_only: Annotated[bool, called("Outdoor air only")] = False
    people_share: Annotated[
        float,
        number(
            "People at one time, of all",
            "percent",
            0.05,
            1,
            hint="Diversity D of ANSI/ASHRAE 62.1: of the people of all its rooms, those who are there at one time.",
        ),
    ] = 1.0
    outdoor_by_people: Annotated[
        bool, called("Outdoor air follows the people", hint="By their schedules; the winter day takes all of it.")
    ] = False
    economizer: Annotated[
        str,
        options(
            "Economizer",
            {
                "none": "none",
                "dry-bulb differential": "colder than return",
                "dry-bulb fixed": "below a temperature",
                "enthalpy differential": "less enthalpy than return",
                "enthalpy fixed": "below an enthalpy",
            },
        ),
    ] = "none"
    economizer_limit_c: Annotated[float, number("Economizer up to", "temperature", -20, 40)] = 18.0
    economizer_limit_j_kg: Annotated[float, number("Economizer up to (enthalpy)", "enthalpy", 0, 120_000)] = 50_000.0
    recovery_sensible: Annotated[float, number("Heat recovered", "percent", 0, 0.95)] = 0.0
    recovery_latent: Annotated[float, number("Moisture recovered", "percent", 0, 0.95)] = 0.0
    frost: Annotated[
        str, options("Against frost", {"none": "nothing", "turned down": "turned down", "preheat": "preheater"})
    ] = "turned down"
    frost_limit_c: Annotated[float, number("Exhaust air not below", "temperature", -20, 10)] = 1.0
    return_fan_pa: Annotated[float, number("Return fan, total pressure", "pressure", 0, 2000)] = 0.0
    held_pa: Annotated[float, number("Pressure held at part flow", "pressure", 0, 2000)] = 150.0
    duct_leak_share: Annotated[float, number("Duct leakage", "percent", 0, 0.3, short="Leakage, of the fan's flow")] = (
        0.0
    )
    duct_method: Annotated[str, options("Ducts sized by", ["equal friction", "constant velocity", "static regain"])] = (
        "equal friction"
    )
    duct_leak_class: Annotated[
        str,
        options(
            "Tightness of the ducts",
            {"": "as a share of the flow", "A": "class A", "B": "class B", "C": "class C", "D": "class D"},
            hint="Class of EN 12237: leakage by section at its static pressure.",
        ),
    ] = ""
    duct_insulation_m: (
        Annotated[
            float,
            number(
                "Mineral wool around ducts",
                "thickness",
                0,
                0.3,
                hint="Of supply and return ducts. Empty: their heat gain is not worked out.",
            ),
        ]
        | None
    ) = None
    duct_around_c: Annotated[float, number("Air around ducts", "temperature", -30, 60)] = 24.0
    running: Annotated[Ref, link("Runs", "schedule")] = None
    arrangement: Annotated[
        str,
        options(
            "Serves",
            {
                "central": "all its rooms, with return air",
                "make-up": "what extracts take, outdoor air",
                "room units": "each room by a unit of its own",
            },
        ),
    ] = "central"
    sets: Annotated[
        str,
        options(
            "Sets of equipment",
            {"one": "one for all its rooms", "zone": "one for each zone"},
            hint="Described once here; every set has its own flows, duties and sizes. Units in rooms are one for each room.",
        ),
    ] = "one"
    dry_to_c: Annotated[float, number("Dried to, off the coil", "temperature", 2, 25)] | None = None
    supply_rule: Annotated[
        str,
        options(
            "Supply temperature", {"rooms": "as the rooms ask", "fixed": "fixed", "outdoors": "by the outdoor air"}
        ),
    ] = "rooms"
    reset_cold_c: Annotated[float, number("Winter value at, outdoors", "temperature", -40, 40)] = 5.0
    reset_warm_c: Annotated[float, number("Coldest value at, outdoors", "temperature", -40, 50)] = 20.0

    @model_validator(mode="after")
    def reset_in_order(self) -> Self:
        if self.reset_cold_c >= self.reset_warm_c:
            raise ValueError(f"reset_cold_c {self.reset_cold_c:g} must be below reset_warm_c {self.reset_warm_c:g}")
        return self

    @model_validator(mode="after")
    def parts_make_a_unit(self) -> Self:
        if reason := refused(tuple(part.kind for part in self.parts)):
            raise ValueError(reason)
        return self


class FittingPart(Kind):
    """Fittings of one kind in a section, by the table or with a coefficient of their own."""

    kind: Annotated[str, options("Fitting", {"": "own"} | {key: found.title for key, found in FITTINGS.items()})] = ""
    count: Annotated[int, whole("How many", 1, 999)] = 1
    coefficient: Annotated[float, number("Own coefficient", "ratio", 0, 1000)] | None = None

    @model_validator(mode="after")
    def has_a_coefficient(self) -> Self:
        if not self.kind and self.coefficient is None:
            raise ValueError("a fitting that is none of the table needs a coefficient of its own")
        return self


class SectionFields(Kind):
    """What sections of ducts and of pipes have in common."""

    fitted_as: ClassVar[str] = ""  # which fittings of the table: "duct" or "pipe"

    name: Annotated[Name, called("Section")]
    position: Annotated[float, number("Place in the order", "", 0, 1e6)] = 0.0
    room: Annotated[Ref, link("Ends at the room", "room", empties=True)] = None
    length_m: Annotated[float, number("Length", "length", 0, 2000)]
    loss_coefficient: Annotated[float, number("Sum of loss coefficients", "ratio", 0, 1000, short="ΣC, ζ")] = 0.0
    fittings: Annotated[list[FittingPart], Field(max_length=60), called("Fittings")] = []
    level: Annotated[Ref, link("Drawn on the level", "level", empties=True)] = None
    course_m: Annotated[list[tuple[Coordinate, Coordinate]], Field(max_length=200), called("Course on the plan")] = []
    end_drop_pa: Annotated[float, number("Drop at its end", "pressure", 0, 500_000)] = 0.0
    end_share: (
        Annotated[
            float,
            number(
                "Share of what ends there",
                "percent",
                0,
                1,
                hint="Where several ways lead to one end. Empty: alike of what no other way takes.",
            ),
        ]
        | None
    ) = None
    pinned_diameter_m: Annotated[float, number("Pinned diameter", "diameter", 0.005, 5, open_low=True)] | None = None

    @model_validator(mode="after")
    def fittings_fit(self) -> Self:
        for part in self.fittings:
            if part.kind and FITTINGS[part.kind].of != self.fitted_as:
                raise ValueError(f"{FITTINGS[part.kind].title!r} is no fitting of a {self.fitted_as}")
        return self


class DuctSectionFields(SectionFields):
    """A section of an air system's ducts. Width and height are pinned together."""

    fitted_as: ClassVar[str] = "duct"

    about: ClassVar[About] = About(owner="air_system", rehang="parent", alike=("network",), most=20_000)

    air_system: Annotated[Id, link("Air system", "air_system")]
    parent: Annotated[Ref, link("After", "duct_section")] = None
    network: Annotated[
        str,
        options(
            "Network", {"supply": "supply", "return": "return", "outdoor": "outdoor air", "exhaust": "exhaust air"}
        ),
    ] = "supply"
    shape: Annotated[str, options("Shape", ["round", "rectangular", "flat oval"])] = "round"
    height_limit_m: Annotated[float, number("Height at most", "diameter", 0.1, 5)] | None = None
    pinned_width_m: Annotated[float, number("Pinned width", "diameter", 0.05, 5)] | None = None
    pinned_height_m: Annotated[float, number("Pinned height", "diameter", 0.05, 5)] | None = None
