"""Two windows on one project: each sees what the other does, and neither overwrites it; a lost connection loses nothing."""

from playwright.sync_api import Page

from demo.tarnwick import load_tarnwick
from e2e.browser import HANGS_MS, BrowserTest


class TwoWindows(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.stage("Rooms")
        self.other: Page = self.context.new_page()
        self.other.set_default_timeout(HANGS_MS)
        self.other.goto(self.page.url)
        self.sheet(self.other).wait_for()

    @staticmethod
    def sheet(page: Page):
        return page.get_by_role("grid", name="Rooms", exact=True)

    def name_of(self, page: Page, row: int):
        return self.sheet(page).locator("[role=rowgroup] [role=row]").nth(row).locator("[data-column=name]")

    def type_name(self, page: Page, row: int, text: str) -> None:
        self.name_of(page, row).click()
        page.keyboard.type(text)
        page.keyboard.press("Enter")

    def saved(self, number: str) -> str:
        return next(room["name"] for room in self.fetch("document")["objects"]["room"] if room["number"] == number)

    def test_an_edit_arrives_in_the_other_window(self) -> None:
        self.type_name(self.page, 0, "Great foyer")
        self.name_of(self.other, 0).get_by_text("Great foyer").wait_for()
        # The window that is behind edits another room: both stand, in both windows.
        self.type_name(self.other, 1, "Corner shop")
        self.name_of(self.page, 1).get_by_text("Corner shop").wait_for()
        self.assertEqual((self.saved("0.01"), self.saved("0.02")), ("Great foyer", "Corner shop"))

    def test_the_same_field_in_both_is_asked(self) -> None:
        # The other window hears of nothing for a while.
        self.other.route("**/since?*", lambda route: route.abort())
        self.type_name(self.page, 0, "Hall of one")
        self.settle()
        self.type_name(self.other, 0, "Hall of two")
        self.other.unroute("**/since?*")
        dialog = self.other.get_by_role("dialog")
        dialog.get_by_text("Changed by somebody else meanwhile").wait_for()
        dialog.get_by_label("Theirs: Hall of one").wait_for()
        self.assertEqual(self.saved("0.01"), "Hall of one")
        dialog.get_by_label("Yours: Hall of two").check()
        dialog.get_by_role("button", name="Save this choice").click()
        self.name_of(self.page, 0).get_by_text("Hall of two").wait_for()
        self.assertEqual(self.saved("0.01"), "Hall of two")

    def test_a_lost_connection_is_told_and_the_edit_is_sent_again(self) -> None:
        self.problems.clear()
        self.context.set_offline(True)
        self.type_name(self.page, 0, "Kept foyer")
        state = self.page.locator(".state")
        state.get_by_text("no connection, 1 edit kept").wait_for()
        self.context.set_offline(False)
        state.get_by_text("calculated in").wait_for()
        self.assertEqual(self.saved("0.01"), "Kept foyer")

    def test_an_answer_that_was_lost_is_not_done_twice(self) -> None:
        """The server saves, and the answer never comes: the edit that is sent again is the same one."""
        lost = []

        def lose(route):
            if not lost:
                lost.append(route.fetch().status)
                route.abort()
            else:
                route.continue_()

        self.page.route("**/changes", lose)
        before = self.fetch("document")["version"]
        self.type_name(self.page, 0, "Once foyer")
        self.page.wait_for_timeout(1500)
        self.settle()
        found = self.fetch("document")
        self.assertEqual((lost, found["version"], self.saved("0.01")), ([200], before + 1, "Once foyer"))
        self.assertEqual(found["steps"]["undo"], "Room: Room")


class Addresses(BrowserTest):
    """The chosen room, the page of a stage, the hour: back, reload and a sent link return to them."""

    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads*")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def choose(self, number: str) -> None:
        self.page.get_by_role("listbox", name="Rooms").get_by_text(number, exact=True).first.click()
        self.settle()

    def test_back_reload_and_a_sent_link(self) -> None:
        self.choose("0.06")
        self.page.get_by_text("Breakdown of 0.06 Wood shop").wait_for()
        self.choose("1.01")
        self.page.get_by_text("Breakdown of 1.01 Gallery").wait_for()
        self.page.go_back()
        self.page.get_by_text("Breakdown of 0.06 Wood shop").wait_for()
        self.page.keyboard.press("]")
        self.page.wait_for_url("**hour=*-91*")
        link = self.page.url
        self.page.reload()
        self.page.get_by_text("Breakdown of 0.06 Wood shop").wait_for()
        fresh = self.context.new_page()
        fresh.goto(link)
        fresh.get_by_text("Breakdown of 0.06 Wood shop").wait_for()
        self.assertIn("hour=", fresh.url)
        self.stage("Rooms")
        self.press("Plan", exact=True)
        self.page.wait_for_url("**page=plan*")
        self.page.reload()
        self.page.get_by_role("button", name="Plan", exact=True).and_(
            self.page.locator("[aria-pressed=true]")
        ).wait_for()

    def test_the_list_at_a_narrow_width_can_be_closed(self) -> None:
        self.page.set_viewport_size({"width": 1000, "height": 700})
        roll = self.page.get_by_role("listbox", name="Rooms")
        roll.wait_for(state="hidden")
        self.page.get_by_role("button", name="List of rooms").click()
        roll.wait_for()
        self.page.keyboard.press("Escape")
        roll.wait_for(state="hidden")

    def test_the_grid_keeps_the_keys(self) -> None:
        """Ctrl+End and pages down: letters typed then go into the grid, not to the page's commands."""
        self.stage("Rooms")
        grid = self.page.get_by_role("grid", name="Rooms", exact=True)
        grid.locator("[role=rowgroup] [role=row]").first.locator("[data-column=name]").click()
        for key in ("Control+End", "Control+Home", "Control+ArrowDown", "PageUp", "PageDown", "PageDown", "PageDown"):
            self.page.keyboard.press(key)
            inside = "document.activeElement.closest('[role=grid]') !== null"
            self.page.wait_for_function(inside)
