"""Reports and issues: their figures are the screen's, their files never change, hostile text stays text."""

import hashlib
import io
import re
import zipfile
from typing import Any
from unittest.mock import patch

from openpyxl import load_workbook
from pypdf import PdfReader

from demo.tarnwick import load_tarnwick
from exchange.report import pdf
from exchange.report.issue import PDF, folder_of
from projects.models import Issue
from tasks.models import Task
from tests.base import ApiTest, Small

FEW = ["cover", "summary", "rooms", "kit", "changes"]


class Issues(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = load_tarnwick(self.user).id

    def issue(self, project: str = "", **more: Any) -> dict[str, Any]:
        body = {"parts": FEW, "purpose": "For comment", **more}
        asked = self.post(f"/projects/{project or self.project}/issues", body)
        self.assertEqual(asked.status_code, 202, asked.content)
        task = self.get(f"/tasks/{asked.json()['id']}").json()
        self.assertEqual(task["state"], "done", task)
        return self.get(f"/projects/{self.project}/issues").json()[0]

    def file(self, issue: dict[str, Any], name: str) -> bytes:
        answer = self.get(f"/projects/{self.project}/issues/{issue['id']}/files/{name}")
        self.assertEqual(answer.status_code, 200, answer.content[:200])
        return answer.content

    def test_an_issue_says_what_the_screen_says_and_what_changed_since(self) -> None:
        results = self.get(f"/projects/{self.project}/results").json()["changed"]
        first = self.issue(remarks="Draft")
        self.assertEqual((first["number"], first["purpose"], first["remarks"]), (1, "For comment", "Draft"))
        for name, told in first["files"].items():
            data = self.file(first, name)
            self.assertEqual((hashlib.sha256(data).hexdigest(), len(data)), (told["sha256"], told["bytes"]), name)
        # Its workbook: real numbers, equal to the results.
        book = load_workbook(io.BytesIO(self.file(first, "tables.xlsx")))
        sheet = book["Loads of rooms"]
        rows = list(sheet.iter_rows(values_only=True))
        by_number = {row[0]: dict(zip(rows[0], row, strict=True)) for row in rows[1:]}
        rooms = {row["number"]: row["id"] for row in self.document(self.project)["objects"]["room"]}
        for number, row in by_number.items():
            heating = results["room"][rooms[number]]["heating_w"]
            self.assertAlmostEqual(row["Heating [kW]"], heating / 1e3, places=9)
        # Its pages: text that can be searched, the same figures as shown, a head and a number on every page, fonts within.
        reader = PdfReader(io.BytesIO(self.file(first, PDF)))
        texts = [page.extract_text() for page in reader.pages]
        for at, text in enumerate(texts, 1):
            self.assertIn(f"{at} / {len(texts)}", text)
            self.assertIn("Tarnwick Craft Hall", text)
            self.assertIn("Issue 1", text)
        cooling = results["group"]["building"]["cooling"]["sensible_w"] / 1e3
        self.assertTrue(any(f"{cooling:.2f}" in text for text in texts))
        self.assertTrue(any(one.title == "Rooms" for one in reader.outline if not isinstance(one, list)))
        fonts = {
            font["/BaseFont"]: font
            for page in reader.pages
            for font in (f.get_object() for f in page["/Resources"]["/Font"].values())
        }
        for font in fonts.values():
            inner = font["/DescendantFonts"][0].get_object() if "/DescendantFonts" in font else font
            self.assertTrue(any(key.startswith("/FontFile") for key in inner["/FontDescriptor"].get_object()))
        # A change, and the next issue tells of it; the first stays as it was.
        glass = self.document(self.project)["objects"]["glazing"][0]
        self.set(self.project, "glazing", glass["id"], u_value=0.7)
        second = self.issue()
        text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(self.file(second, PDF))).pages)
        self.assertIn("Changes since issue 1", text)
        self.assertIn(f"{glass['u_value']:g}", text)
        self.assertEqual(hashlib.sha256(self.file(first, PDF)).hexdigest(), first["files"][PDF]["sha256"])
        with zipfile.ZipFile(io.BytesIO(self.file(second, "tables-csv.zip"))) as zipped:
            entered = zipped.read("What is entered differently.csv").decode("utf-8-sig").splitlines()
        self.assertTrue(any("U-value" in line and "0.7" in line for line in entered), entered)
        # As it was, as a project of its own.
        opened = self.post(f"/projects/{self.project}/issues/{first['id']}/open")
        self.assertEqual(opened.status_code, 201, opened.content)
        was = self.document(opened.json()["id"])["objects"]["glazing"]
        self.assertIn(glass["u_value"], [row["u_value"] for row in was])

    def test_an_option_is_issued_under_the_same_numbers(self) -> None:
        option = self.post(f"/projects/{self.project}/options", {"name": "Deep walls"}).json()["id"]
        made = self.issue(option, parts=["cover", "summary"])
        self.assertEqual((made["number"], made["option"]), (1, "Deep walls"))
        self.assertIn("Deep walls", PdfReader(io.BytesIO(self.file(made, PDF))).pages[0].extract_text())

    def test_a_file_that_was_tampered_with_is_refused(self) -> None:
        made = self.issue(parts=["cover"])
        (folder_of(made["id"]) / PDF).write_bytes(b"%PDF-1.7 another one")
        answer = self.get(f"/projects/{self.project}/issues/{made['id']}/files/{PDF}")
        self.assertEqual(answer.status_code, 409)
        self.assertIn("SHA-256", answer.json()["title"])
        (folder_of(made["id"]) / PDF).unlink()
        self.assertEqual(self.get(f"/projects/{self.project}/issues/{made['id']}/files/{PDF}").status_code, 404)
        for name in ("../../pendrum.sqlite3", "nothing.pdf"):
            self.assertEqual(
                self.client.get(f"/api/projects/{self.project}/issues/{made['id']}/files/{name}").status_code, 404
            )

    def test_a_cancelled_issue_leaves_nothing(self) -> None:
        def stopped(*args: Any, **named: Any) -> bytes:
            waiting = args[-1]
            Task.objects.update(cancel_asked=True)
            waiting(0.5)
            raise AssertionError("went on")

        with patch("exchange.report.issue.write_pdf", stopped):
            asked = self.post(f"/projects/{self.project}/issues", {"parts": ["cover"], "purpose": "x"})
        self.assertEqual(self.get(f"/tasks/{asked.json()['id']}").json()["state"], "cancelled")
        self.assertEqual(Issue.objects.count(), 0)

    def test_a_press_that_fails_says_so(self) -> None:
        with patch.object(pdf, "page", lambda *args, **named: "<style>" * 10), patch.object(pdf, "_MOST_S", 0.0):
            asked = self.post(f"/projects/{self.project}/issues", {"parts": ["cover"], "purpose": "x"})
        task = self.get(f"/tasks/{asked.json()['id']}").json()
        self.assertEqual(task["state"], "failed")
        self.assertIn("takes longer", task["error"]["title"])
        self.assertEqual(Issue.objects.count(), 0)

    def test_refusals(self) -> None:
        for body in ({"parts": [], "purpose": "x"}, {"parts": ["poem"], "purpose": "x"}, {"parts": FEW, "purpose": ""},
                     {"parts": FEW, "purpose": "x", "page": "A9"}, {"parts": FEW, "purpose": "x", "system": "CGS"}):  # fmt: skip
            answer = self.post(f"/projects/{self.project}/issues", body)
            self.assertEqual(answer.status_code, 422, body)
        self.assertEqual(self.get("/projects/nothere/issues").status_code, 404)


