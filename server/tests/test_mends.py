"""Ways out of snags that are taken at once: each makes its snag go, and can be undone."""

from typing import Any

from tests.base import ApiTest, Small, create


class Mends(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.ids = self.small.ids

    def snags(self) -> dict[str, dict[str, Any]]:
        found = self.get(f"/projects/{self.small.project}/results").json()["changed"]["snag"]
        return {snag["code"]: snag for snag in found.values()}

    def test_each_does_away_with_its_snag(self) -> None:
        i = self.ids
        second = {"number": "2", "name": "Second", "use": i["use"], "floor_area_m2": 12.0, "height_m": 3.0}
        for code, label, changes in (
            ("duplicate_number", "Number it 1a", [create("room", "n", **(second | {"number": "1"}))]),
            ("cooled_without_system", "not cooled", [self.to("room", i["room"], air_system=None)]),
            ("floats_on_system", "off the system", [self.to("room", i["room"], cooled=False)]),
            ("cooling_short", "be sized", [self.to("room", i["room"], cooling_capacity_w=50.0)]),
            ("heating_short", "be sized", [self.to("room", i["room"], heating_capacity_w=50.0)]),
            (
                "leader_missing",
                "sensor of its own",
                [create("room", "n", **second), self.to("room", i["room"], sensor_room="n")],
            ),
            ("transfer_incomplete", "Take it away", [create("transfer", "t", room=i["room"], flow_m3_s=0.02)]),
            (
                "extract_with_cooling",
                "Switch the extract off in Office",
                [self.to("use", i["use"], drawn_air="extract", drawn_air_above_c=20.0)],
            ),
            ("setpoints_crossed", "inherited", [self.to("room", i["room"], heating_setpoint_c=35.0)]),
            (
                "no_neighbour",
                "loses nothing",
                [self.to("surface", i["surface"], role="inner_wall", boundary="room", assembly=i["wall"])],
            ),
            ("ventilation_below_need", "airflow be sized", [self.to("room", i["room"], pinned_flow_m3_s=0.001)]),
            (
                "people_without_air",
                "nobody is in it",
                [self.to("use", i["use"], air_per_person_m3_s=0.0, air_per_area_m3_s_m2=0.0)],
            ),
            (
                "heating_never_away",
                "Hold the heating",
                [
                    create(
                        "schedule",
                        "on",
                        name="Day and night",
                        kind="on_off",
                        base="a",
                        patterns=[{"id": "a", "name": "Day", "steps": [[1440, 1]]}],
                    ),
                    self.to("use", i["use"], setpoint_schedule="on", heating_away="setback"),
                ],
            ),
            ("airflow_short", "airflows be sized", [self.to("room", i["room"], pinned_flow_m3_s=0.001)]),
            ("duct_beyond_limits", "be sized", [self.to("duct_section", i["duct"], pinned_diameter_m=0.05)]),
            ("pipe_beyond_limits", "be sized", [self.to("pipe_section", i["pipe"], pinned_diameter_m=0.006)]),
            (
                "emitter_without_duty",
                "Remove its pipe section",
                [
                    create("circuit", "c", name="Heating", kind="heating", flow_c=55, return_c=45),
                    create("pipe_section", "p", circuit="c", name="To the coil", air_system=i["system"], length_m=5),
                    create("pipe_section", "e", circuit="c", name="To the room", room=i["room"], length_m=5),
                    self.to("room", i["room"], heated=False),
                ],
            ),
        ):
            with self.subTest(code=code):
                self.assertNotIn(code, self.snags())
                self.assertEqual(self.commit(self.small.project, changes).status_code, 200)
                snag = self.snags()[code]
                self.assertIn(label, snag["mend"]["label"])
                self.assertEqual(self.commit(self.small.project, snag["mend"]["changes"]).status_code, 200)
                self.assertNotIn(code, self.snags())
                self.undo()
                self.assertIn(code, self.snags())
                self.undo()

    def test_what_takes_a_decision_has_no_mend(self) -> None:
        self.set(self.small.project, "opening", self.ids["opening"], width_m=20)
        self.assertIsNone(self.snags()["openings_larger"]["mend"])

    def to(self, kind: str, identity: str, **fields: Any) -> dict[str, Any]:
        return {"op": "set", "kind": kind, "id": identity, "fields": fields}

    def undo(self) -> None:
        base = self.document(self.small.project)["version"]
        answer = self.post(f"/projects/{self.small.project}/undo?base_version={base}")
        self.assertEqual(answer.status_code, 200)
