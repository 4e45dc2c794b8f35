"""Several ways to one end: two branches to a room, two pipes to a coil. They share what it takes, they do not double it.

Source: mass balance.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence

from pendrum_core.model.systems import Section


def shares_of_ends(sections: Sequence[Section]) -> dict[str, float]:
    """Of what stands at its end, the share that comes through each section that has one, by section [-].

    Shares that are told count as told; ways without one share the rest alike. Where those of an end do not make up the whole
    (no more is left for a way without one, or all are told and miss it) they count in proportion.
    """
    ways: dict[str, list[Section]] = defaultdict(list)
    for section in sections:
        if section.end is not None:
            ways[section.end].append(section)
    shares: dict[str, float] = {}
    for at_end in ways.values():
        told = sum(section.end_share or 0.0 for section in at_end)
        open_ways = sum(section.end_share is None for section in at_end)
        rest = max(0.0, 1.0 - told) / open_ways if open_ways else 0.0
        own = [rest if section.end_share is None else section.end_share for section in at_end]
        whole = sum(own)
        for section, share in zip(at_end, own, strict=True):
            shares[section.id] = share / whole if whole > 0.0 else 1.0 / len(at_end)
    return shares


def missing_shares(sections: Sequence[Section]) -> Mapping[str, float]:
    """What told shares make up, by the id of each end that has several ways and whose shares are not the whole [-]."""
    told: dict[str, list[float | None]] = defaultdict(list)
    for section in sections:
        if section.end is not None:
            told[section.end].append(section.end_share)
    found: dict[str, float] = {}
    for end, shares in told.items():
        whole = sum(share or 0.0 for share in shares)
        if (None not in shares and abs(whole - 1.0) > 1e-6) or whole > 1.0 + 1e-6:
            found[end] = whole
    return found
