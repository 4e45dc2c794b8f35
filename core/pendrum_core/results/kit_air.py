"""Kit of air systems: fans, parts of the unit, terminals, ducts of all networks; extract fans of rooms."""

from collections import defaultdict
from collections.abc import Iterable, Iterator

import numpy as np

from pendrum_core.air.coil_size import CoilSize
from pendrum_core.air.result import AirSystemResult
from pendrum_core.duct.shapes import Shape
from pendrum_core.model.catalogue import FAN
from pendrum_core.model.systems import CENTRAL, SUPPLY, AirSystem, Terminal
from pendrum_core.model.unit_parts import ATTENUATOR, COOLING_COIL, FILTER, HEATING_COIL
from pendrum_core.plant.motors import next_motor_w
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit_item import Buying, KitItem, fitting_lines, motor


def system_kit(system: AirSystem, r: AirSystemResult, coils: Iterable[CoilSize], buying: Buying) -> Iterator[KitItem]:
    """All of one system."""
    yield from _fans(system, r, buying)
    yield from _parts(system, r, coils)
    yield from _terminals(system, r)
    for network in r.networks:
        yield from _ducts(system, r, network)


def _fans(system: AirSystem, r: AirSystemResult, buying: Buying) -> Iterator[KitItem]:
    yield KitItem(
        0,
        system.id,
        tag=f"{system.name} SF",
        item="Supply fan, flow and static pressure",
        serves=system.name,
        duty=r.fan.flow_m3_s,
        duty_quantity="airflow",
        second=r.fan.static_pa,
        second_quantity="pressure",
        size=buying.named(FAN, motor(r.fan.motor_w), flow_m3_s=r.fan.flow_m3_s, pressure_pa=r.fan.static_pa),
        power_w=r.fan.electrical_w,
    )
    if system.return_fan_pa > 0.0 and r.return_m3_s > 0.0:
        flow, power = r.return_m3_s, float(max(r.summer.return_fan_w.max(), r.winter.return_fan_w.max()))
        chosen = next_motor_w(
            flow * system.return_fan_pa / system.fan_efficiency, system.motor_margin, system.sizes.motors_w
        )
        yield KitItem(
            0,
            system.id,
            tag=f"{system.name} RF",
            item="Return fan, flow and total pressure",
            serves=system.name,
            duty=flow,
            duty_quantity="airflow",
            second=system.return_fan_pa,
            second_quantity="pressure",
            size=motor(chosen),
            power_w=power,
            state="pinned",
        )


def _built(coils: Iterable[CoilSize], kind: str) -> tuple[str, str]:
    """How a coil is built and whether its rows are pinned, as far as it is known what flows in it."""
    found = [coil for coil in coils if coil.kind == kind]
    size = "; ".join(f"{coil.rows} rows, face {coil.face_m2:.2f} m²" for coil in found)
    return size, "pinned" if any(coil.pinned for coil in found) else "sized"


def _parts(system: AirSystem, r: AirSystemResult, coils: Iterable[CoilSize]) -> Iterator[KitItem]:
    """Coils, recovery, humidifier, filters and attenuators of the unit."""
    name = system.name
    if system.cools:
        month, step = r.peak
        size, state = _built(coils, COOLING_COIL)
        yield KitItem(
            0,
            system.id,
            tag=f"{name} CC",
            item="Cooling coil, total and sensible",
            serves=name,
            duty=float(r.coil_total_w[month, step]),
            duty_quantity="load",
            second=float(r.coil_sensible_w[month, step]),
            second_quantity="load",
            size=size,
            state=state,
        )
    if any(part.heat_w is not None for part in r.winter.parts):
        size, state = _built(coils, HEATING_COIL)
        yield KitItem(
            0,
            system.id,
            tag=f"{name} HC",
            item="Heating coil, duty and leaving air",
            serves=name,
            duty=r.heating_coil_w,
            duty_quantity="load",
            second=float(r.winter.heated_c.max()),
            second_quantity="temperature",
            size=size,
            state=state,
        )
    recovered = r.winter.recovered
    if recovered is not None:
        yield KitItem(
            0,
            system.id,
            tag=f"{name} HR",
            item="Heat recovery, outdoor air and heat recovered on the winter day",
            serves=name,
            duty=r.least_outdoor_kg_s * r.volume_m3_kg,
            duty_quantity="airflow",
            second=float((r.winter.outdoor_kg_s * recovered.recovered_j_kg).max()),
            second_quantity="load",
            size=f"{system.recovery_sensible:.0%} of heat, {system.recovery_latent:.0%} of moisture",
        )
    if float(r.winter.preheat_w.max()) > 0.0:
        yield KitItem(
            0,
            system.id,
            tag=f"{name} PH",
            item="Preheater against frost",
            serves=name,
            duty=float(r.winter.preheat_w.max()),
            duty_quantity="load",
        )
    if system.humidifier != "none":
        yield KitItem(
            0,
            system.id,
            tag=f"{name} HU",
            item=f"Humidifier, {system.humidifier}",
            serves=name,
            duty=float((r.winter.flow_kg_s * r.winter.humidified_kg_kg).max()),
            duty_quantity="condensate",
        )
    for kind, tag in ((FILTER, "FI"), (ATTENUATOR, "AT")):
        for number, part in enumerate((part for part in system.fitted if part.kind == kind), 1):
            yield KitItem(
                0,
                system.id,
                tag=f"{name} {tag}{number}",
                item=f"{kind.capitalize()}, flow and pressure drop",
                serves=name,
                duty=r.fan.flow_m3_s,
                duty_quantity="airflow",
                second=part.drop_pa,
                second_quantity="pressure",
                state="pinned",
            )


