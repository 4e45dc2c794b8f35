"""The plan over HTTP: surfaces follow outlines, what was changed by hand stays, undo is one step."""

from typing import Any

from exchange.drawings import read_drawing
from projects.errors import Refused
from tests.base import create
from tests.test_definitions import Definitions


def rectangle(x0: float, y0: float, x1: float, y1: float) -> list[list[float]]:
    return [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]


class OnPlan(Definitions):
    def setUp(self) -> None:
        super().setUp()
        self.ground = self.row("level")["id"]
        self.use = self.small.ids["use"]
        roles = ("roof", "ground_floor", "inner_wall", "inner_floor")
        answer = self.commit(
            self.small.project,
            [
                {
                    "op": "set",
                    "kind": "kit",
                    "id": self.small.kit,
                    "fields": dict.fromkeys(roles, self.small.ids["wall"]),
                },
                create("level", "up", name="Upper", floor_m=3, height_m=3),
                self.room("a", rectangle(0, 0, 5, 4)),
                self.room("b", rectangle(5, 0, 9, 4)),
                self.room("c", rectangle(0, 0, 5, 4), level="up"),
            ],
        )
        self.assertEqual(answer.status_code, 200, answer.content)

    def room(self, name: str, outline: list[list[float]], level: str | None = None) -> dict[str, Any]:
        return create("room", name, number=name, name=name, use=self.use, level=level or self.ground, outline_m=outline)

    def surfaces(self, room: str) -> dict[str, dict[str, Any]]:
        rows = self.document(self.small.project)["objects"]["surface"]
        return {row["plan_key"]: row for row in rows if row["room"] == room}

    def areas(self, room: str) -> dict[str, float]:
        return {key: row["area_m2"] for key, row in self.surfaces(room).items()}


