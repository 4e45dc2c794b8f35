"""What one request must not do to the others, and what is told when something fails."""

import io
import json
import os
import sqlite3
import subprocess
import sys
import threading
import time
import zipfile
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError
from django.test import SimpleTestCase

from api.bodies import DEEPEST, depth_of
from exchange import apart
from projects.document import forget_all, load_document
from projects.errors import Refused
from projects.models import JournalEntry, Project
from projects.plan import plan_changes
from projects.rows import Document
from projects.starter import new_id
from tests.base import ApiTest, Small, Worked, create

HANGS_S = 60.0  # what is not over by then, hangs; the machine may be busy with other tests


class Saving(ApiTest):
    """Saving and calculating are two acts."""

    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)

    def edit(self, **fields: Any) -> Any:
        room = {"op": "set", "kind": "room", "id": self.small.ids["room"], "fields": fields}
        return self.commit(self.small.project, [room])

    def names(self) -> str:
        return self.document(self.small.project)["objects"]["room"][0]["name"]

    def test_an_edit_is_saved_where_the_calculation_fails(self) -> None:
        with (
            patch("calculations.service.calculate_loads", side_effect=RuntimeError("broken")),
            self.assertLogs("pendrum") as log,
        ):
            answer = self.edit(name="Kept")
        self.assertEqual(answer.status_code, 200)
        told = answer.json()
        self.assertIsNone(told["results"])
        self.assertIn(told["calculation_fault"], "".join(log.output))
        self.assertEqual(self.names(), "Kept")
        # Nothing is locked: the next edit is calculated again.
        self.assertIsNotNone(self.edit(name="Next").json()["results"])

    def test_one_room_fails_alone(self) -> None:
        from pendrum_core.room.outcome.chunk import calculate_chunk

        second = new_id()
        level = self.document(self.small.project)["objects"]["level"][0]["id"]
        self.commit(self.small.project, [
            create("room", second, number="2", name="Other", level=level, use=self.small.ids["use"], floor_area_m2=20),
            create("surface", new_id(), room=second, name="North", role="outer_wall", boundary="outdoors", area_m2=15),
        ])  # fmt: skip

        def broken(rooms: Any, **more: Any) -> Any:
            if any(room.id == second for room in rooms):
                raise ZeroDivisionError("in the middle")
            return calculate_chunk(rooms, **more)

        with patch("pendrum_core.run.loads.calculate_chunk", broken), self.assertLogs("pendrum") as log:
            site = self.document(self.small.project)["objects"]["site"][0]["id"]
            winter = {"op": "set", "kind": "site", "id": site, "fields": {"winter_dry_bulb_c": -12}}
            answer = self.commit(self.small.project, [winter]).json()
            results = self.client.get(f"/api/projects/{self.small.project}/results").json()["changed"]
        self.assertIn(self.small.ids["room"], results["room"])
        self.assertNotIn(second, results["room"])
        self.assertIsNone(answer["calculation_fault"])
        snag = next(s for s in results["snag"].values() if s["code"] == "not_calculated")
        self.assertIn("2 Other", snag["sentence"])
        number = snag["sentence"].split("number ")[1][:8]
        self.assertIn(number, "".join(log.output))

    def test_a_fault_has_a_number_and_is_json(self) -> None:
        with patch("api.routes.place_day", side_effect=KeyError("inside")), self.assertLogs("pendrum") as log:
            answer = self.client.get(f"/api/projects/{self.small.project}/place", {"month": 7})
        self.assertEqual((answer.status_code, answer["Content-Type"]), (500, "application/problem+json"))
        number = answer.json()["title"].split("number ")[1][:8]
        self.assertIn(number, log.output[0])
        self.assertIn("KeyError", log.output[0])

    def test_a_key_error_inside_is_no_404(self) -> None:
        with patch("api.routes.working", side_effect=KeyError("inside")), self.assertLogs("pendrum"):
            answer = self.client.get(f"/api/projects/{self.small.project}/working",
                                     {"quantity": "room_heating", "subject": self.small.ids["room"]})  # fmt: skip
        self.assertEqual(answer.status_code, 500)

    def test_a_busy_and_a_full_database(self) -> None:
        for text, status, code in (("database is locked", 503, "busy"), ("database or disk is full", 507, "no_room")):
            with patch("projects.changes._write", side_effect=OperationalError(text)):
                answer = self.edit(name="Lost")
            self.assertEqual((answer.status_code, answer.json()["code"]), (status, code))
            self.assertNotIn(text, answer.content.decode())
            self.assertNotEqual(self.names(), "Lost")
        self.assertEqual(self.edit(name="Fine").status_code, 200)

    def test_an_id_of_another_project(self) -> None:
        other = Small(self)
        taken = create(
            "material", self.small.ids["wall"], name="x", conductivity_w_mk=1, density_kg_m3=1, specific_heat_j_kgk=1
        )
        first = self.commit(self.small.project, [taken])
        self.assertEqual(first.status_code, 200)
        with self.assertLogs("pendrum"):
            answer = self.commit(other.project, [taken])
        self.assertEqual(answer.status_code, 409)
        for word in ("UNIQUE", "projects_", "constraint"):
            self.assertNotIn(word, answer.content.decode())

    def test_what_another_process_saved_is_read_forward(self) -> None:
        """Rows that did not change stay the same objects: what is kept of the calculation stands."""
        project = Project.objects.get(pk=self.small.project)
        before = load_document(project)
        self.edit(name="Elsewhere")
        # As in another process: this one has only the version before.
        forget_all()
        from projects.document import remember

        remember(before)
        with self.assertNumQueries(3):  # the journal, the one kind, the version
            after = load_document(Project(id=project.id, version=before.version + 1))
        self.assertEqual(after.of("room")[self.small.ids["room"]]["name"], "Elsewhere")
        self.assertIs(after.of("surface"), before.of("surface"))
        forget_all()
        fresh = load_document(Project.objects.get(pk=self.small.project))
        self.assertEqual(fresh.rows, after.rows)


