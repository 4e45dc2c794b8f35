"""The definition side over HTTP: schedules, weather, shelf, preview, ground, shading, and what is refused."""

from pathlib import Path
from typing import Any

import pvlib
from django.core.files.uploadedfile import SimpleUploadedFile

from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from calculations.service import results_of
from projects.document import load_document
from projects.models import Project
from shelf.materials import materials
from shelf.schedules import schedules
from shelf.uses import uses
from tests.base import ApiTest, Small, Worked, create

TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"


class Definitions(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.base = f"/projects/{self.small.project}"

    def results(self) -> dict[str, Any]:
        return self.get(f"{self.base}/results").json()["changed"]

    def row(self, kind: str, identity: str | None = None) -> dict[str, Any]:
        rows = self.document(self.small.project)["objects"][kind]
        return next(r for r in rows if identity is None or r["id"] == identity)

    def change(self, kind: str, name: str, **fields: Any) -> None:
        answer = self.set(self.small.project, kind, self.small.ids.get(name, name), **fields)
        self.assertEqual(answer.status_code, 200, answer.content)

    def refused(self, answer: Any, *words: str) -> None:
        self.assertIn(answer.status_code, (404, 409, 422), answer.content)
        for word in words:
            self.assertIn(word, answer.json()["title"])


class Schedules(Definitions):
    def plan(self, **fields: Any) -> dict[str, Any]:
        patterns = [
            {"id": "a", "name": "Open", "steps": [[540, 0], [1080, 1], [1440, 0]]},
            {"id": "b", "name": "Shut", "steps": [[1440, 0]]},
        ]
        return {"name": "Plan", "patterns": patterns, "base": "a"} | fields

    def create(self, **fields: Any) -> Any:
        return self.commit(self.small.project, [create("schedule", "plan", **self.plan(**fields))])

    def test_what_cannot_be_saved(self) -> None:
        rule = {"start": "07-01", "end": "08-31", "pattern": "x"}
        self.refused(self.create(rules=[rule]), "'x' is not among")
        self.refused(self.create(rules=[rule | {"pattern": "b", "start": "13-01"}]), "13-01", "not a date")
        self.refused(self.create(base="z"), "'z' is not among")
        self.refused(self.create(kind="on_off", patterns=[{"id": "a", "name": "A", "steps": [[1440, 0.5]]}]), "0 or 1")
        self.refused(
            self.create(kind="temperature", patterns=[{"id": "a", "name": "A", "steps": [[1440, 200]]}]), "-60 to 120"
        )
        self.refused(self.create(name="a/b"), "Name")
        self.refused(self.create(name="  working HOURS "), "already a schedule")
        self.assertEqual(self.create(name=" Trimmed ").status_code, 200)
        self.assertEqual(self.row("schedule", "plan")["name"], "Trimmed")

    def test_days_of_the_year_and_design_days(self) -> None:
        rules = [{"start": "01-01", "end": "12-31", "days": "00000111", "pattern": "b"},
                 {"start": "08-01", "end": "08-31", "pattern": "b"}]  # fmt: skip
        self.assertEqual(self.create(rules=rules).status_code, 200)
        self.change("project", self.small.project, year=2027, holidays=[{"date": "05-03", "name": "Fair"}])
        found = self.results()["schedule"]["plan"]
        self.assertEqual(len(found["days"]), 365)
        self.assertEqual(found["days"][:4], [0, 1, 1, 0])  # 2027 begins on a Friday
        self.assertEqual(found["days"][122], 1)  # the holiday, a Monday
        self.assertEqual(set(found["days"][212:243]), {1})
        self.assertEqual(found["summer"], ["a"] * 12)
        self.assertIsNone(found["winter"])
        self.change("schedule", "plan", summer_by_month=True)
        self.assertEqual(self.results()["schedule"]["plan"]["summer"], ["a"] * 7 + ["b"] + ["a"] * 4)
        open_days = sum(day == 0 for day in found["days"])
        self.assertAlmostEqual(found["hours_a_year"], 9.0 * open_days)

    def test_august_shut_moves_the_people_s_part_and_nothing_else(self) -> None:
        self.create(rules=[{"start": "08-01", "end": "08-31", "pattern": "b"}], summer_by_month=True)
        self.change("use", "use", people_schedule="plan")
        day = {
            m: self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=m).json() for m in (7, 8)
        }
        self.assertIn("people", day[7]["parts"])
        self.assertNotIn("people", day[8]["parts"])
        self.assertEqual(max(day[8]["latent_w"]), 0.0)

    def test_daylight_saving_moves_schedules_and_not_the_sun(self) -> None:
        self.create()
        self.change("use", "use", people_schedule="plan", lights_schedule=None)
        before = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=7).json()
        self.change("site", self.row("site")["id"], saving_from="03-28", saving_to="10-31")
        after = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=7).json()
        self.assertEqual(before["parts"]["sun"], after["parts"]["sun"])
        self.assertEqual(before["latent_w"], after["latent_w"][-6:] + after["latent_w"][:-6])
        winter = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=1).json()
        self.assertEqual(winter["latent_w"], before["latent_w"])

    def test_values_in_and_out(self) -> None:
        row = self.post(f"{self.base}/schedules/read", {"text": ",".join(["0"] * 8 + ["1"] * 10 + ["0"] * 6)}).json()
        self.assertEqual(row["patterns"][0]["steps"], [[480, 0.0], [1080, 1.0], [1440, 0.0]])
        column = "hour,value\n" + "\n".join(f"{h},{h % 24 / 24}" for h in range(8760))
        year = self.post(f"{self.base}/schedules/read", {"text": column}).json()
        self.assertEqual((len(year["patterns"]), year["rules"]), (1, []))
        self.assertEqual(self.create(**year).status_code, 200)
        answer = self.get(f"{self.base}/schedules/plan/year.csv")
        lines = answer.content.decode().splitlines()
        self.assertEqual(len(lines), 8761)
        self.assertEqual(lines[13], f"2027-01-01,12,{12 / 24:.6g}")
        self.assertIn("Plan.csv", answer["Content-Disposition"])
        day = self.get(f"{self.base}/schedules/plan/{year['base']}.csv", values=96).content.decode().splitlines()
        self.assertEqual((len(day), day[0], day[50]), (97, "time,value in fraction", f"12:15,{12 / 24:.6g}"))
        for heading, figure, stored in (("hour,share %", 60, 0.6), ("set-point °F", 68, 20.0), ("value", 0.6, 0.6)):
            text = heading + "\n" + "\n".join([str(figure)] * 24)
            steps = self.post(f"{self.base}/schedules/read", {"text": text}).json()["patterns"][0]["steps"]
            self.assertEqual(steps[0][0], 1440)
            self.assertAlmostEqual(steps[0][1], stored, places=9)
        self.refused(self.get(f"{self.base}/schedules/plan/{year['base']}.csv", values=7), "values 7")
        self.refused(self.post(f"{self.base}/schedules/read", {"text": "1\n2\nx"}), "Line 3", "'x'")
        self.refused(self.post(f"{self.base}/schedules/read", {"text": "1,2,3"}), "3 numbers")
        self.refused(self.get(f"{self.base}/schedules/none/year.csv"), "'none'")


