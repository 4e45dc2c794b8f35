"""Options: layers over a base. What they say, what they cost, what happens to them when the base moves."""

import random
from typing import Any
from unittest.mock import patch

from calculations import service
from demo.tarnwick import load_tarnwick
from projects import document
from projects.document import load_document
from projects.models import Project
from projects.starter import new_id
from tests.base import ApiTest, Small, create


def plain(rows: dict[str, list[dict[str, Any]]]) -> dict[str, list[tuple[Any, ...]]]:
    """Rows without ids that are told apart by what they hold, for comparing two projects."""
    return {kind: sorted(row["id"] for row in of) for kind, of in rows.items()}


class Options(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.base = self.small.project

    def option(self, name: str = "Thick wall", **more: Any) -> str:
        answer = self.post(f"/projects/{self.base}/options", {"name": name, **more})
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.json()["id"]

    def row(self, project: str, kind: str, identity: str) -> dict[str, Any] | None:
        return next((row for row in self.document(project)["objects"][kind] if row["id"] == identity), None)

    def results(self, project: str) -> dict[str, Any]:
        return self.get(f"/projects/{project}/results").json()["changed"]

    def differences(self, option: str) -> list[dict[str, Any]]:
        return self.get(f"/projects/{option}/differences").json()["differences"]

    def test_an_option_deleted_while_it_is_compared_is_missing(self) -> None:
        option = self.option()

        def gone(project: Project) -> Any:
            Project.objects.filter(pk=option).delete()
            document.forget_all()
            return load_document(project)

        with patch("api.options.load_document", gone):
            answer = self.get(f"/projects/{self.base}/compare", options=[option])
        self.assertEqual((answer.status_code, answer.json()["code"]), (404, "not_found"))
        self.assertIn("deleted meanwhile", answer.json()["title"])

    def test_an_option_differs_and_the_base_stays(self) -> None:
        option, layer = self.option(), self.small.ids["layer"]
        before = self.results(self.base)
        self.assertEqual(self.results(option), before)
        self.assertEqual(self.set(option, "layer", layer, thickness_m=0.3).status_code, 200)
        self.assertEqual(self.row(self.base, "layer", layer)["thickness_m"], 0.1)
        self.assertEqual(self.row(option, "layer", layer)["thickness_m"], 0.3)
        room = self.small.ids["room"]
        self.assertLess(self.results(option)["room"][room]["heating_w"], before["room"][room]["heating_w"] - 10.0)
        self.assertEqual(self.results(self.base), before)
        (one,) = self.differences(option)
        self.assertEqual((one["field"], one["base"], one["value"], one["conflict"]), ("thickness_m", 0.1, 0.3, False))
        listed = self.get(f"/projects/{option}/options").json()
        self.assertEqual((listed["base"]["id"], listed["options"][0]["differences"]), (self.base, 1))
        # It is no project of its own in the lists.
        self.assertNotIn(option, [p["id"] for p in self.get("/projects").json()])
        self.assertNotIn(option, [p["id"] for p in self.get("/session").json()["projects"]])

    def test_the_base_flows_into_what_the_option_does_not_say(self) -> None:
        option, room = self.option(), self.small.ids["room"]
        version = self.document(option)["version"]
        self.set(option, "room", room, floor_area_m2=30.0)
        self.set(self.base, "room", room, name="Studio")
        told = self.get(f"/projects/{option}/since", version=version).json()
        self.assertEqual(told["objects"]["changed"]["room"][0]["name"], "Studio")
        self.assertEqual(told["objects"]["changed"]["room"][0]["floor_area_m2"], 30.0)
        # A field that both say: the option's stands, and is a snag until somebody agrees.
        self.set(self.base, "room", room, floor_area_m2=25.0)
        snag = self.results(option)["snag"][f"option_floor_area_m2/{room}"]
        self.assertIn("30.0", snag["sentence"])
        self.assertIn("25.0", snag["sentence"])
        self.assertTrue(self.differences(option)[0]["conflict"])
        body = {"kind": "room", "id": room, "field": "floor_area_m2"}
        self.assertEqual(self.post(f"/projects/{option}/agree", body).status_code, 200)
        self.assertNotIn(f"option_floor_area_m2/{room}", self.results(option)["snag"])
        self.assertEqual(self.post(f"/projects/{option}/agree", body | {"field": "name"}).status_code, 404)

    def test_undo_goes_by_layer(self) -> None:
        option, room = self.option(), self.small.ids["room"]
        original = self.document(self.base)["objects"]
        self.set(self.base, "room", room, name="Base edit")
        self.set(option, "room", room, floor_area_m2=44.0)
        undone = self.post(f"/projects/{option}/undo?base_version=0")
        self.assertEqual(undone.status_code, 200, undone.content)
        self.assertEqual(self.differences(option), [])
        self.assertEqual(self.row(option, "room", room)["name"], "Base edit")
        self.assertEqual(self.post(f"/projects/{option}/undo?base_version=0").status_code, 409)
        self.post(f"/projects/{option}/redo?base_version=0")
        self.assertEqual(self.row(option, "room", room)["floor_area_m2"], 44.0)
        self.post(f"/projects/{self.base}/undo?base_version=0")
        self.assertEqual(self.document(self.base)["objects"]["room"], original["room"])
        self.assertEqual(self.row(option, "room", room)["floor_area_m2"], 44.0)

    def test_taken_over_and_undone(self) -> None:
        option, ids = self.option(), self.small.ids
        level = self.document(self.base)["objects"]["level"][0]["id"]
        new_room, new_wall = new_id(), new_id()
        self.commit(option, [
            create("room", new_room, number="2", name="Annex", level=level, use=ids["use"], floor_area_m2=12.0),
            create("surface", new_wall, room=new_room, name="North", role="outer_wall", boundary="outdoors", area_m2=9.0),
            {"op": "set", "kind": "layer", "id": ids["layer"], "fields": {"thickness_m": 0.2}},
            {"op": "delete", "kind": "opening", "id": ids["opening"], "fields": {}},
        ])  # fmt: skip
        original, wanted = self.document(self.base)["objects"], self.document(option)["objects"]
        body = {"base_version": self.document(self.base)["version"]}
        self.assertEqual(self.post(f"/projects/{option}/take-over", body).status_code, 200)
        taken = self.document(self.base)["objects"]
        for kind in ("room", "surface", "opening", "layer"):
            key = lambda row: row["id"]  # noqa: E731
            self.assertEqual(sorted(taken[kind], key=key), sorted(wanted[kind], key=key), kind)
        self.assertEqual(self.differences(option), [])
        self.assertEqual(self.post(f"/projects/{option}/take-over", {"base_version": 0}).status_code, 409)
        self.post(f"/projects/{self.base}/undo?base_version=0")
        back = self.document(self.base)["objects"]
        for kind in original:
            self.assertEqual(
                sorted(back[kind], key=lambda r: r["id"]), sorted(original[kind], key=lambda r: r["id"]), kind
            )
        self.assertEqual(len(self.differences(option)), 4)

    def test_what_the_base_removes(self) -> None:
        """Nothing of the option is lost: it comes back with what it stands on."""
        option, ids = self.option(), self.small.ids
        wall = new_id()
        self.set(option, "room", ids["room"], floor_area_m2=33.0)
        self.commit(option, [create("surface", wall, room=ids["room"], name="Extra", role="outer_wall", boundary="outdoors", area_m2=5.0)])  # fmt: skip
        self.commit(self.base, [{"op": "delete", "kind": "room", "id": ids["room"], "fields": {}}])
        objects = self.document(option)["objects"]
        self.assertEqual((objects["room"], [s for s in objects["surface"] if s["id"] == wall]), ([], []))
        self.assertEqual(self.get(f"/projects/{option}/results").status_code, 200)
        self.assertTrue(any(one["conflict"] for one in self.differences(option)))
        self.post(f"/projects/{self.base}/undo?base_version=0")
        self.assertEqual(self.row(option, "room", ids["room"])["floor_area_m2"], 33.0)
        self.assertIsNotNone(self.row(option, "surface", wall))

    def test_what_the_option_removes_and_the_base_uses_later(self) -> None:
        option = self.option()
        system = self.small.ids["system"]
        self.commit(option, [{"op": "delete", "kind": "air_system", "id": system, "fields": {}}])
        level = self.document(self.base)["objects"]["level"][0]["id"]
        late = new_id()
        self.commit(self.base, [create("room", late, number="9", name="Late", level=level, use=self.small.ids["use"],
                                       floor_area_m2=10.0, air_system=system)])  # fmt: skip
        self.assertIsNone(self.row(option, "room", late)["air_system"])
        self.assertEqual(self.row(self.base, "room", late)["air_system"], system)
        self.assertEqual(self.get(f"/projects/{option}/results").status_code, 200)

    def test_base_and_layer_are_a_copy_with_the_same_edits(self) -> None:
        """Random edits in an option, and the same ones in a copy of the base: every result is the same."""
        rng = random.Random(7)
        fields = {
            ("layer", "layer", "thickness_m"): (0.05, 0.4), ("glass", "glazing", "u_value"): (0.6, 3.0),
            ("glass", "glazing", "g_value"): (0.2, 0.7), ("room", "room", "floor_area_m2"): (10.0, 60.0),
            ("use", "use", "lights_value"): (2.0, 25.0), ("opening", "opening", "width_m"): (0.5, 4.0),
            ("surface", "surface", "azimuth_deg"): (0.0, 359.0), ("system", "air_system", "supply_c"): (12.0, 18.0),
        }  # fmt: skip
        for turn in range(4):
            option = self.option(f"Random {turn}")
            chosen = rng.sample(sorted(fields), 4)
            edits = [
                {"op": "set", "kind": kind, "id": self.small.ids[name], "fields": {field: rng.uniform(*fields[name, kind, field])}}
                for name, kind, field in chosen
            ]  # fmt: skip
            for edit in edits:
                self.assertEqual(self.commit(option, [edit]).status_code, 200)
            other = self.option(f"Other order {turn}")
            for edit in rng.sample(edits, len(edits)):
                self.commit(other, [edit])
            in_option = self.results(option)
            self.assertEqual(self.results(other), in_option)
            document.forget_all()
            service.forget_all()
            self.commit(self.base, edits)
            self.assertEqual(self.results(self.base), in_option)
            self.post(f"/projects/{self.base}/undo?base_version=0")

    def test_rows_that_an_option_does_not_touch_are_the_bases(self) -> None:
        option = self.option()
        self.set(option, "room", self.small.ids["room"], floor_area_m2=31.0)
        base = load_document(Project.objects.get(pk=self.base))
        layered = load_document(Project.objects.get(pk=option))
        for kind, rows in base.rows.items():
            for identity, row in rows.items():
                if (kind, identity) != ("room", self.small.ids["room"]):
                    self.assertIs(layered.row(kind, identity), row)

    def test_two_people_in_one_option(self) -> None:
        option, room = self.option(), self.small.ids["room"]
        version = self.document(option)["version"]
        self.assertEqual(
            self.commit(
                option, [{"op": "set", "kind": "room", "id": room, "fields": {"floor_area_m2": 41.0}}], version
            ).status_code,
            200,
        )
        clash = self.commit(
            option, [{"op": "set", "kind": "room", "id": room, "fields": {"floor_area_m2": 42.0}}], version
        )
        self.assertEqual(clash.status_code, 409)
        merged = self.commit(option, [{"op": "set", "kind": "room", "id": room, "fields": {"name": "Mine"}}], version)
        self.assertEqual(merged.status_code, 200)

    def test_detached_as_a_project_of_its_own(self) -> None:
        option = self.option()
        self.set(option, "room", self.small.ids["room"], floor_area_m2=37.0)
        copied = self.post(f"/projects/{option}/copy", {"name": "On its own"})
        self.assertEqual(copied.status_code, 201, copied.content)
        found = self.document(copied.json()["id"])["objects"]
        self.assertEqual([room["floor_area_m2"] for room in found["room"]], [37.0])
        self.assertIn("On its own", [p["name"] for p in self.get("/projects").json()])

    def test_refusals(self) -> None:
        option = self.option("A")
        for body, status in (
            ({"name": ""}, 422),
            ({"name": "a"}, 422),
            ({"name": "B", "like": "nothere"}, 404),
            ({"name": "B", "x": 1}, 422),
            ({"name": "B", "like": self.base}, 422),
        ):
            self.assertEqual(self.post(f"/projects/{self.base}/options", body).status_code, status, body)
        hostile = "<script>alert(1)</script> \u202e 漢字"
        self.assertEqual(self.post(f"/projects/{self.base}/options", {"name": hostile}).status_code, 201)
        self.assertIn(hostile, [o["name"] for o in self.get(f"/projects/{self.base}/options").json()["options"]])
        self.assertEqual(self.get(f"/projects/{self.base}/differences").status_code, 422)
        refused = self.set(option, "room", self.small.ids["room"], floor_area_m2=-1.0)
        self.assertEqual(refused.status_code, 422)
        self.assertEqual(self.differences(option), [])
        self.assertEqual(
            self.get(f"/projects/{self.base}/compare", options=[self.new_project("Other")]).status_code, 422
        )
        self.client.logout()
        self.assertIn(self.client.get(f"/api/projects/{option}/document").status_code, (401, 403))


class Compared(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = load_tarnwick(self.user).id
        self.objects = self.document(self.project)["objects"]

    def test_what_a_better_glass_changes(self) -> None:
        glass = self.objects["glazing"][0]
        option = self.post(f"/projects/{self.project}/options", {"name": "Better glass"}).json()["id"]
        self.assertEqual(self.set(option, "glazing", glass["id"], u_value=0.6, g_value=0.25).status_code, 200)
        found = self.get(f"/projects/{self.project}/compare", options=[option]).json()
        self.assertEqual([c["name"] for c in found["columns"]], ["Base", "Better glass"])
        rows = {(row["kind"], row["id"], row["figure"]): row["values"] for row in found["rows"]}
        base, better = (self.get(f"/projects/{p}/results").json()["changed"] for p in (self.project, option))
        for (kind, identity, figure), read in {
            ("group", "building", "cooling"): lambda r: r["group"]["building"]["cooling"]["sensible_w"],
            ("group", "building", "heating"): lambda r: r["group"]["building"]["heating_w"],
        }.items():
            self.assertEqual(rows[kind, identity, figure], [read(base), read(better)])
        self.assertLess(rows["group", "building", "cooling"][1], rows["group", "building", "cooling"][0])
        # What is told as different differs, and what differs is told.
        for identity, room in base["room"].items():
            told = ("room", identity, "heating") in rows
            self.assertEqual(
                told,
                abs(room["heating_w"] - better["room"][identity]["heating_w"]) > 1e-9 * max(1.0, room["heating_w"]),
            )
        self.assertGreater(found["same"], 0)
        self.assertIsNone(found["years"][option])

    def test_a_sweep_is_what_edits_would_be_and_keeps_nothing(self) -> None:
        layer = max(self.objects["layer"], key=lambda row: row["thickness_m"] or 0.0)
        before = self.document(self.project)
        asked = {"kind": "layer", "id": layer["id"], "field": "thickness_m", "values": [0.1, 0.2, 0.3]}
        points = self.post(f"/projects/{self.project}/sweep", asked).json()["points"]
        self.assertEqual(self.document(self.project), before)
        self.set(self.project, "layer", layer["id"], thickness_m=0.2)
        group = self.get(f"/projects/{self.project}/results").json()["changed"]["group"]["building"]
        self.assertAlmostEqual(points[1]["heating_w"], group["heating_w"], places=6)
        self.assertAlmostEqual(points[1]["cooling_w"], group["cooling"]["sensible_w"], places=6)
        self.assertGreater(points[0]["heating_w"], points[2]["heating_w"])
        glass = self.objects["glazing"][0]["id"]
        two = asked | {"other": {"kind": "glazing", "id": glass, "field": "g_value"}, "other_values": [0.2, 0.5]}
        found = self.post(f"/projects/{self.project}/sweep", two).json()["points"]
        self.assertEqual([(p["value"], p["other"]) for p in found[:3]], [(0.1, 0.2), (0.1, 0.5), (0.2, 0.2)])
        for body in (
            asked | {"values": []},
            asked | {"values": [-1.0]},
            asked | {"field": "colour"},
            asked | {"id": "gone"},
            asked | {"values": list(range(1, 60))},
        ):
            self.assertIn(self.post(f"/projects/{self.project}/sweep", body).status_code, (404, 422), body)

    def test_prices_make_the_kits_cost_by_hand(self) -> None:
        self.assertIsNone(self.get(f"/projects/{self.project}/prices").json()["total"])
        ids = [new_id(), new_id()]
        lines = self.get(f"/projects/{self.project}/prices").json()["lines"]
        duct = next(line for line in lines if line["item"].startswith("Round duct") and line["count"] >= 1)
        fan = next(line for line in lines if line["item"].startswith("Supply fan"))
        self.commit(self.project, [
            create("price", ids[0], item=duct["item"], size=duct["size"], per_unit=40.0),
            create("price", ids[1], item=fan["item"], each=900.0, per_unit=2.0),
        ])  # fmt: skip
        found = self.get(f"/projects/{self.project}/prices").json()
        fans = [line for line in found["lines"] if line["item"] == fan["item"]]
        wanted = 40.0 * duct["duty"] + sum(900.0 * line["count"] + 2.0 * line["duty"] for line in fans)
        self.assertAlmostEqual(found["total"], wanted, places=6)
        self.assertEqual(found["unpriced"], len(found["lines"]) - 1 - len(fans))
        option = self.post(f"/projects/{self.project}/options", {"name": "Dear fans"}).json()["id"]
        self.set(option, "price", ids[1], each=1000.0)
        totals = self.get(f"/projects/{self.project}/compare", options=[option]).json()["totals"]
        self.assertAlmostEqual(
            totals[option]["kit_cost"] - totals[self.project]["kit_cost"],
            100.0 * sum(line["count"] for line in fans),
            places=6,
        )

    def test_two_hundred_options_and_no_more(self) -> None:
        made = [self.post(f"/projects/{self.project}/options", {"name": f"Option {n}"}).status_code for n in range(201)]
        self.assertEqual((made.count(201), made[-1]), (200, 422))
        listed = self.get(f"/projects/{self.project}/options").json()["options"]
        self.assertEqual(len(listed), 200)
        many = self.get(f"/projects/{self.project}/compare", options=[option["id"] for option in listed[:11]])
        self.assertEqual(many.status_code, 422)
