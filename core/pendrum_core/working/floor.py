"""Working of heated floors."""

from pendrum_core.results.building import BuildingResults
from pendrum_core.water.floor import B_W_M2K, WARMEST_ABOVE_K
from pendrum_core.working.node import Node, figure


def heated_floor(results: BuildingResults, room_id: str) -> Node:
    """What a room's heated floor gives at its circuit's temperatures.

    Raises:
        KeyError: the room has no heated floor.
    """
    found, room = results.floors[room_id], results.rooms[room_id].room
    circuit = next(
        c for c in results.building.circuits if any(s.end == room_id for s in c.sections) and c.kind == "heating"
    )
    build = circuit.floor

    def field(name: str) -> str:
        return f"circuit/{circuit.id}/{name}"

    capped = found.flux_w_m2 > found.limit_w_m2
    return Node(
        f"{room.number} {room.name}: heated floor",
        found.gives_w,
        "load",
        "Q",
        formula="limit × area" if capped else "K × mean excess × area",
        numbers=f"{found.limit_w_m2:.4g} W/m² × {found.area_m2:.4g} m²"
        if capped
        else f"{found.k_w_m2k:.4g} W/m²K × {found.excess_k:.4g} K × {found.area_m2:.4g} m²",
        source="EN 1264-2:2021, pipes in the screed (type A); EN 1264-3 for the surface",
        note=f"Surface {figure(found.surface_c, 'temperature')} while it gives its duty. What goes down is left out.",
        inputs=(
            Node("Duty", found.duty_w, "load", formula="heating load, less what the air brings, with its margin"),
            Node(
                "K",
                found.k_w_m2k,
                "u_value",
                formula="B aB aT^(1 − T/75 mm) au^(100 (45 mm − su)) aD^(250 (D − 20 mm))",
                numbers=f"B {B_W_M2K:g} W/m²K",
                inputs=(
                    Node("Spacing", build.spacing_m, "thickness", "T", ref=field("floor_spacing_m")),
                    Node("Screed above the pipes", build.cover_m, "thickness", "su", ref=field("floor_cover_m")),
                    Node("Pipe, outside", build.pipe_m, "diameter", "D", ref=field("floor_pipe_m")),
                    Node("Covering", build.covering_m2k_w, "resistance", ref=field("floor_covering_m2k_w")),
                ),
            ),
            Node(
                "Mean excess of the water",
                found.excess_k,
                "temperature_difference",
                formula="(flow − return) / ln((flow − room)/(return − room))",
                inputs=(
                    Node("Flow", circuit.flow_c, "temperature", ref=field("flow_c")),
                    Node("Return", circuit.return_c, "temperature", ref=field("return_c")),
                    Node("Room", room.heating_setpoint_c, "temperature", ref=f"room/{room_id}/heating_setpoint_c"),
                ),
            ),
            Node(
                "Most by its surface",
                found.limit_w_m2,
                "power_per_area",
                formula="8.92 ΔT^1.1",
                numbers=f"8.92 × {WARMEST_ABOVE_K:g}^1.1",
            ),
            Node("Heated area", found.area_m2, "area", formula="floor × share", ref=field("floor_area_share")),
            Node("Flow that would give the duty", found.needed_flow_c, "temperature"),
            Node(
                "Pipe in the floor",
                found.pipe_m,
                "length",
                formula="area / spacing",
                note=f"{found.loops} loops of at most 100 m.",
            ),
        ),
    )