class Uses(Definitions):
    def test_bases_are_the_same_thing_written_otherwise(self) -> None:
        """0.1/m² on 20 m² are 10 m² each, or 2 people; 10 W/m² are 200 W, or 100 W a person."""
        want = self.results()["room"][self.small.ids["room"]]
        for fields in (
            {"people_basis": "m2_per_person", "people_value": 10},
            {"people_basis": "count", "people_value": 2},
            {"lights_basis": "w", "lights_value": 200},
            {"lights_basis": "w_per_person", "lights_value": 100},
        ):
            self.change("use", "use", **fields)
            found = self.results()
            self.assertAlmostEqual(
                found["room"][self.small.ids["room"]]["cooling"]["total_w"], want["cooling"]["total_w"]
            )
            derived = found["use"][self.small.ids["use"]]
            self.assertAlmostEqual(derived["people_per_m2"], 0.1)
            self.assertAlmostEqual(derived["lights_w_m2"], 10.0)

    def test_densities_stay_within_reason(self) -> None:
        use = self.small.ids["use"]
        self.refused(
            self.set(self.small.project, "use", use, people_value=12), "“People” 12 per floor area is more than 5"
        )
        self.assertEqual(
            self.set(self.small.project, "use", use, people_basis="count", people_value=12).status_code, 200
        )
        self.refused(self.set(self.small.project, "use", use, people_basis="per_m2"), "People")
        self.refused(self.set(self.small.project, "use", use, lights_value=900), "“Lights” 900")

    def test_items_add_to_the_equipment(self) -> None:
        self.change("use", "use", cooling_setpoint_c=24)
        item = create("use_item", "kiln", use=self.small.ids["use"], name="Kiln", value=3000, count=2, usage_factor=0.5,
                      radiant_share=0, latent_share=0.1, vented_share=0.4)  # fmt: skip
        before = self.results()["room"][self.small.ids["room"]]["cooling"]
        self.assertEqual(self.commit(self.small.project, [item]).status_code, 200)
        after = self.results()["room"][self.small.ids["room"]]["cooling"]
        self.assertAlmostEqual(after["latent_w"] - before["latent_w"], 300.0)
        # Without radiant share nothing of its sensible half of 3 kW is held back.
        self.assertAlmostEqual(after["sensible_w"] - before["sensible_w"], 1500.0, delta=1e-6)
        self.refused(self.set(self.small.project, "use_item", "kiln", latent_share=0.7), "more than 1")
        self.commit(self.small.project, [{"op": "delete", "kind": "use_item", "id": "kiln"}])
        self.assertEqual(self.results()["room"][self.small.ids["room"]]["cooling"], before)

    def test_activity_follows_the_room_s_temperature(self) -> None:
        self.change("use", "use", activity="moderately active office work", cooling_setpoint_c=26.7)
        found = self.results()["use"][self.small.ids["use"]]
        self.assertAlmostEqual(found["person_sensible_w"], 60.0)
        self.assertAlmostEqual(found["person_latent_w"], 70.0)

    def test_gains_beside_a_use_by_hand(self) -> None:
        """0.1 people/m² of 75 and 55 W and 10 W/m² of lights, from 8 to 18 h; a quarter of 8 W/m² equipment vented."""
        hours = self.row(
            "schedule",
            next(
                s["id"]
                for s in self.document(self.small.project)["objects"]["schedule"]
                if s["name"] == "Working hours"
            ),
        )["id"]
        self.change(
            "use", "use", people_schedule=hours, lights_schedule=hours, equipment_value=8, equipment_vented_share=0.25
        )
        found = self.results()["use"][self.small.ids["use"]]
        self.assertEqual(found["day_of"], [0] * 12)
        day = found["days"][0]
        self.assertEqual([day[k][60] for k in ("people", "latent", "lights", "equipment")], [7.5, 5.5, 10.0, 6.0])
        self.assertEqual([day[k][20] for k in ("people", "latent", "lights", "equipment")], [0.0, 0.0, 0.0, 6.0])
        self.assertAlmostEqual(found["outdoor_air_m3_s_m2"], 0.00025)
        self.change("use", "use", hot_water_l_person_day=10, hot_water_c=60)
        found = self.results()["use"][self.small.ids["use"]]
        # 2 people, 20 L by 50 K: 20 x 0.994 kg/L x 4.18 kJ/kgK x 50 K.
        self.assertAlmostEqual(found["hot_water_j_day"] / (20 * 0.994 * 4180 * 50), 1.0, delta=0.002)

    def test_what_a_glazing_comes_to(self) -> None:
        """1.23 × 1.48 m, 30 % frame of 1.6, glass of 1.1 with an edge of 0.06 W/mK: ISO 10077-1 by hand."""
        glass = self.small.ids["glass"]
        self.change("glazing", "glass", basis="parts", centre_u_value=1.1, frame_u_value=1.6, edge_psi_w_mk=0.06,
                    frame_share=0.3, g_value=0.5)  # fmt: skip
        found = self.results()["glazing"][glass]
        area, edge = 1.23 * 1.48, 2 * (1.23 + 1.48) * 0.7**0.5
        wanted = (0.7 * area * 1.1 + 0.3 * area * 1.6 + edge * 0.06) / area
        self.assertAlmostEqual(found["window_u_value"], wanted, places=9)
        self.assertAlmostEqual(found["surface_m2k_w"], 1 / wanted - 0.17, places=9)
        self.assertAlmostEqual(found["g_window"], 0.35)
        self.assertIsNone(found["g_blind"])
        self.assertTrue(0.5 * 0.7 < found["g_diffuse"] < 0.5)
        self.change("glazing", "glass", blind="outside", blind_factor=0.2)
        self.assertAlmostEqual(self.results()["glazing"][glass]["g_blind"], 0.07)

    def test_the_section_in_winter_is_that_of_elements_to_the_outdoors(self) -> None:
        """One layer of wool, 0.1/0.037 m²K/W, between films of 0.04 and 0.13: temperatures by hand."""
        wall = self.small.ids["wall"]
        site = self.row("site")
        line = self.results()["assembly"][wall]["line"]
        resistances = (0.04, 0.1 / 0.037, 0.13)
        fall = (20.0 - site["winter_dry_bulb_c"]) / sum(resistances)
        outside = site["winter_dry_bulb_c"] + fall * resistances[0]
        self.assertAlmostEqual(line["temperature_c"][0], outside, places=6)
        self.assertAlmostEqual(line["temperature_c"][-1], 20.0 - fall * resistances[2], places=6)
        for element, there in (("partition", False), ("floor", False), ("roof", True)):
            self.change("assembly", wall, element=element)
            self.assertEqual("line" in self.results()["assembly"][wall], there)

    def test_outdoor_air_by_air_changes(self) -> None:
        """2 people of 2.5 L/s are 5 L/s; 60 m³ six times an hour are 100 L/s, with a system and without one."""
        room = self.small.ids["room"]
        self.assertAlmostEqual(self.results()["airflow"][room]["ventilation_m3_s"], 0.005)
        self.change("use", "use", outdoor_air_changes=6)
        self.assertAlmostEqual(self.results()["airflow"][room]["ventilation_m3_s"], 0.1)
        with_system = self.results()["room"][room]["heating_w"]
        self.change("room", "room", air_system=None)
        drawn_in = self.results()["room"][room]["heating_w"] - with_system
        self.change("use", "use", outdoor_air_changes=3)
        halved = self.results()["room"][room]["heating_w"] - with_system
        self.assertGreater(drawn_in, 0)
        self.assertAlmostEqual(halved / drawn_in, 0.5, places=6)
        self.change("room", "room", occupied=False)
        self.assertAlmostEqual(self.results()["room"][room]["heating_w"], with_system, places=6)
        refused = self.commit(self.small.project, [
            {"op": "set", "kind": "use", "id": self.small.ids["use"], "fields": {"outdoor_air_changes": -1}}])  # fmt: skip
        self.assertEqual(refused.status_code, 422)
        self.assertIn("at least 0", refused.json()["title"])

    def test_watts_of_a_person_by_schedule(self) -> None:
        self.change("use", "use", people_schedule=None, people_radiant_share=0)
        pattern = {"id": "a", "name": "Day", "steps": [[720, 75], [1440, 150]]}
        make = create("schedule", "hard", name="Hard", kind="w_per_person", patterns=[pattern], base="a")
        self.assertEqual(self.commit(self.small.project, [make]).status_code, 200)
        self.change("use", "use", person_schedule="hard")
        day = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=7).json()
        self.assertAlmostEqual(day["parts"]["people"][30], 2 * 75.0, places=2)
        self.assertAlmostEqual(day["parts"]["people"][100], 2 * 150.0, places=2)
        self.assertAlmostEqual(day["latent_w"][100] / day["latent_w"][30], 2.0, places=2)

    def test_leaks_by_leakage_area_differ_in_winter(self) -> None:
        """1 cm²/m² on 15 m² of wall; by hand with Cs 0.000145, Cw 0.000174 (class 3, one storey)."""
        self.change("use", "use", infiltration_basis="leakage", leakage_cm2_m2=2)
        self.change("site", self.row("site")["id"], terrain="open country", winter_wind_m_s=5, winter_dry_bulb_c=-10)
        flow = 30.0 / 1000 * (0.000145 * 30.0 + 0.000174 * 25.0) ** 0.5
        done = results_of(load_document(Project.objects.get(pk=self.small.project)))
        room = done.results.rooms[self.small.ids["room"]].room
        self.assertAlmostEqual(room.winter_leak_m3_s, flow, places=12)
        self.assertNotEqual(room.infiltration_m3_s, room.winter_leak_m3_s)
        self.change("use", "use", infiltration_basis="envelope", infiltration_m3_s_m2=0.001)
        done = results_of(load_document(Project.objects.get(pk=self.small.project)))
        self.assertAlmostEqual(done.results.rooms[self.small.ids["room"]].room.infiltration_m3_s, 0.015)

    def test_preview_keeps_nothing_and_tells_the_truth(self) -> None:
        self.change("use", "use", heating_setpoint_c=20)
        version = self.document(self.small.project)["version"]
        change = {"op": "set", "kind": "use", "id": self.small.ids["use"], "fields": {"heating_setpoint_c": 19}}
        body = {"base_version": version, "label": "try", "changes": [change]}
        found = self.post(f"{self.base}/preview", body).json()
        self.assertLess(found["after"]["heating_w"], found["before"]["heating_w"])
        self.assertEqual(self.document(self.small.project)["version"], version)
        self.assertEqual(self.results()["group"]["building"]["heating_w"], found["before"]["heating_w"])
        self.commit(self.small.project, [change])
        self.assertAlmostEqual(self.results()["group"]["building"]["heating_w"], found["after"]["heating_w"])
        change["fields"] = {"heating_setpoint_c": 30}
        self.refused(self.post(f"{self.base}/preview", body), "above “Cooling set-point”")

    def test_everything_on_the_shelf_can_be_taken(self) -> None:
        self.assertGreaterEqual(len(materials()), 80)
        self.assertGreaterEqual(len(schedules()), 20)
        self.assertGreaterEqual(len(uses()), 20)
        shelf = self.get("/shelf").json()
        changes = [create("material", f"m{i}", **item["fields"]) for i, item in enumerate(shelf["materials"])]
        names = {}
        for i, item in enumerate(shelf["schedules"]):
            names[item["fields"]["name"]] = f"s{i}"
            changes.append(create("schedule", f"s{i}", **item["fields"]))
        for i, item in enumerate(shelf["uses"]):
            refs = {field: names[name] for field, name in item["schedules"].items()}
            changes.append(
                create("use", f"u{i}", **(item["fields"] | {"name": f"{item['fields']['name']} taken"}), **refs)
            )
        answer = self.commit(self.small.project, changes)
        self.assertEqual(answer.status_code, 200, answer.content[:400])


