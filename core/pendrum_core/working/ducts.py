"""Working of ducts and fans: sections of all networks, and what the fans have to overcome."""

from pendrum_core.air.result import AirSystemResult
from pendrum_core.air.unit import curve_of
from pendrum_core.duct.lanes import behind_pa, in_front_pa
from pendrum_core.duct.network import SectionResult, fittings_coefficient
from pendrum_core.model.systems import EXHAUST, OUTDOOR, RETURN, SUPPLY, AirSystem, Section
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.fittings import fittings_node
from pendrum_core.working.node import Node, addition

_LEAST = "of all standard sizes within the limits and the height, the one with the least perimeter"
_SIZED = {"round": "smallest standard size within the limits", "rectangular": _LEAST, "flat oval": _LEAST}
_SIZES = {"round": "EN 1506", "rectangular": "EN 1505", "flat oval": "makers' spiral flat oval series"}


def _section(section: Section, result: SectionResult) -> Node:
    f, coefficients = result.friction, fittings_coefficient(section, result.shape)
    return Node(
        section.name,
        result.loss_pa,
        "pressure",
        "Δp",
        formula="rate × length + C × dynamic pressure + component + terminal",
        numbers=f"{f.rate_pa_m:.4g} × {section.length_m:.4g} + {coefficients:.3g} × "
        f"{f.dynamic_pressure_pa:.4g} + {section.component_drop_pa:.4g} + {section.end_drop_pa:.4g} Pa",
        source="Darcy-Weisbach with Colebrook; ASHRAE Handbook Fundamentals 2017, ch. 21",
        inputs=(
            Node(
                "Flow",
                result.flow_m3_s,
                "airflow",
                "V",
                formula="largest sum at one time of what is beyond it, with its leaks",
            ),
            Node(
                "Diameter" if result.shape.kind == "round" else "Equivalent diameter",
                result.diameter_m,
                "diameter",
                "d",
                formula=_SIZED[result.shape.kind] if result.sized else "pinned",
                source=_SIZES[result.shape.kind] if result.sized else "",
                note=f"{result.shape.size} mm",
                ref=f"duct_section/{section.id}/pinned_diameter_m",
            ),
            Node("Hydraulic diameter", result.shape.hydraulic_diameter_m, "diameter", formula="4 A / P"),
            Node("Velocity", f.velocity_m_s, "velocity", "v", formula="V / A"),
            Node("Reynolds number", f.reynolds, "count", "Re"),
            Node("Friction factor", f.factor, "ratio", "f", note=f"{f.factor:.5f}"),
            Node("Friction rate", f.rate_pa_m, "friction_rate"),
            Node("Length", section.length_m, "length", ref=f"duct_section/{section.id}/length_m"),
            fittings_node("duct_section", section, result.diameter_m),
            Node(
                "Component and terminal",
                section.component_drop_pa + section.end_drop_pa,
                "pressure",
                ref=f"duct_section/{section.id}/end_drop_pa",
            ),
        ),
    )


def duct_section(results: BuildingResults, section_id: str) -> Node:
    """Loss of one duct section.

    Raises:
        KeyError: no such section, or it has no result.
    """
    for system in results.building.systems:
        every = results.systems[system.id].networks if system.id in results.systems else {}
        for section in system.sections:
            if section.id == section_id and section.network in every:
                return _section(section, every[section.network].sections[section_id])
    raise KeyError(section_id)


_RUNS = {
    SUPPLY: "Index run",
    RETURN: "Return ducts, index run",
    OUTDOOR: "Outdoor air ducts, index run",
    EXHAUST: "Exhaust ducts, index run",
}


def _index_run(system: AirSystem, result: AirSystemResult, network: str) -> Node:
    """The path with the largest loss of a network."""
    ducts = result.networks.get(network)
    if ducts is None:
        return Node(_RUNS[network], 0.0, "pressure", formula="no ducts drawn yet")
    sections = {section.id: section for section in system.sections}
    run = ducts.tree.path(ducts.paths.index)
    return Node(
        _RUNS[network],
        ducts.paths.index_loss_pa,
        "pressure",
        formula="sum of the sections on the path with the largest loss",
        numbers=addition([ducts.sections[s].loss_pa for s in run], "pressure"),
        inputs=tuple(_section(sections[s], ducts.sections[s]) for s in run),
    )


