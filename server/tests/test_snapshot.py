"""What the core is given: effective values, gains, boundaries; and what is left out with which snag."""

from typing import Any

from calculations.snapshot import Snapshot, Snapshots
from pendrum_core.model.rooms import Room
from projects.document import load_document
from projects.models import Project
from projects.rows import Document
from tests.base import ApiTest, Small, create


class Inputs(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.maker = Snapshots()

    def document(self, project: str = "") -> Any:
        return super().document(project) if project else load_document(Project.objects.get(pk=self.small.project))

    def commit(self, project: str, changes: list[dict[str, Any]], version: int | None = None) -> Any:
        base = Project.objects.get(pk=project).version if version is None else version
        answer = super().commit(project, changes, base)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer

    def change(self, name: str, kind: str, /, **fields: Any) -> None:
        self.commit(self.small.project, [{"op": "set", "kind": kind, "id": self.small.ids[name], "fields": fields}])

    def take(self) -> Snapshot:
        found = self.document()
        assert isinstance(found, Document)
        return self.maker.take(found)

    def room(self) -> Room:
        return self.take().building.rooms[0]

    def test_volume_from_the_level_or_the_room(self) -> None:
        self.assertEqual(self.room().volume_m3, 20 * 3.0)
        self.change("room", "room", height_m=4.5)
        self.assertEqual(self.room().volume_m3, 20 * 4.5)

    def test_equipment_is_split_into_sensible_latent_and_vented(self) -> None:
        self.change("use", "use", equipment_value=50, equipment_latent_share=0.2, equipment_vented_share=0.3)
        gain = next(g for g in self.room().gains if g.category == "equipment")
        # 50 W/m2 on 20 m2: 1000 W, of which 300 W leave at once and 200 W are moisture.
        self.assertAlmostEqual(gain.sensible_w, 500.0)
        self.assertAlmostEqual(gain.latent_w, 200.0)

    def test_air_from_another_room(self) -> None:
        other = create("room", "n", number="2", name="Other", use=self.small.ids["use"], floor_area_m2=9)
        self.commit(self.small.project, [other])
        self.assertEqual(self.take().building.transfers, ())
        self.commit(
            self.small.project, [create("transfer", "t", room=self.small.ids["room"], source="n", flow_m3_s=0.03)]
        )
        # The other room has no walls yet: air from a room that is not calculated does not count.
        self.assertEqual(self.take().building.transfers, ())
        wall = {"room": "n", "name": "Wall", "role": "outer_wall", "boundary": "outdoors", "area_m2": 9}
        self.commit(self.small.project, [create("surface", "w", **wall, assembly=self.small.ids["wall"])])
        (transfer,) = self.take().building.transfers
        self.assertEqual((transfer.source, transfer.target, transfer.flow_m3_s), ("n", self.small.ids["room"], 0.03))
        self.commit(self.small.project, [{"op": "delete", "kind": "room", "id": "n"}])
        self.assertEqual(self.take().building.transfers, ())
        self.assertIn("transfer_incomplete", {snag.code for snag in self.take().snags})

    def test_extracts_and_offset(self) -> None:
        room = self.small.ids["room"]
        self.commit(self.small.project, [create("extract", "x", room=room, name="Hood", flow_m3_s=0.2),
                                         create("extract", "y", room=room, name="Roof fan", flow_m3_s=0.5, above_c=29)])  # fmt: skip
        self.change("room", "room", offset_m3_s=-0.01)
        building = self.take().building
        self.assertEqual([(e.name, e.triggered) for e in building.extracts], [("Hood", False), ("Roof fan", True)])
        self.assertEqual(building.offsets_m3_s, {room: -0.01})
        drawn = self.room().thermostat.drawn_air
        self.assertEqual((drawn.flow_m3_s, drawn.above_c), (0.5, 29))

    def test_a_room_unit_is_a_set_of_its_own_and_brings_no_outdoor_air(self) -> None:
        system = self.take().building.systems[0].id
        self.commit(
            self.small.project,
            [{"op": "set", "kind": "air_system", "id": system, "fields": {"arrangement": "room units"}}],
        )
        (unit,) = self.take().building.systems
        self.assertEqual((unit.id, unit.drawn), (f"{system}~{self.small.ids['room']}", system))
        self.assertGreater(self.room().direct_outdoor_air_m3_s, 0.0)

    def test_a_system_in_sets_for_zones_is_described_once(self) -> None:
        small, system = self.small, self.take().building.systems[0].id
        room = small.ids["room"]
        row = next(r for r in super().document(small.project)["objects"]["room"] if r["id"] == room)
        copy = {key: value for key, value in row.items() if key not in ("id", "plan_m", "outline_m")}
        self.commit(
            small.project,
            [
                create("zone", "west", name="West"),
                create("room", "b", **(copy | {"number": "b", "zone": "west"})),
                create("surface", "wb", room="b", name="West", role="outer_wall", boundary="outdoors", area_m2=9),
                create("duct_section", "to-b", air_system=system, name="To b", room="b", length_m=3),
                {"op": "set", "kind": "air_system", "id": system, "fields": {"sets": "zone"}},
            ],
        )
        found = {one.id: one for one in self.take().building.systems}
        self.assertEqual(set(found), {f"{system}~west", f"{system}~none"})
        west, rest = found[f"{system}~west"], found[f"{system}~none"]
        self.assertEqual(({t.room for t in west.terminals}, {t.room for t in rest.terminals}), ({"b"}, {room}))
        self.assertEqual((west.drawn, west.name), (system, "AHU-1 West"))
        # Each set has the ducts that lead to its rooms alone.
        self.assertEqual([s.id for s in west.sections], ["to-b"])
        self.assertEqual([s.end for s in rest.sections], [room])
        # What is common to both is nobody's.
        main = create("duct_section", "main", air_system=system, name="Main", length_m=5)
        hang = [
            {"op": "set", "kind": "duct_section", "id": s.id, "fields": {"parent": "main"}}
            for one in found.values()
            for s in one.sections
        ]
        self.commit(small.project, [main, *hang])
        for one in self.take().building.systems:
            self.assertNotIn("main", [s.id for s in one.sections])
            self.assertEqual([s.parent for s in one.sections], [None])

    def test_people_and_lights(self) -> None:
        gains = {g.category: g for g in self.room().gains}
        self.assertAlmostEqual(gains["people"].sensible_w, 0.1 * 20 * 75)
        self.assertAlmostEqual(gains["people"].latent_w, 0.1 * 20 * 55)
        self.assertAlmostEqual(gains["lights"].sensible_w, 200.0)
        self.assertNotIn("equipment", gains)

    def test_untreated_air_only_without_a_system(self) -> None:
        self.assertEqual(self.room().direct_outdoor_air_m3_s, 0.0)
        self.change("room", "room", air_system=None)
        # 2.5 L/s for each of two people.
        self.assertAlmostEqual(self.room().direct_outdoor_air_m3_s, 0.005)

    def test_infiltration_from_air_changes(self) -> None:
        self.change("room", "room", infiltration_ach=0.6)
        self.assertAlmostEqual(self.room().infiltration_m3_s, 0.6 * 60 / 3600)

    def test_openings_are_taken_from_their_wall(self) -> None:
        wall = next(e for e in self.room().elements if e.category == "walls")
        self.assertAlmostEqual(wall.area_m2, 15 - 2 * 1.5)
        self.change("opening", "opening", count=3)
        areas = {e.category: e.area_m2 for e in self.room().elements}
        self.assertAlmostEqual(areas["walls"], 15 - 9)
        self.assertAlmostEqual(areas["windows"], 9)
        self.assertAlmostEqual(self.room().windows[0].area_m2, 9)

    def test_boundaries(self) -> None:
        self.change("surface", "surface", boundary="fixed", fixed_temperature_c=4)
        wall = next(e for e in self.room().elements if e.id == self.small.ids["surface"])
        self.assertEqual(
            (wall.boundary.kind, wall.boundary.temperature_c, wall.category), ("temperature", 4, "neighbours")
        )
        # A window towards a fixed neighbour conducts and takes no sun.
        self.assertEqual(self.room().windows, ())
        self.change("surface", "surface", boundary="difference", cooling_difference_k=5, heating_difference_k=9)
        wall = next(e for e in self.room().elements if e.id == self.small.ids["surface"])
        self.assertEqual((wall.boundary.cooling_difference_k, wall.boundary.heating_difference_k), (5, 9))
        self.change("surface", "surface", boundary="adiabatic")
        self.assertEqual(next(e for e in self.room().elements if e.id == wall.id).boundary.kind, "adiabatic")

    def test_ground_resistance_makes_up_the_stated_u_value(self) -> None:
        self.change("wall", "assembly", element="floor", ground_u_value=0.25)
        self.change(
            "surface", "surface", boundary="ground", role="ground_floor", tilt_deg=180, assembly=self.small.ids["wall"]
        )
        # A window in the ground stops the room and says so.
        self.assertIn("opening_in_ground", {snag.code for snag in self.take().snags})
        self.commit(self.small.project, [{"op": "delete", "kind": "opening", "id": self.small.ids["opening"]}])
        floor = next(e for e in self.room().elements if e.id == self.small.ids["surface"])
        # 1/U = film 0.17 + wool 0.1/0.037 + soil.
        self.assertAlmostEqual(floor.boundary.extra_resistance_m2k_w, 1 / 0.25 - 0.17 - 0.1 / 0.037)
        self.change("wall", "assembly", ground_u_value=3.0)
        self.assertIn("ground_u_too_high", {snag.code for snag in self.take().snags})
        self.change("wall", "assembly", ground_u_value=None)
        self.assertIn("no_ground_u", {snag.code for snag in self.take().snags})

    def test_what_is_missing_stops_the_room_by_name(self) -> None:
        for name, kind, fields, code in (
            ("room", "room", {"use": None}, "no_use"),
            ("room", "room", {"floor_area_m2": None}, "no_volume"),
            ("opening", "opening", {"kind": "door"}, "no_glazing"),
        ):
            self.change(name, kind, **fields)
            taken = self.take()
            self.assertEqual(taken.building.rooms, (), code)
            self.assertIn(code, {snag.code for snag in taken.snags})
            self.post(f"/projects/{self.small.project}/undo?base_version=0")
        self.commit(self.small.project, [{"op": "delete", "kind": "surface", "id": self.small.ids["surface"]}])
        self.assertIn("no_surfaces", {snag.code for snag in self.take().snags})

    def test_two_rooms_of_one_number(self) -> None:
        self.assertNotIn("duplicate_number", {snag.code for snag in self.take().snags})
        self.commit(self.small.project, [create("room", "twin", number="1", name="Twin")])
        self.assertIn("duplicate_number", {snag.code for snag in self.take().snags})

    def codes(self) -> set[str]:
        return {snag.code for snag in self.take().snags}

    def set(self, kind: str, identity: str, /, **fields: Any) -> None:
        self.commit(self.small.project, [{"op": "set", "kind": kind, "id": identity, "fields": fields}])

    def test_starter_values_are_a_snag_until_they_are_changed(self) -> None:
        """A name alone makes no climate."""
        document = self.document()
        site, months = document.one("site")["id"], document.of("design_month").values()
        self.set("site", site, name="Alder")
        self.assertIn("starter_site", self.codes())
        july = next(month["id"] for month in months if month["month"] == 7)
        self.set("design_month", july, dry_bulb_c=29.0)
        self.assertNotIn("starter_site", self.codes())

    def test_figures_that_nobody_chose_are_said_until_one_is_chosen(self) -> None:
        self.assertNotIn("starting_use", self.codes())
        room = next(iter(self.document().of("room")))
        self.commit(
            self.small.project,
            [
                {"op": "create", "kind": "use", "id": "fresh", "fields": {"name": "New use"}},
                {"op": "set", "kind": "room", "id": room, "fields": {"use": "fresh"}},
            ],
        )
        self.assertIn("starting_use", self.codes())
        self.set("use", "fresh", lights_value=7.0)
        self.assertNotIn("starting_use", self.codes())

    def test_a_site_that_does_not_fit_its_clock_or_its_seasons(self) -> None:
        site = self.document().one("site")["id"]
        self.assertFalse({"clock_off", "season_off"} & self.codes())
        self.set("site", site, utc_offset_h=6.0)
        self.assertIn("clock_off", self.codes())
        self.set("site", site, utc_offset_h=-6.0, longitude=175.0)
        self.assertIn("clock_off", self.codes())
        self.set("site", site, utc_offset_h=12.0, latitude=-41.0)
        self.assertEqual({"clock_off", "season_off"} & self.codes(), {"season_off"})

    def test_an_untouched_room_is_the_same_object(self) -> None:
        self.commit(self.small.project, [create("room", "other", number="2", name="Other")])
        first = self.room()
        self.commit(self.small.project, [{"op": "set", "kind": "room", "id": "other", "fields": {"name": "Renamed"}}])
        self.assertIs(self.room(), first)
        self.change("room", "room", lights_w_m2=3)
        self.assertIsNot(self.room(), first)

    def test_groups_follow_level_use_and_system(self) -> None:
        kinds = {group.kind for group in self.take().building.groups}
        self.assertEqual(kinds, {"building", "level", "use", "air_system"})

    def test_terminal_and_sections_reach_the_core(self) -> None:
        building = self.take().building
        system = building.systems[0]
        self.assertEqual(system.terminals[0].people, 2.0)
        self.assertEqual((system.sections[0].end, system.sections[0].length_m), (self.small.ids["room"], 10))
        self.assertEqual(building.circuits[0].sections[0].end, self.small.ids["system"])
        self.change("room", "room", pinned_flow_m3_s=0.2)
        self.assertEqual(self.take().building.systems[0].terminals[0].pinned_flow_m3_s, 0.2)
