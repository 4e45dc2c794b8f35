"""The app of tasks."""

from django.apps import AppConfig


class TasksConfig(AppConfig):
    """Long work."""

    name = "tasks"
