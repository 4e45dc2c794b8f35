"""The proof book: every case holds on this installation, and a wrong figure would be seen."""

import json
import subprocess
import sys
import unittest
from dataclasses import replace
from math import nan
from pathlib import Path
from shutil import copyfile
from tempfile import TemporaryDirectory

from pendrum_core.proof.book import as_text, proof
from pendrum_core.proof.cases import DATA, load_case
from pendrum_core.proof.folder import run_folder
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

    def test_a_folder_of_cases(self) -> None:
        """Each case is told as ok, fail or absent; a wrong figure fails, an unknown form is not passed over."""
        with TemporaryDirectory() as name:
            folder = Path(name)
            for path in DATA.glob("*.json"):
                copyfile(path, folder / path.name)
            case = load_case("room_winter_steady")
            case["expected"]["no_sky_depression"]["heating_load_W"] *= 1.01
            (folder / "room_winter_steady.json").write_text(json.dumps(case))
            held = load_case("room_light_no_window")
            held["inputs"]["control"] = {"room": {"night_purge": 2.0}}
            (folder / "another.json").write_text(json.dumps(held))
            (folder / "no_case.json").write_text("[]")
            told = {case.name: case.state for case in run_folder(folder)}
        self.assertEqual(told.pop("room_winter_steady"), "fail")
        self.assertEqual((told.pop("another"), told.pop("no_case")), ("absent", "absent"))
        self.assertEqual(set(told.values()), {"ok"})

    def test_shared_cases(self) -> None:
        """The cases beside the project: those of rooms, walls, sun, coil, ducts and radiators hold."""
        folder = Path(__file__).parents[3] / "shared" / "cases"
        if not folder.exists():
            self.skipTest("no folder of cases beside the project")
        told = run_folder(folder)
        self.assertEqual([case for case in told if case.state == "fail"], [])
        self.assertGreaterEqual(sum(case.state == "ok" for case in told), 10)

    def test_command(self) -> None:
        done = subprocess.run([sys.executable, "-m", "pendrum_core.proof"], capture_output=True, text=True, check=True)
        self.assertIn(f"{len(self.entries)} of {len(self.entries)} hold.", done.stdout)
