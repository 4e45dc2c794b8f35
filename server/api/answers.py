"""Answers that several routes give."""

from typing import Any

import orjson
from django.http import HttpResponse

from calculations.service import loads_of, loads_since
from projects.document import Document
from projects.journal import next_steps


def steps(project_id: str) -> dict[str, str | None]:
    """What undo and redo would do, by label."""
    steps = next_steps(project_id)
    return {"undo": steps.undo.label if steps.undo else None, "redo": steps.redo.label if steps.redo else None}


def answer(data: Any, status: int = 200) -> HttpResponse:
    """Answer without validating again what the server itself made: large bodies stay fast."""
    return HttpResponse(
        orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY), content_type="application/json", status=status
    )


def applied(before: Document, after: Document, touched: list[tuple[str, str]], base_version: int) -> HttpResponse:
    """Rows and loads that an edit changed; what serves the rooms is asked for afterwards."""
    changed: dict[str, list[dict[str, Any]]] = {}
    gone: dict[str, list[str]] = {}
    for kind, identity in touched:
        row = after.of(kind).get(identity)
        if row is None:
            gone.setdefault(kind, []).append(identity)
        else:
            changed.setdefault(kind, []).append(row)
    loads_of(before)
    results = loads_since(after, base_version if base_version == before.version else -1)
    return answer(
        {
            "version": after.version,
            "objects": {"changed": changed, "gone": gone},
            "results": results,
            "steps": steps(after.project),
        }
    )
