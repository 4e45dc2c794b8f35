"""Schedules, Uses and things that several places share, by mouse and keyboard, with the numbers they lead to."""

import re
import tempfile
from pathlib import Path

from e2e.definitions import Definitions


class SchedulePages(Definitions):
    def open_schedule(self, name: str) -> None:
        self.stage("Schedules")
        self.page.get_by_role("navigation", name="Schedules").get_by_role(
            "button", name=re.compile(f"^{name}")
        ).first.click()

    def test_skyline_is_painted_with_the_pointer(self) -> None:
        self.open_schedule("Machines")
        skyline = self.page.get_by_role("img", name="Skyline: sweep to paint")
        box = skyline.bounding_box()
        assert box
        y = box["y"] + box["height"] * (10 + 0.5 * 158) / 178
        self.page.mouse.move(box["x"] + box["width"] * 2.5 / 24, y)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + box["width"] * 4.5 / 24, y, steps=8)
        self.page.mouse.up()
        self.settle()
        line = self.page.get_by_label("Pattern as one line").input_value()
        self.assertIn("02–05 50", line)
        self.page.get_by_role("button", name="later").click()
        self.settle()
        self.assertIn("03–06 50", self.page.get_by_label("Pattern as one line").input_value())

    def test_chosen_hours_move_alone_and_are_taken_from_another_schedule(self) -> None:
        self.open_schedule("Machines")
        line = self.page.get_by_label("Pattern as one line")
        line.fill("00–08 0 · 08–10 80 · 10–24 20")
        line.press("Enter")
        self.settle()
        ribbon = self.page.get_by_role("application", name="Ribbon of hours")
        ribbon.focus()
        self.page.keyboard.press("Home")
        for _ in range(8):
            self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.keyboard.press("Alt+ArrowRight")
        self.settle()
        self.assertEqual(line.input_value(), "00–09 0 · 09–11 80 · 11–24 20")
        self.assertIn("09:00 to 11:00", self.page.locator("[data-test=told]").inner_text())
        over = self.page.get_by_label("Lay another pattern over")
        over.focus()
        over.fill("Weekday")
        self.page.get_by_role("option").first.click()
        self.settle()
        self.page.get_by_text("laid over:").wait_for()
        other = next(
            pattern["steps"]
            for row in self.rows("schedule")
            for pattern in row["patterns"]
            if self.page.get_by_text(f"laid over: {row['name']}, {pattern['name']}", exact=True).count()
        )
        ribbon.focus()
        self.page.keyboard.press("m")
        self.settle()
        mine = self.named("schedule", "Machines")["patterns"][0]["steps"]
        at = lambda steps, minute: next(v for until, v in steps if until > minute)  # noqa: E731
        for minute in range(0, 1440, 10):
            kept = 0 if minute < 540 else 0.2
            self.assertAlmostEqual(at(mine, minute), at(other, minute) if 540 <= minute < 660 else kept)

    def test_year_plan_is_painted_and_looked_up(self) -> None:
        self.open_schedule("Workshop day")
        strip = self.page.get_by_role("application", name="Calendar of the year")
        self.page.get_by_role("group", name="Pattern to paint with").get_by_role("button", name="Weekend").click()
        cells = strip.locator("g > rect")
        first, last = cells.nth(213).bounding_box(), cells.nth(234).bounding_box()  # 2 to 23 August
        assert first and last
        self.page.mouse.move(first["x"] + 4, first["y"] + 4)
        self.page.mouse.down()
        self.page.mouse.move(last["x"] + 4, last["y"] + 4, steps=5)
        self.page.mouse.up()
        self.settle()
        row = self.named("schedule", "Workshop day")
        weekend = next(p["id"] for p in row["patterns"] if p["name"] == "Weekend")
        self.assertEqual(row["rules"][-1]["pattern"], weekend)
        days = self.results()["schedule"][row["id"]]["days"]
        place = [p["id"] for p in row["patterns"]].index(weekend)
        self.assertEqual({days[213], days[220], days[227]}, {place})
        self.fill("Day looked at", "15")
        self.choose("Month looked at", "Mar")
        self.page.get_by_label("Time looked at").fill("11:00")
        value = next(v for until, v in row["patterns"][0]["steps"] if until > 660)
        self.assertAlmostEqual(
            self.number(self.page.locator("[data-test=look-up]").inner_text().replace("%", "")), 100 * value, delta=0.01
        )
        self.page.get_by_role("button", name="Remove rule 2").click()
        self.settle()
        self.assertEqual(len(self.named("schedule", "Workshop day")["rules"]), 1)

    def test_temperatures_from_the_shelf_in_both_unit_systems(self) -> None:
        self.stage("Schedules")
        self.press("from the shelf")
        self.page.get_by_role("dialog").get_by_role("option", name="Unheated attic").click()
        self.settle()
        self.press("Done")
        line = self.page.get_by_label("Pattern as one line")
        self.assertTrue(line.input_value().startswith("00–08 22 · 08–12 30"))
        self.press("+ 0.5")
        self.assertTrue(line.input_value().startswith("00–08 22.5"))
        self.press("IP", exact=True)
        self.assertTrue(line.input_value().startswith("00–08 72.5"))
        line.fill("00–12 68 · 12–24 77")
        line.press("Enter")
        self.settle()
        row = self.named("schedule", "Unheated attic, summer")
        self.assertEqual([[u, round(v, 6)] for u, v in row["patterns"][0]["steps"]], [[720, 20], [1440, 25]])

    def test_a_pasted_row_and_values_from_a_file(self) -> None:
        self.open_schedule("Working hours")
        ribbon = self.page.get_by_role("application", name="Ribbon of hours")
        ribbon.focus()
        self.page.evaluate("navigator.clipboard.writeText(Array.from({length: 24}, (_, i) => i / 100).join('\\t'))")
        self.page.keyboard.press("Control+v")
        self.settle()
        self.assertEqual(len(self.named("schedule", "Working hours")["patterns"][0]["steps"]), 24)
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "row.csv"
            file.write_text("\n".join(["0"] * 12 + ["1"] * 12))
            self.page.get_by_label("Read values").set_input_files(file)
            self.settle()
            self.page.wait_for_timeout(300)
            self.assertEqual(self.named("schedule", "Working hours")["patterns"][0]["steps"], [[720, 0], [1440, 1]])
            # A year of its own for every fortnight: more patterns than there are tabs, all of them within reach.
            file.write_text("\n".join(str((hour // 24 // 14 + 1) / 30) for hour in range(8760)))
            self.page.get_by_label("Read values").set_input_files(file)
            self.settle()
            self.page.wait_for_timeout(500)
            patterns = self.named("schedule", "Working hours")["patterns"]
            self.assertEqual(len(patterns), 27)
            self.choose("More patterns", patterns[20]["name"])
            line = self.page.get_by_label("Pattern as one line")
            self.assertAlmostEqual(float(line.input_value().split()[-1]), 100 * patterns[20]["steps"][0][1], places=3)
            file.write_text("1\n2\n3")
            self.page.get_by_label("Read values").set_input_files(file)
            self.page.get_by_role("alert").get_by_text("3 numbers").wait_for()

    def test_a_second_of_the_same_name_is_refused(self) -> None:
        self.open_schedule("Machines")
        self.fill("Name", "gallery SPOTS")
        self.page.get_by_role("alert").get_by_text("another name").wait_for()
        self.assertEqual(sum(s["name"] == "Machines" for s in self.rows("schedule")), 1)


class Keys(Definitions):
    def test_lists_are_walked_by_arrows_and_each_stage_tells_its_keys(self) -> None:
        self.stage("Schedules")
        items = self.page.get_by_role("navigation", name="Schedules").locator(".item")
        items.nth(0).click()
        first = self.page.get_by_role("heading", level=1).inner_text()
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("ArrowDown")
        third = items.nth(2).inner_text().splitlines()[0]
        self.page.get_by_role("heading", level=1, name=re.compile(f"^{re.escape(third[:6])}")).wait_for()
        self.page.keyboard.press("ArrowUp")
        self.page.keyboard.press("ArrowUp")
        self.page.keyboard.press("ArrowUp")
        self.page.get_by_role("heading", level=1, name=first, exact=True).wait_for()
        self.page.keyboard.press("?")
        keys = self.page.get_by_role("table", name="Keys on schedules")
        keys.get_by_text("from the pattern laid over").wait_for()
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("g")
        self.page.keyboard.press("u")
        self.page.wait_for_url("**/uses*")
        self.page.keyboard.press("?")
        self.page.get_by_role("table", name="Keys on uses").wait_for()
        self.assertEqual(self.page.get_by_role("table", name="Keys on schedules").count(), 0)


class SharedThings(Definitions):
    """Whatever several places use asks whether a change is meant for all of them."""

    def open_in(self, stage: str, name: str) -> None:
        self.stage(stage)
        self.page.get_by_role("navigation", name=stage).get_by_role("button", name=re.compile(f"^{name}")).first.click()

    def steps(self, schedule: str) -> list:
        return self.named("schedule", schedule)["patterns"][0]["steps"]

    def test_a_change_that_is_meant_for_one_place(self) -> None:
        self.open_in("Schedules", "Workshop day")
        before, shared = self.steps("Workshop day"), self.named("schedule", "Workshop day")["id"]
        question = self.page.get_by_role("status").filter(has_text="Changed for all of")
        self.assertEqual(question.count(), 0)
        line = self.page.get_by_label("Pattern as one line")
        line.fill("00–10 0 · 10–12 55 · 12–24 0")
        line.press("Enter")
        self.settle()
        self.assertEqual(self.steps("Workshop day"), [[600, 0], [720, 0.55], [1440, 0]])
        question.get_by_text("6 places, 10 rooms").wait_for()
        self.choose("Change only for", "Kiln room, people")
        copy = self.named("schedule", "Workshop day, Kiln room")
        self.assertEqual(copy["patterns"][0]["steps"], [[600, 0], [720, 0.55], [1440, 0]])
        self.assertEqual(self.steps("Workshop day"), before)
        self.assertEqual(self.named("use", "Kiln room")["people_schedule"], copy["id"])
        self.assertEqual(self.named("use", "Wet workshop")["people_schedule"], shared)
        self.page.get_by_role("heading", level=1, name="Workshop day, Kiln room").wait_for()
        # One step of undo takes the answer back, another one the change.
        self.page.get_by_role("heading", level=1).click()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(self.named("use", "Kiln room")["people_schedule"], shared)
        self.assertEqual(self.steps("Workshop day"), [[600, 0], [720, 0.55], [1440, 0]])
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(self.steps("Workshop day"), before)

    def test_a_change_that_is_meant_for_all(self) -> None:
        self.open_in("Fabric", "Brick reveal")
        self.fill("Overhang, depth", "0.8")
        question = self.page.get_by_role("status").filter(has_text="Changed for all of")
        question.wait_for()
        # A copy for one place from the list leaves the change where it is.
        self.page.get_by_role("button", name="a copy for here").first.click()
        self.settle()
        both = [row["overhang_m"] for row in self.rows("shading") if row["name"].startswith("Brick reveal")]
        self.assertEqual(both, [0.8, 0.8])
        self.page.get_by_role("navigation", name="Fabric").get_by_text("Brick reveal", exact=True).click()
        self.fill("Overhang, depth", "0.9")
        self.press("Meant for all")
        self.assertEqual(question.count(), 0)
        self.assertEqual(self.named("shading", "Brick reveal")["overhang_m"], 0.9)

    def test_a_layer_changed_for_one_surface_brings_the_old_layers_back_elsewhere(self) -> None:
        self.open_in("Fabric", "Block wall, whole")
        wall = self.named("assembly", "Block wall, whole")["id"]
        layers = {row["id"]: row for row in self.rows("layer") if row["assembly"] == wall}
        users = [s for s in self.rows("surface") if s["assembly"] == wall]
        self.assertGreater(len(users), 1)
        self.type_cell("Layers", 0, "thickness_m", "250")
        self.choose_first("Change only for")
        self.assertEqual({row["id"]: row for row in self.rows("layer") if row["assembly"] == wall}, layers)
        # The faces of one wall moved, and no others.
        before = {user["id"] for user in users}
        moved = [s for s in self.rows("surface") if s["id"] in before and s["assembly"] != wall]
        self.assertEqual(len({frozenset((s["room"], s["neighbour"])) for s in moved}), 1)
        self.assertIn(len(moved), (1, 2))
        for other in {s["assembly"] for s in moved}:
            copied = [row["thickness_m"] for row in self.rows("layer") if row["assembly"] == other]
            self.assertIn(0.25, copied)
            self.assertEqual(len(copied), len(layers))

    def test_a_material_asks_although_enter_moves_on(self) -> None:
        self.stage("Fabric")
        self.press("Materials", exact=True)
        concrete = self.named("material", "Concrete, reinforced")
        row = sorted(m["name"] for m in self.rows("material")).index("Concrete, reinforced")
        users = [layer for layer in self.rows("layer") if layer["material"] == concrete["id"]]
        self.assertGreater(len(users), 1)
        self.type_cell("Materials", row, "conductivity_w_mk", "2.5")
        question = self.page.get_by_role("status").filter(has_text="Concrete, reinforced: changed for all of")
        question.wait_for()
        self.choose_first("Change only for")
        self.assertEqual(
            self.named("material", "Concrete, reinforced")["conductivity_w_mk"], concrete["conductivity_w_mk"]
        )
        moved = {layer["material"] for layer in self.rows("layer") if layer["id"] in {u["id"] for u in users}} - {
            concrete["id"]
        }
        (copy,) = (m for m in self.rows("material") if m["id"] in moved)
        self.assertEqual(copy["conductivity_w_mk"], 2.5)
        # One in use is not deleted either before something takes its place.
        self.cell("Materials", row, "name").click()
        self.press("Delete", exact=True)
        self.page.get_by_role("alert").get_by_text("is used in").wait_for()

    def test_a_use_with_a_slash_gets_a_copy_of_a_schedule(self) -> None:
        self.open_in("Uses", "Kiln room")
        self.fill("Name", "Kilns / glazes")
        self.open_in("Schedules", "Workshop day")
        row = self.page.get_by_role("listitem").filter(has_text="Kilns / glazes")
        row.get_by_role("button", name="a copy for here").click()
        self.settle()
        self.assertIn("Workshop day, Kilns - glazes", [s["name"] for s in self.rows("schedule")])

    def test_hours_of_set_points_are_a_use_of_a_schedule(self) -> None:
        self.open_in("Schedules", "Open hours")
        holders = [u for u in self.rows("use") if u["setpoint_schedule"] == self.named("schedule", "Open hours")["id"]]
        self.assertGreater(len(holders), 1)
        self.assertEqual(self.page.get_by_text("hours of the set-points").count(), len(holders))
        self.press("Delete", exact=True)
        self.page.get_by_role("alert").get_by_text("is used in").wait_for()
        self.press("Keep it", exact=True)
        self.assertIn("Open hours", [row["name"] for row in self.rows("schedule")])

    def test_a_kit_goes_once_the_building_has_another(self) -> None:
        self.stage("Fabric")
        self.press("Copy kit")
        first, second = (self.named("kit", name)["id"] for name in ("Craft Hall kit", "Craft Hall kit, copy"))
        self.assertEqual(self.rows("project")[0]["kit"], second)
        self.press("Delete kit")
        self.page.get_by_role("alert").get_by_text("1 place, 28 rooms").wait_for()
        self.choose("Replace everywhere by", "Craft Hall kit")
        self.assertEqual([row["id"] for row in self.rows("kit")], [first])
        self.assertEqual(self.rows("project")[0]["kit"], first)

    def test_a_use_goes_once_its_rooms_have_another(self) -> None:
        self.open_in("Uses", "Meeting")
        meeting, store = self.named("use", "Meeting")["id"], self.named("use", "Store")["id"]
        rooms = [room["id"] for room in self.rows("room") if room["use"] == meeting]
        self.press("Delete", exact=True)
        self.choose("Replace everywhere by", "Store")
        self.assertNotIn("Meeting", [row["name"] for row in self.rows("use")])
        self.assertEqual({room["use"] for room in self.rows("room") if room["id"] in rooms}, {store})


class UsePages(Definitions):
    def open_use(self, name: str) -> None:
        self.stage("Uses")
        self.page.get_by_role("navigation", name="Uses").get_by_role("button", name=re.compile(f"^{name}")).click()

    def test_basis_with_the_others_derived(self) -> None:
        self.open_use("Meeting")
        use = self.named("use", "Meeting")["id"]
        area = self.results()["use"][use]["area_m2"]
        self.choose("People entered as", "number in the room")
        self.settle()
        self.fill("People", "12")
        found = self.results()["use"][use]
        self.assertAlmostEqual(found["people_per_m2"], 12 / area)
        self.page.get_by_text("or 12.0 in").wait_for()
        self.choose("Doing", "athletics")
        self.settle()
        self.assertAlmostEqual(
            self.results()["use"][use]["person_sensible_w"] + self.results()["use"][use]["person_latent_w"], 525
        )

    def test_an_item_of_a_process(self) -> None:
        self.open_use("Dry workshop")
        before = self.building()["cooling"]["sensible_w"]
        self.press("Add item")
        self.type_cell("Items", 0, "value", "4000")
        self.type_cell("Items", 0, "vented_share", "60")
        self.type_cell("Items", 0, "latent_share", "70")
        self.cell("Items", 0, "latent_share").click()
        self.page.get_by_role("alert").get_by_text("add up to more than 1").wait_for()
        self.page.keyboard.press("Escape")
        item = self.rows("use_item")[0]
        self.assertEqual((item["value"], item["vented_share"], item["latent_share"]), (4000, 0.6, 0))
        self.assertNotEqual(self.building()["cooling"]["sensible_w"], before)

    def test_several_uses_are_tried_before_they_are_kept(self) -> None:
        self.stage("Uses")
        before = self.building()
        version = self.fetch("document")["version"]
        self.press("change several")
        then = self.page.locator("[data-test=then-heating]")
        then.wait_for()
        shown = self.number(then.inner_text().replace("kW", ""))
        self.assertLess(shown, before["heating_w"] / 1000)
        self.assertEqual(self.fetch("document")["version"], version)
        self.press("Change them")
        self.assertAlmostEqual(self.building()["heating_w"] / 1000, shown, delta=0.006)
        self.page.get_by_role("heading", level=1).first.click()
        self.page.keyboard.press("Control+z")
        self.settle()
        # Neighbours come to rest within 0.005 K: the road there leaves a trace in the last digits.
        self.assertAlmostEqual(self.building()["heating_w"], before["heating_w"], delta=1.0)

    def test_a_use_from_the_shelf_brings_its_schedules(self) -> None:
        self.stage("Uses")
        self.press("from the shelf")
        self.page.get_by_role("dialog").get_by_role("option", name="Library").click()
        self.settle()
        self.press("Done")
        use = self.named("use", "Library")
        self.assertAlmostEqual(use["air_per_person_m3_s"], 0.0025)
        self.assertAlmostEqual(use["air_per_area_m3_s_m2"], 0.0006)
        self.assertEqual(self.named("schedule", "Office, people")["id"], use["people_schedule"])
        self.slide("Hour looked at", 10)
        self.assertAlmostEqual(self.number(self.page.locator("[data-test=people-at]").inner_text()), 10.0, delta=0.05)
