"""The specs of the browser's components and logic, run by Vitest."""

import json
import subprocess
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


class Specs(unittest.TestCase):
    def test_all_pass(self) -> None:
        done = subprocess.run(
            ["npx", "--no-install", "vitest", "run", "--reporter=json"],
            cwd=ROOT / "web",
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertIn('{"num', done.stdout, done.stderr)
        told = json.loads(done.stdout[done.stdout.index('{"num') :])
        failed = [
            f"{one['fullName']}: {one['failureMessages'][:1]}"
            for file in told["testResults"]
            for one in file["assertionResults"]
            if one["status"] != "passed"
        ]
        self.assertEqual(failed, [])
        self.assertEqual(done.returncode, 0, done.stdout[:2000] + done.stderr[-2000:])
        self.assertGreater(told["numPassedTests"], 80)
