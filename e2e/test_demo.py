"""The demo building: every stage, by mouse and by keyboard."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest

STAGES = ("Place", "Fabric", "Schedules", "Uses", "Rooms", "Loads", "Air", "Water", "Kit", "Compare", "Issue")


class Demo(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def test_every_stage_holds_at_1280_by_800(self) -> None:
        serious: list[str] = []
        for stage in STAGES:
            self.stage(stage)
            self.settle()
            self.page.wait_for_timeout(250)
            size = self.page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
            self.assertLessEqual(size[0], 1280, stage)
            self.assertLessEqual(size[1], 800, stage)
            report = Axe().run(self.page)
            serious += [
                f"{stage}: {v['id']} {v['nodes'][0]['html'][:120]}"
                for v in report.response["violations"]
                if v["impact"] in ("serious", "critical")
            ]
        self.assertEqual(serious, [])
        self.assertEqual(self.problems, [])

    def test_figures_on_screen_are_the_servers(self) -> None:
        results = self.results()
        building = results["group"]["building"]["cooling"]["sensible_w"]
        rows = self.page.get_by_role("grid", name="Loads", exact=True)
        rows.evaluate("grid => grid.scrollTo(0, 99999)")
        row = rows.get_by_role("row").filter(has_text="Building total")
        shown = self.number(row.locator("[data-column=cooling]").inner_text())
        self.assertAlmostEqual(shown, building / 1000, delta=0.006)
        self.stage("Air")
        named = {row["name"]: row["id"] for row in self.fetch("document")["objects"]["air_system"]}
        system = results["air_system"][named["AHU-1 workshops"]]
        coil = self.number(self.page.locator("[data-test=coil-total]").inner_text())
        self.assertAlmostEqual(coil, system["coil_total_w"] / 1000, delta=0.006)
        self.press("IP", exact=True)
        coil = self.number(self.page.locator("[data-test=coil-total]").inner_text().split("MBh")[0])
        self.assertAlmostEqual(coil, system["coil_total_w"] * 3.412142 / 1000, delta=0.06)

    def test_keys(self) -> None:
        page = self.page
        page.get_by_role("heading", name="Loads").click()
        page.keyboard.press("]")
        page.keyboard.press("Shift+]")
        slider = page.get_by_role("slider", name="Hour of the day")
        expect(slider).to_have_attribute("aria-valuetext", "16:10")
        page.keyboard.press("p")
        peak = self.results()["group"]["building"]["cooling"]["step"]
        expect(slider).to_have_attribute("aria-valuenow", str(peak))
        page.keyboard.press("w")
        expect(page.get_by_role("complementary", name="Working")).to_have_count(0)
        page.keyboard.press("Control+k")
        page.keyboard.type("dye")
        page.keyboard.press("Enter")
        page.get_by_text("Breakdown of 0.11 Dye room").wait_for()
        page.keyboard.press("g")
        page.keyboard.press("k")
        page.get_by_role("heading", name="Kit").wait_for()
        page.keyboard.press("s")
        page.get_by_role("region", name="Snags").wait_for()

    def test_schedule_line_and_ribbon_are_one_pattern(self) -> None:
        self.stage("Schedules")
        self.page.get_by_role("navigation", name="Schedules").get_by_text("Workshop day").click()
        line = self.page.get_by_label("Pattern as one line")
        self.assertTrue(line.input_value().startswith("00–08 0 · 08–09 30"))
        before = self.results()["group"]["building"]["cooling"]["sensible_w"]
        line.fill("00–07 0 · 07–18 100 · 18–25 0")
        line.press("Enter")
        self.page.get_by_role("alert").get_by_text("25").wait_for()
        line.fill("00–07 0 · 07–18:30 100 · 18:30–24 0")
        line.press("Enter")
        self.settle()
        found = next(s for s in self.fetch("document")["objects"]["schedule"] if s["name"] == "Workshop day")
        self.assertEqual(found["patterns"][0]["steps"], [[420, 0], [1110, 1], [1440, 0]])
        self.assertGreater(self.results()["group"]["building"]["cooling"]["sensible_w"], before)
        # In the ribbon: the cell at noon, half present.
        ribbon = self.page.get_by_role("application", name="Ribbon of hours")
        ribbon.locator("span").nth(12).click()
        ribbon.focus()
        self.page.keyboard.type("50")
        self.page.keyboard.press("Enter")
        self.settle()
        self.assertIn("12–13 50", line.input_value())

    def test_inherited_values_step_back(self) -> None:
        self.stage("Rooms")
        self.press("Gains", exact=True)
        lights = self.cell("Rooms", 1, "lights_w_m2")
        self.assertIn("inherited", lights.get_attribute("class"))
        self.type_cell("Rooms", 1, "lights_w_m2", "22")
        self.assertNotIn("inherited", lights.get_attribute("class"))
        lights.click()
        self.page.keyboard.press("Delete")
        self.settle()
        self.assertIn("inherited", lights.get_attribute("class"))
        # What is no number stays as typed, says why, and saves nothing.
        self.type_cell("Rooms", 1, "lights_w_m2", "1a")
        lights.click()
        self.page.get_by_role("alert").get_by_text("not a number").wait_for()
        room = next(r for r in self.fetch("document")["objects"]["room"] if r["number"] == "0.02")
        self.assertIsNone(room["lights_w_m2"])

    def test_paste_a_block_and_undo_it_as_one(self) -> None:
        self.stage("Rooms")
        self.press("Gains", exact=True)
        self.page.evaluate("navigator.clipboard.writeText('0.1\\t11\\t21\\n0.2\\t12\\t22\\n0.3\\tbad\\t23')")
        self.cell("Rooms", 0, "people_per_m2").click()
        self.page.keyboard.press("Control+v")
        self.settle()
        rooms = {r["number"]: r for r in self.fetch("document")["objects"]["room"]}
        self.assertEqual([rooms[n]["equipment_w_m2"] for n in ("0.01", "0.02", "0.03")], [21, 22, 23])
        self.assertEqual([rooms[n]["lights_w_m2"] for n in ("0.01", "0.02", "0.03")], [11, 12, None])
        self.page.get_by_role("heading", name="Rooms").click()
        self.page.keyboard.press("Control+z")
        self.settle()
        rooms = {r["number"]: r for r in self.fetch("document")["objects"]["room"]}
        self.assertIsNone(rooms["0.01"]["equipment_w_m2"])

    def test_narrow_window_stays_usable(self) -> None:
        self.page.set_viewport_size({"width": 640, "height": 400})
        for stage in ("Rooms", "Loads", "Air"):
            self.stage(stage)
            width = self.page.evaluate("document.documentElement.scrollWidth")
            self.assertLessEqual(width, 640, stage)