class Fabric(Definitions):
    def test_ground_by_iso_13370_reaches_the_room(self) -> None:
        wall = create("surface", "floor", room=self.small.ids["room"], name="Floor", role="ground_floor",
                      boundary="ground", area_m2=20, tilt_deg=180, assembly=self.small.ids["wall"])  # fmt: skip
        self.commit(self.small.project, [wall])
        self.change("assembly", "wall", element="floor", ground_procedure="slab")
        snag = next(s for s in self.results()["snag"].values() if s["code"] == "ground_incomplete")
        self.assertIn("area and an exposed perimeter", snag["sentence"])
        self.change(
            "assembly", "wall", ground_area_m2=0.5, ground_perimeter_m=40, edge_resistance_m2k_w=20, edge_width_m=10
        )
        snag = next(s for s in self.results()["snag"].values() if s["code"] == "ground_incomplete")
        self.assertIn("insulation along the edge", snag["sentence"])
        self.assertIn(
            "insulation along the edge", self.results()["assembly"][self.small.ids["wall"]]["ground"]["problem"]
        )
        self.change("assembly", "wall", ground_area_m2=100, ground_perimeter_m=40, edge_resistance_m2k_w=0)
        found = self.results()
        self.assertIn(self.small.ids["room"], found["room"])
        ground = found["assembly"][self.small.ids["wall"]]["ground"]
        # B' = 5; R = 0.1/0.037: d = 0.3 + 2 (0.21 + R) is above B', so U = 2/(0.457 B' + d).
        d = 0.3 + 2 * (0.21 + 0.1 / 0.037)
        self.assertAlmostEqual(ground["u_value"], 2 / (0.457 * 5 + d), places=9)
        line = next(x for x in found["envelope"]["building"]["lines"] if x["category"] == "floors")
        self.assertAlmostEqual(line["u_value"], ground["u_value"], places=6)
        self.change("assembly", "wall", ground_procedure="perimeter", perimeter_factor_w_mk=0.9)
        self.assertTrue(any(s["code"] == "no_perimeter" for s in self.results()["snag"].values()))
        self.commit(
            self.small.project, [{"op": "set", "kind": "surface", "id": "floor", "fields": {"exposed_perimeter_m": 4}}]
        )
        line = next(x for x in self.results()["envelope"]["building"]["lines"] if x["category"] == "floors")
        self.assertAlmostEqual(line["conductance_w_k"], 0.9 * 4, places=6)

    def test_scheduled_neighbour(self) -> None:
        pattern = {"id": "a", "name": "Day", "steps": [[1440, 12]]}
        self.commit(
            self.small.project,
            [create("schedule", "attic", name="Attic", kind="temperature", patterns=[pattern], base="a")],
        )
        self.refused(
            self.set(self.small.project, "surface", self.small.ids["surface"], boundary="scheduled"),
            "Temperature schedule",
        )
        plain = {"boundary": "fixed", "fixed_temperature_c": 12}
        self.commit(self.small.project, [{"op": "delete", "kind": "opening", "id": self.small.ids["opening"]}])
        self.change("surface", "surface", **plain)
        fixed = self.results()["room"][self.small.ids["room"]]
        self.change("surface", "surface", boundary="scheduled", temperature_schedule="attic")
        found = self.results()["room"][self.small.ids["room"]]
        self.assertAlmostEqual(found["cooling"]["sensible_w"], fixed["cooling"]["sensible_w"], places=6)
        self.assertAlmostEqual(found["heating_w"], fixed["heating_w"], places=6)
        self.refused(
            self.commit(self.small.project, [{"op": "delete", "kind": "schedule", "id": "attic"}]), "used by 1 surface"
        )

    def test_air_gap_by_its_thickness(self) -> None:
        """ISO 6946 table 8: 15 mm horizontal 0.17; between 15 and 25 mm straight."""
        gap = create("material", "gap", name="Gap", air_gap=True)
        layer = create("layer", "l2", assembly=self.small.ids["wall"], position=1, material="gap", thickness_m=0.02)
        before = self.results()["assembly"][self.small.ids["wall"]]["resistance_m2k_w"]
        self.assertEqual(self.commit(self.small.project, [gap, layer]).status_code, 200)
        after = self.results()["assembly"][self.small.ids["wall"]]["resistance_m2k_w"]
        self.assertAlmostEqual(after - before, 0.175, places=9)
        self.refused(self.set(self.small.project, "material", "gap", conductivity_w_mk=1), "give one of")

    def test_shading_and_blind_take_sun(self) -> None:
        def sun() -> float:
            day = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=7).json()
            return sum(day["parts"]["sun"])

        plain = sun()
        self.commit(
            self.small.project, [create("shading", "over", name="Overhang", overhang_m=1, overhang_beyond_m=0.5)]
        )
        self.change("opening", "opening", shading="over")
        shaded = sun()
        self.assertLess(shaded, 0.8 * plain)
        self.change("glazing", "glass", blind="outside", blind_rule="always", blind_factor=0.25)
        self.assertAlmostEqual(sun() / shaded, 0.25, places=4)
        day = self.get(f"{self.base}/shading/over", month=7, width=2, height=1.5, azimuth=180).json()
        self.assertEqual(len(day["lit_share"]), 144)
        self.assertEqual(len(day["shadows"][72]), 1)
        self.refused(
            self.get(f"{self.base}/shading/over", month=7, width=200, height=1, azimuth=0),
            "width 200 is outside 0.1 to 50",
        )
        self.refused(self.get(f"{self.base}/shading/none", month=7, width=1, height=1, azimuth=0), "none")
        self.refused(
            self.commit(self.small.project, [{"op": "delete", "kind": "shading", "id": "over"}]), "used by 1 opening"
        )

    def test_an_empty_role_is_told_before_anyone_calculates(self) -> None:
        self.commit(
            self.small.project, [{"op": "set", "kind": "kit", "id": self.small.kit, "fields": {"outer_wall": None}}]
        )
        snag = next(s for s in self.results()["snag"].values() if s["code"] == "kit_outer_wall")
        self.assertEqual((snag["level"], snag["stage"]), ("stops", "fabric"))

    def test_panes_frame_and_edge(self) -> None:
        gap = {"gap_mm": 16, "gas": "argon", "emissivity_2": 0.03}
        self.change("glazing", "glass", basis="panes", build_up=[gap], frame_share=0.3)
        found = self.results()["glazing"][self.small.ids["glass"]]
        self.assertAlmostEqual(found["centre_u_value"], 1.1, delta=0.05)
        edge = 2 * (1.23 + 1.48) * 0.7**0.5 * 0.06 / (1.23 * 1.48)
        self.assertAlmostEqual(found["window_u_value"], 0.7 * found["centre_u_value"] + 0.3 * 1.4 + edge, places=9)
        self.refused(
            self.set(self.small.project, "glazing", self.small.ids["glass"], build_up=[{"gap_mm": 1}]), "gap 1"
        )


