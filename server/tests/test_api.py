"""Access, results, Working and exports over HTTP."""

import csv
import io
from pathlib import Path
from typing import Any
from unittest.mock import patch

from django.contrib.auth import get_user_model
from django.test import Client, override_settings
from openpyxl import load_workbook

from calculations import service
from demo.management.commands.write_generated import generated
from demo.tarnwick import load_tarnwick
from demo.trial import load_trial
from exchange.kit import safe_cell
from projects.document import load_document
from projects.models import Project
from tests.base import ApiTest, Small, create


class Access(ApiTest):
    def test_nobody_gets_in_unsigned(self) -> None:
        stranger = Client()
        for path in ("/api/session", "/api/projects/x/document", "/api/projects/x/results", "/api/projects/x/kit.csv"):
            answer = stranger.get(path)
            self.assertEqual(answer.status_code, 401, path)
            self.assertEqual(answer.json()["code"], "sign_in")

    def test_other_peoples_projects_are_not_there(self) -> None:
        project = self.new_project()
        other = Client()
        other.force_login(get_user_model().objects.create_user("other"))
        self.assertEqual(other.get(f"/api/projects/{project}/document").status_code, 404)
        body = {"base_version": 0, "label": "x", "changes": [{"op": "delete", "kind": "level", "id": "x"}]}
        self.assertEqual(
            other.post(f"/api/projects/{project}/changes", body, content_type="application/json").status_code, 404
        )

    def test_a_foreign_page_cannot_post(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(self.user)
        answer = strict.post("/api/projects", {"name": "x"}, content_type="application/json")
        self.assertEqual(answer.status_code, 403)

    def test_headers(self) -> None:
        answer = self.get("/session")
        self.assertIn("script-src 'self'", answer["Content-Security-Policy"])
        self.assertNotIn("script-src 'self' 'unsafe-inline'", answer["Content-Security-Policy"])
        self.assertEqual(answer["X-Frame-Options"], "DENY")
        self.assertEqual(answer["X-Content-Type-Options"], "nosniff")

    def test_only_the_demo_signs_in(self) -> None:
        stranger = Client()
        with override_settings(DEMO_SIGN_IN=False):
            stranger.get("/")
            self.assertEqual(stranger.get("/api/session").status_code, 401)

    def test_malformed_bodies_are_4xx(self) -> None:
        project = self.new_project()
        for body in (
            "",
            "[]",
            "{",
            '{"base_version": "x"}',
            '{"changes": null}',
            '{"base_version":1,"label":"","changes":[]}',
        ):
            answer = self.client.post(f"/api/projects/{project}/changes", body, content_type="application/json")
            self.assertIn(answer.status_code, (400, 422), body)
            self.assertIn("title", answer.json())
        for query in ("kind=room&subject=nowhere&month=7", "kind=group&subject=building&month=13"):
            self.assertEqual(self.client.get(f"/api/projects/{project}/day?{query}").status_code, 404)
        self.assertEqual(self.get(f"/projects/{project}/place", month=13).status_code, 422)


class Results(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.path = f"/projects/{self.small.project}"

    def test_an_edit_answers_with_what_changed(self) -> None:
        before = self.get(f"{self.path}/results").json()["changed"]
        answer = self.set(self.small.project, "opening", self.small.ids["opening"], width_m=3).json()
        changed = answer["results"]["changed"]
        room = self.small.ids["room"]
        self.assertFalse(answer["results"]["all"])
        self.assertGreater(
            changed["room"][room]["cooling"]["sensible_w"], before["room"][room]["cooling"]["sensible_w"]
        )
        self.assertNotIn("assembly", changed)
        self.assertNotIn("airflow", changed)

    def plant(self, version: int) -> dict[str, Any]:
        return self.get(f"{self.path}/results/plant", base_version=version).json()

    def test_what_serves_the_rooms_follows_the_loads(self) -> None:
        first = self.get(f"{self.path}/results").json()
        before, version = first["changed"], first["version"]
        room, system = self.small.ids["room"], self.small.ids["system"]
        self.set(self.small.project, "opening", self.small.ids["opening"], width_m=3)
        answer = self.plant(version)
        changed = answer["changed"]
        self.assertEqual((answer["version"], answer["all"]), (version + 1, False))
        self.assertGreater(changed["airflow"][room]["design_m3_s"], before["airflow"][room]["design_m3_s"])
        self.assertGreater(changed["air_system"][system]["coil_total_w"], before["air_system"][system]["coil_total_w"])
        self.assertNotIn("room", changed)
        self.assertEqual(self.plant(version + 1)["changed"], {})
        self.assertTrue(self.plant(version + 7)["all"])

    def test_an_overtaken_edit_sizes_nothing(self) -> None:
        from calculations import service

        version = self.get(f"{self.path}/results").json()["version"]
        with patch.object(service, "calculate_plant", wraps=service.calculate_plant) as sized:
            for width in (2.5, 3.0, 3.5):
                self.set(self.small.project, "opening", self.small.ids["opening"], width_m=width)
            self.assertEqual(sized.call_count, 0)
            followed = self.plant(version)
            self.plant(version)
            self.assertEqual(sized.call_count, 1)
        whole = self.get(f"{self.path}/results").json()["changed"]
        for kind, records in followed["changed"].items():
            for identity, record in records.items():
                self.assertEqual(record, whole[kind][identity])

    def test_results_are_those_of_a_fresh_calculation(self) -> None:
        from calculations import service

        self.set(self.small.project, "room", self.small.ids["room"], lights_w_m2=31)
        kept = self.get(f"{self.path}/results").json()["changed"]
        service.forget_all()
        self.assertEqual(self.get(f"{self.path}/results").json()["changed"], kept)

    def test_openings_larger_than_the_wall_name_both(self) -> None:
        self.set(self.small.project, "opening", self.small.ids["opening"], width_m=20)
        snag = self.get(f"{self.path}/results").json()["changed"]["snag"][
            f"openings_larger/{self.small.ids['surface']}"
        ]
        self.assertEqual(snag["level"], "stops")
        for word in ("Window", "South", "30.00", "15.00"):
            self.assertIn(word, snag["sentence"])

    def test_a_missing_role_stops_the_room_and_says_so(self) -> None:
        self.set(self.small.project, "kit", self.small.kit, window=None)
        changed = self.get(f"{self.path}/results").json()["changed"]
        self.assertEqual(changed["room"], {})
        self.assertIn("has no glazing", changed["snag"][f"no_glazing/{self.small.ids['opening']}"]["sentence"])

    def test_origins(self) -> None:
        effective = self.get(f"{self.path}/results").json()["changed"]["effective"][self.small.ids["room"]]
        self.assertEqual(effective["lights_w_m2"], [10, "use"])
        self.assertEqual(effective["height_m"], [3, "level"])
        answer = self.set(self.small.project, "room", self.small.ids["room"], lights_w_m2=12).json()
        changed = answer["results"]["changed"]["effective"][self.small.ids["room"]]
        self.assertEqual(changed["lights_w_m2"], [12, "own"])

    def test_a_value_comes_from_the_nearest_that_says_it(self) -> None:
        objects = self.get(f"{self.path}/document").json()["objects"]
        level, project = objects["level"][0]["id"], objects["project"][0]["id"]
        room, use = self.small.ids["room"], self.small.ids["use"]

        def heated_to() -> list[Any]:
            return self.get(f"{self.path}/results").json()["changed"]["effective"][room]["heating_setpoint_c"]

        for kind, identity, value, expected in (
            ("project", project, 17.0, [20.0, "use"]),
            ("use", use, None, [17.0, "project"]),
            ("level", level, 18.0, [18.0, "level"]),
            ("use", use, 19.0, [19.0, "use"]),
            ("room", room, 21.0, [21.0, "own"]),
            ("room", room, None, [19.0, "use"]),
        ):
            with self.subTest(kind=kind, value=value):
                self.set(self.small.project, kind, identity, heating_setpoint_c=value)
                self.assertEqual(heated_to(), expected)
        before = self.get(f"{self.path}/results").json()["changed"]["room"][room]["volume_m3"]
        self.set(self.small.project, "project", project, height_m=6.0)
        self.set(self.small.project, "level", level, height_m=None)
        found = self.get(f"{self.path}/results").json()["changed"]
        self.assertEqual(found["effective"][room]["height_m"], [6.0, "project"])
        self.assertAlmostEqual(found["room"][room]["volume_m3"], before * 2.0)

    def test_what_a_use_leaves_to_the_building_has_its_working_there(self) -> None:
        self.set(self.small.project, "use", self.small.ids["use"], heating_setpoint_c=None)
        tree = self.get(f"{self.path}/working", quantity="room_heating", subject=self.small.ids["room"]).json()

        def origins(node: dict[str, Any]) -> list[tuple[str, str]]:
            return [(node["name"], node["origin"]), *(o for child in node["inputs"] for o in origins(child))]

        self.assertIn(("Air held at", "Building"), origins(tree))

    def test_what_passes_values_on_refuses_set_points_in_the_wrong_order(self) -> None:
        project = self.get(f"{self.path}/document").json()["objects"]["project"][0]["id"]
        answer = self.set(self.small.project, "project", project, heating_setpoint_c=30.0)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("“Heating set-point” 30.0 is above “Cooling set-point” 26.0", answer.json()["title"])

    def test_day_adds_up_to_the_peak(self) -> None:
        room = self.small.ids["room"]
        peak = self.get(f"{self.path}/results").json()["changed"]["room"][room]["cooling"]
        day = self.get(f"{self.path}/day", kind="room", subject=room, month=peak["month"]).json()
        total = sum(course[peak["step"]] for course in day["parts"].values())
        self.assertAlmostEqual(total, peak["sensible_w"], delta=0.1)
        winter = self.get(f"{self.path}/day", kind="group", subject="building", month=0).json()
        self.assertGreater(sum(course[0] for course in winter["parts"].values()), 0)

    def test_working_carries_origins(self) -> None:
        tree = self.get(f"{self.path}/working", quantity="room_cooling", subject=self.small.ids["room"]).json()
        texts = str(tree)
        self.assertIn("Use › Office", texts)
        self.assertIn("Fabric kit", texts)
        use = f"use/{self.small.ids['use']}"

        def places(node: dict[str, Any]) -> set[tuple[str, str]]:
            return {(node["place"], node["field"])}.union(*(places(child) for child in node["inputs"]))

        # An input leads to the field that holds it.
        self.assertIn((use, "lights_value"), places(tree))
        self.assertEqual(self.get(f"{self.path}/working", quantity="room_cooling", subject="x").status_code, 404)

    def test_kit_as_csv_in_both_systems(self) -> None:
        for system, unit in (("SI", "kW"), ("IP", "MBh")):
            answer = self.get(f"{self.path}/kit.csv", system=system)
            rows = list(csv.reader(io.StringIO(answer.content.decode())))
            coil = next(row for row in rows if row[0] == "AHU-1 CC")
            self.assertEqual(coil[6], unit)
            # The workbook says the same, figures as numbers.
            book = load_workbook(io.BytesIO(self.get(f"{self.path}/kit.xlsx", system=system).content))
            told = [row for row in book.active.values if row[0] == "AHU-1 CC"]
            self.assertEqual(told[0][5], float(coil[5]))
            self.assertEqual([row[4] for row in told], [row[4] for row in rows if row[0] == "AHU-1 CC"])
        for kind in ("csv", "xlsx"):
            self.assertEqual(self.get(f"{self.path}/kit.{kind}", system="XX").status_code, 422)

    def test_loads_as_tables_say_what_the_screen_says(self) -> None:
        """Figures of the file against those of the results, in both unit systems and both forms."""
        told = self.get(f"{self.path}/results").json()["changed"]
        room = told["room"][self.small.ids["room"]]
        for system, unit, per_watt in (("SI", "kW", 1e-3), ("IP", "MBh", 3.412141633e-3)):
            text = self.get(f"{self.path}/loads.csv", units=system).content.decode("utf-8-sig")
            rows = list(csv.DictReader(io.StringIO(text)))
            line = next(row for row in rows if row["Kind"] == "Room")
            cooling = float(line[f"Cooling, sensible [{unit}]"])
            self.assertAlmostEqual(cooling, room["cooling"]["sensible_w"] * per_watt, 5)
            self.assertAlmostEqual(float(line[f"Heating [{unit}]"]), room["heating_w"] * per_watt, 5)
            parts = [float(line[key]) for key in line if key.startswith("Cooling by ")]
            self.assertAlmostEqual(sum(parts), cooling, 4)
            self.assertEqual(rows[-1]["Kind"], "Building")
            book = load_workbook(io.BytesIO(self.get(f"{self.path}/loads.xlsx", units=system).content))
            sheet = list(book.active.values)
            self.assertEqual(len(sheet), len(rows) + 1)
            at = sheet[0].index(f"Cooling, sensible [{unit}]")
            self.assertAlmostEqual(next(r for r in sheet[1:] if r[0] == "Room")[at], cooling, 6)
        self.assertEqual(self.get(f"{self.path}/loads.pdf").status_code, 422)

    def test_formulas_are_defused(self) -> None:
        self.set(self.small.project, "air_system", self.small.ids["system"], name="=1+1")
        text = self.get(f"{self.path}/kit.csv").content.decode()
        self.assertIn("'=1+1", text)
        self.assertEqual(safe_cell("@x"), "'@x")
        self.assertEqual(safe_cell("12"), "12")


class Demo(ApiTest):
    def test_tarnwick_is_whole(self) -> None:
        project = load_tarnwick(self.user)
        answer = self.get(f"/projects/{project.id}/results").json()["changed"]
        self.assertEqual(len(answer["room"]), 28)
        self.assertEqual([s for s in answer["snag"].values() if s["level"] == "stops"], [])
        self.assertEqual(len(answer["air_system"]), 4)
        self.assertEqual(len(answer["circuit"]), 2)
        # Plan area 42 x 24 m on two levels.
        self.assertAlmostEqual(answer["group"]["building"]["floor_area_m2"], 2 * 42 * 24, delta=0.5)
        rows = self.document(project.id)["objects"]
        outer = sum(s["area_m2"] for s in rows["surface"] if s["role"] == "outer_wall")
        self.assertAlmostEqual(outer, 2 * (42 + 24) * (4.2 + 3.8), delta=1.0)

    def test_trial_building(self) -> None:
        project = load_trial(self.user, 60)
        answer = self.get(f"/projects/{project.id}/results").json()["changed"]
        self.assertEqual(len(answer["room"]), 60)
        self.assertEqual(answer["snag"], {k: v for k, v in answer["snag"].items() if v["level"] != "stops"})


class Generated(ApiTest):
    def test_committed_files_are_fresh(self) -> None:
        for path, text in generated().items():
            self.assertEqual(Path(path).read_text(), text, f"{path.name} is stale: run make generated")


class AirUnits(ApiTest):
    """What a unit may have, from the document to its duties."""

    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.system = self.small.ids["system"]

    def result(self) -> Any:
        return self.get(f"/projects/{self.small.project}/results").json()["changed"]["air_system"][self.system]

    def test_recovery_hours_and_volume_change_the_duties(self) -> None:
        plain = self.result()
        self.set(self.small.project, "air_system", self.system, outdoor_only=True)
        fresh = self.result()
        self.assertGreater(fresh["winter"]["duty_w"], plain["winter"]["duty_w"])
        self.set(self.small.project, "air_system", self.system, recovery_sensible=0.7)
        self.assertLess(self.result()["winter"]["duty_w"], 0.6 * fresh["winter"]["duty_w"])
        hours = {"name": "Day shift", "kind": "on_off", "base": "a",
                 "patterns": [{"id": "a", "name": "Day", "steps": [[480, 0], [1080, 1], [1440, 0]]}]}  # fmt: skip
        self.commit(
            self.small.project,
            [create("schedule", "shift", **hours), {"op": "set", "kind": "air_system", "id": self.system, "fields": {"running": "shift"}}],
        )  # fmt: skip
        day = self.get(f"/projects/{self.small.project}/air/{self.system}", month=7).json()
        self.assertEqual((day["flow_kg_s"][0], day["coil_total_w"][0]), (0.0, 0.0))
        self.assertGreater(max(day["flow_kg_s"]), 0.0)
        winter = self.get(f"/projects/{self.small.project}/air/{self.system}", month=0).json()
        self.assertIn("recovered", winter["points"])
        self.assertEqual(self.get(f"/projects/{self.small.project}/air/{self.system}", month=14).status_code, 404)
        self.assertLess(self.result()["balance"], 1e-6)

    def test_terminals_reheat_from_the_circuit_of_the_coil(self) -> None:
        """By water, the plant carries what the terminals give as well; without a circuit that is a snag."""
        project = self.small.project
        self.set(project, "air_system", self.system, reheat="hot water", supply_c=13)
        self.commit(project, [create("circuit", "hot", name="Hot", kind="heating", flow_c=60, return_c=45),
                              create("plant_unit", "boiler", circuit="hot", name="Boiler")])  # fmt: skip
        snags = self.get(f"/projects/{project}/results").json()["changed"]["snag"]
        self.assertIn(f"reheat_without_circuit/{self.system}", snags)
        self.commit(project, [create("pipe_section", "p", circuit="hot", name="P", length_m=5, air_system=self.system)])

        def worked() -> Any:
            return service.results_of(load_document(Project.objects.get(pk=project))).results

        water = worked()
        self.set(project, "air_system", self.system, reheat="electric")
        electric = worked()
        unit = electric.systems[self.system]
        heat = sum(served.heat_w for served in unit.served.values())
        more = water.plants["hot"].course.winter_ends_w - electric.plants["hot"].course.winter_ends_w
        self.assertGreater(float(heat.max()), 100.0)
        self.assertLess(float(abs(more - heat).max()), 1e-6 * float(heat.max()))
        summer = water.plants["hot"].course.summer_ends_w - electric.plants["hot"].course.summer_ends_w
        self.assertLess(float(abs(summer - unit.reheat_w).max()), 1e-3)

    def test_ducts_by_class_insulation_and_method(self) -> None:
        """A looser class needs more fan flow, insulation keeps the air cool, and the balance of heat and moisture still closes."""
        self.set(self.small.project, "duct_section", self.small.ids["duct"], end_drop_pa=60)
        plain = self.result()
        self.set(self.small.project, "air_system", self.system, duct_leak_class="A", duct_insulation_m=0.0)
        loose = self.result()
        self.assertGreater(loose["duct_leak_share"], 0.0)
        self.assertAlmostEqual(loose["fan"]["flow_m3_s"] / plain["fan"]["flow_m3_s"], 1.0 / (1.0 - loose["duct_leak_share"]), delta=0.01)  # fmt: skip
        self.assertGreater(loose["duct_gain_k"], 0.05)
        self.assertLess(loose["balance"], 1e-6)
        self.set(self.small.project, "air_system", self.system, duct_insulation_m=0.05, duct_leak_class="D")
        wrapped = self.result()
        self.assertLess(wrapped["duct_gain_k"], 0.5 * loose["duct_gain_k"])
        self.assertLess(wrapped["duct_leak_share"], 0.1 * loose["duct_leak_share"])
        self.set(self.small.project, "air_system", self.system, duct_method="static regain", velocity_limit_m_s=5)
        sections = self.get(f"/projects/{self.small.project}/results").json()["changed"]["duct_section"]
        self.assertTrue(all(one["velocity_m_s"] <= 5.0 for one in sections.values()))

    def test_what_cannot_be_is_refused_by_its_label(self) -> None:
        for fields, words in (
            ({"duct_method": "by eye"}, "Ducts sized by 'by eye'"),
            ({"recovery_sensible": 1.2}, "Heat recovered 1.2"),
            ({"least_share": 1.5}, "Least flow of a terminal 1.5"),
            ({"economizer": "sometimes"}, "Economizer"),
            ({"running": "nowhere"}, "Runs"),
            ({"duct_leak_share": 0.6}, "Duct leakage 0.6"),
        ):
            answer = self.set(self.small.project, "air_system", self.system, **fields)
            self.assertEqual(answer.status_code, 422, fields)
            self.assertIn(words, answer.json()["title"])
        answer = self.set(
            self.small.project, "duct_section", self.small.ids["duct"], shape="rectangular", height_limit_m=0.01
        )
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Height at most", answer.json()["title"])


class Page(ApiTest):
    def test_style_sheets_of_all_parts_that_the_page_imports(self) -> None:
        """A part that several stages share is built apart, with styles of its own."""
        from config.page import entry_of

        manifest = {
            "main.ts": {"file": "main.js", "isEntry": True, "imports": ["_shared.js"], "css": ["main.css"]},
            "_shared.js": {"file": "shared.js", "imports": ["_deep.js", "main.ts"], "css": ["card.css"]},
            "_deep.js": {"file": "deep.js", "css": ["deep.css"]},
            "Stage.vue": {"file": "stage.js", "css": ["stage.css"]},
        }
        self.assertEqual(entry_of(manifest), ("main.js", ("main.css", "card.css", "deep.css")))
