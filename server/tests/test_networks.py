"""Networks of ducts: what hangs on what, routes of the return, and what an edit of one brings."""

from typing import Any

from projects.models import Project
from tests.base import ApiTest, create
from tests.base import Small as SmallProject


class Networks(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = SmallProject(self)
        self.project = self.small.project
        self.room, self.system = self.small.ids["room"], self.small.ids["system"]

    def send(self, *changes: dict[str, Any]) -> Any:
        return self.commit(self.project, list(changes), Project.objects.get(pk=self.project).version)

    def section(self, name: str, **fields: Any) -> dict[str, Any]:
        return create("duct_section", name, name=name, air_system=self.system, length_m=4, **fields)

    def ducts(self) -> dict[str, dict[str, Any]]:
        return {row["id"]: row for row in self.document(self.project)["objects"]["duct_section"]}

    def results(self) -> dict[str, Any]:
        return dict(self.get(f"/projects/{self.project}/results").json()["changed"])

    def test_return_ducts_are_sized_and_told(self) -> None:
        back = self.section("back", network="return")
        end = self.section("grille", network="return", parent="back", room=self.room, end_drop_pa=20)
        self.assertEqual(self.send(back, end).status_code, 200)
        told = self.results()
        unit = told["air_system"][self.system]
        self.assertEqual(unit["networks"]["return"]["index_path"], ["back", "grille"])
        losses = sum(told["duct_section"][name]["loss_pa"] for name in ("back", "grille"))
        self.assertAlmostEqual(unit["networks"]["return"]["loss_pa"], losses, places=6)
        working = self.get(f"/projects/{self.project}/working?quantity=return_pressure&subject={self.system}")
        self.assertEqual(working.status_code, 200)
        self.assertAlmostEqual(working.json()["value"], losses, places=6)

    def test_a_section_hangs_on_its_own_network_and_system(self) -> None:
        self.assertEqual(self.send(create("air_system", "other", name="Other")).status_code, 200)
        held = self.ducts()
        supply = next(iter(held))
        for fields, words in (
            ({"network": "return", "parent": supply}, "network is another one"),
            ({"network": "supply", "parent": supply, "air_system": "other"}, "air system is another one"),
        ):
            change = self.section("x") | {}
            change["fields"] = change["fields"] | fields
            answer = self.send(change)
            self.assertEqual(answer.status_code, 422, fields)
            self.assertIn(words, answer.json()["title"])
        self.assertEqual(self.ducts(), held)

    def test_a_section_with_others_on_it_does_not_change_its_network(self) -> None:
        self.assertEqual(self.send(self.section("a"), self.section("b", parent="a")).status_code, 200)
        answer = self.send({"op": "set", "kind": "duct_section", "id": "a", "fields": {"network": "exhaust"}})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("b cannot come after a", answer.json()["title"])
        both = [
            {"op": "set", "kind": "duct_section", "id": name, "fields": {"network": "exhaust"}} for name in ("a", "b")
        ]
        self.assertEqual(self.send(*both).status_code, 200)

    def test_no_section_comes_after_itself(self) -> None:
        chain = [self.section("a"), self.section("b", parent="a"), self.section("c", parent="b")]
        self.assertEqual(self.send(*chain).status_code, 200)
        for parent in ("c", "a"):
            answer = self.send({"op": "set", "kind": "duct_section", "id": "a", "fields": {"parent": parent}})
            self.assertEqual(answer.status_code, 422)
            self.assertIn("after itself", answer.json()["title"])
        self.assertIsNone(self.ducts()["a"]["parent"])

    def test_the_same_holds_for_pipes(self) -> None:
        more = create("circuit", "second", name="Second", kind="heating", flow_c=60, return_c=40)
        self.assertEqual(self.send(more).status_code, 200)
        pipe = self.document(self.project)["objects"]["pipe_section"][0]
        stray = create("pipe_section", "p", name="p", circuit="second", parent=pipe["id"], length_m=3)
        answer = self.send(stray)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("circuit is another one", answer.json()["title"])

    def test_a_return_route_leaves_the_supply_alone(self) -> None:
        square = [[0, 0], [5, 0], [5, 4], [0, 4]]
        put = {"op": "set", "kind": "room", "id": self.room, "fields": {"outline_m": square}}
        self.assertEqual(self.send(put).status_code, 200)
        held = self.ducts()
        body = {
            "base_version": Project.objects.get(pk=self.project).version,
            "kind": "duct_section",
            "owner": self.system,
            "start_room": self.room,
            "rooms": [self.room],
            "network": "return",
        }
        answer = self.client.post(f"/api/projects/{self.project}/plan/route", body, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)
        after = self.ducts()
        self.assertEqual({key: after[key] for key in held}, held)
        laid = [row for key, row in after.items() if key not in held]
        self.assertTrue(laid)
        self.assertEqual({row["network"] for row in laid}, {"return"})
        self.assertIn(self.room, [row["room"] for row in laid])