class HostileNames(ApiTest):
    def test_text_stays_text_in_the_preview(self) -> None:
        small = Small(self)
        bad = '</style><script>alert("x")</script>"}} @page{'
        self.set(small.project, "room", small.ids["room"], name=bad[:60])
        self.set(small.project, "project", small.project, name=bad)
        self.set(small.project, "use", small.ids["use"], name="=HYPERLINK(1)")
        page = self.get(f"/projects/{small.project}/report.html", parts=["cover", "rooms", "sheets", "basis"])
        self.assertEqual(page.status_code, 200)
        html = page.content.decode()
        self.assertNotIn("<script", html)
        self.assertEqual(len(re.findall("</style>", html)), 1)
        asked = self.post(f"/projects/{small.project}/issues", {"parts": ["cover", "basis", "rooms"], "purpose": bad})
        task = self.get(f"/tasks/{asked.json()['id']}").json()
        self.assertEqual(task["state"], "done", task)
        made = self.get(f"/projects/{small.project}/issues").json()[0]
        book = self.client.get(f"/api/projects/{small.project}/issues/{made['id']}/files/tables.xlsx").content
        cells = [cell for sheet in load_workbook(io.BytesIO(book)) for row in sheet.iter_rows() for cell in row]
        self.assertFalse([cell.value for cell in cells if cell.data_type == "f"])
