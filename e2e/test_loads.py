"""Why a room peaks when it does, what is done about it, and how the loads changed: on the Loads stage."""

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest
from projects.changes import apply_changes
from projects.document import load_document


class Loads(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        drawn = load_tarnwick(self.engineer)
        document = load_document(drawn)
        self.room = next(r for r in document.of("room").values() if r["number"] == "0.05")
        walls = {s["id"] for s in document.of("surface").values() if s["room"] == self.room["id"]}
        window = next(o for o in document.of("opening").values() if o["surface"] in walls and o["kind"] == "window")
        october = next(m for m in document.of("design_month").values() if m["month"] == 10)
        # A warm October and a wide bare window to the south.
        changes = [
            {"op": "set", "kind": "opening", "id": window["id"], "fields": {"count": 3, "shading": None}},
            {"op": "set", "kind": "design_month", "id": october["id"], "fields": {"dry_bulb_c": 29.0}},
        ]
        apply_changes(drawn.id, self.engineer, changes, "wide window", document.version)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def peak(self) -> dict:
        return self.results()["room"][self.room["id"]]["cooling"]

    def row(self):
        grid = self.page.get_by_role("grid", name="Loads", exact=True)
        return grid.locator("[role=row]", has=self.page.get_by_text("0.05", exact=True))

    def test_an_october_peak_is_found_shaded_and_compared(self) -> None:
        before = self.peak()
        self.assertEqual(before["month"], 10)
        self.assertIn("Oct", self.row().locator("[data-column=when]").inner_text())
        self.row().locator("[data-column=name]").click()
        self.settle()
        breakdown = self.page.get_by_label("Breakdown", exact=True)
        self.assertTrue(breakdown.locator(".line").first.inner_text().startswith("Sun through windows"))
        base = self.project
        self.press("New option")
        self.page.wait_for_url(lambda url: base not in url)
        self.page.get_by_label("Option", exact=True).get_by_text("Option 1").wait_for()
        self.settle()
        self.stage("Rooms")
        shading = next(s for s in self.fetch("document")["objects"]["shading"])
        self.choose_cell("Openings", 0, "shading", shading["name"])
        after = self.peak()
        self.assertLess(after["sensible_w"], before["sensible_w"] - 100.0)
        self.page.reload()
        self.page.get_by_role("grid", name="Rooms", exact=True).wait_for()
        self.stage("Loads")
        self.row().locator("[data-column=name]").click()
        self.settle()
        self.row().locator("[data-column=cooling_since]").get_by_text("−").wait_for()
        since = self.row().locator("[data-column=cooling_since]").inner_text()
        self.assertEqual(since[0], "−")
        self.assertAlmostEqual(-self.number(since), (before["sensible_w"] - after["sensible_w"]) / 1000, delta=0.011)
        there = self.page.locator("[data-test=base]").inner_text()
        self.assertAlmostEqual(self.number(there), before["sensible_w"] / 1000, delta=0.011)
        # The base is as it was, and has nothing beside it.
        self.open(f"/{base}/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.settle()
        self.assertEqual(self.peak(), before)
        self.assertEqual(self.page.locator("[data-test=base]").count(), 0)

    def test_groups_explain_themselves_and_u_values_stand_beside(self) -> None:
        self.choose("Rows", "uses")
        grid = self.page.get_by_role("grid", name="Loads", exact=True)
        row = grid.locator("[role=row]", has=self.page.get_by_text("Dry workshop", exact=True))
        row.locator("[data-column=cooling]").click()
        working = self.page.get_by_label("Working", exact=True)
        working.get_by_text("Dry workshop: sensible cooling load, coincident peak").wait_for()
        rooms = [r for r in self.fetch("document")["objects"]["room"] if r["use"] == self.use("Dry workshop")["id"]]
        for room in rooms:
            working.get_by_text(f"{room['number']} {room['name']}").first.wait_for()
        self.choose("Rows", "rooms")
        self.row().locator("[data-column=name]").click()
        self.press("Heating", exact=True)
        simple = self.page.locator("[data-test=simple]")
        wanted = self.results()["room"][self.room["id"]]["heating_simple_w"]
        self.assertAlmostEqual(self.number(simple.locator(".num").inner_text()), wanted / 1000, delta=0.006)
        simple.get_by_role("button").click()
        working.get_by_text("losses by U-values").first.wait_for()

    def test_working_leads_to_the_field_of_an_input(self) -> None:
        self.row().locator("[data-column=cooling]").click()
        working = self.page.get_by_label("Working", exact=True)
        name = next(u["name"] for u in self.fetch("document")["objects"]["use"] if u["id"] == self.room["use"])
        working.get_by_role("button", name=f"Use › {name}").first.click()
        self.page.wait_for_url("**/uses?**")
        field = self.page.get_by_role("textbox", name="Cooled to", exact=True)
        self.page.wait_for_function("() => document.activeElement?.tagName === 'INPUT'")
        self.assertTrue(field.evaluate("(box) => box === document.activeElement"))

    def use(self, name: str) -> dict:
        return next(u for u in self.fetch("document")["objects"]["use"] if u["name"] == name)

    def test_a_snag_is_mended_where_it_is_read(self) -> None:
        self.stage("Rooms")
        self.press("Thermostat", exact=True)
        self.type_cell("Rooms", 1, "cooling_capacity_w", "0.2")
        self.stage("Loads")
        self.page.get_by_role("heading", name="Loads").click()
        self.page.keyboard.press("s")
        snags = self.page.get_by_role("region", name="Snags")
        snags.get_by_text("0.02 Shop: with its 0.20 kW").wait_for()
        snags.get_by_role("button", name="Let its plant be sized").click()
        snags.get_by_text("0.02 Shop: with its 0.20 kW").wait_for(state="detached")
        shop = next(r for r in self.fetch("document")["objects"]["room"] if r["number"] == "0.02")
        self.assertIsNone(shop["cooling_capacity_w"])
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("Control+z")
        self.settle()
        shop = next(r for r in self.fetch("document")["objects"]["room"] if r["number"] == "0.02")
        self.assertEqual(shop["cooling_capacity_w"], 200.0)

    def test_the_breakdown_follows_the_hour_and_the_plan_is_coloured(self) -> None:
        self.row().locator("[data-column=name]").click()
        self.settle()
        self.page.get_by_role("button", name="at the hour").click()
        breakdown = self.page.get_by_label("Breakdown", exact=True)
        sums = set()
        for _ in range(3):
            self.page.keyboard.press("Shift+]")
            self.settle()
            lines = breakdown.locator(".line").all_inner_texts()
            figures = [self.number(line.split("kW")[0]) for line in lines if "kW" in line]
            self.assertAlmostEqual(sum(figures[:-1]), figures[-1], delta=0.03)
            sums.add(figures[-1])
        self.assertEqual(len(sums), 3)
        self.press("Plan", exact=True)
        self.page.get_by_text("cooling at the hour, by area").first.wait_for(state="attached")
        self.assertEqual(self.page.get_by_label("Colour by").input_value(), "cooling at the hour, by area")

    def test_the_proof_book(self) -> None:
        self.jump("proof")
        self.page.get_by_role("heading", name="Proof book").wait_for()
        text = self.page.get_by_role("note").inner_text()
        good, total = (int(part) for part in text.split(" hold")[0].split(" of "))
        self.assertEqual(good, total)
        self.assertEqual(self.page.get_by_role("cell", name="holds", exact=True).count(), total)

    def test_snags_of_a_kind_stand_together(self) -> None:
        warm = [snag for snag in self.results()["snag"].values() if snag["code"] == "too_warm"]
        self.assertGreater(len(warm), 3)
        self.page.get_by_role("heading", name="Loads").click()
        self.page.keyboard.press("s")
        panel = self.page.get_by_role("region", name="Snags")
        told = panel.get_by_text("is not cooled and reaches")
        panel.get_by_role("button", name=f"{len(warm) - 1} more like this").wait_for()
        self.assertEqual(told.count(), 1)
        panel.get_by_role("button", name=f"{len(warm) - 1} more like this").click()
        panel.get_by_role("button", name=f"Only the first of these {len(warm)}").wait_for()
        self.assertEqual(told.count(), len(warm))

    def jump(self, words: str) -> None:
        self.page.keyboard.press("/")
        self.page.get_by_role("dialog", name="Jump to").get_by_role("textbox").fill(words)
        self.page.keyboard.press("Enter")
        self.page.get_by_role("dialog", name="Jump to").wait_for(state="detached")

    def test_everything_is_jumped_to(self) -> None:
        """Things, pages and commands by their words alone."""
        page = self.page
        self.jump("brick material")
        page.get_by_role("grid", name="Materials").wait_for()
        self.jump("weather file")
        page.get_by_role("button", name="Weather file", pressed=True).wait_for()
        self.jump("inch-pound")
        page.get_by_role("button", name="IP", exact=True, pressed=True).wait_for()
        self.jump("units si")
        self.jump("night drawing")
        page.locator("html.night").wait_for()
        self.jump("kiln room")
        page.get_by_role("heading", name="Rooms").wait_for()
        count = lambda: len(self.fetch("document")["objects"]["room"])  # noqa: E731
        before = count()
        self.jump("add room")
        self.settle()
        self.assertEqual(count(), before + 1)
        self.jump("undo command")
        self.settle()
        self.assertEqual(count(), before)
        self.jump("import rooms")
        page.get_by_role("dialog").get_by_text("gbXML").first.wait_for()

    def test_loads_on_paper(self) -> None:
        self.page.emulate_media(media="print")
        paper = self.page.locator("section.paper")
        self.assertTrue(paper.is_visible())
        self.assertIn("0.05", paper.inner_text())
        self.assertFalse(self.page.get_by_role("grid", name="Loads", exact=True).is_visible())

    def test_every_stage_prints(self) -> None:
        """The page whole without its frame; of a grid all rows, also those that are scrolled away."""
        for stage in ("Place", "Fabric", "Schedules", "Uses", "Rooms", "Air", "Water", "Kit"):
            self.stage(stage)
            self.page.emulate_media(media="print")
            self.page.evaluate("window.dispatchEvent(new Event('beforeprint'))")
            self.assertTrue(self.page.get_by_role("heading", level=1).first.is_visible(), stage)
            self.assertFalse(self.page.get_by_role("banner").is_visible(), stage)
            height = self.page.evaluate("document.querySelector('.middle').getBoundingClientRect().height")
            self.assertGreater(height, 300, stage)
            if stage == "Rooms":
                shown = self.page.locator(".whole").first.inner_text()
                for room in self.fetch("document")["objects"]["room"]:
                    self.assertIn(room["name"], shown)
            self.page.evaluate("window.dispatchEvent(new Event('afterprint'))")
            self.page.emulate_media(media="screen")
