"""What can be bought: rows of the engineer's own catalogues, and the choice among them.

Source: the smallest that covers its duty, by definition.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

PUMP, FAN, RADIATOR, BOILER, HEAT_PUMP, CHILLER = "pump", "fan", "radiator", "boiler", "heat pump", "chiller"
MOTOR, DUCT, PIPE = "motor", "duct", "pipe"
MOVES = (PUMP, FAN)  # told by flow and pressure
BORES = (DUCT, PIPE)  # told by diameter; all others by output
ITEMS = (PUMP, FAN, RADIATOR, BOILER, HEAT_PUMP, CHILLER, MOTOR, DUCT, PIPE)


@dataclass(frozen=True)
class CatalogueRow:
    """A row of a catalogue.

    Attributes:
        item: of ITEMS.
        name: what it is ordered by.
        flow_m3_s, pressure_pa: of pumps and fans, what it can give together; nought of others.
        output_w: of those that give heat or cold, a radiator's at 75/65/20, and what a motor gives to its shaft.
        diameter_m, outer_m: of round ducts and pipes: inner diameter; of pipes the outer one too.
        weight_kg: of a piece; nought where it is not told.
    """

    item: str
    name: str
    flow_m3_s: float = 0.0
    pressure_pa: float = 0.0
    output_w: float = 0.0
    diameter_m: float = 0.0
    outer_m: float = 0.0
    weight_kg: float = 0.0


@dataclass(frozen=True)
class Sizes:
    """Sizes that are sold, small to large, in place of the standards'; empty where the standards' stand.

    Attributes:
        motors_w: outputs of motors [W].
        ducts_m: inner diameters of round ducts [m].
        pipes: name, inner and outer diameter of pipes [m].
    """

    motors_w: tuple[float, ...] = ()
    ducts_m: tuple[float, ...] = ()
    pipes: tuple[tuple[str, float, float], ...] = ()


STANDARDS = Sizes()


def sizes_of(rows: Iterable[CatalogueRow]) -> Sizes:
    """The sizes of motors, ducts and pipes that a catalogue has [W, m]. Source: its rows."""
    rows = tuple(rows)
    pipes = sorted((row.diameter_m, row.name, max(row.outer_m, row.diameter_m)) for row in rows if row.item == PIPE)
    return Sizes(
        tuple(sorted({row.output_w for row in rows if row.item == MOTOR})),
        tuple(sorted({row.diameter_m for row in rows if row.item == DUCT})),
        tuple((name, inner, outer) for inner, name, outer in pipes),
    )


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
