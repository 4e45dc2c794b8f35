"""Whole projects: copied, put away and brought back, and through a file."""

import json
from importlib import import_module
from pathlib import Path
from typing import Any

import pvlib
from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile

from calculations import service
from demo.tarnwick import load_tarnwick
from projects import document
from projects.models import Price, Project
from projects.whole import file_schema
from tests.base import ApiTest, Small

TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"
PNG = b"\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR" + (4).to_bytes(4, "big") + (3).to_bytes(4, "big") + b"\x08\x02\x00\x00\x00"


class Projects(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.demo = load_tarnwick(self.user).id

    def peaks(self, project: str) -> dict[str, Any]:
        found = self.get(f"/projects/{project}/results").json()["changed"]["group"]["building"]
        return {key: found[key] for key in ("heating_w", "sum_of_peaks_w", "floor_area_m2", "diversity")}

    def upload(self, content: Any) -> Any:
        data = content if isinstance(content, bytes) else json.dumps(content).encode()
        return self.client.post("/api/projects/file", {"file": SimpleUploadedFile("project.json", data)})

    def same(self, one: dict[str, float], other: dict[str, float]) -> None:
        for key, value in one.items():
            self.assertAlmostEqual(other[key] / value, 1.0, delta=1e-9, msg=key)

    def test_a_copy_is_the_same_and_its_own(self) -> None:
        answer = self.post(f"/projects/{self.demo}/copy", {"name": "Second"})
        self.assertEqual(answer.status_code, 201, answer.content)
        copy = answer.json()["id"]
        self.same(self.peaks(self.demo), self.peaks(copy))
        room = self.document(copy)["objects"]["room"][0]
        self.set(copy, "room", room["id"], lights_w_m2=200)
        original = {r["number"]: r for r in self.document(self.demo)["objects"]["room"]}[room["number"]]
        self.assertIsNone(original["lights_w_m2"])
        shared = {r["id"] for r in self.document(copy)["objects"]["room"]} & {
            r["id"] for r in self.document(self.demo)["objects"]["room"]
        }
        self.assertEqual(shared, set())

    def test_through_a_file_and_back(self) -> None:
        leader, follower = (r["id"] for r in self.document(self.demo)["objects"]["room"][:2])
        self.set(self.demo, "room", follower, sensor_room=leader)
        before = self.peaks(self.demo)
        content = self.get(f"/projects/{self.demo}/project.json").json()
        answer = self.upload(content)
        self.assertEqual(answer.status_code, 201, answer.content)
        project = answer.json()["id"]
        self.same(before, self.peaks(project))
        again = self.get(f"/projects/{project}/project.json").json()
        self.assertEqual(
            {kind: len(rows) for kind, rows in content["objects"].items()},
            {kind: len(rows) for kind, rows in again["objects"].items()},
        )
        led = next(r for r in again["objects"]["room"] if r["sensor_room"])
        self.assertIn(led["sensor_room"], {r["id"] for r in again["objects"]["room"]})
        service.forget_all()
        document.forget_all()
        self.same(before, self.peaks(project))

    def test_weather_and_drawings_travel_with_the_file(self) -> None:
        small = Small(self).project
        level = self.document(small)["objects"]["level"][0]["id"]
        for path, name, data in (
            ("weather", "year.csv", TMY3.read_bytes()),
            (f"levels/{level}/drawing", "plan.png", PNG),
        ):
            sent = self.client.post(f"/api/projects/{small}/{path}", {"file": SimpleUploadedFile(name, data)})
            self.assertLess(sent.status_code, 300, sent.content)
        content = self.get(f"/projects/{small}/project.json").json()
        answer = self.upload(content)
        self.assertEqual(answer.status_code, 201, answer.content)
        other = answer.json()["id"]
        first, second = (self.get(f"/projects/{project}/weather").json() for project in (small, other))
        self.assertEqual(first["name"], second["name"])
        self.assertEqual(first["about"], second["about"])
        self.assertEqual(first["derived"], second["derived"])
        its = self.get(f"/projects/{other}/drawings").json()[0]
        self.assertEqual((its["name"], its["width"]), ("plan.png", 4.0))
        self.assertEqual(self.get(f"/projects/{other}/levels/{its['level']}/drawing").content, PNG)
        copy = self.post(f"/projects/{small}/copy", {"name": "Copy"}).json()["id"]
        self.assertEqual(len(self.get(f"/projects/{copy}/drawings").json()), 1)

        count = len(self.get("/projects").json())
        hours, drawing = content["weather"]["hours"], content["drawings"][0]
        for part, words in (
            ({"weather": {"name": "x", "about": {}, "hours": {}}}, "about.year"),
            ({"weather": content["weather"] | {"hours": hours | {"wind_m_s": hours["wind_m_s"][:99]}}}, "99 values"),
            ({"weather": content["weather"] | {"hours": hours | {"wind_m_s": [900.0] * 8760}}}, "900"),
            ({"drawings": [drawing | {"level": "nowhere"}]}, "no level"),
            ({"drawings": [drawing | {"data": "!"}]}, "base64"),
            ({"drawings": [drawing | {"media_type": "image/jpeg"}]}, "no image/jpeg"),
            ({"drawings": [drawing | {"width": -1}]}, "width"),
        ):
            refused = self.upload(content | part)
            self.assertEqual(refused.status_code, 422, words)
            self.assertIn(words, refused.json()["title"])
        self.assertEqual(len(self.get("/projects").json()), count)

    def test_a_file_of_the_first_version_is_brought_forward(self) -> None:
        """Air from another room was two fields of a room then."""
        content = self.get(f"/projects/{Small(self).project}/project.json").json()
        objects = content["objects"]
        (room,) = objects["room"]
        gone = ("second_system", "second_pinned_flow_m3_s", "offset_m3_s")
        first = {key: value for key, value in room.items() if key not in gone}
        giver = first | {"id": "giver", "number": "9", "air_from": None, "air_from_m3_s": None}
        objects["room"] = [first | {"air_from": "giver", "air_from_m3_s": 0.04}, giver]
        del objects["transfer"], objects["extract"]
        answer = self.upload(content | {"version": 1})
        self.assertEqual(answer.status_code, 201, answer.content)
        made = self.get(f"/projects/{answer.json()['id']}/project.json").json()["objects"]
        numbers = {row["id"]: row["number"] for row in made["room"]}
        (transfer,) = made["transfer"]
        self.assertEqual((numbers[transfer["source"]], transfer["flow_m3_s"]), ("9", 0.04))

    def test_a_file_of_the_second_version_is_brought_forward(self) -> None:
        """What a unit had was said by settings then, and its order was one."""
        content = self.get(f"/projects/{self.demo}/project.json").json()
        settings = {"filter_drop_pa": 110.0, "coil_drop_pa": 90.0, "other_drop_pa": 0.0}
        cases = (
            ({}, ["filter", "heating coil", "cooling coil", "fan"], 200.0),
            ({"blow_through": True}, ["filter", "heating coil", "fan", "cooling coil"], 200.0),
            ({"cools": False, "humidifier": "steam"}, ["filter", "heating coil", "steam humidifier", "fan"], 200.0),
            ({"dry_to_c": 11.0}, ["filter", "heating coil", "cooling coil", "fan", "heating coil"], 200.0),
            ({"filter_drop_pa": 0.0, "other_drop_pa": 30.0}, ["heating coil", "cooling coil", "fan", "other"], 120.0),
        )
        objects = content["objects"]
        systems = objects["air_system"]
        rest = {"cools": True, "humidifier": "none", "blow_through": False}
        for said, order, drop_pa in cases:
            old = {key: value for key, value in systems[0].items() if key != "parts"} | settings | rest | said
            more = [
                {key: value for key, value in row.items() if key != "parts"} | settings | rest for row in systems[1:]
            ]
            answer = self.upload(content | {"version": 2, "objects": objects | {"air_system": [old, *more]}})
            self.assertEqual(answer.status_code, 201, answer.content)
            made = self.get(f"/projects/{answer.json()['id']}/project.json").json()["objects"]["air_system"]
            parts = next(row["parts"] for row in made if row["name"] == old["name"])
            self.assertEqual([part["kind"] for part in parts], order)
            self.assertAlmostEqual(sum(part["drop_pa"] for part in parts), drop_pa)

    def test_a_file_of_the_third_version_is_brought_forward(self) -> None:
        """The weight of ducts was a part of their size then, also in their prices."""
        content = self.get(f"/projects/{self.demo}/project.json").json()
        prices = [
            {"id": f"p{n}", "item": "Round duct, length and sheet", "size": size, "each": 0.0, "per_unit": 30.0 + n}
            for n, size in enumerate(("160 mm, 0.5 mm sheet, 25 kg", "250 mm, 0.5 mm sheet", ""))
        ]
        answer = self.upload(content | {"version": 3, "objects": content["objects"] | {"price": prices}})
        self.assertEqual(answer.status_code, 201, answer.content)
        made = self.get(f"/projects/{answer.json()['id']}/project.json").json()["objects"]["price"]
        sizes = {row["per_unit"]: row["size"] for row in made}
        self.assertEqual(sizes, {30.0: "160 mm, 0.5 mm sheet", 31.0: "250 mm, 0.5 mm sheet", 32.0: ""})

    def test_prices_of_ducts_in_the_database_lose_their_weight(self) -> None:
        """Where the size has a price of its own already that one counts; options come over too."""
        duct = "Round duct, length and sheet"
        heavy, light, other = (f"{size} mm, 0.5 mm sheet" for size in (160, 200, 250))
        for n, size in enumerate((f"{heavy}, 25 kg", f"{light}, 9 kg", light)):
            fields = {"id": f"price{n}", "project_id": self.demo, "item": duct, "size": size, "each": float(n)}
            Price.objects.create(**fields)
        home = Project.objects.get(pk=self.demo)
        layer = {"price": {"x": {"op": "made", "fields": {"item": duct, "size": f"{other}, 7 kg"}}}}
        option = Project.objects.create(id="opt", name="O", owner=home.owner, base=home, layer=layer)
        import_module("projects.migrations.0059_prices_of_ducts").sizes_alone(apps, None)
        found = {row.pk: row.size for row in Price.objects.filter(pk__startswith="price")}
        self.assertEqual(found, {"price0": heavy, "price1": f"{light}, 9 kg", "price2": light})
        option.refresh_from_db()
        self.assertEqual(option.layer["price"]["x"]["fields"]["size"], other)

    def test_the_file_keeps_its_schema(self) -> None:
        """Every object has the fields that the published schema names, no others, and those it requires."""
        content = self.get(f"/projects/{self.demo}/project.json").json()
        schema = self.get("/project-schema.json").json()
        self.assertEqual(schema, json.loads(json.dumps(file_schema())))
        kinds = schema["properties"]["objects"]["properties"]
        self.assertEqual(set(content["objects"]), set(kinds))
        for kind, rows in content["objects"].items():
            its = schema["$defs"][f"object_{kind}"]
            for row in rows[:50]:
                self.assertLessEqual(set(row), set(its["properties"]), kind)
                self.assertLessEqual(set(its["required"]), set(row), kind)

    def test_files_that_are_refused(self) -> None:
        small = Small(self).project
        good = self.get(f"/projects/{small}/project.json").json()
        count = len(self.get("/projects").json())

        def changed(**objects: Any) -> dict[str, Any]:
            return good | {"objects": good["objects"] | objects}

        room = good["objects"]["room"][0]
        for content, words in (
            (b"{", "no JSON"),
            ([], "no project"),
            (good | {"version": 9}, "version 9"),
            (good | {"objects": []}, "objects"),
            (changed(chimney=[]), "chimney"),
            (changed(site=[]), "exactly one"),
            (changed(design_month=good["objects"]["design_month"][:11]), "each month"),
            (changed(room=[room | {"floor_area_m2": -4}]), "Floor area -4"),
            (changed(room=[room | {"use": "nobody"}]), "no such use"),
            (changed(room=[room, room]), "id"),
        ):
            answer = self.upload(content)
            self.assertIn(answer.status_code, (409, 422), words)
            self.assertIn(words, answer.json()["title"])
        self.assertEqual(len(self.get("/projects").json()), count)

    def test_put_away_and_brought_back(self) -> None:
        def listed() -> list[str]:
            return [p["id"] for p in self.get("/session").json()["projects"]]

        path = f"/api/projects/{self.demo}/state"
        for state in ("archived", "deleted"):
            answer = self.client.put(path, {"state": state}, content_type="application/json")
            self.assertEqual(answer.json()["state"], state)
            self.assertNotIn(self.demo, listed())
        self.client.put(path, {"state": "open"}, content_type="application/json")
        self.assertIn(self.demo, listed())
        self.assertEqual(self.client.put(path, {"state": "gone"}, content_type="application/json").status_code, 422)
