"""The parts that a report may have, each made of what a document holds and what was worked out for it."""

from collections.abc import Callable, Sequence

from exchange.report.part_air import air_systems, runs
from exchange.report.part_head import basis, changes, cover, snags_part
from exchange.report.part_loads import room_list, sheets, summary
from exchange.report.part_water import kit_list, water
from exchange.report.part_year import options, year
from exchange.report.sheet import Part, Table
from exchange.report.source import Source

# In the order in which they stand in a report.
PARTS: dict[str, tuple[str, Callable[[Source], Part]]] = {
    "cover": ("Cover and issues before", cover),
    "changes": ("Changes since the last issue", changes),
    "basis": ("Basis of design", basis),
    "summary": ("Loads of the building", summary),
    "rooms": ("Room list", room_list),
    "sheets": ("Room data sheets", sheets),
    "air": ("Air systems, airflows, balance", air_systems),
    "runs": ("Ducts and pipes", runs),
    "water": ("Water, plant, emitters", water),
    "kit": ("Kit list", kit_list),
    "year": ("Year: energy, bills, comfort", year),
    "options": ("Options compared", options),
    "snags": ("Snags", snags_part),
}


def parts_of(source: Source, wanted: Sequence[str]) -> list[Part]:
    """The wanted parts in the order of a report; tables without a row are left out."""
    found = []
    for key, (_, make) in PARTS.items():
        if key not in wanted:
            continue
        part = make(source)
        blocks = [block for block in part.blocks if not isinstance(block, Table) or block.rows]
        found.append(Part(part.key, part.title, blocks or ["Nothing to tell here yet."]))
    return found
