"""Zones: values for rooms that go together wherever they are, and their loads; margins by room, system, project."""

from typing import Any

from tests.base import ApiTest, Small, create


class Zones(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.base = f"/projects/{self.small.project}"
        self.room = self.small.ids["room"]
        answer = self.commit(self.small.project, [
            create("zone", "z", name="Quiet rooms", heating_setpoint_c=19.0),
            {"op": "set", "kind": "room", "id": self.room, "fields": {"zone": "z"}},
        ])  # fmt: skip
        assert answer.status_code == 200, answer.content

    def results(self) -> dict[str, Any]:
        return self.get(f"{self.base}/results").json()["changed"]

    def change(self, kind: str, identity: str, **fields: Any) -> None:
        answer = self.set(self.small.project, kind, identity, **fields)
        assert answer.status_code == 200, answer.content

    def effective(self, field: str) -> list[Any]:
        return self.results()["effective"][self.room][field]

    def test_a_zone_is_nearer_than_the_use_and_the_room_nearer_than_the_zone(self) -> None:
        self.assertEqual(self.effective("heating_setpoint_c"), [19.0, "zone"])
        self.change("room", self.room, heating_setpoint_c=22.0)
        self.assertEqual(self.effective("heating_setpoint_c"), [22.0, "own"])
        self.change("room", self.room, heating_setpoint_c=None)
        self.change("zone", "z", heating_setpoint_c=None)
        self.assertEqual(self.effective("heating_setpoint_c"), [20.0, "use"])

    def test_its_set_point_is_what_the_load_is_worked_out_with(self) -> None:
        """From -10 °C a room without sun and gains needs in proportion to the difference to outdoors."""
        at_19 = self.results()["room"][self.room]["heating_simple_w"]
        self.change("zone", "z", heating_setpoint_c=23.0)
        at_23 = self.results()["room"][self.room]["heating_simple_w"]
        outdoors = self.document(self.small.project)["objects"]["site"][0]["winter_dry_bulb_c"]
        self.assertAlmostEqual(at_23 / at_19, (23.0 - outdoors) / (19.0 - outdoors), places=6)

    def test_its_rooms_are_added_up(self) -> None:
        found = self.results()
        self.assertEqual((found["group"]["z"]["kind"], found["group"]["z"]["name"]), ("zone", "Quiet rooms"))
        self.assertEqual(found["group"]["z"]["room_ids"], [self.room])
        self.assertAlmostEqual(found["group"]["z"]["heating_w"], found["room"][self.room]["heating_w"])
        self.assertEqual(found["room_air"][self.room]["outdoor_air"],
                         found["group_air"]["z"]["outdoor_air"])  # fmt: skip

    def test_a_zone_that_goes_leaves_its_rooms(self) -> None:
        answer = self.commit(self.small.project, [{"op": "delete", "kind": "zone", "id": "z"}])
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertIsNone(next(r for r in self.document(self.small.project)["objects"]["room"])["zone"])
        self.assertNotIn("z", self.results()["group"])
        self.assertEqual(self.effective("heating_setpoint_c"), [20.0, "use"])

    def test_its_rooms_obey_one_sensor_and_a_room_may_have_its_own(self) -> None:
        answer = self.commit(self.small.project, [
            create("room", "second", number="2", name="Second", use=self.small.ids["use"], zone="z", floor_area_m2=15, height_m=3),
            create("surface", "wall", room="second", name="North", role="outer_wall", boundary="outdoors", area_m2=9),
            {"op": "set", "kind": "zone", "id": "z", "fields": {"sensor_room": self.room}},
        ])  # fmt: skip
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(self.results()["effective"]["second"]["sensor_room"], [self.room, "zone"])
        led = self.results()["room"]["second"]["control"]
        self.assertIsNotNone(led)
        # The leader itself is held by its own sensor.
        self.assertIsNone(self.results()["room"][self.room]["control"])
        self.change("room", "second", sensor_room="second")
        self.assertEqual(self.results()["effective"]["second"]["sensor_room"], ["second", "own"])
        self.assertIsNone(self.results()["room"]["second"]["control"])
        answer = self.set(self.small.project, "zone", "z", sensor_room="nobody")
        self.assertEqual(answer.status_code, 422)
        # A copy has a sensor of its own, and the room that goes takes it along.
        copy = self.post(f"{self.base}/copy", {"name": "Again"})
        self.assertIn(copy.status_code, (200, 201), copy.content)
        objects = self.document(copy.json()["id"])["objects"]
        self.assertIn(objects["zone"][0]["sensor_room"], {room["id"] for room in objects["room"]} - {self.room})
        self.commit(self.small.project, [{"op": "delete", "kind": "room", "id": self.room}])
        self.assertIsNone(self.document(self.small.project)["objects"]["zone"][0]["sensor_room"])

    def test_names_are_unique_and_origins_named(self) -> None:
        answer = self.commit(self.small.project, [create("zone", "y", name="Quiet rooms")])
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Quiet rooms", answer.json()["title"])
        tree = self.get(f"{self.base}/working", quantity="room_heating", subject=self.room).json()
        self.assertIn("Zone › Quiet rooms", str(tree))

    def test_margins_come_from_the_nearest(self) -> None:
        system, project = self.small.ids["system"], self.small.project

        def now() -> tuple[list[Any], float]:
            found = self.results()
            record = found["room"][self.room]
            return found["effective"][self.room]["heating_margin"], record["heating_with_margin_w"] / record[
                "heating_w"
            ]

        for kind, identity, value, want in (
            ("project", project, 0.1, ([0.1, "project"], 1.1)),
            ("air_system", system, 0.2, ([0.2, "air_system"], 1.2)),
            ("room", self.room, 0.0, ([0.0, "own"], 1.0)),
        ):
            with self.subTest(kind=kind):
                self.change(kind, identity, heating_margin=value)
                origin, ratio = now()
                self.assertEqual(origin, want[0])
                self.assertAlmostEqual(ratio, want[1])
        self.change("room", self.room, heating_margin=None)
        tree = self.get(f"{self.base}/working", quantity="room_heating_with_margin", subject=self.room).json()
        self.assertIn("Air system › AHU-1", str(tree))
        answer = self.set(self.small.project, "room", self.room, heating_margin=1.5)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Heating margin", answer.json()["title"])

    def test_a_systems_margin_reaches_its_coil(self) -> None:
        circuit = self.small.ids["circuit"]
        before = self.results()["circuit"][circuit]["duty_w"]
        self.change("air_system", self.small.ids["system"], cooling_margin=0.25)
        self.assertAlmostEqual(self.results()["circuit"][circuit]["duty_w"] / before, 1.25)
