"""Working of what circuits lose on the way, and of what rooms get back of it."""

from pendrum_core.model.systems import BY_AREA, Section
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.network import section_lost_w
from pendrum_core.water.pipes import series_of
from pendrum_core.working.node import Node


def pipes_lose(results: BuildingResults, circuit_id: str) -> Node:
    """What a circuit's insulated pipes lose, or take in, at the design temperatures.

    Raises:
        KeyError: its losses are stated as a share, or it has no result.
    """
    circuit, found = results.drawn(circuit_id), results.circuits[circuit_id]
    if circuit.loses_a_share:
        raise KeyError(circuit_id)
    if circuit.pipe_insulation_m is None:
        return Node(
            f"{circuit.name}: lost on the way",
            found.pipes_lose_w,
            "load",
            formula="figure for a square metre × floor area of the rooms at its ends",
            inputs=(
                Node("Lost of floor area", circuit.loss_w_m2, "power_per_area", ref=f"circuit/{circuit_id}/loss_w_m2"),
            ),
        )
    series = series_of(circuit)

    def section(one: Section) -> Node:
        runs = found.sections[one.id].runs
        metres = [
            f"{section_lost_w(circuit, (run,)) / run.length_m if run.length_m else 0.0:.3g} W/m × {run.length_m:g} m "
            f"({run.role}, outer diameter {series.outer_of(run.diameter_m) * 1000:.1f} mm)"
            for run in runs
        ]
        return Node(
            f"{one.name}, {found.sections[one.id].size}",
            found.lost_w[one.id],
            "load",
            formula="W/m × length, pipe by pipe",
            numbers=" + ".join(metres),
            inputs=(Node("Length", one.length_m, "length", ref=f"pipe_section/{one.id}/length_m"),),
        )

    return Node(
        f"{circuit.name}: {'lost by' if circuit.kind == 'heating' else 'taken in by'} its pipes",
        found.pipes_lose_w,
        "load",
        formula="Σ (T water − T around) / (ln(De/Di) / 2πλ + 1/(h π De)) × length",
        source="EN ISO 12241:2008, one cylindrical layer; h = 8.5 + 0.05 ΔT of the jacket",
        note="At the design temperatures, while anything is asked; the pipe's wall resists nothing.",
        inputs=(
            Node("Thickness", circuit.pipe_insulation_m, "thickness", ref=f"circuit/{circuit_id}/pipe_insulation_m"),
            Node(
                "Conductivity",
                circuit.pipe_insulation_w_mk,
                "conductivity",
                "λ",
                ref=f"circuit/{circuit_id}/pipe_insulation_w_mk",
            ),
            Node("Air around", circuit.pipe_around_c, "temperature", ref=f"circuit/{circuit_id}/pipe_around_c"),
            *(section(one) for one in circuit.sections),
        ),
    )


def pipes_give(results: BuildingResults, subject: str) -> Node:
    """What the pipes of a circuit give a room at most; the subject is "circuit/room".

    Raises:
        KeyError: they give it nothing.
    """
    circuit_id, _, room_id = subject.partition("/")
    watts = results.given_back_w[circuit_id, room_id]
    circuit, room = results.drawn(circuit_id), results.rooms[room_id].room
    rule = "its floor area among that of the rooms at the circuit's ends"
    lost = "what each section loses" if results.circuits[circuit_id].lost_w else "the sections' length"
    return Node(
        f"{room.number} {room.name}: of the pipes of {circuit.name}",
        watts,
        "load",
        formula="the smaller of: share of the loss; what the room asks of the circuit",
        source="EN 15316-3, recoverable losses; docs/methods/plant.md",
        note="Its emitter gives so much less at that hour; it is sized without it.",
        inputs=(
            Node(
                "Share of the loss",
                results.loss_shares[circuit_id][room_id],
                "percent",
                formula=rule if circuit.loss_to == BY_AREA else f"sections that run through it, by {lost}",
                ref=f"circuit/{circuit_id}/loss_to",
            ),
            Node("Lost on the way", circuit.loss_share, "percent", ref=f"circuit/{circuit_id}/loss_share")
            if circuit.loses_a_share
            else pipes_lose(results, circuit_id),
        ),
    )
