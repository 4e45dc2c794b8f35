"""Numbers for rooms that come without one."""

import re
from collections.abc import Collection, Sequence

from exchange.rooms.incoming import IncomingRoom

_FIRST = "001"


def _in_order(number: str) -> list[tuple[int, int, str]]:
    return [(0, int(part), "") if part.isdigit() else (1, 0, part) for part in re.findall(r"\d+|\D+", number)]


def _after(number: str) -> str:
    """The next number of the same form: 1.09 → 1.10, B7 → B8, Attic → Attic1."""
    head, digits = re.fullmatch(r"(.*?)(\d*)", number, re.DOTALL).groups()  # type: ignore[union-attr]
    return f"{head}{int(digits or 0) + 1:0{len(digits)}d}" if digits else f"{number}1"


def give_numbers(rooms: Sequence[IncomingRoom], known: Collection[str]) -> int:
    """Give rooms without a number the ones after the highest of the project and the file, in the file's order.

    Args:
        rooms: of a file; those without a number get one.
        known: numbers of the project's rooms.

    Returns:
        How many got one.
    """
    there = [*known, *(room.number.strip() for room in rooms if room.number.strip())]
    taken = {number.strip().casefold() for number in there}
    number = max(there, key=_in_order, default="")
    given = 0
    for room in rooms:
        if room.number.strip() or room.fault:
            continue
        number = _after(number) if number else _FIRST
        while number.casefold() in taken:
            number = _after(number)
        room.number, given = number, given + 1
        taken.add(number.casefold())
    return given
