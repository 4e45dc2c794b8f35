"""Answers that several routes give."""

import logging
import secrets
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from typing import Any

import orjson
from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.http import HttpRequest, HttpResponse

from calculations.service import loads_if_free
from projects.errors import Refused
from projects.journal import next_steps, touched_between
from projects.rows import Document

_log = logging.getLogger("pendrum.calculation")


def steps(project_id: str, user: AbstractBaseUser | AnonymousUser) -> dict[str, str | None]:
    """What undo and redo would do for somebody, by label."""
    found = next_steps(project_id, user)
    return {"undo": found.undo.label if found.undo else None, "redo": found.redo.label if found.redo else None}


@contextmanager
def missing(*asked: str) -> Iterator[None]:
    """Turn a look-up of what was asked for, which is not there, into a 404; any other error stays what it is.

    Raises:
        Refused: one of the names asked for is not there.
    """
    try:
        yield
    except KeyError as error:
        if error.args and error.args[0] in asked:
            raise Refused("not_found", f"There is no result for {error.args[0]}.") from error
        raise


def answer(data: Any, status: int = 200) -> HttpResponse:
    """Answer without validating again what the server itself made: large bodies stay fast."""
    return HttpResponse(
        orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY), content_type="application/json", status=status
    )


def applied(
    request: HttpRequest,
    after: Document,
    touched: Iterable[tuple[str, str]],
    base_version: int,
    results_version: int | None = None,
) -> HttpResponse:
    """All that changed since the version the caller knows, whoever changed it, with the loads; what serves the rooms is
    asked for afterwards.

    What was saved is told as saved, also where the calculation fails: then there are no results, and a fault's number. There
    are none either while others keep the calculation busy: they are asked for anew, from `results_version` on.
    """
    keys = dict.fromkeys(touched) | touched_between(after.project, base_version, after.version)
    changed: dict[str, list[dict[str, Any]]] = {}
    gone: dict[str, list[str]] = {}
    for kind, identity in keys:
        row = after.of(kind).get(identity)
        if row is None:
            gone.setdefault(kind, []).append(identity)
        else:
            changed.setdefault(kind, []).append(row)
    results, number = calculated(after, base_version if results_version is None else results_version)
    return answer(
        {
            "version": after.version,
            "objects": {"changed": changed, "gone": gone},
            "results": results,
            "calculation_fault": number,
            "steps": steps(after.project, request.user),
        }
    )


def calculated(document: Document, base_version: int) -> tuple[dict[str, Any] | None, str | None]:
    """Loads as they differ from a version; or none and, where it failed, the number under which the log tells why."""
    try:
        return loads_if_free(document, base_version), None
    except Exception as error:
        number = secrets.token_hex(4)
        _log.error("fault %s: version %s of project %s", number, document.version, document.project, exc_info=error)
        return None, number
