"""The parts that a report may have, each made of what a document holds and what was worked out for it."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from exchange.report.sheet import Bars, Cell, Column, Measured, Part, Table
from projects.kinds import KINDS
from projects.rows import Document, Row

MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec", "Dew day")
_STEP_MIN = 10
# Colours of load sources, as on the screen.
_TONES = {
    "sun": "#c99012",
    "people": "#5b2a63",
    "lights": "#e3c75f",
    "equipment": "#7d8fa0",
    "walls": "#a8704a",
    "roofs": "#5f3420",
    "floors": "#dba880",
    "windows": "#3d7fb8",
    "doors": "#3b3a36",
    "neighbours": "#c9c4bd",
    "infiltration": "#355f49",
    "outdoor air": "#7fc79a",
    "drawn air": "#4fa99c",
    "storage": "#c98fc0",
}
_SOURCES = {
    "sun": "Sun through windows",
    "walls": "Walls",
    "roofs": "Roofs and ceilings",
    "floors": "Floors",
    "windows": "Windows, conduction",
    "doors": "Doors",
    "neighbours": "Neighbouring spaces",
    "people": "People",
    "lights": "Lights",
    "equipment": "Equipment",
    "infiltration": "Infiltration",
    "outdoor air": "Untreated outdoor air",
    "drawn air": "Air drawn in by warmth",
    "storage": "Stored heat",
}


@dataclass(frozen=True)
class Source:
    """What parts are made of.

    Attributes:
        records: everything worked out, as sent to the browser; `categories` names the parts of loads.
        year: the summary of a kept year, and `bills` of it; None where there is none.
        changes: what differs from the issue before; None for a first one.
        head: number, date, author, purpose, remarks of the issue; `revisions` those before it.
        option: name of the option that is reported; `options` base and options side by side, with their years.
    """

    document: Document
    records: Mapping[str, Any]
    categories: Sequence[str]
    year: Mapping[str, Any] | None = None
    bills: Sequence[Mapping[str, Any]] = ()
    changes: Mapping[str, Any] | None = None
    head: Mapping[str, str] | None = None
    revisions: Sequence[Mapping[str, str]] = ()
    option: str = ""
    options: Mapping[str, Any] | None = None

    def of(self, kind: str) -> Mapping[str, Any]:
        """Records of a kind by id."""
        found: Mapping[str, Any] = self.records.get(kind, {})
        return found

    def name(self, kind: str, identity: str | None) -> str:
        """What people call a thing."""
        row = self.document.row(kind, identity)
        return name_of(row) if row else ""

    def rooms(self) -> list[Row]:
        """Rooms by number."""
        return sorted(self.document.of("room").values(), key=lambda row: row["number"])


def _airflow(title: str) -> Column:
    return Column(title, "airflow")


def _money(title: str) -> Column:
    return Column(title, "money")


def name_of(row: Row) -> str:
    """Number and name."""
    return " ".join(str(row[field]) for field in ("number", "name") if row.get(field))


def when(peak: Mapping[str, Any] | None) -> str:
    """Month and time of a peak."""
    if not peak or peak["sensible_w"] <= 0:
        return ""
    minutes = peak["step"] * _STEP_MIN
    return f"{MONTHS[peak['month'] - 1]} {minutes // 60:02d}:{minutes % 60:02d}"


def _cover(of: Source) -> Part:
    head = of.head or {}
    site, project = of.document.one("site"), of.document.one("project")
    facts: list[Sequence[Cell]] = [
        [label, head[key]]
        for key, label in (
            ("number", "Issue"),
            ("date", "Date"),
            ("author", "By"),
            ("purpose", "For"),
            ("remarks", "Remarks"),
        )
        if head.get(key)
    ]
    facts += [
        ["Project", project["name"]],
        *([["Option", of.option]] if of.option else []),
        ["Site", site["name"]],
        ["Version of the document", str(of.document.version)],
        ["Rooms", str(len(of.of("room")))],
        ["Floor area", Measured(sum(row["floor_area_m2"] for row in of.rooms()), "area")],
    ]
    blocks: list[Table | Bars | str] = [Table("", (Column(""), Column("")), facts)]
    if of.revisions:
        rows = [[row["number"], row["date"], row["author"], row["purpose"], row["remarks"]] for row in of.revisions]
        blocks.append(Table("Issues before", tuple(map(Column, ("No.", "Date", "By", "For", "Remarks"))), rows))
    return Part("cover", project["name"], blocks)


def _basis(of: Source) -> Part:
    site, project = of.document.one("site"), of.document.one("project")
    facts: list[Sequence[Cell]] = [
        ["Latitude, north", f"{site['latitude']:.3f}°"],
        ["Longitude, east", f"{site['longitude']:.3f}°"],
        ["Elevation", Measured(site["elevation_m"], "elevation")],
        ["Winter outdoor air", Measured(site["winter_dry_bulb_c"], "temperature")],
        ["Ground reflectance", f"{site['ground_reflectance']:.2f}"],
        ["Ventilation by", project["ventilation"]],
        ["Heating by", {"balance": "heat balance", "u_values": "U-values"}[project["heating_procedure"]]],
        ["Margin on heating", Measured(project["heating_margin"], "percent")],
        ["Margin on cooling", Measured(project["cooling_margin"], "percent")],
    ]
    months = sorted(of.document.of("design_month").values(), key=lambda row: row["month"])
    days = [
        [
            MONTHS[row["month"] - 1],
            row["dry_bulb_c"],
            row["wet_bulb_c"],
            row["range_k"],
            f"{row['tau_b']:.3f}",
            f"{row['tau_d']:.3f}",
        ]
        for row in months
    ]
    fabric = []
    for identity, row in of.document.of("assembly").items():
        found = of.of("assembly").get(identity)
        if found and not found["problem"]:
            fabric.append([row["name"], row["element"].replace("_", " "), found["u_value"], found["mass_kg_m2"]])
    glass = [
        [row["name"], row["u_value"], row["g_value"], row["frame_share"]] for row in of.document.of("glazing").values()
    ]
    uses: list[Sequence[Cell]] = []
    for identity, row in of.document.of("use").items():
        found = of.of("use").get(identity)
        if found:
            uses.append(
                [
                    row["name"],
                    found["area_m2"],
                    found["people_per_m2"],
                    found["lights_w_m2"],
                    found["equipment_w_m2"],
                    row["heating_setpoint_c"],
                    row["cooling_setpoint_c"],
                    found["outdoor_air_m3_s_m2"],
                ]
            )
    return Part(
        "basis",
        "Basis of design",
        [
            Table("Site and choices", (Column(""), Column("")), facts),
            Table(
                "Design days",
                (
                    Column("Month"),
                    Column("Dry-bulb", "temperature"),
                    Column("Wet-bulb", "temperature"),
                    Column("Range", "temperature_difference"),
                    Column("τ beam"),
                    Column("τ diffuse"),
                ),
                days,
            ),
            Table(
                "Assemblies",
                (Column("Assembly"), Column("For"), Column("U-value", "u_value"), Column("Mass", "surface_mass")),
                fabric,
            ),
            Table(
                "Glazing",
                (
                    Column("Glazing"),
                    Column("U-value", "u_value"),
                    Column("g-value", "ratio"),
                    Column("Frame", "percent"),
                ),
                glass,
            ),
            Table(
                "Uses",
                (
                    Column("Use"),
                    Column("Area", "area"),
                    Column("People", "people_density"),
                    Column("Lights", "connected_density"),
                    Column("Equipment", "connected_density"),
                    Column("Heated to", "temperature"),
                    Column("Cooled to", "temperature"),
                    Column("Outdoor air", "airflow_per_area"),
                ),
                uses,
            ),
        ],
    )


def _bars(of: Source, title: str, parts_w: Sequence[float]) -> Bars:
    named = [
        (_SOURCES.get(name, name), _TONES.get(name, "#888888"), value)
        for name, value in zip(of.categories, parts_w, strict=True)
        if abs(value) > 0.5
    ]
    return Bars(title, named)


def _summary(of: Source) -> Part:
    kinds = {"level": "Level", "zone": "Zone", "use": "Use", "air_system": "Air system", "building": "Building"}
    rows: list[Sequence[Cell]] = []
    for kind, title in kinds.items():
        for group in of.of("group").values():
            if group["kind"] == kind:
                cooling = group["cooling"]
                rows.append(
                    [
                        title,
                        group["name"],
                        group["floor_area_m2"],
                        cooling["sensible_w"],
                        cooling["total_w"],
                        when(cooling),
                        group["sum_of_peaks_w"],
                        group["cooling_with_margin_w"],
                        group["heating_w"],
                        group["heating_with_margin_w"],
                    ]
                )
    blocks: list[Table | Bars | str] = [
        Table(
            "Loads of rooms together, at their own peak",
            (
                Column("Of"),
                Column("Name"),
                Column("Area", "area"),
                Column("Cooling", "load"),
                Column("with moisture", "load"),
                Column("When"),
                Column("Sum of room peaks", "load"),
                Column("with margin", "load"),
                Column("Heating", "load"),
                Column("with margin", "load"),
            ),
            rows,
        )
    ]
    building = of.of("group").get("building")
    if building:
        blocks.append(_bars(of, "Cooling of the building by source", building["cooling"]["parts_w"]))
        blocks.append(_bars(of, "Heating of the building by source", building["heating_parts_w"]))
    return Part("summary", "Loads of the building", blocks)


def _rooms(of: Source) -> Part:
    rows: list[Sequence[Cell]] = []
    for row in of.rooms():
        found = of.of("room").get(row["id"])
        if found is None:
            continue
        cooling = found["cooling"]
        flow = of.of("airflow").get(row["id"])
        rows.append(
            [
                row["number"],
                row["name"],
                row["floor_area_m2"],
                cooling and cooling["sensible_w"],
                cooling and cooling["latent_w"],
                when(cooling),
                found["cooling_with_margin_w"],
                found["heating_w"],
                found["heating_with_margin_w"],
                flow and flow["design_m3_s"],
                found["floating_peak_c"],
            ]
        )
    return Part(
        "rooms",
        "Rooms",
        [
            Table(
                "Loads of rooms",
                (
                    Column("No."),
                    Column("Room"),
                    Column("Area", "area"),
                    Column("Cooling", "load"),
                    Column("latent", "load"),
                    Column("When"),
                    Column("with margin", "load"),
                    Column("Heating", "load"),
                    Column("with margin", "load"),
                    Column("Supply", "airflow"),
                    Column("Warmest", "temperature"),
                ),
                rows,
            )
        ],
    )


def _sheets(of: Source) -> Part:
    blocks: list[Table | Bars | str] = []
    for row in of.rooms():
        found = of.of("room").get(row["id"])
        if found is None:
            continue
        cooling = found["cooling"]
        facts: list[Sequence[Cell]] = [
            ["Level", of.name("level", row["level"]), "Use", of.name("use", row["use"])],
            ["Floor area", Measured(row["floor_area_m2"], "area"), "Volume", Measured(found["volume_m3"], "volume")],
            ["Cooling, sensible", Measured(cooling["sensible_w"], "load") if cooling else None, "When", when(cooling)],
            [
                "Cooling, latent",
                Measured(cooling["latent_w"], "load") if cooling else None,
                "Heating",
                Measured(found["heating_w"], "load"),
            ],
            [
                "Air system",
                of.name("air_system", row["air_system"]),
                "Supply air",
                Measured(of.of("airflow")[row["id"]]["design_m3_s"], "airflow")
                if row["id"] in of.of("airflow")
                else None,
            ],
        ]
        blocks.append(Table(name_of(row), (Column(""),) * 4, facts))
        if cooling:
            blocks.append(_bars(of, "Cooling by source", cooling["parts_w"]))
        if found["heating_w"] > 0:
            blocks.append(_bars(of, "Heating by source", found["heating_parts_w"]))
    return Part("sheets", "Room data sheets", blocks)


def _air(of: Source) -> Part:
    systems: list[Sequence[Cell]] = []
    for identity, found in of.of("air_system").items():
        key, _, room = identity.partition("~")
        name = of.name("air_system", key) + (f", {of.name('room', room)}" if room else "")
        systems.append(
            [
                name,
                found["flow_m3_s"],
                found["outdoor_air"]["intake_m3_s"],
                found["coil_total_w"],
                found["coil_sensible_w"],
                found["winter"]["duty_w"],
                found["reheat_w"],
                found["fan"]["total_pa"],
                found["fan"]["electrical_w"],
            ]
        )
    flows: list[Sequence[Cell]] = []
    for row in of.rooms():
        flow = of.of("airflow").get(row["id"])
        if flow:
            flows.append(
                [
                    row["number"],
                    row["name"],
                    of.name("air_system", row["air_system"]),
                    flow["cooling_m3_s"],
                    flow["ventilation_m3_s"],
                    flow["design_m3_s"],
                    flow["governing"],
                ]
            )
    balance: list[Sequence[Cell]] = []
    for row in of.rooms():
        b = of.of("balance").get(row["id"])
        if b:
            balance.append(
                [
                    row["number"],
                    row["name"],
                    b["supply_m3_s"],
                    b["transfer_in_m3_s"],
                    b["leak_in_m3_s"],
                    b["returned_m3_s"],
                    b["extract_m3_s"] + b["by_unit_m3_s"],
                    b["transfer_out_m3_s"],
                    b["leak_out_m3_s"],
                ]
            )
    return Part(
        "air",
        "Air",
        [
            Table(
                "Air systems",
                (
                    Column("System"),
                    _airflow("Supply"),
                    _airflow("Outdoor air"),
                    Column("Cooling coil", "load"),
                    Column("sensible", "load"),
                    Column("Heating coil", "load"),
                    Column("Reheat", "load"),
                    Column("Fan", "air_pressure"),
                    Column("Fan power", "electric_power"),
                ),
                systems,
            ),
            Table(
                "Airflows of rooms",
                (
                    Column("No."),
                    Column("Room"),
                    Column("System"),
                    _airflow("for cooling"),
                    _airflow("for ventilation"),
                    _airflow("Supply"),
                    Column("Governed by"),
                ),
                flows,
            ),
            Table(
                "Air balance, all extracts running",
                (
                    Column("No."),
                    Column("Room"),
                    _airflow("Supply"),
                    _airflow("from rooms"),
                    _airflow("leaks in"),
                    _airflow("Return"),
                    _airflow("Extract"),
                    _airflow("to rooms"),
                    _airflow("leaks out"),
                ),
                balance,
            ),
        ],
    )


def _runs(of: Source) -> Part:
    blocks: list[Table | Bars | str] = []
    for kind, owner, flow, pressure, title in (
        ("duct_section", "air_system", "airflow", "air_pressure", "Ducts"),
        ("pipe_section", "circuit", "water_flow", "pressure", "Pipes"),
    ):
        rows: list[Sequence[Cell]] = []
        for identity, row in of.document.of(kind).items():
            s = of.of(kind).get(identity)
            if s:
                rows.append(
                    [
                        of.name(owner, row[owner]),
                        row["name"],
                        s["size"],
                        row["length_m"],
                        s["flow_m3_s"],
                        s["velocity_m_s"],
                        s["loss_pa"],
                        s["balancing_pa"],
                        "sized" if s["sized"] else "pinned",
                    ]
                )
        blocks.append(
            Table(
                title,
                (
                    Column("Of"),
                    Column("Section"),
                    Column("Size"),
                    Column("Length", "length"),
                    Column("Flow", flow),
                    Column("Velocity", "velocity"),
                    Column("Loss", pressure),
                    Column("Balancing", pressure),
                    Column("State"),
                ),
                rows,
            )
        )
    return Part("runs", "Ducts and pipes", blocks)


def _water(of: Source) -> Part:
    circuits: list[Sequence[Cell]] = [
        [
            of.name("circuit", identity),
            c["duty_w"],
            c["pump"]["flow_m3_s"],
            c["pump"]["head_pa"],
            c["pump"]["electrical_w"],
            c["water_content_m3"],
        ]
        for identity, c in of.of("circuit").items()
    ]
    emitters: list[Sequence[Cell]] = [
        [of.name("room", identity), e["duty_w"], e["rating_w"], e["chosen_w"], e["factor"]]
        for identity, e in of.of("emitter").items()
    ]
    plant: list[Sequence[Cell]] = []
    for identity, found in of.of("plant").items():
        for unit_, u in found["units"].items():
            plant.append(
                [
                    of.name("circuit", identity),
                    of.name("plant_unit", unit_),
                    found["design_w"],
                    u["capacity_w"],
                    u["taken_w"],
                ]
            )
    return Part(
        "water",
        "Water and plant",
        [
            Table(
                "Circuits",
                (
                    Column("Circuit"),
                    Column("Duty", "load"),
                    Column("Flow", "water_flow"),
                    Column("Head", "head"),
                    Column("Pump power", "electric_power"),
                    Column("Water", "water_volume"),
                ),
                circuits,
            ),
            Table(
                "Plant",
                (
                    Column("Circuit"),
                    Column("Unit"),
                    Column("Design load", "load"),
                    Column("Capacity", "load"),
                    Column("Takes", "load"),
                ),
                plant,
            ),
            Table(
                "Emitters",
                (
                    Column("Room"),
                    Column("Duty", "load"),
                    Column("Rating", "load"),
                    Column("Of the series", "load"),
                    Column("Factor", "ratio"),
                ),
                emitters,
            ),
        ],
    )


def _kit(of: Source) -> Part:
    rows = [
        [
            item["tag"],
            item["item"],
            item["serves"],
            Measured(item["duty"], item["duty_quantity"]) if item["duty_quantity"] else "",
            Measured(item["second"], item["second_quantity"]) if item["second_quantity"] else "",
            item["size"],
            item["power_w"] or None,
            item["state"],
        ]
        for item in sorted(of.of("kit").values(), key=lambda item: item["order"])
    ]
    return Part(
        "kit",
        "Kit list",
        [
            Table(
                "Everything sized or pinned",
                (
                    Column("Tag"),
                    Column("Item"),
                    Column("Serves"),
                    Column("Duty"),
                    Column("and"),
                    Column("Size"),
                    Column("Electrical", "electric_power"),
                    Column("State"),
                ),
                rows,
            )
        ],
    )


def _year(of: Source) -> Part:
    if of.year is None:
        return Part("year", "Year", ["No year is calculated: Year, “Calculate the year”."])
    energy = Column("", "yearly_energy").quantity
    uses = [
        [row["use"], row["carrier"], row["kwh"], row["kwh"] / max(of.year["floor_area_m2"], 1e-9), row["peak_w"]]
        for row in of.year["energy"]
    ]
    months = [[row["use"], row["carrier"], *row["month_kwh"]] for row in of.year["energy"]]
    comfort: list[Sequence[Cell]] = []
    for row in of.rooms():
        y = of.year["rooms"].get(row["id"])
        if y:
            comfort.append(
                [
                    row["number"],
                    row["name"],
                    y["heating_kwh"],
                    y["cooling_kwh"],
                    y["warmest_c"],
                    y["too_warm_h"],
                    y["unmet_heating_h"],
                    y["unmet_cooling_h"],
                ]
            )
    blocks: list[Table | Bars | str] = [
        f"Weather: {of.year['weather']}. {of.year['hours']} hours of {of.year['year']}."
        + ("" if of.year["version"] == of.document.version else " Inputs have changed since this year was calculated."),
        Table(
            "Energy by use and carrier",
            (
                Column("For"),
                Column("From"),
                Column("Energy", energy),
                Column("By floor area", "energy_per_area"),
                Column("Largest hour", "load"),
            ),
            uses,
        ),
        Table("By month", (Column("For"), Column("From"), *(Column(name, energy) for name in MONTHS[:12])), months),
    ]
    for bill in of.bills:
        rows = [
            [
                MONTHS[m["month"] - 1],
                sum(m["kwh"].values()),
                m["billed_kw"],
                m["energy"],
                m["demand"],
                m["standing"],
                m["levy"],
                m["tax"],
                m["total"],
            ]
            for m in bill["months"]
        ]
        blocks.append(
            Table(
                f"Bill: {bill['name']}",
                (
                    Column("Month"),
                    Column("Used", "metered_energy"),
                    Column("Billed", "demand"),
                    _money("Energy"),
                    _money("Demand"),
                    _money("Standing"),
                    _money("Levy"),
                    _money("Tax"),
                    _money("Total"),
                ),
                rows,
            )
        )
    blocks.append(
        Table(
            "Rooms over the year",
            (
                Column("No."),
                Column("Room"),
                Column("Heating", energy),
                Column("Cooling", energy),
                Column("Warmest", "temperature"),
                Column("Too warm", "hours"),
                Column("Too cold", "hours"),
                Column("Not cooled", "hours"),
            ),
            comfort,
        )
    )
    return Part("year", "Year", blocks)


_TOTALS = (
    ("cooling_w", "Cooling peak", "load"),
    ("heating_w", "Heating peak", "load"),
    ("supply_m3_s", "Supply air", "airflow"),
    ("coils_w", "Cooling coils", "load"),
    ("plant_w", "Plant", "load"),
    ("fans_w", "Fans", "electric_power"),
    ("pumps_w", "Pumps", "electric_power"),
    ("kit_cost", "Kit by prices", "money"),
)
_YEARS = (
    ("delivered_kwh", "Delivered energy", "yearly_energy"),
    ("cost", "Bills with tax", "money"),
    ("emissions_kg", "CO₂", "emission_mass"),
    ("too_warm_h", "Too warm, all rooms", "hours"),
)


def _options(of: Source) -> Part:
    if of.options is None:
        return Part("options", "Options", ["There is no option to compare with the base."])
    columns, totals, years = of.options["columns"], of.options["totals"], of.options["years"]

    def line(name: str, quantity: str, values: Sequence[float | None]) -> list[Cell]:
        return [name, *(None if value is None else Measured(value, quantity) for value in values)]

    rows = [line(name, quantity, [totals[c["id"]][key] for c in columns]) for key, name, quantity in _TOTALS]
    rows += [
        line(name, quantity, [years[c["id"]][key] if years[c["id"]] else None for c in columns])
        for key, name, quantity in _YEARS
        if any(years.values())
    ]
    rows.append(
        line("Costs more than the base", "money", [c["capital"] if at else None for at, c in enumerate(columns)])
    )
    entered = [
        [
            one["option"],
            one["kind"].replace("_", " "),
            one["name"],
            KINDS[one["kind"]].label(one["field"]) if one["field"] else one["op"],
            one["before"],
            one["after"],
        ]
        for one in of.options["differences"]
    ]
    return Part(
        "options",
        "Options",
        [
            Table("Figures", (Column("Building"), *(Column(c["name"]) for c in columns)), rows),
            Table(
                "What is entered otherwise than in the base",
                tuple(map(Column, ("Option", "Kind", "Of", "Value", "Base", "Option"))),
                entered,
            ),
        ],
    )


def _snags(of: Source) -> Part:
    order = {"stops": 0, "doubtful": 1, "note": 2}
    rows = [
        [snag["level"], snag["stage"], snag["sentence"], snag["way_out"]]
        for snag in sorted(of.of("snag").values(), key=lambda snag: (order[snag["level"]], snag["stage"]))
    ]
    return Part(
        "snags", "Snags", [Table("Open points", tuple(map(Column, ("Level", "Stage", "What", "Way out"))), rows)]
    )


def _changes(of: Source) -> Part:
    if of.changes is None:
        return Part("changes", "Changes", ["This is the first issue: there is none before it to compare with."])
    entered = [
        [
            row["kind"].replace("_", " "),
            row["name"],
            KINDS[row["kind"]].label(row["field"]) if row["field"] else row["op"],
            row["before"],
            row["after"],
        ]
        for row in of.changes["inputs"]
    ]
    figures: list[Sequence[Cell]] = []
    for row in of.changes["figures"]:
        old, new = (None if value is None else Measured(value, row["quantity"]) for value in row["values"])
        figures.append([row["group"], row["name"], row["figure"], old, new])
    return Part(
        "changes",
        f"Changes since issue {of.changes['number']}",
        [
            Table("What is entered differently", tuple(map(Column, ("Kind", "Of", "Value", "Before", "Now"))), entered),
            Table(
                "What it makes of peaks and sizes",
                tuple(map(Column, ("Part", "Of", "Figure", "Before", "Now"))),
                figures,
            ),
        ],
    )


# In the order in which they stand in a report.
PARTS: dict[str, tuple[str, Callable[[Source], Part]]] = {
    "cover": ("Cover and issues before", _cover),
    "changes": ("Changes since the last issue", _changes),
    "basis": ("Basis of design", _basis),
    "summary": ("Loads of the building", _summary),
    "rooms": ("Room list", _rooms),
    "sheets": ("Room data sheets", _sheets),
    "air": ("Air systems, airflows, balance", _air),
    "runs": ("Ducts and pipes", _runs),
    "water": ("Water, plant, emitters", _water),
    "kit": ("Kit list", _kit),
    "year": ("Year: energy, bills, comfort", _year),
    "options": ("Options compared", _options),
    "snags": ("Snags", _snags),
}


def parts_of(source: Source, wanted: Sequence[str]) -> list[Part]:
    """The wanted parts in the order of a report; tables without a row are left out."""
    found = []
    for key, (_, make) in PARTS.items():
        if key not in wanted:
            continue
        part = make(source)
        blocks = [block for block in part.blocks if not isinstance(block, Table) or block.rows]
        found.append(Part(part.key, part.title, blocks or ["Nothing to tell here yet."]))
    return found