class Place(Definitions):
    def test_margins_reach_duties_and_not_loads(self) -> None:
        before = self.results()
        self.change("project", self.small.project, cooling_margin=0.2)
        after = self.results()
        self.assertEqual(after["group"]["building"]["cooling"], before["group"]["building"]["cooling"])
        circuit = self.small.ids["circuit"]
        self.assertAlmostEqual(
            after["circuit"][circuit]["duty_w"] / before["circuit"][circuit]["duty_w"], 1.2, places=9
        )

    def test_dehumidification_day(self) -> None:
        site = self.row("site")["id"]
        self.refused(
            self.set(self.small.project, "site", site, dehumidification_dew_point_c=25, dehumidification_dry_bulb_c=20),
            "is above",
        )
        self.change(
            "site", site, dehumidification_month=8, dehumidification_dew_point_c=22, dehumidification_dry_bulb_c=27
        )
        day = self.get(f"{self.base}/place", month=13).json()
        self.assertAlmostEqual(max(day["dry_bulb_c"]), 27.0, places=3)
        coil = self.results()["air_system"][self.small.ids["system"]]
        self.assertIn(coil["coil_month"], range(1, 14))
        self.assertEqual(
            self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=13).status_code, 200
        )
        self.refused(self.get(f"{self.base}/place", month=14), "month 14")

    def test_ground_by_formula_and_by_month(self) -> None:
        site = self.row("site")["id"]
        self.change("site", site, ground_source="formula", air_mean_c=11, air_amplitude_k=10, ground_depth_m=0)
        ground = self.get(f"{self.base}/place", month=7).json()["ground_c"]
        self.assertAlmostEqual(ground[0], 1.0, places=6)
        # Mean air: 11 - 10 in the coldest month, 11 + 10 half a year later.
        air = self.get(f"{self.base}/place", month=7).json()["air_mean_by_month_c"]
        self.assertAlmostEqual(air[0], 1.0, places=6)
        self.assertAlmostEqual(max(air), 21.0, delta=0.05)
        self.change("site", site, ground_source="months")
        january = next(r for r in self.document(self.small.project)["objects"]["design_month"] if r["month"] == 1)
        self.change("design_month", january["id"], ground_temperature_c=4)
        ground = self.get(f"{self.base}/place", month=7).json()["ground_c"]
        self.assertEqual(ground[:2], [4.0, 12.0])

    def test_a_surface_before_the_sun(self) -> None:
        day = self.get(f"{self.base}/place", month=6, tilt=0, azimuth=0).json()
        for incidence, elevation in zip(day["surface"]["incidence_deg"], day["sun_elevation_deg"], strict=True):
            self.assertAlmostEqual(incidence, 90.0 - elevation, delta=0.02)
        self.refused(self.get(f"{self.base}/place", month=6, tilt=200), "tilt 200 is outside 0 to 180")

    def test_dates_and_skyline_are_checked(self) -> None:
        site = self.row("site")["id"]
        self.refused(self.set(self.small.project, "site", site, saving_from="02-30"), "02-30")
        self.refused(
            self.set(
                self.small.project,
                "site",
                site,
                skyline=[{"from_deg": 400, "to_deg": 10, "height_m": 5, "distance_m": 5}],
            ),
            "Skyline 1 from 400",
        )
        twice = [{"date": "05-01"}, {"date": "5-1"}]
        self.refused(self.set(self.small.project, "project", self.small.project, holidays=twice), "twice")


