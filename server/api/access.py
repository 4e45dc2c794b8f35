"""Which project a request may see."""

from django.http import HttpRequest
from django.shortcuts import get_object_or_404

from projects.document import catch_up, load_document
from projects.models import Project
from projects.rows import Document


def project_of(request: HttpRequest, identity: str) -> Project:
    """The signed-in engineer's project, or option, which is one too; an option has caught up with its base. Anything else is not there."""
    project: Project = get_object_or_404(Project.objects.select_related("base"), pk=identity, owner=request.user)
    if project.base_id is not None:
        catch_up(project)
    return project


def document_of(request: HttpRequest, identity: str) -> Document:
    """Its document."""
    return load_document(project_of(request, identity))
