"""manage.py load_trial 500"""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from accounts.demo import demo_engineer
from demo.trial import load_trial


class Command(BaseCommand):
    """Make a trial building of N rooms for the demo engineer."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("rooms", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        project = load_trial(demo_engineer(), options["rooms"])
        self.stdout.write(f"{project.name} loaded as {project.id}.")
