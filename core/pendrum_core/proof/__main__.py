"""Prints the proof book; or, with PENDRUM_CASES, what becomes of the cases in that folder. Ends with 1 where something
does not hold.
"""

import os
import sys
from pathlib import Path

from pendrum_core.proof.book import as_text, proof
from pendrum_core.proof.folder import run_folder

if __name__ == "__main__":
    folder = os.environ.get("PENDRUM_CASES")
    if folder:
        told = run_folder(Path(folder))
        print("\n".join(map(str, told)))
        sys.exit(1 if any(case.state == "fail" for case in told) else 0)
    found = proof()
    print(as_text(found))
    sys.exit(0 if all(entry.holds for entry in found) else 1)
