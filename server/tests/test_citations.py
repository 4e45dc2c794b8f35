"""A published value keeps its citation only while it is the published one."""

from typing import Any

from shelf.materials import material
from shelf.uses import uses
from tests.base import ApiTest, Small, create


class Citations(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.plaster = material("Gypsum plaster 1000")
        self.office = next(item["fields"] for item in uses() if item["fields"]["name"] == "Office")
        fields = {key: value for key, value in self.office.items() if key != "name"}
        self.commit(
            self.small.project,
            [create("material", "plaster", **self.plaster), create("use", "office", name="Clerks", **fields)],
        )

    def source(self, kind: str, identity: str) -> str:
        rows = self.document(self.small.project)["objects"][kind]
        return str(next(row["source"] for row in rows if row["id"] == identity))

    def change(self, kind: str, identity: str, **fields: Any) -> None:
        self.set(self.small.project, kind, identity, **fields)

    def test_a_changed_figure_is_no_longer_the_table_s(self) -> None:
        cited = str(self.plaster["source"])
        self.assertEqual(self.source("material", "plaster"), cited)
        self.change("material", "plaster", name="Plaster, east wall")
        self.assertEqual(self.source("material", "plaster"), cited)
        self.change("material", "plaster", conductivity_w_mk=0.44)
        self.assertEqual(self.source("material", "plaster"), f"changed from {cited}")
        self.change("material", "plaster", density_kg_m3=1100)
        self.assertEqual(self.source("material", "plaster"), f"changed from {cited}")

    def test_the_table_s_figures_again_are_the_table_s_again(self) -> None:
        cited = str(self.plaster["source"])
        self.change("material", "plaster", conductivity_w_mk=0.44)
        self.change("material", "plaster", conductivity_w_mk=self.plaster["conductivity_w_mk"])
        self.assertEqual(self.source("material", "plaster"), cited)

    def test_undo_brings_the_citation_back(self) -> None:
        cited = str(self.plaster["source"])
        self.change("material", "plaster", conductivity_w_mk=0.44)
        version = self.document(self.small.project)["version"]
        answer = self.post(f"/projects/{self.small.project}/undo?base_version={version}")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(self.source("material", "plaster"), cited)

    def test_a_source_that_is_written_stands(self) -> None:
        self.change("material", "plaster", conductivity_w_mk=0.44, source="Maker's sheet 12")
        self.assertEqual(self.source("material", "plaster"), "Maker's sheet 12")
        self.change("material", "plaster", conductivity_w_mk=0.45)
        self.assertEqual(self.source("material", "plaster"), "changed from Maker's sheet 12")

    def test_a_use_s_ventilation_and_what_is_not_cited(self) -> None:
        cited = str(self.office["source"])
        self.change("use", "office", heating_setpoint_c=21.0)
        self.assertEqual(self.source("use", "office"), cited)
        self.change("use", "office", air_per_person_m3_s=0.005)
        self.assertEqual(self.source("use", "office"), f"changed from {cited}")
