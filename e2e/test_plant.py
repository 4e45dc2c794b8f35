"""Boilers, chillers and what follows from the water's temperatures."""

import csv
import io

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Plant(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.circuits = {row["name"]: row["id"] for row in self.fetch("document")["objects"]["circuit"]}

    def test_two_boilers_sized_shared_and_pinned(self) -> None:
        self.stage("Water")
        self.press("Plant", exact=True)
        heating = self.circuits["Heating"]
        before = self.results()["plant"][heating]
        # 60 % + 60 % of the design load: with one out 60 % are left.
        self.assertAlmostEqual(before["working_w"] / before["design_w"], 1.2, places=6)
        self.assertAlmostEqual(before["without_largest_w"] / before["design_w"], 0.6, places=6)
        self.assertIn(f"largest_unit_out/{heating}", self.results()["snag"])
        for row in (0, 1):
            self.type_cell("Units", row, "share", "100")
        after = self.results()
        self.assertAlmostEqual(after["plant"][heating]["without_largest_w"], before["design_w"], delta=1.0)
        self.assertNotIn(f"largest_unit_out/{heating}", after["snag"])
        # A pin stands beside the share; both are seen.
        self.type_cell("Units", 0, "capacity_w", "50")
        units = self.results()["plant"][heating]["units"]
        self.assertIn(50_000.0, [unit["capacity_w"] for unit in units.values()])
        self.assertEqual(self.problems, [])
        # 10 W is no boiler: refused by name, with the range in the units shown.
        self.type_cell("Units", 0, "capacity_w", "0.01")
        self.page.keyboard.press("ArrowUp")
        self.page.get_by_text("at least 0.1").first.wait_for()

    def test_water_temperatures_move_radiators_pump_and_pipes(self) -> None:
        self.stage("Water")
        before = self.results()
        self.press("Settings", exact=True)
        self.fill("Return temperature", "35")
        after = self.results()
        heating = self.circuits["Heating"]
        # Twice the drop: half the flow; a colder mean: larger radiators, by the logarithmic mean now.
        ratio = after["circuit"][heating]["pump"]["flow_m3_s"] / before["circuit"][heating]["pump"]["flow_m3_s"]
        self.assertAlmostEqual(ratio, 0.5, delta=0.01)
        room, emitter = next((r, e) for r, e in before["emitter"].items() if e["duty_w"] > 500.0)
        self.assertEqual((emitter["rule"], after["emitter"][room]["rule"]), ("arithmetic", "logarithmic"))
        self.assertGreater(after["emitter"][room]["rating_w"], emitter["rating_w"])
        self.assertGreater(after["emitter"][room]["chosen_w"], 0.0)
        self.assertLess(after["circuit"][heating]["water_content_m3"], before["circuit"][heating]["water_content_m3"])
        self.press("Emitters", exact=True)
        self.page.get_by_role("grid", name="Emitters").get_by_text("logarithmic").first.wait_for()
        self.assertEqual(self.problems, [])

    def test_fittings_by_kind_count_in_loss_and_kit(self) -> None:
        self.stage("Water")
        self.press("Pipes", exact=True)
        grid = self.page.get_by_role("grid", name="Sections")
        grid.locator("[role=rowgroup] [role=row]").first.locator("[data-column=name]").click()
        section = self.fetch("document")["objects"]["pipe_section"]
        name = self.cell("Sections", 0, "name").inner_text().strip()
        root = next(row["id"] for row in section if row["name"] == name)
        before = self.results()["pipe_section"][root]
        self.press("Fittings …")
        self.press("Add fitting")
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_role("table", name="Fittings").wait_for()
        self.fill("Count of Elbow 90°, standard", "4")
        after = self.results()["pipe_section"][root]
        dynamic = before["fitting_loss_pa"] / next(row["loss_coefficient"] for row in section if row["id"] == root)
        self.assertAlmostEqual(after["loss_pa"] - before["loss_pa"], 4 * after["coefficients"][0] * dynamic, delta=0.01)
        # The engineer's own figure in the table's place, and back by emptying it.
        self.fill("Coefficient of Elbow 90°, standard", "0.9")
        self.assertEqual(self.results()["pipe_section"][root]["coefficients"], [0.9])
        self.fill("Coefficient of Elbow 90°, standard", "")
        self.assertEqual(self.results()["pipe_section"][root]["coefficients"], after["coefficients"])
        dialog.get_by_role("button", name="Close").click()
        lines = [item for item in self.results()["kit"].values() if item["item"] == "Elbow 90°, standard"]
        self.assertEqual([line["duty"] for line in lines], [4.0])
        self.assertEqual(self.problems, [])

    def test_a_pinned_pump_contradicts_and_is_freed(self) -> None:
        self.stage("Water")
        self.press("Pumps", exact=True)
        heating = self.circuits["Heating"]
        free = self.results()["circuit"][heating]["pump"]
        self.fill("Pinned head", "20")
        pinned = self.results()["circuit"][heating]["pump"]
        self.assertEqual(pinned["head_pa"], 20_000.0)
        self.assertLess(pinned["open_share"], 1.0)
        self.page.get_by_role("heading", name="Heating").click()
        self.page.keyboard.press("s")
        self.page.get_by_role("region", name="Snags").get_by_text("pinned at 20.0 kPa").wait_for()
        self.page.keyboard.press("Escape")
        self.fill("Pinned head", "")
        self.choose("Pumps run at", "proportional pressure")
        self.choose("Motor's class", "IE4")
        after = self.results()["circuit"][heating]["pump"]
        self.assertEqual(after["head_pa"], free["head_pa"])
        rows = self.page.get_by_role("table", name="Part load").locator("tbody tr")
        self.assertEqual(rows.count(), 4)
        quarter = self.number(rows.first.locator("td").last.inner_text())
        self.assertAlmostEqual(quarter, after["part_loads"][0]["electrical_w"], delta=0.6)
        self.assertLess(quarter, 0.35 * after["electrical_w"])
        self.assertEqual(self.problems, [])

    def test_another_catalogue_of_pumps_and_the_kit_read_back(self) -> None:
        self.stage("Kit")
        self.press("Catalogue", exact=True)
        for name, text in (
            ("ours.csv", "item;name;flow L/s;pressure kPa\npump;Rill 4;4;45\npump;Rill 9;9;90\n"),
            ("theirs.csv", "item;name;flow L/s;pressure kPa\npump;Weir 50;50;200\n"),
        ):
            self.page.get_by_label("Catalogue", exact=True).first.set_input_files(
                {"name": name, "mimeType": "text/csv", "buffer": text.encode()}
            )
            self.page.get_by_role("grid", name="Catalogue").get_by_text(
                name[0] == "o" and "Rill 9" or "Weir 50"
            ).wait_for()
            self.settle()
            first = text.split("\n")[1].split(";")[1]
            pumps = [item for item in self.results()["kit"].values() if item["item"].startswith("Pump")]
            self.assertEqual(len(pumps), 3)
            self.assertIn(first, {item["size"] for item in pumps})
        # A row of one's own, typed.
        self.press("Boilers", exact=True)
        self.press("Add row", exact=True)
        self.type_cell("Catalogue", 0, "name", "Kiln side 200")
        self.type_cell("Catalogue", 0, "output_w", "200")
        self.settle()
        told = list(
            csv.DictReader(
                io.StringIO(self.page.request.get(f"{self.live_server_url}/api/projects/{self.project}/kit.csv").text())
            )
        )
        sizes = {line["item"].split(",")[0]: line["size"] for line in told if line["size"]}
        self.assertEqual((sizes["Pump"], sizes["Boiler"]), ("Weir 50", "Kiln side 200"))
        # A row for every line of every account.
        kit = self.results()["kit"].values()
        self.assertEqual(len(told), sum(len(item["account"]) for item in kit))
        self.assertEqual({line["tag"] for line in told}, {item["tag"] for item in kit})
        self.assertEqual(self.problems, [])

    def test_made_up_products_to_try_the_catalogue_with(self) -> None:
        self.stage("Kit")
        self.press("Catalogue", exact=True)
        self.press("Made-up products", exact=True)
        self.page.get_by_role("grid", name="Catalogue").get_by_text("Fellbeck FP 0.2/25").wait_for()
        self.settle()
        pumps = [item["size"] for item in self.results()["kit"].values() if item["item"].startswith("Pump, flow")]
        self.assertTrue(all(size.startswith("Fellbeck") for size in pumps) and pumps, pumps)
        self.press("Pipes", exact=True)
        self.page.get_by_role("grid", name="Catalogue").get_by_text("Sallow 16 × 2").wait_for()
        self.stage("Water")
        self.press("Settings", exact=True)
        self.choose("Pipes of", "the catalogue's pipes")
        sizes = {item["size"] for item in self.results()["kit"].values() if item["item"].startswith("Catalogue pipe")}
        self.assertTrue(sizes)
        self.assertTrue(all(size.startswith("Sallow") for size in sizes), sizes)
        self.assertEqual(self.problems, [])

    def test_copper_and_glycol_change_sizes_and_pump(self) -> None:
        self.stage("Water")
        self.press("Settings", exact=True)
        heating = self.circuits["Heating"]
        before = self.results()
        self.choose("Pipes of", "copper")
        self.choose("Filled with", "water and propylene glycol")
        self.fill("Glycol by mass", "40")
        after = self.results()
        sizes = {row["size"] for row in after["pipe_section"].values()} - {
            row["size"] for row in before["pipe_section"].values()
        }
        self.assertTrue(all("×" in size for size in sizes) and sizes, sizes)
        pumps = [found["circuit"][heating]["pump"]["flow_m3_s"] for found in (before, after)]
        self.assertGreater(pumps[1], 1.02 * pumps[0])
        # More than the polynomials are for is refused by its label, with the range.
        self.fill("Glycol by mass", "90")
        self.page.get_by_text("at most 60").first.wait_for()

    def test_a_chiller_explains_what_it_takes(self) -> None:
        self.stage("Water")
        self.press("Chilled water")
        self.press("Plant", exact=True)
        self.cell("Units", 0, "taken").click()
        working = self.page.get_by_role("complementary", name="Working")
        working.get_by_text("Air-cooled chiller").first.wait_for()
        chilled = self.results()["plant"][self.circuits["Chilled water"]]
        (unit,) = chilled["units"].values()
        # At 34 °C outdoors and full load between 4.3 at 20 and 2.9 at 35 °C.
        self.assertLess(abs(unit["output_w"] / unit["taken_w"] - 2.98), 0.06)
        self.assertEqual(self.problems, [])

    def test_a_water_cooled_chiller_with_its_tower(self) -> None:
        self.stage("Water")
        chilled = self.circuits["Chilled water"]
        self.page.get_by_role("navigation", name="Circuits").get_by_text("Chilled water").click()
        self.press("Plant", exact=True)
        self.pick("Add a unit", "water-cooled chiller")
        self.type_cell("Units", 1, "share", "100")
        self.cell("Units", 0, "name").click()
        self.press("Remove", exact=True)
        plant = self.results()["plant"][chilled]
        cooler = plant["cooler"]
        shown = self.page.locator("[data-test=heat-rejected]")
        shown.wait_for()
        self.assertIn(f"{cooler['heat_w'] / 1000.0:.1f}"[:-2], shown.inner_text().replace("\u2009", ""))
        # Its Working leads to the approach, which is set where the circuit is.
        shown.get_by_role("button").first.click()
        working = self.page.get_by_role("complementary", name="Working")
        working.get_by_role("button", name="Water to the chillers").click()
        working.locator(".node", has_text="Approach").last.get_by_role("button", name="own").click()
        field = self.page.get_by_label("Approach at design", exact=True).first
        self.page.wait_for_function("() => document.activeElement?.tagName === 'INPUT'")
        self.assertTrue(field.evaluate("(box) => box === document.activeElement"))
        self.fill("Approach at design", "7")
        after = self.results()["plant"][chilled]
        self.assertAlmostEqual(after["cooler"]["cold_c"] - cooler["cold_c"], 3.0, places=6)
        unit = next(iter(after["units"].values()))
        # Warmer water: the chiller takes more, and more is rejected.
        self.assertGreater(unit["taken_w"], next(iter(plant["units"].values()))["taken_w"])
        self.assertGreater(after["cooler"]["heat_w"], cooler["heat_w"])
        kit = {row["tag"]: row for row in self.results()["kit"].values()}
        self.assertAlmostEqual(kit["Chilled water CT"]["duty"], after["cooler"]["heat_w"])
        self.assertEqual(self.problems, [])

    def test_a_heat_pump_from_the_ground_that_cools_too(self) -> None:
        """Its source is told and counted, its other side shares its time; both stand in Working, kit and year."""
        self.stage("Water")
        heating, chilled = self.circuits["Heating"], self.circuits["Chilled water"]
        self.press("Plant", exact=True)
        self.pick("Add a unit", "ground heat pump")
        self.type_cell("Units", 2, "source_cold_c", "2")
        units = {row["name"]: row for row in self.fetch("document")["objects"]["plant_unit"]}
        self.assertEqual(units["Ground heat pump 3"]["source_cold_c"], 2.0)
        tags = {row["tag"] for row in self.results()["kit"].values()}
        self.assertIn("Heating Ground heat pump 3 GR", tags)
        # A source that is warmest when it is coldest is refused by the labels of both.
        self.type_cell("Units", 2, "source_warm_c", "-3")
        self.page.get_by_text("Source, warmest").first.wait_for()
        self.page.keyboard.press("Escape")
        # An air-source one, and the chiller as its other side.
        self.pick("Add a unit", "heat pump")
        pump = {r["name"]: r["id"] for r in self.fetch("document")["objects"]["plant_unit"]}["Heat pump 4"]
        self.page.get_by_role("navigation", name="Circuits").get_by_text("Chilled water").click()
        self.choose_cell("Units", 0, "reverses", "Heating: Heat pump 4")
        cold = next(r for r in self.fetch("document")["objects"]["plant_unit"] if r["circuit"] == chilled)
        self.assertEqual(cold["reverses"], pump)
        results = self.results()
        self.assertIn(pump, results["plant"][heating]["units"])
        items = {row["tag"]: row["item"] for row in results["kit"].values()}
        self.assertIn("The same machine as Heating Heat pump 4", items[f"Chilled water {cold['name']}"])
        self.assertEqual([p for p in self.problems if "422" not in p], [])

    def test_boilers_of_their_own_feed_the_heating_through_an_exchanger(self) -> None:
        """A circuit of boilers at 80/60 °C; the heating hangs on it, first mixed, then through an exchanger, with a pipe of its own."""
        self.stage("Water")
        heating = self.circuits["Heating"]
        before = self.results()["plant"][heating]
        nav = self.page.get_by_role("navigation", name="Water circuits")
        self.press("+ heating")
        self.press("Settings", exact=True)
        self.fill("Name", "Boiler house")
        self.fill("Flow temperature", "80")
        self.fill("Return temperature", "60")
        self.press("Plant", exact=True)
        self.pick("Add a unit", "boiler")
        self.type_cell("Units", 0, "share", "100")
        nav.get_by_text("Heating").first.click()
        # A circuit has one source: its own boilers are a fault until they are gone.
        self.press("Settings", exact=True)
        self.choose("Fed by", "Boiler house")
        self.press("Plant", exact=True)
        for _ in range(2):
            self.cell("Units", 0, "name").click()
            self.press("Remove", exact=True)
        self.page.get_by_text("Boiler house feeds this circuit").wait_for()
        house = next(r["id"] for r in self.fetch("document")["objects"]["circuit"] if r["name"] == "Boiler house")
        after = self.results()
        self.assertNotIn(heating, after["plant"])
        self.assertAlmostEqual(after["plant"][house]["peak_w"] / before["peak_w"], 1.0, places=6)
        feed = after["feed"][heating]
        self.assertAlmostEqual(feed["share"], 10.0 / 35.0, places=6)
        # Through an exchanger the water comes back warmer by its approach, and more of it is needed.
        self.press("Settings", exact=True)
        self.choose("Connected", "through a heat exchanger")
        self.fill("Exchanger's approach", "5")
        through = self.results()["feed"][heating]
        self.assertAlmostEqual(through["return_c"], 50.0)
        self.assertAlmostEqual(through["source_flow_m3_s"] / feed["source_flow_m3_s"], 35.0 / 30.0, delta=0.01)
        told = self.page.locator("[data-test=feed]")
        told.get_by_role("button").first.click()
        working = self.page.get_by_role("complementary", name="Working")
        working.get_by_text("what it takes of Boiler house").wait_for()
        # A pipe of the boiler house to it carries that flow.
        nav.get_by_text("Boiler house").click()
        self.press("Pipes", exact=True)
        self.press("Add a pipe for 1 end without one")
        pump = self.results()["circuit"][house]["pump"]
        self.assertAlmostEqual(pump["flow_m3_s"] / through["source_flow_m3_s"], 1.0, delta=0.06)  # with its margin
        self.assertIn("Heating HX", {row["tag"] for row in self.results()["kit"].values()})
        # The circle is refused, and what was there stays.
        self.press("Settings", exact=True)
        self.choose("Fed by", "Heating")
        self.page.get_by_text("would come after itself").first.wait_for()
        row = next(r for r in self.fetch("document")["objects"]["circuit"] if r["id"] == house)
        self.assertIsNone(row["source"])

    def test_heating_stops_in_mild_weather_and_goes_by_a_schedule(self) -> None:
        heating = self.circuits["Heating"]
        self.stage("Water")
        self.press("Settings", exact=True)
        self.fill("Stops at, outdoors", "15")
        stopped = self.results()["circuit"][heating]["stopped_w"]
        self.assertGreater(stopped, 1000.0)
        self.assertIn(f"circuit_stopped/{heating}", self.results()["snag"])
        # What is asked and not given says where it comes from.
        self.page.get_by_text("are asked of it while it does not run").get_by_role("button").first.click()
        working = self.page.get_by_role("complementary", name="Working")
        working.get_by_text("asked while it does not run").first.wait_for()
        working.get_by_text("Stops at, outdoors").first.wait_for()
        # Limits that cross are refused by their names, and what was there stays.
        self.fill("Starts at, outdoors", "18")
        self.page.get_by_text("must not be above").first.wait_for()
        row = next(r for r in self.fetch("document")["objects"]["circuit"] if r["id"] == heating)
        self.assertEqual((row["starts_c"], row["stops_c"]), (None, 15.0))
        self.choose("Flow temperature goes", "by a schedule")
        self.page.get_by_label("Flows at", exact=True).first.wait_for()

    def test_refrigerant_in_the_cold_store(self) -> None:
        self.stage("Water")
        circuit = self.circuits["Cold store refrigerant"]
        self.page.get_by_role("navigation", name="Water circuits").get_by_text("Cold store refrigerant").click()
        self.page.get_by_text("refrigerant at").first.wait_for()
        self.assertEqual(self.page.get_by_role("button", name="Pumps", exact=True).count(), 0)
        before = self.results()
        self.press("Settings", exact=True)
        # Warmer than the coil can use: the store's air comes warmer than asked, which a snag tells.
        self.fill("Flow temperature", "-3")
        after = self.results()
        self.assertTrue([key for key in after["snag"] if key.startswith("coil_below_water/")])
        self.assertFalse([key for key in before["snag"] if key.startswith("coil_below_water/")])
        self.assertLess(after["plant"][circuit]["peak_w"], before["plant"][circuit]["peak_w"])
        self.assertEqual(self.problems, [])

    def test_reverse_return_brings_paths_together(self) -> None:
        self.stage("Water")
        heating = self.circuits["Heating"]

        def spread() -> float:
            pipes = self.fetch("document")["objects"]["pipe_section"]
            ends = {row["id"] for row in pipes if row["circuit"] == heating and row["room"]}
            found = self.results()["pipe_section"]
            return max(found[end]["balancing_pa"] for end in ends)

        before = spread()
        self.press("Settings", exact=True)
        self.choose("Return", "reverse, along the mains")
        self.assertLess(spread(), before)
        self.press("Pipes", exact=True)
        self.page.get_by_role("columnheader", name="return").first.wait_for()
        self.assertEqual(self.problems, [])

    def test_heated_floors_and_the_water_that_they_need(self) -> None:
        self.stage("Water")
        self.press("Settings", exact=True)
        self.choose("Heats its rooms by", "heated floors")
        floors = self.results()["floor"]
        self.assertFalse(self.results().get("emitter"))
        room, floor = next((r, f) for r, f in floors.items() if f["duty_w"] > 500.0)
        # Closer pipes under a bare floor give more, from colder water.
        self.fill("Pipes apart", "100")
        self.fill("Covering of the floor", "0.02")
        after = self.results()["floor"][room]
        self.assertGreater(after["k_w_m2k"], 1.2 * floor["k_w_m2k"])
        self.assertLess(after["needed_flow_c"], floor["needed_flow_c"])
        self.assertAlmostEqual(after["pipe_m"], after["area_m2"] / 0.1, places=6)
        self.press("Emitters", exact=True)
        self.page.get_by_role("columnheader", name="needs flow of").wait_for()
        # Beyond the tables it is refused, with the range.
        self.press("Settings", exact=True)
        self.fill("Pipes apart", "900")
        self.page.get_by_text("at most 375").first.wait_for()
        self.assertEqual([p for p in self.problems if "422" not in p], [])
