"""Working of water circuits."""

from dataclasses import replace

from pendrum_core.model.systems import Circuit, Section
from pendrum_core.network.fittings import sum_of_coefficients
from pendrum_core.plant.motors import MOTOR_CLASSES
from pendrum_core.results.building import BuildingResults
from pendrum_core.water.network import BACK, FLOW_AND_RETURN, CircuitResult, PipeResult, PipeRun
from pendrum_core.water.pipes import PipeSeries, series_of
from pendrum_core.water.pump import NO_FLOW_HEAD, other_pump, part_loads
from pendrum_core.water.valves import ValveAuthority, authorities
from pendrum_core.working.fittings import fittings_node
from pendrum_core.working.node import Node, addition

_FLOW_OF = "what the ends beyond it take: at one time where the flow is variable, else the sum of their own"


def _run(section: Section, run: PipeRun, series: PipeSeries) -> Node:
    """One pipe of a main with reverse return."""
    f = run.friction
    return Node(
        f"{run.role}, {run.size}",
        run.loss_pa,
        "head",
        "Δp",
        formula="rate × length + ζ/2 × dynamic pressure",
        source=f"Darcy-Weisbach with Colebrook; inner diameters of {series.standard}",
        inputs=(
            Node("Flow", run.flow_m3_s, "water_flow", "V"),
            Node("Inner diameter", run.diameter_m, "diameter", "d"),
            Node("Velocity", f.velocity_m_s, "water_velocity", "v"),
            Node("Friction rate", f.rate_pa_m, "pipe_friction_rate"),
            Node(
                "Length",
                run.length_m,
                "length",
                note="Of the whole main." if run.role == BACK else "",
                ref="" if run.role == BACK else f"pipe_section/{section.id}/length_m",
            ),
        ),
    )


def _main(section: Section, result: PipeResult, series: PipeSeries, on_path: bool) -> Node:
    """A section of a main with reverse return; on a path by what it adds to it."""
    first = any(run.role == BACK for run in result.runs)
    path = (
        "its pipes, and all return pipes of its main"
        if first
        else "its flow, less the return beside it, which the path leaves aside"
    )
    return Node(
        f"{section.name}, {result.size}",
        result.path_pa if on_path else result.loss_pa,
        "head",
        "Δp",
        formula=path if on_path else "sum of its pipes",
        note="Reverse return.",
        inputs=(
            *(_run(section, run, series) for run in result.runs),
            fittings_node("pipe_section", section, result.diameter_m),
        ),
    )


def _pipe(section: Section, result: PipeResult, series: PipeSeries, on_path: bool = False) -> Node:
    if result.runs[0].role != FLOW_AND_RETURN:
        return _main(section, result, series, on_path)
    f = result.friction
    coefficients = sum_of_coefficients(section.loss_coefficient, section.fittings, result.diameter_m)
    return Node(
        f"{section.name}, {result.size}",
        result.loss_pa,
        "head",
        "Δp",
        formula="2 × rate × length + ζ × dynamic pressure + component + emitter",
        numbers=f"2 × {f.rate_pa_m:.4g} × {section.length_m:.4g} + {coefficients:.3g} × "
        f"{f.dynamic_pressure_pa:.4g} + {section.component_drop_pa:.5g} + {section.end_drop_pa:.5g} Pa",
        source=f"Darcy-Weisbach with Colebrook; inner diameters of {series.standard}",
        inputs=(
            Node("Flow", result.flow_m3_s, "water_flow", "V", formula=_FLOW_OF),
            Node(
                "Inner diameter",
                result.diameter_m,
                "diameter",
                "d",
                formula="smallest standard size within the limits" if result.sized else "pinned",
                ref=f"pipe_section/{section.id}/pinned_diameter_m",
            ),
            Node("Velocity", f.velocity_m_s, "water_velocity", "v"),
            Node("Friction rate", f.rate_pa_m, "pipe_friction_rate"),
            Node("Length", section.length_m, "length", ref=f"pipe_section/{section.id}/length_m"),
            fittings_node("pipe_section", section, result.diameter_m),
        ),
    )


