"""Rooms out to files and in again: round trips, differences, what is refused and what is defused."""

import io
import json
import zipfile
from typing import Any
from xml.etree import ElementTree

import ifcopenshell
import ifcopenshell.api.aggregate
import ifcopenshell.api.context
import ifcopenshell.api.project
import ifcopenshell.api.root
import ifcopenshell.api.unit
from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook, load_workbook

from exchange.rooms.table import read_csv
from projects.errors import Refused
from tests.base import create
from tests.test_plan import OnPlan


class Files(OnPlan):
    def read(self, name: str, data: bytes) -> Any:
        return self.client.post(f"/api{self.base}/rooms/read", {"file": SimpleUploadedFile(name, data)})

    def difference(self, name: str, data: bytes) -> dict[str, dict[str, Any]]:
        answer = self.read(name, data)
        self.assertEqual(answer.status_code, 200, answer.content)
        return {row["key"]: row for row in answer.json()["rows"]}

    def take(self, name: str, data: bytes, *keys: str) -> Any:
        version = self.document(self.small.project)["version"]
        body = {"file": SimpleUploadedFile(name, data), "taken": json.dumps(keys), "base_version": version}
        return self.client.post(f"/api{self.base}/rooms/take", body)

    def written(self, form: str, units: str = "SI") -> bytes:
        answer = self.get(f"{self.base}/rooms.{form}", units=units)
        self.assertEqual(answer.status_code, 200)
        return b"".join(answer) if answer.streaming else answer.content

    def numbered(self, number: str) -> dict[str, Any]:
        return next(r for r in self.document(self.small.project)["objects"]["room"] if r["number"] == number)

    def states(self, found: dict[str, dict[str, Any]]) -> dict[str, str]:
        return {key: row["state"] for key, row in found.items()}


