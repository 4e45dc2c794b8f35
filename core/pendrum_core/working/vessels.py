"""Working of expansion vessels and buffer stores."""

from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.vessels import FILL_C, highest_c, initial_pa, vessel_of, water_content_m3
from pendrum_core.working.node import Node, addition, figure


def buffer_store(results: BuildingResults, circuit_id: str) -> Node:
    """Volume of a circuit's buffer.

    Raises:
        KeyError: it has none.
    """
    circuit = results.drawn(circuit_id)
    buffer = buffer_of(results, circuit)
    if buffer is None or circuit.buffer_h is None:
        raise KeyError(circuit_id)
    unit = next(unit for unit in circuit.units if unit.id == buffer.unit)
    return Node(
        f"{circuit.name}: buffer store",
        buffer.needed_m3,
        "water_volume",
        "V",
        formula="least output × least run / (ρ c × difference)",
        numbers=f"{figure(buffer.least_w, 'load')} × {circuit.buffer_h * 3600.0:.4g} s / ({buffer.heat_j_m3k / 1e6:.4g} MJ/m³K × {circuit.buffer_k:.3g} K)",
        source="heat balance of the store, with nothing taken from it",
        note="Water in pipes and emitters is left out, on the safe side.",
        inputs=(
            Node(
                f"Least output of {unit.name}",
                buffer.least_w,
                "load",
                formula="least part load × capacity",
                ref=f"plant_unit/{unit.id}/least_part",
            ),
            Node("Least run", circuit.buffer_h, "minutes", ref=f"circuit/{circuit_id}/buffer_h"),
            Node("Difference", circuit.buffer_k, "temperature_difference", ref=f"circuit/{circuit_id}/buffer_k"),
            Node(
                "Pinned" if circuit.pinned_buffer_m3 is not None else "Chosen, next that is made",
                buffer.volume_m3,
                "water_volume",
                ref=f"circuit/{circuit_id}/pinned_buffer_m3" if circuit.pinned_buffer_m3 is not None else "",
            ),
            Node("With it the unit runs for", buffer.runs_h, "minutes"),
            Node(
                "Lost by it, over the year" if circuit.kind == "heating" else "Taken in by it, over the year",
                buffer.standing_w,
                "load",
                formula="(16.66 + 8.33 V^0.4) × difference to 20 °C / 45 K",
                source="class C, regulation (EU) 812/2013",
            ),
        ),
    )


def expansion_vessel(results: BuildingResults, circuit_id: str) -> Node:
    """A circuit's expansion vessel."""
    circuit = results.drawn(circuit_id)
    vessel = vessel_of(results, circuit)
    pipes, emitters, source, buffer = content = water_content_m3(results, circuit)
    return Node(
        f"{circuit.name}: expansion vessel",
        vessel.volume_m3,
        "water_volume",
        "Vn",
        formula="(Ve + reserve) (pe + 1 bar) / (pe − p0)",
        numbers=f"({vessel.expansion_m3 * 1e3:.4g} + {vessel.reserve_m3 * 1e3:.4g}) L × {vessel.final_pa / 1e5 + 1:.3g} / "
        f"{(vessel.final_pa - initial_pa(circuit)) / 1e5:.3g}",
        source="EN 12828",
        note=f"Filled at {FILL_C:g} °C; highest {highest_c(circuit):g} °C."
        + (
            f" Fill pressure with the chosen one {vessel.fill_at_least_pa / 1e5:.2f} to {vessel.fill_at_most_pa / 1e5:.2f} bar."
            if vessel.chosen_m3
            else ""
        ),
        inputs=(
            Node(
                "Water content",
                sum(content),
                "water_volume",
                numbers=addition([part for part in content if part], "water_volume"),
                inputs=(
                    Node("Pipes", pipes, "water_volume"),
                    Node(
                        "Radiators and floors",
                        emitters,
                        "water_volume",
                        formula="7 L per kW of rating; pipes in floors",
                    ),
                    Node("Source", source, "water_volume", ref=f"circuit/{circuit.id}/source_content_m3"),
                    *((Node("Buffer", buffer, "water_volume"),) if buffer else ()),
                ),
            ),
            Node("Expansion", vessel.expansion_share, "percent", "e"),
            Node("Expansion volume", vessel.expansion_m3, "water_volume", "Ve"),
            Node("Reserve", vessel.reserve_m3, "water_volume", formula="max(0.5 % of the content, 3 L)"),
            Node(
                "Initial pressure",
                initial_pa(circuit),
                "gauge_pressure",
                "p0",
                formula="static height + 0.3 bar",
                ref=f"circuit/{circuit.id}/static_height_m",
            ),
            Node(
                "Final pressure",
                vessel.final_pa,
                "gauge_pressure",
                "pe",
                formula="valve − max(0.5 bar, 10 %)",
                ref=f"circuit/{circuit.id}/safety_valve_pa",
            ),
            Node("Chosen, next of the series", vessel.chosen_m3, "water_volume"),
        ),
    )
