"""The proof book: verification cases that the installed program runs on itself. `python -m pendrum_core.proof` prints it."""
