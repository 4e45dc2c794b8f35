"""Errors in one place, as problem+json."""

from dataclasses import asdict
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from projects.errors import FieldFault, Refused

_STATUS = {"invalid": 422, "conflict": 409, "in_use": 409, "nothing": 409, "not_found": 404}


def problem(status: int, code: str, sentence: str, faults: list[FieldFault] | None = None) -> HttpResponse:
    """An RFC 9457 answer with a machine code and the faulty fields."""
    body: dict[str, Any] = {"type": "about:blank", "status": status, "code": code, "title": sentence}
    body["faults"] = [asdict(fault) for fault in faults or []]
    return JsonResponse(body, status=status, content_type="application/problem+json")


def install(api: NinjaAPI) -> None:
    """Register the handlers."""

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return problem(_STATUS[error.code], error.code, error.sentence, error.faults)

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

    @api.exception_handler(HttpError)
    def plain(request: HttpRequest, error: HttpError) -> HttpResponse:
        code = "malformed" if error.status_code == 400 else "refused"
        return problem(error.status_code, code, str(error))