class Tables(Files):
    def test_every_form_comes_back_unchanged(self) -> None:
        self.change("room", "a", lights_w_m2=11.3, heating_capacity_w=1234.5, air_system=self.small.ids["system"])
        for form, units in (("xlsx", "SI"), ("xlsx", "IP"), ("csv", "SI"), ("csv", "IP")):
            found = self.difference(f"rooms.{form}", self.written(form, units))
            self.assertEqual(self.states(found), dict.fromkeys(("1", "a", "b", "c"), "unchanged"), (form, units))

    def test_a_workbook_with_changes_and_faults(self) -> None:
        book = load_workbook(io.BytesIO(self.written("xlsx")))
        sheet = book["Rooms"]
        head = {str(cell.value).split(" [")[0]: cell.column for cell in sheet[1]}
        row = {str(sheet.cell(i, 1).value): i for i in range(2, sheet.max_row + 1)}
        sheet.cell(row["a"], head["Lights"]).value = 12.5
        sheet.cell(row["b"], head["Occupied"]).value = False
        sheet.cell(row["c"], head["Use"]).value = "Swimming hall"
        sheet.append(["d", "New store", "Upper", "Office"])
        sheet.cell(sheet.max_row, head["Floor area"]).value = 33.0
        sheet.append(["e", "Loud", None, "Office"])
        sheet.cell(sheet.max_row, head["Heated to"]).value = 99
        sheet.append(["a", "Twice"])
        sheet.delete_rows(row["1"])
        target = io.BytesIO()
        book.save(target)
        data = target.getvalue()
        found = self.difference("rooms.xlsx", data)
        self.assertEqual(
            self.states(found),
            {"a": "changed", "b": "changed", "c": "refused", "d": "added", "e": "refused", "a (row 7)": "refused", "1": "missing"},
        )  # fmt: skip
        self.assertEqual(found["a"]["changes"], [
            {"field": "lights_w_m2", "title": "Lights", "quantity": "connected_density", "old": None, "new": 12.5}])  # fmt: skip
        self.assertIn("no use 'Swimming hall'", found["c"]["reason"])
        self.assertIn("Heating set-point 99.0", found["e"]["reason"])
        self.assertIn("at most 40", found["e"]["reason"])
        version = self.document(self.small.project)["version"]
        self.refused(self.take("rooms.xlsx", data, "a", "c"), "c: this row cannot be taken")
        answer = self.take("rooms.xlsx", data, "a", "b", "d")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(answer.json()["version"], version + 1)
        self.assertEqual(self.numbered("a")["lights_w_m2"], 12.5)
        self.assertFalse(self.numbered("b")["occupied"])
        self.assertEqual(self.numbered("d")["level"], "up")
        self.post(f"{self.base}/undo?base_version={version + 1}")
        self.assertIsNone(self.numbered("a")["lights_w_m2"])
        # What is missing goes only where it is asked for.
        self.take("rooms.xlsx", data, "1")
        self.assertNotIn("1", {r["number"] for r in self.document(self.small.project)["objects"]["room"]})

    def test_the_workbook_has_choices_and_no_live_formulas(self) -> None:
        self.set(self.small.project, "room", "a", name="=1+1")
        book = load_workbook(io.BytesIO(self.written("xlsx")))
        sheet = book["Rooms"]
        self.assertEqual([v.type for v in sheet.data_validations.dataValidation], ["list"] * 7)
        self.assertIn("'=1+1", [cell.value for cell in sheet["B"]])
        self.assertEqual(sheet["H1"].value, "Floor area [m²]")
        self.assertIn("'=1+1", self.written("csv").decode("utf-8-sig"))
        self.assertEqual(self.difference("rooms.csv", self.written("csv"))["a"]["state"], "unchanged")

    def test_tables_as_others_write_them(self) -> None:
        semicolons = "Raumliste;;\nNumber;Name;Floor area [m²]\n7;Küche;12,5\n".encode("cp1252")
        found = self.difference("rooms.csv", semicolons)["7"]
        self.assertEqual((found["name"], found["changes"][2]["new"]), ("Küche", 12.5))
        tabs = "Number\tFloor area [ft²]\n8\t107.639104\n".encode("utf-16")
        self.assertAlmostEqual(self.difference("rooms.txt", tabs)["8"]["changes"][2]["new"], 10.0, places=5)
        self.refused(self.read("rooms.csv", b"Number,Floor area [acres]\n1,2\n"), "acres", "m²")
        bad = self.difference("rooms.csv", b"Number,Floor area [m\xc2\xb2]\n9,lots\n")["9"]
        self.assertIn("Floor area 'lots': a number is needed", bad["reason"])

    def test_hostile_and_broken_files(self) -> None:
        bomb = io.BytesIO()
        with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr("xl/worksheets/sheet1.xml", b"0" * 210_000_000)
        for name, data, words in (
            ("rooms.xlsx", bomb.getvalue(), "unpacks to 210 MB"),
            ("rooms.xlsx", b"no workbook", "no XLSX"),
            ("rooms.csv", b"\x00\x01\x02" * 50, "no text"),
            ("rooms.csv", b"a,b\n1,2\n", "Number"),
            ("rooms.pdf", b"%PDF", "XLSX, CSV, gbXML and IFC"),
            ("rooms.xml", b"<a><b></a>", "no XML"),
            ("rooms.xml", b"<rooms/>", "not gbXML"),
            ("rooms.xml", b'<!DOCTYPE x [<!ENTITY a "aaaa">]><gbXML>&a;</gbXML>', "document type"),
            ("rooms.ifc", b"hello", "ISO-10303-21"),
            ("rooms.ifc", b"ISO-10303-21;\nDATA;\nrubbish", "IFC"),
        ):
            self.refused(self.read(name, data), words)
        with self.assertRaisesRegex(Refused, "more than 20000 rows"):
            read_csv(b"Number\n" + b"1\n" * 20_002)

    def test_an_expanding_entity_inside_a_workbook(self) -> None:
        book = io.BytesIO()
        Workbook().save(book)
        laughs = b'<?xml version="1.0"?><!DOCTYPE l [<!ENTITY a "ha">' + b"".join(
            b'<!ENTITY %c "%s">' % (98 + i, b"&%c;" % (97 + i) * 10) for i in range(9)
        ) + b"]><sst>&j;</sst>"  # fmt: skip
        target = io.BytesIO()
        with zipfile.ZipFile(book) as old, zipfile.ZipFile(target, "w") as new:
            for part in old.namelist():
                new.writestr(part, laughs if part == "xl/workbook.xml" else old.read(part))
        self.refused(self.read("rooms.xlsx", target.getvalue()), "no XLSX workbook")


