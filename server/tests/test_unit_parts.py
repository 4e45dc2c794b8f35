"""Parts of a unit: what is refused, what an edit does, and how units and options of earlier projects come over."""

import importlib
from typing import Any

from django.apps import apps as installed
from django.db import connection

from projects.models import AirSystem, JournalEntry, Project
from tests.base import ApiTest, create
from tests.base import Small as SmallProject

PARTS = [{"kind": "filter", "drop_pa": 100.0}, {"kind": "heating coil"}, {"kind": "cooling coil"}, {"kind": "fan"}]


class Parts(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = SmallProject(self)
        self.project = self.small.project
        made = [create("air_system", "ahu", name="AHU"), self.put("room", self.small.ids["room"], air_system="ahu")]
        self.assertEqual(self.send(made).status_code, 200)

    def put(self, kind: str, identity: str, **fields: Any) -> dict[str, Any]:
        return {"op": "set", "kind": kind, "id": identity, "fields": fields}

    def send(self, changes: list[dict[str, Any]]) -> Any:
        return self.commit(self.project, changes, Project.objects.get(pk=self.project).version)

    def parts(self, *parts: dict[str, Any]) -> Any:
        return self.send([self.put("air_system", "ahu", parts=list(parts))])

    def test_a_new_unit_has_the_usual_parts(self) -> None:
        row = next(one for one in self.document(self.project)["objects"]["air_system"] if one["id"] == "ahu")
        kinds = [part["kind"] for part in row["parts"]]
        self.assertEqual(kinds, ["filter", "heating coil", "cooling coil", "fan", "other"])

    def test_drops_of_all_parts_are_the_fans(self) -> None:
        def total() -> float:
            results = self.get(f"/projects/{self.project}/results").json()
            return float(results["changed"]["air_system"]["ahu"]["fan"]["total_pa"])

        self.assertEqual(self.parts(*PARTS).status_code, 200)
        self.assertAlmostEqual(total(), 100.0)
        self.assertEqual(self.parts(*PARTS, {"kind": "attenuator", "drop_pa": 45.0}).status_code, 200)
        self.assertAlmostEqual(total(), 145.0)

    def test_refusals_name_what_is_wrong(self) -> None:
        before = self.document(self.project)["objects"]["air_system"]
        for parts, words in (
            ([], "Parts of the unit"),
            (PARTS[:3], "one supply fan"),
            ([*PARTS, {"kind": "fan"}], "one supply fan"),
            ([*PARTS, {"kind": "cooling coil"}], "one cooling coil"),
            ([*PARTS, {"kind": "steam humidifier"}, {"kind": "adiabatic humidifier"}], "one humidifier"),
            ([*PARTS[:2], {"kind": "heating coil"}, *PARTS[2:]], "two heating coils"),
            ([*PARTS, {"kind": "chimney"}], "Parts of the unit 5"),
            ([{"kind": "filter", "drop_pa": 9000.0}, *PARTS[1:]], "pressure drop 9000"),
            ([{"kind": "filter", "drop_pa": 90.0, "clean_pa": 120.0}, *PARTS[1:]], "a new one takes 120 Pa"),
            ([*PARTS[:2], {"kind": "cooling coil", "drop_pa": 90.0, "clean_pa": 60.0}, PARTS[3]], "only a filter"),
        ):
            answer = self.parts(*parts)
            self.assertEqual(answer.status_code, 422, words)
            self.assertIn(words, answer.content.decode())
        self.assertEqual(self.document(self.project)["objects"]["air_system"], before)

    def test_the_states_behind_all_parts_are_told(self) -> None:
        order = ["cooling coil", "fan", "heating coil", "attenuator"]
        self.assertEqual(self.parts(*({"kind": kind} for kind in order)).status_code, 200)
        day = self.get(f"/projects/{self.project}/air/ahu?month=7").json()
        self.assertEqual([part["kind"] for part in day["parts"]], order)
        warmer = [b - a for a, b in zip(*(day["parts"][i]["temperature_c"] for i in (0, 1)), strict=True)]
        rise = [p / (f * 1015.0) for p, f in zip(day["fan_w"], day["flow_kg_s"], strict=True)]
        for found, want in zip(warmer, rise, strict=True):
            self.assertAlmostEqual(found, want, delta=0.01)
        self.assertEqual(day["parts"][2]["temperature_c"], day["parts"][3]["temperature_c"])

    def test_settings_of_earlier_projects_become_parts(self) -> None:
        """The migration's own step on rows and layers as they were: the columns are put back for it."""
        step = importlib.import_module("projects.migrations.0035_unit_parts")
        option = self.client.post(
            f"/api/projects/{self.project}/options", {"name": "Blow"}, content_type="application/json"
        )
        self.assertEqual(option.status_code, 201, option.content)
        row = Project.objects.get(base_id=self.project)
        row.layer = {
            "air_system": {
                "ahu": {"op": "set", "fields": {"blow_through": True, "supply_c": 13.0}, "was": {"blow_through": False, "supply_c": 14.0}},
                "new": {"op": "made", "fields": {"name": "B", "humidifier": "adiabatic", "filter_drop_pa": 60.0}},
                "old": {"op": "gone"},
            }
        }  # fmt: skip
        row.save()

        class Before:
            """The table with the columns that it had."""

            class objects:  # noqa: N801 (as Django calls it)
                @staticmethod
                def all() -> list[Any]:
                    (unit,) = AirSystem.objects.filter(pk="ahu")
                    for name, value in {"filter_drop_pa": 90.0, "coil_drop_pa": 70.0, "other_drop_pa": 0.0, "cools": True,
                                        "humidifier": "none", "blow_through": False}.items():  # fmt: skip
                        setattr(unit, name, value)
                    return [unit]

        class Registry:
            @staticmethod
            def get_model(app: str, name: str) -> Any:
                return Before if name == "AirSystem" else installed.get_model(app, name)

        entry = JournalEntry.objects.filter(project_id=self.project).order_by("-pk")[0]
        entry.changes = [
            {"op": "set", "kind": "air_system", "id": "ahu", "fields": {"blow_through": True}},
            {"op": "set", "kind": "air_system", "id": "ahu", "fields": {"cools": False, "supply_c": 15.0}},
            {"op": "create", "kind": "air_system", "id": "b", "fields": {"name": "B", "blow_through": True}},
        ]
        entry.save()
        step.settings_into_parts(Registry, connection.schema_editor())
        entry.refresh_from_db()
        self.assertEqual([change["fields"].get("supply_c") for change in entry.changes], [15.0, None])
        made = [part["kind"] for part in entry.changes[1]["fields"]["parts"]]
        self.assertEqual(made, ["filter", "heating coil", "fan", "cooling coil", "other"])
        kinds = [(part["kind"], part["drop_pa"]) for part in AirSystem.objects.get(pk="ahu").parts]
        self.assertEqual(kinds, [("filter", 90.0), ("heating coil", 0.0), ("cooling coil", 70.0), ("fan", 0.0)])
        row.refresh_from_db()
        layer = row.layer["air_system"]
        self.assertEqual(
            [part["kind"] for part in layer["ahu"]["fields"]["parts"]],
            ["filter", "heating coil", "fan", "cooling coil"],
        )
        self.assertEqual(layer["ahu"]["was"]["supply_c"], 14.0)
        self.assertNotIn("blow_through", layer["ahu"]["fields"] | layer["ahu"]["was"])
        self.assertEqual([part["kind"] for part in layer["ahu"]["was"]["parts"]], [kind for kind, _ in kinds])
        self.assertIn({"kind": "adiabatic humidifier", "drop_pa": 0.0}, layer["new"]["fields"]["parts"])
        self.assertEqual(layer["old"], {"op": "gone"})
