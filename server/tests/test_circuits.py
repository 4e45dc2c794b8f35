"""Circuits that feed each other or carry refrigerant, and coils and terminals: what an edit does, and what is refused."""

from typing import Any

from projects.models import Project
from tests.base import ApiTest, create
from tests.base import Small as SmallProject

COLD = {"name": "Cold", "kind": "chilled", "flow_c": 6.0, "return_c": 12.0}
HOT = {"name": "Hot", "kind": "heating", "flow_c": 45.0, "return_c": 35.0}
SOURCE = {"name": "Boilers", "kind": "heating", "flow_c": 70.0, "return_c": 50.0}


class Hung(ApiTest):
    """Two heating circuits, one fed by the other, and a chilled one."""

    def setUp(self) -> None:
        super().setUp()
        self.small = SmallProject(self)
        self.project, self.room = self.small.project, self.small.ids["room"]
        made = [
            create("circuit", "source", **SOURCE),
            create("circuit", "hot", source="source", **HOT),
            create("circuit", "cold", **COLD),
            create("plant_unit", "boiler", circuit="source", name="Boiler"),
            create("pipe_section", "to_room", circuit="hot", name="To the room", room=self.room, length_m=5.0),
            create("pipe_section", "to_hot", circuit="source", name="To the rest", fed_circuit="hot", length_m=3.0),
        ]
        self.assertEqual(self.send(made).status_code, 200)

    def send(self, changes: list[dict[str, Any]]) -> Any:
        return self.commit(self.project, changes, Project.objects.get(pk=self.project).version)

    def put(self, kind: str, identity: str, **fields: Any) -> dict[str, Any]:
        return {"op": "set", "kind": kind, "id": identity, "fields": fields}

    def results(self) -> Any:
        return self.get(f"/projects/{self.project}/results").json()["changed"]

    def rows(self, kind: str) -> dict[str, Any]:
        return {row["id"]: row for row in self.document(self.project)["objects"][kind]}


class Circuits(Hung):
    def test_the_source_carries_what_the_room_asks(self) -> None:
        found = self.results()
        feed, duty = found["feed"]["hot"], found["emitter"][self.room]["duty_w"]
        self.assertAlmostEqual(feed["duty_w"], duty)
        self.assertAlmostEqual(feed["share"], 10.0 / 35.0)
        self.assertAlmostEqual(found["pipe_section"]["to_hot"]["flow_m3_s"], feed["source_flow_m3_s"])
        self.assertGreater(found["plant"]["source"]["design_w"], 0.5 * duty)

    def test_refusals_name_what_is_wrong(self) -> None:
        before = self.rows("circuit")
        for change, words in (
            (self.put("circuit", "hot", source="cold"), "Hot cannot come after Cold: its circuit for is another one"),
            (self.put("circuit", "source", source="hot"), "Boilers would come after itself"),
            (self.put("circuit", "hot", source="nowhere"), "Fed by"),
            (self.put("circuit", "hot", approach_k=0.1), "Exchanger's approach"),
            (self.put("circuit", "hot", connection="tied"), "Connected"),
            (self.put("circuit", "hot", medium="steam"), "Carries"),
            (self.put("pipe_section", "to_hot", room=self.room), "Ends at the circuit"),
            (self.put("room", self.room, outlets=0), "Outlets"),
            (self.put("room", self.room, terminal_least=1.5), "Least flow of its terminal"),
            (self.put("room", self.room, terminal_flow="sometimes"), "Flow of its terminal"),
        ):
            with self.subTest(words):
                answer = self.send([change])
                self.assertIn(answer.status_code, (400, 422), answer.content)
                self.assertIn(words, answer.content.decode())
        self.assertEqual(self.rows("circuit"), before)

    def test_a_deleted_source_lets_its_circuits_go(self) -> None:
        answer = self.send([{"op": "delete", "kind": "circuit", "id": "source"}])
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertIsNone(self.rows("circuit")["hot"]["source"])
        self.assertNotIn("hot", self.results().get("feed", {}))

    def test_refrigerant_may_be_colder_than_water(self) -> None:
        cold = self.put("circuit", "cold", flow_c=-9.0, return_c=-4.0)
        self.assertGreaterEqual(self.send([cold]).status_code, 400)
        cold["fields"]["medium"] = "refrigerant"
        self.assertEqual(self.send([cold]).status_code, 200)

    def test_rows_belong_to_coils(self) -> None:
        self.assertEqual(self.send([create("air_system", "ahu", name="AHU")]).status_code, 200)

        def parts(kind: str, **fields: Any) -> Any:
            rows = [{"kind": "filter"}, {"kind": "cooling coil"}, {"kind": "fan"}]
            rows = [row | fields if row["kind"] == kind else row for row in rows]
            return self.send([self.put("air_system", "ahu", parts=rows)])

        refused = parts("filter", rows=4)
        self.assertIn(refused.status_code, (400, 422))
        self.assertIn("only a coil has rows", refused.content.decode())
        for fields in ({"rows": 13}, {"rows": 0}, {"face_velocity_m_s": 9.0}):
            self.assertIn(parts("cooling coil", **fields).status_code, (400, 422))
        self.assertEqual(parts("cooling coil", rows=6, face_velocity_m_s=2.2).status_code, 200)
        self.assertEqual(self.rows("air_system")["ahu"]["parts"][1]["rows"], 6)


