"""Place and Fabric: months, sun and skyline, weather files; layers, studs, glazing, shading, envelope, copies for one place."""

import tempfile
from pathlib import Path

import numpy as np
import pvlib

from e2e.definitions import Definitions

TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"


class PlacePages(Definitions):
    def test_impossible_months_are_told_and_kept_as_typed(self) -> None:
        self.stage("Place")
        july = next(m for m in self.rows("design_month") if m["month"] == 7)
        self.type_cell("Design conditions by month", 6, "wet_bulb_c", "40")
        self.cell("Design conditions by month", 6, "wet_bulb_c").click()
        self.page.get_by_role("alert").get_by_text("above “Dry-bulb”").wait_for()
        self.assertEqual(next(m for m in self.rows("design_month") if m["month"] == 7), july)
        self.page.keyboard.press("Escape")
        before = self.building()["cooling"]["sensible_w"]
        self.type_cell("Design conditions by month", 6, "dry_bulb_c", "38")
        self.assertGreater(self.building()["cooling"]["sensible_w"], before)
        # A month's own reflectance, and back to the site's.
        self.type_cell("Design conditions by month", 0, "ground_reflectance", "0.7")
        self.assertEqual(self.rows("design_month")[0]["ground_reflectance"], 0.7)

    def draw(self, name: str, across: float, down: float) -> None:
        box = self.page.get_by_role("img", name=name).bounding_box()
        assert box
        self.page.mouse.click(box["x"] + across * box["width"], box["y"] + down * box["height"])

    def test_sun_on_a_surface_and_a_skyline(self) -> None:
        self.stage("Place")
        self.part("Site and sun")
        self.slide("Azimuth of the surface", 90)
        self.page.locator("[data-test=azimuth]", has_text="90° E").wait_for()
        self.page.get_by_text("behind the surface").wait_for()  # an east wall at 15:00
        before = self.building()["cooling"]["sensible_w"]
        self.press("+ part of the skyline")
        self.fill("Part 1 from", "100")
        self.fill("Part 1 to", "260")
        self.fill("Part 1 height", "60")
        self.assertLess(self.building()["cooling"]["sensible_w"], before)
        # Both angles are drawn as well: the arrow from above, the tilt from the side.
        self.draw("Sun path in Jul", 0.2, 0.5)
        self.page.locator("[data-test=azimuth]", has_text="270° W").wait_for()
        self.draw("Section through the surface", 0.5, 0.1)
        self.page.get_by_text("0° roof").wait_for()
        self.fill("Part 1 distance", "-3")
        self.page.get_by_role("alert").get_by_text("at least 1").wait_for()

    def test_tmy3_is_imported_and_a_month_taken(self) -> None:
        self.stage("Place")
        self.part("Weather file")
        self.page.get_by_label("Weather file").set_input_files(TMY3)
        table = self.page.get_by_role("table", name="Derived design months")
        table.wait_for()
        self.page.get_by_role("img", name="Temperature carpet of the year").wait_for()
        derived = self.fetch("weather")["derived"]["months"][6]
        self.page.get_by_role("button", name="Take Jul").click()
        self.settle()
        july = next(m for m in self.rows("design_month") if m["month"] == 7)
        self.assertAlmostEqual(july["dry_bulb_c"], derived["dry_bulb_c"], places=3)
        self.page.get_by_role("button", name="Take Winter dry-bulb, 99.6 %").click()
        self.settle()
        self.assertAlmostEqual(
            self.rows("site")[0]["winter_dry_bulb_c"], self.fetch("weather")["derived"]["heating_c"][0], places=3
        )
        self.assertEqual(self.problems, [])

    def test_an_odd_file_is_mapped_by_hand(self) -> None:
        hours = np.arange(8760)
        lines = ["Mill Hill;made up", "no;clock;heat;damp;light"]
        for hour in hours:
            t = 10 + 12 * np.sin(2 * np.pi * (hour % 24 - 9) / 24) + 8 * np.sin(2 * np.pi * (hour - 2500) / 8760)
            light = max(0.0, 700 * np.sin(np.pi * (hour % 24 - 6) / 12))
            lines.append(f"{hour + 1};{hour % 24}:00;{t:.2f};55;{light:.0f}".replace(".", ","))
        with tempfile.TemporaryDirectory() as folder:
            good, bad = Path(folder) / "odd.csv", Path(folder) / "bad.csv"
            good.write_text("\n".join(lines))
            bad.write_text("\n".join([*lines[:500], lines[500].replace("55", "wet"), *lines[501:]]))
            self.stage("Place")
            self.part("Weather file")
            self.page.get_by_label("Weather file").set_input_files(bad)
            self.page.get_by_role("table", name="Columns of the file").wait_for()
            for column, role in (
                (2, "time of day"),
                (3, "dry-bulb"),
                (4, "relative humidity"),
                (5, "global irradiance"),
            ):
                self.choose(f"Column {column}", role)
            self.page.get_by_label("Name of the mapping").fill("Mill Hill files")
            self.press("Read the year")
            self.page.get_by_role("alert").get_by_text("line 501").first.wait_for()
            self.assertEqual(self.fetch("weather"), {})
            # The mapping stands for the next file of the same layout.
            self.page.get_by_label("Weather file").set_input_files(good)
            self.page.wait_for_timeout(300)
            self.assertEqual(self.page.get_by_label("Column 3", exact=True).input_value(), "dry-bulb")
            self.assertEqual(self.page.get_by_label("Name of the mapping").input_value(), "Mill Hill files")
            self.press("Read the year")
            self.page.get_by_role("table", name="Derived design months").wait_for()
            self.page.get_by_text("Erbs").wait_for()
            found = self.fetch("weather")
            self.assertAlmostEqual(found["derived"]["mean_c"], 10.0, delta=0.1)
            # Each file stays beside the others; the year goes by the one that is chosen, or by typical days.
            self.choose("The year goes by", "twelve typical days")
            self.page.get_by_role("table", name="Derived design months").wait_for(state="detached")
            self.assertEqual(self.fetch("weather"), {})
            self.choose("The year goes by", "odd.csv")
            self.page.get_by_role("table", name="Derived design months").wait_for()
            # Next time the layout is remembered by its name.
            self.page.get_by_label("Weather file").set_input_files(good)
            self.choose("Remembered mapping", "Mill Hill files")
            self.assertEqual(self.page.get_by_label("Column 3", exact=True).input_value(), "dry-bulb")