class OwnSteps(ApiTest):
    def test_undo_takes_back_ones_own_steps_only(self) -> None:
        small = Small(self)
        room = small.ids["room"]

        def set_(**fields: Any) -> dict[str, Any]:
            return {"op": "set", "kind": "room", "id": room, "fields": fields}

        self.commit(small.project, [set_(name="Mine")])
        project = Project.objects.get(pk=small.project)
        other = get_user_model().objects.create_user("other")
        from projects.changes import apply_changes
        from projects.journal import next_steps, step

        apply_changes(project.id, other, [set_(floor_area_m2=31.0)], "Theirs", project.version)
        self.assertEqual(next_steps(project.id, other).undo.label, "Theirs")
        after = step(project.id, project.owner, "undo")[1]
        self.assertEqual((after.of("room")[room]["name"], after.of("room")[room]["floor_area_m2"]), ("Office", 31.0))
        # What somebody else changed since is not taken back under them.
        project.refresh_from_db()
        self.commit(small.project, [set_(name="Again")])
        project.refresh_from_db()
        apply_changes(project.id, other, [set_(name="Over it")], "Over it", project.version)
        with self.assertRaises(Refused) as refused:
            step(project.id, project.owner, "undo")
        self.assertEqual(refused.exception.code, "conflict")
        self.assertEqual(JournalEntry.objects.filter(project=project, way="undo").count(), 1)


