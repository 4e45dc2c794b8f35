"""Parts about the year and about options side by side."""

from collections.abc import Sequence

from exchange.report.sheet import Bars, Cell, Column, Measured, Part, Table
from exchange.report.source import MONTHS, Source, money
from projects.kinds import KINDS


def year(of: Source) -> Part:
    """Energy, bills and comfort of the year that is kept."""
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
                    money("Energy"),
                    money("Demand"),
                    money("Standing"),
                    money("Levy"),
                    money("Tax"),
                    money("Total"),
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


def options(of: Source) -> Part:
    """Base and options side by side."""
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
