"""Routes of many years at once: ask for them, see how far they are, stop them."""

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from api.access import project_of
from api.answers import answer
from api.options import FieldIn
from api.schemas import Strict
from api.told.compare import YearsOut
from calculations.sweep import MOST
from projects.fields import Id
from tasks.batches import MOST_POINTS, Asked, ask_years, asked_years, stop_years
from tasks.progress import end_left_over

router = Router()


class YearsIn(Strict):
    """Options, the base by the project's own id, and weather against each other, and the values of a field where one is told."""

    options: Annotated[list[Id], Field(min_length=1, max_length=MOST_POINTS)]
    weathers: Annotated[
        list[Annotated[str, Field(max_length=40)]],
        Field(min_length=1, max_length=MOST_POINTS, description="Ids of weather files; an empty one for typical days"),
    ]
    field: FieldIn | None = None
    values: Annotated[list[Annotated[float, Field(allow_inf_nan=False)]], Field(max_length=MOST)] = []


@router.post("/projects/{project_id}/years", response={202: YearsOut}, operation_id="ask_years")
def post_years(request: HttpRequest, project_id: str, body: YearsIn) -> Any:
    """Calculate the year of every combination, each as a task; those asked for before go."""
    project = project_of(request, project_id)
    field = None if body.field is None else (body.field.kind, body.field.id, body.field.field)
    options, weathers = (list(dict.fromkeys(several)) for several in (body.options, body.weathers))
    ask_years(request.user, project, Asked(options, weathers, field, list(dict.fromkeys(body.values))))
    return 202, asked_years(project)


@router.get("/projects/{project_id}/years", response=YearsOut, operation_id="years")
def get_years(request: HttpRequest, project_id: str) -> Any:
    """The years asked for last, with how far they are and what they came to."""
    end_left_over()
    return answer(asked_years(project_of(request, project_id)))


@router.delete("/projects/{project_id}/years", response={204: None}, operation_id="stop_years")
def delete_years(request: HttpRequest, project_id: str) -> Any:
    """Stop those that are not done."""
    stop_years(project_of(request, project_id))
    return 204, None
