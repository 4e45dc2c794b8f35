"""Fittings by kind, materials of pipes, glycol and pumps through the API: what they change, what is refused, what the kit says."""

import math
from typing import Any

from pendrum_core.network.fittings import FITTINGS
from tests.base import ApiTest, Small


class Water(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.project, self.ids = self.small.project, self.small.ids

    def told(self, kind: str, identity: str) -> dict[str, Any]:
        return self.get(f"/projects/{self.project}/results").json()["changed"][kind][identity]

    def codes(self) -> set[str]:
        return {
            snag["code"] for snag in self.get(f"/projects/{self.project}/results").json()["changed"]["snag"].values()
        }

    def put(self, kind: str, name: str, **fields: Any) -> Any:
        return self.set(self.project, kind, self.ids[name], **fields)


class Fittings(Water):
    def test_a_duct_loses_what_its_fittings_take(self) -> None:
        before = self.told("duct_section", self.ids["duct"])
        parts = [{"kind": "round_bend_90_r1", "count": 2}, {"kind": "", "count": 1, "coefficient": 0.4}]
        self.assertEqual(self.put("duct_section", "duct", fittings=parts).status_code, 200)
        after = self.told("duct_section", self.ids["duct"])
        self.assertEqual(after["coefficients"], [0.22, 0.4])
        area = math.pi * after["diameter_m"] ** 2 / 4.0
        dynamic = 1.2 * (after["flow_m3_s"] / area) ** 2 / 2.0
        gained = after["loss_pa"] - before["loss_pa"]
        self.assertAlmostEqual(gained / (dynamic * (2 * 0.22 + 0.4)), 1.0, delta=0.03)
        tree = self.get(f"/projects/{self.project}/working", quantity="duct_section", subject=self.ids["duct"]).json()
        (node,) = [child for child in tree["inputs"] if child["name"] == "Fittings' coefficient"]
        self.assertAlmostEqual(node["value"], 0.84)
        self.assertIn(FITTINGS["round_bend_90_r1"].source, [child["source"] for child in node["inputs"]])
        kit = self.get(f"/projects/{self.project}/results").json()["changed"]["kit"].values()
        (line,) = [item for item in kit if item["item"] == FITTINGS["round_bend_90_r1"].title]
        self.assertEqual(line["duty"], 2.0)

    def test_what_is_no_fitting_is_refused(self) -> None:
        for kind, name, part, words in (
            ("duct_section", "duct", {"kind": "pipe_elbow_90", "count": 1}, "no fitting of a duct"),
            ("pipe_section", "pipe", {"kind": "mitre_90", "count": 1}, "no fitting of a pipe"),
            ("duct_section", "duct", {"kind": "whistle", "count": 1}, "whistle"),
            ("duct_section", "duct", {"kind": "", "count": 1}, "needs a coefficient of its own"),
            ("pipe_section", "pipe", {"kind": "pipe_elbow_90", "count": 0}, "1"),
            (
                "pipe_section",
                "pipe",
                {"kind": "pipe_elbow_90", "count": 1, "coefficient": -1},
                "Fittings 1 own coefficient -1: allowed is at least 0",
            ),
        ):
            answer = self.put(kind, name, fittings=[part])
            self.assertEqual(answer.status_code, 422, answer.content)
            self.assertIn(words.casefold(), answer.content.decode().casefold())
        self.assertEqual(self.document(self.project)["objects"]["duct_section"][0]["fittings"], [])

    def test_insulation_takes_the_place_of_a_stated_share(self) -> None:
        def circuit() -> Any:
            return self.told("circuit", self.ids["circuit"])

        self.assertIsNone(circuit()["pipes_lose_w"])
        self.assertEqual(self.put("circuit", "circuit", pipe_insulation_m=0.02, pipe_around_c=28).status_code, 200)
        taken_in = circuit()["pipes_lose_w"]
        self.assertGreater(taken_in, 0.0)
        tree = self.get(f"/projects/{self.project}/working", quantity="pipes_lose", subject=self.ids["circuit"]).json()
        self.assertEqual(tree["value"], taken_in)
        sections = [node for node in tree["inputs"] if node["quantity"] == "load"]
        self.assertAlmostEqual(sum(node["value"] for node in sections), taken_in)
        kit = self.get(f"/projects/{self.project}/results").json()["changed"]["kit"].values()
        (line,) = [item for item in kit if item["item"] == "Pipe insulation, 20 mm"]
        self.assertEqual(line["duty"], 24.0)  # 12 m of flow and of return
        self.put("circuit", "circuit", pipe_insulation_m=0.05)
        self.assertLess(circuit()["pipes_lose_w"], taken_in)
        refused = self.put("circuit", "circuit", pipe_insulation_m=0.4)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("Insulation around pipes", refused.json()["title"])
        self.put("circuit", "circuit", pipe_insulation_m=None)
        self.assertIsNone(circuit()["pipes_lose_w"])

    def test_a_chiller_has_a_season_and_a_boiler_none(self) -> None:
        unit = {"op": "create", "kind": "plant_unit", "id": "u1", "fields": {
            "circuit": self.ids["circuit"], "name": "Chiller", "kind": "chiller", "fuel": "electricity",
            "full_cool": 4.3, "full_warm": 2.9, "part_cool": 5.6, "part_warm": 3.6}}  # fmt: skip
        self.assertEqual(self.commit(self.project, [unit]).status_code, 200)
        figure = self.told("plant", self.ids["circuit"])["units"]["u1"]["seasonal"]
        self.assertTrue(2.9 < figure < 5.6)
        tree = self.get(f"/projects/{self.project}/working", quantity="unit_seasonal", subject="u1").json()
        self.assertEqual(tree["value"], figure)
        hours = [float(node["name"].split(", ")[1].split()[0]) for node in tree["inputs"]]
        self.assertEqual(sum(hours), 2602.0)
        fields = {"kind": "boiler", "fuel": "natural gas"} | dict.fromkeys(
            ("full_cool", "full_warm", "part_cool", "part_warm"), 1.0
        )
        boiler = {"op": "set", "kind": "plant_unit", "id": "u1", "fields": fields}
        self.assertEqual(self.commit(self.project, [boiler]).status_code, 200)
        self.assertIsNone(self.told("plant", self.ids["circuit"])["units"]["u1"]["seasonal"])
        path = f"/projects/{self.project}/working"
        self.assertEqual(self.get(path, quantity="unit_seasonal", subject="u1").status_code, 404)

    def test_pipes_of_copper_have_copper_sizes(self) -> None:
        steel = self.told("pipe_section", self.ids["pipe"])
        self.assertTrue(steel["size"].startswith("DN"))
        self.assertEqual(self.put("circuit", "circuit", pipe="copper").status_code, 200)
        copper = self.told("pipe_section", self.ids["pipe"])
        outer, wall = (float(part) for part in copper["size"].split(" × "))
        self.assertAlmostEqual(copper["diameter_m"], (outer - 2 * wall) / 1000.0, places=9)
        kit = self.get(f"/projects/{self.project}/results").json()["changed"]["kit"].values()
        self.assertIn("Copper pipe, flow and return", [item["item"] for item in kit])

    def test_glycol_is_checked_and_warned_of(self) -> None:
        plain = self.told("circuit", self.ids["circuit"])["pump"]
        self.assertEqual(self.put("circuit", "circuit", glycol="propylene", glycol_share=0.35).status_code, 200)
        mixed = self.told("circuit", self.ids["circuit"])["pump"]
        self.assertGreater(mixed["flow_m3_s"], plain["flow_m3_s"] * 1.01)
        self.assertEqual(self.put("circuit", "circuit", flow_c=-6, return_c=-1).status_code, 200)
        self.assertNotIn("liquid_freezes", self.codes())
        self.assertEqual(self.put("circuit", "circuit", glycol_share=0.15).status_code, 200)
        self.assertIn("liquid_freezes", self.codes())
        for fields, words in (
            ({"glycol_share": 0.9}, "Glycol by mass 0.9: allowed is at least 0.1 and at most 0.6"),
            ({"glycol": "none"}, "filled with water"),
            ({"glycol": "brandy"}, "brandy"),
            ({"pipe": "lead"}, "lead"),
        ):
            answer = self.put("circuit", "circuit", **fields)
            self.assertEqual(answer.status_code, 422, answer.content)
            self.assertIn(words, answer.content.decode())


class Pumps(Water):
    def pump(self) -> dict[str, Any]:
        return self.told("circuit", self.ids["circuit"])["pump"]

    def test_a_pin_stands_beside_what_is_calculated(self) -> None:
        free = self.pump()
        self.assertEqual(free["head_pa"], free["calculated_head_pa"])
        self.assertEqual(self.put("circuit", "circuit", pinned_head_pa=0.6 * free["network_head_pa"]).status_code, 200)
        short = self.pump()
        self.assertAlmostEqual(short["head_pa"] / free["network_head_pa"], 0.6)
        self.assertEqual(short["calculated_head_pa"], free["calculated_head_pa"])
        self.assertIn("pump_short", self.codes())
        tree = self.get(f"/projects/{self.project}/working", quantity="pump_head", subject=self.ids["circuit"]).json()
        self.assertEqual([child["name"] for child in tree["inputs"]], ["Pinned head", "Calculated head"])
        self.assertEqual(tree["inputs"][0]["field"], "pinned_head_pa")
        self.put("circuit", "circuit", pinned_head_pa=3 * free["network_head_pa"])
        self.assertIn("pump_oversized", self.codes())
        self.put("circuit", "circuit", pinned_head_pa=None)
        self.assertFalse({"pump_short", "pump_oversized"} & self.codes())

    def test_the_kit_has_a_line_for_every_pump(self) -> None:
        self.put("circuit", "circuit", pump_count=2, pump_standby=1, motor_class="IE4")
        kit = self.get(f"/projects/{self.project}/results").json()["changed"]["kit"].values()
        lines = [item for item in kit if item["item"].startswith("Pump")]
        self.assertEqual(len(lines), 3)
        pump = self.pump()
        self.assertAlmostEqual(sum(line["duty"] for line in lines), 1.5 * pump["flow_m3_s"])
        self.assertAlmostEqual(sum(line["power_w"] for line in lines), pump["electrical_w"])
        for fields, words in (
            ({"pump_count": 0}, "at least 1"),
            ({"pump_standby": 9}, "at most 6"),
            ({"motor_class": "IE9"}, "IE9"),
            ({"pinned_head_pa": -5}, "Pinned head"),
        ):
            answer = self.put("circuit", "circuit", **fields)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.json()["title"])
