"""Working of emitters, plants and expansion vessels."""

import numpy as np

from pendrum_core.model.climate import day_number
from pendrum_core.model.plant import CONDENSER, GROUND_PUMP, HEAT_PUMPS, KINDS, OUTDOORS, SOURCE, PlantUnit
from pendrum_core.model.systems import PANELS
from pendrum_core.plant.ground import middle_of, source_c, warmth
from pendrum_core.plant.seasonal import season_of
from pendrum_core.plant.source import by_flow
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.extraction import COOLED_K, extraction_of
from pendrum_core.water.emitters import rated_of
from pendrum_core.water.losses import pumps_heat_w
from pendrum_core.working.losses import pipes_lose
from pendrum_core.working.node import Node, figure


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
    circuit, plant = results.drawn(circuit_id), results.plants[circuit_id]
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
    pumps_w = pumps_heat_w(circuit, results.circuits[circuit_id]) if circuit_id in results.circuits else 0.0
    if pumps_w:
        lost, numbers = f"{lost} + heat of the pumps", f"{numbers} + {figure(pumps_w, 'load')}"
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
            *((Node("Heat of the pumps", pumps_w, "load", formula="their shaft power"),) if pumps_w else ()),
            Node("Lost on the way", circuit.loss_share, "percent", ref=f"circuit/{circuit.id}/loss_share")
            if circuit.loses_a_share
            else pipes_lose(results, circuit_id),
            Node("Margin", margin, "percent", ref=f"project//{field}"),
            *units,
            Node("With the largest unit out", plant.without_largest_w, "load"),
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
    kind, southern = KINDS[unit.kind], results.building.climate.site.latitude_deg < 0.0
    where = kind.of
    water = plant.winter_return_c if month is None else plant.return_c
    condenser = plant.rejected.water_c if plant.rejected is not None and month is not None else None
    flow_then = float((plant.winter_flow_c if month is None else plant.flow_c)[day, step])
    factor = float(by_flow(unit, np.array(flow_then)))
    if kind.of == CONDENSER and condenser is not None:
        works_at = Node("Condenser water then", float(condenser[day, step]), "temperature")
    elif kind.of == SOURCE:
        share = (
            0.0 if month is None else float(warmth(middle_of(results.building.climate.months[month].month), southern))
        )
        works_at = Node(
            "From the ground or well then",
            float(source_c(unit, share)),
            "temperature",
            formula="coldest + share of the year × (warmest − coldest)",
            numbers=f"{figure(unit.source_cold_c, 'temperature')} + {share:.2f} × {figure(unit.source_warm_c - unit.source_cold_c, 'temperature_difference')}",
            ref=f"plant_unit/{unit.id}/source_cold_c",
        )
    elif kind.of == OUTDOORS:
        air_c = (
            results.building.climate.winter_dry_bulb_c if month is None else results.outdoors.dry_bulb_c[month, step]
        )
        works_at = Node("Outdoors then", float(air_c), "temperature")
    else:
        works_at = Node("Return then", float(water[day, step]), "temperature")
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
            *(_drawn(unit, plant.extracted_w(row))),
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


def _drawn(unit: PlantUnit, largest_w: float) -> tuple[Node, ...]:
    """The most that a heat pump draws from ground or well, and the flow that it takes."""
    drawn = extraction_of(unit, largest_w)
    if drawn is None:
        return ()
    flow = Node(
        "Flow from ground or well",
        drawn.flow_m3_s,
        "water_flow",
        formula="heat / (ρ c ΔT)",
        numbers=f"cooled by {figure(COOLED_K, 'temperature_difference')}",
        source="EN 14511-2:2022",
        note="Of brine with 25 % ethylene glycol." if unit.kind == GROUND_PUMP else "",
    )
    return (Node("Drawn from it at most", drawn.heat_w, "load", formula="output − power", inputs=(flow,)),)


def unit_seasonal(results: BuildingResults, unit_id: str) -> Node:
    """A heat pump's SCOPon or a chiller's SEERon, bin by bin.

    Raises:
        KeyError: the unit has no season, or no capacity.
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
        f"{circuit.name}, {unit.name}: {'SCOP' if unit.kind in HEAT_PUMPS else 'SEER'} on",
        season.figure,
        "ratio",
        formula="Σ hours × output / Σ hours × taken",
        numbers=f"{given:.0f} kWh / {taken:.0f} kWh",
        source="EN 14825:2022, reference heating season “average”"
        if unit.kind in HEAT_PUMPS
        else "EN 14825:2022, cooling season",
        note="The machine for itself: nought at 16 °C, its capacity at "
        f"{-10 if unit.kind in HEAT_PUMPS else 35} °C outdoors; efficiencies of its four points, with auxiliaries while it runs."
        + (" What comes from ground is 0 °C, from a well 10 °C, throughout." if KINDS[unit.kind].of == SOURCE else ""),
        inputs=bins,
    )
