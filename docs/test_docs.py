"""The documents name only paths that exist, and the screenshots they show are there."""

import re
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


class Documents(unittest.TestCase):
    def test_paths_in_architecture_exist(self) -> None:
        text = (ROOT / "ARCHITECTURE.md").read_text()
        paths = re.findall(r"`((?:core|server|web|e2e|bench|docs)/[\w./-]*)`", text)
        self.assertGreater(len(paths), 15)
        self.assertEqual([path for path in paths if not (ROOT / path).exists()], [])

    def test_links_of_every_document(self) -> None:
        documents = [*ROOT.glob("*.md"), *(ROOT / "docs").rglob("*.md")]
        links = [(d, link) for d in documents for link in re.findall(r"\]\(([^)#:]+)\)", d.read_text())]
        broken = [f"{d.name}: {link}" for d, link in links if not (d.parent / link).exists()]
        self.assertEqual(broken, [])

    def test_fewer_than_twenty_pictures(self) -> None:
        self.assertLess(len(list((ROOT / "docs" / "screenshots").glob("*.png"))), 20)


class Deployment(unittest.TestCase):
    """The service's unit and the container's recipe name what is there."""

    def test_settings_are_those_of_the_operations_page(self) -> None:
        page = (ROOT / "docs" / "operations.md").read_text()
        for name in ("pendrum.service", "Containerfile"):
            text = (ROOT / "deploy" / name).read_text()
            settings = set(re.findall(r"PENDRUM_[A-Z_]+", text))
            self.assertGreater(len(settings), 3)
            self.assertEqual([one for one in settings if one not in page], [], name)
            self.assertIn("config.serve", text)

    def test_what_the_container_copies_is_there(self) -> None:
        text = (ROOT / "deploy" / "Containerfile").read_text()
        copied = [word for line in re.findall(r"^COPY (?!--)(.*)$", text, re.M) for word in line.split()[:-1]]
        self.assertGreater(len(copied), 4)
        self.assertEqual([one for one in copied if not (ROOT / one).exists()], [])
        # What reports are pressed with is named on the page too.
        page = (ROOT / "docs" / "operations.md").read_text()
        for package in re.findall(r"lib[\w.-]+", text.split("apt-get install")[1].split("rm -rf")[0]):
            self.assertIn(package, page)

    def test_the_units_lines_are_sections_and_settings(self) -> None:
        section, found = "", {}
        for line in (ROOT / "deploy" / "pendrum.service").read_text().splitlines():
            if line.startswith("["):
                section = line.strip("[]")
            elif line and not line.startswith("#"):
                self.assertRegex(line, r"^[A-Z]\w+=\S")
                found.setdefault(section, []).append(line.split("=")[0])
        self.assertEqual(set(found), {"Unit", "Service", "Install"})
        self.assertIn("ExecStart", found["Service"])
