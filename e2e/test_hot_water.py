"""A store of hot water for the demo, from what its uses draw to its plant."""

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class HotWater(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def test_sized_for_the_demo_and_charged_by_its_own_circuit(self) -> None:
        self.stage("Uses")
        name = next(use["name"] for use in self.fetch("document")["objects"]["use"] if "ash" in use["name"])
        self.page.get_by_role("button", name=name).first.click()
        self.fill("Hot water, a room and day", "400")
        self.stage("Water")
        self.press("+ heating")
        self.fill_settings()
        self.press("+ hot water")
        self.page.get_by_role("heading", name="Hot water", exact=True).wait_for()
        store = self.fetch("document")["objects"]["hot_water"][0]
        self.choose("Charged by", "Hot main")
        found = self.results()["hot_water"][store["id"]]
        rooms = [r for r in self.fetch("document")["objects"]["room"] if r["use"] == self.use(name)]
        self.assertAlmostEqual(found["litres_day"], 400.0 * len(rooms), places=6)
        # An even draw asks for the smallest store; a morning's rush for a larger one.
        self.assertEqual(found["volume_l"], 80)
        self.choose("Drawn as", "Workshop day")
        rushed = self.results()["hot_water"][store["id"]]
        self.assertGreater(rushed["needed_l"], found["needed_l"])
        self.page.locator(".figures").get_by_text(f"{rushed['volume_l']:.0f}").first.wait_for()
        self.page.locator(".figures button").nth(1).click()
        self.page.get_by_text("curves of need and supply").first.wait_for()
        self.fill("Store held at", "55")
        self.assertIn(f"store_legionella/{store['id']}", self.results()["snag"])
        self.stage("Kit")
        grid = self.page.get_by_role("grid", name="Kit list", exact=True)
        grid.get_by_role("columnheader").nth(1).click(button="right")
        self.page.get_by_label("Only rows with").fill("hot water store")
        self.page.keyboard.press("Escape")
        grid.get_by_text("Hot water store").first.wait_for()
        self.assertEqual(grid.locator("[role=rowgroup] [role=row]").count(), 1)
        self.assertEqual(self.problems, [])

    def fill_settings(self) -> None:
        self.press("Settings", exact=True)
        self.fill("Name", "Hot main")
        self.fill("Flow temperature", "70")

    def use(self, name: str) -> str:
        return next(use["id"] for use in self.fetch("document")["objects"]["use"] if use["name"] == name)
