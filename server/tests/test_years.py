"""Several weather files a project, and many years at once."""

import json
from typing import Any
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile

from calculations import weather_files
from demo.weather import load_weather
from projects.models import Project
from tasks import batches
from tasks.work import work_on
from tests.base import ApiTest, Small
from tests.test_definitions import TMY3


class Several(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.project = self.small.project
        self.path = f"/projects/{self.project}"

    def upload(self, name: str, project: str = "") -> Any:
        file = SimpleUploadedFile(name, TMY3.read_bytes())
        task = self.client.post(f"/api/projects/{project or self.project}/weather", {"file": file}).json()
        return self.get(f"/tasks/{task['id']}").json()

    def files(self, project: str = "") -> list[dict[str, Any]]:
        return self.get(f"/projects/{project or self.project}/weather/files").json()

    def choose(self, file: str | None, project: str = "") -> int:
        path = f"/api/projects/{project or self.project}/weather/chosen"
        return self.client.put(path, {"file": file}, content_type="application/json").status_code


class WeatherFiles(Several):
    def test_the_last_one_counts_until_another_is_chosen(self) -> None:
        self.upload("first.csv")
        self.upload("second.csv")
        self.upload("second.csv")
        self.assertEqual([(f["name"], f["chosen"]) for f in self.files()], [("first.csv", False), ("second.csv", True)])
        self.assertEqual(self.get(f"{self.path}/weather").json()["name"], "second.csv")
        first, second = (f["id"] for f in self.files())
        self.assertEqual(self.choose(first), 204)
        self.assertEqual(self.get(f"{self.path}/weather").json()["name"], "first.csv")
        self.assertEqual(self.choose(None), 204)
        self.assertEqual(self.get(f"{self.path}/weather").json(), {})
        self.assertEqual(self.choose("nowhere"), 404)
        self.assertEqual(self.client.delete(f"/api{self.path}/weather/files/{second}").status_code, 204)
        self.assertEqual(self.client.delete(f"/api{self.path}/weather/files/{second}").status_code, 404)
        self.assertEqual([f["name"] for f in self.files()], ["first.csv"])

    def test_no_more_than_can_be_kept(self) -> None:
        with patch.object(weather_files, "MOST_FILES", 2):
            self.upload("a.csv")
            self.upload("b.csv")
            task = self.upload("c.csv")
        self.assertEqual(task["state"], "failed")
        self.assertIn("2 weather files are kept", task["error"]["title"])
        self.assertEqual([f["name"] for f in self.files()], ["a.csv", "b.csv"])

    def test_an_option_goes_by_its_base_until_it_has_its_own(self) -> None:
        self.upload("base.csv")
        option = self.post(f"{self.path}/options", {"name": "Elsewhere"}).json()["id"]
        self.assertEqual([(f["name"], f["own"]) for f in self.files(option)], [("base.csv", False)])
        self.assertEqual(self.get(f"/projects/{option}/weather").json()["name"], "base.csv")
        self.upload("own.csv", option)
        self.assertEqual(self.get(f"/projects/{option}/weather").json()["name"], "own.csv")
        self.assertEqual(self.get(f"{self.path}/weather").json()["name"], "base.csv")
        self.assertEqual(self.choose(self.files()[0]["id"], option), 404)
        self.choose(None, option)
        self.assertEqual(self.get(f"/projects/{option}/weather").json()["name"], "base.csv")

    def test_all_of_them_travel_with_the_project(self) -> None:
        self.upload("first.csv")
        self.upload("second.csv")
        content = self.get(f"{self.path}/project.json").json()
        file = SimpleUploadedFile("p.json", self.get(f"{self.path}/project.json").content)
        other = self.client.post("/api/projects/file", {"file": file}).json()["id"]
        self.assertEqual(
            [(f["name"], f["chosen"]) for f in self.files(other)], [("first.csv", False), ("second.csv", True)]
        )
        content["other_weather"] = [{"name": 7}]
        wrong = SimpleUploadedFile("p.json", json.dumps(content).encode())
        answer = self.client.post("/api/projects/file", {"file": wrong})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("other_weather", answer.json()["title"])


class Years(Several):
    def setUp(self) -> None:
        super().setUp()
        load_weather(Project.objects.get(pk=self.project))
        self.file = self.files()[0]["id"]
        self.option = self.post(f"{self.path}/options", {"name": "Warmer"}).json()["id"]
        self.set(self.option, "use", self.small.ids["use"], heating_setpoint_c=23.0)

    def ask(self, **more: Any) -> Any:
        body = {"options": [self.project], "weathers": [self.file]} | more
        return self.post(f"{self.path}/years", body)

    def swept(self, values: list[float]) -> dict[str, Any]:
        field = {"kind": "use", "id": self.small.ids["use"], "field": "heating_setpoint_c"}
        return {"field": field, "values": values}

    def points(self) -> list[dict[str, Any]]:
        return self.get(f"{self.path}/years").json()["points"]

    def test_options_and_weather_against_each_other(self) -> None:
        answer = self.ask(options=[self.project, self.option], weathers=[self.file, batches.TYPICAL])
        self.assertEqual(answer.status_code, 202, answer.content)
        found = {(p["option"], p["weather"]): p for p in self.points()}
        self.assertEqual({p["state"] for p in found.values()}, {"done"})
        self.assertEqual(len(found), 4)
        heat = {key: p["figures"]["loose_kwh"] + p["figures"]["delivered_kwh"] for key, p in found.items()}
        for weather in (self.file, batches.TYPICAL):
            self.assertGreater(heat[self.option, weather], heat[self.project, weather])
        self.assertNotAlmostEqual(heat[self.project, self.file], heat[self.project, batches.TYPICAL], places=1)
        # What the year by itself comes to, of the base and of the option.
        for project in (self.project, self.option):
            self.post(f"/projects/{project}/year")
            energy = self.get(f"/projects/{project}/year").json()["summary"]["energy"]
            self.assertAlmostEqual(sum(row["kwh"] for row in energy), heat[project, self.file], places=6)

    def test_values_of_a_field_equal_edits(self) -> None:
        self.assertEqual(self.ask(**self.swept([18.0, 23.0])).status_code, 202)
        colder, warmer = (p["figures"]["loose_kwh"] for p in self.points())
        self.assertLess(colder, warmer)
        self.ask(options=[self.option])
        self.assertAlmostEqual(self.points()[0]["figures"]["loose_kwh"], warmer, places=6)
        self.assertEqual(self.document(self.project)["objects"]["use"][0]["heating_setpoint_c"], 20.0)

    def test_an_edit_of_the_base_makes_years_old_its_options_too(self) -> None:
        self.ask(options=[self.project, self.option])
        self.assertEqual([p["stale"] for p in self.points()], [False, False])
        self.set(self.project, "room", self.small.ids["room"], floor_area_m2=31.0)
        self.assertEqual([p["stale"] for p in self.points()], [True, True])
        away = {"state": "deleted"}
        self.client.put(f"/api/projects/{self.option}/state", away, content_type="application/json")
        self.assertEqual([p["option_name"] for p in self.points()][1:], ["removed"])

    def test_what_is_wrong_is_named_and_nothing_is_asked(self) -> None:
        for more, words in (
            ({"options": ["nowhere"]}, "Options"),
            ({"weathers": ["nowhere"]}, "Weather"),
            (self.swept([99.0]), "Heating set-point"),
            (
                {"options": [self.project, self.option], "weathers": [self.file, ""]} | self.swept(list(range(10, 30))),
                "48",
            ),
            ({"field": self.swept([1.0])["field"], "values": []}, "0 were asked for"),
        ):
            with self.subTest(words):
                answer = self.ask(**more)
                self.assertEqual(answer.status_code, 422, answer.content)
                self.assertIn(words, answer.content.decode())
        self.assertEqual(self.points(), [])

    def test_stopped_and_asked_again(self) -> None:
        with patch.object(batches, "enqueue"):
            self.assertEqual(self.ask(**self.swept([18.0, 20.0])).status_code, 202)
        self.assertEqual({p["state"] for p in self.points()}, {"waiting"})
        self.assertEqual(self.get(f"{self.path}/tasks").json(), [])
        self.assertEqual(self.ask().status_code, 409)
        self.assertEqual(self.client.delete(f"/api{self.path}/years").status_code, 204)
        self.assertEqual({p["state"] for p in self.points()}, {"cancelled"})
        self.assertEqual(self.ask().status_code, 202)
        self.assertEqual([p["state"] for p in self.points()], ["done"])

    def test_a_file_that_goes_meanwhile_fails_that_year_alone(self) -> None:
        with patch.object(batches, "enqueue") as put:
            self.ask(weathers=[self.file, batches.TYPICAL])
        self.client.delete(f"/api{self.path}/weather/files/{self.file}")
        for call in put.call_args_list:
            work_on(call.args[0])
        failed, done = self.points()
        self.assertEqual((failed["state"], done["state"]), ("failed", "done"))
        self.assertIn("removed meanwhile", failed["fault"])