def pipe_section(results: BuildingResults, section_id: str) -> Node:
    """Loss of one pipe section, flow and return.

    Raises:
        KeyError: no such section, or it has no result.
    """
    for circuit in results.building.circuits:
        found = results.circuits.get(circuit.id)
        for section in circuit.sections:
            if found is not None and section.id == section_id:
                node = _pipe(section, found.sections[section_id], series_of(circuit))
                valve = authorities(circuit, found).get(section_id)
                return (
                    node if valve is None else replace(node, inputs=(*node.inputs, _authority(circuit, section, valve)))
                )
    raise KeyError(section_id)


def _authority(circuit: Circuit, section: Section, valve: ValveAuthority) -> Node:
    throttles = circuit.water_flow == "variable"
    shut = "its section, with what balancing leaves over" if throttles else "the valve and the emitter beyond it"
    return Node(
        "Authority of its valve",
        valve.authority,
        "ratio",
        "a",
        formula="drop open / drop shut",
        numbers=f"{valve.drop_pa:.4g} Pa / {valve.closed_pa:.4g} Pa",
        source="drop by Kv, (q / Kv)² bar; authority by its definition",
        note=f"A Kv of {valve.good_kv_m3_h:.3g} would have 0.5. The flow of this circuit is {circuit.water_flow}.",
        inputs=(
            Node("Open, at design flow", valve.drop_pa, "head", ref=f"pipe_section/{section.id}/valve_kv_m3_h"),
            Node(f"Shut: {shut}", valve.closed_pa, "head"),
        ),
    )


def pump_head(results: BuildingResults, circuit_id: str) -> Node:
    """Head of a circuit's pump."""
    circuit: Circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    result = results.circuits[circuit_id]
    sections = {section.id: section for section in circuit.sections}
    run = result.tree.path(result.paths.index)
    index = Node(
        "Index run",
        result.paths.index_loss_pa,
        "head",
        formula="sum of the sections on the path with the largest loss, flow and return",
        numbers=addition([result.sections[s].path_pa for s in run], "head"),
        inputs=tuple(_pipe(sections[s], result.sections[s], series_of(circuit), on_path=True) for s in run),
    )
    source = Node("Boiler or chiller", circuit.source_drop_pa, "head", ref=f"circuit/{circuit.id}/source_drop_pa")
    margin = Node("Margin", circuit.pump_margin, "percent", ref=f"circuit/{circuit.id}/pump_margin")
    pinned = circuit.pinned_head_pa is not None
    calculated = Node(
        "Calculated head" if pinned else f"{circuit.name}: pump head",
        result.pump.calculated_head_pa,
        "head",
        "H",
        formula="(index run + source) × (1 + margin)",
        numbers=f"({result.paths.index_loss_pa / 1000:.4g} + {circuit.source_drop_pa / 1000:.4g}) kPa "
        f"× (1 + {circuit.pump_margin:.2g})",
        inputs=(index, source, margin),
    )
    if not pinned:
        return calculated
    pin = Node("Pinned head", result.pump.head_pa, "head", "H", ref=f"circuit/{circuit.id}/pinned_head_pa")
    return Node(
        f"{circuit.name}: pump head",
        result.pump.head_pa,
        "head",
        "H",
        formula="pinned; what is calculated stands beside it",
        inputs=(pin, calculated),
    )


def pump_power(results: BuildingResults, circuit_id: str) -> Node:
    """Electricity of a circuit's pumps at the design flow."""
    circuit: Circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    pump = results.circuits[circuit_id].pump
    of_class = circuit.motor_class in MOTOR_CLASSES and pump.motor_w is not None
    motor = Node(
        "Motor and drive",
        pump.motor_efficiency,
        "percent",
        source="IEC 60034-30-1:2014, four poles, 50 Hz" if of_class else "",
        note=f"{circuit.motor_class}, {(pump.motor_w or 0.0) / 1000:g} kW" if of_class else "",
        ref=f"circuit/{circuit.id}/{'motor_class' if of_class else 'motor_efficiency'}",
    )
    efficiency = Node("Pump efficiency", pump.efficiency, "percent", ref=f"circuit/{circuit.id}/pump_efficiency")
    return Node(
        f"{circuit.name}: pumps, electricity",
        pump.electrical_w,
        "electric_power",
        "P",
        formula="flow × head / (pump efficiency × motor efficiency)",
        numbers=f"{pump.flow_m3_s * 1000:.4g} L/s × {pump.head_pa / 1000:.4g} kPa / ({pump.efficiency:.3g} × {pump.motor_efficiency:.3g})",
        inputs=(_pump_flow(circuit, results.circuits[circuit_id]), pump_head(results, circuit_id), efficiency, motor),
    )


