"""Thermostats, limits and humidity over HTTP: what a use and a room say arrives in the calculation, and what is refused."""

from typing import Any

from calculations.service import results_of
from core.tests.plain_march import PlainRoom
from pendrum_core.model.thermostats import NO_COOLING
from projects.document import load_document
from projects.models import Project
from tests.base import create
from tests.test_definitions import Definitions

_OPEN = {"patterns": [{"id": "a", "name": "Weekday", "steps": [[420, 0], [1080, 1], [1440, 0]]},
                      {"id": "b", "name": "Shut", "steps": [[1440, 0]]}],
         "base": "a", "rules": [{"start": "01-01", "end": "12-31", "days": "00000111", "pattern": "b"}]}  # fmt: skip


class Thermostats(Definitions):
    def setUp(self) -> None:
        super().setUp()
        temperatures = [
            {"id": "s", "name": "Summer", "steps": [[720, 25], [1440, 26]]},
            {"id": "w", "name": "Rest", "steps": [[1440, 23]]},
        ]
        season = [{"start": "06-01", "end": "08-31", "days": "11111111", "pattern": "s"}]
        answer = self.commit(
            self.small.project,
            [
                create("schedule", "open", name="Open", kind="on_off", **_OPEN),
                create("schedule", "prog", name="Cool", kind="temperature", patterns=temperatures, base="w", rules=season),
                create("room", "r2", number="2", name="West", use=self.small.ids["use"], floor_area_m2=20, height_m=3),
                create("surface", "s2", room="r2", name="West", role="outer_wall", boundary="outdoors", area_m2=15,
                       azimuth_deg=270),
                create("opening", "o2", surface="s2", name="Window", width_m=4, height_m=2),
            ],
        )  # fmt: skip
        self.assertEqual(answer.status_code, 200, answer.content)

    def calculated(self) -> Any:
        return results_of(load_document(Project.objects.get(pk=self.small.project))).results

    def room(self, name: str = "room") -> dict[str, Any]:
        return self.results()["room"][self.small.ids.get(name, name)]

    def codes(self) -> dict[str, str]:
        return {snag["code"]: snag["sentence"] for snag in self.results()["snag"].values()}

    def test_setback_makes_a_warm_up(self) -> None:
        held = self.room()["heating_w"]
        self.assertIsNone(self.room()["control"])
        self.change("use", "use", setpoint_schedule="open", heating_away="setback", heating_setback_c=15, warm_up_h=2)
        found, control = self.room(), self.room()["control"]
        self.assertAlmostEqual(control["held_heating_w"], held, places=6)
        self.assertAlmostEqual(control["warm_up_w"], found["heating_w"] - held, places=6)
        self.assertGreater(found["heating_w"], 1.1 * held)
        day = self.get(f"{self.base}/day", kind="room", subject=self.small.ids["room"], month=0).json()
        self.assertAlmostEqual(max(day["control"]["plant_w"]), found["heating_w"], places=1)
        self.assertEqual(day["control"]["low_c"][41:43], [15.0, 20.0])
        self.assertEqual(day["control"]["high_c"][0], None)
        total = [sum(parts[i] for parts in day["parts"].values()) for i in range(144)]
        self.assertLess(max(abs(a - b) for a, b in zip(total, day["control"]["plant_w"], strict=True)), 0.01)
        # The same room in a plain march, with what was found as its most: at 7 h it is warm, and not long before.
        room = self.calculated().rooms[self.small.ids["room"]].room
        low = [15.0] * 30 + [20.0] * 78 + [15.0] * 36

        def plant(step: int, sensed: float, answer: float) -> float:
            return min(max((low[step] - sensed) / answer, 0.0), found["heating_w"])

        _, _, ends = PlainRoom(room, self.calculated().outdoors).run(0, plant, winter=True)
        self.assertAlmostEqual(ends[41], 20.0, delta=0.05)

    def test_a_longer_warm_up_needs_less_and_an_allowance_is_by_area(self) -> None:
        self.change("use", "use", setpoint_schedule="open", heating_away="off", warm_up_h=1)
        short = self.room()["heating_w"]
        self.change("room", "room", warm_up_h=4)
        self.assertLess(self.room()["heating_w"], short)
        self.assertEqual(self.results()["effective"][self.small.ids["room"]]["warm_up_h"], [4.0, "own"])
        self.change("use", "use", warm_up="allowance", reheat_w_m2=13)
        held = self.room()["control"]["held_heating_w"]
        self.assertAlmostEqual(self.room()["heating_w"], held + 13 * 20, delta=0.01)

    def test_a_programme_by_season(self) -> None:
        self.change("use", "use", cooling_programme="prog")
        thermostat = self.calculated().rooms[self.small.ids["room"]].room.thermostat
        self.assertEqual(thermostat.cooling[6].steps, ((720, 25.0), (1440, 26.0)))
        self.assertEqual(thermostat.cooling[0].steps, ((1440, 23.0),))
        self.assertEqual(self.calculated().rooms[self.small.ids["room"]].room.cooling_setpoint_c, 23.0)
        self.change("room", "room", cooling_setpoint_c=24)
        own = self.calculated().rooms[self.small.ids["room"]].room
        self.assertIsNone(own.thermostat)
        self.assertEqual(own.cooling_setpoint_c, 24.0)
        points = self.results()["use"][self.small.ids["use"]]["set_points"]
        self.assertEqual(points["cooling"][6], [[720, 25.0], [1440, 26.0]])

    def test_cooling_off_at_night_by_the_clock(self) -> None:
        site = self.row("site")["id"]
        self.change("site", site, saving_from="03-28", saving_to="10-31")
        self.change("use", "use", setpoint_schedule="open", cooling_away="off")
        thermostat = self.calculated().rooms[self.small.ids["room"]].room.thermostat
        self.assertEqual(thermostat.cooling[6].steps, ((360, NO_COOLING), (1020, 24.0), (1440, NO_COOLING)))
        self.assertEqual(thermostat.cooling[0].steps, ((420, NO_COOLING), (1080, 24.0), (1440, NO_COOLING)))
        course = self.calculated().rooms[self.small.ids["room"]].total[6]
        self.assertEqual(float(course[:29].max()), 0.0)

    def test_capacity_too_small_is_told(self) -> None:
        self.change("room", "r2", cooling_capacity_w=400)
        found = self.room("r2")
        self.assertAlmostEqual(found["cooling"]["sensible_w"], 400.0, places=6)
        self.assertGreater(found["control"]["cooling_flat_out_h"], 2.0)
        sentence = self.codes()["cooling_short"]
        self.assertIn(f"{found['control']['too_warm']['kelvin']:.1f} K above", sentence)
        self.change("room", "r2", cooling_capacity_w=None, sensor_room=self.small.ids["room"])
        self.assertIn("led by the sensor of 1 Office", self.codes()["cooling_short"])
        self.commit(self.small.project, [{"op": "delete", "kind": "room", "id": self.small.ids["room"]}])
        self.assertIsNone(self.row("room", "r2")["sensor_room"])

    def test_a_setback_above_its_set_point_is_told(self) -> None:
        self.assertNotIn("heating_away_wrong_way", self.codes())
        self.change("room", "r2", heating_setpoint_c=12, heating_setback_c=15)
        use = self.row("use", self.row("room", "r2")["use"])
        self.change("use", use["id"], setpoint_schedule=use["people_schedule"] or self.row("schedule")["id"],
                    heating_away="setback")  # fmt: skip
        sentence = self.codes()["heating_away_wrong_way"]
        self.assertIn("15.0 °C (own), above the set-point of 12.0 °C (own)", sentence)
        self.change("room", "r2", heating_setback_c=10)
        self.assertNotIn("heating_away_wrong_way", self.codes())

    def test_a_room_that_names_itself_has_its_own_sensor(self) -> None:
        before = self.room("r2")
        self.change("room", "r2", sensor_room="r2")
        self.assertEqual(self.room("r2"), before)
        self.change("room", "r2", cooling_capacity_w=400)
        self.assertNotIn("led by", self.codes()["cooling_short"])

    def test_what_contradicts_is_a_snag_or_refused(self) -> None:
        use = self.small.ids["use"]
        self.refused(self.set(self.small.project, "use", use, heating_away="setback", heating_setback_c=22),
                     "“Heating setback” 22", "above")  # fmt: skip
        self.refused(
            self.set(self.small.project, "use", use, humidity_low=0.6, humidity_high=0.4), "“Humidity not below” 0.6"
        )
        self.refused(self.set(self.small.project, "room", "r2", cooling_capacity_w=-5), "Cooling capacity", "-5")
        self.refused(self.set(self.small.project, "room", "r2", sensor_room="nobody"), "nobody")
        self.change("use", "use", heating_away="off")
        self.assertIn("no_set_point_hours", self.codes())
        self.change("use", "use", setpoint_schedule="open", drawn_air="extract")
        self.assertIn("people_while_away", self.with_people())
        self.assertIn("extract_with_cooling", self.codes())
        cold = [{"id": "a", "name": "Day", "steps": [[600, 26], [900, 18], [1440, 26]]}]
        self.commit(
            self.small.project, [create("schedule", "cold", name="Cold", kind="temperature", patterns=cold, base="a")]
        )
        self.change("use", "use", cooling_programme="cold", drawn_air="none")
        self.assertIn("10:00 to 15:00", self.codes()["setpoints_crossed"])

    def with_people(self) -> dict[str, str]:
        late = [{"id": "a", "name": "Day", "steps": [[600, 0], [1320, 1], [1440, 0]]}]
        self.commit(self.small.project, [create("schedule", "late", name="Late", patterns=late, base="a")])
        self.change("use", "use", people_schedule="late")
        return self.codes()

    def test_open_windows_cool_a_room(self) -> None:
        self.change("use", "use", cooled=False)
        hot = self.room("r2")["floating_peak_c"]
        self.change("use", "use", drawn_air="windows", drawn_air_ach=8, drawn_air_above_c=22)
        self.assertLess(self.room("r2")["floating_peak_c"], hot - 1.0)

    def test_humidity_against_a_hand_balance(self) -> None:
        """No system: leaks and ventilation are outdoor air, people add; the mixture by hand."""
        self.change("use", "use", humidity_low=0.4, humidity_high=0.5)
        room = self.calculated().rooms["r2"]
        outside = self.calculated().outdoors
        found = self.calculated().moisture["r2"]
        flow_kg = (
            (room.room.infiltration_m3_s + room.room.direct_outdoor_air_m3_s) * outside.pressure_pa / (287.042 * 293.15)
        )
        vapour = 2501e3 + 1860 * 24.0
        w = outside.humidity_ratio[found.month, found.step] + room.latent_w[found.month, found.step] / vapour / flow_kg
        pressure = w * outside.pressure_pa / (0.621945 + w)
        saturated = 610.94 * 2.718281828 ** (17.625 * 24.0 / (24.0 + 243.04))  # Magnus form of the WMO guide
        self.assertAlmostEqual(found.highest, pressure / saturated, delta=0.01)
        self.assertIn("too_humid", self.codes())
        self.assertIn("too_dry", self.codes())
        wet = self.results()["room_air"]["r2"]["moisture"]
        self.assertAlmostEqual(wet["humidifying_w"] / wet["humidifying_kg_s"], 2501e3 + 1860 * 20, delta=3000)

    def test_counted_gains_lower_the_heating_load(self) -> None:
        self.change("use", "use", lights_value=20, people_value=0)
        before = self.room()["heating_w"]
        self.change("project", self.small.project, winter_gains_share=0.5)
        self.assertAlmostEqual(before - self.room()["heating_w"], 0.5 * 20 * 20, delta=25)
