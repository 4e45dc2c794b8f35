"""manage.py restore FILE: a backup in place of the database, which is kept beside it.

The server must not run meanwhile: whoever holds the old file open would go on writing into it.
"""

import sqlite3
import time
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

_NEEDED = {"projects_project", "projects_journalentry", "django_migrations"}


class Command(BaseCommand):
    """Check a backup, put it in the database's place, and bring its tables up to this version."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        path: Path = options["file"]
        if connection.vendor != "sqlite":
            raise CommandError("This database has tools of its own for backups.")
        if not path.exists():
            raise CommandError(f"{path} is not there.")
        try:
            with sqlite3.connect(f"file:{path}?mode=ro", uri=True) as copy:
                sound = copy.execute("PRAGMA integrity_check").fetchone()[0]
                tables = {row[0] for row in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            copy.close()
        except sqlite3.DatabaseError as error:
            raise CommandError(f"{path} is no database: {error}.") from error
        if sound != "ok" or not tables >= _NEEDED:
            raise CommandError(f"{path} is no sound backup of projects.")
        place = Path(settings.DATABASES["default"]["NAME"])
        connection.close()
        kept = place.with_name(f"{place.name}.before-{time.strftime('%Y%m%d-%H%M%S')}")
        for end in ("", "-wal", "-shm"):  # the log belongs to the old file
            old = place.with_name(place.name + end)
            if old.exists():
                old.rename(kept.with_name(kept.name + end))
        place.write_bytes(path.read_bytes())
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{path} is the database now; the one before is {kept.name}. Run check_projects.")
