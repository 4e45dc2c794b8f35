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
