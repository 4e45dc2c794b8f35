"""manage.py write_generated [--check]"""

import json
from argparse import ArgumentParser
from dataclasses import asdict
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from api.openapi import openapi
from calculations.units import unit_table
from pendrum_core.network.fittings import FITTINGS
from projects.kinds import KINDS
from projects.kinds.declare import Fact
from projects.whole import file_schema


def _told(fact: Fact) -> dict[str, Any]:
    """A declared field for the browser; what says nothing is left out."""
    says = fact.says
    told = {
        "label": says.label, "short": says.short, "type": fact.type, "quantity": says.quantity, "low": says.low, "high": says.high,
        "words": None if says.words is None else {str(value): word for value, word in says.words.items()}, "numeric": isinstance(next(iter(says.words or ()), ""), int), "to": says.to, "help": says.help,
        "sheet": says.sheet, "nullable": fact.nullable, "default": fact.default, "owner": fact.owner,
    }  # fmt: skip
    says_nothing = {"default": ""} if fact.default == "" else {}
    return {
        key: value for key, value in told.items() if value is not None and value is not False and value not in ("", [])
    } | says_nothing


def generated() -> dict[Path, str]:
    """Generated files and what they should hold."""
    units = {name: asdict(quantity) for name, quantity in unit_table().items()}
    fields = {name: {column: _told(fact) for column, fact in kind.facts.items()} for name, kind in KINDS.items()}
    fittings = {
        key: {"title": f.title, "of": f.of, "coefficient": f.coefficient, "multiple": f.multiple, "source": f.source}
        for key, f in FITTINGS.items()
    }
    document = settings.ROOT / "web" / "src" / "document"
    return {
        settings.ROOT / "server" / "openapi.json": json.dumps(openapi(), indent=1, default=str) + "\n",
        settings.ROOT / "web" / "src" / "units" / "registry.json": json.dumps(units, indent=1, ensure_ascii=False)
        + "\n",
        document / "fields.json": json.dumps(fields, indent=1, ensure_ascii=False) + "\n",
        document / "fittings.json": json.dumps(fittings, indent=1, ensure_ascii=False) + "\n",
        settings.ROOT / "docs" / "project.schema.json": json.dumps(file_schema(), indent=1) + "\n",
    }


class Command(BaseCommand):
    """Write the OpenAPI file, the browser's tables of units, fields and fittings, and the schema of project files, or check that they are fresh."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        for path, text in generated().items():
            if options["check"]:
                if not path.exists() or path.read_text() != text:
                    raise CommandError(f"{path.name} is stale: run make generated")
            else:
                path.parent.mkdir(parents=True, exist_ok=True)
                path.write_text(text)
                self.stdout.write(f"wrote {path.relative_to(settings.ROOT)}")