class Weather(Definitions):
    def upload(self, path: str, content: bytes, **fields: str) -> Any:
        file = SimpleUploadedFile("year.csv", content)
        return Worked(self, self.client.post(f"/api{self.base}/{path}", {"file": file, **fields}))

    def test_tmy3_from_file_to_design_month(self) -> None:
        content = TMY3.read_bytes()
        self.assertEqual(self.upload("weather/look", content).json()["kind"], "tmy3")
        self.assertEqual(self.upload("weather", content).status_code, 200)
        found = self.get(f"{self.base}/weather", percent=1).json()
        self.assertEqual(found["hours"], 8760)
        self.assertEqual((len(found["carpet_c"]), len(found["carpet_c"][0])), (365, 24))
        rarer = self.get(f"{self.base}/weather", percent=0.4).json()["derived"]["months"][6]
        self.assertGreaterEqual(rarer["dry_bulb_c"], found["derived"]["months"][6]["dry_bulb_c"])
        july = next(r for r in self.document(self.small.project)["objects"]["design_month"] if r["month"] == 7)
        fields = {key: rarer[key] for key in ("dry_bulb_c", "wet_bulb_c", "range_k", "tau_b", "tau_d")}
        self.change("design_month", july["id"], **fields)
        self.refused(self.get(f"{self.base}/weather", percent=5), "percent 5")
        kept = self.get(f"{self.base}/weather/files").json()[0]["id"]
        self.assertEqual(self.client.delete(f"/api{self.base}/weather/files/{kept}").status_code, 204)
        self.assertEqual(self.get(f"{self.base}/weather").json(), {})

    def test_faults_name_lines_and_nothing_is_kept(self) -> None:
        lines = TMY3.read_text(encoding="latin-1").splitlines()
        answer = self.upload("weather", "\n".join(lines[:100]).encode())
        self.refused(answer, "Nothing was imported", "98 hours")
        self.assertEqual(self.get(f"{self.base}/weather").json(), {})
        for content in (b"", b"\x00\x01\x02", b"a,b\n1,2\n"):
            self.assertEqual(self.upload("weather", content).status_code, 422)
        for mapping in (
            "[]",
            "{",
            "{}",
            '{"delimiter": "x", "decimal": ".", "header_rows": 0, "columns": {}, "convention": "", "year": 2027}',
            '{"delimiter": ",", "decimal": ",", "header_rows": 0, "columns": {}, "convention": "", "year": 2027}',
            '{"delimiter": ",", "decimal": ".", "header_rows": "x", "columns": {}}',
        ):
            self.assertEqual(self.upload("weather", b"1,2\n", mapping=mapping).status_code, 422, mapping)

    def test_a_guess_at_the_layout(self) -> None:
        for text, delimiter, decimal, header in (
            ("Mill;x\nno;clock;heat;damp\n1;0:00;3,2;55\n2;1:00;3,0;56\n3;2:00;2,9;57\n", ";", ",", 2),
            ("a,b,c\n1,2.5,3\n2,2.6,4\n3,2.7,5\n", ",", ".", 1),
            ("1\t2\t3\n2\t3\t4\n", "\t", ".", 0),
            ("hour  temp\n 1   3.5\n 2   3.6\n 3  13.7\n", "space", ".", 1),
        ):
            found = self.upload("weather/look", text.encode()).json()
            self.assertEqual(
                (found["delimiter"], found["decimal"], found["header_rows"]), (delimiter, decimal, header), text
            )

    def test_nobody_else_s_weather(self) -> None:
        self.client.logout()
        self.assertEqual(self.upload("weather", TMY3.read_bytes()).status_code, 401)