class FabricPages(Definitions):
    def test_layers_are_dragged_and_moved_by_keyboard(self) -> None:
        self.stage("Fabric")
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Brick, insulated cavity").click()
        wall = self.named("assembly", "Brick, insulated cavity")["id"]

        def order() -> list[str]:
            names = {m["id"]: m["name"] for m in self.rows("material")}
            rows = sorted((r for r in self.rows("layer") if r["assembly"] == wall), key=lambda r: r["position"])
            return [names[r["material"]] for r in rows]

        first = order()
        self.cell("Layers", 0, "material").click()
        self.page.keyboard.press("Alt+ArrowDown")
        self.settle()
        self.assertEqual(order(), [first[1], first[0], *first[2:]])
        lag = self.results()["assembly"][wall]["time_lag_h"]
        drawing = self.page.get_by_role("img", name="Section, outside at the left")
        layers = drawing.locator(".layer")
        start, end = layers.nth(0).bounding_box(), layers.nth(2).bounding_box()
        assert start and end
        self.page.mouse.move(start["x"] + start["width"] / 2, start["y"] + 40)
        self.page.mouse.down()
        self.page.mouse.move(end["x"] + end["width"] * 0.8, end["y"] + 40, steps=6)
        self.page.mouse.up()
        self.settle()
        self.assertEqual(order(), [first[0], first[2], first[1], first[3]])
        self.assertNotAlmostEqual(self.results()["assembly"][wall]["time_lag_h"], lag, places=2)
        # Insulation inside: the dew point is reached behind it.
        self.page.get_by_text("vapour may condense there").wait_for()

    def test_studs_through_the_wool(self) -> None:
        self.stage("Fabric")
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Brick, insulated cavity").click()
        wall = self.named("assembly", "Brick, insulated cavity")["id"]
        before = self.results()["assembly"][wall]["u_value"]
        self.choose_cell("Layers", 1, "bridge_material", "Timber, soft")
        self.type_cell("Layers", 1, "bridge_share", "12")
        found = self.results()["assembly"][wall]
        rest = 0.17 + 0.102 / 0.77 + 0.14 / 0.9 + 0.013 / 0.5
        wool, stud = 0.14 / 0.037, 0.14 / 0.13
        upper = 1 / (0.88 / (rest + wool) + 0.12 / (rest + stud))
        lower = rest + 1 / (0.88 / wool + 0.12 / stud)
        self.assertAlmostEqual(found["u_value"], 2 / (upper + lower), places=9)
        self.assertGreater(found["u_value"], before)

    def test_catalogue_shading_and_envelope(self) -> None:
        self.stage("Fabric")
        self.press("Materials", exact=True)
        self.press("From the catalogue")
        self.page.get_by_label("Find on the shelf").fill("cork board")
        self.page.get_by_role("dialog").get_by_role("option", name="Cork board").click()
        self.settle()
        self.press("Done")
        self.assertAlmostEqual(self.named("material", "Cork board")["conductivity_w_mk"], 0.045)
        self.press("+ shading")
        shading = self.named("shading", "New shading")
        self.fill("Overhang, depth", "1.2")
        lit = self.page.locator("[data-test=lit]")
        shown = self.number(lit.inner_text().replace("%", ""))
        day = self.fetch(f"shading/{shading['id']}?month=7&width=1.5&height=1.4&azimuth=180")
        self.assertAlmostEqual(shown, 100 * day["lit_share"][90], delta=0.06)
        # On a window of the gallery it takes sun away.
        before = self.building()["cooling"]["sensible_w"]
        self.stage("Rooms")
        self.page.get_by_role("option", name="Gallery").first.click()
        self.choose_cell("Openings", 0, "shading", "New shading")
        self.assertLess(self.building()["cooling"]["sensible_w"], before)
        self.stage("Fabric")
        self.press("Envelope", exact=True)
        table = self.page.get_by_role("table", name="Envelope by element")
        lines = self.results()["envelope"]["building"]["lines"]
        self.assertEqual(table.locator("tbody tr").count(), len(lines) + 1)
        texts = table.locator("tbody td:nth-child(7)").all_inner_texts()
        self.assertEqual(texts.count("inside"), sum(line["inside"] for line in lines))
        shares = [self.number(text.replace("%", "")) for text in texts if text != "inside"]
        self.assertAlmostEqual(sum(shares), 100.0, delta=0.5)

    def test_a_copy_for_one_place_and_replacing_everywhere(self) -> None:
        self.stage("Fabric")
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Double, sun control").click()
        glass = self.named("glazing", "Double, sun control")["id"]
        users = [o for o in self.rows("opening") if o["glazing"] == glass]
        self.page.get_by_role("button", name="a copy for here").first.click()
        self.settle()
        self.assertEqual(sum(o["glazing"] == glass for o in self.rows("opening")), len(users) - 1)
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Double, sun control", exact=True).click()
        self.press("Delete", exact=True)
        self.page.get_by_role("alert").get_by_text("is used in").wait_for()
        self.choose("Replace everywhere by", "Double, low-e")
        self.assertNotIn(glass, [g["id"] for g in self.rows("glazing")])
        low = self.named("glazing", "Double, low-e")["id"]
        self.assertEqual(sum(o["glazing"] == low for o in self.rows("opening")), len(users) - 1)

    def test_a_blind_is_drawn_above_an_irradiance(self) -> None:
        self.stage("Fabric")
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Double, low-e").click()
        before = self.building()["cooling"]["sensible_w"]
        self.choose("Blind", "outside")
        self.fill("Lets through of the sun's heat", "20")
        after = self.building()["cooling"]["sensible_w"]
        self.assertLess(after, before)
        self.fill("Above, on the window", "1500")
        self.assertAlmostEqual(self.building()["cooling"]["sensible_w"], before, delta=1e-3 * before)
