"""Django app of the document."""

from django.apps import AppConfig


class ProjectsConfig(AppConfig):
    """The document and its journal."""

    name = "projects"
