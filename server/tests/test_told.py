"""Answers are what their types say: every route of a project asked about the demo, and checked against its type."""

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from pydantic import TypeAdapter

from api import told
from api.openapi import openapi
from api.told import compare, days, tasks, things, year
from demo.tarnwick import load_tarnwick
from demo.weather import load_weather
from projects.models import Project
from tests.base import ApiTest


class Typed(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = str(load_tarnwick(self.user).id)
        self.objects = self.document(self.project)["objects"]

    def first(self, kind: str) -> str:
        return str(self.objects[kind][0]["id"])

    def told(self, shape: Any, path: str, /, **query: Any) -> Any:
        """The answer, held against its type."""
        found = self.get(path.replace("P/", f"/projects/{self.project}/"), **query)
        self.assertEqual(found.status_code, 200, found.content)
        return TypeAdapter(shape).validate_json(found.content, strict=False)

    def test_days(self) -> None:
        for month in (0, 7):
            for room in self.objects["room"]:
                self.told(days.DayOut, "P/day", kind="room", subject=room["id"], month=month)
            self.told(days.DayOut, "P/day", kind="group", subject="building", month=month)
            hour = self.told(days.HourOut, "P/hour", month=month, step=84).root
            self.assertEqual(len(hour), len(self.objects["room"]))
            for system in self.get(f"/projects/{self.project}/results").json()["changed"]["air_system"]:
                self.assertEqual(len(self.told(days.AirDay, f"P/air/{system}", month=month).flow_kg_s), 144)
        plants = {unit["circuit"] for unit in self.objects["plant_unit"]}
        for circuit in plants:
            self.told(days.PlantDay, f"P/plant/{circuit}", month=7)
        self.told(days.PlaceDay, "P/place", month=7)
        shading = self.first("shading")
        self.told(days.ShadingDay, f"P/shading/{shading}", month=7, width=1.5, height=1.4, azimuth=180)

    def test_what_explains_and_what_is_listed(self) -> None:
        tree = self.told(things.WorkingOut, "P/working", quantity="room_heating", subject=self.first("room"))
        self.assertTrue(tree.inputs)
        self.told(list[things.ProofEntry], "/proof")
        self.told(things.PricesOut, "P/prices")
        self.told(things.ShelfOut, "/shelf")
        self.told(list[things.DrawingOut], "P/drawings")
        self.told(things.ReportChoices, "/report")
        self.told(list[things.PersonOut], "P/people")
        self.set(self.project, "room", self.first("room"), height_m=3.3)
        entry = self.told(list[things.EntryOut], "P/history")[0]
        line = self.told(list[things.LineOut], f"P/history/{entry.version}")[0]
        self.assertEqual((line.kind, line.what), ("room", "set"))

    def test_options_and_sweeps(self) -> None:
        option = self.post(f"/projects/{self.project}/options", {"name": "Less light"})
        compare.OptionOut.model_validate_json(option.content)
        one = option.json()["id"]
        self.set(one, "use", self.first("use"), lights_value=2.5)
        self.assertEqual(len(self.told(compare.OptionsOut, "P/options").options), 1)
        found = self.told(compare.DifferencesOut, f"/projects/{one}/differences").differences
        self.assertIn("lights_value", [difference.field for difference in found])
        self.told(compare.ComparisonOut, "P/compare", options=[one], kind="room", subject=self.first("room"))
        body = {"kind": "use", "id": self.first("use"), "field": "lights_value", "values": [2, 9]}
        swept = self.post(f"/projects/{self.project}/sweep", body)
        self.assertEqual(len(compare.SweepOut.model_validate_json(swept.content).points), 2)

    def test_the_year_its_weather_and_tasks(self) -> None:
        self.told(year.NoWeather, "P/weather")
        load_weather(Project.objects.get(pk=self.project))
        self.assertEqual(self.told(year.WeatherYearOut, "P/weather").hours, 8760)
        started = self.post(f"/projects/{self.project}/year").json()["id"]
        told_year = self.get(f"/projects/{self.project}/year").json()
        TypeAdapter(list[year.Bill]).validate_python(told_year["bills"])
        year.YearSummary.model_validate(told_year["summary"])
        self.told(tasks.TaskResult, f"/tasks/{started}/result")
        carrier = told_year["summary"]["carriers"]
        self.assertGreater(sum(found["kwh"] for found in carrier.values()), 0.0)

    def test_rooms_of_a_file(self) -> None:
        file = SimpleUploadedFile("rooms.csv", self.get(f"/projects/{self.project}/rooms.csv").content)
        started = self.client.post(f"/api/projects/{self.project}/rooms/read", {"file": file}).json()["id"]
        found = self.told(tasks.TaskResult, f"/tasks/{started}/result")
        self.assertIsInstance(found, tasks.RoomsRead)


class Described(ApiTest):
    # The schema of project files is itself a schema.
    FREE = {"project_schema"}

    def test_no_route_answers_a_bare_dictionary(self) -> None:
        bare = []
        for path, methods in openapi()["paths"].items():
            for method, route in methods.items():
                for answer in route["responses"].values():
                    for content in answer.get("content", {}).values():
                        schema = content["schema"]
                        schema = schema.get("items", schema)
                        if "$ref" not in schema and "anyOf" not in schema and route["operationId"] not in self.FREE:
                            bare.append(f"{method} {path}")
        self.assertEqual(bare, [])

    def test_numbers_say_their_unit(self) -> None:
        """A number's unit is the end of its name, or its description says it."""
        endings = (
            "_m_s",
            "_month",
            "_w",
            "_c",
            "_kwh",
            "_h",
            "_kh",
            "_kg",
            "_deg",
            "_m",
            "_pa",
            "_k",
            "_hour",
            "_m3_s",
            "_kg_s",
            "_w_m2",
            "_m2",
            "_kw",
        )
        plain = {
            "count",
            "version",
            "number",
            "month",
            "step",
            "year",
            "hours",
            "bytes",
            "index",
            "header_rows",
            "changes",
        }
        plain |= {"differences", "same", "unpriced", "percent", "expected", "found", "within", "difference"}
        plain |= {
            "energy",
            "demand",
            "standing",
            "levy",
            "tax",
            "total",
            "each",
            "per_unit",
            "share_of_bound",
        }  # money, shares
        unsaid = []
        for module in (told, compare, days, tasks, things, year):
            for shape in vars(module).values():
                if not isinstance(shape, type) or not issubclass(shape, told.Told) or shape is told.Told:
                    continue
                for name, field in shape.model_fields.items():
                    if (
                        field.annotation in (float, int)
                        and not field.description
                        and name not in plain
                        and not name.endswith(endings)
                    ):
                        unsaid.append(f"{shape.__name__}.{name}")
        self.assertEqual(unsaid, [])
