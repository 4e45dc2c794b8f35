"""What in chilled ceilings and beams deserves a second look: too little room for them, and water below the rooms' dew point."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.model.systems import Circuit
from pendrum_core.moist_air import dew_point_c
from pendrum_core.results.building import BuildingResults

_NOTICED_W = 10.0
_AT_WORK_W = 1.0


def ceiling_snags(results: BuildingResults) -> Iterator[Snag]:
    """Every room that is cooled by water in it."""
    for circuit in results.building.circuits:
        if circuit.kind != "chilled":
            continue
        for room_id in dict.fromkeys(section.end for section in circuit.sections if section.end in results.ceilings):
            yield from _of_room(results, circuit, str(room_id))


def _of_room(results: BuildingResults, circuit: Circuit, room_id: str) -> Iterator[Snag]:
    found, room = results.ceilings[room_id], results.rooms[room_id].room
    name = f"{room.number} {room.name}"
    if found.short_w > _NOTICED_W:
        yield Snag(
            DOUBTFUL,
            "ceiling_short",
            kind="room",
            id=room_id,
            stage="water",
            sentence=f"{name}: its chilled ceiling gives {found.gives_w / 1000:.2f} of {found.duty_w / 1000:.2f} kW; {found.needed:.1f} m² "
            f"would, and {found.most:.1f} m² have place.",
            way_out="colder water, a ceiling of a higher rating, beams, or more supply air",
        )
    for system in results.systems.values():
        if room_id not in system.served:
            continue
        at_work = system.served[room_id].chilled_w > _AT_WORK_W
        moist = np.where(at_work, system.summer.room_w[list(system.served).index(room_id)], 0.0)
        if not at_work.any():
            continue
        dew_c = float(dew_point_c(float(moist.max()), system.pressure_pa))
        if circuit.flow_c < dew_c:
            yield Snag(
                DOUBTFUL,
                "ceiling_drips",
                kind="room",
                id=room_id,
                stage="water",
                sentence=f"{name}: water of {circuit.flow_c:.1f} °C reaches its ceiling or beams while its air's dew point is up to "
                f"{dew_c:.1f} °C; they would drip.",
                way_out="warmer water, or drier supply air",
            )
