"""A snag: something the checks found, with its place, its reason and a way out."""

from dataclasses import dataclass

STOPS, DOUBTFUL, NOTE = "stops", "doubtful", "note"


@dataclass(frozen=True)
class Snag:
    """One finding.

    Attributes:
        level: "stops" (this cannot be calculated), "doubtful" or "note".
        code: stable name of the rule.
        kind, id: the thing concerned.
        stage: where it is mended.
        sentence: what is wrong, with numbers.
        way_out: what to do.
    """

    level: str
    code: str
    kind: str
    id: str
    stage: str
    sentence: str
    way_out: str
