"""manage.py load_demo"""

from typing import Any

from django.core.management.base import BaseCommand

from accounts.demo import demo_engineer
from demo.tarnwick import NAME, load_tarnwick
from demo.weather import load_weather
from projects.models import Project


class Command(BaseCommand):
    """Load the Tarnwick Craft Hall with its made-up year of weather for the demo engineer, once."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        owner = demo_engineer()
        if Project.objects.filter(owner=owner, name=NAME).exists():
            self.stdout.write(f"{NAME} is there already.")
            return
        load_weather(load_tarnwick(owner))
        self.stdout.write(f"{NAME} loaded.")
