"""What a report is made of, before it is pages or a workbook: parts of tables and of bars, figures as stored."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from calculations.units import decimals, shown, unit


@dataclass(frozen=True)
class Measured:
    """A figure whose quantity is its own, in a column where rows differ."""

    value: float
    quantity: str


Cell = str | float | int | bool | None | Measured


@dataclass(frozen=True)
class Column:
    """A column: its title, and the quantity of its figures; without one it holds text."""

    title: str
    quantity: str = ""


@dataclass(frozen=True)
class Table:
    title: str
    columns: Sequence[Column]
    rows: Sequence[Sequence[Cell]]


@dataclass(frozen=True)
class Bars:
    """Shares of a load by source, signed [W]."""

    title: str
    parts: Sequence[tuple[str, str, float]]  # name, colour, watts


@dataclass(frozen=True)
class Part:
    """A part of a report: blocks one below the other; `continued` where its beginning stands elsewhere."""

    key: str
    title: str
    blocks: Sequence[Table | Bars | str] = field(default_factory=tuple)
    continued: bool = False


def head(column: Column, system: str) -> str:
    """A column's title with its unit."""
    told = unit(column.quantity, system) if column.quantity else ""
    return f"{column.title} [{told}]" if told else column.title


def text(cell: Cell, quantity: str, system: str) -> str:
    """A cell as it stands on a page and on the screen."""
    if cell is None or cell == "":
        return "–"
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, str):
        return cell
    if isinstance(cell, Measured):
        told = unit(cell.quantity, system) if cell.quantity else ""
        return f"{text(cell.value, cell.quantity, system)} {told}".strip()
    if not quantity:
        return str(cell)
    figure = f"{shown(cell, quantity, system):,.{decimals(quantity, system)}f}".replace(",", "\u2009")
    if float(figure.replace("\u2009", "")) == 0.0:
        figure = figure.lstrip("-")
    return figure.replace("-", "−")


def number(cell: Cell, quantity: str, system: str) -> Any:
    """A cell as a workbook holds it: figures unrounded, in the units of the head."""
    if cell is None:
        return None
    if isinstance(cell, Measured):
        return text(cell, "", system)
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, str) or not quantity:
        return cell
    return shown(cell, quantity, system)
