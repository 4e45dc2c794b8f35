"""The proof book: every case holds on this installation, and a wrong figure would be seen."""

import subprocess
import sys
import unittest
from dataclasses import replace
from math import nan

from pendrum_core.proof.book import as_text, proof
from pendrum_core.quantities.registry import shown


class ProofBook(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.entries = proof()

    def test_every_entry_holds(self) -> None:
        self.assertGreater(len(self.entries), 50)
        for entry in self.entries:
            with self.subTest(entry=entry.name):
                self.assertTrue(entry.holds, str(entry))
                self.assertTrue(entry.source)
                self.assertGreater(entry.within, 0.0)
                shown(entry.found, entry.quantity)

    def test_a_wrong_figure_is_seen(self) -> None:
        for entry in self.entries:
            for wrong in (entry.expected + 1.1 * entry.within, entry.expected - 1.1 * entry.within, nan):
                changed = replace(entry, found=wrong)
                self.assertFalse(changed.holds)
                self.assertIn("FAILS", str(changed))
        self.assertIn(f"{len(self.entries) - 1} of", as_text([replace(self.entries[0], found=nan), *self.entries[1:]]))

    def test_bounds_are_narrow(self) -> None:
        """A bound of more than two per cent of the figure would prove little."""
        for entry in self.entries:
            if entry.expected and entry.quantity not in ("temperature", "time"):
                self.assertLess(entry.within, 0.0201 * abs(entry.expected), entry.name)

    def test_command(self) -> None:
        done = subprocess.run([sys.executable, "-m", "pendrum_core.proof"], capture_output=True, text=True, check=True)
        self.assertIn(f"{len(self.entries)} of {len(self.entries)} hold.", done.stdout)
