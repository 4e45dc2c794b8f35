"""The kit list in the browser: accounts, own tags by the keyboard, equal pieces, files read by other programs; another pump, fans in terminals."""

import io

from openpyxl import load_workbook

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Kit(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def test_an_own_tag_by_the_keyboard_stands_in_grid_account_and_file(self) -> None:
        self.stage("Kit")
        grid = self.page.get_by_role("grid", name="Kit list", exact=True)
        grid.get_by_text("AHU-1 workshops SF", exact=True).click()
        account = self.page.get_by_role("complementary", name="Account of the piece")
        account.get_by_role("heading", name="AHU-1 workshops SF").wait_for()
        # Its shaft power has the margin on a line of its own, the motor and what is left of it.
        lines = account.get_by_role("table", name="Duties").locator("tr")
        told = [lines.nth(at).inner_text() for at in range(lines.count())]
        shaft = next(at for at, text in enumerate(told) if text.startswith("Shaft power"))
        asked, margin, chosen, left = (self.number(text.split("\t")[1]) for text in told[shaft : shaft + 4])
        self.assertIn("margin 15%", told[shaft + 1])
        self.assertAlmostEqual(margin, 0.15 * asked, delta=0.011)
        self.assertAlmostEqual(left, chosen - asked - margin, delta=0.021)
        # F2 opens the cell that is chosen; what is typed is saved and told everywhere.
        self.page.keyboard.press("F2")
        self.assertEqual(grid.locator("input").input_value(), "AHU-1 workshops SF")
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type("V-101")
        self.page.keyboard.press("Enter")
        grid.get_by_text("V-101", exact=True).wait_for()
        self.settle()
        answer = self.page.request.get(f"{self.live_server_url}/api/projects/{self.project}/kit.xlsx")
        rows = list(load_workbook(io.BytesIO(answer.body())).active.values)
        mine = [row for row in rows if row[0] == "V-101"]
        self.assertEqual(len(mine), len(told))
        self.assertAlmostEqual(float(mine[shaft][5]), asked, places=2)
        self.assertEqual(self.problems, [])

    def test_equal_pieces_stand_together_and_what_is_shown_is_summed(self) -> None:
        self.stage("Kit")
        grid = self.page.get_by_role("grid", name="Kit list", exact=True)
        items = self.results()["kit"].values()
        sums = self.page.locator("[data-test=kit-sums]")
        self.assertIn(f"{sum(item['count'] for item in items)} pieces", sums.inner_text())
        self.press("Equal together", exact=True)
        # The other radiators of the first one's size are counted on its line.
        first = min((i for i in items if i["item"].startswith("Radiator")), key=lambda item: item["tag"])
        same = [i for i in items if i["item"] == first["item"] and i["size"] == first["size"]]
        grid.get_by_role("columnheader").nth(1).click(button="right")
        self.page.get_by_label("Only rows with").fill("radiator, duty")
        self.page.keyboard.press("Escape")
        radiators = [i for i in items if i["item"].startswith("Radiator, duty")]
        sums.get_by_text(f"{len(radiators)} pieces").wait_for()
        sizes = {i["size"] for i in radiators}
        self.assertEqual(grid.locator("[role=rowgroup] [role=row]").count(), len(sizes))
        line = grid.locator("[role=row]").filter(has=self.page.get_by_text(first["size"], exact=True)).first
        self.assertEqual(line.locator("[data-column=count]").inner_text().strip(), str(len(same)))
        self.assertEqual(self.problems, [])

    def test_rows_print_also_where_a_grid_stands_within_a_page(self) -> None:
        def printed() -> str:
            self.page.emulate_media(media="print")
            self.page.evaluate("window.dispatchEvent(new Event('beforeprint'))")
            text = self.page.locator(".whole").first.inner_text()
            self.assertTrue(self.page.locator(".whole").first.is_visible())
            self.page.evaluate("window.dispatchEvent(new Event('afterprint'))")
            self.page.emulate_media(media="screen")
            return text

        self.stage("Kit")
        listed = printed()
        for item in self.results()["kit"].values():
            self.assertIn(item["tag"], listed)
        self.press("Prices", exact=True)
        self.page.get_by_role("grid", name="Prices").wait_for()
        self.assertIn("Supply fan, flow and static pressure", printed())
        self.stage("Air")
        self.press("Air balance of rooms")
        self.page.get_by_role("grid").first.wait_for()
        self.assertIn("Kiln room", printed())

    def test_another_pump_tells_what_it_saves(self) -> None:
        self.stage("Water")
        self.press("Pumps", exact=True)
        self.fill("Another pump's efficiency", "75")
        self.page.get_by_role("columnheader", name="Another", exact=True).wait_for()
        circuit = next(row for row in self.fetch("document")["objects"]["circuit"] if row["other_pump_efficiency"])
        pump = self.results()["circuit"][circuit["id"]]["pump"]
        other = pump["flow_m3_s"] * pump["head_pa"] / (0.75 * pump["motor_efficiency"])
        cells = self.page.get_by_role("table", name="Part load").locator("tbody tr").last.locator("td")
        self.assertAlmostEqual(self.number(cells.nth(6).inner_text()), other, delta=0.6)
        self.assertAlmostEqual(self.number(cells.nth(7).inner_text()), pump["electrical_w"] - other, delta=0.6)
        cells.nth(7).locator("button").click()
        self.page.get_by_text("saved by another pump").first.wait_for()
        self.assertEqual(self.problems, [])

    def test_fans_in_terminals_stand_among_the_duties(self) -> None:
        self.stage("Air")
        self.press("Settings", exact=True)
        self.choose("Fans in terminals", "in series, run with the unit")
        self.fill("Their electricity by flow", "0.6")
        system = next(row for row in self.fetch("document")["objects"]["air_system"] if row["terminal_fan"] == "series")
        self.assertAlmostEqual(system["terminal_fan_w_m3_s"], 600.0)
        found = self.results()["air_system"][system["id"]]
        self.assertGreater(found["terminal_fans_w"], 100.0)
        self.press("Path", exact=True)
        row = self.page.get_by_role("row").filter(has_text="Fans in terminals").first
        told = row.locator("td").nth(1).inner_text()
        # What it was before its last edit may stand in front of it.
        self.assertTrue(told.endswith(f"{found['terminal_fans_w'] / 1000.0:.2f}kW"), told)
        row.locator("button").first.click()
        self.page.get_by_text("fans in terminals").first.wait_for()
        self.assertEqual(self.problems, [])
