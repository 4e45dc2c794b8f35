"""Reports in the running app: parts chosen, seen, issued, changed, issued again."""

import hashlib
from pathlib import Path

from demo.tarnwick import load_tarnwick
from e2e.browser import BrowserTest


class Issue(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        load_tarnwick(self.engineer)
        self.open()
        self.page.wait_for_url("**/loads")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()

    def issue(self, purpose: str, number: int) -> None:
        self.page.get_by_label("For", exact=True).fill(purpose)
        self.page.get_by_role("button", name="Issue", exact=True).click()
        self.page.get_by_label(f"Issue {number}", exact=True).wait_for()

    def test_chosen_seen_issued_changed_and_issued_again(self) -> None:
        self.stage("Issue")
        for part in ("Basis of design", "Snags"):
            self.page.get_by_label(part, exact=True).uncheck()
        self.page.get_by_label("Kit list", exact=True).check()
        sheets = self.page.frame_locator("iframe[title='Report, as pages']")
        sheets.get_by_role("heading", name="Kit list").wait_for()
        self.assertEqual(sheets.get_by_role("heading", name="Basis of design").count(), 0)
        building = self.results()["group"]["building"]
        sheets.get_by_text(f"{building['cooling']['sensible_w'] / 1e3:.2f}", exact=True).first.wait_for()
        self.issue("For comment", 1)
        files = self.page.get_by_label("Files of issue 1")
        with self.page.expect_download() as saved:
            files.get_by_role("link", name="PDF").click()
        data = Path(saved.value.path()).read_bytes()
        self.assertTrue(data.startswith(b"%PDF"))
        files.get_by_text(hashlib.sha256(data).hexdigest()).wait_for()
        # A change, seen in the pages of the next issue before it is made, and in it.
        self.stage("Rooms")
        self.type_cell("Rooms", 0, "floor_area_m2", "99")
        self.stage("Issue")
        sheets.get_by_role("heading", name="Changes since issue 1").wait_for()
        sheets.get_by_text("What is entered differently").wait_for()
        self.issue("For tender", 2)
        self.assertEqual([one["number"] for one in self.fetch("issues")], [2, 1])
        self.assertEqual(self.fetch("issues")[1]["files"]["report.pdf"]["sha256"], hashlib.sha256(data).hexdigest())
        self.assertEqual(self.problems, [])
