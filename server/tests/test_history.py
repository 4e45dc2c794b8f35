"""History: who did what, one change taken back, a whole state brought back."""

from typing import Any

from django.contrib.auth import get_user_model

from accounts.models import Member
from projects.models import Project
from tests.base import ApiTest, Small


class History(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.room, self.wall = self.small.ids["room"], self.small.ids["surface"]

    def history(self, **query: Any) -> list[dict[str, Any]]:
        return self.get(f"/projects/{self.small.project}/history", **query).json()

    def back(self, version: int, how: str) -> Any:
        base = self.document(self.small.project)["version"]
        return self.post(f"/projects/{self.small.project}/history/{version}/{how}", {"base_version": base})

    def of(self, kind: str, identity: str) -> dict[str, Any]:
        return next(row for row in self.document(self.small.project)["objects"][kind] if row["id"] == identity)

    def test_entries_say_who_what_and_how_it_was(self) -> None:
        self.set(self.small.project, "room", self.room, floor_area_m2=25.0, name="Studio")
        other = get_user_model().objects.create_user("Edda")
        Member.objects.create(project_id=self.small.project, user=other, role="editor")
        self.client.force_login(other)
        self.set(self.small.project, "surface", self.wall, area_m2=18.0)
        latest, before = self.history()[:2]
        self.assertEqual((latest["author"], latest["kinds"], latest["label"]), ("Edda", ["surface"], "test"))
        self.assertEqual(before["author"], self.user.get_username())
        lines = self.get(f"/projects/{self.small.project}/history/{before['version']}").json()
        self.assertEqual({(one["field"], one["before"]) for one in lines}, {("Floor area", 20.0), ("Name", "Office")})
        self.assertEqual([e["version"] for e in self.history(author="Edda")], [latest["version"]])
        self.assertNotIn(latest["version"], [e["version"] for e in self.history(kind="room")])
        self.assertEqual([e["version"] for e in self.history(before=latest["version"])][0], before["version"])

    def test_one_change_is_taken_back_whoever_made_it(self) -> None:
        self.set(self.small.project, "room", self.room, floor_area_m2=25.0)
        version = self.history()[0]["version"]
        self.set(self.small.project, "surface", self.wall, area_m2=18.0)
        self.set(self.small.project, "room", self.room, name="Studio")
        answer = self.back(version, "take-back")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(
            (self.of("room", self.room)["floor_area_m2"], self.of("room", self.room)["name"]), (20.0, "Studio")
        )
        self.assertEqual(self.of("surface", self.wall)["area_m2"], 18.0)
        # It is a change like any other: undone, it is there again.
        self.post(f"/projects/{self.small.project}/undo?base_version=0")
        self.assertEqual(self.of("room", self.room)["floor_area_m2"], 25.0)
        # What was changed again since is not taken back behind its back.
        self.set(self.small.project, "room", self.room, floor_area_m2=30.0)
        refused = self.back(version, "take-back")
        self.assertEqual(refused.status_code, 409)
        self.assertIn("Studio", refused.json()["title"])
        self.assertEqual(self.of("room", self.room)["floor_area_m2"], 30.0)

    def test_a_whole_state_is_brought_back_and_undone(self) -> None:
        version = self.history()[0]["version"]
        original = self.document(self.small.project)["objects"]
        self.set(self.small.project, "room", self.room, floor_area_m2=25.0)
        self.commit(
            self.small.project, [{"op": "delete", "kind": "air_system", "id": self.small.ids["system"], "fields": {}}]
        )
        self.commit(
            self.small.project, [{"op": "delete", "kind": "opening", "id": self.small.ids["opening"], "fields": {}}]
        )
        changed = self.document(self.small.project)["objects"]
        self.assertEqual(self.back(version, "bring-back").status_code, 200)

        def same(a: dict[str, Any], b: dict[str, Any]) -> None:
            for kind in a:
                self.assertEqual(sorted(a[kind], key=lambda r: r["id"]), sorted(b[kind], key=lambda r: r["id"]), kind)

        same(self.document(self.small.project)["objects"], original)
        self.post(f"/projects/{self.small.project}/undo?base_version=0")
        same(self.document(self.small.project)["objects"], changed)
        latest = Project.objects.get(pk=self.small.project).version
        self.assertEqual(self.back(latest, "bring-back").status_code, 409)
        self.assertEqual(self.back(99_999, "bring-back").status_code, 404)
        self.assertEqual(self.back(99_999, "take-back").status_code, 404)

    def test_an_options_history_is_its_own(self) -> None:
        option = self.post(f"/projects/{self.small.project}/options", {"name": "A"}).json()["id"]
        self.set(self.small.project, "room", self.room, name="In the base")
        self.set(option, "room", self.room, floor_area_m2=31.0)
        told = self.get(f"/projects/{option}/history").json()
        self.assertEqual([entry["way"] for entry in told], ["edit", "base"])
        base = self.document(option)["version"]
        path = f"/projects/{option}/history/{told[1]['version']}"
        self.assertEqual(self.post(f"{path}/take-back", {"base_version": base}).status_code, 422)
        self.assertEqual(self.post(f"{path}/bring-back", {"base_version": base}).status_code, 200)
        self.assertEqual(self.get(f"/projects/{option}/differences").json()["differences"], [])
        self.assertEqual(self.of("room", self.room)["name"], "In the base")
