"""The node of a Working tree."""

from dataclasses import dataclass

from pendrum_core.quantities.registry import shown


@dataclass(frozen=True)
class Node:
    """One number and where it comes from.

    Attributes:
        name, symbol: what it is.
        value: SI value; None for a node that only holds text.
        quantity: key of the unit registry.
        formula: words and symbols.
        numbers: the formula with this case's numbers, in SI.
        source: published rule or table.
        ref: document place "kind/id/field" of an input, whose origin the caller adds.
        note: a remark.
        inputs: one level down.
    """

    name: str
    value: float | None = None
    quantity: str = "ratio"
    symbol: str = ""
    formula: str = ""
    numbers: str = ""
    source: str = ""
    ref: str = ""
    note: str = ""
    inputs: tuple["Node", ...] = ()


def figure(value: float, quantity: str) -> str:
    """A value as text with its SI unit, four significant digits."""
    number, unit = shown(value, quantity)
    return f"{number:.4g} {unit}".strip()


def addition(values: list[float], quantity: str) -> str:
    """A signed sum as text."""
    text = ""
    for value in values:
        number, _ = shown(abs(value), quantity)
        sign = "−" if value < 0 else "+"
        text += f" {sign} {number:.4g}"
    unit = shown(0.0, quantity)[1]
    return f"{text.lstrip(' +')} {unit}".strip()
