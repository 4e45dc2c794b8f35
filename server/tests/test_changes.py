"""The one door for edits: what it takes, what it refuses, and that nothing is lost."""

from typing import Any

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as HypothesisTestCase

from projects.document import forget_all, load_document
from projects.kinds import KINDS
from projects.models import JournalEntry, Project
from tests.base import ApiTest, Small, create


def pattern(steps: list[list[float]]) -> list[dict[str, Any]]:
    return [{"id": "a", "name": "Weekday", "steps": steps}]


class Refusals(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.before = self.document(self.small.project)

    def refused(self, status: int, kind: str, name: str, *words: str, **fields: Any) -> dict[str, Any]:
        answer = self.set(self.small.project, kind, self.small.ids[name], **fields)
        self.assertEqual(answer.status_code, status, answer.content)
        self.assertEqual(answer["Content-Type"], "application/problem+json")
        problem = answer.json()
        for word in words:
            self.assertIn(word, problem["title"] + str(problem["faults"]))
        self.assertEqual(self.document(self.small.project), self.before)
        return problem

    def test_negative_area(self) -> None:
        problem = self.refused(422, "surface", "surface", "area_m2", "-3", "at least 0.01", area_m2=-3)
        self.assertEqual(problem["faults"][0]["field"], "area_m2")
        self.assertEqual(problem["faults"][0]["path"], "/changes/0/fields/area_m2")
        self.assertEqual(problem["faults"][0]["value"], -3)

    def test_text_for_a_number(self) -> None:
        self.refused(422, "room", "room", "floor_area_m2", "twenty", floor_area_m2="twenty")

    def test_not_a_finite_number(self) -> None:
        for text in ("NaN", "Infinity", "1e999"):
            body = (
                '{"base_version": 99, "label": "x", "changes": [{"op": "set", "kind": "surface", "id": "'
                + self.small.ids["surface"] + '", "fields": {"area_m2": ' + text + "}}]}"
            )  # fmt: skip
            answer = self.client.post(
                f"/api/projects/{self.small.project}/changes", body, content_type="application/json"
            )
            self.assertIn(answer.status_code, (400, 409, 422), text)
        self.assertEqual(self.document(self.small.project), self.before)

    def test_25_hours(self) -> None:
        schedule = self.before["objects"]["schedule"][0]
        answer = self.set(self.small.project, "schedule", schedule["id"], patterns=pattern([[480, 0.0], [1500, 1.0]]))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("25:00 is after 24:00", answer.json()["title"])

    def test_schedule_with_a_gap(self) -> None:
        schedule = self.before["objects"]["schedule"][0]["id"]
        answer = self.set(self.small.project, "schedule", schedule, patterns=pattern([[480, 0.0], [1000, 1.0]]))
        self.assertIn("24:00", answer.json()["title"])

    def test_layer_without_thickness(self) -> None:
        self.refused(422, "layer", "layer", "thickness_m", "0", thickness_m=0)
        # An empty thickness is kept while typing, but the room that uses it waits and says why.
        self.assertEqual(
            self.set(self.small.project, "layer", self.small.ids["layer"], thickness_m=None).status_code, 200
        )
        results = self.get(f"/projects/{self.small.project}/results").json()["changed"]
        self.assertIn("has no thickness", str(results["snag"]))
        self.assertEqual(results["room"], {})

    def test_set_points_crossed(self) -> None:
        self.refused(422, "use", "use", "“Heating set-point” 30", "“Cooling set-point” 24", heating_setpoint_c=30)
        self.refused(422, "room", "room", "28.0", "26.0", heating_setpoint_c=28, cooling_setpoint_c=26)

    def test_wet_bulb_above_dry_bulb(self) -> None:
        month = self.before["objects"]["design_month"][0]
        answer = self.set(self.small.project, "design_month", month["id"], wet_bulb_c=39)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("above “Dry-bulb”", answer.json()["title"])

    def test_unknown_field_kind_and_reference(self) -> None:
        self.refused(422, "room", "room", "no such field of a room", colour="red")
        self.refused(422, "room", "room", "no such use", use="nowhere")
        answer = self.commit(self.small.project, [create("dragon", "d1")])
        self.assertEqual(answer.status_code, 422)

    def test_one_fault_and_nothing_of_the_set_is_applied(self) -> None:
        changes = [
            {"op": "set", "kind": "room", "id": self.small.ids["room"], "fields": {"name": "Renamed"}},
            {"op": "set", "kind": "surface", "id": self.small.ids["surface"], "fields": {"area_m2": -1}},
        ]
        answer = self.commit(self.small.project, changes)
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(answer.json()["faults"][0]["path"], "/changes/1/fields/area_m2")
        self.assertEqual(self.document(self.small.project), self.before)

    def test_what_is_in_use_is_not_deleted(self) -> None:
        answer = self.commit(self.small.project, [{"op": "delete", "kind": "use", "id": self.small.ids["use"]}])
        self.assertEqual(answer.status_code, 409)
        self.assertIn("used by 1 room", answer.json()["title"])

    def test_taken_id(self) -> None:
        answer = self.commit(self.small.project, [create("level", self.before["objects"]["level"][0]["id"], name="X")])
        self.assertEqual(answer.status_code, 409)

    def test_crossed_with_the_use_is_a_snag(self) -> None:
        self.assertEqual(
            self.set(self.small.project, "room", self.small.ids["room"], heating_setpoint_c=26).status_code, 200
        )
        snags = self.get(f"/projects/{self.small.project}/results").json()["changed"]["snag"]
        self.assertIn(f"setpoints_crossed/{self.small.ids['room']}", snags)


class Versions(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.version = self.document(self.small.project)["version"]

    def change(self, version: int, **fields: Any) -> Any:
        room = {"op": "set", "kind": "room", "id": self.small.ids["room"], "fields": fields}
        return self.commit(self.small.project, [room], version)

    def test_other_fields_merge(self) -> None:
        self.assertEqual(self.change(self.version, name="One").status_code, 200)
        answer = self.change(self.version, floor_area_m2=25)
        self.assertEqual(answer.status_code, 200)
        room = answer.json()["objects"]["changed"]["room"][0]
        self.assertEqual((room["name"], room["floor_area_m2"]), ("One", 25))

    def test_the_same_field_is_refused_with_both_values(self) -> None:
        self.change(self.version, name="One")
        answer = self.change(self.version, name="Two")
        self.assertEqual(answer.status_code, 409)
        problem = answer.json()
        fault = problem["faults"][0]
        self.assertEqual((fault["field"], fault["value"], fault["now"]), ("name", "Two", "One"))
        self.assertIn("1 One", problem["title"])
        self.assertEqual(problem["rows"]["room"][0]["name"], "One")

    def test_a_stale_delete_is_a_conflict(self) -> None:
        """What another window edited since is not deleted unseen; on the present version it is."""
        self.change(self.version, name="One")
        gone = [{"op": "delete", "kind": "room", "id": self.small.ids["room"]}]
        answer = self.commit(self.small.project, gone, self.version)
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["rows"]["room"][0]["name"], "One")
        self.assertEqual(self.commit(self.small.project, gone, self.version + 1).status_code, 200)

    def test_answers_bring_all_that_changed_since(self) -> None:
        """Two windows: the one that is behind gets the other's rows with its own edit, and by asking; then both are equal."""
        self.change(self.version, name="One")
        other = self.small.ids["surface"]
        edit = [{"op": "set", "kind": "surface", "id": other, "fields": {"name": "Front"}}]
        answer = self.commit(self.small.project, edit, self.version).json()
        self.assertEqual(answer["objects"]["changed"]["room"][0]["name"], "One")
        self.assertEqual(answer["objects"]["changed"]["surface"][0]["name"], "Front")
        self.assertEqual(answer["results"]["version"], self.version + 2)
        base = f"/api/projects/{self.small.project}/since"
        late = self.client.get(base, {"version": self.version}).json()
        self.assertEqual(late["objects"], answer["objects"])
        again = self.client.get(base, {"version": late["version"], "results_version": late["version"]}).json()
        self.assertEqual((again["objects"], again["results"]), ({"changed": {}, "gone": {}}, None))
        self.commit(self.small.project, [{"op": "delete", "kind": "surface", "id": other}], late["version"])
        gone = self.client.get(base, {"version": late["version"]}).json()["objects"]["gone"]
        self.assertIn(other, gone["surface"])

    def test_a_version_from_the_future(self) -> None:
        self.assertEqual(self.change(self.version + 7, name="One").status_code, 409)


class UndoRedo(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.project = self.small.project

    def step(self, way: str) -> Any:
        version = self.document(self.project)["version"]
        return self.post(f"/projects/{self.project}/{way}?base_version={version}")

    def objects(self) -> dict[str, Any]:
        found = self.document(self.project)["objects"]
        return {kind: sorted(rows, key=lambda row: row["id"]) for kind, rows in found.items()}

    def test_a_deleted_room_comes_back_whole(self) -> None:
        before = self.objects()
        answer = self.commit(self.project, [{"op": "delete", "kind": "room", "id": self.small.ids["room"]}])
        self.assertEqual(set(answer.json()["objects"]["gone"]), {"room", "surface", "opening"})
        self.assertIsNone(self.objects()["duct_section"][0]["room"])
        self.assertEqual(self.step("undo").status_code, 200)
        self.assertEqual(self.objects(), before)
        forget_all()
        self.assertEqual(self.objects(), before)

    def test_chain(self) -> None:
        names = []
        for name in ("A", "B", "C"):
            self.set(self.project, "room", self.small.ids["room"], name=name)
        for way in ("undo", "undo", "redo", "undo", "undo", "redo", "redo", "redo"):
            self.step(way)
            names.append(self.objects()["room"][0]["name"])
        self.assertEqual(names, ["B", "A", "B", "A", "Office", "A", "B", "C"])
        self.assertEqual(self.step("redo").status_code, 409)

    def test_a_new_edit_ends_redo(self) -> None:
        self.set(self.project, "room", self.small.ids["room"], name="A")
        self.step("undo")
        self.set(self.project, "room", self.small.ids["room"], name="B")
        answer = self.step("undo")
        self.assertEqual(answer.json()["steps"]["redo"], "test")
        self.step("redo")
        self.assertEqual(self.objects()["room"][0]["name"], "B")
        self.assertEqual(self.step("redo").status_code, 409)

    def test_a_fresh_project_has_nothing_to_undo(self) -> None:
        other = self.new_project("Other")
        self.assertEqual(self.document(other)["steps"], {"undo": None, "redo": None})
        self.assertEqual(self.post(f"/projects/{other}/undo?base_version=1").status_code, 409)

    def test_removed_duct_rehangs_what_followed(self) -> None:
        first = self.small.ids["duct"]
        self.commit(self.project, [create("duct_section", "next", air_system=self.small.ids["system"], parent=first,
                                          name="Next", length_m=3)])  # fmt: skip
        before = self.objects()
        self.commit(self.project, [{"op": "delete", "kind": "duct_section", "id": first}])
        self.assertIsNone(self.objects()["duct_section"][0]["parent"])
        self.step("undo")
        self.assertEqual(self.objects(), before)


class AnyEdits(HypothesisTestCase):
    """Whatever is edited, undoing all of it gives the first document back."""

    @settings(max_examples=8, deadline=None, suppress_health_check=list(HealthCheck))
    @given(
        st.lists(
            st.tuples(st.sampled_from(["floor_area_m2", "height_m", "lights_w_m2"]), st.floats(0.5, 90)),
            min_size=1,
            max_size=5,
        )
    )
    def test_undo_all(self, edits: list[tuple[str, float]]) -> None:
        test = ApiTest()
        test._pre_setup()
        try:
            test.setUp()
            self.undone(test, edits)
        finally:
            test._post_teardown()

    def undone(self, test: ApiTest, edits: list[tuple[str, float]]) -> None:
        small = Small(test)
        first = test.document(small.project)["objects"]
        made = sum(test.set(small.project, "room", small.ids["room"], **{f: v}).status_code == 200 for f, v in edits)
        self.assertEqual(made, len(edits))
        last = JournalEntry.objects.filter(project_id=small.project, way="edit").count()
        for _ in range(last - 1):
            test.post(f"/projects/{small.project}/undo?base_version=0")
        self.assertEqual(test.document(small.project)["objects"], first)


class Loading(ApiTest):
    def test_queries_do_not_grow_with_the_document(self) -> None:
        small = Small(self)
        forget_all()
        project = Project.objects.get(pk=small.project)
        with self.assertNumQueries(len(KINDS) + 1):  # and whether somebody saved in between
            load_document(project)
