"""Errors in one place, as problem+json."""

import json
import logging
import secrets
from dataclasses import asdict
from typing import Any

import orjson
from django.core.exceptions import BadRequest, ObjectDoesNotExist, RequestDataTooBig, SuspiciousOperation
from django.db import DatabaseError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, RawPostDataException
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from projects.errors import FieldFault, Refused
from projects.models import Project

_STATUS = {
    "invalid": 422,
    "conflict": 409,
    "in_use": 409,
    "nothing": 409,
    "not_found": 404,
    "busy": 503,
    "forbidden": 403,
    "sign_in": 401,
    "too_often": 429,
}
_log = logging.getLogger("pendrum.requests")
BUSY_S = 2  # after which a request that met a busy database may be tried again


def problem(
    status: int,
    code: str,
    sentence: str,
    faults: list[FieldFault] | None = None,
    rows: dict[str, list[dict[str, Any]]] | None = None,
) -> HttpResponse:
    """An RFC 9457 answer with a machine code, the faulty fields, and the rows in question as they are now."""
    body: dict[str, Any] = {"type": "about:blank", "status": status, "code": code, "title": sentence}
    body |= {"faults": [asdict(fault) for fault in faults or []], "rows": rows or {}}
    # orjson writes what is no number as null, and refuses halves of characters, which a file may hold.
    try:
        content = orjson.dumps(body, default=str, option=orjson.OPT_NON_STR_KEYS)
    except (TypeError, ValueError):
        content = json.dumps(body, default=str).encode()
    return HttpResponse(content, status=status, content_type="application/problem+json")


def fault(request: HttpRequest, error: Exception) -> HttpResponse:
    """What nobody foresaw: logged with its trace under a number that the answer carries."""
    number = secrets.token_hex(4)
    _log.error("fault %s: %s %s", number, request.method, request.path, exc_info=error)
    sentence = f"A fault of the program, number {number}. What was saved before is safe; load the page again to see how things stand."
    return problem(500, "fault", sentence)


def database_problem(request: HttpRequest, error: DatabaseError) -> HttpResponse:
    """A database that is busy or full; anything else of it is a fault. Its own words are for the log alone."""
    text = str(error).casefold()
    if isinstance(error, OperationalError) and ("locked" in text or "busy" in text):
        answer = problem(503, "busy", "Others are saving just now; nothing was changed. Try again in a moment.")
        answer.headers["Retry-After"] = str(BUSY_S)
        return answer
    if "disk is full" in text or "disk i/o" in text or "readonly" in text or "unable to open" in text:
        number = secrets.token_hex(4)
        _log.error("fault %s: the database cannot be written", number, exc_info=error)
        sentence = (
            "The server cannot write: its disk is full or not writable. Nothing was changed and nothing is lost; it works "
            f"again as soon as there is room (number {number} in its log)."
        )
        return problem(507, "no_room", sentence)
    return fault(request, error)


def install(api: NinjaAPI) -> None:
    """Register the handlers."""

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        answer = problem(_STATUS[error.code], error.code, error.sentence, error.faults, error.rows)
        if error.code == "busy":
            answer.headers["Retry-After"] = str(BUSY_S)
        return answer

    @api.exception_handler(ValidationError)
    def malformed(request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = []
        for item in error.errors:
            place = [str(part) for part in item["loc"]]
            faults.append(FieldFault("/".join(place), place[-1], None, item["msg"]))
        first = faults[0]
        return problem(422, "malformed", f"{first.field}: {first.message}.", faults)

    @api.exception_handler(AuthenticationError)
    def unknown(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "sign_in", "Sign in first.")

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "not_found", "There is no such thing here.")

    @api.exception_handler(Project.DoesNotExist)
    def deleted(request: HttpRequest, error: ObjectDoesNotExist) -> HttpResponse:
        # A request's own project is looked up as it begins; it can only have gone since.
        return problem(404, "not_found", "This project was deleted meanwhile.")

    @api.exception_handler(HttpError)
    def plain(request: HttpRequest, error: HttpError) -> HttpResponse:
        code = "malformed" if error.status_code == 400 else "refused"
        return problem(error.status_code, code, str(error))

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        return problem(413, "malformed", "The request is larger than this server takes.")

    @api.exception_handler(RawPostDataException)
    def form(request: HttpRequest, error: RawPostDataException) -> HttpResponse:
        return problem(400, "malformed", "JSON is needed here, not a form.")

    @api.exception_handler(SuspiciousOperation)
    @api.exception_handler(BadRequest)
    def suspicious(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(400, "malformed", "The request is not one that a browser makes.")

    @api.exception_handler(DatabaseError)
    def database(request: HttpRequest, error: DatabaseError) -> HttpResponse:
        return database_problem(request, error)

    @api.exception_handler(Exception)
    def unforeseen(request: HttpRequest, error: Exception) -> HttpResponse:
        return fault(request, error)


def nowhere(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """An address of the API that is none."""
    return problem(404, "not_found", "There is no such address here.")


def outside(request: HttpRequest, *args: Any) -> HttpResponse:
    """A fault outside the API's own routes; Django has logged it."""
    return problem(500, "fault", "A fault of the program; it is in the server's log.")


def refused_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """A request that Django refuses before any route sees it."""
    return problem(400, "malformed", "The request is not one that a browser makes.")
