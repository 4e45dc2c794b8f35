"""What keeps a room from being calculated."""

from pendrum_core.checks.snag import STOPS, Snag


class Missing(Exception):
    """Something without which a room cannot be calculated."""

    def __init__(self, code: str, kind: str, identity: str, stage: str, sentence: str, way_out: str) -> None:
        super().__init__(sentence)
        self.snag = Snag(STOPS, code, kind=kind, id=identity, stage=stage, sentence=sentence, way_out=way_out)
