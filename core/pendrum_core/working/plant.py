"""Working of emitters, plants and expansion vessels."""

import numpy as np

from pendrum_core.model.climate import day_number
from pendrum_core.model.plant import CONDENSER, HEAT_PUMP, KINDS
from pendrum_core.model.systems import BY_AREA, PANELS, Circuit, Section
from pendrum_core.plant.seasonal import season_of
from pendrum_core.plant.source import by_flow
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.vessels import FILL_C, highest_c, initial_pa, vessel_of, water_content_m3
from pendrum_core.water.emitters import rated_of
from pendrum_core.water.network import section_lost_w
from pendrum_core.water.pipes import series_of
from pendrum_core.working.node import Node, addition, figure


def _circuit(results: BuildingResults, circuit_id: str) -> Circuit:
    return next(c for c in results.building.circuits if c.id == circuit_id)


def emitter_rating(results: BuildingResults, room_id: str) -> Node:
    """Rating of a room's radiator."""
    found, room = results.emitters[room_id], results.rooms[room_id].room
    circuit = next(
        c for c in results.building.circuits if c.kind == "heating" and any(s.end == room_id for s in c.sections)
    )
    rated, panels = rated_of(circuit), circuit.emitters == PANELS
    air = room.heating_setpoint_c
    excess = (circuit.return_c - air) / (circuit.flow_c - air)
    return Node(
        f"{room.number} {room.name}: rating {'of its panels' if panels else 'of its radiator'} at {rated.flow_c:g}/{rated.return_c:g}/{rated.room_c:g}",
        found.rating_w,
        "load",
        formula="duty / (ΔT / ΔT rated)^n",
        numbers=f"{figure(found.duty_w, 'load')} / {found.factor:.4g}",
        source="EN 14037-2:2016" if panels else "EN 442-2:2014",
        note=f"By the {found.rule} mean: (return − room)/(flow − room) is {excess:.2f}, "
        f"{'below' if found.rule == 'logarithmic' else 'not below'} 0.7.",
        inputs=(
            Node("Duty", found.duty_w, "load", formula="heating load, less what the air brings, with its margin"),
            Node("Flow", circuit.flow_c, "temperature", ref=f"circuit/{circuit.id}/flow_c"),
            Node("Return", circuit.return_c, "temperature", ref=f"circuit/{circuit.id}/return_c"),
            Node("Room", air, "temperature", ref=f"room/{room_id}/heating_setpoint_c"),
            Node("Exponent", rated.exponent, "ratio", "n", ref=f"circuit/{circuit.id}/rated_exponent"),
            Node(
                "Needed by the logarithmic mean",
                found.logarithmic_w,
                "load",
                formula=f"rated at {rated.excess_k(True):.2f} K",
            ),
            Node(
                "Needed by the arithmetic mean",
                found.arithmetic_w,
                "load",
                formula=f"rated at {rated.excess_k(False):.2f} K",
            ),
            Node("Chosen, next of the series", found.chosen_w, "load"),
            *(
                (
                    Node(
                        "Length of the chosen panels",
                        found.length_m,
                        "length",
                        formula="output chosen / output of a metre, in half metres",
                        inputs=(
                            Node(
                                "Output of a metre",
                                circuit.panel_w_m,
                                "heat_per_length",
                                ref=f"circuit/{circuit.id}/panel_w_m",
                            ),
                        ),
                    ),
                )
                if panels
                else ()
            ),
            Node("Return with the chosen one", found.chosen_return_c, "temperature"),
        ),
    )


