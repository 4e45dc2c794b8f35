"""Towers and dry coolers over the API: sized with their chillers, told by the hour, refused with words, counted over the year."""

from typing import Any

from demo.tarnwick import load_tarnwick
from demo.weather import load_weather
from projects.models import Project
from tests.base import ApiTest, create


class Coolers(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.made = load_tarnwick(self.user)
        self.project = str(self.made.id)
        objects = self.document(self.project)["objects"]
        self.circuit = next(row["id"] for row in objects["circuit"] if row["kind"] == "chilled")
        old = [row["id"] for row in objects["plant_unit"] if row["circuit"] == self.circuit]
        unit = create(
            "plant_unit", "wc", circuit=self.circuit, name="Chiller", kind="water-cooled chiller", fuel="electricity",
            full_cool=6.2, full_warm=4.9, part_cool=7.6, part_warm=5.8,
        )  # fmt: skip
        gone = [{"op": "delete", "kind": "plant_unit", "id": identity} for identity in old]
        self.assertEqual(self.send(unit, *gone).status_code, 200)

    def send(self, *changes: dict[str, Any]) -> Any:
        return self.commit(self.project, list(changes), Project.objects.get(pk=self.project).version)

    def put(self, **fields: Any) -> Any:
        return self.send({"op": "set", "kind": "circuit", "id": self.circuit, "fields": fields})

    def results(self) -> dict[str, Any]:
        return dict(self.get(f"/projects/{self.project}/results").json()["changed"])

    def test_a_tower_is_sized_and_told_by_the_hour(self) -> None:
        told = self.results()["plant"][self.circuit]
        cooler = told["cooler"]
        self.assertAlmostEqual(cooler["cold_c"] - cooler["air_c"], 4.0)
        # Cold and power of the design load, at the water's design temperature: 6.2 at 20 °C to 4.9 at 30 °C.
        ratio = 6.2 + (min(max(cooler["cold_c"], 20.0), 30.0) - 20.0) / 10.0 * (4.9 - 6.2)
        self.assertAlmostEqual(cooler["heat_w"], told["design_w"] * (1.0 + 1.0 / ratio), delta=0.03 * cooler["heat_w"])
        day = self.get(f"/projects/{self.project}/plant/{self.circuit}?month=7").json()
        heat = max(day["cooler"]["heat_w"])
        self.assertLessEqual(heat, cooler["heat_w"] * 1.001)
        step = day["cooler"]["heat_w"].index(heat)
        unit = day["units"]["wc"]
        self.assertAlmostEqual(heat, unit["output_w"][step] + unit["taken_w"][step], delta=1.0)
        self.assertTrue(all(0.0 <= speed <= 1.0 for speed in day["cooler"]["speed"]))
        self.assertIsNone(self.get(f"/projects/{self.project}/plant/{self.circuit}?month=0").json()["cooler"])
        kit = {row["tag"]: row for row in self.results()["kit"].values()}
        self.assertAlmostEqual(kit["Chilled water CT"]["duty"], cooler["heat_w"])

    def test_what_is_out_of_range_and_what_no_tower_can_do(self) -> None:
        refused = self.put(rejection_approach_k=0.2)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("Approach at design 0.2", refused.json()["title"])
        # In range each for itself, together out of reach: saved, and the circuit says why it is not worked out.
        self.assertEqual(self.put(rejection_approach_k=1, rejection_range_k=10).status_code, 200)
        snags = [row["sentence"] for row in self.results()["snag"].values()]
        self.assertTrue(any("no tower cools water by 10 K to 1 K" in sentence for sentence in snags), snags)

    def test_the_year_counts_its_fans_and_pump(self) -> None:
        load_weather(self.made)
        asked = self.post(f"/projects/{self.project}/year")
        self.assertEqual(asked.status_code, 202, asked.content)
        energy = {
            row["use"]: row["kwh"] for row in self.get(f"/projects/{self.project}/year").json()["summary"]["energy"]
        }
        cooler = self.results()["plant"][self.circuit]["cooler"]
        self.assertGreater(energy["heat rejection"], 0.0)
        self.assertLess(energy["heat rejection"], 8.76 * (cooler["fan_w"] + cooler["pump_w"]))
        # The same plant with a dry cooler has warmer water: more power for the same cold.
        wet = sum(v for use, v in energy.items() if use == "cooling")
        self.assertEqual(self.put(rejection="dry cooler", rejection_approach_k=8).status_code, 200)
        self.post(f"/projects/{self.project}/year")
        rows = self.get(f"/projects/{self.project}/year").json()["summary"]["energy"]
        self.assertGreater(sum(row["kwh"] for row in rows if row["use"] == "cooling"), 1.02 * wet)
