"""The API's routes: parse, permission, action, return."""

from typing import Annotated, Any

import orjson
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Form, NinjaAPI, Query, UploadedFile
from ninja.openapi.docs import Swagger
from ninja.renderers import BaseRenderer
from ninja.security import SessionAuth

from accounts.rights import role_in
from api import catalogue, drawings, history, issues, options, people, rooms, tasks, tokens, year, years
from api import projects as whole_projects
from api.access import document_of, project_of, projects_of
from api.answers import answer, applied, missing, steps
from api.bodies import Bodies
from api.problems import install
from api.schemas import (
    AppliedOut,
    ChangeSetIn,
    DocumentOut,
    JoinIn,
    PreviewOut,
    ResultsOut,
    RouteIn,
    SessionOut,
    SplitIn,
    TextIn,
    WeatherChoice,
)
from api.tasks import TaskOut
from api.tokens import ByToken
from api.told.days import AirDay, DayOut, HourOut, PlaceDay, PlantDay, ShadingDay
from api.told.things import PricesOut, ProofEntry, ReadSchedule, ShelfOut, WorkingOut
from api.told.year import NoWeather, WeatherFileOut, WeatherLook, WeatherYearOut
from calculations.days import day_courses, plant_day, rooms_at, system_day
from calculations.explanations import working
from calculations.kit import kit_rows
from calculations.place import place_day, shaded_day
from calculations.plan import join_rooms, split_room, with_plan
from calculations.preview import compared
from calculations.prices import priced
from calculations.proof import proof_book
from calculations.routes import proposed_sections
from calculations.schedule_files import pattern_csv, read_values, year_csv
from calculations.service import loads_of, plant_since, records_of, results_of, whole
from calculations.weather import LARGEST_BYTES, choices, first_look, text_of, weather_of
from calculations.weather_files import choose_weather, forget_weather, weather_files
from exchange.kit import kit_csv
from exchange.kit_book import kit_xlsx
from exchange.report.issue import MEDIA, XLSX
from projects.changes import apply_changes
from projects.document import load_document
from projects.errors import Refused
from projects.fields import Id
from projects.journal import step
from projects.models import WeatherMapping
from projects.plan import plan_changes
from projects.rows import Document
from projects.shared_walls import with_other_sides
from shelf.materials import materials
from shelf.schedules import schedules
from shelf.uses import uses
from tasks.asking import ask