def _terminals(system: AirSystem, r: AirSystemResult) -> Iterator[KitItem]:
    name = system.name
    winter = float(np.sum([room.winter_reheat_w for room in r.served.values()], axis=0).max())
    reheat = max(float(r.reheat_w.max()), winter)
    if reheat > 1.0:
        yield KitItem(
            0,
            system.id,
            tag=f"{name} RH",
            item=f"Terminal reheat, {system.reheat}, all rooms together; on the winter day",
            serves=name,
            duty=reheat,
            duty_quantity="load",
            second=winter,
            second_quantity="load",
            power_w=reheat if system.reheat == "electric" else 0.0,
        )
    kinds: dict[str, list[Terminal]] = defaultdict(list)
    for terminal in system.terminals:
        if terminal.room in r.airflows:
            moves = "variable" if system.follows_load and not terminal.constant else "constant"
            reheated = ", reheat" if terminal.reheats and system.reheat != "none" and system.kind == CENTRAL else ""
            kinds[f"{moves} flow{reheated}"].append(terminal)
    for number, (kind, terminals) in enumerate(sorted(kinds.items()), 1):
        flows = [r.airflows[terminal.room] for terminal in terminals]
        pinned = sum(flow.governing == "pinned" for flow in flows)
        yield KitItem(
            0,
            system.id,
            tag=f"{name} T{number}",
            item=f"Supply terminals, {kind}: together, and how many",
            serves=name,
            duty=sum(flow.design_m3_s for flow in flows),
            duty_quantity="airflow",
            second=float(len(terminals)),
            second_quantity="count",
            size=f"{sum(terminal.outlets for terminal in terminals)} outlets",
            state=f"{pinned} pinned" if pinned else "sized",
        )


def _ducts(system: AirSystem, r: AirSystemResult, network: str) -> Iterator[KitItem]:
    """Lengths, sheet and fittings of a network; those of the supply have no name of theirs."""
    sized = r.networks[network]
    sections = [section for section in system.sections if section.network == network]
    name = system.name if network == SUPPLY else f"{system.name} {network}"
    runs: dict[Shape, list[float]] = defaultdict(lambda: [0.0, 0.0, 0.0])
    for section in sections:
        found = sized.sections[section.id]
        totals = runs[found.shape]
        for i, value in enumerate((section.length_m, found.sheet_m2, found.sheet_kg)):
            totals[i] += value
    for shape, (length, sheet, mass) in sorted(runs.items(), key=lambda item: (item[0].kind, item[0].area_m2)):
        yield KitItem(
            0,
            system.id,
            tag=f"{name} D{shape.size}",
            item=f"{shape.kind.capitalize()} duct, length and sheet",
            serves=name,
            duty=length,
            duty_quantity="length",
            second=sheet,
            second_quantity="area",
            size=f"{shape.size} mm, {shape.sheet_m * 1000:g} mm sheet, {mass:.0f} kg",
        )
    if sized.insulation_m2 > 0.0:
        yield KitItem(
            0,
            system.id,
            tag=f"{name} DI",
            item="Duct insulation, area on its outside and thickness",
            serves=name,
            duty=sized.insulation_m2,
            duty_quantity="area",
            second=system.duct_insulation_m or 0.0,
            second_quantity="thickness",
        )
    sizes = {section.id: f"{sized.sections[section.id].shape.size} mm" for section in sections}
    yield from fitting_lines(0, system.id, name, sections, sizes)


def extract_kit(results: BuildingResults) -> Iterator[KitItem]:
    """Fans of extracts that are no unit's."""
    rooms = {room.id: room for room in results.building.rooms}
    for extract in results.building.extracts:
        if not extract.by_unit and extract.room in rooms:
            room = rooms[extract.room]
            power = extract.flow_m3_s * extract.fan_pa / extract.fan_efficiency
            yield KitItem(
                0,
                extract.room,
                tag=f"{room.number} EF {extract.name}",
                item="Extract fan, flow and total pressure",
                serves=f"{room.number} {room.name}",
                duty=extract.flow_m3_s,
                duty_quantity="airflow",
                second=extract.fan_pa,
                second_quantity="pressure",
                power_w=power,
            )
