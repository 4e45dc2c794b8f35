"""Core results as plain records for the browser, keyed so that only what changed need be sent."""

from collections.abc import Mapping
from typing import Any

Record = dict[str, Any]
Payload = dict[str, dict[str, Record]]


def difference(before: Payload, after: Payload) -> Mapping[str, Any]:
    """Records that are new or different, and the ids of those that are gone."""
    changed: Payload = {}
    gone: dict[str, list[str]] = {}
    for kind, records in after.items():
        old = before.get(kind, {})
        fresh = {i: r for i, r in records.items() if old.get(i) is not r and old.get(i) != r}
        if fresh:
            changed[kind] = fresh
        lost = [identity for identity in old if identity not in records]
        if lost:
            gone[kind] = lost
    return {"changed": changed, "gone": gone}
