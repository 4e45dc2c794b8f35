"""Rooms out to files and in again: round trips, differences, what is refused and what is defused."""

import io
import re
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

from exchange.rooms.incoming import IncomingRoom
from exchange.rooms.numbers import give_numbers
from exchange.rooms.table import read_csv
from projects.errors import Refused
from tests.base import Worked, create
from tests.test_plan import OnPlan


class Files(OnPlan):
    def read(self, name: str, data: bytes) -> Any:
        return self.read_for(self.small.project, name, data)

    def read_for(self, project: str, name: str, data: bytes, **how: str) -> Any:
        sent = {"file": SimpleUploadedFile(name, data), **how}
        return Worked(self, self.client.post(f"/api/projects/{project}/rooms/read", sent))

    def take_read(self, project: str, read: Any, *keys: str) -> Any:
        version = self.document(project)["version"]
        body = {"task": read.task, "rows": list(keys), "base_version": version}
        return self.post(f"/projects/{project}/rooms/take", body)

    def difference(self, name: str, data: bytes) -> dict[str, dict[str, Any]]:
        answer = self.read(name, data)
        self.assertEqual(answer.status_code, 200, answer.content)
        return {row["key"]: row for row in answer.json()["rows"]}

    def take(self, name: str, data: bytes, *keys: str) -> Any:
        return self.take_read(self.small.project, self.read(name, data), *keys)

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
            {"a": "changed", "b": "changed", "c": "changed", "d": "added", "e": "refused", "a (row 7)": "refused", "1": "missing"},
        )  # fmt: skip
        self.assertEqual(found["a"]["changes"], [
            {"field": "lights_w_m2", "title": "Lights", "quantity": "connected_density", "old": None, "new": 12.5}])  # fmt: skip
        notes = self.read("rooms.xlsx", data).json()["notes"]
        self.assertIn(
            "Uses that the project lacks are made with ordinary values, to be looked at: Swimming hall.", notes
        )
        self.assertIn("Heating set-point 99.0", found["e"]["reason"])
        self.assertIn("at most 40", found["e"]["reason"])
        version = self.document(self.small.project)["version"]
        self.refused(self.take("rooms.xlsx", data, "a", "e"), "e: this row cannot be taken")
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

    def test_a_table_of_two_columns_changes_two_columns(self) -> None:
        before = self.numbered("a")
        data = b"Number,Lights [W/m\xc2\xb2],Colour\na,7.5,red\n"
        answer = self.read("rooms.csv", data).json()
        self.assertIn("Colour", " ".join(answer["notes"]))
        self.assertEqual(self.take("rooms.csv", data, "a").status_code, 200)
        self.assertEqual(self.numbered("a"), before | {"lights_w_m2": 7.5})

    def test_our_own_export_goes_into_a_new_project(self) -> None:
        """Levels, uses and systems that the file names are made; every row can be taken."""
        data = self.written("xlsx")
        empty = self.new_project("Copy")
        read = self.read_for(empty, "rooms.xlsx", data)
        rows = read.json()["rows"]
        self.assertEqual({row["state"] for row in rows}, {"added"})
        self.assertEqual(self.take_read(empty, read, *(row["key"] for row in rows)).status_code, 200)
        mine, its = self.document(self.small.project)["objects"], self.document(empty)["objects"]
        self.assertEqual({r["number"] for r in its["room"]}, {r["number"] for r in mine["room"]})
        for kind in ("use", "air_system"):
            self.assertLessEqual({r["name"] for r in mine[kind]}, {r["name"] for r in its[kind]})

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
        told = self.read("rooms.xml", good).json()["notes"]
        self.assertEqual(told[0], "The file is valid by the gbXML schema 6.01.")
        self.assertIn("Read: ", told[2])
        notes = self.read("rooms.xml", good.replace(b'surfaceType="Roof"', b'surfaceType="Lid"')).json()["notes"]
        self.assertIn("does not keep to the gbXML schema 6.01", notes[0])
        self.assertRegex(notes[1], r"^line \d+: .*surfaceType.*Lid")
        self.assertIn("was not checked", self.read("model.xml", self.model()).json()["notes"][0])

    def test_directions_and_sizes_from_polygons_alone(self) -> None:
        """A box of 6 by 4 by 3 m of polygons: each face looks where it looks, with its area; an opening has its size."""

        def ring(*corners: tuple[float, float, float]) -> str:
            points = "".join("<CartesianPoint>" + "".join(f"<Coordinate>{c}</Coordinate>" for c in p) + "</CartesianPoint>"
                             for p in corners)  # fmt: skip
            return f"<PlanarGeometry><PolyLoop>{points}</PolyLoop></PlanarGeometry>"

        def surface(name: str, kind: str, shape: str, more: str = "") -> str:
            return (f'<Surface id="{name}" surfaceType="{kind}"><AdjacentSpaceId spaceIdRef="s1"/><Name>{name}</Name>'
                    f"{shape}{more}</Surface>")  # fmt: skip

        window = f'<Opening id="o" openingType="FixedWindow">{ring((1, 0, 1), (3, 0, 1), (3, 0, 2.5), (1, 0, 2.5))}</Opening>'
        gap = f'<Opening id="p" openingType="Air">{ring((4, 0, 0), (5, 0, 0), (5, 0, 2), (4, 0, 2))}</Opening>'
        body = "".join((
            surface("South", "ExteriorWall", ring((0, 0, 0), (6, 0, 0), (6, 0, 3), (0, 0, 3)), window + gap),
            surface("East", "ExteriorWall", ring((6, 0, 0), (6, 4, 0), (6, 4, 3), (6, 0, 3))),
            surface("North", "ExteriorWall", ring((6, 4, 0), (0, 4, 0), (0, 4, 3), (6, 4, 3))),
            surface("Slope", "Roof", ring((0, 0, 3), (6, 0, 3), (6, 4, 7), (0, 4, 7))),
            surface("Upside down", "Roof", ring((0, 0, 3), (0, 4, 3), (6, 4, 3), (6, 0, 3))),
            surface("Floor", "SlabOnGrade", ring((0, 0, 0), (0, 4, 0), (6, 4, 0), (6, 0, 0))),
            '<Surface id="tree" surfaceType="Shade"/>',
        ))  # fmt: skip
        for turned in (0, 30):
            place = f"<Location><Latitude>46</Latitude><Longitude>10</Longitude><CADModelAzimuth>{turned}</CADModelAzimuth></Location>"
            text = (
                '<gbXML xmlns="http://www.gbxml.org/schema" lengthUnit="Meters" areaUnit="SquareMeters" version="6.01">'
                f'<Campus id="c">{place}<Building id="b"><Space id="s1"><Name>{50 + turned} Box</Name><Area>24</Area>'
                f"</Space></Building>{body}</Campus></gbXML>"
            )
            found = self.read("box.xml", text.encode()).json()
            self.assertIn("1 openings of air alone, 1 shading surfaces", " ".join(found["notes"]))
            self.assertIn("1 surfaces turned over", " ".join(found["notes"]))
            self.assertEqual(self.take("box.xml", text.encode(), str(50 + turned)).status_code, 200)
            room = self.numbered(str(50 + turned))["id"]
            faces = {s["name"]: s for s in self.document(self.small.project)["objects"]["surface"] if s["room"] == room}
            want = {"South": (90, 180, 18), "East": (90, 90, 12), "North": (90, 0, 18), "Slope": (45, 180, 6 * 32**0.5),
                    "Upside down": (0, None, 24), "Floor": (180, None, 24)}  # fmt: skip
            for name, (tilt, azimuth, area) in want.items():
                self.assertAlmostEqual(faces[name]["tilt_deg"], tilt, places=1)
                self.assertAlmostEqual(faces[name]["area_m2"], area, places=2)
                if azimuth is not None:
                    self.assertAlmostEqual(faces[name]["azimuth_deg"], (azimuth + turned) % 360, places=1)
            openings = [
                o
                for o in self.document(self.small.project)["objects"]["opening"]
                if o["surface"] == faces["South"]["id"]
            ]
            self.assertEqual([(round(o["width_m"], 3), round(o["height_m"], 3)) for o in openings], [(2.0, 1.5)])

    def test_the_export_faces_where_it_says(self) -> None:
        """Without its rectangles the file's polygons give the same tilts, azimuths and areas back."""
        text = self.written("gbxml").decode()
        bare = re.sub(r"<RectangularGeometry>.*?</RectangularGeometry>", "", text, flags=re.S)
        bare = re.sub(r"(<Name>)(\w+ )", r"\1copy\2", bare)

        def faces() -> list[tuple[float, float, float]]:
            rows = self.document(self.small.project)["objects"]["surface"]
            return sorted(
                (s["tilt_deg"], s["azimuth_deg"] if 1.0 < s["tilt_deg"] < 179.0 else 0.0, round(s["area_m2"], 1))
                for s in rows
            )

        before = faces()
        self.assertIn("U-value", text)
        found = self.read("copy.xml", bare.encode()).json()["rows"]
        keys = [row["key"] for row in found if row["state"] == "added"]
        self.assertEqual(self.take("copy.xml", bare.encode(), *keys).status_code, 200)
        for old, new in zip(sorted(before * 2), faces(), strict=True):
            for one, other in zip(old, new, strict=True):
                self.assertAlmostEqual(one, other, delta=0.11)

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

    def test_moved_profiles_arcs_and_broken_spaces(self) -> None:
        """A rectangle moved and turned by its own position, a half circle on a square, a space that stands on itself, one out of
        doors: each is read as what it is, and none refuses the others.
        """
        model = ifcopenshell.file.from_string(self.model().decode())
        make, up = ifcopenshell.api.root.create_entity, model.createIfcDirection((0.0, 0.0, 1.0))
        storey = model.by_type("IfcBuildingStorey")[0]
        context = model.by_type("IfcGeometricRepresentationContext")[0]
        context.TrueNorth = model.createIfcDirection((0.5, 0.8660254))

        def space(number: str, profile: Any, **more: Any) -> Any:
            found = make(model, ifc_class="IfcSpace", name=number)
            found.LongName = f"Room {number}"
            ifcopenshell.api.aggregate.assign_object(model, products=[found], relating_object=storey)
            solid = model.createIfcExtrudedAreaSolid(profile, None, up, 3000.0)
            shape = model.createIfcShapeRepresentation(context, "Body", "SweptSolid", [solid])
            found.Representation = model.createIfcProductDefinitionShape(None, None, [shape])
            for name, value in more.items():
                setattr(found, name, value)
            return found

        place = model.createIfcAxis2Placement2D(
            model.createIfcCartesianPoint((50_000.0, 1000.0)), model.createIfcDirection((0.0, 1.0))
        )
        space("4.01", model.createIfcRectangleProfileDef("AREA", None, place, 6000.0, 2000.0))
        points = model.createIfcCartesianPointList2D(
            [(60_000.0, 0.0), (64_000.0, 0.0), (64_000.0, 4000.0), (62_000.0, 6000.0), (60_000.0, 4000.0)]
        )
        segments = [
            model.create_entity("IfcLineIndex", (1, 2, 3)), model.create_entity("IfcArcIndex", (3, 4, 5)),
            model.create_entity("IfcLineIndex", (5, 1)),
        ]  # fmt: skip
        curve = model.createIfcIndexedPolyCurve(points, segments, False)
        space("4.02", model.createIfcArbitraryClosedProfileDef("AREA", None, curve))
        ring = model.createIfcLocalPlacement(None, model.by_type("IfcAxis2Placement3D")[0])
        ring.PlacementRelTo = ring
        square = model.createIfcRectangleProfileDef("AREA", None, None, 1000.0, 1000.0)
        space("4.03", square, ObjectPlacement=ring)
        space("4.04", square, PredefinedType="EXTERNAL")
        space("4.05", model.createIfcRectangleProfileDef("AREA", None, None, None, None))
        data = model.to_string().encode()
        answer = self.read("model.ifc", data).json()
        states = {row["number"]: row["state"] for row in answer["rows"]}
        self.assertEqual([states.get(n) for n in ("3.01", "4.01", "4.02", "4.04")], ["added"] * 3 + [None])
        notes = " ".join(answer["notes"])
        self.assertIn("1 spaces out of doors", notes)
        self.assertIn("turned by +30.0°", notes)
        self.assertEqual(self.take("model.ifc", data, "4.01", "4.02").status_code, 200)
        xs, ys = zip(*self.numbered("4.01")["outline_m"], strict=True)
        self.assertEqual((min(xs), max(xs), min(ys), max(ys)), (49.0, 51.0, -2.0, 4.0))
        # A square of 4 m and a half circle of 2 m of radius on it, by chords.
        self.assertAlmostEqual(self.numbered("4.02")["floor_area_m2"], 16.0 + 2.0 * 3.14159265, delta=0.1)

    def test_our_own_comes_back(self) -> None:
        found = self.difference("rooms.ifc", self.written("ifc"))
        self.assertEqual({row["state"] for row in found.values()}, {"unchanged"})
        model = ifcopenshell.file.from_string(self.written("ifc").decode())
        self.assertEqual(model.schema, "IFC4")
        self.assertEqual(len(model.by_type("IfcSpace")), 4)


