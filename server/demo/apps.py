"""Django app of the demo and its commands."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """Demo data, trial buildings, generated files."""

    name = "demo"
