"""manage.py backup FILE: a whole copy of the database while people work.

A copy of the main file alone lacks what stands in the write-ahead log; SQLite's own backup reads both, in one state.
"""

import sqlite3
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import connection


class Command(BaseCommand):
    """Copy the database to a file, whole and checked."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        path: Path = options["file"]
        if path.exists():
            raise CommandError(f"{path} is there already; a backup never writes over another one.")
        if connection.vendor != "sqlite":
            raise CommandError("This database has tools of its own for backups.")
        partial = path.with_name(path.name + ".part")
        connection.ensure_connection()
        with sqlite3.connect(partial) as copy:
            connection.connection.backup(copy, pages=2000)
            found = copy.execute("PRAGMA integrity_check").fetchone()[0]
            copy.execute("PRAGMA journal_mode=DELETE")
        copy.close()
        if found != "ok":
            partial.unlink()
            raise CommandError(f"The copy is not sound: {found}. Nothing was kept.")
        partial.replace(path)
        self.stdout.write(f"{path}: {path.stat().st_size / 1e6:.1f} MB, checked")