class Unnumbered(Files):
    """Rooms without a number get the next free ones, where that is asked for."""

    TABLE = "Number,Name,Floor area [m²]\n,Larder,12\nc,Hall,40\n,Cellar,9\n".encode()

    def test_numbers_only_on_request(self) -> None:
        self.assertEqual([row["state"] for row in self.difference("r.csv", self.TABLE).values()].count("refused"), 2)
        read = self.read_for(self.small.project, "r.csv", self.TABLE, numbered="true")
        added = {row["name"]: row["key"] for row in read.json()["rows"] if row["state"] == "added"}
        self.assertEqual(added, {"Larder": "c1", "Cellar": "c2"})
        answer = self.take_read(self.small.project, read, "c1", "c2")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(self.numbered("c2")["floor_area_m2"], 9)

    def test_the_form_of_the_highest_goes_on(self) -> None:
        cases: list[tuple[list[str], list[str], list[str]]] = [
            (["1.09", "1.1", "0.30"], ["", ""], ["1.10", "1.11"]),
            ([], ["", ""], ["001", "002"]),
            (["B9"], ["", "B10", ""], ["B11", "B10", "B12"]),
            (["Attic"], [""], ["Attic1"]),
        ]
        for known, numbers, want in cases:
            rooms = [IncomingRoom(number, "x", "row") for number in numbers]
            give_numbers(rooms, known)
            self.assertEqual([room.number for room in rooms], want, known)