class Fast(BaseRenderer):
    """orjson, with numpy numbers."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        return orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY)


api = NinjaAPI(
    title="Pendrum",
    version="1",
    auth=[ByToken(), SessionAuth(csrf=True)],
    renderer=Fast(),
    parser=Bodies(),
    docs=Swagger(settings={"persistAuthorization": False}),
    docs_url="/docs",
    openapi_url="/openapi.json",
)
install(api)
api.add_router("", catalogue.router)
api.add_router("", drawings.router)
api.add_router("", history.router)
api.add_router("", tokens.router)
api.add_router("", issues.router)
api.add_router("", options.router)
api.add_router("", people.router)
api.add_router("", rooms.router)
api.add_router("", tasks.router)
api.add_router("", year.router)
api.add_router("", years.router)
api.add_router("", whole_projects.router)


def _file(content: str | bytes, name: str, media: str = "text/csv; charset=utf-8") -> HttpResponse:
    response = HttpResponse(content, content_type=media)
    response.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    return response


def _text(file: UploadedFile) -> str:
    if (file.size or 0) > LARGEST_BYTES:
        raise Refused("invalid", f"The file is too large; at most {LARGEST_BYTES / 1e6:.0f} MB are read.")
    return text_of(file.read())


def _json_object(text: str) -> dict[str, Any]:
    try:
        found = orjson.loads(text)
    except orjson.JSONDecodeError:
        found = None
    if not isinstance(found, dict):
        raise Refused("invalid", "The mapping is not an object.")
    return found


@api.get("/session", response=SessionOut, operation_id="session")
def session(request: HttpRequest) -> Any:
    """Who is signed in, and the open projects that belong to them."""
    projects = [
        {"id": p.id, "name": p.name, "version": p.version, "role": role_in(p, request.user)}
        for p in projects_of(request).filter(state="open")
    ]
    return {"user": request.user.get_username(), "staff": request.user.is_staff, "projects": projects}


@api.get("/projects/{project_id}/document", response=DocumentOut, operation_id="document")
def document(request: HttpRequest, project_id: str) -> Any:
    """Everything the engineer entered."""
    found = document_of(request, project_id)
    objects = {kind: list(rows.values()) for kind, rows in found.rows.items()}
    return answer({"version": found.version, "objects": objects, "steps": steps(project_id, request.user)})


@api.post("/projects/{project_id}/changes", response=AppliedOut, operation_id="apply_changes")
def changes(request: HttpRequest, project_id: str, body: ChangeSetIn) -> Any:
    """Apply a change set: all of it or nothing. Surfaces of rooms on the plan follow their outlines, and a wall between
    two rooms is edited on both of its sides."""
    found = document_of(request, project_id)
    plain = with_other_sides(found, with_plan(found, [change.model_dump() for change in body.changes]))
    _, after, touched = apply_changes(project_id, request.user, plain, body.label, body.base_version, key=body.key)
    return applied(request, after, touched, body.base_version, body.results_version)


@api.get("/projects/{project_id}/since", response=AppliedOut, operation_id="changes_since")
def since(
    request: HttpRequest, project_id: str, version: Annotated[int, Query(ge=0)], results_version: int | None = None
) -> Any:
    """Everything that changed since a version, whoever changed it; cheap to ask while nothing did.

    `results_version` is that of the results which the caller has.
    """
    project = project_of(request, project_id)
    if version >= project.version and results_version in (None, project.version):
        nothing = {"version": project.version, "objects": {"changed": {}, "gone": {}}, "results": None}
        return answer(nothing | {"calculation_fault": None, "steps": steps(project_id, request.user)})
    return applied(request, load_document(project), (), version, results_version)


@api.post("/projects/{project_id}/plan/split", response=AppliedOut, operation_id="split_room")
def split(request: HttpRequest, project_id: str, body: SplitIn) -> Any:
    """Cut a room on the plan in two along a line."""
    changes = split_room(document_of(request, project_id), body.room, body.start, body.end)
    _, after, touched = apply_changes(project_id, request.user, changes, "Room split", body.base_version)
    return applied(request, after, touched, body.base_version)


@api.post("/projects/{project_id}/plan/join", response=AppliedOut, operation_id="join_rooms")
def join(request: HttpRequest, project_id: str, body: JoinIn) -> Any:
    """Make rooms on the plan that touch one."""
    changes = join_rooms(document_of(request, project_id), body.rooms)
    _, after, touched = apply_changes(project_id, request.user, changes, "Rooms joined", body.base_version)
    return applied(request, after, touched, body.base_version)


@api.post("/projects/{project_id}/plan/route", response=AppliedOut, operation_id="propose_route")
def route(request: HttpRequest, project_id: str, body: RouteIn) -> Any:
    """Lay the ducts of an air system, or the pipes of a circuit, anew along the plan; one step that can be undone."""
    document = document_of(request, project_id)
    changes = proposed_sections(
        document, body.kind, body.owner, body.start_room, body.rooms, body.coils, network=body.network
    )
    _, after, touched = apply_changes(project_id, request.user, changes, "Route from the plan", body.base_version)
    return applied(request, after, touched, body.base_version)


@api.post("/projects/{project_id}/undo", response=AppliedOut, operation_id="undo")
def undo(request: HttpRequest, project_id: str, base_version: int, key: Id | None = None) -> Any:
    """Take one's last edit back; with a `key` once, however often it is sent."""
    project_of(request, project_id)
    _, after, touched, _ = step(project_id, request.user, "undo", key)
    return applied(request, after, touched, base_version)


@api.post("/projects/{project_id}/redo", response=AppliedOut, operation_id="redo")
def redo(request: HttpRequest, project_id: str, base_version: int, key: Id | None = None) -> Any:
    """Repeat the edit that was taken back; with a `key` once, however often it is sent."""
    project_of(request, project_id)
    _, after, touched, _ = step(project_id, request.user, "redo", key)
    return applied(request, after, touched, base_version)


@api.get("/projects/{project_id}/results", response=ResultsOut, operation_id="results")
def results(request: HttpRequest, project_id: str) -> Any:
    """All results of the present version."""
    return answer(whole(document_of(request, project_id)))


@api.get("/projects/{project_id}/results/plant", response=ResultsOut, operation_id="plant")
def plant(request: HttpRequest, project_id: str, base_version: int) -> Any:
    """What serves the rooms in the present version, as far as it differs from `base_version`; snags and the kit list."""
    return answer(plant_since(document_of(request, project_id), base_version))


