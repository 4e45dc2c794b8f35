"""Water circuits, their sections and the units that serve them."""

from typing import Annotated, ClassVar, Self

from pydantic import model_validator

from pendrum_core.water.glycol import GLYCOLS, SHARES
from pendrum_core.water.pipes import OWN_PIPES, PIPES
from projects.fields import Id, Name
from projects.kinds.air import SectionFields
from projects.kinds.declare import About, Kind, Ref, called, link, number, options, whole

LEAST_WATER_C = 1.0


_PUMP_CONTROLS = ("constant speed", "constant pressure", "proportional pressure")


class CircuitFields(Kind):
    """A two-pipe water circuit."""

    about: ClassVar[About] = About(rehang="source", alike=("kind",))

    name: Annotated[Name, called("Name")]
    kind: Annotated[str, options("Circuit for", ["heating", "chilled"])]
    source: Annotated[
        Ref, link("Fed by", "circuit", empties=True, hint="Another circuit, in place of units of its own.")
    ] = None
    connection: Annotated[
        str,
        options(
            "Connected",
            {
                "mixed": "mixed with its own return",
                "exchanger": "through a heat exchanger",
                "direct": "directly, at the same flow",
            },
        ),
    ] = "mixed"
    approach_k: Annotated[
        float,
        number("Exchanger's approach", "temperature_difference", 0.5, 30, hint="Between the flows of both sides."),
    ] = 3.0
    medium: Annotated[
        str,
        options(
            "Carries",
            ["water", "refrigerant"],
            hint="Refrigerant goes from its machines straight into the coils of units; its flow temperature is where it boils or condenses.",
        ),
    ] = "water"
    flow_c: Annotated[float, number("Flow temperature", "temperature", -15, 95)]
    return_c: Annotated[float, number("Return temperature", "temperature", -15, 95)]
    glycol: Annotated[
        str,
        options(
            "Filled with", {"none": "water", **{kind: f"water and {found.title}" for kind, found in GLYCOLS.items()}}
        ),
    ] = "none"
    glycol_share: Annotated[float, number("Glycol by mass", "percent", *SHARES)] = 0.3
    piping: Annotated[
        str,
        options(
            "Return",
            {"two pipes": "beside the flow", "reverse return": "reverse, along the mains"},
            hint="Reverse: what the first branch takes comes back last, so that all paths are nearly of one length.",
        ),
    ] = "two pipes"
    pipe: Annotated[
        str,
        options(
            "Pipes of", {key: series.title for key, series in PIPES.items()} | {OWN_PIPES: "the catalogue's pipes"}
        ),
    ] = "steel"
    friction_limit_pa_m: Annotated[float, number("Friction at most", "pipe_friction_rate", 1, 2000)] = 150.0
    velocity_limit_m_s: Annotated[float, number("Velocity at most", "water_velocity", 0.05, 10)] = 1.5
    source_drop_pa: Annotated[float, number("Boiler or chiller drop", "head", 0, 500_000)] = 15_000.0
    pump_margin: Annotated[float, number("Margin on the head", "percent", 0, 1)] = 0.1
    pump_efficiency: Annotated[float, number("Pump efficiency", "percent", 0.05, 1)] = 0.55
    motor_efficiency: Annotated[float, number("Motor and drive", "percent", 0.05, 1)] = 0.85
    motor_margin: Annotated[float, number("Margin before the next motor", "percent", 0, 1)] = 0.15
    motor_class: Annotated[
        str, options("Motor's class", {"own": "own efficiency", "IE2": "IE2", "IE3": "IE3", "IE4": "IE4"})
    ] = "own"
    pinned_head_pa: Annotated[float, number("Pinned head", "head", 500, 2_000_000)] | None = None
    pump_count: Annotated[int, whole("Pumps on duty", 1, 6)] = 1
    pump_standby: Annotated[int, whole("Pumps on standby", 0, 6)] = 0
    pump_control: Annotated[str, options("Pumps run at", list(_PUMP_CONTROLS))] = "constant speed"
    water_flow: Annotated[
        str, options("Water flow", {"constant": "constant, three-way valves", "variable": "variable, two-way valves"})
    ] = "constant"
    diversity: (
        Annotated[
            float,
            number(
                "Ends at one time",
                "percent",
                0.1,
                1,
                hint="Of the sum of what they take. Empty: at variable flow as their courses say, at constant flow all.",
            ),
        ]
        | None
    ) = None
    other_pump_efficiency: (
        Annotated[
            float,
            number("Another pump's efficiency", "percent", 0.05, 1, hint="Of the same duty, to see what it saves."),
        ]
        | None
    ) = None
    other_motor_efficiency: Annotated[float, number("Its motor and drive", "percent", 0.05, 1)] | None = None
    other_pump_control: Annotated[
        str, options("It runs at", {"": "as this one", **{one: one for one in _PUMP_CONTROLS}})
    ] = ""
    flow_rule: Annotated[
        str,
        options(
            "Flow temperature goes", {"fixed": "stays", "outdoors": "by the outdoor air", "schedule": "by a schedule"}
        ),
    ] = "fixed"
    flow_schedule: Annotated[
        Ref, link("Flows at", "schedule", hint="Temperatures; without one, the design flow temperature.")
    ] = None
    flow_mild_c: Annotated[float, number("Mild flow temperature", "temperature", 1, 95)] = 35.0
    reset_cold_c: Annotated[float, number("Design flow at, outdoors", "temperature", -40, 40)] = -10.0
    reset_mild_c: Annotated[float, number("Mild flow at, outdoors", "temperature", -40, 50)] = 15.0
    running: Annotated[Ref, link("Runs", "schedule", hint="Hot water is charged at any hour.")] = None
    starts_c: (
        Annotated[
            float,
            number(
                "Starts at, outdoors",
                "temperature",
                -40,
                50,
                hint="Heating from here downwards, chilled water from here upwards. Empty: where it stops.",
            ),
        ]
        | None
    ) = None
    stops_c: (
        Annotated[
            float,
            number(
                "Stops at, outdoors",
                "temperature",
                -40,
                50,
                hint="Between both it goes on as it was. Empty: where it starts; both empty: it runs at any outdoor temperature.",
            ),
        ]
        | None
    ) = None
    loss_share: Annotated[float, number("Lost on the way", "percent", 0, 0.5)] = 0.0
    loss_w_m2: (
        Annotated[
            float,
            number(
                "Lost of floor area",
                "power_per_area",
                0,
                50,
                hint="Of the rooms at its ends, while anything is asked. Empty: a share of the load.",
            ),
        ]
        | None
    ) = None
    loss_to: Annotated[
        str,
        options(
            "What is lost goes",
            {"nowhere": "nowhere", "area": "to rooms by area", "run": "to rooms on its way"},
            hint="Rooms at its ends by floor area, or those that its pipes run through; one that asks for heat at the same time gets so much less from its emitter.",
        ),
    ] = "nowhere"
    pipe_insulation_m: (
        Annotated[
            float,
            number(
                "Insulation around pipes", "thickness", 0, 0.3,
                hint="With a thickness losses are worked out from the pipes' lengths and sizes. Empty: they are stated.",
            ),
        ]
        | None
    ) = None  # fmt: skip
    pipe_insulation_w_mk: Annotated[float, number("Its conductivity", "conductivity", 0.015, 0.2)] = 0.035
    pipe_around_c: Annotated[float, number("Air around pipes", "temperature", -30, 60)] = 20.0
    staging: Annotated[
        str,
        options(
            "Units run",
            {
                "in turn": "one after the other",
                "equal": "all together",
                "fewest": "as few as cover it",
                "best": "what takes least",
            },
        ),
    ] = "in turn"
    kept_warm: Annotated[bool, called("Resting units kept warm")] = False
    buffer_h: (
        Annotated[
            float,
            number(
                "Least run with a buffer",
                "minutes",
                1 / 60,
                4,
                hint="Of the smallest unit at its least output, with nothing taken. Empty: no buffer.",
            ),
        ]
        | None
    ) = None
    buffer_k: Annotated[float, number("Buffer's difference", "temperature_difference", 1, 40)] = 5.0
    pinned_buffer_m3: Annotated[float, number("Pinned buffer", "water_volume", 0.01, 200)] | None = None
    emitters: Annotated[
        str,
        options(
            "Heats its rooms by",
            {"radiators": "radiators", "radiant panels": "radiant panels overhead", "underfloor": "heated floors"},
        ),
    ] = "radiators"
    floor_spacing_m: Annotated[float, number("Pipes apart", "thickness", 0.05, 0.375)] = 0.15
    floor_pipe_m: Annotated[float, number("Pipe, outside", "diameter", 0.008, 0.03)] = 0.016
    floor_cover_m: Annotated[float, number("Screed above them", "thickness", 0.015, 0.15)] = 0.045
    floor_covering_m2k_w: Annotated[float, number("Covering of the floor", "resistance", 0, 0.15)] = 0.1
    floor_area_share: Annotated[float, number("Of the floor, heated", "percent", 0.1, 1)] = 0.85
    ceiling_kind: Annotated[
        str, options("Cools its rooms by", {"ceilings": "chilled ceilings", "beams": "chilled beams"})
    ] = "ceilings"
    ceiling_rating_w_m2: Annotated[
        float,
        number(
            "Rating of a ceiling",
            "power_per_area",
            10,
            300,
            hint="Active area, 8 K between room and mean of the water.",
        ),
    ] = 80.0
    ceiling_rating_w_m: Annotated[
        float,
        number(
            "Rating of a beam",
            "heat_per_length",
            20,
            1500,
            hint="Active length, 8 K between room and mean of the water.",
        ),
    ] = 250.0
    ceiling_exponent: Annotated[float, number("Exponent of the difference", "ratio", 0.8, 1.5)] = 1.1
    ceiling_area_share: Annotated[float, number("Of the floor, ceiling at most", "percent", 0.1, 1)] = 0.7
    rejection: Annotated[
        str,
        options(
            "Chillers' water is cooled by",
            {"tower": "a cooling tower", "dry cooler": "a dry cooler"},
            hint="Of chillers cooled by water; the others reject their heat themselves.",
        ),
    ] = "tower"
    rejection_approach_k: Annotated[
        float,
        number(
            "Approach at design",
            "temperature_difference",
            1,
            30,
            hint="Of the water above the wet-bulb of the air (tower), or above its dry-bulb (dry cooler).",
        ),
    ] = 4.0
    rejection_range_k: Annotated[float, number("Cooled by", "temperature_difference", 1, 20)] = 5.0
    rejection_least_c: Annotated[float, number("Coldest to the chillers", "temperature", 5, 45)] = 20.0
    rejection_fan_w_w: Annotated[
        float, number("Its fans, of the heat", "percent", 0, 0.2, hint="Electricity at full speed over heat rejected.")
    ] = 0.015
    rejection_drop_pa: Annotated[float, number("Condenser water's head", "head", 0, 500_000)] = 120_000.0
    rejection_pump_efficiency: Annotated[float, number("Its pump with motor", "percent", 0.05, 1)] = 0.6
    rejection_cycles: Annotated[
        float, number("Cycles of concentration", "ratio", 1.2, 20, hint="Of a tower's water, by blow-down.")
    ] = 4.0
    rejection_above_pump_m: Annotated[float, number("Tower's water above its pump", "length", -5, 200)] = 2.0
    rejection_suction_pa: Annotated[float, number("Lost before the pump", "head", 0, 200_000)] = 10_000.0
    rejection_npsh_m: Annotated[float, number("Suction head that the pump needs", "length", 0.2, 20)] = 3.0
    panel_w_m: Annotated[
        float, number("A metre of panel gives", "heat_per_length", 10, 5000, hint="At the temperatures of its rating.")
    ] = 300.0
    rated_exponent: Annotated[
        float, number("Their exponent", "ratio", 1, 1.6, hint="Radiators mostly 1.3, radiant panels 1.1 to 1.2.")
    ] = 1.3
    rated_flow_c: Annotated[float, number("Rated at a flow of", "temperature", 30, 110)] = 75.0
    rated_return_c: Annotated[float, number("Rated at a return of", "temperature", 25, 100)] = 65.0
    rated_room_c: Annotated[float, number("Rated in a room of", "temperature", 10, 30)] = 20.0
    static_height_m: Annotated[float, number("Water above it", "length", 0, 200)] = 8.0
    safety_valve_pa: Annotated[float, number("Safety valve", "gauge_pressure", 1e5, 2.5e6)] = 3e5
    source_content_m3: Annotated[float, number("Water in the source", "water_volume", 0, 100)] = 0.05

    @model_validator(mode="after")
    def order(self) -> Self:
        if self.reset_cold_c >= self.reset_mild_c:
            raise ValueError(f"reset_cold_c {self.reset_cold_c:g} must be below reset_mild_c {self.reset_mild_c:g}")
        if self.starts_c is not None and self.stops_c is not None:
            if self.kind == "heating" and self.starts_c > self.stops_c:
                raise ValueError(
                    f"starts_c {self.starts_c:g} must not be above stops_c {self.stops_c:g} in a heating circuit"
                )
            if self.kind == "chilled" and self.starts_c < self.stops_c:
                raise ValueError(
                    f"starts_c {self.starts_c:g} must not be below stops_c {self.stops_c:g} in a chilled circuit"
                )
        if not self.rated_flow_c > self.rated_return_c > self.rated_room_c:
            raise ValueError(
                f"rated_flow_c {self.rated_flow_c:g}, rated_return_c {self.rated_return_c:g} and rated_room_c {self.rated_room_c:g} must "
                "fall in this order"
            )
        if self.medium == "refrigerant":
            return self  # it boils or condenses at one temperature
        if self.glycol == "none" and min(self.flow_c, self.return_c) < LEAST_WATER_C:
            raise ValueError(
                f"flow_c {self.flow_c:g} and return_c {self.return_c:g} must be {LEAST_WATER_C:g} °C or more where the circuit is "
                "filled with water"
            )
        if self.kind == "heating" and self.flow_c <= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be above return_c {self.return_c} in a heating circuit")
        if self.kind == "chilled" and self.flow_c >= self.return_c:
            raise ValueError(f"flow_c {self.flow_c} must be below return_c {self.return_c} in a chilled circuit")
        return self


class PipeSectionFields(SectionFields):
    """A two-pipe section, flow and return together; it ends at a room's emitter or a system's coil."""

    fitted_as: ClassVar[str] = "pipe"
    about: ClassVar[About] = About(owner="circuit", rehang="parent", most=20_000)

    circuit: Annotated[Id, link("Circuit", "circuit")]
    parent: Annotated[Ref, link("After", "pipe_section")] = None
    valve_kv_m3_h: Annotated[float, number("Valve's Kv", "ratio", 0.01, 5000)] | None = None
    through: Annotated[
        Ref,
        link(
            "Runs through",
            "room",
            empties=True,
            hint="Empty: the room at its end. Counts where what is lost goes to those rooms.",
        ),
    ] = None
    air_system: Annotated[Ref, link("Ends at the coil of", "air_system", empties=True)] = None
    fed_circuit: Annotated[Ref, link("Ends at the circuit", "circuit", empties=True)] = None

    @model_validator(mode="after")
    def one_end(self) -> Self:
        if sum(end is not None for end in (self.room, self.air_system, self.fed_circuit)) > 1:
            raise ValueError("a section has one end: room, air_system or fed_circuit")
        return self
