"""Long work: asked for, followed, stopped, and what is left when something fails."""

import os
import subprocess
import sys
import tempfile
import time
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import SimpleTestCase
from django.utils import timezone

from tasks import asking, kinds, work
from tasks.models import Task
from tasks.progress import Cancelled, Progress
from tests.base import ApiTest, Small

TABLE = b"Number,Name\n7.01,Loft\n"


class Tasks(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)

    def asked(self, data: bytes = TABLE, name: str = "rooms.csv") -> dict[str, Any]:
        path = f"/api/projects/{self.small.project}/rooms/read"
        answer = self.client.post(path, {"file": SimpleUploadedFile(name, data)})
        self.assertEqual(answer.status_code, 202, answer.content)
        return self.get(f"/tasks/{answer.json()['id']}").json()

    def test_a_task_from_its_asking_to_its_result(self) -> None:
        task = self.asked()
        self.assertEqual((task["state"], task["progress"], task["title"]), ("done", 1.0, "Rooms of rooms.csv"))
        rows = self.get(f"/tasks/{task['id']}/result").json()["rows"]
        self.assertIn("7.01", [row["number"] for row in rows])
        self.assertEqual([t["id"] for t in self.get(f"/projects/{self.small.project}/tasks").json()], [task["id"]])

    def test_a_refusal_ends_a_task_with_its_reason(self) -> None:
        task = self.asked(b"nothing of rooms")
        self.assertEqual(task["state"], "failed")
        self.assertIn("Number", task["error"]["title"])
        self.assertEqual(self.get(f"/tasks/{task['id']}/result").status_code, 409)

    def test_what_nobody_foresaw_ends_a_task_with_a_number(self) -> None:
        def broken(task: Task, progress: Progress) -> dict[str, Any]:
            raise LookupError("of all things")

        with patch.dict(kinds.KINDS, rooms=broken), self.assertLogs("pendrum.tasks", "ERROR"):
            task = self.asked()
        self.assertEqual((task["state"], task["error"]["code"]), ("failed", "fault"))
        self.assertNotIn("of all things", str(task))

    def test_a_task_that_waits_is_cancelled_and_never_done(self) -> None:
        with patch.object(asking, "enqueue"):
            task = self.asked()
        self.assertEqual(task["state"], "waiting")
        stopped = self.post(f"/tasks/{task['id']}/cancel").json()
        self.assertEqual(stopped["state"], "cancelled")
        work.work_on(task["id"])
        self.assertEqual(self.get(f"/tasks/{task['id']}").json()["state"], "cancelled")

    def test_a_task_at_work_stops_at_its_next_step(self) -> None:
        reached = []

        def slow(task: Task, progress: Progress) -> dict[str, Any]:
            progress.tell(0.3, "first half")
            Task.objects.filter(pk=task.pk).update(cancel_asked=True)
            with self.assertRaises(Cancelled):
                progress.tell(0.6, "second half")
            reached.append(True)
            raise Cancelled

        with patch.dict(kinds.KINDS, rooms=slow):
            task = self.asked()
        self.assertEqual((task["state"], reached), ("cancelled", [True]))

    def test_a_long_reading_is_stopped_in_its_midst(self) -> None:
        from exchange.apart import read_apart

        def stop(share: float) -> None:
            raise Cancelled

        begun = time.monotonic()
        with self.assertRaises(Cancelled):
            read_apart(_sleeping, "x.csv", b"", waiting=stop)
        self.assertLess(time.monotonic() - begun, 60.0)

    def test_nobody_else_s_task_and_not_too_many(self) -> None:
        with patch.object(asking, "enqueue"):
            task = self.asked()
            for _ in range(asking.MOST_OPEN - 1):
                self.asked()
            path = f"/api/projects/{self.small.project}/rooms/read"
            refused = self.client.post(path, {"file": SimpleUploadedFile("r.csv", TABLE)})
        self.assertEqual(refused.status_code, 409)
        self.client.logout()
        self.assertEqual(self.get(f"/tasks/{task['id']}").status_code, 401)

    def test_a_task_that_another_worker_is_at_is_left_to_it(self) -> None:
        with patch.object(asking, "enqueue"):
            task = self.asked()
        Task.objects.filter(pk=task["id"]).update(state=Task.RUNNING, beat=timezone.now())
        work.work_on(task["id"])
        self.assertEqual(self.get(f"/tasks/{task['id']}").json()["state"], "running")

    def test_what_a_worker_left_behind_is_over(self) -> None:
        with patch.object(asking, "enqueue"):
            task = self.asked()

        def state(silent_s: int | None) -> Any:
            beat = None if silent_s is None else timezone.now() - timedelta(seconds=silent_s)
            Task.objects.filter(pk=task["id"]).update(state=Task.RUNNING, beat=beat, error=None)
            return self.get(f"/tasks/{task['id']}").json()

        # Another worker's task goes on for as long as that one says so.
        self.assertEqual(state(10)["state"], "running")
        for silent_s in (35, None):
            found = state(silent_s)
            self.assertEqual(found["state"], "failed")
            self.assertIn("Start it again", found["error"]["title"])