class Bodies(ApiTest):
    def test_nested_deep(self) -> None:
        small = Small(self)
        deep = '{"a":' * 20_000 + "1" + "}" * 20_000
        for body in (deep, '{"a":' * (DEEPEST + 5) + "1" + "}" * (DEEPEST + 5), "[" * 500 + "]" * 500, "{", "\xff"):
            answer = self.client.post(f"/api/projects/{small.project}/changes", body, content_type="application/json")
            self.assertIn(answer.status_code, (400, 422), body[:20])
            answer.json()
        self.assertEqual(depth_of([1, {"a": [2]}]), 3)

    def test_no_number_is_answered_in_json(self) -> None:
        small = Small(self)
        body = json.dumps({"base_version": 1, "label": "x", "changes": [
            {"op": "set", "kind": "room", "id": small.ids["room"], "fields": {"floor_area_m2": float("nan")}}]})  # fmt: skip
        answer = self.client.post(f"/api/projects/{small.project}/changes", body, content_type="application/json")
        self.assertIn(answer.status_code, (400, 422))
        answer.json()

    def test_characters_that_no_file_can_hold(self) -> None:
        small = Small(self)
        for name in ("bell\x07", "null\x00", "line\nbreak", "half\ud800", "\x85", "\ufffe"):
            answer = self.commit(small.project, [
                {"op": "set", "kind": "room", "id": small.ids["room"], "fields": {"name": name}}
            ])  # fmt: skip
            self.assertIn(answer.status_code, (400, 422), repr(name))
        fine = "Küche · Żółć – 2º 事務室"
        answer = self.commit(
            small.project, [{"op": "set", "kind": "room", "id": small.ids["room"], "fields": {"name": fine}}]
        )
        self.assertEqual(answer.status_code, 200)
        for form in ("xlsx", "gbxml", "csv"):
            self.assertEqual(self.client.get(f"/api/projects/{small.project}/rooms.{form}").status_code, 200)


class LargeChangeSets(ApiTest):
    def test_the_work_grows_with_the_changes_alone(self) -> None:
        """Twice as many creations take about twice as long, not four times; names are still told apart."""
        small = Small(self)
        document = load_document(Project.objects.get(pk=small.project))

        def seconds(count: int) -> float:
            changes = [create("schedule", f"s{i}", name=f"S {i}", kind="fraction", base="a",
                              patterns=[{"id": "a", "name": "A", "steps": [[1440, 1.0]]}]) for i in range(count)]  # fmt: skip
            start = time.process_time()
            plan_changes(document, changes)
            return time.process_time() - start

        seconds(50)
        few, many = min(seconds(300) for _ in range(3)), min(seconds(1200) for _ in range(2))
        self.assertLess(many, 8.0 * few)
        twice = [create("use", f"u{i}", name="The same") for i in range(2)]
        with self.assertRaises(Refused):
            plan_changes(document, twice)

    def test_deletions_find_their_users(self) -> None:
        small = Small(self)
        document = load_document(Project.objects.get(pk=small.project))
        with self.assertRaises(Refused) as refused:
            plan_changes(document, [{"op": "delete", "kind": "use", "id": small.ids["use"]}])
        self.assertEqual(refused.exception.code, "in_use")
        rows, inverse, touched = plan_changes(document, [{"op": "delete", "kind": "room", "id": small.ids["room"]}])
        self.assertEqual((rows["surface"], rows["opening"]), ({}, {}))
        self.assertIsNone(rows["duct_section"][small.ids["duct"]]["room"])
        again = plan_changes(Document(document.project, 2, rows), inverse)[0]
        self.assertEqual(again, document.rows)

    def test_too_many_of_a_kind(self) -> None:
        small = Small(self)
        document = load_document(Project.objects.get(pk=small.project))
        with self.assertRaisesMessage(Refused, "at most 2000"):
            plan_changes(document, [create("level", f"l{i}", name=f"{i}", position=i, floor_m=0) for i in range(2001)])


def idle(name: str, data: bytes) -> None:
    """A reader that never ends and waits for something."""
    while True:
        time.sleep(0.01)


def busy(name: str, data: bytes) -> None:
    """A reader that never ends and works all the time."""
    while True:
        pass


