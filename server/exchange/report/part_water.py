"""Parts about circuits, plant, emitters and what is to be bought."""

from collections.abc import Sequence

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
    """What is to be bought."""
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