def _sleeping(name: str, data: bytes) -> None:
    time.sleep(600)


_ASK = """
import django; django.setup()
from accounts.demo import demo_engineer
from projects.starter import create_project
from tasks.asking import ask
owner = demo_engineer()
how = {"name": "r.csv", "numbered": False, "separator": "", "decimal": ""}
print(ask(owner, create_project(owner, "Mill"), "rooms", "Rooms", how, b"Number,Name\\n1,A\\n").pk)
"""
_STATE = "import django; django.setup()\nfrom tasks.models import Task\nprint(Task.objects.get().state)"


class Worker(SimpleTestCase):
    """The worker itself, beside an installation of its own."""

    def test_a_worker_takes_what_another_process_asked_for(self) -> None:
        with tempfile.TemporaryDirectory() as var:
            server = str(settings.ROOT / "server")
            env = os.environ | {
                "PENDRUM_VAR": var, "DJANGO_SETTINGS_MODULE": "config.settings", "PYTHONPATH": f"{settings.ROOT}:{server}"
            }  # fmt: skip

            def run(*command: str) -> str:
                done = subprocess.run([sys.executable, *command], env=env, cwd=server, capture_output=True, text=True)
                self.assertEqual(done.returncode, 0, done.stderr)
                return done.stdout.strip()

            run("manage.py", "migrate", "-v0")
            run("-c", _ASK)
            self.assertEqual(run("-c", _STATE), "waiting")
            worker = subprocess.Popen([sys.executable, "-m", "config.worker"], env=env, cwd=server)
            try:
                end = time.monotonic() + 120
                while (state := run("-c", _STATE)) in ("waiting", "running") and time.monotonic() < end:
                    time.sleep(0.2)
            finally:
                worker.kill()
                worker.wait()
            self.assertEqual(state, "done")


class Orphans(SimpleTestCase):
    def test_a_worker_whose_server_is_gone_already_ends(self) -> None:
        """The server was killed before its worker had begun: the worker must not stay behind."""
        gone = subprocess.Popen([sys.executable, "-c", ""])
        gone.wait()
        with tempfile.TemporaryDirectory() as var:
            environment = os.environ | {
                "PENDRUM_VAR": var,
                "PENDRUM_SERVER_PROCESS": str(gone.pid),
                "PYTHONPATH": f"{settings.ROOT}:{settings.ROOT / 'server'}",
            }
            subprocess.run(
                [sys.executable, str(settings.ROOT / "server" / "manage.py"), "migrate", "-v0"],
                env=environment,
                check=True,
            )
            worker = subprocess.Popen(
                [sys.executable, "-m", "config.worker"], cwd=settings.ROOT / "server", env=environment
            )
            self.addCleanup(worker.kill)
            self.assertEqual(worker.wait(timeout=120), 0)
