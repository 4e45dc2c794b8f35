"""What a circuit loses on the way to its ends, and the part of it that rooms get back.

Lost is a share of what the ends ask, a figure for each square metre of the rooms at its ends, or what insulated pipes lose
(water/insulation.py). Heat that pipes give to a room which asks for heat of the same circuit is not lost: its emitter gives so much
less at that hour. What stands at the ends is sized without it, on the safe side; while a room asks for nothing, nothing comes back.
Of chilled circuits it is the warmth that their pipes take out of rooms.
"""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.systems import BY_AREA, BY_RUN, Circuit
from pendrum_core.water.network import CircuitResult

Array = NDArray[np.float64]


def stated_w(circuit: Circuit, floor_area_m2: Mapping[str, float]) -> float:
    """Losses told for each square metre of the rooms at its ends [W]; 0 where they are told otherwise.

    Source: inputs.
    """
    if circuit.loss_w_m2 is None or circuit.pipe_insulation_m is not None:
        return 0.0
    return circuit.loss_w_m2 * sum(floor_area_m2.get(end, 0.0) for end in _ends(circuit))


def pumps_heat_w(circuit: Circuit, found: CircuitResult) -> float:
    """What pumps warm the water of a chilled circuit by while anything is asked [W]: their shaft power at the design flow.

    In a heating circuit it spares the source and is left out, on the safe side; what motors lose stays where they stand.

    Source: heat balance of the circuit: what is lost to friction ends as heat.
    """
    return found.pump.shaft_w if circuit.kind == "chilled" else 0.0


def shares_of_rooms(
    circuit: Circuit, floor_area_m2: Mapping[str, float], lost_w: Mapping[str, float]
) -> dict[str, float]:
    """Of the whole loss, what goes into each room [-]: by the floor area of those at its ends, or by the sections that run through them.

    A section runs through the room that it is told to, else through that at its end. Where `lost_w` tells what each section loses
    [W] that counts, else its length.

    Source: docs/methods/plant.md.
    """
    if circuit.loss_to == BY_AREA:
        areas = {end: floor_area_m2[end] for end in _ends(circuit) if end in floor_area_m2}
        whole = sum(areas.values())
        return {room: area / whole for room, area in areas.items()} if whole > 0.0 else {}
    if circuit.loss_to != BY_RUN:
        return {}
    weights = {s.id: lost_w[s.id] if lost_w else s.length_m for s in circuit.sections}
    whole, found = sum(weights.values()), dict[str, float]()
    for section in circuit.sections:
        room = section.through or (section.end if section.end in floor_area_m2 else None)
        if room is not None and whole > 0.0:
            found[room] = found.get(room, 0.0) + weights[section.id] / whole
    return found


def given_back_w(
    circuit: Circuit, rooms_w: Mapping[str, Array], ends_w: Array, pipes_lose_w: float, shares: Mapping[str, float]
) -> dict[str, Array]:
    """What rooms get of a circuit's loss over steps, each at most what it asks of that circuit [W].

    Args:
        rooms_w: what each room at its ends asks [W]; `ends_w` all ends together [W].
        pipes_lose_w: what is lost while anything is asked, beside the circuit's share of the load [W].
        shares: of the loss, by room [-].

    Source: EN 15316-3 (recoverable losses count where heat is asked for at the same time).
    """
    lost = ends_w * circuit.lost_share + np.where(ends_w > 0.0, pipes_lose_w, 0.0)
    return {
        room: np.asarray(np.clip(lost * shares[room], 0.0, np.maximum(asked, 0.0)))
        for room, asked in rooms_w.items()
        if room in shares
    }


def _ends(circuit: Circuit) -> list[str]:
    return list(dict.fromkeys(section.end for section in circuit.sections if section.end is not None))
