"""manage.py check_projects [ID ...]: every project read, held against its kinds, and calculated."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from pydantic import ValidationError

from calculations import service
from projects import document as documents
from projects.document import load_document
from projects.kinds import KINDS
from projects.models import Project
from projects.rows import Document


def faults_of(document: Document) -> list[str]:
    """What in a document cannot be: rows that their kind refuses, and references to things that are not there."""
    found = []
    for name, kind in KINDS.items():
        for identity, row in document.of(name).items():
            fields = {column: row[column] for column in kind.columns}
            try:
                kind.schema.model_validate(fields)
            except ValidationError as error:
                first = error.errors(include_url=False)[0]
                found.append(f"{name} {identity}: {'/'.join(map(str, first['loc']))}: {first['msg']}")
            for column, target in kind.references.items():
                if row[column] is not None and document.row(target, row[column]) is None:
                    found.append(f"{name} {identity}: {kind.label(column)} names a {target} that is not there")
    return found


class Command(BaseCommand):
    """Read every project (or those named), hold its rows against their kinds, calculate it, and say what cannot be."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("ids", nargs="*")

    def handle(self, *args: Any, **options: Any) -> None:
        projects = Project.objects.order_by("created")
        if options["ids"]:
            projects = projects.filter(pk__in=options["ids"])
        bad = 0
        for project in projects:
            document = load_document(project)
            faults = faults_of(document)
            results = service.whole(document)["changed"]
            failed = [snag["sentence"] for snag in results["snag"].values() if snag["code"] == "not_calculated"]
            bad += len(faults)
            told = f"{len(results['room'])} rooms calculated" + (f", {len(failed)} parts not" if failed else "")
            self.stdout.write(f"{project.pk} {project.name}, version {document.version}: {told}")
            for line in [*faults, *failed]:
                self.stdout.write(f"  {line}")
            documents.forget_all()
            service.forget_all()
        if bad:
            raise CommandError(f"{bad} rows cannot be as they are.")