class Remembering(Definitions):
    """Inputs are rebuilt only where their rows changed."""

    def look(self, before: Lookups | None = None) -> Lookups:
        return Lookups(load_document(Project.objects.get(pk=self.small.project)), before)

    def test_what_did_not_change_is_the_same_object(self) -> None:
        schedule = self.row("schedule")
        look = self.look()
        first = design_patterns(look, schedule["id"])
        self.change("room", "room", floor_area_m2=21)
        again = self.look(look)
        self.assertIs(design_patterns(again, schedule["id"]), first)
        self.change("site", self.row("site")["id"], saving_from="03-28", saving_to="10-31")
        self.assertIsNot(design_patterns(self.look(again), schedule["id"]), first)

    def test_a_change_reaches_exactly_the_rooms_it_touches(self) -> None:
        extra = [
            create("use", "u2", name="Other"),
            create("room", "r2", number="2", name="Other", use="u2", floor_area_m2=10, height_m=3),
            create("surface", "s2", room="r2", name="North", role="outer_wall", boundary="outdoors", area_m2=9),
        ]
        self.commit(self.small.project, extra)
        self.results()
        for kind, name, fields, rooms in (
            ("use", "u2", {"lights_value": 5}, 1),
            ("layer", "layer", {"thickness_m": 0.2}, 2),
            ("glazing", "glass", {"g_value": 0.4}, 1),
            (
                "material",
                next(m["id"] for m in self.document(self.small.project)["objects"]["material"] if m["name"] == "Glass"),
                {"density_kg_m3": 2400},
                0,
            ),
        ):
            answer = self.set(self.small.project, kind, self.small.ids.get(name, name), **fields).json()
            self.assertEqual(answer["results"]["rooms_calculated"], rooms, kind)
