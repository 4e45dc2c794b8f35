"""What tests of pages of definitions have in common."""

from pathlib import Path

import pvlib

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest

TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"


class Definitions(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.get_by_role("heading", name="Loads").wait_for()
        self.settle()

    def rows(self, kind: str) -> list[dict]:
        return self.fetch("document")["objects"][kind]

    def named(self, kind: str, name: str) -> dict:
        return next(row for row in self.rows(kind) if row["name"] == name)

    def building(self) -> dict:
        return self.results()["group"]["building"]

    def part(self, name: str) -> None:
        self.page.get_by_role("group", name="Part of the place").get_by_role("button", name=name).click()
