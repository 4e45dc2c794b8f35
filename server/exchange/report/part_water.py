"""Parts about circuits, plant, emitters and what is to be bought."""

from collections.abc import Sequence

from calculations.kit import noted
from exchange.report.sheet import Cell, Column, Measured, Part, Table
from exchange.report.source import Source


def water(of: Source) -> Part:
    """Circuits, pumps, emitters, plant and hot water."""
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


def kit_list(of: Source) -> Part:
    """What is to be bought: of each piece a row, and below it a row for every line of its account."""
    rows: list[Sequence[Cell]] = []
    for item in noted(of.document, of.of("kit")):
        power, weight = item["power_w"] or None, item["weight_kg"]
        told = (item["size"], item["count"], power, weight, item["state"], item["remark"])
        rows.append((item["tag"], item["item"], item["serves"], "", "", *told))
        rows += [
            ("", line["what"], "", Measured(line["value"], line["quantity"]), line["note"], "", "", None, None, "", "")
            for line in item["account"]
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
                    Column("Figure"),
                    Column("When"),
                    Column("Size"),
                    Column("Pieces"),
                    Column("Electrical", "electric_power"),
                    Column("Weight", "weight"),
                    Column("State"),
                    Column("Remark"),
                ),
                rows,
            )
        ],
    )
