"""The same program on a PostgreSQL server, where one is installed: tables, a project, edits over each other, results."""

import os
import pwd
import shutil
import socket
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent.parent
PROGRAMS = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"))

# What the child process does on the other database: an edit, one that is behind, one sent twice, and the loads of both databases.
CHILD = """
from django.contrib.auth import get_user_model
from django.db import connection
from accounts.demo import demo_engineer
from calculations.service import results_of
from demo.tarnwick import load_tarnwick
from projects.changes import apply_changes
from projects.document import forget_all, load_document
from projects.errors import Refused
from projects.models import Project

assert connection.vendor == "postgresql", connection.vendor
user = demo_engineer()
project = load_tarnwick(user)
document = load_document(project)
room = next(iter(document.of("room")))
base = document.version

def height(value, version, key=None):
    change = {"op": "set", "kind": "room", "id": room, "fields": {"height_m": value}}
    return apply_changes(project.id, user, [change], "Height", version, key=key)[1].version

version = height(3.3, base, "once")
assert height(3.3, base, "once") == version
other = get_user_model().objects.create_user("Other", password="a long enough phrase 7")
try:
    apply_changes(project.id, other, [{"op": "set", "kind": "room", "id": room, "fields": {"height_m": 4.4}}], "Height", base)
except Refused as refused:
    assert refused.code == "conflict", refused.code
else:
    raise AssertionError("an edit on a field that moved on was taken")
forget_all()
after = load_document(Project.objects.get(pk=project.id))
assert (after.version, after.of("room")[room]["height_m"]) == (version, 3.3)
found = results_of(after).results
assert not found.failures, found.failures
print("sensible", round(found.groups["building"].cooling.sensible_w, 3))
"""


@unittest.skipUnless(PROGRAMS, "PostgreSQL is not installed")
class Postgres(unittest.TestCase):
    def setUp(self) -> None:
        try:
            import psycopg  # noqa: F401
        except ImportError:
            self.skipTest("psycopg is not installed")
        self.folder = Path(tempfile.mkdtemp(prefix="pendrum-postgres-"))
        self.addCleanup(shutil.rmtree, self.folder, ignore_errors=True)
        self.programs = PROGRAMS[-1].parent
        # It does not run as root.
        self.user = "postgres" if os.getuid() == 0 else pwd.getpwuid(os.getuid()).pw_name
        if os.getuid() == 0:
            shutil.chown(self.folder, self.user)
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.program("initdb", "-D", str(self.folder / "data"), "-A", "trust", "-U", "pendrum")
        options = f"-p {self.port} -k {self.folder} -c fsync=off"
        log = ("-l", str(self.folder / "log"))
        self.program("pg_ctl", "-D", str(self.folder / "data"), "-w", "-o", options, *log, "start")
        self.addCleanup(self.program, "pg_ctl", "-D", str(self.folder / "data"), "-m", "immediate", "stop")

    def program(self, name: str, *words: str) -> None:
        user = {"user": self.user} if os.getuid() == 0 else {}
        subprocess.run(
            [str(self.programs / name), *words],
            check=True,
            stdout=subprocess.DEVNULL,
            cwd=self.folder,
            timeout=60,
            **user,
        )  # type: ignore[call-overload]

    def manage(self, *words: str, **more: str) -> str:
        environment = os.environ | {
            "PENDRUM_VAR": str(self.folder / "var"),
            "PENDRUM_DATABASE": f"postgresql://pendrum@127.0.0.1:{self.port}/postgres",
        }
        told = subprocess.run(
            [sys.executable, str(ROOT / "server" / "manage.py"), *words],
            env=environment,
            capture_output=True,
            text=True,
            timeout=300,
        )
        self.assertEqual(told.returncode, 0, told.stderr[-3000:])
        return told.stdout

    def test_a_project_lives_on_it(self) -> None:
        (self.folder / "var").mkdir(exist_ok=True)
        self.manage("migrate", "-v0")
        told = self.manage("shell", "-v0", "-c", CHILD)
        self.assertIn("sensible", told)
        self.assertGreater(float(told.split("sensible")[1].split()[0]), 1000.0)
        # Every project of it is read, held against its kinds and calculated.
        self.assertIn("Tarnwick", self.manage("check_projects"))
