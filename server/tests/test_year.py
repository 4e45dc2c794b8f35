"""The year over the API: asked for, followed, read, exported, billed."""

import csv
import io
from datetime import date
from typing import Any
from unittest.mock import patch

import numpy as np

from demo.tarnwick import load_tarnwick
from demo.weather import load_weather
from projects.models import Project
from tasks import asking, files
from tests.base import ApiTest, Small, create


class WithoutAYear(ApiTest):
    def test_nothing_yet_and_no_weather(self) -> None:
        small = Small(self)
        found = self.get(f"/projects/{small.project}/year").json()
        self.assertEqual((found["summary"], found["stale"], found["bills"]), (None, False, []))
        self.assertEqual(
            self.get(f"/projects/{small.project}/year/series", name="energy/heating/electricity").status_code, 409
        )
        asked = self.post(f"/projects/{small.project}/year")
        self.assertEqual(asked.status_code, 202)
        told = self.get(f"/projects/{small.project}/year").json()
        self.assertEqual((told["summary"]["weather_key"], told["summary"]["hours"]), ("", 8760))
        self.assertIn("typical days", told["summary"]["weather"])
        self.assertFalse(told["stale"])
        # A file of hours in their place makes that year one of the past.
        load_weather(Project.objects.get(pk=small.project))
        self.assertTrue(self.get(f"/projects/{small.project}/year").json()["stale"])
        self.post(f"/projects/{small.project}/year")
        again = self.get(f"/projects/{small.project}/year").json()
        self.assertFalse(again["stale"])
        self.assertTrue(again["summary"]["weather_key"])

    def test_a_strangers_year(self) -> None:
        for path in ("year", "year/series?name=x", "year/series.csv?name=x"):
            self.assertEqual(self.get(f"/projects/nothere/{path}").status_code, 404, path)