def plant_load(results: BuildingResults, circuit_id: str) -> Node:
    """Load that a circuit's units are sized for."""
    circuit, plant = _circuit(results, circuit_id), results.plants[circuit_id]
    peak, month, step = plant.course.peak
    ends_w = plant.course.winter_ends_w[0, step] if month is None else plant.course.summer_ends_w[month, step]
    hot_w = float(plant.course.hot_w[step])
    lost_w = results.circuits[circuit_id].pipes_lose_w if circuit_id in results.circuits else 0.0
    when = "the winter day" if month is None else MONTHS[day_number(results.building.climate.months[month]) - 1]
    margin = results.building.margins.heating if circuit.kind == "heating" else results.building.margins.cooling
    field = "heating_margin" if circuit.kind == "heating" else "cooling_margin"
    units = tuple(
        Node(
            unit.name,
            capacity,
            "load",
            formula="pinned" if unit.capacity_w is not None else "share × design load",
            numbers="" if unit.capacity_w is not None else f"{unit.share:.0%} × {figure(plant.design_w, 'load')}",
            ref=f"plant_unit/{unit.id}/{'capacity_w' if unit.capacity_w is not None else 'share'}",
            note="standby" if unit.standby else "",
        )
        for unit, capacity in zip(circuit.units, plant.capacity_w, strict=True)
    )
    back_w = float(
        plant.course.back_winter_w[..., step].max()
        if month is None
        else np.broadcast_to(plant.course.back_summer_w, plant.course.summer_w.shape)[month, step]
    )
    lost = (
        "largest coincident load × (1 + losses)"
        if circuit.loses_a_share
        else "largest coincident load + losses of the pipes"
    )
    numbers = (
        f"{figure(float(ends_w), 'load')} × (1 + {circuit.lost_share:.3g})"
        if circuit.loses_a_share
        else f"{figure(float(ends_w), 'load')} + {figure(lost_w, 'load')}"
    )
    if back_w:
        lost, numbers = f"{lost} − given back by the pipes", f"{numbers} − {figure(back_w, 'load')}"
    if hot_w:
        lost, numbers = (
            "largest of ends with losses and of hot water, together as their priority says",
            figure(peak, "load"),
        )
    return Node(
        f"{circuit.name}: design load",
        plant.design_w,
        "load",
        formula=f"({lost}) × (1 + margin)",
        numbers=f"({numbers}) × (1 + {margin:.3g})",
        note=f"On {when} at {clock(step)}: searched over the winter day and every step of the design days, never the sum of peaks.",
        inputs=(
            Node("What the ends ask together then", float(ends_w), "load"),
            *(
                (Node("Given back to rooms by the pipes then", back_w, "load", ref=f"circuit/{circuit.id}/loss_to"),)
                if back_w
                else ()
            ),
            *((Node("Hot water then", hot_w, "load"),) if hot_w else ()),
            Node("Lost on the way", circuit.loss_share, "percent", ref=f"circuit/{circuit.id}/loss_share")
            if circuit.loses_a_share
            else pipes_lose(results, circuit_id),
            Node("Margin", margin, "percent", ref=f"project//{field}"),
            *units,
            Node("With the largest unit out", plant.without_largest_w, "load"),
        ),
    )


def pipes_lose(results: BuildingResults, circuit_id: str) -> Node:
    """What a circuit's insulated pipes lose, or take in, at the design temperatures.

    Raises:
        KeyError: its losses are stated as a share, or it has no result.
    """
    circuit, found = _circuit(results, circuit_id), results.circuits[circuit_id]
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


def pipes_give(results: BuildingResults, room_id: str) -> Node:
    """What the pipes of a room's heating circuit give it at most.

    Raises:
        KeyError: they give it nothing.
    """
    circuit_id, watts = max(
        ((of, watts) for (of, room), watts in results.given_back_w.items() if room == room_id),
        key=lambda it: it[1],
        default=("", 0.0),
    )
    if not circuit_id:
        raise KeyError(room_id)
    circuit, room = _circuit(results, circuit_id), results.rooms[room_id].room
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


