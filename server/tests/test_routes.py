"""Ducts and pipes laid along the plan through the API: replaced in one step, undone in one, refused with the rooms' numbers."""

from typing import Any

from demo.tarnwick import load_tarnwick
from tests.base import ApiTest


class Routes(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = str(load_tarnwick(self.user).id)
        self.objects = self.document(self.project)["objects"]
        self.system = next(row["id"] for row in self.objects["air_system"] if row["name"].startswith("AHU-1"))
        self.plant = next(row["id"] for row in self.objects["room"] if row["name"] == "Plant room")
        self.rooms = [row["room"] for row in self.ducts() if row["room"]]

    def ducts(self) -> list[dict[str, Any]]:
        rows = self.document(self.project)["objects"]["duct_section"]
        return [row for row in rows if row["air_system"] == self.system and row["network"] == "supply"]

    def lay(self, **fields: Any) -> Any:
        body = {
            "base_version": self.document(self.project)["version"], "kind": "duct_section", "owner": self.system, "start_room": self.plant,
            "rooms": self.rooms,
        }  # fmt: skip
        return self.post(f"/projects/{self.project}/plan/route", body | fields)

    def test_the_old_ducts_give_way_and_come_back(self) -> None:
        before = self.ducts()
        self.assertEqual(self.lay().status_code, 200)
        after = self.ducts()
        self.assertEqual(sorted(row["room"] for row in after if row["room"]), sorted(self.rooms))
        self.assertFalse({row["id"] for row in before} & {row["id"] for row in after})
        results = self.get(f"/projects/{self.project}/results").json()["changed"]
        self.assertTrue(all(row["id"] in results["duct_section"] for row in after))
        # What the root carries is what its ends take at one time: of variable volume less than the sum of their own.
        root = next(row["id"] for row in after if row["parent"] is None)
        ends = [results["duct_section"][row["id"]]["flow_m3_s"] for row in after if row["room"]]
        carried = results["duct_section"][root]["flow_m3_s"]
        self.assertLess(carried, sum(ends))
        told = results["air_system"][self.system]
        leaves = 1.0 - told["duct_leak_share"]
        self.assertAlmostEqual(carried * leaves, told["flow_m3_s"], delta=0.01 * carried)
        # An end keeps its drop; fittings are counted by kind.
        drops = {row["room"]: row["end_drop_pa"] for row in before if row["room"]}
        self.assertEqual({row["room"]: row["end_drop_pa"] for row in after if row["room"]}, drops)
        self.assertTrue(all(row["fittings"] for row in after if row["parent"]))
        self.post(f"/projects/{self.project}/undo?base_version=0")
        self.assertEqual(sorted(map(str, self.ducts())), sorted(map(str, before)))

    def test_pipes_lead_to_rooms_and_coils(self) -> None:
        circuit = next(row["id"] for row in self.objects["circuit"] if row["kind"] == "heating")
        old = [row for row in self.objects["pipe_section"] if row["circuit"] == circuit]
        rooms = [row["room"] for row in old if row["room"]]
        coils = [row["air_system"] for row in old if row["air_system"]]
        answer = self.lay(kind="pipe_section", owner=circuit, rooms=rooms, coils=coils)
        self.assertEqual(answer.status_code, 200, answer.content)
        new = [row for row in self.document(self.project)["objects"]["pipe_section"] if row["circuit"] == circuit]
        self.assertEqual(
            sorted(row["room"] or row["air_system"] for row in new if row["room"] or row["air_system"]),
            sorted(rooms + coils),
        )
        pump = self.get(f"/projects/{self.project}/results").json()["changed"]["circuit"][circuit]["pump"]
        self.assertGreater(pump["head_pa"], 0.0)

    def test_what_cannot_be_laid_is_refused_by_name(self) -> None:
        room = self.rooms[0]
        number = next(row["number"] for row in self.objects["room"] if row["id"] == room)
        self.set(self.project, "room", room, outline_m=None)
        held = self.ducts()
        for fields, status, words in (
            ({}, 422, number),
            ({"rooms": []}, 422, "no end"),
            ({"rooms": ["nothere"]}, 404, "not there"),
            ({"owner": "nothere"}, 404, "air system"),
            ({"start_room": "nothere"}, 404, "not there"),
            ({"kind": "roof"}, 422, "kind"),
            ({"rooms": [], "coils": [self.system]}, 422, "not to coils"),
            (
                {"kind": "pipe_section", "owner": self.objects["circuit"][0]["id"], "rooms": [], "coils": ["x"]},
                404,
                "coil",
            ),
        ):
            answer = self.lay(**fields)
            self.assertEqual(answer.status_code, status, (fields, answer.content))
            self.assertIn(words, answer.json()["title"])
        self.assertEqual(self.ducts(), held)
