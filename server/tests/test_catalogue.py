"""Catalogues through the API: chosen from by the kit, read and written as CSV, refused with line and column."""

import csv
import io
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from demo.tarnwick import load_tarnwick
from pendrum_core.model.catalogue import ITEMS
from tests.base import ApiTest, create

PUMPS = "item;name;flow L/s;pressure kPa\npump;Small;1;30\npump;Middle;5;60\npump;Large;20;150\n"


class Catalogue(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = str(load_tarnwick(self.user).id)

    def read(self, text: str | bytes, name: str = "pumps.csv") -> Any:
        data = text.encode() if isinstance(text, str) else text
        version = self.document(self.project)["version"]
        body = {"file": SimpleUploadedFile(name, data), "base_version": version}
        return self.client.post(f"/api/projects/{self.project}/catalogue", body)

    def results(self) -> dict[str, Any]:
        return self.get(f"/projects/{self.project}/results").json()["changed"]

    def sizes(self, item: str) -> dict[str, str]:
        return {line["tag"]: line["size"] for line in self.results()["kit"].values() if line["item"].startswith(item)}

    def test_the_kit_names_the_smallest_pump_that_covers(self) -> None:
        before = self.sizes("Pump, flow")
        self.assertTrue(all(size.startswith("motor") for size in before.values()))
        self.assertEqual(self.read(PUMPS).status_code, 200)
        by_name = {"Small": (1e-3, 30e3), "Middle": (5e-3, 60e3), "Large": (20e-3, 150e3)}
        pumps = {
            row["name"]: self.results()["circuit"][row["id"]]["pump"]
            for row in self.document(self.project)["objects"]["circuit"]
            if row["medium"] == "water"
        }
        for tag, size in self.sizes("Pump, flow").items():
            pump = next(pump for name, pump in pumps.items() if tag.startswith(name))
            duty = pump["flow_m3_s"] / pump["count"], pump["head_pa"]
            covering = [name for name, (flow, head) in by_name.items() if flow >= duty[0] and head >= duty[1]]
            self.assertEqual(size, covering[0])
        # Another file in its place: another row; one step back and the first stands again.
        first = self.sizes("Pump, flow")
        self.assertEqual(self.read("item,name,flow L/s,pressure kPa\npump,Only,50,500\n").status_code, 200)
        self.assertEqual(set(self.sizes("Pump, flow").values()), {"Only"})
        self.post(f"/projects/{self.project}/undo?base_version=0")
        self.assertEqual(self.sizes("Pump, flow"), first)
        self.assertEqual(self.read("item,name,flow L/s,pressure kPa\npump,Tiny,0.1,5\n").status_code, 200)
        self.assertEqual(set(self.sizes("Pump, flow").values()), {"none of the catalogue covers it"})

    def test_radiators_are_of_the_series_entered(self) -> None:
        before = self.results()["emitter"]
        rows = "item,name,output kW\n" + "".join(f"radiator,R{n},{n * 0.7:.1f}\n" for n in range(1, 60))
        self.assertEqual(self.read(rows).status_code, 200)
        after = self.results()["emitter"]
        own = [round(n * 700.0, 6) for n in range(1, 60)]
        for room, emitter in after.items():
            if emitter["duty_w"] > 0.0:
                self.assertEqual(emitter["rating_w"], before[room]["rating_w"])
                self.assertAlmostEqual(emitter["chosen_w"], min(w for w in own if w >= emitter["rating_w"]))
        self.assertTrue(all(size.startswith("R") for size in self.sizes("Radiator").values()))

    def test_made_up_products_ship_with_every_item(self) -> None:
        version = self.document(self.project)["version"]
        answer = self.post(f"/projects/{self.project}/catalogue/made-up?base_version={version}")
        self.assertEqual(answer.status_code, 200, answer.content)
        rows = self.document(self.project)["objects"]["catalogue_row"]
        self.assertEqual({row["item"] for row in rows}, set(ITEMS))
        named = {row["name"] for row in rows}
        for item in ("Pump, flow", "Supply fan", "Radiator"):
            sizes = self.sizes(item)
            self.assertTrue(sizes)
            self.assertLessEqual(set(sizes.values()), named | {"none of the catalogue covers it"})
        # Taken again it takes the place of what stands, as a file does.
        version = self.document(self.project)["version"]
        self.post(f"/projects/{self.project}/catalogue/made-up?base_version={version}")
        self.assertEqual(len(self.document(self.project)["objects"]["catalogue_row"]), len(rows))

    def test_motors_ducts_and_pipes_of_the_catalogue_are_taken(self) -> None:
        own = "item,name,output kW,inner mm,outer mm\nmotor,M,0.4,,\nmotor,N,90,,\n" + "".join(
            f"duct,D{mm},,{mm},\npipe,P{mm},,{mm / 8},{mm / 8 + 3}\n" for mm in range(90, 1500, 70)
        )
        self.assertEqual(self.read(own).status_code, 200)
        circuit = next(r for r in self.document(self.project)["objects"]["circuit"] if r["medium"] == "water")
        self.set(self.project, "circuit", circuit["id"], pipe="catalogue")
        found = self.results()
        fans = [system["fan"] for system in found["air_system"].values()]
        for fan in fans:
            shaft_kw = fan["shaft_w"] * 1.15 / 1000.0
            self.assertEqual(fan["motor_w"], 400.0 if shaft_kw <= 0.4 else 90e3)
        sections = self.document(self.project)["objects"]["duct_section"]
        sized = [
            s
            for s in sections
            if s["shape"] == "round" and s["pinned_diameter_m"] is None and s["id"] in found["duct_section"]
        ]
        self.assertTrue(sized)
        for section in sized:
            mm = found["duct_section"][section["id"]]["diameter_m"] * 1000
            self.assertAlmostEqual((mm - 90) % 70, 0.0, places=6)
        pipes = [line["size"] for line in found["kit"].values() if line["item"].startswith("Catalogue pipe")]
        self.assertTrue(pipes)
        self.assertTrue(all(size.startswith("P") for size in pipes), pipes)

    def test_pipes_of_a_catalogue_without_any_are_told(self) -> None:
        circuit = next(r for r in self.document(self.project)["objects"]["circuit"] if r["medium"] == "water")
        self.set(self.project, "circuit", circuit["id"], pipe="catalogue")
        told = [snag for snag in self.results()["snag"].values() if snag["id"] == circuit["id"]]
        self.assertTrue(any("none in it" in str(snag) for snag in told), told)

    def test_what_is_written_is_read_again(self) -> None:
        self.read(PUMPS)
        self.commit(self.project, [create("catalogue_row", "k1", item="chiller", name="=K 120", output_w=120_000)])
        text = self.get(f"/projects/{self.project}/catalogue.csv").content.decode()
        lines = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual([line["name"] for line in lines], ["'=K 120", "Small", "Middle", "Large"])
        self.assertEqual((float(lines[2]["flow L/s"]), float(lines[2]["pressure kPa"])), (5.0, 60.0))
        held = self.rows()
        self.assertEqual(self.read(text).status_code, 200)
        self.assertEqual(self.rows(), held)

    def rows(self) -> list[tuple[Any, ...]]:
        rows = self.document(self.project)["objects"]["catalogue_row"]
        return sorted(
            (r["item"], r["name"], round(r["flow_m3_s"], 9), round(r["pressure_pa"], 3), round(r["output_w"], 3))
            for r in rows
        )

    def test_bad_files_say_where_and_change_nothing(self) -> None:
        self.read(PUMPS)
        held = self.rows()
        for text, words in (
            ("item;name;flow L/s;pressure kPa\npump;A;many;30\n", "Line 2, flow L/s: 'many' is not a number"),
            ("item,name,output kW\nlamp,A,3\n", "lamp"),
            ("item,name,output kW\nboiler,A,\n", "above 0"),
            ("item,output kW\nboiler,3\n", "no column 'name'"),
            ("item,name,output kW\n", "no rows"),
            ("", "no column"),
            (b"\xff\xfe\x00", "UTF-8"),
            ("item,name,output kW\nboiler,A,-3\n", "at least 0"),
            ("item,name,inner mm\nduct,A,\n", "above 0"),
            ("item,name,inner mm,outer mm\npipe,A,20,16\n", "at least"),
            ("item,name,output kW\nboiler,A,nan\n", "Output"),
        ):
            answer = self.read(text)
            self.assertEqual(answer.status_code, 422, (text, answer.content))
            self.assertIn(words, answer.json()["title"])
        self.assertEqual(self.rows(), held)

    def test_a_reader_and_a_stranger_cannot(self) -> None:
        self.client.logout()
        self.assertEqual(self.read_as_nobody(), 401)

    def read_as_nobody(self) -> int:
        body = {"file": SimpleUploadedFile("a.csv", PUMPS.encode()), "base_version": 0}
        return self.client.post(f"/api/projects/{self.project}/catalogue", body).status_code
