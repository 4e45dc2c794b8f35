"""Parts at the head of a report: cover, changes, basis of design; and its snags."""

from collections.abc import Sequence

from exchange.report.sheet import Bars, Cell, Column, Measured, Part, Table
from exchange.report.source import MONTHS, Source
from projects.kinds import KINDS


def cover(of: Source) -> Part:
    """Who issues what, when and for what."""
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


def basis(of: Source) -> Part:
    """Site, climate and definitions that everything rests on."""
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


def snags_part(of: Source) -> Part:
    """What is open, the gravest first."""
    order = {"stops": 0, "doubtful": 1, "note": 2}
    rows = [
        [snag["level"], snag["stage"], snag["sentence"], snag["way_out"]]
        for snag in sorted(of.of("snag").values(), key=lambda snag: (order[snag["level"]], snag["stage"]))
    ]
    return Part(
        "snags", "Snags", [Table("Open points", tuple(map(Column, ("Level", "Stage", "What", "Way out"))), rows)]
    )


def changes(of: Source) -> Part:
    """What differs from the issue before."""
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