def plant_input(results: BuildingResults, unit_id: str) -> Node:
    """What a unit takes at its plant's largest load."""
    circuit = next(c for c in results.building.circuits if any(u.id == unit_id for u in c.units))
    plant = results.plants[circuit.id]
    place = next(i for i, u in enumerate(circuit.units) if u.id == unit_id)
    row = plant.working.index(place)
    unit, (_, month, step) = circuit.units[place], plant.course.peak
    staged, day = (plant.winter, 0) if month is None else (plant.summer, month)
    output, taken = float(staged.output_w[row, day, step]), float(staged.fuel_w[row, day, step])
    ratio = plant.gross_over_net[row]
    kind = KINDS[unit.kind]
    where = kind.of
    water = plant.winter_return_c if month is None else plant.return_c
    condenser = plant.rejected.water_c if plant.rejected is not None and month is not None else None
    flow_then = float((plant.winter_flow_c if month is None else plant.flow_c)[day, step])
    factor = float(by_flow(unit, np.array(flow_then)))
    works_at = (
        Node("Condenser water then", float(condenser[day, step]), "temperature")
        if kind.of == CONDENSER and condenser is not None
        else Node("Return then", float(water[day, step]), "temperature")
    )
    pairs = (
        ("full", "cool", kind.cool_c),
        ("full", "warm", kind.warm_c),
        ("part", "cool", kind.cool_c),
        ("part", "warm", kind.warm_c),
    )
    return Node(
        f"{circuit.name}, {unit.name}: {'fuel, net' if ratio != 1.0 else 'taken'}",
        taken,
        "load",
        formula="output / efficiency" if factor == 1.0 else "output / (efficiency × what its water makes of it)",
        numbers=f"{figure(output, 'load')} / {output / taken if taken else 0.0:.4g}",
        source="EN 15316-4-1 (structure); bilinear over part load and temperature, held at the edges",
        note=f"Gross value: {figure(taken * ratio, 'load')} (× {ratio:g})." if ratio != 1.0 else "",
        inputs=(
            Node("Output", output, "load"),
            Node("Part load", output / max(plant.capacity_w[place], 1e-9), "percent"),
            works_at,
            *(
                ()
                if factor == 1.0
                else (
                    Node(
                        "What its water makes of it",
                        factor,
                        "ratio",
                        formula="1 − share a kelvin × kelvins from what it is told for",
                        numbers=f"1 − {unit.flow_share_k:.3g} × {figure(abs(flow_then - unit.told_flow_c), 'temperature_difference')}",
                        note=f"Flow then {figure(flow_then, 'temperature')}.",
                        ref=f"plant_unit/{unit.id}/flow_share_k",
                    ),
                )
            ),
            *(
                Node(
                    f"Efficiency at {'full load' if load == 'full' else '30 % load'}, {where} {t:g} °C",
                    getattr(unit, f"{load}_{end}"),
                    "ratio",
                    ref=f"plant_unit/{unit.id}/{load}_{end}",
                )
                for load, end, t in pairs
            ),
        ),
    )


def unit_seasonal(results: BuildingResults, unit_id: str) -> Node:
    """A heat pump's SCOPon or a chiller's SEERon, bin by bin.

    Raises:
        KeyError: the unit does not work against outdoor air, or has no capacity.
    """
    circuit = next(c for c in results.building.circuits if any(u.id == unit_id for u in c.units))
    place = next(i for i, u in enumerate(circuit.units) if u.id == unit_id)
    unit, capacity = circuit.units[place], results.plants[circuit.id].capacity_w[place]
    season = season_of(unit, capacity) if capacity > 0.0 else None
    if season is None:
        raise KeyError(unit_id)
    given, taken = (float((season.hours * watts).sum()) / 1000.0 for watts in (season.output_w, season.taken_w))
    bins = tuple(
        Node(
            f"{outdoor:g} °C, {hours:g} h",
            output,
            "load",
            numbers=f"part load {output / capacity:.2f}, takes {figure(power, 'load')}: {output / power:.3g}",
        )
        for outdoor, hours, output, power in zip(
            season.outdoor_c.tolist(),
            season.hours.tolist(),
            season.output_w.tolist(),
            season.taken_w.tolist(),
            strict=True,
        )
    )
    return Node(
        f"{circuit.name}, {unit.name}: {'SCOP' if unit.kind == HEAT_PUMP else 'SEER'} on",
        season.figure,
        "ratio",
        formula="Σ hours × output / Σ hours × taken",
        numbers=f"{given:.0f} kWh / {taken:.0f} kWh",
        source="EN 14825:2022, reference heating season “average”"
        if unit.kind == HEAT_PUMP
        else "EN 14825:2022, cooling season",
        note="The machine for itself: nought at 16 °C, its capacity at "
        f"{-10 if unit.kind == HEAT_PUMP else 35} °C outdoors; efficiencies of its four points, with auxiliaries while it runs.",
        inputs=bins,
    )


def buffer_store(results: BuildingResults, circuit_id: str) -> Node:
    """Volume of a circuit's buffer.

    Raises:
        KeyError: it has none.
    """
    circuit = _circuit(results, circuit_id)
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
        ),
    )


def expansion_vessel(results: BuildingResults, circuit_id: str) -> Node:
    """A circuit's expansion vessel."""
    circuit = _circuit(results, circuit_id)
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
