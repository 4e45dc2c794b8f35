"""Prints the proof book; ends with 1 where something does not hold."""

import sys

from pendrum_core.proof.book import as_text, proof

if __name__ == "__main__":
    found = proof()
    print(as_text(found))
    sys.exit(0 if all(entry.holds for entry in found) else 1)
