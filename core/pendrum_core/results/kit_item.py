"""A line of the kit list, and what lines have in common."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from pendrum_core.model.catalogue import CatalogueRow, choose, rows_of
from pendrum_core.model.systems import Section
from pendrum_core.network.fittings import FITTINGS


@dataclass(frozen=True)
class KitItem:
    """One line of the kit list.

    Attributes:
        order: 0 air, 1 water, 2 emitters; lines are sorted by it and the tag.
        owner: id of the system, circuit or room it belongs to.
        tag, item, serves: what it is.
        duty, duty_quantity: main duty as an SI value with its quantity; a second one may follow.
        size: standard size chosen.
        power_w: electrical power; 0 where it has none.
        state: "sized", "pinned" or "counted".
    """

    order: int
    owner: str
    tag: str
    item: str
    serves: str
    duty: float
    duty_quantity: str
    second: float = 0.0
    second_quantity: str = ""
    size: str = ""
    power_w: float = 0.0
    state: str = "sized"


NONE_COVERS = "none of the catalogue covers it"


class Buying:
    """What lines are ordered as, where there is a catalogue of their item; each item's rows are put in order once."""

    def __init__(self, catalogue: Sequence[CatalogueRow]) -> None:
        self._rows = {item: rows_of(catalogue, item) for item in {row.item for row in catalogue}}

    def named(self, item: str, otherwise: str, **duty: float) -> str:
        """The smallest row that covers a duty."""
        if item not in self._rows:
            return otherwise
        row = choose(self._rows[item], **duty)
        return row.name if row is not None else NONE_COVERS


def motor(motor_w: float | None) -> str:
    """A standard motor as a size."""
    return f"motor {motor_w / 1000:g} kW" if motor_w else "above the standard motors"


def fitting_lines(
    order: int, owner: str, name: str, sections: Iterable[Section], sizes: Mapping[str, str]
) -> Iterator[KitItem]:
    """Fittings of a tree that are entered by kind, counted by kind and size."""
    counts: dict[tuple[str, str], int] = defaultdict(int)
    for section in sections:
        for fitted in section.fittings:
            title = FITTINGS[fitted.kind].title if fitted.kind else "Fitting with a coefficient of its own"
            counts[(title, sizes[section.id])] += fitted.count
    for (title, size), count in sorted(counts.items()):
        yield KitItem(
            order,
            owner,
            tag=f"{name} {size} {title}",
            item=title,
            serves=name,
            duty=float(count),
            duty_quantity="count",
            size=size,
            state="counted",
        )