class Gbxml(Files):
    def model(self) -> bytes:
        """Two rooms over a wall, in feet, as another program might write it."""
        ns = "http://www.gbxml.org/schema"
        ElementTree.register_namespace("", ns)
        tag = f"{{{ns}}}"
        root = ElementTree.Element(f"{tag}gbXML", lengthUnit="Feet", areaUnit="SquareFeet", volumeUnit="CubicFeet")
        campus = ElementTree.SubElement(root, f"{tag}Campus", id="c")
        building = ElementTree.SubElement(campus, f"{tag}Building", id="b")
        storey = ElementTree.SubElement(building, f"{tag}BuildingStorey", id="s1")
        ElementTree.SubElement(storey, f"{tag}Name").text = "Second"
        ElementTree.SubElement(storey, f"{tag}Level").text = "20"
        for identity, name in (("x1", "201 Drawing office"), ("x2", "202 Archive")):
            space = ElementTree.SubElement(building, f"{tag}Space", id=identity, buildingStoreyIdRef="s1")
            for key, text in (("Name", name), ("Area", "200"), ("Volume", "2000")):
                ElementTree.SubElement(space, f"{tag}{key}").text = text
        for kind, spaces, azimuth, window in (
            ("ExteriorWall", ["x1"], 90, True),
            ("InteriorWall", ["x1", "x2"], 180, False),
        ):
            wall = ElementTree.SubElement(campus, f"{tag}Surface", id=f"w{azimuth}", surfaceType=kind)
            for space in spaces:
                ElementTree.SubElement(wall, f"{tag}AdjacentSpaceId", spaceIdRef=space)
            shapes = [(wall, 20, 10)]
            if window:
                shapes.append((ElementTree.SubElement(wall, f"{tag}Opening", id="o", openingType="FixedWindow"), 5, 4))
            for parent, width, height in shapes:
                shape = ElementTree.SubElement(parent, f"{tag}RectangularGeometry")
                for key, value in (("Azimuth", azimuth), ("Tilt", 90), ("Width", width), ("Height", height)):
                    ElementTree.SubElement(shape, f"{tag}{key}").text = str(value)
        return ElementTree.tostring(root)

    def test_a_model_of_another_program(self) -> None:
        found = self.difference("model.xml", self.model())
        self.assertEqual((found["201"]["state"], found["201"]["name"]), ("added", "Drawing office"))
        answer = self.take("model.xml", self.model(), "201", "202")
        self.assertEqual(answer.status_code, 200, answer.content)
        objects = self.document(self.small.project)["objects"]
        office = self.numbered("201")
        self.assertAlmostEqual(office["floor_area_m2"], 200 * 0.3048**2, places=6)
        self.assertAlmostEqual(office["height_m"], 10 * 0.3048, places=6)
        level = next(row for row in objects["level"] if row["id"] == office["level"])
        self.assertEqual((level["name"], round(level["floor_m"], 4)), ("Second", 6.096))
        walls = {(s["role"], s["azimuth_deg"]): s for s in objects["surface"] if s["room"] == office["id"]}
        self.assertAlmostEqual(walls[("outer_wall", 90.0)]["area_m2"], 200 * 0.3048**2, places=3)
        window = next(o for o in objects["opening"] if o["surface"] == walls[("outer_wall", 90.0)]["id"])
        self.assertAlmostEqual(window["width_m"] * window["height_m"], 20 * 0.3048**2, places=6)
        archive = [s for s in objects["surface"] if s["room"] == self.numbered("202")["id"]]
        self.assertEqual([(s["role"], s["azimuth_deg"]) for s in archive], [("inner_wall", 0.0)])
        self.assertEqual([(s["boundary"], s["neighbour"]) for s in archive], [("room", office["id"])])
        self.assertEqual(walls[("inner_wall", 180.0)]["neighbour"], self.numbered("202")["id"])
        again = self.difference("model.xml", self.model())
        self.assertEqual((again["201"]["state"], again["202"]["state"]), ("unchanged", "unchanged"))
        self.assertEqual(again["a"]["state"], "missing")

    def test_a_wall_to_a_room_that_is_not_taken_loses_nothing(self) -> None:
        self.assertEqual(self.take("model.xml", self.model(), "201").status_code, 200)
        office = self.numbered("201")["id"]
        rows = [s for s in self.document(self.small.project)["objects"]["surface"] if s["room"] == office]
        self.assertEqual({s["role"]: (s["boundary"], s["neighbour"]) for s in rows}["inner_wall"], ("adiabatic", None))

    def test_surfaces_of_a_file_no_longer_follow_the_plan(self) -> None:
        data = self.written("gbxml").replace(b"<Name>Roof</Name>", b"<Name>Lid</Name>")
        room = self.numbered("b")["id"]
        self.commit(self.small.project, [{"op": "delete", "kind": "surface", "id": self.surfaces("b")["roof"]["id"]}])
        self.assertEqual(self.take("model.xml", data, "b").status_code, 200)
        self.assertIsNone(self.numbered("b")["plan_area_m2"])
        before = [s for s in self.document(self.small.project)["objects"]["surface"] if s["room"] == room]
        self.assertIn("Lid", {s["name"] for s in before})
        self.change("level", self.ground, height_m=5)
        after = [s for s in self.document(self.small.project)["objects"]["surface"] if s["room"] == room]
        self.assertEqual(after, before)

    def test_our_own_comes_back(self) -> None:
        wall = self.surfaces("a")["outer_wall//0"]["id"]
        self.commit(
            self.small.project, [create("opening", "w", surface=wall, name="Pane", count=2, width_m=1.2, height_m=1)]
        )
        found = self.difference("rooms.xml", self.written("gbxml"))
        self.assertEqual({row["state"] for row in found.values()}, {"unchanged"})

    def test_the_open_schema_is_kept_and_faults_against_it_are_named(self) -> None:
        good = self.written("gbxml")
        self.assertEqual(self.read("rooms.xml", good).json()["notes"], ["The file is valid by the gbXML schema 6.01."])
        notes = self.read("rooms.xml", good.replace(b'surfaceType="Roof"', b'surfaceType="Lid"')).json()["notes"]
        self.assertIn("does not keep to the gbXML schema 6.01", notes[0])
        self.assertRegex(notes[1], r"^line \d+: .*surfaceType.*Lid")
        (unknown,) = self.read("model.xml", self.model()).json()["notes"]
        self.assertIn("was not checked", unknown)

    def test_assemblies_come_back_by_name(self) -> None:
        wall = self.surfaces("a")["outer_wall//0"]
        other = next(
            row for row in self.document(self.small.project)["objects"]["assembly"] if row["element"] == "wall"
        )
        kit = create("assembly", "mine", name="Reed wall", element="wall")
        self.commit(self.small.project, [kit])
        self.change("surface", wall["id"], assembly="mine", area_m2=wall["area_m2"])
        data = self.written("gbxml")
        self.change("surface", wall["id"], assembly=other["id"], area_m2=wall["area_m2"] + 5.0)
        self.assertEqual(self.take("rooms.xml", data, "a").status_code, 200)
        rows = self.document(self.small.project)["objects"]["surface"]
        found = [row for row in rows if row["room"] == self.numbered("a")["id"] and row["assembly"] == "mine"]
        self.assertEqual([(row["name"], round(row["area_m2"], 3)) for row in found], [(wall["name"], wall["area_m2"])])


