"""What the parts of a report are made of, and how they name things."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from exchange.report.sheet import Column
from projects.rows import Document, Row

MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec", "Dew day")


_STEP_MIN = 10


@dataclass(frozen=True)
class Source:
    """What parts are made of.

    Attributes:
        records: everything worked out, as sent to the browser; `categories` names the parts of loads.
        year: the summary of a kept year, and `bills` of it; None where there is none.
        changes: what differs from the issue before; None for a first one.
        head: number, date, author, purpose, remarks of the issue; `revisions` those before it.
        option: name of the option that is reported; `options` base and options side by side, with their years.
    """

    document: Document
    records: Mapping[str, Any]
    categories: Sequence[str]
    year: Mapping[str, Any] | None = None
    bills: Sequence[Mapping[str, Any]] = ()
    changes: Mapping[str, Any] | None = None
    head: Mapping[str, str] | None = None
    revisions: Sequence[Mapping[str, str]] = ()
    option: str = ""
    options: Mapping[str, Any] | None = None

    def of(self, kind: str) -> Mapping[str, Any]:
        """Records of a kind by id."""
        found: Mapping[str, Any] = self.records.get(kind, {})
        return found

    def name(self, kind: str, identity: str | None) -> str:
        """What people call a thing."""
        row = self.document.row(kind, identity)
        return name_of(row) if row else ""

    def rooms(self) -> list[Row]:
        """Rooms by number."""
        return sorted(self.document.of("room").values(), key=lambda row: row["number"])


def airflow(title: str) -> Column:
    """A column of airflows."""
    return Column(title, "airflow")


def money(title: str) -> Column:
    """A column of money."""
    return Column(title, "money")


def name_of(row: Row) -> str:
    """Number and name."""
    return " ".join(str(row[field]) for field in ("number", "name") if row.get(field))


def when(peak: Mapping[str, Any] | None) -> str:
    """Month and time of a peak."""
    if not peak or peak["sensible_w"] <= 0:
        return ""
    minutes = peak["step"] * _STEP_MIN
    return f"{MONTHS[peak['month'] - 1]} {minutes // 60:02d}:{minutes % 60:02d}"
