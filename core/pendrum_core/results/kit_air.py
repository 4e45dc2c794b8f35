"""Kit of air systems: fans, parts of the unit, terminals, ducts of all networks; extract fans of rooms."""

from collections import defaultdict
from collections.abc import Iterator

import numpy as np

from pendrum_core.air.result import AirSystemResult
from pendrum_core.duct.shapes import Shape
from pendrum_core.model.catalogue import FAN
from pendrum_core.model.systems import SUPPLY, AirSystem
from pendrum_core.model.unit_parts import ATTENUATOR, FILTER
from pendrum_core.plant.motors import next_motor_w
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit_item import Buying, KitItem, fitting_lines, motor


def system_kit(system: AirSystem, r: AirSystemResult, buying: Buying) -> Iterator[KitItem]:
    """All of one system."""
    yield from _fans(system, r, buying)
    yield from _parts(system, r)
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
        chosen = next_motor_w(flow * system.return_fan_pa / system.fan_efficiency, system.motor_margin)
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


def _parts(system: AirSystem, r: AirSystemResult) -> Iterator[KitItem]:
    """Coils, recovery, humidifier, filters and attenuators of the unit."""
    name = system.name
    if system.cools:
        month, step = r.peak
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
        )
    if any(part.heat_w is not None for part in r.winter.parts):
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
    pinned = [f for f in r.airflows.values() if f.governing == "pinned"]
    yield KitItem(
        0,
        system.id,
        tag=f"{name} T",
        item=f"Supply terminals, {len(r.airflows)}",
        serves=name,
        duty=r.flow_m3_s,
        duty_quantity="airflow",
        state=f"{len(pinned)} pinned" if pinned else "sized",
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
