"""Hot water through the door: what uses draw, the store, its plant, its snags and its year."""

from calculations import service
from projects.document import load_document
from projects.models import Project
from tests.base import ApiTest, Small, create


class HotWater(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.base = f"/projects/{self.small.project}"
        objects = self.rows()
        self.use = objects["use"][0]["id"]
        self.changes([
            {"op": "set", "kind": "use", "id": self.use, "fields": {"hot_water_l_m2_day": 2.0, "hot_water_l_room_day": 40.0, "hot_water_c": 50.0}},
            create("circuit", "hot", name="Hot", kind="heating", flow_c=70, return_c=50),
            create("plant_unit", "boiler", circuit="hot", name="Boiler"),
            create("hot_water", "store", name="Store", circuit="hot", reheat_h=1.0),
        ])  # fmt: skip

    def rows(self) -> dict:
        return self.document(self.small.project)["objects"]

    def changes(self, changes: list[dict]) -> dict:
        answer = self.commit(self.small.project, changes)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def found(self) -> dict:
        return self.get(f"{self.base}/results").json()["changed"]

    def litres(self) -> float:
        """By hand: 2 L/m2 and 40 L a room, of rooms that can be calculated."""
        areas = [r["floor_area_m2"] for r in self.rows()["room"] if r["id"] in self.found()["room"]]
        return sum(2.0 * area + 40.0 for area in areas)

    def test_the_store_serves_all_rooms_where_it_is_the_only_one(self) -> None:
        found = self.found()["hot_water"]["store"]
        self.assertAlmostEqual(found["litres_day"], self.litres(), places=6)
        self.assertAlmostEqual(found["heat_j_day"] / (found["litres_day"] * 4180 * 40), 0.995, delta=0.006)
        # Drawn evenly all day: the day's mean, and what is lost.
        self.assertAlmostEqual(found["charge_w"], found["heat_j_day"] / 86400 + found["losses_w"], delta=0.5)

    def test_its_circuit_carries_it_with_the_heating_as_priority_says(self) -> None:
        first = self.found()["plant"]["hot"]["peak_w"]
        charge = self.found()["hot_water"]["store"]["charge_w"]
        self.assertAlmostEqual(first, charge, delta=1.0)  # no room hangs on this circuit
        room = next(iter(self.found()["room"]))
        self.changes([create("pipe_section", "p", circuit="hot", name="P", length_m=5, room=room)])
        heating = self.found()["room"][room]["heating_w"]
        self.assertAlmostEqual(self.found()["plant"]["hot"]["peak_w"], max(charge, heating), delta=1.0)
        self.changes([{"op": "set", "kind": "hot_water", "id": "store", "fields": {"priority": False}}])
        self.assertAlmostEqual(self.found()["plant"]["hot"]["peak_w"], charge + heating, delta=1.0)

    def test_rooms_name_their_store_where_there_are_two(self) -> None:
        rooms = sorted(self.found()["room"])
        self.changes([
            create("hot_water", "other", name="Other"),
            {"op": "set", "kind": "room", "id": rooms[0], "fields": {"hot_water": "other"}},
        ])  # fmt: skip
        found = self.found()["hot_water"]
        self.assertEqual(list(found), ["other"])
        area = next(r["floor_area_m2"] for r in self.rows()["room"] if r["id"] == rooms[0])
        self.assertAlmostEqual(found["other"]["litres_day"], 2.0 * area + 40.0, places=6)
        self.assertIn("store_unused/store", self.found()["snag"])
        self.changes([{"op": "delete", "kind": "hot_water", "id": "other"}])
        self.assertIsNone(next(r for r in self.rows()["room"] if r["id"] == rooms[0])["hot_water"])

    def test_snags(self) -> None:
        for fields, code in (
            ({"store_c": 52}, "store_legionella/store"),
            ({"store_c": 69}, "store_above_flow/store"),
            ({"volume_l": 20, "charge_w": 100}, "store_short/store"),
            ({"store_c": 45}, "store_too_cool/store"),
        ):
            self.assertNotIn(code, self.found()["snag"])
            self.changes([{"op": "set", "kind": "hot_water", "id": "store", "fields": fields}])
            self.assertIn(code, self.found()["snag"])
            plain = {"store_c": 60.0, "volume_l": None, "charge_w": None}
            self.changes([{"op": "set", "kind": "hot_water", "id": "store", "fields": plain}])

    def test_working_and_kit(self) -> None:
        for quantity, value in (("hot_water_day", "heat_j_day"), ("hot_water_volume", "volume_l"), ("hot_water_charge", "charge_w")):  # fmt: skip
            node = self.get(f"{self.base}/working?quantity={quantity}&subject=store").json()
            self.assertEqual(node["value"], self.found()["hot_water"]["store"][value])
            self.assertTrue(node["inputs"])
        kit = [item for item in self.found()["kit"].values() if item["owner"] == "store"]
        self.assertEqual([item["size"] for item in kit], ["80 L"])

    def test_what_cannot_be_is_refused_and_what_fails_fails_alone(self) -> None:
        for fields, words in (({"usable_share": 2}, "Of its water usable 2"), ({"reheat_h": 0}, "Full again within 0"), ({"circuit": "no"}, "Charged by")):  # fmt: skip
            answer = self.set(self.small.project, "hot_water", "store", **fields)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.json()["title"])
        site = self.rows()["site"][0]["id"]
        self.changes([
            {"op": "set", "kind": "site", "id": site, "fields": {"cold_water_c": 40}},
            {"op": "set", "kind": "hot_water", "id": "store", "fields": {"store_c": 40}},
        ])  # fmt: skip
        snag = next(s for s in self.found()["snag"].values() if s["kind"] == "hot_water" and s["code"] == "not_calculated")  # fmt: skip
        self.assertIn("no warmer than the cold main", snag["sentence"])
        self.assertTrue(self.found()["room"])

    def test_an_option_and_a_file_hold_it(self) -> None:
        document = load_document(Project.objects.get(pk=self.small.project))
        self.assertEqual(service.results_of(document).results.stores["store"].store.name, "Store")
        file = self.get(f"{self.base}/project.json")
        self.assertEqual(file.status_code, 200)
        self.assertEqual(len(file.json()["objects"]["hot_water"]), 1)
