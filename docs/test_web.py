"""The specs of the browser's pure logic, run by Node."""

import subprocess
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


class Specs(unittest.TestCase):
    def test_all_pass(self) -> None:
        done = subprocess.run(
            ["node", "--test-reporter=tap", "tests/run.mjs"],
            cwd=ROOT / "web",
            capture_output=True,
            text=True,
            check=False,
        )
        output = done.stdout + done.stderr
        self.assertEqual(done.returncode, 0, output)
        passed = [line for line in output.splitlines() if line.startswith("# pass ")]
        self.assertEqual(len(passed), 1, output)
        self.assertGreater(int(passed[0].split()[-1]), 20)
