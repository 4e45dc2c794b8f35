"""Nothing that hinders anybody: axe on every stage and page of it, by day and by night, whatever the severity."""

from axe_playwright_python.sync_playwright import DEFAULT_OPTIONS, Axe

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest

# Pages of a stage by the names of their toggles, or of things in its list.
TOGGLES = {
    "Place": ("Site and sun", "Ground", "Weather file", "Choices"),
    "Rooms": ("Plan", "Shared values"),
    "Loads": ("Heating",),
    "Air": ("Terminals", "Ducts", "Settings"),
    "Water": ("Emitters", "Pumps", "Plant", "Settings"),
    "Kit": ("Prices", "Catalogue"),
    "Compare": ("Differences", "Sweep"),
    "Year": ("Rooms", "Hours", "Bills"),
}
LISTED = {
    "Fabric": ("Materials", "Envelope", "Brick, insulated cavity", "Double, low-e"),
    "Air": ("Air balance of rooms",),
}
STAGES = ("Place", "Fabric", "Schedules", "Uses", "Rooms", "Loads", "Air", "Water", "Kit", "Year", "Compare", "Issue")


class Accessible(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.axe = Axe()
        self.found: list[str] = []
        self.options: dict[str, object] = dict(DEFAULT_OPTIONS)

    def look(self, where: str) -> None:
        self.page.wait_for_timeout(150)
        for fault in self.axe.run(self.page, options=self.options).response["violations"]:
            nodes = [node["html"][:110] for node in fault["nodes"][:2]]
            self.found.append(f"{where}: {fault['impact']} {fault['id']}: {nodes}")

    def walk(self) -> None:
        for stage in STAGES:
            self.stage(stage)
            self.look(stage)
            for name in TOGGLES.get(stage, ()):
                button = self.page.get_by_role("button", name=name, exact=True).first
                if button.count():
                    button.click()
                    self.settle()
                    self.look(f"{stage}, {name}")
            for name in LISTED.get(stage, ()):
                self.page.locator("nav").get_by_text(name, exact=True).first.click()
                self.look(f"{stage}, {name}")
        self.assertEqual(self.found, [])

    def test_by_day(self) -> None:
        self.walk()

    def test_by_night(self) -> None:
        """The night has other colours and nothing else."""
        self.options["runOnly"] = ["color-contrast"]
        self.page.get_by_title("Night drawing").click()
        self.walk()
