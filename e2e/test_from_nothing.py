"""From an empty project to a sized fan, coil, duct, pump and pipe, with mouse and keyboard."""

from e2e.browser import BrowserTest


class FromNothing(BrowserTest):
    def begin(self) -> None:
        self.open()
        self.page.get_by_text("No project yet").wait_for()
        self.press("Projects")
        self.page.get_by_text("New project …", exact=True).click()
        self.page.get_by_label("Project name").fill("Alder Mill")
        self.press("Start project")
        self.page.get_by_role("heading", name="Place").wait_for()

    def place(self) -> None:
        self.page.get_by_text("These are starter values").wait_for()
        self.fill("Name", "Alder")
        self.fill("Latitude, north +", "46.2")
        self.press("Design days")
        self.fill("Winter dry-bulb", "-7.5")
        # A wet-bulb above the dry-bulb stays as typed, with the reason, and is not saved.
        self.type_cell("Design conditions by month", 6, "wet_bulb_c", "39")
        self.cell("Design conditions by month", 6, "wet_bulb_c").click()
        self.page.get_by_role("alert").get_by_text("above “Dry-bulb”").wait_for()
        self.type_cell("Design conditions by month", 6, "wet_bulb_c", "22.5")
        site = self.fetch("document")["objects"]["site"][0]
        self.assertEqual((site["name"], site["latitude"], site["winter_dry_bulb_c"]), ("Alder", 46.2, -7.5))

    def fabric(self) -> None:
        self.stage("Fabric")
        self.press("+ assembly")
        self.fill("Name", "Brick and wool")
        self.press("Add layer")
        self.choose_cell("Layers", 0, "material", "Mineral wool")
        self.type_cell("Layers", 0, "thickness_m", "120")
        self.press("Add layer")
        self.choose_cell("Layers", 1, "material", "Gypsum board")
        self.type_cell("Layers", 1, "thickness_m", "12.5")
        # U by hand: 1/(0.13 + 0.12/0.037 + 0.0125/0.25 + 0.04) = 0.2888 W/m2K (ISO 6946).
        self.page.get_by_text("0.289").first.wait_for()
        self.press("+ glazing")
        self.fill("Name", "Double")
        self.press("Fabric kit", exact=True)
        self.choose("Outer wall", "Brick and wool")
        self.choose("Window", "Double")

    def use(self) -> None:
        self.stage("Uses")
        self.press("+ use")
        self.fill("Name", "Drawing office")
        self.fill("People", "0.1")
        self.fill("Lights", "9")
        self.fill("Equipment", "12")
        self.fill("Outdoor air per person", "2.5")

    def rooms(self) -> None:
        self.stage("Rooms")
        self.press("Add room")
        self.type_cell("Rooms", 0, "number", "1.01")
        self.type_cell("Rooms", 0, "name", "North studio")
        self.type_cell("Rooms", 0, "floor_area_m2", "24")
        self.press("Add a surface")
        self.page.get_by_role("listitem").get_by_text("outer wall").click()
        self.settle()
        self.type_cell("Surfaces", 0, "area_m2", "18")
        self.press("Add opening")
        self.settle()
        self.type_cell("Openings", 0, "width_m", "2")
        self.press("Copy room")
        self.settle()
        self.type_cell("Rooms", 1, "name", "South studio")

    def loads(self) -> None:
        self.stage("Loads")
        self.cell("Loads", 0, "name").get_by_text("North studio").wait_for()
        rooms = self.results()["room"]
        self.assertEqual(len(rooms), 2)
        for row in (0, 1):
            shown = self.number(self.cell("Loads", row, "cooling").inner_text())
            self.assertGreater(shown, 0.4)

    def air_and_water(self) -> None:
        self.stage("Air")
        self.press("+ air system")
        for row in (0, 1):
            self.cell("Terminals", row, "served").click()
            self.page.keyboard.press("Enter")
            self.settle()
        self.press("Ducts", exact=True)
        self.press("Add a branch for 2 ends")
        self.settle()
        self.stage("Water")
        self.press("+ chilled")
        self.settle()
        self.press("Add a pipe for 1 end")
        self.settle()
        self.press("+ heating")
        self.settle()
        self.press("Add a pipe for 3 ends")
        self.settle()
        self.page.get_by_text("pump head").wait_for()

    def test_the_whole_thread(self) -> None:
        self.begin()
        self.place()
        self.fabric()
        self.use()
        self.rooms()
        self.loads()
        self.air_and_water()
        before = self.results()
        self.assertEqual([s for s in before["snag"].values() if s["level"] == "stops"], [])

        # A larger window: load, airflow, coil, fan and duct follow at once, and show what they were.
        self.stage("Rooms")
        self.cell("Rooms", 0, "name").click()
        self.type_cell("Openings", 0, "width_m", "5")
        self.assertIn(
            f"{self.shown_room(before) / 1000:.2f}", self.cell("Rooms", 0, "cooling").locator("s").inner_text()
        )
        after = self.results()
        room = self.fetch("document")["objects"]["opening"]
        wide = next(o for o in room if o["width_m"] == 5)
        surface = next(s for s in self.fetch("document")["objects"]["surface"] if s["id"] == wide["surface"])
        changed = surface["room"]
        system = next(iter(before["air_system"]))
        branch = next(s["id"] for s in self.fetch("document")["objects"]["duct_section"] if s["room"] == changed)
        for what, old, new in (
            ("load", before["room"][changed]["cooling"]["sensible_w"], after["room"][changed]["cooling"]["sensible_w"]),
            ("airflow", before["airflow"][changed]["design_m3_s"], after["airflow"][changed]["design_m3_s"]),
            ("coil", before["air_system"][system]["coil_total_w"], after["air_system"][system]["coil_total_w"]),
            ("fan", before["air_system"][system]["fan"]["flow_m3_s"], after["air_system"][system]["fan"]["flow_m3_s"]),
            ("duct", before["duct_section"][branch]["flow_m3_s"], after["duct_section"][branch]["flow_m3_s"]),
        ):
            self.assertGreater(new, 1.05 * old, what)
        # Airflow by hand: Q = rho cp V dT at 14 °C and the pressure of 200 m, 24 °C room.
        peak, flow = after["room"][changed]["cooling"]["sensible_w"], after["airflow"][changed]["design_m3_s"]
        self.assertAlmostEqual(flow / (peak / (1.20 * 1020 * 10)), 1.0, delta=0.03)

        # Working of the load, read in the panel, is the peak in both unit systems.
        self.stage("Loads")
        self.cell("Loads", 0, "name").click()
        value = self.page.locator("[data-test=working-value]")
        value.wait_for()
        self.assertAlmostEqual(float(value.inner_text()), peak / 1000, delta=0.006)
        self.press("IP", exact=True)
        self.assertAlmostEqual(float(value.inner_text()), peak * 3.412142 / 1000, delta=0.06)
        self.press("SI", exact=True)
        self.press("▸ Sun through windows")
        self.press("▸ Window", exact=True)
        self.page.get_by_role("complementary", name="Working").get_by_text("Sun entering at this time").first.wait_for(
            state="attached"
        )

        # Undo brings every number back.
        self.page.get_by_role("heading", name="Loads").click()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(self.results()["room"], before["room"])
        self.assertEqual(self.results()["air_system"], before["air_system"])
        # Also after a reload nothing is lost, and redo is still there.
        self.page.reload()
        self.page.get_by_role("heading", name="Loads").wait_for()
        self.page.keyboard.press("Control+Shift+z")
        self.settle()
        self.assertEqual(self.results()["airflow"], after["airflow"])

        # The kit list leaves as a file.
        self.stage("Kit")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export CSV").click()
        text = download.value.path().read_text()
        for item in ("Supply fan", "Cooling coil", "Pump", "Round duct", "Steel pipe", "Radiator"):
            self.assertIn(item, text)
        self.assertEqual([p for p in self.problems if "422" not in p], [])

    def shown_room(self, results: dict) -> float:
        """Peak of the room in the first row."""
        number = self.cell("Rooms", 0, "number").inner_text()
        room = next(r["id"] for r in self.fetch("document")["objects"]["room"] if r["number"] == number)
        return results["room"][room]["cooling"]["sensible_w"]
