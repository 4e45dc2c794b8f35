"""What is wrong in a weather file."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Fault:
    """Something wrong in a line (1 is the first of the file; 0 for the file as a whole)."""

    line: int
    message: str
