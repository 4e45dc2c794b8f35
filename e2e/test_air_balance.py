"""The air balance: a hood with a make-up unit, air between rooms, a room on two systems."""

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class AirBalance(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.rooms = {r["number"]: r["id"] for r in self.fetch("document")["objects"]["room"]}

    def balance(self, number: str) -> dict[str, float]:
        return self.results()["balance"][self.rooms[number]]

    def test_a_hood_is_made_up_and_watched(self) -> None:
        """The staff room gets a hood of 200 L/s: it draws outdoor air until a make-up unit brings it."""
        self.stage("Air")
        self.press("Air balance of rooms")
        names = (
            self.page.get_by_role("grid", name="Air balance", exact=True)
            .locator("[data-column=name]")
            .all_inner_texts()
        )
        self.cell("Air balance", names.index("Staff room"), "number").click()
        self.press("Extracts and air between rooms")
        self.press("Add to 1.07 Staff room")
        extract = next(e for e in self.fetch("document")["objects"]["extract"] if e["room"] == self.rooms["1.07"])
        names = (
            self.page.get_by_role("grid", name="Extracts", exact=True).locator("[data-column=room]").all_inner_texts()
        )
        self.type_cell("Extracts", names.index("1.07 Staff room"), "flow_m3_s", "200")
        drawn = self.balance("1.07")
        self.assertAlmostEqual(drawn["leak_in_m3_s"], 0.2)
        snags = self.results()["snag"]
        self.assertIn(f"extract_without_make_up/{self.rooms['1.07']}", snags)
        # Onto the make-up unit.
        self.press("MAU-1 make-up")
        self.press("Terminals", exact=True)
        names = self.page.get_by_role("grid", name="Terminals").locator("[data-column=number]").all_inner_texts()
        self.cell("Terminals", names.index("1.07"), "served").click()
        self.page.keyboard.press("Enter")
        self.settle()
        made = self.balance("1.07")
        self.assertEqual(made["free"], "make-up supply")
        self.assertAlmostEqual(made["make_up_m3_s"], 0.2)
        self.assertAlmostEqual(made["surplus_m3_s"], 0.0)
        self.assertNotIn(f"extract_without_make_up/{self.rooms['1.07']}", self.results()["snag"])
        self.assertEqual(extract["lane"], "fan")
        self.assertEqual(self.problems, [])

    def test_a_room_on_two_systems(self) -> None:
        """The shop gets a unit of its own beside AHU-1: the unit takes what the pinned air leaves."""
        self.stage("Air")
        self.press("+ air system")
        self.press("Settings", exact=True)
        self.choose("Serves", "each room by a unit of its own")
        self.press("Terminals", exact=True)
        names = self.page.get_by_role("grid", name="Terminals").locator("[data-column=number]").all_inner_texts()
        self.cell("Terminals", names.index("0.02"), "second").click()
        self.page.keyboard.press("Enter")
        self.settle()
        shop = self.rooms["0.02"]
        self.press("AHU-1 workshops")
        self.press("Terminals", exact=True)
        self.type_cell("Terminals", names.index("0.02"), "pinned_flow_m3_s", "60")
        results = self.results()
        load = results["room"][shop]["cooling"]["sensible_w"]
        first, second = results["airflow"][shop], results["airflow"][f"{shop}/2"]
        self.assertAlmostEqual(first["design_m3_s"], 0.06)
        # About 60 L/s at 10 K, by hand.
        left = load - 0.06 / 0.84 * 1013.0 * 10.0
        self.assertLess(abs(second["served_cooling_w"] / left - 1.0), 0.08)
        self.assertEqual(self.problems, [])
