"""A piece on the kit list: what is asked of it and when, what is added to that, what is chosen, what is left over."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from pendrum_core.model.catalogue import CatalogueRow, choose, rows_of
from pendrum_core.model.climate import day_number
from pendrum_core.model.systems import Section
from pendrum_core.network.fittings import FITTINGS
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingLoads

ASKED, MARGIN, PINNED, CHOSEN, LEFT = "asked", "margin", "pinned", "chosen", "left over"


def when(loads: BuildingLoads, month: int | None, step: int) -> str:
    """A step of a design day as text; `month` by its place among them, None: the winter day."""
    day = "Winter day" if month is None else MONTHS[day_number(loads.building.climate.months[month]) - 1]
    return f"{day} {clock(step)}"


@dataclass(frozen=True)
class Duty:
    """A figure that a piece must give, in SI units of its quantity.

    Attributes:
        value: as calculated, without its margin. It never holds a pin.
        when: the time or the case that it comes from.
        margin: added to it, as a share [-].
        pinned: what the engineer set in its place.
        chosen: what the size that is chosen gives; None where no size is told by it.
    """

    what: str
    value: float
    quantity: str
    when: str = ""
    margin: float = 0.0
    pinned: float | None = None
    chosen: float | None = None

    @property
    def calculated(self) -> float:
        """With its margin."""
        return self.value * (1.0 + self.margin)

    @property
    def wanted(self) -> float:
        """What is ordered: the pin, or what is calculated with its margin."""
        return self.calculated if self.pinned is None else self.pinned

    @property
    def left(self) -> float | None:
        """What the size gives above what is calculated, below nought where it falls short; None where no size is told."""
        given = self.pinned if self.chosen is None else self.chosen
        return None if given is None else given - self.calculated


@dataclass(frozen=True)
class Line:
    """A line of a piece's account: of ASKED, MARGIN, PINNED, CHOSEN, LEFT; SI value with its quantity."""

    role: str
    what: str
    value: float
    quantity: str
    note: str = ""


@dataclass(frozen=True)
class KitItem:
    """One piece of the kit list, or equal ones that no name tells apart.

    Attributes:
        order: 0 air, 1 water, 2 emitters; lines are sorted by it and the tag.
        owner: id of the system, circuit, unit or room that it belongs to; with `code` it tells the piece for good, whatever its name.
        tag, item, serves: what it is.
        duties: what is asked of it; the first is the one that prices go by.
        size: standard or catalogue size chosen; `why` that one.
        count: how many pieces; 0 of what is bought by length or area, and of sums.
        power_w: electrical power of all; 0 where it has none.
        weight_kg: of all; None where it is not known.
        state: "sized", "pinned" or "counted".
    """

    order: int
    owner: str
    code: str
    tag: str
    item: str
    serves: str
    duties: tuple[Duty, ...]
    size: str = ""
    why: str = ""
    count: int = 1
    power_w: float = 0.0
    weight_kg: float | None = None
    state: str = "sized"

    @property
    def key(self) -> str:
        """What tells it from all others of a building."""
        return f"{self.owner}/{self.code}"

    def account(self) -> Iterator[Line]:
        """Every duty, its margin on a line of its own, the pin, what is chosen and what is left over."""
        for duty in self.duties:
            q = duty.quantity
            yield Line(ASKED, duty.what, duty.value, q, duty.when)
            if duty.margin:
                yield Line(MARGIN, f"Margin {duty.margin:.0%}", duty.value * duty.margin, q)
            if duty.pinned is not None:
                yield Line(PINNED, "Pinned", duty.pinned, q)
            if duty.chosen is not None:
                yield Line(CHOSEN, "Chosen", duty.chosen, q, self.size)
            if (left := duty.left) is not None:
                yield Line(LEFT, "Left over", left, q)


NONE_COVERS = "none of the catalogue covers it"


@dataclass(frozen=True)
class Choice:
    """A size, the row of the catalogue that it is where there is one, and why that one."""

    size: str
    row: CatalogueRow | None = None
    why: str = ""

    def weight_kg(self, count: int = 1) -> float | None:
        """Of as many pieces; None where the catalogue does not tell."""
        return self.row.weight_kg * count if self.row and self.row.weight_kg else None


class Buying:
    """What lines are ordered as, where there is a catalogue of their item; each item's rows are put in order once."""

    def __init__(self, catalogue: Sequence[CatalogueRow]) -> None:
        self._rows = {item: rows_of(catalogue, item) for item in {row.item for row in catalogue}}

    def choose(self, item: str, otherwise: str, *, why: str = "", **duty: float) -> Choice:
        """The smallest row that covers a duty; `otherwise`, and why that, where there is no catalogue of the item."""
        if item not in self._rows:
            return Choice(otherwise, why=why)
        rows = self._rows[item]
        row = choose(rows, **duty)
        if row is None:
            return Choice(NONE_COVERS, why=f"None of {len(rows)} rows of the catalogue covers all that is asked.")
        return Choice(
            row.name, row, f"The smallest of {len(rows)} rows of the catalogue that covers all that is asked."
        )


def motor(motor_w: float | None) -> str:
    """A standard motor as a size."""
    return f"motor {motor_w / 1000:g} kW" if motor_w else "above the standard motors"


NEXT_MOTOR = "The next motor of the series above the shaft's power with its margin."


def fitting_lines(
    order: int, owner: str, name: str, sections: Iterable[Section], sizes: Mapping[str, str], network: str = ""
) -> Iterator[KitItem]:
    """Fittings of a tree that are entered by kind, counted by kind and size; `network` tells trees of one owner apart."""
    counts: dict[tuple[str, str], int] = defaultdict(int)
    for section in sections:
        for fitted in section.fittings:
            title = FITTINGS[fitted.kind].title if fitted.kind else "Fitting with a coefficient of its own"
            counts[(title, sizes[section.id])] += fitted.count
    for (title, size), count in sorted(counts.items()):
        yield KitItem(
            order,
            owner,
            code=f"{network} {size} {title}".strip(),
            tag=f"{name} {size} {title}",
            item=title,
            serves=name,
            duties=(Duty("Pieces", float(count), "count"),),
            size=size,
            count=count,
            state="counted",
        )
