"""The whole proof book."""

from collections.abc import Sequence

from pendrum_core.proof.entry import Entry
from pendrum_core.proof.fabric import fabric_entries
from pendrum_core.proof.place import place_entries
from pendrum_core.proof.rooms import room_entries
from pendrum_core.proof.systems import air_entries, duct_entries, water_entries


def proof() -> list[Entry]:
    """Run every case on this installation."""
    chapters = (place_entries, fabric_entries, room_entries, air_entries, duct_entries, water_entries)
    return [entry for chapter in chapters for entry in chapter()]


def as_text(entries: Sequence[Entry]) -> str:
    """The book as plain text."""
    lines, chapter = [], ""
    for entry in entries:
        if entry.chapter != chapter:
            chapter = entry.chapter
            lines += ["", chapter]
        lines += [f"  {entry}", f"         {entry.source}"]
    good = sum(entry.holds for entry in entries)
    return "\n".join([*lines[1:], "", f"{good} of {len(entries)} hold."])
