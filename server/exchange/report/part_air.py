"""Parts about air systems, ducts and pipes."""

from collections.abc import Sequence

from exchange.report.sheet import Bars, Cell, Column, Part, Table
from exchange.report.source import Source, airflow


def air_systems(of: Source) -> Part:
    """Air systems with flows, coils and fans, what their rooms get, and the air balance."""
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
                    airflow("Supply"),
                    airflow("Outdoor air"),
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
                    airflow("for cooling"),
                    airflow("for ventilation"),
                    airflow("Supply"),
                    Column("Governed by"),
                ),
                flows,
            ),
            Table(
                "Air balance, all extracts running",
                (
                    Column("No."),
                    Column("Room"),
                    airflow("Supply"),
                    airflow("from rooms"),
                    airflow("leaks in"),
                    airflow("Return"),
                    airflow("Extract"),
                    airflow("to rooms"),
                    airflow("leaks out"),
                ),
                balance,
            ),
        ],
    )


def runs(of: Source) -> Part:
    """Ducts and pipes, section by section."""
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