@api.get("/projects/{project_id}/day", response=DayOut, operation_id="day")
def day(request: HttpRequest, project_id: str, kind: str, subject: str, month: int) -> Any:
    """Courses of a room or group over a summer day."""
    with missing(subject, f"month {month}"):
        return answer(day_courses(loads_of(document_of(request, project_id)).results, kind, subject, month))


@api.get("/projects/{project_id}/hour", response=HourOut, operation_id="hour")
def hour(request: HttpRequest, project_id: str, month: int, step: int) -> Any:
    """Load and air temperature of every room at a step of a design day."""
    with missing(f"month {month}, step {step}"):
        return answer(rooms_at(loads_of(document_of(request, project_id)).results, month, step))


@api.get("/projects/{project_id}/air/{system}", response=AirDay, operation_id="air_day")
def air(request: HttpRequest, project_id: str, system: str, month: int) -> Any:
    """States along an air path over a summer day."""
    with missing(system, f"month {month}"):
        return answer(system_day(results_of(document_of(request, project_id)).results, system, month))


@api.get("/projects/{project_id}/plant/{circuit}", response=PlantDay, operation_id="plant_day")
def plant_units(request: HttpRequest, project_id: str, circuit: str, month: int) -> Any:
    """What the units of a circuit give over a summer day, or over the winter day for month 0."""
    with missing(circuit, f"month {month}"):
        return answer(plant_day(results_of(document_of(request, project_id)).results, circuit, month))


@api.get("/projects/{project_id}/place", response=PlaceDay, operation_id="place_day")
def place(
    request: HttpRequest, project_id: str, month: int, tilt: float = 90.0, azimuth: float = 180.0, eye: float = 0.0
) -> Any:
    """Temperature, humidity and sun of a design day, and what one surface gets of it."""
    return answer(place_day(document_of(request, project_id), month, tilt, azimuth, eye))


@api.get("/projects/{project_id}/shading/{shading}", response=ShadingDay, operation_id="shading_day")
def shaded(
    request: HttpRequest, project_id: str, shading: str, month: int, width: float, height: float, azimuth: float
) -> Any:
    """Sunlit part of an opening behind a shading over a design day."""
    return answer(shaded_day(document_of(request, project_id), shading, month, width, height, azimuth))


@api.get("/shelf", response=ShelfOut, operation_id="shelf")
def shelf(request: HttpRequest) -> Any:
    """Ordinary materials, schedules and uses to take from."""
    return answer({"materials": materials(), "schedules": schedules(), "uses": uses()})


@api.post("/projects/{project_id}/preview", response=PreviewOut, operation_id="preview")
def preview(request: HttpRequest, project_id: str, body: ChangeSetIn) -> Any:
    """What a change set would do to the building's peaks; nothing is kept."""
    before = document_of(request, project_id, reading=True)
    changes = with_other_sides(before, [change.model_dump() for change in body.changes])
    rows, _, touched = plan_changes(before, changes)
    return answer(compared(before, Document(project_id, -1, rows, before.base), len(touched)))


@api.post("/projects/{project_id}/schedules/read", response=ReadSchedule, operation_id="read_schedule")
def read_schedule(request: HttpRequest, project_id: str, body: TextIn) -> Any:
    """Fields of a schedule from a row or column of numbers."""
    return answer(read_values(body.text, document_of(request, project_id, reading=True)))


@api.get("/projects/{project_id}/schedules/{schedule}/year.csv", operation_id="schedule_csv")
def schedule_csv(request: HttpRequest, project_id: str, schedule: str) -> HttpResponse:
    """A schedule's year, one line an hour."""
    name, text = year_csv(document_of(request, project_id), schedule)
    return _file(text, f"{name}.csv")


@api.get("/projects/{project_id}/schedules/{schedule}/{pattern}.csv", operation_id="pattern_csv")
def day_csv(request: HttpRequest, project_id: str, schedule: str, pattern: str, values: int = 24) -> HttpResponse:
    """A day pattern in 24, 48, 96 or 1440 equal steps."""
    name, text = pattern_csv(document_of(request, project_id), schedule, pattern, values)
    return _file(text, f"{name}.csv")


