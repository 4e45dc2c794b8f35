"""Set-points by the hour, and plants that fall short: done with mouse and keyboard, read on the screen."""

import re

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Thermostats(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def use(self, name: str) -> None:
        self.stage("Uses")
        self.page.get_by_role("navigation", name="Uses", exact=True).get_by_role(
            "button", name=re.compile(f"^{name}")
        ).click()
        self.settle()

    def select(self, number: str) -> str:
        self.stage("Loads")
        self.page.get_by_role("grid", name="Loads", exact=True).get_by_text(number, exact=True).click()
        self.settle()
        return next(room["id"] for room in self.fetch("document")["objects"]["room"] if room["number"] == number)

    def test_a_night_setback_and_its_warm_up(self) -> None:
        before = self.results()["room"][self.select("0.02")]["heating_w"]
        self.use("Shop")
        self.choose("Heating outside them", "set back")
        self.page.get_by_text("Choose which hours the set-points hold").wait_for()
        self.choose("These hold", "Open hours")
        self.fill("Set back to", "14")
        self.fill("Warm-up", "2")
        room = self.select("0.02")
        self.press("Heating", exact=True)
        text = self.page.locator("[data-test=warm-up]").inner_text()
        held, extra, coldest = (self.number(part) for part in (text.split("hold")[0], text.split("are")[0], text))
        found = self.results()["room"][room]
        self.assertAlmostEqual(held + extra, found["heating_w"] / 1000, delta=0.011)
        self.assertAlmostEqual(held, before / 1000, delta=0.006)
        self.assertGreater(extra, 0.1)
        self.assertGreaterEqual(coldest, 14.0)
        self.press("Temperatures")
        self.page.get_by_text("heating set-point").wait_for()
        self.page.keyboard.press("Control+z")
        self.settle()
        self.assertLess(extra, found["heating_w"] / 1000)

    def test_a_follower_falls_short(self) -> None:
        self.stage("Rooms")
        self.press("Thermostat", exact=True)
        numbers = [
            row["number"] for row in sorted(self.fetch("document")["objects"]["room"], key=lambda r: r["number"])
        ]
        self.choose_cell("Rooms", numbers.index("0.10"), "sensor_room", "0.11 Dye room")
        self.type_cell("Rooms", numbers.index("0.10"), "cooling_capacity_w", "2")
        room = self.select("0.10")
        text = self.page.locator("[data-test=too-warm]").inner_text()
        missed = self.results()["room"][room]["control"]["too_warm"]
        self.assertAlmostEqual(self.number(text.split("too warm")[0]), missed["kelvin"], delta=0.06)
        self.assertGreater(missed["kelvin"], 0.5)
        self.page.get_by_text("Led by the sensor of 0.11 Dye room").wait_for()
        self.page.keyboard.press("s")
        self.page.get_by_text("0.10 Machine bay, led by the sensor of 0.11 Dye room").wait_for()