def greedy(name: str, data: bytes) -> int:
    """A reader that takes all memory."""
    return len([bytearray(50_000_000) for _ in range(200)])


def broken(name: str, data: bytes) -> None:
    """A reader that fails in a way nobody foresaw."""
    raise AttributeError("of something that is not there")


class ReadingApart(SimpleTestCase):
    def test_time_memory_and_faults_are_refusals(self) -> None:
        # Only one that never ends is to run out of time, however busy the machine is.
        for reader, words, seconds in (
            (idle, "takes longer", 0.5),
            (busy, "takes longer", 1.0),
            (greedy, "memory", 60.0),
            (broken, "not as its form asks", 60.0),
        ):
            with self.subTest(reader=reader.__name__), patch.object(apart, "_SECONDS", seconds):
                start = time.monotonic()
                with self.assertRaisesMessage(Refused, words):
                    apart.read_apart(reader, "file.xyz", b"content")
                self.assertLess(time.monotonic() - start, HANGS_S)

    def test_several_at_once(self) -> None:
        results: list[str] = []

        def read() -> None:
            try:
                apart.read_apart(broken, "file.xyz", b"")
            except Refused as error:
                results.append(error.code)

        threads = [threading.Thread(target=read) for _ in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(results, ["invalid"] * 6)


class HostileFiles(ApiTest):
    """Files that stopped everyone: small ones that unpack to much, drawings out of all bounds, models that point in rings."""

    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)

    def sent(self, path: str, name: str, data: bytes, **more: Any) -> Any:
        sent = {"file": SimpleUploadedFile(name, data), **more}
        return Worked(self, self.client.post(f"/api/projects/{self.small.project}/{path}", sent))

    def test_a_workbook_that_unpacks_to_much(self) -> None:
        target = io.BytesIO()
        with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr("xl/sharedStrings.xml", "<sst>" + "<si><t>x</t></si>" * 9_000_000 + "</sst>")
        start = time.monotonic()
        self.assertEqual(self.sent("rooms/read", "rooms.xlsx", target.getvalue()).status_code, 422)
        self.assertLess(time.monotonic() - start, HANGS_S)

    def test_drawings_out_of_bounds(self) -> None:
        level = self.document(self.small.project)["objects"]["level"][0]["id"]
        head, tail = "0\nSECTION\n2\nENTITIES\n", "0\nENDSEC\n0\nEOF\n"

        def arc(radius: str) -> str:
            return f"0\nARC\n8\n0\n10\n0\n20\n0\n40\n{radius}\n50\n0\n51\n270\n"

        line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5000\n21\n0\n"
        for what in (
            arc("1e300"),
            arc("nan"),
            arc("1e6"),
            arc("0"),
            "0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n0\n21\n0\n40\n0\n",
        ):
            for body in (what, line + what):
                start = time.monotonic()
                answer = self.sent(f"levels/{level}/drawing", "plan.dxf", (head + body + tail).encode())
                self.assertIn(answer.status_code, (200, 422), answer.content[:200])
                self.assertLess(time.monotonic() - start, HANGS_S)

    def test_project_files_of_wrong_shape(self) -> None:
        whole = self.client.get(f"/api/projects/{self.small.project}/project.json").json()
        text = json.dumps(whole)
        count = Project.objects.count()

        def changed(change: Any) -> bytes:
            content = json.loads(text)
            change(content["objects"])
            return json.dumps(content).encode()

        hostile = [
            changed(lambda o: o["design_month"][3].update(month="4")),
            changed(lambda o: o["design_month"][3].update(month=None)),
            changed(lambda o: o["design_month"].pop()),
            changed(lambda o: o["design_month"].append(dict(o["design_month"][0], month="x"))),
            changed(lambda o: o["room"][0].update(level=["a"])),
            changed(lambda o: o["room"][0].update(use={"a": 1})),
            changed(lambda o: o["room"].append(dict(o["room"][0]))),
            changed(lambda o: o["surface"][0].update(area_m2="wide")),
            changed(lambda o: o.update(use=[{"id": f"u{i}", "name": f"{i}"} for i in range(20_000)])),
            b"[" * 5000, b"null", b"\x00", b'{"format": "pendrum-project", "version": 1, "objects": {"room": 7}}',
        ]  # fmt: skip
        for data in hostile:
            start = time.monotonic()
            answer = self.client.post("/api/projects/file", {"file": SimpleUploadedFile("p.json", data)})
            self.assertEqual(answer.status_code, 422, answer.content[:300])
            answer.json()
            self.assertLess(time.monotonic() - start, HANGS_S)
        self.assertEqual(Project.objects.count(), count)


