"""What can be bought: rows of the engineer's own catalogues, and the choice among them.

Source: the smallest that covers its duty, by definition.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

PUMP, FAN, RADIATOR, BOILER, HEAT_PUMP, CHILLER = "pump", "fan", "radiator", "boiler", "heat pump", "chiller"
ITEMS = (PUMP, FAN, RADIATOR, BOILER, HEAT_PUMP, CHILLER)


@dataclass(frozen=True)
class CatalogueRow:
    """A row of a catalogue.

    Attributes:
        item: of ITEMS.
        name: what it is ordered by.
        flow_m3_s, pressure_pa: of pumps and fans, what it can give together; nought of others.
        output_w: of the others: a radiator's at 75/65/20; nought of pumps and fans.
    """

    item: str
    name: str
    flow_m3_s: float = 0.0
    pressure_pa: float = 0.0
    output_w: float = 0.0


def rows_of(rows: Iterable[CatalogueRow], item: str) -> list[CatalogueRow]:
    """Rows of an item, small to large: by output, or by the power that flow and pressure make."""
    return sorted(
        (row for row in rows if row.item == item), key=lambda r: (r.output_w, r.flow_m3_s * r.pressure_pa, r.name)
    )


def choose(
    rows: Sequence[CatalogueRow], *, flow_m3_s: float = 0.0, pressure_pa: float = 0.0, output_w: float = 0.0
) -> CatalogueRow | None:
    """The first of an item's rows, small to large as `rows_of` gives them, that covers a duty; None where none does."""
    return next(
        (
            row
            for row in rows
            if row.flow_m3_s >= flow_m3_s and row.pressure_pa >= pressure_pa and row.output_w >= output_w
        ),
        None,
    )
