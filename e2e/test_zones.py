"""Rooms that go together: a zone is made, gets rooms and a set-point, and has loads; margins and outdoor air are seen."""

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Zones(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def rooms(self) -> dict[str, dict]:
        return {room["number"]: room for room in self.fetch("document")["objects"]["room"]}

    def row(self, grid: str, text: str):
        rows = self.page.get_by_role("grid", name=grid, exact=True).locator("[role=rowgroup] [role=row]")
        return rows.filter(has=self.page.get_by_text(text, exact=True)).first

    def test_a_zone_from_nothing_to_its_loads(self) -> None:
        self.stage("Rooms")
        self.press("Shared values")
        self.press("Add zone")
        last = (
            self.page.get_by_role("grid", name="Shared values", exact=True).locator("[role=rowgroup] [role=row]").last
        )
        last.scroll_into_view_if_needed()
        self.row("Shared values", "Zone 4").locator("[data-column=name]").click()
        self.page.keyboard.type("Quiet rooms")
        self.page.keyboard.press("Enter")
        self.settle()
        self.press("Sheet", exact=True)
        numbers = list(self.rooms())
        for number in ("0.01", "0.02"):
            self.choose_cell("Rooms", sorted(numbers).index(number), "zone", "Quiet rooms")
        zone = next(z for z in self.fetch("document")["objects"]["zone"] if z["name"] == "Quiet rooms")
        self.assertEqual([self.rooms()[n]["zone"] for n in ("0.01", "0.02")], [zone["id"]] * 2)
        before = self.results()["group"][zone["id"]]["heating_w"]
        self.press("Shared values")
        self.row("Shared values", "Quiet rooms").locator("[data-column=heating_setpoint_c]").click()
        self.page.keyboard.type("23")
        self.page.keyboard.press("Enter")
        self.settle()
        found = self.results()
        ids = [self.rooms()[n]["id"] for n in ("0.01", "0.02")]
        self.assertEqual([found["effective"][i]["heating_setpoint_c"] for i in ids], [[23, "zone"]] * 2)
        self.assertGreater(found["group"][zone["id"]]["heating_w"], before * 1.05)
        self.stage("Loads")
        self.choose("Rows", "zones")
        shown = self.row("Loads", "Quiet rooms").locator("[data-column=heating]").inner_text()
        wanted = sum(found["room"][i]["heating_w"] for i in ids) / 1000
        # What it was stands before what it is.
        self.assertTrue(shown.endswith(f"{wanted:.2f}"), shown)
        # The roll has it as well, and a zone that goes leaves its rooms.
        self.choose("Group the roll by", "zone")
        self.page.get_by_role("listbox", name="Rooms").get_by_text("Quiet rooms").wait_for()
        self.stage("Rooms")
        self.press("Shared values")
        self.row("Shared values", "Quiet rooms").locator("[data-column=rooms]").click()
        self.press("Remove Quiet rooms")
        self.assertEqual([self.rooms()[n]["zone"] for n in ("0.01", "0.02")], [None] * 2)

    def test_a_margin_of_a_system_and_what_stands_beside_the_load(self) -> None:
        self.stage("Air")
        self.page.get_by_role("button", name="AHU-2 gallery").first.click()
        self.press("Settings")
        self.fill("on cooling", "20")
        gallery = self.rooms()["1.01"]["id"]
        record = self.results()["room"][gallery]
        self.assertAlmostEqual(record["cooling_with_margin_w"] / record["cooling"]["sensible_w"], 1.2, places=6)
        self.stage("Loads")
        self.row("Loads", "1.01").locator("[data-column=name]").click()
        self.settle()
        margin = self.page.get_by_label("Breakdown", exact=True).locator(".line", has_text="With the margin")
        self.assertAlmostEqual(self.number(margin.inner_text()), record["cooling_with_margin_w"] / 1000, delta=0.006)
        margin.get_by_role("button").click()
        working = self.page.get_by_label("Working", exact=True)
        working.get_by_text("Air system › AHU-2 gallery").wait_for()
        air = self.results()["room_air"][gallery]["outdoor_air"]
        shown = self.row("Loads", "1.01").locator("[data-column=air]")
        self.assertAlmostEqual(
            self.number(shown.inner_text()), (air["sensible_w"] + air["latent_w"]) / 1000, delta=0.006
        )
        yardsticks = self.page.locator("[data-test=yardsticks]")
        yardsticks.get_by_text("Cooling by area").wait_for()
        self.assertIn(f"{record['cooling']['sensible_w'] / 168.0:.1f}", yardsticks.inner_text())
        self.assertIn("ordinary", yardsticks.inner_text())
        yardsticks.get_by_role("button").first.click()
        working.get_by_text("1.01 Gallery: cooling by area").wait_for()
        shown.click()
        working.get_by_text("outdoor air by AHU-2 gallery").first.wait_for()
        working.get_by_text("Outdoor air for the room").first.wait_for()