class Demo(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        project = load_tarnwick(self.user)
        load_weather(project)
        self.project = project.id

    def run_year(self) -> dict[str, Any]:
        asked = self.post(f"/projects/{self.project}/year")
        self.assertEqual(asked.status_code, 202, asked.content)
        return self.get(f"/projects/{self.project}/year").json()

    def course(self, name: str) -> list[float]:
        answer = self.get(f"/projects/{self.project}/year/series", name=name)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()["values"]

    def csv(self, **query: str) -> list[list[str]]:
        answer = self.get(f"/projects/{self.project}/year/series.csv", **query)
        self.assertEqual(answer.status_code, 200, answer.content)
        return list(csv.reader(io.StringIO(answer.content.decode())))

    def test_pumps_that_follow_the_load_take_less(self) -> None:
        """Between the power at no flow and at full flow, for the same hours of running."""
        circuits = self.document(self.project)["objects"]["circuit"]
        changes = [
            {"op": "set", "kind": "circuit", "id": row["id"], "fields": {"water_flow": "variable", "pump_control": "constant pressure"}}
            for row in circuits
        ]  # fmt: skip
        constant = self.energy("pumps")
        self.assertEqual(self.commit(self.project, changes).status_code, 200)
        variable = self.energy("pumps")
        # The running hours are the same, so it cannot fall below the share at no flow: sqrt(1 / 1.25) / 2.
        self.assertLess(variable, 0.8 * constant)
        self.assertGreater(variable, 0.5 * 0.8**0.5 * constant)

    def test_pumps_run_while_anything_is_asked(self) -> None:
        """At constant flow: their electricity of the design day, in the hours in which a unit of their circuit gives something."""
        self.run_year()
        objects = self.document(self.project)["objects"]
        circuits = self.get(f"/projects/{self.project}/results").json()["changed"]["circuit"]
        wanted = np.zeros(8760)
        for circuit, found in circuits.items():
            units = [row["id"] for row in objects["plant_unit"] if row["circuit"] == circuit]
            given = np.sum([self.course(f"unit/{circuit}/{unit}") for unit in units], axis=0)
            wanted += np.where(given > 0.0, found["pump"]["electrical_w"], 0.0)
        told = np.array(self.course("energy/pumps/electricity"))
        self.assertGreater(np.ptp(wanted), 10.0)
        # Loads below what a course is rounded to are the only hours in which they may differ.
        self.assertLess(np.count_nonzero(np.abs(told - wanted) > 0.01), 20)

    def test_outdoor_air_by_the_people_spares_heating(self) -> None:
        """Less outdoor air while fewer people are there, over the year too: less to heat and to humidify, nothing more of fans."""
        systems = self.document(self.project)["objects"]["air_system"]
        gallery = next(row["id"] for row in systems if row["name"] == "AHU-2 gallery")

        def put(**fields: Any) -> None:
            change = {"op": "set", "kind": "air_system", "id": gallery, "fields": fields}
            self.assertEqual(self.commit(self.project, [change]).status_code, 200)

        def coil() -> float:
            return float(self.run_year()["summary"]["systems"][gallery]["heating_kwh"])

        # Air that is heated to one temperature whatever the rooms ask, and nothing recovered.
        put(recovery_sensible=0, supply_rule="fixed", supply_c=21)
        heating, coils, steam, fans = self.energy("heating"), coil(), self.energy("humidifying"), self.energy("fans")
        put(outdoor_by_people=True)
        saved = coils - coil()
        self.assertGreater(saved, 0.1 * coils)
        # The boilers burn about as much less as the coil gives less.
        self.assertLess(self.energy("heating"), heating - 0.9 * saved)
        self.assertLess(self.energy("humidifying"), 0.9 * steam)
        self.assertAlmostEqual(self.energy("fans"), fans, delta=0.01 * fans)

    def test_a_system_that_cannot_be_worked_out_is_named(self) -> None:
        """Air at a fixed 22 °C cannot cool rooms of 22 °C: the year goes without the unit and says so."""
        systems = self.document(self.project)["objects"]["air_system"]
        gallery = next(row["id"] for row in systems if row["name"] == "AHU-2 gallery")
        change = {"op": "set", "kind": "air_system", "id": gallery, "fields": {"supply_rule": "fixed", "supply_c": 22}}
        self.assertEqual(self.commit(self.project, [change]).status_code, 200)
        summary = self.run_year()["summary"]
        self.assertNotIn(gallery, summary["systems"])
        (fault,) = summary["faults"]
        self.assertIn("AHU-2 gallery, room 1.02", fault)
        self.assertIn("22.0 °C", fault)

    def energy(self, use: str) -> float:
        return sum(row["kwh"] for row in self.run_year()["summary"]["energy"] if row["use"] == use)

    def test_a_year_from_its_asking_to_its_bills(self) -> None:
        year = self.run_year()
        summary = year["summary"]
        self.assertFalse(year["stale"])
        self.assertEqual(summary["hours"], 8760)
        self.assertEqual(summary["faults"], [])
        # Every sum is that of its hours.
        for row in summary["energy"]:
            hours = self.course(f"energy/{row['use']}/{row['carrier']}")
            self.assertAlmostEqual(sum(hours) / 1e3, row["kwh"], delta=1e-4 * row["kwh"] + 0.1)
            self.assertAlmostEqual(sum(row["month_kwh"]), row["kwh"], delta=1e-4 * row["kwh"] + 0.1)
        for system in summary["systems"].values():
            self.assertLess(system["balance"], 1e-6)
        for name, room in summary["rooms"].items():
            # Sources of every month add up to nothing, and those of the year to what its own balance says.
            months = np.sum(list(room["sources_month_kwh"].values()), axis=0)
            self.assertLess(float(np.abs(months).max()), 1e-6)
            heating = sum(room["heating_month_kwh"])
            self.assertAlmostEqual(heating, room["heating_kwh"], delta=1.0)
            self.assertLess(room["fit_error"], 1e-3, name)
            self.assertLess(
                abs(sum(room["balance_kwh"].values())), 0.01 * sum(map(abs, room["balance_kwh"].values())), name
            )
        self.assertTrue(summary["water"])
        for name, row in summary["water"].items():
            kg_s = self.course(f"water/{name}")
            self.assertGreater(row["m3"], 0.0)
            self.assertAlmostEqual(sum(kg_s) * 3.6, row["m3"], delta=1e-4 * row["m3"])
            self.assertAlmostEqual(sum(row["month_m3"]), row["m3"], delta=1e-4 * row["m3"])
        for room in summary["rooms"].values():
            above, below = zip(*(room["adaptive_h"][name] for name in ("I", "II", "III")), strict=True)
            self.assertEqual(sorted(above, reverse=True), list(above))
            self.assertEqual(sorted(below, reverse=True), list(below))
            self.assertLessEqual(above[0] + below[0], room["occupied_h"])
        bill = next(b for b in year["bills"] if b["carrier"] == "electricity")
        used = sum(row["kwh"] for row in summary["energy"] if row["carrier"] == "electricity")
        self.assertAlmostEqual(bill["kwh"], used, delta=1.0)
        # January by hand, from the hours.
        kw = (
            np.sum(
                [
                    self.course(f"energy/{r['use']}/electricity")
                    for r in summary["energy"]
                    if r["carrier"] == "electricity"
                ],
                axis=0,
            )
            / 1e3
        )
        hour = np.arange(744)
        busy = np.array([date(2027, 1, 1 + h // 24).weekday() < 5 and 8 <= h % 24 < 20 for h in hour])
        january = kw[:744]
        energy = january[busy].sum() * 0.29 + january[~busy].sum() * 0.21
        self.assertAlmostEqual(bill["months"][0]["energy"], energy, delta=0.5)
        self.assertAlmostEqual(bill["months"][0]["peak_kw"], january[busy].max(), places=3)

    def test_a_lift_is_metered_by_its_schedule(self) -> None:
        document = self.document(self.project)["objects"]
        hours = next(row for row in document["schedule"] if row["name"] == "Workshop day")
        lift = create("connected_load", "lift", name="Lift", use="lifts", power_w=5000.0, schedule=hours["id"])
        self.assertEqual(self.commit(self.project, [lift]).status_code, 200)
        kwh = self.energy("lifts")
        course = np.array(self.course("energy/lifts/electricity"))
        self.assertAlmostEqual(kwh, float(course.sum()) / 1e3, delta=0.01 * kwh)
        self.assertLessEqual(float(course.max()), 5000.0)
        self.assertGreater(kwh, 1000.0)
        gone = self.commit(self.project, [{"op": "delete", "kind": "schedule", "id": hours["id"]}])
        self.assertEqual(gone.status_code, 409)

    def test_courses_as_csv(self) -> None:
        self.run_year()
        name = "energy/heating/natural gas"
        hours = np.array(self.course(name))
        rows = self.csv(name=name)
        self.assertEqual((rows[0], len(rows)), (["from", "natural gas [kW]"], 8761))
        self.assertEqual(rows[25][0], "2027-01-02 00:00")
        self.assertAlmostEqual(float(rows[25][1]), hours[24] / 1e3, places=3)
        months = self.csv(name=name, interval="month", energy="MJ")
        self.assertEqual((len(months), months[2][0]), (13, "2027-02-01 00:00"))
        self.assertAlmostEqual(float(months[2][1]), hours[744 : 744 + 672].sum() * 3.6e-3, delta=1.0)
        whole = self.csv(name=name, interval="year", energy="therm")
        self.assertAlmostEqual(float(whole[1][1]), hours.sum() / 1e3 / 29.3071, delta=1.0)
        room = next(row["id"] for row in self.document(self.project)["objects"]["room"] if row["number"] == "0.01")
        air = np.array(self.course(f"room/{room}/air_c"))
        days = self.csv(name=f"room/{room}/air_c", interval="day", system="IP")
        self.assertEqual((days[0][1], len(days)), ("air [°F]", 366))
        self.assertAlmostEqual(float(days[1][1]), air[:24].mean() * 1.8 + 32.0, places=2)
        refused = self.get(f"/projects/{self.project}/year/series.csv", name=f"room/{room}/air_c", energy="kWh")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("powers only", refused.json()["title"])
        for query in ({"name": "room/none/air_c"}, {"name": "../../secret"}, {"name": name, "interval": "week"}):
            self.assertIn(
                self.get(f"/projects/{self.project}/year/series.csv", **query).status_code, (404, 409, 422), query
            )

    def test_a_setback_is_felt_and_an_edit_makes_the_year_stale(self) -> None:
        before = self.run_year()
        use = next(row for row in self.document(self.project)["objects"]["use"] if row["name"] == "Gallery")
        self.assertEqual(self.set(self.project, "use", use["id"], heating_setpoint_c=18.0).status_code, 200)
        told = self.get(f"/projects/{self.project}/year").json()
        self.assertTrue(told["stale"])
        self.assertEqual(told["summary"]["version"], before["summary"]["version"])
        after = self.run_year()
        self.assertFalse(after["stale"])
        gas = [
            sum(row["kwh"] for row in year["summary"]["energy"] if row["carrier"] == "natural gas")
            for year in (before, after)
        ]
        self.assertLess(gas[1], gas[0] - 100.0)
        cost = [next(b["total"] for b in year["bills"] if b["carrier"] == "natural gas") for year in (before, after)]
        self.assertLess(cost[1], cost[0])
        # A price counts at once, without another run.
        tariff = next(
            row for row in self.document(self.project)["objects"]["tariff"] if row["carrier"] == "natural gas"
        )
        self.set(self.project, "tariff", tariff["id"], price_kwh=2 * tariff["price_kwh"])
        dearer = self.get(f"/projects/{self.project}/year").json()
        self.assertGreater(next(b["total"] for b in dearer["bills"] if b["carrier"] == "natural gas"), 1.5 * cost[1])

    def test_one_that_waits_is_not_asked_for_twice_and_can_be_cancelled(self) -> None:
        with patch.object(asking, "enqueue"):
            first, second = (self.post(f"/projects/{self.project}/year").json() for _ in range(2))
        self.assertEqual(first["id"], second["id"])
        self.assertEqual(self.post(f"/tasks/{first['id']}/cancel").json()["state"], "cancelled")
        self.assertIsNone(self.get(f"/projects/{self.project}/year").json()["summary"])

    def test_hours_that_were_tidied_away(self) -> None:
        year = self.run_year()
        files.forget(
            year["task"]["id"] if year["task"] else self.get(f"/projects/{self.project}/tasks").json()[0]["id"]
        )
        self.assertIsNone(self.get(f"/projects/{self.project}/year").json()["summary"])
        self.assertEqual(
            self.get(f"/projects/{self.project}/year/series", name="energy/lights/electricity").status_code, 409
        )
