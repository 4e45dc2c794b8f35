"""Working of chilled ceilings and beams."""

from pendrum_core.model.plant import BEAMS
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.ceiling import RATED_K
from pendrum_core.working.node import Node


def chilled_ceiling(results: BuildingResults, room_id: str) -> Node:
    """Area or length that a room's cooling takes at its circuit's temperatures.

    Raises:
        KeyError: the room has no chilled ceiling or beams.
    """
    found, room = results.ceilings[room_id], results.rooms[room_id].room
    circuit = next(
        c for c in results.building.circuits if any(s.end == room_id for s in c.sections) and c.kind == "chilled"
    )
    build, beams = circuit.ceiling, found.kind == BEAMS
    rated, unit = (build.rating_w_m, "W/m") if beams else (build.rating_w_m2, "W/m²")

    def field(name: str) -> str:
        return f"circuit/{circuit.id}/{name}"

    return Node(
        f"{room.number} {room.name}: {'chilled beams' if beams else 'chilled ceiling'}",
        found.needed,
        "length" if beams else "area",
        formula="duty / (rating × (difference / 8 K)^n)",
        numbers=f"{found.duty_w:.4g} W / ({rated:.4g} {unit} × ({found.difference_k:.3g} K / {RATED_K:g} K)^{build.exponent:g})",
        source="EN 14518:2005" if beams else "EN 14240:2004",
        note="Works on the room's air; sized without its radiant share.",
        inputs=(
            Node("Duty", found.duty_w, "load", formula="cooling load, less what the air takes, with its margin"),
            Node(
                "Rating at 8 K",
                rated,
                "heat_per_length" if beams else "power_per_area",
                ref=field("ceiling_rating_w_m" if beams else "ceiling_rating_w_m2"),
            ),
            Node("Exponent", build.exponent, "ratio", "n", ref=field("ceiling_exponent")),
            Node(
                "Difference of room and water",
                found.difference_k,
                "temperature_difference",
                formula="room − (flow + return)/2",
                inputs=(
                    Node("Room", room.cooling_setpoint_c, "temperature", ref=f"room/{room_id}/cooling_setpoint_c"),
                    Node("Flow", circuit.flow_c, "temperature", ref=field("flow_c")),
                    Node("Return", circuit.return_c, "temperature", ref=field("return_c")),
                ),
            ),
            *(
                ()
                if beams
                else (
                    Node("Place for it", found.most, "area", formula="floor × share", ref=field("ceiling_area_share")),
                )
            ),
        ),
    )
