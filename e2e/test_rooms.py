"""Rooms by the sheet and by the plan, with mouse, keyboard and clipboard."""

from openpyxl import load_workbook

from demo.tarnwick import load_tarnwick
from demo.trial import load_trial
from e2e.browser import BrowserTest


class Sheet(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_trial(self.engineer, 100)
        self.open()
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.stage("Rooms")

    def rooms(self) -> list[dict]:
        found = self.fetch("document")["objects"]["room"]
        return sorted(found, key=lambda row: [int(p) if p.isdigit() else p for p in row["number"].split(".")])

    def test_a_paste_says_what_it_left_out(self) -> None:
        """Three rows onto the last one: one is taken, and the rest is said; a comma that may be two things is asked about."""
        self.page.evaluate("text => navigator.clipboard.writeText(text)", "11\n12\n13")
        self.cell("Rooms", 0, "floor_area_m2").click()
        self.page.keyboard.press("Control+End")
        last = self.page.locator('[role="grid"][aria-label="Rooms"] [data-cell^="99/"][data-column="floor_area_m2"]')
        last.click()
        self.page.keyboard.press("Control+v")
        self.settle()
        self.assertIn("2 cells beyond the last row", self.page.get_by_role("alert").first.text_content() or "")
        self.assertEqual(self.rooms()[-1]["floor_area_m2"], 11)
        self.page.keyboard.press("ArrowUp")
        self.page.get_by_text("beyond the last row").wait_for(state="hidden")
        self.page.keyboard.type("1,200")
        self.page.keyboard.press("Enter")
        self.settle()
        fault = self.page.locator('[data-cell^="98/"][data-column="floor_area_m2"]').get_attribute("title") or ""
        self.assertIn("may be 1200 or 1.200", fault)

    def test_a_level_that_is_not_there_is_made_from_the_cell(self) -> None:
        self.page.evaluate("text => navigator.clipboard.writeText(text)", "Attic\nAttic")
        self.cell("Rooms", 0, "level").click()
        self.page.keyboard.press("Control+v")
        self.settle()
        levels = {row["name"] for row in self.fetch("document")["objects"]["level"]}
        self.assertNotIn("Attic", levels)
        self.page.get_by_role("button", name="Make the level “Attic”").first.click()
        self.page.get_by_role("button", name="Make the level “Attic”").first.wait_for(state="detached")
        self.settle()
        made = [row["id"] for row in self.fetch("document")["objects"]["level"] if row["name"] == "Attic"]
        self.assertEqual(len(made), 1)
        self.assertEqual([row["level"] for row in self.rooms()[:2]], made * 2)

    def test_a_block_from_the_clipboard(self) -> None:
        """40 rows × 6 columns with two cells that cannot be taken: those say why, the rest is there, one undo takes it back."""
        self.press("Thermostat", exact=True)
        before = self.rooms()
        lines = [[f"{15 + i * 0.1:.1f}", "28.5", "3", "1.5", "4.2", "3.1"] for i in range(40)]
        lines[4][2], lines[7][0] = "soon", "900"
        text = "\r\n".join("\t".join(line) for line in lines)
        self.page.evaluate("text => navigator.clipboard.writeText(text)", text)
        self.cell("Rooms", 0, "heating_setback_c").click()
        self.page.keyboard.press("Control+v")
        self.page.wait_for_timeout(300)
        self.settle()
        rooms = self.rooms()
        self.assertEqual([r["heating_setback_c"] for r in rooms[:4]], [15.0, 15.1, 15.2, 15.3])
        self.assertEqual(rooms[39]["cooling_capacity_w"], 3100.0)
        self.assertIsNone(rooms[4]["warm_up_h"])
        self.assertIsNone(rooms[7]["heating_setback_c"])
        self.assertEqual(rooms[40]["cooling_setup_c"], None)
        self.cell("Rooms", 4, "warm_up_h").click()
        self.page.get_by_text("“soon” is not a number").wait_for()
        self.cell("Rooms", 7, "heating_setback_c").click()
        self.page.get_by_text("at most 40").wait_for()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(self.rooms(), before)

    def test_fill_down_many_at_once_and_step_back(self) -> None:
        self.press("Gains", exact=True)
        self.type_cell("Rooms", 0, "lights_w_m2", "7.5")
        self.cell("Rooms", 0, "lights_w_m2").click()
        for _ in range(9):
            self.page.keyboard.press("Shift+ArrowDown")
        self.page.get_by_text("10 × 1 cells").wait_for()
        self.page.keyboard.press("Control+d")
        self.settle()
        self.assertEqual([r["lights_w_m2"] for r in self.rooms()[:11]], [7.5] * 10 + [None])
        # A whole column: one figure for a hundred rooms.
        self.page.keyboard.press("Control+Space")
        self.page.keyboard.type("6")
        self.page.get_by_text("all 100 cells").wait_for()
        self.page.keyboard.press("Control+Enter")
        self.page.wait_for_timeout(200)
        self.settle()
        self.assertEqual({r["lights_w_m2"] for r in self.rooms()}, {6.0})
        self.press("Inherit again")
        self.page.wait_for_timeout(200)
        self.settle()
        self.assertEqual({r["lights_w_m2"] for r in self.rooms()}, {None})
        for _ in range(2):
            self.page.keyboard.press("Control+z")
            self.settle()
        self.assertEqual([r["lights_w_m2"] for r in self.rooms()[:11]], [7.5] * 10 + [None])

    def test_copy_order_filter_and_a_value_for_all(self) -> None:
        self.press("Gains", exact=True)
        self.cell("Rooms", 0, "number").click()
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.keyboard.press("Shift+ArrowDown")
        self.page.keyboard.press("Control+c")
        copied = self.page.evaluate("navigator.clipboard.readText()")
        rooms = self.rooms()
        self.assertEqual(copied.split("\n")[1].split("\t"), [rooms[1]["number"], rooms[1]["name"]])
        self.page.get_by_role("columnheader", name="Cooling").get_by_role("button").first.click()
        self.page.get_by_role("columnheader", name="Cooling").get_by_role("button").first.click()
        loads = {key: r["cooling"]["sensible_w"] for key, r in self.results()["room"].items()}
        largest = max(rooms, key=lambda row: loads[row["id"]])
        self.assertEqual(self.cell("Rooms", 0, "number").inner_text(), largest["number"])
        self.page.get_by_label("Filter the sheet").fill(largest["number"])
        self.page.get_by_text("1 of 100 rooms").wait_for()
        self.type_cell("Rooms", 0, "equipment_w_m2", "17")
        self.page.get_by_role("button", name="Give it to all").click()
        self.settle()
        self.assertEqual({r["equipment_w_m2"] for r in self.rooms()}, {None})
        effective = {e["equipment_w_m2"][0] for e in self.results()["effective"].values()}
        self.assertEqual(effective, {17.0})

    def test_shared_values_and_where_a_room_takes_them_from(self) -> None:
        objects = self.fetch("document")["objects"]
        self.assertEqual(len(objects["use"]), 1)
        self.press("Shared values")
        self.type_cell("Shared values", 0, "warm_up_h", "5")
        cell = self.cell("Shared values", 1 + len(objects["level"]), "warm_up_h")
        self.assertNotIn("inherited", cell.get_attribute("class") or "")
        cell.click()
        self.page.keyboard.press("Delete")
        self.settle()
        self.assertEqual(cell.inner_text(), "5.0")
        self.assertIn("inherited", cell.get_attribute("class") or "")
        self.assertIsNone(self.fetch("document")["objects"]["use"][0]["warm_up_h"])
        self.press("Sheet", exact=True)
        self.press("Thermostat", exact=True)
        self.type_cell("Rooms", 0, "warm_up_h", "6")
        self.page.get_by_role("button", name="rooms of the building").click()
        self.settle()
        effective = {tuple(e["warm_up_h"]) for e in self.results()["effective"].values()}
        self.assertEqual(effective, {(6.0, "project")})


class Plan(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.stage("Rooms")
        self.press("Plan", exact=True)

    def objects(self) -> dict:
        return self.fetch("document")["objects"]

    def room(self, number: str) -> dict:
        return next(r for r in self.objects()["room"] if r["number"] == number)

    def areas(self, room: str) -> dict[str, float]:
        return {s["plan_key"]: s["area_m2"] for s in self.objects()["surface"] if s["room"] == room}

    def test_three_rooms_on_a_new_level(self) -> None:
        """Two by mouse, one typed: walls, neighbours, roofs and loads as they must be."""
        self.press("Add level")
        self.press("Level 2", exact=True)
        self.fill("height", "3")
        self.choose("Grid", "1.00 m")
        self.choose("Use of new rooms", "Dry workshop")
        self.press("Rectangle", exact=True)
        box = self.page.get_by_label("Plan", exact=True).bounding_box()
        middle = [box["x"] + 260, box["y"] + 200]
        for i in range(2):
            self.page.mouse.move(middle[0] + 120 * i, middle[1])
            self.page.mouse.down()
            self.page.mouse.move(middle[0] + 120 * (i + 1), middle[1] - 90, steps=4)
            self.page.mouse.up()
            self.settle()
        level = next(row for row in self.objects()["level"] if row["name"] == "Level 2")["id"]
        one, two = (r for r in self.objects()["room"] if r["level"] == level)
        first = sorted(one["outline_m"])
        width, depth = first[-1][0] - first[0][0], first[1][1] - first[0][1]
        self.assertEqual(one["floor_area_m2"], round(width * depth, 3))
        self.assertEqual(width, round(width))
        beside = f"inner_wall/{two['id']}/90"
        self.assertEqual(self.areas(one["id"])[beside], 3 * depth)
        self.assertEqual(self.areas(two["id"])[f"inner_wall/{one['id']}/270"], 3 * depth)
        self.assertEqual(self.areas(one["id"])["roof"], round(width * depth, 3))
        # The third one by keyboard, above the two.
        for label, value in (("left", first[0][0]), ("lower", first[-1][1]), ("width", 2 * width), ("depth", 4)):
            self.fill(label, str(value))
        self.press("Draw it")
        three = next(r for r in self.objects()["room"] if r["level"] == level and r["id"] not in (one["id"], two["id"]))
        self.assertEqual(self.areas(three["id"])[f"inner_wall/{one['id']}/180"], 3 * width)
        self.assertEqual(self.areas(three["id"])["outer_wall//0"], 6 * width)
        self.assertNotIn("outer_wall//0", self.areas(one["id"]))
        for room in (one, two, three):
            self.assertGreater(self.results()["room"][room["id"]]["heating_w"], 0.0)

    def test_a_wall_between_rooms_is_moved_split_and_joined(self) -> None:
        before = self.room("0.02")["floor_area_m2"], self.room("0.03")["floor_area_m2"]
        self.page.get_by_role("button", name="Room 0.02 Shop").focus()
        self.page.keyboard.press("Enter")
        self.settle()
        self.fill("Corner 2, x", str(self.room("0.02")["outline_m"][1][0]))
        wall = self.page.locator("line.side").nth(1).bounding_box()
        x, y = wall["x"] + wall["width"] / 2, wall["y"] + wall["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y, steps=5)
        self.page.mouse.up()
        self.settle()
        after = self.room("0.02")["floor_area_m2"], self.room("0.03")["floor_area_m2"]
        self.assertGreater(after[0], before[0] + 1.0)
        self.assertAlmostEqual(sum(after), sum(before), places=2)
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual((self.room("0.02")["floor_area_m2"], self.room("0.03")["floor_area_m2"]), before)
        count = len(self.objects()["room"])
        self.press("Split", exact=True)
        shop = self.page.get_by_role("button", name="Room 0.02 Shop").bounding_box()
        self.page.mouse.move(shop["x"] - 20, shop["y"] + shop["height"] / 2)
        self.page.mouse.down()
        self.page.mouse.move(shop["x"] + shop["width"] + 20, shop["y"] + shop["height"] / 2, steps=4)
        self.page.mouse.up()
        self.settle()
        self.assertEqual(len(self.objects()["room"]), count + 1)
        self.press("Choose", exact=True)
        self.page.get_by_role("button", name="Room 0.02 Shop").click()
        self.page.get_by_role("button", name="Room 0.02b Shop").click(modifiers=["Shift"])
        self.press("Join", exact=True)
        self.assertEqual(len(self.objects()["room"]), count)
        self.assertAlmostEqual(self.room("0.02")["floor_area_m2"], before[0], places=2)

    def test_colours_by_the_hour(self) -> None:
        self.choose("Colour by", "air at the hour")
        self.page.wait_for_timeout(300)
        shown = self.page.locator("text.name", has_text="0.02").text_content() or ""
        room = self.room("0.02")["id"]
        at = self.fetch("hour?month=7&step=90")[room]["air_c"]
        self.assertIn(f"{at:.1f}", shown)


class FilesAndProjects(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def rooms(self) -> dict[str, dict]:
        return {room["number"]: room for room in self.fetch("document")["objects"]["room"]}

    def test_a_workbook_with_five_changes_and_two_faults(self) -> None:
        """Downloaded, changed, read again: four of the five changes taken in one step, and undone in one."""
        self.stage("Rooms")
        with self.page.expect_download() as waiting:
            self.press("Export rooms")
            self.page.get_by_role("listitem").get_by_text("XLSX").click()
        path = waiting.value.path()
        book = load_workbook(path.open("rb"))
        sheet = book["Rooms"]
        head = {str(cell.value).split(" [")[0]: cell.column for cell in sheet[1]}
        row = {str(sheet.cell(i, 1).value): i for i in range(2, sheet.max_row + 1)}
        for number, title, value in (
            ("0.02", "Lights", 21), ("0.03", "Heated to", 18.5), ("0.05", "Name", "Glazing"), ("0.06", "Occupied", False),
            ("0.07", "Floor area", 99), ("0.10", "Use", "Swimming"), ("0.11", "People", "many"),
        ):  # fmt: skip
            sheet.cell(row[number], head[title]).value = value
        changed = path.with_suffix(".changed.xlsx")
        book.save(changed)
        before = self.rooms()
        self.press("Import …")
        self.page.get_by_label("File with rooms").set_input_files(changed)
        dialog = self.page.get_by_role("dialog", name="Rooms from a file")
        dialog.get_by_role("button", name="6 changed").wait_for()
        dialog.get_by_role("button", name="1 refused").wait_for()
        dialog.get_by_text(
            "Uses that the project lacks are made with ordinary values, to be looked at: Swimming."
        ).wait_for()
        dialog.get_by_text("People 'many': a number is needed").wait_for()
        self.page.get_by_label("Take 0.07 Passage").uncheck()
        self.page.get_by_label("Take 0.10 Machine bay").uncheck()
        dialog.get_by_role("button", name="Take 4 rooms").click()
        dialog.wait_for(state="detached")
        self.settle()
        after = self.rooms()
        self.assertEqual(after["0.02"]["lights_w_m2"], 21.0)
        self.assertEqual(after["0.03"]["heating_setpoint_c"], 18.5)
        self.assertEqual(after["0.05"]["name"], "Glazing")
        self.assertFalse(after["0.06"]["occupied"])
        self.assertEqual(after["0.07"], before["0.07"])
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertEqual(self.rooms(), before)

    def test_a_project_copied_put_away_and_brought_back(self) -> None:
        self.press("Tarnwick Craft Hall")
        self.page.get_by_text("All projects …").click()
        dialog = self.page.get_by_role("dialog", name="All projects")
        dialog.get_by_role("button", name="Copy").click()
        copy = dialog.get_by_role("listitem").filter(has_text="Tarnwick Craft Hall, copy")
        copy.get_by_role("button", name="Delete").click()
        dialog.get_by_text("Deleted", exact=True).wait_for()
        copy.get_by_role("button", name="Bring back").click()
        with self.page.expect_download() as waiting:
            copy.get_by_role("link", name="Download").click()
        self.assertEqual(waiting.value.suggested_filename, "Tarnwick Craft Hall, copy.json")
        dialog.get_by_label("Project file").set_input_files(waiting.value.path())
        self.page.wait_for_timeout(1500)
        self.assertEqual(dialog.get_by_role("listitem").filter(has_text="Hall, copy").count(), 2)
        copy.first.get_by_role("button", name="Open").click()
        self.page.get_by_role("button", name="Tarnwick Craft Hall, copy").wait_for()
