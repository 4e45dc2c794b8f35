"""What in circuits that feed each other deserves a second look."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.systems import Circuit
from pendrum_core.plant.running import flow_temperature_c
from pendrum_core.results.building import BuildingResults

_NOTICED_K = 0.5


def feed_snags(results: BuildingResults) -> Iterator[Snag]:
    """Fed circuits: without a pipe to them, with a pipe from another one, or with a source that is reset too far."""
    by_id = {circuit.id: circuit for circuit in results.building.circuits}
    for circuit in results.building.circuits:
        feed = results.feeds.get(circuit.id)
        if feed is not None:
            source = by_id[feed.source]
            if source.sections and all(section.end != circuit.id for section in source.sections):
                yield _snag(
                    NOTE,
                    "fed_without_pipe",
                    circuit,
                    f"{circuit.name}: no pipe of {source.name} ends at it; its load counts in the plant, its flow not in those pipes and pumps.",
                    f"a section of {source.name} that ends at it, unless it hangs on a header beside the plant",
                )
            yield from _reset(results, circuit, source)
        for section in circuit.sections:
            fed = by_id.get(section.end or "")
            if fed is not None and fed.source != circuit.id:
                yield _snag(
                    DOUBTFUL,
                    "pipe_to_unfed",
                    circuit,
                    f"{circuit.name}, {section.name}: it ends at {fed.name}, which {circuit.name} does not feed.",
                    f"choose {circuit.name} as what feeds {fed.name}, or another end",
                )


def _reset(results: BuildingResults, circuit: Circuit, source: Circuit) -> Iterator[Snag]:
    """A source that the outdoor air resets further than what it feeds can bear."""
    if source.flow_rule != "outdoors":
        return
    cold = results.building.climate.winter_dry_bulb_c
    outdoor = np.linspace(cold, max(source.reset_mild_c, circuit.reset_mild_c, cold), 25)
    sign = 1.0 if circuit.kind == "heating" else -1.0
    short = sign * (flow_temperature_c(circuit, outdoor) - flow_temperature_c(source, outdoor))
    worst = int(short.argmax())
    if float(short[worst]) > _NOTICED_K:
        yield _snag(
            DOUBTFUL,
            "source_reset_too_far",
            circuit,
            f"{circuit.name}: at {outdoor[worst]:.0f} °C outdoors {source.name} brings water that is {float(short[worst]):.1f} K "
            f"{'colder' if sign > 0 else 'warmer'} than this circuit's.",
            f"the same rule for both, or a {'hotter' if sign > 0 else 'colder'} mild flow of {source.name}",
        )


def _snag(level: str, code: str, circuit: Circuit, sentence: str, way_out: str) -> Snag:
    return Snag(level, code, kind="circuit", id=circuit.id, stage="water", sentence=sentence, way_out=way_out)
