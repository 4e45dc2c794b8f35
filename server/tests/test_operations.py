"""An office's server: health, and a backup under load that is restored, checked and calculated."""

import os
import pickle
import subprocess
import sys
import tempfile
from io import StringIO
from pathlib import Path

from django.core.management import call_command
from django.core.management.base import CommandError
from django.db import connection
from django.test import Client, SimpleTestCase

from calculations import service
from demo.tarnwick import load_tarnwick
from projects.document import load_document
from tests.base import ApiTest, Small

ROOT = Path(__file__).resolve().parent.parent


class Health(ApiTest):
    def test_alive_and_ready_without_signing_in(self) -> None:
        client = Client()
        for path in ("/api/alive", "/api/ready"):
            answer = client.get(path)
            self.assertEqual((answer.status_code, answer.json()), (200, {"status": "ok"}), path)
            self.assertEqual(client.post(path).status_code, 405)

    def test_tables_of_another_version_are_not_ready(self) -> None:
        with connection.cursor() as cursor:
            cursor.execute(
                "DELETE FROM django_migrations WHERE id = (SELECT max(id) FROM django_migrations WHERE app = 'projects')"
            )
        answer = Client().get("/api/ready")
        self.assertEqual(answer.status_code, 503)
        self.assertIn("another version", answer.json()["status"])


class Check(ApiTest):
    def test_a_sound_project_is_calculated_and_a_broken_row_is_named(self) -> None:
        small = Small(self)
        out = StringIO()
        call_command("check_projects", stdout=out)
        self.assertIn("1 rooms calculated", out.getvalue())
        with connection.cursor() as cursor:
            cursor.execute("UPDATE projects_room SET floor_area_m2 = -5 WHERE id = %s", [small.ids["room"]])
        from projects import document

        document.forget_all()
        with self.assertRaisesRegex(CommandError, "1 rows"):
            call_command("check_projects", small.project, stdout=out)
        self.assertIn("floor_area_m2", out.getvalue())


class Restore(SimpleTestCase):
    """In processes of their own, on files of their own."""

    def manage(self, folder: str, *words: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "manage.py", *words], cwd=ROOT, env=os.environ | {"PENDRUM_VAR": folder, "PENDRUM_DEMO": "1"},
            capture_output=True, text=True, check=False,
        )  # fmt: skip

    def test_a_backup_comes_back_and_calculates_the_same(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            self.assertEqual(self.manage(folder, "migrate", "-v0").returncode, 0)
            self.assertEqual(self.manage(folder, "load_trial", "12").returncode, 0)
            copy = str(Path(folder) / "copy.sqlite3")
            self.assertEqual(self.manage(folder, "backup", copy).returncode, 0)
            told = self.manage(folder, "check_projects").stdout
            self.assertIn("12 rooms calculated", told)
            self.assertEqual(self.manage(folder, "load_trial", "3").returncode, 0)
            self.assertEqual(len(self.manage(folder, "check_projects").stdout.splitlines()), 2)
            done = self.manage(folder, "restore", copy)
            self.assertEqual(done.returncode, 0, done.stderr)
            self.assertEqual(self.manage(folder, "check_projects").stdout, told)
            self.assertEqual(len(list(Path(folder).glob("*.before-*"))), 1)
            # What is no backup changes nothing.
            wrong = Path(folder) / "wrong.sqlite3"
            wrong.write_text("not a database, but long enough to be looked at as one " * 40)
            self.assertNotEqual(self.manage(folder, "restore", str(wrong)).returncode, 0)
            self.assertNotEqual(self.manage(folder, "restore", str(Path(folder) / "none")).returncode, 0)
            self.assertEqual(self.manage(folder, "check_projects").stdout, told)


_TOLD = """
import pickle, sys
from pendrum_core.run import calculate
results = calculate(pickle.load(open(sys.argv[1], "rb")))
for identity, plant in results.plants.items():
    print(identity, plant.course.summer_w.tobytes().hex()[-4000:], plant.course.peak)
for identity, system in results.systems.items():
    print(identity, system.coil_total_w.tobytes().hex()[-4000:], system.mass_kg_s.hex())
for identity, group in results.groups.items():
    print(identity, float(group.cooling.sensible_w).hex(), float(group.heating.load_w).hex())
"""


class SeveralProcesses(ApiTest):
    def test_every_process_works_out_the_same_to_the_last_digit(self) -> None:
        """Sums over sets would differ: their order is another one in each process."""
        document = load_document(load_tarnwick(self.user))
        building = service._state(document).snapshots.take(document).building
        with tempfile.TemporaryDirectory() as folder:
            kept = Path(folder) / "building"
            kept.write_bytes(pickle.dumps(building))
            told = [
                subprocess.run(
                    [sys.executable, "-c", _TOLD, str(kept)],
                    env=os.environ | {"PYTHONHASHSEED": seed, "PYTHONPATH": os.pathsep.join(sys.path)},
                    capture_output=True, text=True, check=True,
                ).stdout
                for seed in ("1", "7")
            ]  # fmt: skip
        self.assertGreater(told[0].count("\n"), 8)
        self.assertEqual(told[0], told[1])