class Bridges(ApiTest):
    def test_many_bridged_layers(self) -> None:
        """Twenty-four layers with studs: 2^24 sections, worked out at once, and undone."""
        small = Small(self)
        materials = {m["name"]: m["id"] for m in self.document(small.project)["objects"]["material"]}
        layers = [
            create("layer", new_id(), assembly=small.ids["wall"], position=i + 1, material=materials["Mineral wool"],
                   thickness_m=0.02, bridge_material=materials["Timber, soft"], bridge_share=0.1) for i in range(24)
        ]  # fmt: skip
        start = time.monotonic()
        answer = self.commit(small.project, layers)
        self.assertEqual(answer.status_code, 200)
        self.assertIsNotNone(answer.json()["results"])
        self.assertLess(time.monotonic() - start, HANGS_S)


class LevelsWithDrawings(ApiTest):
    def test_deleting_and_undoing(self) -> None:
        """The level goes with nothing refused; undo brings it back with the drawing under it."""
        small = Small(self)
        level = new_id()
        self.commit(small.project, [create("level", level, name="Attic", position=9, floor_m=9)])
        line = "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5000\n21\n0\n0\nENDSEC\n0\nEOF\n"
        path = f"/api/projects/{small.project}/levels/{level}/drawing"
        sent = self.client.post(path, {"file": SimpleUploadedFile("attic.dxf", line.encode())})
        self.assertEqual(sent.status_code, 200, sent.content)
        answer = self.commit(small.project, [{"op": "delete", "kind": "level", "id": level}])
        self.assertEqual(answer.status_code, 200, answer.content)
        drawings = f"/api/projects/{small.project}/drawings"
        self.assertEqual(self.client.get(drawings).json(), [])
        self.assertEqual(self.client.get(path).status_code, 404)
        undone = self.client.post(f"/api/projects/{small.project}/undo?base_version={answer.json()['version']}")
        self.assertEqual(undone.status_code, 200, undone.content)
        self.assertEqual([drawing["level"] for drawing in self.client.get(drawings).json()], [level])


class Backups(SimpleTestCase):
    def test_a_copy_holds_what_was_acknowledged(self) -> None:
        """The copy of a database on disk is whole and sound, and never written over another file."""
        with TemporaryDirectory() as folder:
            manage = [sys.executable, str(settings.ROOT / "server" / "manage.py")]
            environment = os.environ | {"PENDRUM_VAR": folder}
            subprocess.run([*manage, "migrate", "-v0"], env=environment, check=True)
            path = Path(folder) / "copy.sqlite3"
            subprocess.run([*manage, "backup", str(path)], env=environment, check=True, stdout=subprocess.DEVNULL)
            with sqlite3.connect(path) as copy:
                tables = {name for (name,) in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
                self.assertEqual(copy.execute("PRAGMA integrity_check").fetchone(), ("ok",))
            copy.close()
            self.assertIn("projects_journalentry", tables)
            again = subprocess.run([*manage, "backup", str(path)], env=environment, capture_output=True, text=True)
            self.assertNotEqual(again.returncode, 0)
            self.assertIn("never writes over", again.stderr)
