"""A variable-volume system from nothing with the keyboard; a snag of cooling and reheating, mended; a coil's peak followed to its inputs."""

from typing import Any

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest

ROOMS = ("0.02", "0.05", "1.03")


class AirSystem(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.rooms = {r["number"]: r["id"] for r in self.fetch("document")["objects"]["room"]}
        self.stage("Air")

    def made(self) -> str:
        """A new system with three rooms; its id."""
        before = {row["id"] for row in self.fetch("document")["objects"]["air_system"]}
        self.page.get_by_role("button", name="+ air system").focus()
        self.page.keyboard.press("Enter")
        self.settle()
        found = next(row["id"] for row in self.fetch("document")["objects"]["air_system"] if row["id"] not in before)
        self.press("Terminals", exact=True)
        numbers = self.page.get_by_role("grid", name="Terminals").locator("[data-column=number]").all_inner_texts()
        for number in ROOMS:
            self.cell("Terminals", numbers.index(number), "served").click()
            self.page.keyboard.press("Enter")
            self.settle()
        return str(found)

    def test_variable_volume_from_nothing(self) -> None:
        system = self.made()
        plain = self.results()["air_system"][system]
        self.press("Settings", exact=True)
        self.fill("Name", "AHU-9 workshops")
        self.choose("Air volume", "variable")
        self.choose("Economizer", "colder than return")
        self.fill("Heat recovered", "75")
        self.fill("Moisture recovered", "60")
        told = self.results()["air_system"][system]
        # The fan carries what flows at one time, never the sum of the rooms' own peaks.
        flows = [self.results()["airflow"][self.rooms[number]]["design_m3_s"] for number in ROOMS]
        self.assertLessEqual(told["flow_m3_s"], sum(flows) * 1.0001)
        self.assertLess(told["fan"]["flow_m3_s"], plain["fan"]["flow_m3_s"] * 1.0001)
        self.assertGreater(told["winter"]["recovered_w"], 500.0)
        self.assertLess(told["winter"]["duty_w"], plain["winter"]["duty_w"])
        self.press("Ducts", exact=True)
        self.press("Add a branch for 3 ends without one")
        ducts = [row for row in self.fetch("document")["objects"]["duct_section"] if row["air_system"] == system]
        self.assertEqual(len([row for row in ducts if row["room"]]), 3)
        sized = self.results()
        ends = sum(sized["duct_section"][row["id"]]["flow_m3_s"] for row in ducts if row["room"])
        self.assertAlmostEqual(ends, sum(flows), places=4)
        self.assertGreater(sized["air_system"][system]["fan"]["static_pa"], told["fan"]["static_pa"])
        self.page.get_by_role("navigation", name="Air systems").get_by_text("AHU-9 workshops").wait_for()
        self.assertEqual(self.problems, [])

    def test_cooling_and_reheating_is_a_snag_and_is_mended(self) -> None:
        system = self.made()
        self.press("Settings", exact=True)
        self.fill("Name", "AHU-9")
        self.choose("Air volume", "variable")
        self.fill("Least flow of a terminal", "100")
        snag = f"reheat_large/{system}"
        self.assertIn(snag, self.results()["snag"])
        self.page.get_by_title("Snags (S)").click()
        self.page.get_by_text("AHU-9: its terminals reheat up to").wait_for()
        self.page.get_by_role("button", name="Go there: smaller least flows").click()
        self.page.get_by_role("heading", name="AHU-9", exact=True).wait_for()
        self.press("Settings", exact=True)
        self.fill("Least flow of a terminal", "20")
        before, after = self.results()["air_system"][system], None
        if snag in self.results()["snag"]:
            # What ventilation keeps of the least flow is reheated by less than a third of the coil, or the supply is made warmer.
            self.choose("Supply temperature", "as the rooms ask")
            self.choose("Air volume", "constant")
            self.fill("Coldest supply air", "16")
        after = self.results()
        self.assertNotIn(snag, after["snag"])
        self.assertLessEqual(after["air_system"][system]["reheat_w"], before["reheat_w"] * 1.0001)
        self.assertEqual(self.problems, [])

    def test_a_coils_peak_leads_to_its_inputs(self) -> None:
        self.press("Path", exact=True)
        peak = self.page.locator("[data-test=coil-total]")
        shown = self.number(peak.inner_text())
        peak.get_by_role("button").first.click()
        working = self.page.get_by_role("complementary", name="Working")
        working.get_by_text("Cooling coil").first.wait_for()
        name = self.page.get_by_role("heading", level=1).first.inner_text()
        system = next(row for row in self.fetch("document")["objects"]["air_system"] if row["name"] == name)
        self.assertAlmostEqual(shown, self.results()["air_system"][system["id"]]["coil_total_w"] / 1000.0, places=1)
        self.assertIn("Dry-air flow", working.inner_text())
        self.assertEqual(self.problems, [])

    def test_parts_are_added_moved_and_removed_on_the_path(self) -> None:
        system = self.made()
        self.press("Path", exact=True)
        path = self.page.get_by_role("group", name="Air path from outdoors to the rooms and back")

        def kinds() -> list[str]:
            rows = self.fetch("document")["objects"]["air_system"]
            return [part["kind"] for part in next(row["parts"] for row in rows if row["id"] == system)]

        def part(name: str) -> Any:
            return path.get_by_role("button", name=f"{name}, ")

        self.assertEqual(kinds(), ["filter", "heating coil", "cooling coil", "fan", "other"])
        before = self.results()["air_system"][system]
        # With the keyboard: the fan goes before the cooling coil; the coil has to take its warmth off all the same.
        part("fan").focus()
        self.page.keyboard.press("Alt+ArrowLeft")
        self.settle()
        self.assertEqual(kinds(), ["filter", "heating coil", "fan", "cooling coil", "other"])
        self.assertEqual(self.page.evaluate("document.activeElement.getAttribute('aria-label')")[:4], "fan,")
        # Nothing warms the air behind the coil now: it leaves it as it reaches the rooms.
        day = self.fetch(f"air/{system}?month=7")
        coil = day["parts"][3]["temperature_c"]
        self.assertLess(
            max(abs(a - b) for a, b in zip(coil, day["points"]["supply"]["temperature_c"], strict=True)), 1e-3
        )
        self.page.keyboard.press("Alt+ArrowRight")
        self.settle()
        self.assertEqual(kinds()[2:4], ["cooling coil", "fan"])
        # A second filter behind the first, with a drop of its own: the fan carries it.
        part("filter").press("Enter")
        self.press("Add a part")
        self.page.locator(".v-overlay--active").get_by_text("filter", exact=True).click()
        self.settle()
        self.fill("Pressure drop", "120")
        self.assertEqual(kinds()[:2], ["filter", "filter"])
        after = self.results()["air_system"][system]
        self.assertAlmostEqual(after["fan"]["total_pa"], before["fan"]["total_pa"] + 120.0, places=3)
        # Dragged by the mouse to the end, then removed by its key.
        box, end = part("filter").nth(1).bounding_box(), part("anything else").bounding_box()
        assert box and end
        self.page.mouse.move(box["x"] + 20, box["y"] + 20)
        self.page.mouse.down()
        self.page.mouse.move(end["x"] + end["width"] + 15, end["y"] + 20, steps=6)
        self.page.mouse.up()
        self.settle()
        self.assertEqual(kinds(), ["filter", "heating coil", "cooling coil", "fan", "other", "filter"])
        part("filter").nth(1).press("Delete")
        self.settle()
        self.assertEqual(kinds(), ["filter", "heating coil", "cooling coil", "fan", "other"])
        self.assertEqual(self.problems, [])
        # What no unit can have is refused with the reason, and nothing changes.
        part("fan").press("Delete")
        self.page.get_by_text("one supply fan").wait_for()
        self.assertEqual(kinds()[3], "fan")
        self.assertIn("422", self.problems[0])

    def test_rows_of_a_coil_and_terminals_of_their_own_kind(self) -> None:
        """A coil's rows are seen, pinned too few, told as a snag; one terminal stays constant."""
        self.stage("Air")
        self.page.get_by_role("navigation", name="Air systems").get_by_text("AHU-1 workshops").click()
        self.settle()
        systems = {row["name"]: row["id"] for row in self.fetch("document")["objects"]["air_system"]}
        ahu = systems["AHU-1 workshops"]

        def cooling() -> Any:
            return next(c for c in self.results()["air_system"][ahu]["coils"] if c["kind"] == "cooling coil")

        path = self.page.get_by_role("group", name="Air path from outdoors to the rooms and back")
        part = path.get_by_role("button", name="cooling coil, ")
        part.focus()
        part.press("Enter")
        before = cooling()
        told = self.page.locator("[data-test=coil-size]")
        told.get_by_text(f"{before['rows']} rows sized").wait_for()
        self.fill("Rows", "2")
        after = cooling()
        self.assertEqual((after["rows"], after["pinned"]), (2, True))
        self.assertLess(after["capacity_w"], before["duty_w"])
        snags = self.results()["snag"]
        self.assertLessEqual({f"coil_too_small/{ahu}", f"rows_against_bypass/{ahu}"}, set(snags))
        self.assertEqual(self.problems, [])
        self.fill("Rows", "40")
        self.page.get_by_text("at most 12").first.wait_for()
        self.press("Terminals", exact=True)
        flows = {i: f for i, f in self.results()["airflow"].items() if f["system"] == ahu and "/" not in i}
        varies = min(flows, key=lambda i: flows[i]["least_kg_s"] / flows[i]["largest_kg_s"])
        self.assertLess(flows[varies]["least_kg_s"], 0.8 * flows[varies]["largest_kg_s"])
        room = next(r for r in self.fetch("document")["objects"]["room"] if r["id"] == varies)
        row = next(i for i in range(28) if self.cell("Terminals", i, "number").inner_text().strip() == room["number"])
        self.choose_cell("Terminals", row, "terminal_flow", "constant")
        airflow = self.results()["airflow"][room["id"]]
        self.assertGreater(airflow["least_kg_s"], 0.95 * airflow["largest_kg_s"])

    def test_return_and_outdoor_ducts_beside_the_supply(self) -> None:
        system = self.made()
        self.press("Ducts", exact=True)
        self.press("Return", exact=True)
        self.press("Add a branch for 3 ends without one")
        told = self.results()["air_system"][system]
        run = told["networks"]["return"]
        self.assertGreater(run["loss_pa"], 30.0)
        # The supply fan draws the air back as long as no fan stands in the return.
        self.page.get_by_text("index run").first.wait_for()
        before = told["fan"]["total_pa"]
        self.press("Outdoor air", exact=True)
        self.press("Add a louvre duct for 1 end without one")
        self.cell("Sections", 1, "length_m").wait_for()
        self.type_cell("Sections", 1, "end_drop_pa", "400")
        after = self.results()["air_system"][system]
        grown = after["networks"]["outdoor"]["loss_pa"] - run["loss_pa"]
        self.assertAlmostEqual(after["fan"]["total_pa"] - before, grown, delta=0.5)
        self.press("Settings", exact=True)
        self.fill("Return fan, total pressure", "5")
        snag = self.results()["snag"][f"return_fan_short/{system}"]
        self.assertIn("its return fan gives 5 Pa", snag["sentence"])
        self.press("Path", exact=True)
        self.page.get_by_role("button", name="Supply fan").or_(
            self.page.get_by_text("Supply fan, static")
        ).first.wait_for()
        self.assertEqual(self.problems, [])

    def test_sets_for_zones_have_duties_of_their_own(self) -> None:
        systems = self.fetch("document")["objects"]["air_system"]
        system = next(row["id"] for row in systems if row["name"] == "AHU-2 gallery")
        whole = self.results()["air_system"][system]
        rooms = [row for row in self.fetch("document")["objects"]["room"] if row["air_system"] == system]
        self.page.get_by_role("navigation", name="Air systems").get_by_text("AHU-2 gallery").click()
        self.press("Settings", exact=True)
        self.choose("Sets of equipment", "one for each zone")
        self.page.wait_for_function("() => !document.querySelector('[data-test=coil-total]')")
        zones = {row["zone"] or "none" for row in rooms}
        told = {key: row for key, row in self.results()["air_system"].items() if key.startswith(f"{system}~")}
        self.assertEqual(set(told), {f"{system}~{zone}" for zone in zones})
        # Each carries its own rooms: no two share a flow, and together they move what one moved, for constant volume.
        self.assertAlmostEqual(sum(row["flow_m3_s"] for row in told.values()), whole["flow_m3_s"], places=3)
        self.press("Path", exact=True)
        self.page.locator("[data-test=coil-total]").wait_for()
        self.page.wait_for_function("() => /[0-9]/.test(document.querySelector('.states')?.textContent ?? '')")
        self.assertEqual(self.problems, [])