class Ifc(Files):
    def model(self) -> bytes:
        """A space of 6 × 4 × 2.8 m in millimetres, turned and moved by its placement."""
        model = ifcopenshell.api.project.create_file(version="IFC4")
        make = ifcopenshell.api.root.create_entity
        project = make(model, ifc_class="IfcProject", name="P")
        ifcopenshell.api.unit.assign_unit(model, length={"is_metric": True, "raw": "MILLIMETERS"})
        context = ifcopenshell.api.context.add_context(model, context_type="Model")
        building = make(model, ifc_class="IfcBuilding", name="B")
        storey = make(model, ifc_class="IfcBuildingStorey", name="Upper floor")
        storey.Elevation = 3500.0
        space = make(model, ifc_class="IfcSpace", name="3.01")
        space.LongName = "Reading room"
        for part, whole in ((building, project), (storey, building), (space, storey)):
            ifcopenshell.api.aggregate.assign_object(model, products=[part], relating_object=whole)
        origin = model.createIfcCartesianPoint((10_000.0, 20_000.0, 3500.0))
        up, turned = model.createIfcDirection((0.0, 0.0, 1.0)), model.createIfcDirection((0.0, 1.0, 0.0))
        space.ObjectPlacement = model.createIfcLocalPlacement(None, model.createIfcAxis2Placement3D(origin, up, turned))
        profile = model.createIfcRectangleProfileDef("AREA", None, None, 6000.0, 4000.0)
        place = model.createIfcAxis2Placement3D(model.createIfcCartesianPoint((0.0, 0.0, 0.0)))
        solid = model.createIfcExtrudedAreaSolid(profile, place, up, 2800.0)
        shape = model.createIfcShapeRepresentation(context, "Body", "SweptSolid", [solid])
        space.Representation = model.createIfcProductDefinitionShape(None, None, [shape])
        return model.to_string().encode()

    def test_a_space_with_its_shape(self) -> None:
        answer = self.take("model.ifc", self.model(), "3.01")
        self.assertEqual(answer.status_code, 200, answer.content)
        room = self.numbered("3.01")
        self.assertEqual((room["name"], round(room["height_m"], 9), room["floor_area_m2"]), ("Reading room", 2.8, 24.0))
        # Six metres along its own x, which points north.
        xs, ys = [p[0] for p in room["outline_m"]], [p[1] for p in room["outline_m"]]
        self.assertEqual((min(xs), max(xs), min(ys), max(ys)), (8.0, 12.0, 17.0, 23.0))
        self.assertAlmostEqual(self.areas(room["id"])["outer_wall//90"], 6 * 2.8, places=6)

    def test_our_own_comes_back(self) -> None:
        found = self.difference("rooms.ifc", self.written("ifc"))
        self.assertEqual({row["state"] for row in found.values()}, {"unchanged"})
        model = ifcopenshell.file.from_string(self.written("ifc").decode())
        self.assertEqual(model.schema, "IFC4")
        self.assertEqual(len(model.by_type("IfcSpace")), 4)