class Plan(OnPlan):
    def test_walls_neighbours_roof_and_ground(self) -> None:
        self.assertEqual(
            self.areas("a"),
            {"inner_wall/b/90": 12.0, "outer_wall//0": 15.0, "outer_wall//180": 15.0, "outer_wall//270": 12.0,
             "ceiling/c": 20.0, "ground_floor": 20.0},
        )  # fmt: skip
        self.assertEqual(self.areas("b")["roof"], 16.0)
        self.assertEqual(self.areas("c")["floor/a"], 20.0)
        self.assertEqual(self.surfaces("a")["ground_floor"]["exposed_perimeter_m"], 14.0)
        self.assertEqual(self.surfaces("a")["inner_wall/b/90"]["name"], "Wall to b")
        self.assertEqual(self.row("room", "a")["floor_area_m2"], 20.0)
        self.assertGreater(self.results()["room"]["b"]["heating_w"], 0.0)

    def test_a_wall_moved_carries_its_windows_and_what_was_typed(self) -> None:
        wall = self.surfaces("a")["outer_wall//0"]["id"]
        self.commit(self.small.project, [
            create("opening", "win", surface=wall, name="Window", width_m=1, height_m=1),
            {"op": "set", "kind": "surface", "id": self.surfaces("a")["outer_wall//270"]["id"], "fields": {"area_m2": 9.5}},
        ])  # fmt: skip
        version = self.document(self.small.project)["version"]
        moved = {"a": rectangle(0, 0, 6, 4), "b": rectangle(6, 0, 9, 4)}
        self.commit(self.small.project, [
            {"op": "set", "kind": "room", "id": name, "fields": {"outline_m": outline}} for name, outline in moved.items()
        ])  # fmt: skip
        self.assertEqual(self.areas("a")["outer_wall//0"], 18.0)
        self.assertEqual(self.surfaces("a")["outer_wall//0"]["id"], wall)
        self.assertEqual(self.areas("a")["outer_wall//270"], 9.5)
        self.assertEqual(self.row("room", "b")["floor_area_m2"], 12.0)
        self.assertEqual(self.areas("a")["roof"], 4.0)
        self.post(f"{self.base}/undo?base_version={version + 1}")
        self.assertEqual(self.areas("a")["outer_wall//0"], 15.0)
        self.assertNotIn("roof", self.areas("a"))

    def test_a_typed_floor_area_stays(self) -> None:
        self.change("room", "a", floor_area_m2=18.2)
        self.change("room", "a", outline_m=rectangle(0, 0, 5, 5))
        self.assertEqual(self.row("room", "a")["floor_area_m2"], 18.2)
        self.assertEqual(self.row("room", "a")["plan_area_m2"], 25.0)

    def test_heights_and_north_are_followed(self) -> None:
        self.change("level", self.ground, height_m=4)
        self.assertEqual(self.areas("a")["outer_wall//0"], 20.0)
        self.change("room", "b", height_m=2.5)
        self.assertEqual(self.areas("a")["inner_wall/b/90"], 10.0)
        self.assertEqual(self.areas("a")["outer_wall//90"], 6.0)
        self.change("site", self.row("site")["id"], rotation_deg=30)
        self.assertEqual(self.surfaces("a")["outer_wall//0"]["azimuth_deg"], 30.0)
        self.assertEqual(self.surfaces("a")["outer_wall//0"]["name"], "Outer wall")

    def test_turning_a_side_keeps_its_surface(self) -> None:
        wall = self.surfaces("a")["outer_wall//270"]["id"]
        self.change("room", "a", outline_m=[[0, 0], [5, 0], [5, 4], [0.5, 4]])
        turned = next(row for key, row in self.surfaces("a").items() if row["id"] == wall)
        self.assertAlmostEqual(turned["azimuth_deg"], 277.1, places=1)

    def test_split_and_join(self) -> None:
        before = self.areas("a")
        line = {"start": [-1, 2], "end": [9, 2]}
        version = self.document(self.small.project)["version"]
        answer = self.post(f"{self.base}/plan/split", {"base_version": version, "room": "a"} | line)
        self.assertEqual(answer.status_code, 200, answer.content)
        new = next(r for r in self.document(self.small.project)["objects"]["room"] if r["number"] == "ab")
        self.assertEqual((self.row("room", "a")["floor_area_m2"], new["floor_area_m2"]), (10.0, 10.0))
        between = [area for key, area in self.areas("a").items() if key.startswith(f"inner_wall/{new['id']}/")]
        self.assertEqual(between, [15.0])
        joined = self.post(f"{self.base}/plan/join", {"base_version": version + 1, "rooms": ["a", new["id"]]})
        self.assertEqual(joined.status_code, 200, joined.content)
        self.assertEqual(self.areas("a"), before)
        self.refused(
            self.post(f"{self.base}/plan/join", {"base_version": version + 2, "rooms": ["b", "c"]}), "different levels"
        )
        wrong = {"base_version": version + 2, "room": "b", "start": [20, 0], "end": [20, 1]}
        self.refused(self.post(f"{self.base}/plan/split", wrong), "into 1")

    def test_what_is_no_plan_is_refused(self) -> None:
        version = self.document(self.small.project)["version"]
        for outline, words in (
            (rectangle(4, 0, 9, 4), "lie on each other"),
            ([[0, 0], [2, 2], [2, 0], [0, 2]], "crosses itself"),
            ([[0, 0], [1e9, 0], [1e9, 1]], "Outline"),
        ):
            self.refused(self.set(self.small.project, "room", "b", outline_m=outline), words)
        self.assertEqual(self.document(self.small.project)["version"], version)

    def test_a_room_off_the_plan_keeps_its_surfaces(self) -> None:
        self.change("room", "b", outline_m=None)
        kept = [row for row in self.document(self.small.project)["objects"]["surface"] if row["room"] == "b"]
        self.assertEqual(len(kept), 6)
        self.assertEqual({row["plan_key"] for row in kept}, {None})
        self.assertEqual(self.areas("a")["outer_wall//90"], 12.0)

    def test_a_room_that_is_not_occupied(self) -> None:
        before = self.results()["room"]["a"]
        self.change("room", "a", occupied=False)
        after = self.results()["room"]["a"]
        people = 7  # place of people among the sources
        self.assertGreater(before["cooling"]["parts_w"][people], 0.0)
        self.assertEqual(after["cooling"]["parts_w"][people], 0.0)
        self.assertLess(after["heating_w"], before["heating_w"])

    def test_every_room_at_an_hour(self) -> None:
        found = self.get(f"{self.base}/hour", month=7, step=84).json()
        day = self.get(f"{self.base}/day", kind="room", subject="a", month=7).json()
        self.assertAlmostEqual(found["a"]["load_w"], sum(part[84] for part in day["parts"].values()), places=1)
        self.assertEqual(found["a"]["air_c"], 24.0)
        self.assertEqual(self.get(f"{self.base}/hour", month=7, step=999).status_code, 404)


