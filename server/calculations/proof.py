"""The proof book as records: the verification cases, run once on this installation."""

from functools import cache
from typing import Any

from pendrum_core.proof.book import proof


@cache
def proof_book() -> list[dict[str, Any]]:
    """Every entry with its difference and how much of its bound that takes up."""
    return [
        vars(entry)
        | {"difference": entry.difference, "share_of_bound": abs(entry.difference) / entry.within, "holds": entry.holds}
        for entry in proof()
    ]
