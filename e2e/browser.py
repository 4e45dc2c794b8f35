"""A real browser before a live server, and the words in which the tests speak of the interface."""

import json
import re
from typing import Any

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import override_settings
from playwright.sync_api import Browser, Locator, Page, Playwright, sync_playwright
from playwright.sync_api import TimeoutError as PlaywrightTimeout

from accounts.demo import demo_engineer
from calculations import service
from projects import document

_ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--font-render-hinting=none",
    "--hide-scrollbars",
]
_running: dict[str, Any] = {}
HANGS_MS = 240_000  # what is not there by then, never comes; the machine may be busy with other tests


def _browser() -> Browser:
    """One browser for all tests of the process."""
    if "browser" not in _running:
        playwright: Playwright = sync_playwright().start()
        _running["browser"] = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=_ARGUMENTS)
    return _running["browser"]


@override_settings(DEMO_SIGN_IN=True)
class BrowserTest(StaticLiveServerTestCase):
    def setUp(self) -> None:
        document.forget_all()
        service.forget_all()
        self.engineer = demo_engineer()
        self.context = _browser().new_context(
            viewport={"width": 1280, "height": 800}, reduced_motion="reduce", locale="en-GB", timezone_id="UTC"
        )
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.page: Page = self.context.new_page()
        self.page.set_default_timeout(HANGS_MS)
        self.problems: list[str] = []
        self.page.on("pageerror", lambda error: self.problems.append(str(error)))
        self.page.on("console", lambda m: self.problems.append(m.text) if m.type == "error" else None)

    def tearDown(self) -> None:
        self.context.close()

    # The interface

    def open(self, path: str = "/") -> None:
        self.page.goto(self.live_server_url + path)

    def enter_as(self, name: str, password: str, page: Page | None = None) -> None:
        """Sign in at the door; what was typed before the page had loaded is typed again."""
        page = page or self.page
        page.get_by_role("button", name="Sign in", exact=True).wait_for()
        page.wait_for_load_state("load")
        for _ in range(3):
            page.get_by_label("Name", exact=True).fill(name)
            page.get_by_label("Password", exact=True).fill(password)
            page.wait_for_timeout(100)
            if page.get_by_role("button", name="Sign in", exact=True).is_enabled():
                break
        page.get_by_role("button", name="Sign in", exact=True).click()

    def stage(self, name: str) -> None:
        link = self.page.get_by_role("navigation", name="Stages").get_by_role("link", name=name)
        link.click()
        try:
            self.page.wait_for_url(f"**/{name.lower()}*", timeout=10_000)
        except PlaywrightTimeout:  # the strip moved under the pointer while counts of snags came in
            link.click()
            self.page.wait_for_url(f"**/{name.lower()}*")
        self.page.get_by_role("heading", level=1).first.wait_for()
        self.settle()

    def press(self, name: str, exact: bool = False) -> None:
        self.page.get_by_role("button", name=name, exact=exact).first.click()
        self.settle()

    def pick(self, menu: str, item: str) -> None:
        """Open a menu of things to do and do one."""
        self.page.get_by_role("button", name=menu, exact=True).first.click()
        self.page.locator(".v-overlay").get_by_text(item, exact=True).click()
        self.settle()

    def fill(self, label: str, text: str) -> None:
        field = self.page.get_by_label(label, exact=True).first
        field.fill(text)
        field.press("Enter")
        self.settle()

    def choose(self, label: str, option: str) -> None:
        self.choose_in(self.page.get_by_label(label, exact=True).first, option)

    def choose_first(self, label: str) -> None:
        """Choose whatever a list begins with."""
        field = self.page.get_by_label(label, exact=True).first
        field.focus()
        field.press("ArrowDown")
        self.page.get_by_role("option").first.click()
        self.settle()

    def slide(self, label: str, to: int) -> None:
        """Move a slider with the arrow keys."""
        thumb = self.page.get_by_role("slider", name=label)
        thumb.focus()
        by = to - round(float(thumb.get_attribute("aria-valuenow") or 0))
        for _ in range(abs(by)):
            thumb.press("ArrowRight" if by > 0 else "ArrowLeft")
        self.settle()

    def choose_in(self, field: Locator, option: str) -> None:
        """Choose from the list of a field: open it, find what is meant, press it."""
        field.focus()
        if field.get_attribute("inputmode") == "none":
            field.press("ArrowDown")
        else:
            field.fill(option)
        self.page.get_by_role("option", name=option, exact=True).first.click()
        self.settle()

    def settle(self) -> None:
        """Wait until nothing is under way."""
        self.page.wait_for_timeout(60)
        self.page.locator("[role=status]", has_text="calculated in").wait_for(state="attached")

    def cell(self, grid: str, row: int, column: str) -> Locator:
        """A grid's cell by row number (0 is the first) and column key."""
        rows = self.page.get_by_role("grid", name=grid, exact=True).locator("[role=rowgroup] [role=row]")
        return rows.nth(row).locator(f"[data-column={column}]")

    def type_cell(self, grid: str, row: int, column: str, text: str) -> None:
        """Type into a cell as into a spreadsheet: choose it, type, Enter."""
        self.cell(grid, row, column).click()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self.settle()

    def choose_cell(self, grid: str, row: int, column: str, option: str) -> None:
        self.cell(grid, row, column).click()
        self.page.keyboard.press("Enter")
        self.page.locator(".cell .editor input:not([type=hidden])").fill(option)
        self.page.locator(".v-overlay").get_by_role("option", name=option, exact=True).first.click()
        self.settle()

    # What the server holds

    @property
    def project(self) -> str:
        return self.page.url.split("/")[3]

    def fetch(self, path: str) -> Any:
        answer = self.page.request.get(f"{self.live_server_url}/api/projects/{self.project}/{path}")
        return json.loads(answer.text())

    def results(self) -> dict[str, dict[str, Any]]:
        return self.fetch("results")["changed"]

    @staticmethod
    def number(text: str) -> float:
        """The last figure in a text: a changed one shows its old value first."""
        plain = text.replace("\u2009", "").replace("−", "-")
        return float(re.findall(r"-?\d+(?:\.\d+)?", plain)[-1])
