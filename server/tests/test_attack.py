"""The attack script, a short run: nothing of it may fall (bench/attack.py tells what counts)."""

import subprocess
import sys

from django.conf import settings
from django.test import SimpleTestCase


class ShortAttack(SimpleTestCase):
    def test_nothing_falls(self) -> None:
        script = settings.ROOT / "bench" / "attack.py"
        words = [sys.executable, str(script), "--requests", "200", "--kills", "1", "--files", "15", "--seed", "7"]
        words += ["--patience", "8"]  # other tests run beside it; how fast it is, the script tells when it runs alone
        done = subprocess.run(words, capture_output=True, text=True, timeout=900)
        self.assertEqual(done.returncode, 0, done.stdout[-4000:] + done.stderr[-2000:])
        for part in ("requests", "files", "stalled clients", "large change sets", "kills"):
            self.assertIn(f"{part}: ", done.stdout)
