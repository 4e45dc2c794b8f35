"""Which project a request may see, and what it may do there: denied by default."""

from django.db.models import Q, QuerySet
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from accounts.rights import role_in
from projects.document import catch_up, load_document
from projects.errors import Refused
from projects.models import Project
from projects.rows import Document

_READING = ("GET", "HEAD")


def project_of(request: HttpRequest, identity: str, reading: bool = False) -> Project:
    """A project or option that the signed-in person may see, and work in where the request is more than reading; an option has caught up
    with its base. `reading` says of a request that is sent as a change that it changes nothing.

    Raises:
        Http404: it is not there, or nothing to this person: both look alike.
        Refused: this person may read only.
    """
    project: Project = get_object_or_404(Project.objects.select_related("base"), pk=identity)
    role = role_in(project, request.user)
    if role is None:
        raise Http404
    if role == "reader" and not reading and request.method not in _READING:
        raise Refused(
            "forbidden",
            f"You may read {project.home.name} but not change it; its owner, {project.home.owner}, can give you more.",
        )
    if project.base_id is not None:
        catch_up(project)
    return project


def owned(request: HttpRequest, identity: str) -> Project:
    """A project or option whose base belongs to the signed-in person.

    Raises:
        Http404: it is not there, or nothing to this person.
        Refused: somebody else owns it.
    """
    project = project_of(request, identity, reading=True)
    if role_in(project, request.user) != "owner":
        raise Refused("forbidden", f"This is for the owner of {project.home.name}, {project.home.owner}.")
    return project


def document_of(request: HttpRequest, identity: str, reading: bool = False) -> Document:
    """The document of such a project."""
    return load_document(project_of(request, identity, reading))


def projects_of(request: HttpRequest) -> "QuerySet[Project]":
    """Every project that is something to the signed-in person, the first made first."""
    mine = Q(owner=request.user) | Q(members__user=request.user)
    return Project.objects.filter(mine, base=None).distinct().order_by("created")
