"""Parts about loads: the building, its rooms, a sheet for every room."""

from collections.abc import Sequence

from calculations.explanations import SOURCE_NAMES
from exchange.report.sheet import Bars, Cell, Column, Measured, Part, Table
from exchange.report.source import Source, name_of, when

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


def _bars(of: Source, title: str, parts_w: Sequence[float]) -> Bars:
    named = [
        (SOURCE_NAMES.get(name, name), _TONES.get(name, "#888888"), value)
        for name, value in zip(of.categories, parts_w, strict=True)
        if abs(value) > 0.5
    ]
    return Bars(title, named)


def summary(of: Source) -> Part:
    """Loads of the building and its groups."""
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


def room_list(of: Source) -> Part:
    """One line for every room."""
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


def sheets(of: Source) -> Part:
    """A sheet for every room: its loads by source."""
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
