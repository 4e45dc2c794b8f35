"""Routes of the catalogue: its rows out of and into a file. One by one they are edited as everything else is."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, UploadedFile

from api.access import document_of
from api.answers import applied
from api.schemas import AppliedOut
from exchange.catalogue import MOST_BYTES, catalogue_changes, catalogue_csv, made_up_products
from projects.changes import apply_changes
from projects.errors import Refused
from projects.rows import Document

router = Router()


@router.get("/projects/{project_id}/catalogue.csv", operation_id="catalogue_csv")
def catalogue(request: HttpRequest, project_id: str) -> HttpResponse:
    """The catalogue as CSV, in L/s, kPa and kW."""
    response = HttpResponse(catalogue_csv(document_of(request, project_id)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="catalogue.csv"'
    return response


@router.post("/projects/{project_id}/catalogue", response=AppliedOut, operation_id="read_catalogue")
def read(request: HttpRequest, project_id: str, file: File[UploadedFile], base_version: Form[int]) -> Any:
    """Put a file's rows in the place of what the catalogue has of the same items, as one step that can be undone."""
    document = document_of(request, project_id)
    if (file.size or 0) > MOST_BYTES:
        raise Refused("invalid", f"The file is too large; at most {MOST_BYTES / 1e6:.0f} MB are read.")
    try:
        text = file.read().decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise Refused("invalid", "The file is no text in UTF-8.") from error
    return _taken(request, project_id, document, text, (file.name or "file")[-80:], base_version)


@router.post("/projects/{project_id}/catalogue/made-up", response=AppliedOut, operation_id="take_made_up_products")
def take_made_up(request: HttpRequest, project_id: str, base_version: int) -> Any:
    """Put the made-up products that ship in the place of what the catalogue has of the same items."""
    return _taken(
        request, project_id, document_of(request, project_id), made_up_products(), "made-up products", base_version
    )


def _taken(request: HttpRequest, project_id: str, document: Document, text: str, name: str, base_version: int) -> Any:
    changes, rows = catalogue_changes(document, text)
    _, after, touched = apply_changes(project_id, request.user, changes, f"{rows} rows of {name}", base_version)
    return applied(request, after, touched, base_version)
