"""Several people: signing in, a reader who cannot edit, edits that arrive, history with its ways back."""

from django.contrib.auth import get_user_model
from django.test import override_settings

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest

PASSWORD = "a long enough phrase 7"


@override_settings(DEMO_SIGN_IN=False)
class People(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        make = get_user_model().objects.create_user
        self.owner, self.other = make("Edda", password=PASSWORD), make("Rasmus", password=PASSWORD)
        self.hall = load_tarnwick(self.owner).id

    def sign_in(self, name: str, password: str = PASSWORD) -> None:
        self.enter_as(name, password)

    def menu(self, item: str) -> None:
        self.page.get_by_title("Projects", exact=True).click()
        self.page.get_by_role("listitem").or_(self.page.locator(".v-list-item")).filter(has_text=item).first.click()

    def test_shared_read_only_and_raised(self) -> None:
        self.open("/")
        self.sign_in("Edda", "wrong wrong wrong")
        self.page.get_by_text("Name or password is wrong").wait_for()
        self.sign_in("Edda")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.menu("People of this project")
        self.page.get_by_label("Account or mail address").fill("Rasmus")
        self.choose_in(self.page.get_by_label("Role", exact=True).first, "reads")
        self.page.get_by_role("button", name="Add", exact=True).click()
        self.page.get_by_label("People", exact=True).get_by_text("Rasmus").wait_for()
        self.page.get_by_role("button", name="Close", exact=True).click()
        self.menu("Sign out Edda")
        self.page.get_by_role("button", name="Sign in").wait_for()
        self.sign_in("Rasmus")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.page.get_by_text("read only").wait_for()
        self.stage("Rooms")
        self.type_cell("Rooms", 0, "floor_area_m2", "99")
        self.page.keyboard.press("ArrowUp")
        self.page.get_by_text("You may read").first.wait_for()
        area = next(row for row in self.fetch("document")["objects"]["room"] if row["number"] == "0.01")[
            "floor_area_m2"
        ]
        self.assertNotEqual(area, 99.0)

    def test_history_takes_back_and_brings_back(self) -> None:
        self.open("/")
        self.sign_in("Edda")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.problems.clear()  # that nobody was signed in yet is told by a refusal
        self.stage("Rooms")
        before = next(row for row in self.fetch("document")["objects"]["room"] if row["number"] == "0.01")[
            "floor_area_m2"
        ]
        self.type_cell("Rooms", 0, "floor_area_m2", "99")
        self.type_cell("Rooms", 1, "floor_area_m2", "88")
        self.menu("History")
        entries = self.page.get_by_label("Changes", exact=True).locator(".v-list-item")
        entries.nth(1).click()
        table = self.page.get_by_label("What it changed")
        table.get_by_text(f"{before:g}", exact=True).wait_for()
        self.page.get_by_role("button", name="Take back this change").click()
        self.page.get_by_text("Taken back").first.wait_for()
        areas = {row["number"]: row["floor_area_m2"] for row in self.fetch("document")["objects"]["room"]}
        self.assertEqual((areas["0.01"], areas["0.02"]), (before, 88.0))
        # The whole state from before both.
        entries.nth(3).click()
        self.page.get_by_role("button", name="Bring back the state after it").click()
        self.page.get_by_text("As it was at version").first.wait_for()
        areas = {row["number"]: row["floor_area_m2"] for row in self.fetch("document")["objects"]["room"]}
        self.assertNotEqual(areas["0.02"], 88.0)
        self.assertEqual(self.problems, [])
