"""What is built from rows is built again exactly when one of them is another one."""

import unittest
from typing import Any

from calculations.lookups import Lookups
from projects.kinds import KINDS
from projects.rows import Document


def document(version: int, **tables: dict[str, dict[str, Any]]) -> Document:
    rows: dict[str, dict[str, Any]] = {kind: {} for kind in KINDS}
    return Document("p", version, rows | tables)


USE = {"id": "u", "name": "Office"}
OTHER = {"id": "v", "name": "Shop"}
ROOM = {"id": "r", "use": "u"}


class Remembered(unittest.TestCase):
    def setUp(self) -> None:
        self.built: list[str] = []

    def name(self, look: Lookups, room: str) -> str:
        def build() -> str:
            self.built.append(room)
            use = look.existing("use", look.existing("room", room)["use"])
            return f"{room} {use['name']}"

        return look.remembered("name", room, build)

    def next(self, before: Lookups, **tables: dict[str, dict[str, Any]]) -> Lookups:
        return Lookups(document(2, **tables), before)

    def test_nothing_is_built_twice_while_its_rows_stay(self) -> None:
        first = Lookups(document(1, use={"u": USE, "v": OTHER}, room={"r": ROOM}))
        self.assertEqual(self.name(first, "r"), "r Office")
        self.assertEqual(self.name(first, "r"), "r Office")
        second = self.next(first, use={"u": USE, "v": {**OTHER, "name": "Store"}}, room={"r": ROOM, "s": dict(ROOM)})
        self.assertEqual(self.name(second, "r"), "r Office")
        self.assertEqual(self.built, ["r"])

    def test_another_row_is_seen_wherever_it_was_looked_up(self) -> None:
        first = Lookups(document(1, use={"u": USE, "v": OTHER}, room={"r": ROOM}))
        self.name(first, "r")
        renamed = self.next(first, use={"u": {**USE, "name": "Studio"}, "v": OTHER}, room={"r": ROOM})
        self.assertEqual(self.name(renamed, "r"), "r Studio")
        moved = self.next(renamed, use={"u": USE, "v": OTHER}, room={"r": {**ROOM, "use": "v"}})
        self.assertEqual(self.name(moved, "r"), "r Shop")
        self.assertEqual(self.built, ["r"] * 3)

    def test_one_field_of_the_site_is_looked_at_apart_from_the_rest(self) -> None:
        counted: list[int] = []

        def lines(look: Lookups) -> int:
            def build() -> int:
                counted.append(len(look.said("site", "skyline")))
                return counted[-1]

            return look.remembered("lines", "", build)

        def site(winter: float, skyline: list[int]) -> dict[str, dict[str, Any]]:
            return {"s": {"id": "s", "winter_dry_bulb_c": winter, "skyline": skyline}}

        first = Lookups(document(1, site=site(-5.0, [1])))
        self.assertEqual(lines(first), 1)
        colder = self.next(first, site=site(-9.0, [1]))
        self.assertEqual(lines(colder), 1)
        self.assertEqual(counted, [1])
        hemmed_in = self.next(colder, site=site(-9.0, [1, 2]))
        self.assertEqual(lines(hemmed_in), 2)
        self.assertEqual(counted, [1, 2])

    def test_a_part_that_is_built_again_builds_the_whole_again(self) -> None:
        wholes: list[str] = []

        def whole(look: Lookups) -> str:
            def build() -> str:
                wholes.append("whole")
                return f"[{self.name(look, 'r')}]"

            return look.remembered("whole", "", build)

        first = Lookups(document(1, use={"u": USE}, room={"r": ROOM}))
        self.assertEqual(whole(first), "[r Office]")
        second = self.next(first, use={"u": {**USE, "name": "Studio"}}, room={"r": ROOM})
        self.assertEqual(whole(second), "[r Studio]")
        third = self.next(second, use=second.document.of("use"), room={"r": ROOM})
        self.assertEqual(whole(third), "[r Studio]")
        self.assertEqual((len(wholes), len(self.built)), (2, 2))

    def test_an_equal_result_is_the_one_before_where_that_is_asked(self) -> None:
        def people(look: Lookups, compare: bool) -> dict[str, Any]:
            return look.remembered(
                "people", str(compare), lambda: {"n": len(look.existing("use", "u")["name"])}, compare
            )

        first = Lookups(document(1, use={"u": USE}))
        kept, loose = people(first, True), people(first, False)
        second = self.next(first, use={"u": {**USE, "name": "Studio"}})
        self.assertIs(people(second, True), kept)
        self.assertIsNot(people(second, False), loose)
        third = self.next(second, use={"u": {**USE, "name": "Loft"}})
        self.assertEqual(people(third, True), {"n": 4})

    def test_what_failed_is_tried_again_when_what_it_missed_is_there(self) -> None:
        def height(look: Lookups) -> float:
            level = look.row("level", "l")
            if level is None:
                raise ValueError("no level")
            return float(level["height_m"])

        def outer(look: Lookups) -> float | None:
            def build() -> float | None:
                try:
                    return look.remembered("height", "l", lambda: height(look))
                except ValueError:
                    return None

            return look.remembered("outer", "", build)

        first = Lookups(document(1))
        self.assertIsNone(outer(first))
        second = self.next(first, level={"l": {"id": "l", "height_m": 3.0, "position": 0}})
        self.assertEqual(outer(second), 3.0)

    def test_rows_that_belong_to_something_keep_their_order_and_identity(self) -> None:
        layers = {
            "b": {"id": "b", "assembly": "a", "position": 1}, "c": {"id": "c", "assembly": "a", "position": 0},
            "d": {"id": "d", "assembly": "x", "position": 0},
        }  # fmt: skip
        first = Lookups(document(1, layer=layers))
        self.assertEqual([row["id"] for row in first.many("layers of assembly", "a")], ["c", "b"])
        second = self.next(first, layer={**layers, "d": {**layers["d"], "position": 5}})
        self.assertIs(second.many("layers of assembly", "a"), first.many("layers of assembly", "a"))
        self.assertIsNot(second.many("layers of assembly", "x"), first.many("layers of assembly", "x"))
        self.assertEqual(second.many("layers of assembly", "none"), ())

    def test_all_rows_of_a_kind_are_one_thing(self) -> None:
        counted: list[int] = []

        def count(look: Lookups) -> int:
            def build() -> int:
                counted.append(1)
                return len(look.every("surface"))

            return look.remembered("count", "", build)

        surfaces = {"s": {"id": "s", "room": "r"}}
        first = Lookups(document(1, surface=surfaces))
        second = self.next(first, surface=surfaces, use={"u": USE})
        third = self.next(second, surface={**surfaces, "t": {"id": "t", "room": "r"}})
        self.assertEqual([count(first), count(second), count(third)], [1, 1, 2])
        self.assertEqual(len(counted), 2)

    def test_what_is_not_asked_for_is_let_go(self) -> None:
        first = Lookups(document(1, use={"u": USE}, room={"r": ROOM}))
        self.name(first, "r")
        second = self.next(first, use={"u": USE}, room={"r": ROOM})
        second.forget_before()
        third = self.next(second, use={"u": USE}, room={"r": ROOM})
        self.name(third, "r")
        self.assertEqual(self.built, ["r", "r"])
