"""One line of the proof book."""

from dataclasses import dataclass

from pendrum_core.working.node import figure


@dataclass(frozen=True)
class Entry:
    """A figure that is known from elsewhere, and the program's own.

    Attributes:
        chapter: what it belongs to.
        name: which figure.
        expected, found: SI.
        quantity: key of the unit registry.
        within: largest difference that counts as the same, SI.
        source: where the expected figure comes from.
    """

    chapter: str
    name: str
    expected: float
    found: float
    quantity: str
    within: float
    source: str

    @property
    def difference(self) -> float:
        """Found less expected."""
        return self.found - self.expected

    @property
    def holds(self) -> bool:
        """Whether the difference is within its bounds; what is no number never is."""
        return abs(self.difference) <= self.within

    def __str__(self) -> str:
        mark = "holds" if self.holds else "FAILS"
        expected, found = (figure(value, self.quantity) for value in (self.expected, self.found))
        return f"{mark}  {self.name}: expected {expected}, found {found}, difference {self.difference:.2g}"
