"""Kinds whose rows hang on each other: a row hangs on one of its own owner and network, and never on itself."""

from collections.abc import Iterable, Mapping

from projects.errors import FieldFault, Refused
from projects.kinds import KINDS, KindInfo
from projects.rows import Row


def refuse_broken_trees(rows: Mapping[str, Mapping[str, Row]], touched: Iterable[tuple[str, str]]) -> None:
    """Look at the rows that a change set touched, and at what hangs on them.

    Raises:
        Refused: a row hangs on one that is of another system or network, or after itself.
    """
    changed: dict[str, set[str]] = {}
    for name, identity in touched:
        if KINDS[name].about.rehang:
            changed.setdefault(name, set()).add(identity)
    for name, identities in changed.items():
        kind, table = KINDS[name], rows[name]
        parent = str(kind.about.rehang)
        for row in table.values():
            if row["id"] in identities or row[parent] in identities:
                _refuse_unlike(kind, table, row, parent)
        for identity in identities & table.keys():
            _refuse_circle(kind, table, identity, parent)


def _refuse_unlike(kind: KindInfo, table: Mapping[str, Row], row: Row, parent: str) -> None:
    above = table.get(row[parent]) if row[parent] is not None else None
    if above is None:
        return
    for field in (kind.about.owner, *kind.about.alike):
        if field and row[field] != above[field]:
            label = kind.label(field)
            fault = FieldFault(f"{kind.label(parent)}/{row['id']}", parent, row[parent], f"another {label}")
            raise Refused(
                "invalid",
                f"{row['name']} cannot come after {above['name']}: its {label.lower()} is another one.",
                [fault],
            )


def _refuse_circle(kind: KindInfo, table: Mapping[str, Row], identity: str, parent: str) -> None:
    seen, at = {identity}, table[identity][parent]
    while at is not None and at in table:
        if at in seen:
            name = table[identity]["name"]
            fault = FieldFault(f"{kind.label(parent)}/{identity}", parent, at, "after itself")
            raise Refused("invalid", f"{name} would come after itself.", [fault])
        seen.add(at)
        at = table[at][parent]