class RunningCircuits(Hung):
    def test_hours_and_limits_stop_it_and_are_told(self) -> None:
        whole = self.results()["plant"]["source"]["design_w"]
        never = {
            "patterns": [{"id": "a", "name": "Off", "steps": [[360, 0], [1080, 1], [1440, 0]]}],
            "base": "a",
            "winter": "a",
        }
        made = create("schedule", "hours", name="Heating hours", kind="on_off", **never)
        self.assertEqual(self.send([made, self.put("circuit", "source", running="hours")]).status_code, 200)
        found = self.results()
        self.assertGreater(found["circuit"]["source"]["stopped_w"], 100.0)
        self.assertIn("circuit_stopped", {snag["code"] for snag in found["snag"].values() if snag["id"] == "source"})
        self.send([self.put("circuit", "source", running=None, stops_c=-40.0)])
        found = self.results()
        self.assertNotIn("source", found.get("plant", {}))
        self.assertAlmostEqual(found["circuit"]["source"]["stopped_w"] / whole, 1.0, delta=0.25)
        self.assertEqual(self.send([self.put("circuit", "source", stops_c=None)]).status_code, 200)
        self.assertAlmostEqual(self.results()["plant"]["source"]["design_w"], whole)

    def test_its_flow_by_a_schedule(self) -> None:
        warm = {"patterns": [{"id": "a", "name": "Warm", "steps": [[1440, 62.0]]}], "base": "a"}
        made = create("schedule", "flow", name="Flow", kind="temperature", **warm)
        change = self.put("circuit", "source", flow_rule="schedule", flow_schedule="flow")
        self.assertEqual(self.send([made, change]).status_code, 200)
        day = self.get(f"/projects/{self.project}/plant/source?month=0").json()
        self.assertEqual(set(day["flow_c"]), {62.0})
        refused = self.send([{"op": "delete", "kind": "schedule", "id": "flow"}])
        self.assertEqual(refused.status_code, 409)

    def test_what_pipes_lose_comes_back_to_the_room(self) -> None:
        before = self.results()
        area = self.rows("room")[self.room]["floor_area_m2"]
        self.assertEqual(self.send([self.put("circuit", "hot", loss_w_m2=3.0)]).status_code, 200)
        lost = self.results()
        self.assertAlmostEqual(lost["circuit"]["hot"]["pipes_lose_w"], 3.0 * area)
        extra = lost["plant"]["source"]["peak_w"] - before["plant"]["source"]["peak_w"]
        self.assertAlmostEqual(extra, 3.0 * area, places=3)
        self.send([self.put("circuit", "hot", loss_to="run")])
        back = self.results()
        self.assertAlmostEqual(back["circuit"]["hot"]["given_back_w"][self.room], 3.0 * area)
        self.assertAlmostEqual(back["plant"]["source"]["peak_w"], before["plant"]["source"]["peak_w"], places=3)
        # A pipe that runs elsewhere warms that room, which asks nothing of this circuit.
        other = create(
            "room", "store", number="9", name="Store", level=self.rows("room")[self.room]["level"], floor_area_m2=9.0
        )
        self.send([other, self.put("pipe_section", "to_room", through="store")])
        self.assertEqual(self.results()["circuit"]["hot"]["given_back_w"], {})
        # The room goes, and the pipe forgets it.
        self.assertEqual(self.send([{"op": "delete", "kind": "room", "id": "store"}]).status_code, 200)
        self.assertIsNone(self.rows("pipe_section")["to_room"]["through"])

    def test_a_buffer_by_the_least_run(self) -> None:
        self.assertIsNone(self.results()["plant"]["source"]["buffer"])
        self.send([self.put("circuit", "source", buffer_h=4.0), self.put("plant_unit", "boiler", least_part=0.4)])
        found = self.results()["plant"]["source"]
        least = 0.4 * found["units"]["boiler"]["capacity_w"]
        # 4.1 MJ/m3K is water's to a hundredth.
        self.assertAlmostEqual(
            found["buffer"]["needed_m3"],
            least * 14_400.0 / (4.1e6 * 5.0),
            delta=0.02 * least * 14_400.0 / (4.1e6 * 5.0),
        )
        self.send([self.put("circuit", "source", pinned_buffer_m3=0.01)])
        found = self.results()
        self.assertEqual(found["plant"]["source"]["buffer"]["volume_m3"], 0.01)
        self.assertIn("buffer_short", {snag["code"] for snag in found["snag"].values()})

    def test_limits_the_wrong_way_round(self) -> None:
        for identity, starts, stops in (("hot", 18.0, 15.0), ("cold", 12.0, 15.0)):
            answer = self.send([self.put("circuit", identity, starts_c=starts, stops_c=stops)])
            self.assertEqual(answer.status_code, 422)
            self.assertIn("Starts at, outdoors", answer.content.decode())


class OtherSides(Hung):
    def test_a_chiller_outlives_the_heat_pump_that_it_was(self) -> None:
        """The circuit of a heat pump goes with its units: what was its other side stands for itself."""
        made = [
            create("circuit", "pumps", **HOT | {"name": "Heat pumps"}),
            create("plant_unit", "pump", circuit="pumps", name="Heat pump", kind="heat pump"),
            create("plant_unit", "chiller", circuit="cold", name="Chiller", kind="chiller", reverses="pump"),
        ]
        self.assertEqual(self.send(made).status_code, 200)
        self.assertEqual(self.rows("plant_unit")["chiller"]["reverses"], "pump")
        self.assertEqual(self.send([{"op": "delete", "kind": "circuit", "id": "pumps"}]).status_code, 200)
        units = self.rows("plant_unit")
        self.assertNotIn("pump", units)
        self.assertIsNone(units["chiller"]["reverses"])

    def test_a_source_warmest_when_it_is_coldest_is_refused(self) -> None:
        change = self.put("plant_unit", "boiler", source_cold_c=8.0, source_warm_c=2.0)
        answer = self.send([change])
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Source, warmest", str(answer.json()))