class Drawings(OnPlan):
    def lay(self, name: str, data: bytes) -> Any:
        from django.core.files.uploadedfile import SimpleUploadedFile

        path = f"/api{self.base}/levels/{self.ground}/drawing"
        return self.client.post(path, {"file": SimpleUploadedFile(name, data)})

    def test_a_dxf_in_its_own_units(self) -> None:
        import io

        import ezdxf

        drawing = ezdxf.new(units=4)
        drawing.modelspace().add_lwpolyline([(1000, 2000), (6000, 2000), (6000, 6000)])
        drawing.modelspace().add_line((1000, 2000), (1000, 6000))
        text = io.StringIO()
        drawing.write(text)
        found = self.lay("plan.dxf", text.getvalue().encode()).json()
        self.assertEqual((found["width"], found["height"], found["m_per_unit"]), (5000.0, 4000.0, 0.001))
        lines = self.get(f"{self.base}/levels/{self.ground}/drawing").json()
        self.assertEqual(lines[0]["lines"][0], [[0.0, 0.0], [5000.0, 0.0], [5000.0, 4000.0]])
        place = {"m_per_unit": 0.002, "x_m": -1.0, "y_m": 3.0}
        answer = self.client.put(
            f"/api{self.base}/levels/{self.ground}/drawing", place, content_type="application/json"
        )
        self.assertEqual(answer.json()["x_m"], -1.0)
        self.assertEqual(self.get(f"{self.base}/drawings").json()[0]["m_per_unit"], 0.002)

    def test_layers_are_chosen_and_those_off_stay_off(self) -> None:
        import io

        import ezdxf

        drawing = ezdxf.new(units=4)
        for layer in ("WALLS", "CHAIRS"):
            drawing.layers.add(layer)
        drawing.layers.get("CHAIRS").off()
        drawing.modelspace().add_line((0, 0), (6000, 0), dxfattribs={"layer": "WALLS"})
        drawing.modelspace().add_line((0, 0), (90_000, 500), dxfattribs={"layer": "CHAIRS"})
        text = io.StringIO()
        drawing.write(text)
        found = self.lay("plan.dxf", text.getvalue().encode()).json()
        self.assertEqual((found["layers"], found["hidden_layers"]), (["CHAIRS", "WALLS"], ["CHAIRS"]))
        self.assertEqual(found["width"], 6000.0)
        path = f"/api{self.base}/levels/{self.ground}/drawing"
        place = {"m_per_unit": 0.001, "x_m": 0.0, "y_m": 0.0}

        def put(hidden: list[str]) -> Any:
            return self.client.put(path, place | {"hidden_layers": hidden}, content_type="application/json")

        self.assertEqual(put(["WALLS"]).json()["hidden_layers"], ["WALLS"])
        self.refused(put(["ROOF"]), "ROOF")
        self.assertEqual(self.get(f"{self.base}/drawings").json()[0]["hidden_layers"], ["WALLS"])

    def test_what_is_no_drawing(self) -> None:
        self.refused(self.lay("plan.svg", b"<svg onload='x()'/>"), "neither")
        self.refused(self.lay("plan.dxf", b"0\nSECTION\n"), "DXF")
        with self.assertRaisesRegex(Refused, "too large"):
            read_drawing("big.png", b"\x89PNG\r\n\x1a\n" + b"0" * 20_000_001)
