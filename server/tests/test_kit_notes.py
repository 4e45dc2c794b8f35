"""Own tags and remarks of the kit list through the API: saved, undone, exported; kept while the piece is gone; options."""

import csv
import io
from typing import Any

from demo.tarnwick import load_tarnwick
from tests.base import ApiTest, create


class KitNotes(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = str(load_tarnwick(self.user).id)
        self.path = f"/projects/{self.project}"

    def kit(self) -> dict[str, dict[str, Any]]:
        return self.get(f"{self.path}/results").json()["changed"]["kit"]

    def lines(self) -> list[dict[str, str]]:
        text = self.get(f"{self.path}/kit.csv").content.decode()
        return list(csv.DictReader(io.StringIO(text)))

    def test_own_tag_and_remark_stand_in_what_is_exported(self) -> None:
        key = next(key for key, item in self.kit().items() if item["item"] == "Supply fan, flow and static pressure")
        generated = self.kit()[key]["tag"]
        fields = {"piece": key, "tag": "V-101", "remark": "on rubber mounts"}
        self.assertEqual(self.commit(self.project, [create("kit_note", "n1", **fields)]).status_code, 200)
        (first, *rest) = [line for line in self.lines() if line["tag"] == "V-101"]
        self.assertEqual(first["remark"], "on rubber mounts")
        self.assertEqual(len(rest) + 1, len(self.kit()[key]["account"]))
        self.assertNotIn(generated, {line["tag"] for line in self.lines()})
        # The result keeps its own name: the note is the project's, not the calculation's.
        self.assertEqual(self.kit()[key]["tag"], generated)
        self.post(f"{self.path}/undo?base_version=0")
        self.assertIn(generated, {line["tag"] for line in self.lines()})

    def test_two_notes_of_one_piece_are_refused_and_nothing_is_lost(self) -> None:
        self.commit(self.project, [create("kit_note", "n1", piece="x/SF", tag="A")])
        again = self.commit(self.project, [create("kit_note", "n2", piece="x/SF", tag="B")])
        self.assertEqual(again.status_code // 100, 4)
        notes = self.document(self.project)["objects"]["kit_note"]
        self.assertEqual([note["tag"] for note in notes], ["A"])
        long = self.commit(self.project, [create("kit_note", "n3", piece="y", tag="t" * 81)])
        self.assertEqual(long.status_code // 100, 4)
        self.assertIn("Own tag", long.content.decode())

    def test_the_account_adds_up_on_every_line(self) -> None:
        circuit = next(row for row in self.document(self.project)["objects"]["circuit"] if row["kind"] == "heating")
        self.set(self.project, "circuit", circuit["id"], pinned_head_pa=60_000.0)
        seen = set()
        for key, item in self.kit().items():
            asked = given = None
            for line in item["account"]:
                seen.add(line["role"])
                if line["role"] == "asked":
                    asked, given = line["value"], None
                elif line["role"] == "margin":
                    asked += line["value"]
                elif line["role"] in ("pinned", "chosen"):
                    given = line["value"]
                else:
                    self.assertAlmostEqual(line["value"], given - asked, msg=key, places=6)
        self.assertEqual(seen, {"asked", "margin", "pinned", "chosen", "left over"})

    def test_a_fall_short_reads_as_a_number_in_the_file(self) -> None:
        circuit = next(row for row in self.document(self.project)["objects"]["circuit"] if row["kind"] == "heating")
        self.set(self.project, "circuit", circuit["id"], pinned_head_pa=5000.0)
        left = [line for line in self.lines() if line["line"] == "left over" and line["figure"].startswith("-")]
        self.assertTrue(left)
        self.assertLess(float(left[0]["figure"]), 0.0)