@api.post("/projects/{project_id}/weather/look", response=WeatherLook, operation_id="look_at_weather")
def look_at_weather(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> Any:
    """First lines of a weather file, and a guess at its layout."""
    project_of(request, project_id)
    remembered = list(WeatherMapping.objects.filter(owner=request.user).order_by("name").values("name", "mapping"))
    return answer(first_look(_text(file)) | choices() | {"remembered": remembered})


@api.post("/projects/{project_id}/weather", response={202: TaskOut}, operation_id="import_weather")
def put_weather(
    request: HttpRequest, project_id: str, file: File[UploadedFile], mapping: Form[str] = "", remember: Form[str] = ""
) -> Any:
    """Import a year of hours: TMY3 without a mapping, anything else by one. A task: all of it or nothing."""
    project = project_of(request, project_id)
    name = (file.name or "weather")[-120:]
    if (file.size or 0) > LARGEST_BYTES:
        raise Refused("invalid", f"The file is too large; at most {LARGEST_BYTES / 1e6:.0f} MB are read.")
    inputs = {"name": name, "mapping": _json_object(mapping) if mapping else None, "remember": remember.strip()[:120]}
    return 202, ask(request.user, project, "weather", f"Weather of {name}", inputs, file.read())


@api.get("/projects/{project_id}/weather", response=WeatherYearOut | NoWeather, operation_id="weather")
def weather(request: HttpRequest, project_id: str, percent: float = 0.4) -> Any:
    """The imported year: plots and derived design conditions; empty where there is none."""
    return answer(weather_of(project_of(request, project_id), percent) or {})


@api.get("/projects/{project_id}/weather/files", response=list[WeatherFileOut], operation_id="weather_files")
def list_weather(request: HttpRequest, project_id: str) -> Any:
    """The imported years that the project keeps, its own first, then those of an option's base."""
    project = project_of(request, project_id)
    return [
        {"id": f.pk, "name": f.name, "year": f.about["year"], "chosen": f.chosen, "own": f.project_id == project.pk}
        for f in weather_files(project)
    ]


@api.put("/projects/{project_id}/weather/chosen", response={204: None}, operation_id="choose_weather")
def put_chosen_weather(request: HttpRequest, project_id: str, body: WeatherChoice) -> Any:
    """Go by one of the project's own files from now on, or by none of them."""
    choose_weather(project_of(request, project_id), body.file)
    return 204, None


@api.delete("/projects/{project_id}/weather/files/{file}", response={204: None}, operation_id="drop_weather")
def drop_weather(request: HttpRequest, project_id: str, file: str) -> Any:
    """Remove an imported year."""
    forget_weather(project_of(request, project_id), file)
    return 204, None


@api.get("/projects/{project_id}/working", response=WorkingOut, operation_id="working")
def explained(request: HttpRequest, project_id: str, quantity: str, subject: str) -> Any:
    """How a figure came about."""
    found = document_of(request, project_id)
    with missing(quantity, subject):
        return answer(working(results_of(found).results, found, quantity, subject))


@api.get("/proof", response=list[ProofEntry], operation_id="proof")
def proved(request: HttpRequest) -> Any:
    """The proof book: figures known from elsewhere, and those of this installation."""
    return answer(proof_book())


@api.get("/projects/{project_id}/kit.csv", operation_id="kit_csv")
def kit(request: HttpRequest, project_id: str, system: str = "SI") -> HttpResponse:
    """The kit list as CSV, in "SI" or "IP"."""
    found = document_of(request, project_id)
    text = kit_csv(kit_rows(found, records_of(found).get("kit", {}), _units_of(system)))
    return _file(text, "kit.csv")


@api.get("/projects/{project_id}/kit.xlsx", operation_id="kit_xlsx")
def kit_workbook(request: HttpRequest, project_id: str, system: str = "SI") -> HttpResponse:
    """The kit list as a workbook, in "SI" or "IP"."""
    found = document_of(request, project_id)
    book = kit_xlsx(kit_rows(found, records_of(found).get("kit", {}), _units_of(system)))
    return _file(book, "kit.xlsx", MEDIA[XLSX])


def _units_of(system: str) -> str:
    if system not in ("SI", "IP"):
        raise Refused("invalid", f"system {system!r} is neither SI nor IP.")
    return system


@api.get("/projects/{project_id}/prices", response=PricesOut, operation_id="prices")
def prices(request: HttpRequest, project_id: str) -> Any:
    """The kit list by item and size, with what it costs by the project's prices."""
    found = document_of(request, project_id)
    return answer(priced(found, records_of(found).get("kit", {})))