def fan_power(results: BuildingResults, system_id: str, share: float = 1.0) -> Node:
    """Electricity of the supply fan at a share of its design flow [-]."""
    system = next(s for s in results.building.systems if s.id == system_id)
    fan = results.systems[system_id].fan
    curve = curve_of(system, fan)
    point = next(point for point in curve.points() if point.share == share)
    held = curve.held_pa
    pressure = Node(
        "Total pressure there",
        point.total_pa,
        "pressure",
        formula="held + (design − held) × share²" if held else "design × share²",
        numbers=(f"{held:.4g} + " if held else "") + f"{curve.design_pa - held:.4g} Pa × {share:.3g}²",
        inputs=(
            Node("At design, dirty filters", curve.design_pa, "pressure"),
            *(
                (Node("Held by the control", held, "pressure", ref=f"air_system/{system.drawn}/held_pa"),)
                if held
                else ()
            ),
        ),
    )
    return Node(
        f"{system.name}: supply fan at {share:.0%} of its flow",
        point.electrical_w,
        "electric_power",
        "P",
        formula="flow × total pressure / (fan efficiency × motor efficiency)",
        numbers=f"{point.flow_m3_s:.4g} m³/s × {point.total_pa:.4g} Pa / ({curve.efficiency:.3g} × {curve.motor_efficiency:.3g})",
        note="Efficiencies stay; all of it warms the air.",
        inputs=(
            Node("Flow at the fan's inlet", point.flow_m3_s, "airflow"),
            pressure,
            Node("Fan efficiency", curve.efficiency, "percent", ref=f"air_system/{system.drawn}/fan_efficiency"),
            Node(
                "Motor and drive", curve.motor_efficiency, "percent", ref=f"air_system/{system.drawn}/motor_efficiency"
            ),
        ),
    )


def fan_static(results: BuildingResults, system_id: str) -> Node:
    """The supply fan's static pressure."""
    system = next(s for s in results.building.systems if s.id == system_id)
    result = results.systems[system_id]
    fan = result.fan
    before: tuple[Node, ...] = ()
    names = (OUTDOOR, RETURN) if system.draws_return else (OUTDOOR,)
    if any(name in result.lanes for name in names):
        drawn = tuple(_index_run(system, result, name) for name in names if name in result.lanes)
        before = (
            Node(
                "Drawn through before the mixing",
                in_front_pa(result.lanes, system.draws_return),
                "pressure",
                formula="the larger of outdoor and return ducts" if len(drawn) > 1 else "",
                note="Both meet at one pressure in the mixing." if len(drawn) > 1 else "",
                inputs=drawn,
            ),
        )
    index = _index_run(system, result, SUPPLY)
    unit = tuple(
        Node(
            part.kind.capitalize(),
            part.drop_pa,
            "pressure",
            note=""
            if part.clean_pa is None
            else f"Dirty; new {part.clean_pa:.0f} Pa. The year counts the mean of both.",
            ref=f"air_system/{system.drawn}/parts",
        )
        for part in system.fitted
        if part.drop_pa > 0.0
    )
    dynamic = fan.total_pa - fan.static_pa
    velocity = Node(
        "Outlet velocity", system.outlet_velocity_m_s, "velocity", ref=f"air_system/{system.drawn}/outlet_velocity_m_s"
    )
    return Node(
        f"{system.name}: fan static pressure",
        fan.static_pa,
        "pressure",
        "ps",
        formula="index run + unit + before the mixing − dynamic pressure at the outlet",
        numbers=addition([n.value or 0.0 for n in (index, *unit, *before)] + [-dynamic], "pressure"),
        inputs=(
            index,
            *unit,
            *before,
            Node("Dynamic pressure at the fan outlet", dynamic, "pressure", formula="ρ v² / 2", inputs=(velocity,)),
        ),
    )


def return_pressure(results: BuildingResults, system_id: str) -> Node:
    """What return and exhaust ducts take, beside what the return fan gives.

    Raises:
        KeyError: neither is drawn.
    """
    system = next(s for s in results.building.systems if s.id == system_id)
    result = results.systems[system_id]
    runs = [_index_run(system, result, name) for name in (RETURN, EXHAUST) if name in result.lanes]
    if not runs:
        raise KeyError(system_id)
    return Node(
        f"{system.name}: return and exhaust ducts",
        behind_pa(result.lanes),
        "pressure",
        "p",
        formula="return + exhaust, index runs",
        numbers=addition([run.value or 0.0 for run in runs], "pressure"),
        note="Flows are of air of 20 °C: the most that comes back from each room, and what is let out.",
        inputs=(
            *runs,
            Node(
                "Return fan, total pressure",
                system.return_fan_pa,
                "pressure",
                ref=f"air_system/{system.drawn}/return_fan_pa",
            ),
        ),
    )