def _pump_flow(circuit: Circuit, found: CircuitResult) -> Node:
    """Flow of a circuit's pumps by what its ends take."""
    own = sum(found.end_flow_m3_s.values())
    told = circuit.diversity is not None
    return Node(
        "Flow",
        found.pump.flow_m3_s,
        "water_flow",
        "V",
        formula="sum of the ends' own × share of it at one time",
        numbers=f"{own * 1000:.4g} L/s × {found.pump.diversity:.3g}",
        note="" if told or found.pump.diversity < 1.0 else "All ends are counted at their largest together.",
        inputs=(
            Node(
                "Ends at one time",
                found.pump.diversity,
                "percent",
                formula="as entered, or more where one end alone takes more"
                if told
                else "largest sum of what they take at one step",
                ref=f"circuit/{circuit.id}/diversity" if told else "",
            ),
        ),
    )


def pump_saving(results: BuildingResults, circuit_id: str) -> Node:
    """What another pump of the same duty saves at the design flow.

    Raises:
        KeyError: none is asked about.
    """
    circuit: Circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    pump = results.circuits[circuit_id].pump
    other = other_pump(circuit, pump)
    if other is None:
        raise KeyError(circuit_id)
    return Node(
        f"{circuit.name}: saved by another pump",
        pump.electrical_w - other.electrical_w,
        "machine_power",
        formula="P of this one − flow × head / (its pump efficiency × its motor efficiency)",
        numbers=f"{pump.electrical_w:.4g} W − {pump.hydraulic_w:.4g} W / ({other.efficiency:.3g} × {other.motor_efficiency:.3g})",
        note="At the design flow; over the year see Year, Circuits.",
        inputs=(
            pump_power(results, circuit_id),
            Node("Its efficiency", other.efficiency, "percent", ref=f"circuit/{circuit.id}/other_pump_efficiency"),
            Node(
                "Its motor and drive",
                other.motor_efficiency,
                "percent",
                ref=f"circuit/{circuit.id}/other_motor_efficiency",
            ),
        ),
    )


def pump_part_load(results: BuildingResults, circuit_id: str, share: float) -> Node:
    """Electricity of a circuit's pumps at a share of the design flow."""
    circuit: Circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    pump = results.circuits[circuit_id].pump
    point = next(point for point in part_loads(pump) if point.share == share)
    return Node(
        f"{circuit.name}: pumps at {share:.0%} of the flow",
        point.electrical_w,
        "electric_power",
        "P",
        formula="flow × head held / (pump efficiency there × motor efficiency)",
        numbers=f"{share * pump.flow_m3_s * 1000:.4g} L/s × {point.head_pa / 1000:.4g} kPa / ({point.efficiency:.3g} × {pump.motor_efficiency:.3g})",
        source="affinity laws; quadratic curve and parabola of efficiency, Karassik et al., Pump Handbook, ch. 2",
        note=f"{pump.control}; the speed is that at which the pump's curve passes through the held head.",
        inputs=(
            Node("Head held", point.head_pa, "head", ref=f"circuit/{circuit.id}/pump_control"),
            Node("Pump efficiency there", point.efficiency, "percent"),
            pump_power(results, circuit_id),
        ),
    )


def pump_open_flow(results: BuildingResults, circuit_id: str) -> Node:
    """Flow of a circuit with nothing throttled, where the pump's curve meets the network's."""
    circuit: Circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    pump = results.circuits[circuit_id].pump
    return Node(
        f"{circuit.name}: flow with nothing throttled",
        pump.open_share * pump.flow_m3_s,
        "water_flow",
        "V",
        formula="design flow × √(no-flow head / (network + no-flow head − pump head))",
        numbers=f"{pump.flow_m3_s * 1000:.4g} L/s × √({NO_FLOW_HEAD * pump.head_pa / 1000:.4g} / ({pump.network_head_pa / 1000:.4g} + "
        f"{NO_FLOW_HEAD * pump.head_pa / 1000:.4g} − {pump.head_pa / 1000:.4g}))",
        source="both curves with the square of the flow",
        inputs=(Node("Network at design flow", pump.network_head_pa, "head"), pump_head(results, circuit_id)),
    )
