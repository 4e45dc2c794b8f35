"""Faces in two steps: a layer that changes makes anew only the faces that have it, and everything is still found."""

from typing import Any

from calculations import service
from pendrum_core.model.rooms import Element
from projects.document import load_document
from projects.models import Project
from tests.base import ApiTest, Small, create


class Faces(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.room, self.wall = self.small.ids["room"], self.small.ids["wall"]
        objects = self.document(self.small.project)["objects"]
        brick = next(m["id"] for m in objects["material"] if m["name"].startswith("Brick"))
        answer = self.commit(self.small.project, [
            create("assembly", "thin", name="Thin", element="wall"),
            create("layer", "brick", assembly="thin", position=0, material=brick, thickness_m=0.1),
            create("assembly", "slab", name="Slab", element="floor", ground_u_value=0.4),
            create("layer", "clinker", assembly="slab", position=0, material=brick, thickness_m=0.2),
            create("assembly", "leaf", name="Leaf", element="wall"),
            create("layer", "wood", assembly="leaf", position=0, material=brick, thickness_m=0.05),
            create("surface", "inner", room=self.room, name="Inner", role="inner_wall", boundary="adiabatic", area_m2=9,
                   assembly="thin"),
            create("surface", "floor", room=self.room, name="Floor", role="ground_floor", boundary="ground", area_m2=20,
                   tilt_deg=180, assembly="slab"),
            create("opening", "door", surface=self.small.ids["surface"], name="Door", kind="door", width_m=1, height_m=2,
                   assembly="leaf"),
        ])  # fmt: skip
        assert answer.status_code == 200, answer.content

    def elements(self) -> dict[str, Element]:
        found = service.results_of(load_document(Project.objects.get(pk=self.small.project))).results
        return {element.id: element for element in found.rooms[self.room].room.elements}

    def set_layer(self, identity: str, **fields: Any) -> None:
        answer = self.set(self.small.project, "layer", identity, **fields)
        assert answer.status_code == 200, answer.content

    def test_only_the_faces_of_the_assembly_are_made_anew(self) -> None:
        for layer, changed in (
            ("brick", {"inner"}), (self.small.ids["layer"], {self.small.ids["surface"]}), ("wood", {"door"}), ("clinker", {"floor"}),
        ):  # fmt: skip
            with self.subTest(layer=layer):
                before = self.elements()
                self.set_layer(layer, thickness_m=0.31)
                after = self.elements()
                # Those on the ground are always made whole: what is beyond them rests on their layers.
                self.assertEqual(
                    {key for key in after if after[key] is not before[key]} - {"floor"}, changed - {"floor"}
                )
                for key in changed:
                    self.assertEqual(after[key].layers[0].thickness_m, 0.31)

    def test_what_is_beyond_and_how_large_it_is_stays(self) -> None:
        south = self.small.ids["surface"]
        before = self.elements()[south]
        self.set_layer(self.small.ids["layer"], thickness_m=0.2)
        after = self.elements()[south]
        self.assertIs(after.boundary, before.boundary)
        self.assertAlmostEqual(after.area_m2, 15.0 - 2.0 * 1.5 - 2.0)
        self.assertEqual((after.category, after.convection_w_m2k, after.construction), ("walls", 2.5, self.wall))

    def test_an_assembly_without_layers_is_named_and_comes_back(self) -> None:
        self.commit(self.small.project, [{"op": "delete", "kind": "layer", "id": "wood"}])
        snags = self.get(f"/projects/{self.small.project}/results").json()["changed"]["snag"].values()
        missing = next(s for s in snags if s["code"] == "no_layers")
        self.assertIn("Assembly Leaf", missing["sentence"])
        base = self.document(self.small.project)["version"]
        self.post(f"/projects/{self.small.project}/undo?base_version={base}")
        self.assertEqual(self.elements()["door"].layers[0].thickness_m, 0.05)

    def test_absorptance_and_tilt_are_of_the_first_step(self) -> None:
        south = self.small.ids["surface"]
        self.set(self.small.project, "assembly", self.wall, solar_absorptance=0.9)
        self.assertEqual(self.elements()[south].boundary.solar_absorptance, 0.9)
        self.set(self.small.project, "surface", south, tilt_deg=30)
        found = self.elements()[south]
        self.assertEqual((found.boundary.tilt_deg, found.convection_w_m2k), (30, 5.0))

    def test_the_ground_beyond_a_floor_follows_its_layers(self) -> None:
        """1/U less the inner film and the layers is left for the ground, ISO 13370."""
        floor = self.elements()["floor"]
        conductivity = floor.layers[0].conductivity_w_mk
        self.assertAlmostEqual(floor.boundary.extra_resistance_m2k_w, 1 / 0.4 - 0.17 - 0.2 / conductivity)
        self.set_layer("clinker", thickness_m=0.4)
        self.assertAlmostEqual(
            self.elements()["floor"].boundary.extra_resistance_m2k_w, 1 / 0.4 - 0.17 - 0.4 / conductivity
        )
