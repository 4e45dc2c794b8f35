"""Options in the running app: made, worked in, compared, swept, taken over, undone."""

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Compare(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.base = self.project

    def layer(self) -> str:
        return self.page.get_by_label("Option", exact=True).inner_text()

    def new_option(self, name: str) -> str:
        self.page.get_by_label("Option", exact=True).click()
        self.page.get_by_label("Options", exact=True).get_by_text("New option").click()
        self.page.get_by_label("Name of the option").fill(name)
        self.press("Start option")
        self.page.wait_for_url(lambda url: self.base not in url)
        self.page.get_by_label("Option", exact=True).get_by_text(name[:10]).wait_for()
        self.settle()
        return self.project

    def test_made_changed_compared_taken_over_and_undone(self) -> None:
        original = self.results()["group"]["building"]
        option = self.new_option("Steady loads")
        self.stage("Uses")
        uses = {row["name"]: row for row in self.fetch("document")["objects"]["use"]}
        self.page.evaluate(
            """async ([path, id, version]) => {
              const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
              const body = { base_version: version, label: "Less light", changes: [
                { op: "set", kind: "use", id, fields: { lights_value: 4, heating_setpoint_c: 18 } }] };
              await fetch(path, { method: "POST", headers: { "X-CSRFToken": token, "Content-Type": "application/json" }, body: JSON.stringify(body) });
            }""",
            [f"/api/projects/{option}/changes", uses["Gallery"]["id"], self.fetch("document")["version"]],
        )
        self.stage("Compare")
        table = self.page.get_by_label("Key figures")
        table.wait_for()
        cells = table.locator("tr", has_text="Cooling peak").locator("td")
        base, mine = (self.number(cells.nth(at).locator(".figure").inner_text().replace("kW", "")) for at in (1, 2))
        self.assertAlmostEqual(base, original["cooling"]["sensible_w"] / 1e3, delta=0.01)
        self.assertAlmostEqual(mine, self.results()["group"]["building"]["cooling"]["sensible_w"] / 1e3, delta=0.01)
        self.assertLess(mine, base)
        self.page.get_by_role("grid", name="Figures that differ").wait_for()
        self.press("Differences", exact=True)
        grid = self.page.get_by_role("grid", name="Differences")
        grid.get_by_text("Gallery").first.wait_for()
        fields = [one["field"] for one in self.fetch("differences")["differences"]]
        self.assertLessEqual({"lights_value", "heating_setpoint_c"}, set(fields))
        self.assertEqual(grid.locator("[role=rowgroup] [role=row]").count(), len(fields))
        # One value back as the base has it; the other into the base, and back out of it.
        self.cell("Differences", fields.index("heating_setpoint_c"), "kind").click()
        self.press("Take the base's value")
        self.page.wait_for_function(
            "(left) => document.querySelectorAll('[aria-label=Differences] [role=rowgroup] [role=row]').length === left",
            arg=len(fields) - 1,
        )
        self.press("Take over into base")
        self.page.get_by_text("is as the base").wait_for()
        self.page.get_by_label("Option", exact=True).click()
        self.page.get_by_role("listbox").or_(self.page.get_by_label("Options", exact=True)).get_by_text(
            "Base", exact=True
        ).click()
        self.page.wait_for_url(f"**/{self.base}/**")
        self.settle()
        taken = self.results()["group"]["building"]
        self.assertNotEqual(
            taken["cooling"]["sensible_w"] + taken["heating_w"],
            original["cooling"]["sensible_w"] + original["heating_w"],
        )
        self.page.keyboard.press("Control+z")
        self.page.wait_for_timeout(300)
        self.settle()
        back = self.results()["group"]["building"]
        self.assertAlmostEqual(back["cooling"]["sensible_w"], original["cooling"]["sensible_w"], places=6)
        self.assertAlmostEqual(back["heating_w"], original["heating_w"], places=6)
        self.assertEqual(self.problems, [])

    def test_a_sweeps_point_is_kept(self) -> None:
        self.stage("Compare")
        self.press("Sweep", exact=True)
        self.choose("Swept", "Use: heating set-point")
        self.page.get_by_role("button", name="Sweep", exact=True).last.click()
        grid = self.page.get_by_role("grid", name="Points of the sweep")
        grid.wait_for()
        heats = [self.number(self.cell("Points of the sweep", row, "heating_w").inner_text()) for row in range(3)]
        self.assertEqual(heats, sorted(heats))
        self.cell("Points of the sweep", 0, "value").click()
        self.press("Keep as an option")
        self.page.wait_for_url(lambda url: self.base not in url)
        self.page.get_by_label("Key figures").wait_for()
        self.assertIn("18", self.layer())
        self.assertEqual(len(self.fetch("differences")["differences"]), 1)
        self.assertEqual(self.problems, [])

    def test_years_of_options_weather_and_values(self) -> None:
        self.new_option("Warmer")
        self.stage("Compare")
        self.press("Years", exact=True)
        self.press("Calculate 2 years")
        grid = self.page.get_by_role("grid", name="Years", exact=True)
        grid.get_by_text("done").nth(1).wait_for()
        # Nothing differs yet: both rows say the same.
        delivered = [self.number(self.cell("Years", row, "delivered").inner_text()) for row in (0, 1)]
        self.assertEqual(delivered[0], delivered[1])
        self.assertGreater(delivered[0], 0.0)
        # Values of a field in two kinds of weather: warmer rooms take more heat in both.
        self.page.get_by_label("with values of a field").check()
        self.choose("Swept", "Project: infiltration")
        self.choose("How many values", "3 values")
        self.press("Calculate 6 years")
        grid.get_by_text("done").nth(5).wait_for()
        heats = [self.number(self.cell("Years", row, "heating").inner_text()) for row in range(3)]
        self.assertEqual(heats, sorted(heats))
        self.assertLess(heats[0], heats[2])
        self.page.get_by_role("img", name="Years by delivered").or_(
            self.page.get_by_label("Years by delivered")
        ).first.wait_for()
        self.assertEqual(self.problems, [])

    def test_a_conflict_between_base_and_option_is_chosen(self) -> None:
        rooms = {row["number"]: row["id"] for row in self.fetch("document")["objects"]["room"]}
        option = self.new_option("Wider")
        self.stage("Rooms")
        self.type_cell("Rooms", 0, "floor_area_m2", "90")
        self.page.goto(f"{self.live_server_url}/{self.base}/rooms")
        self.page.get_by_role("grid", name="Rooms").wait_for()
        self.settle()
        self.type_cell("Rooms", 0, "floor_area_m2", "85")
        self.page.goto(f"{self.live_server_url}/{option}/compare?view=differences")
        self.page.get_by_text("choose").first.wait_for()
        self.assertIn(f"option_floor_area_m2/{rooms['0.01']}", self.results()["snag"])
        self.cell("Differences", 0, "kind").click()
        self.press("Keep the option's value")
        self.page.get_by_text("the base had").wait_for(state="detached")
        self.assertNotIn(f"option_floor_area_m2/{rooms['0.01']}", self.results()["snag"])
        self.assertEqual(self.problems, [])
