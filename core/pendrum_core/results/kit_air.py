"""Kit of air systems: fans, parts of the unit, terminals, ducts of all networks; extract fans of rooms."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from pendrum_core.air.coil_size import CoilSize
from pendrum_core.air.result import AirSystemResult
from pendrum_core.air.terminal_fans import fans_in
from pendrum_core.duct.shapes import Shape
from pendrum_core.model.catalogue import FAN
from pendrum_core.model.systems import CENTRAL, ROOM_UNIT, SUPPLY, AirSystem, Terminal
from pendrum_core.model.unit_parts import ATTENUATOR, COOLING_COIL, FILTER, HEATING_COIL
from pendrum_core.plant.motors import next_motor_w
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.kit_item import NEXT_MOTOR, Buying, Choice, Duty, KitItem, fitting_lines, motor, when

Array = NDArray[np.float64]
_AT_MOST = "All that flows at one time at most"


class _Unit:
    """Lines of one system or set: its pieces are named after it and belong to it."""

    def __init__(self, results: BuildingResults, system: AirSystem) -> None:
        self.system, self.results = system, results
        self.result: AirSystemResult = results.systems[system.id]

    def piece(
        self,
        code: str,
        item: str,
        duties: Sequence[Duty],
        choice: Choice | None = None,
        *,
        lane: str = "",
        state: str = "sized",
        power_w: float = 0.0,
        count: int = 1,
        weight_kg: float | None = None,
    ) -> KitItem:
        """A line of it; `lane` tells its other networks from the supply."""
        found = choice or Choice("")
        name = f"{self.system.name} {lane}".strip()
        return KitItem(
            0,
            self.system.id,
            code=f"{lane} {code}".strip(),
            tag=f"{name} {code}",
            item=item,
            serves=name,
            duties=tuple(duties),
            size=found.size,
            why=found.why,
            count=count,
            power_w=power_w,
            weight_kg=found.weight_kg(count) if weight_kg is None else weight_kg,
            state=state,
        )

    def largest(self, what: str, summer: Array, winter: Array, quantity: str = "load") -> Duty:
        """The largest of summer's days and the winter day, and when that is."""
        months = len(self.results.building.climate.months)
        warm = np.broadcast_to(summer, (months, summer.shape[-1]))
        cold = np.broadcast_to(winter, (1, winter.shape[-1]))
        if float(cold.max()) >= float(warm.max()):
            return Duty(what, float(cold.max()), quantity, when(self.results, None, int(cold[0].argmax())))
        month, step = (int(i) for i in np.unravel_index(int(warm.argmax()), warm.shape))
        return Duty(what, float(warm[month, step]), quantity, when(self.results, month, step))


def system_kit(
    results: BuildingResults, system: AirSystem, coils: Iterable[CoilSize], buying: Buying
) -> Iterator[KitItem]:
    """All of one system or set."""
    unit = _Unit(results, system)
    yield from _fans(unit, buying)
    yield from _parts(unit, list(coils))
    yield from _terminals(unit)
    for network in unit.result.networks:
        yield from _ducts(unit, network)


def _fan(unit: _Unit, code: str, item: str, duties: tuple[Duty, Duty], shaft_w: float, choice: Choice) -> KitItem:
    """A fan with its motor; `duties` are flow and pressure."""
    flow, pressure = duties
    row = choice.row
    chosen_w = next_motor_w(shaft_w, unit.system.motor_margin, unit.system.sizes.motors_w)
    shaft = Duty(
        "Shaft power", shaft_w, "electric_power", _AT_MOST, unit.system.motor_margin, chosen=None if row else chosen_w
    )
    if row is not None:
        flow, pressure = replace(flow, chosen=row.flow_m3_s), replace(pressure, chosen=row.pressure_pa)
    return unit.piece(code, item, (flow, pressure, shaft), choice)


def _fans(unit: _Unit, buying: Buying) -> Iterator[KitItem]:
    r, system = unit.result, unit.system
    fan = r.fan
    at = unit.largest("", r.summer.fan_m3_s, r.winter.fan_m3_s).when
    choice = buying.choose(FAN, motor(fan.motor_w), why=NEXT_MOTOR, flow_m3_s=fan.flow_m3_s, pressure_pa=fan.static_pa)
    duties = (
        Duty("Flow, the largest coincident", fan.flow_m3_s, "airflow", at),
        Duty("Static pressure", fan.static_pa, "pressure", "Flow of design, dirty filters"),
    )
    line = _fan(unit, "SF", "Supply fan, flow and static pressure", duties, fan.shaft_w, choice)
    yield replace(line, power_w=fan.electrical_w)
    if system.return_fan_pa > 0.0 and r.return_m3_s > 0.0:
        flow, power = r.return_m3_s, float(max(r.summer.return_fan_w.max(), r.winter.return_fan_w.max()))
        shaft_w = flow * system.return_fan_pa / system.fan_efficiency
        chosen = next_motor_w(shaft_w, system.motor_margin, system.sizes.motors_w)
        duties = (
            Duty("Flow", flow, "airflow", _AT_MOST),
            Duty("Total pressure", system.return_fan_pa, "pressure", "As entered"),
        )
        choice = Choice(motor(chosen), why=NEXT_MOTOR)
        line = _fan(unit, "RF", "Return fan, flow and total pressure", duties, shaft_w, choice)
        yield replace(line, power_w=power, state="pinned")


def _built(coils: Iterable[CoilSize], kind: str) -> tuple[Choice, str, float | None]:
    """How a coil is built, whether its rows are pinned, and what they give, as far as it is known what flows in it."""
    found = [coil for coil in coils if coil.kind == kind]
    size = "; ".join(f"{coil.rows} rows, face {coil.face_m2:.2f} m²" for coil in found)
    why = "Face by its largest velocity; the fewest rows that give the duty and the bypass." if found else ""
    state = "pinned" if any(coil.pinned for coil in found) else "sized"
    return Choice(size, why=why), state, found[0].capacity_w if len(found) == 1 else None


def _parts(unit: _Unit, coils: list[CoilSize]) -> Iterator[KitItem]:
    """Coils, recovery, humidifier, filters and attenuators of the unit."""
    r, system, results = unit.result, unit.system, unit.results
    still = np.zeros((1, r.coil_total_w.shape[-1]))
    if system.cools:
        choice, state, gives_w = _built(coils, COOLING_COIL)
        total = unit.largest("Total", r.coil_total_w, still)
        duties = [
            replace(total, chosen=gives_w),
            unit.largest("Sensible", r.coil_sensible_w, still),
            unit.largest("Condensate", r.condensate_kg_s, still, "condensate"),
        ]
        yield unit.piece("CC", "Cooling coil, total and sensible", duties, choice, state=state)
    if any(part.heat_w is not None for part in r.winter.parts):
        choice, state, gives_w = _built(coils, HEATING_COIL)
        duty = unit.largest("Duty", r.summer.heating_w + r.summer.reheat_w, r.winter.heating_w)
        step = int(np.argmax(r.winter.heated_c))
        leaving = Duty(
            "Leaving air", float(r.winter.heated_c.max()), "temperature", when(results, None, step % still.shape[-1])
        )
        yield unit.piece(
            "HC", "Heating coil, duty and leaving air", (replace(duty, chosen=gives_w), leaving), choice, state=state
        )
    recovered = r.winter.recovered
    if recovered is not None:
        duties = [
            Duty("Outdoor air", r.least_outdoor_kg_s * r.volume_m3_kg, "airflow", "The least while all of it runs"),
            unit.largest("Heat recovered", still, r.winter.outdoor_kg_s * recovered.recovered_j_kg),
        ]
        size = f"{system.recovery_sensible:.0%} of heat, {system.recovery_latent:.0%} of moisture"
        item = "Heat recovery, outdoor air and heat recovered on the winter day"
        yield unit.piece("HR", item, duties, Choice(size, why="Effectiveness as entered."))
    if float(r.winter.preheat_w.max()) > 0.0:
        yield unit.piece("PH", "Preheater against frost", [unit.largest("Duty", still, r.winter.preheat_w)])
    if system.humidifier != "none":
        steam = unit.largest("Water", still, r.winter.flow_kg_s * r.winter.humidified_kg_kg, "condensate")
        yield unit.piece("HU", f"Humidifier, {system.humidifier}", [steam])
    for kind, tag in ((FILTER, "FI"), (ATTENUATOR, "AT")):
        for number, part in enumerate((part for part in system.fitted if part.kind == kind), 1):
            duties = [
                Duty("Flow", r.fan.flow_m3_s, "airflow", _AT_MOST),
                Duty("Pressure drop", part.drop_pa, "pressure", "As entered"),
            ]
            item = f"{kind.capitalize()}, flow and pressure drop"
            yield unit.piece(f"{tag}{number}", item, duties, state="pinned")


def _terminals(unit: _Unit) -> Iterator[KitItem]:
    r, system = unit.result, unit.system
    winter = np.asarray(np.sum([room.winter_reheat_w for room in r.served.values()], axis=0, dtype=np.float64))
    winter = np.atleast_2d(winter)
    worst = unit.largest("All rooms together", r.reheat_w, winter)
    if worst.value > 1.0:
        of_unit = system.kind == ROOM_UNIT
        yield unit.piece(
            "HC" if of_unit else "RH",
            f"Heating coil of the room unit, {system.reheat}"
            if of_unit
            else f"Terminal reheat, {system.reheat}, all rooms together; on the winter day",
            [worst, unit.largest("On the winter day", np.zeros_like(winter), winter)],
            power_w=worst.value if system.reheat == "electric" else 0.0,
            count=1 if of_unit else 0,
        )
    fan = f", fan in {fans_in(system)}" if fans_in(system) else ""
    kinds: dict[str, list[Terminal]] = defaultdict(list)
    for terminal in system.terminals:
        if terminal.room in r.airflows:
            moves = "variable" if system.follows_load and not terminal.constant else "constant"
            reheated = ", reheat" if terminal.reheats and system.reheat != "none" and system.kind == CENTRAL else ""
            kinds[f"{moves} flow{reheated}{fan}"].append(terminal)
    for number, (kind, terminals) in enumerate(sorted(kinds.items()), 1):
        flows = [r.airflows[terminal.room] for terminal in terminals]
        pinned = sum(flow.governing == "pinned" for flow in flows)
        yield unit.piece(
            f"T{number}",
            f"Supply terminals, {kind}: together, and how many",
            [
                Duty("Sum of design flows", sum(flow.design_m3_s for flow in flows), "airflow", "Each at its own time"),
                Duty("Terminals", float(len(terminals)), "count"),
            ],
            Choice(f"{sum(terminal.outlets for terminal in terminals)} outlets"),
            power_w=sum(r.served[terminal.room].fan_w for terminal in terminals if terminal.room in r.served),
            state=f"{pinned} pinned" if pinned else "sized",
            count=len(terminals),
        )


def _ducts(unit: _Unit, network: str) -> Iterator[KitItem]:
    """Lengths, sheet and fittings of a network; those of the supply have no name of theirs."""
    system, sized = unit.system, unit.result.networks[network]
    sections = [section for section in system.sections if section.network == network]
    lane = "" if network == SUPPLY else network
    runs: dict[Shape, list[float]] = defaultdict(lambda: [0.0, 0.0, 0.0])
    for section in sections:
        found = sized.sections[section.id]
        totals = runs[found.shape]
        for i, value in enumerate((section.length_m, found.sheet_m2, found.sheet_kg)):
            totals[i] += value
    for shape, (length, sheet, mass) in sorted(runs.items(), key=lambda item: (item[0].kind, item[0].area_m2)):
        yield unit.piece(
            # A rectangular and an oval duct may have one size.
            f"{'O' if shape.kind == 'flat oval' else 'D'}{shape.size}",
            f"{shape.kind.capitalize()} duct, length and sheet",
            [Duty("Length", length, "length"), Duty("Sheet", sheet, "area")],
            Choice(f"{shape.size} mm, {shape.sheet_m * 1000:g} mm sheet"),
            count=0,
            lane=lane,
            weight_kg=mass,
        )
    if sized.insulation_m2 > 0.0:
        yield unit.piece(
            "DI",
            "Duct insulation, area on its outside and thickness",
            [
                Duty("On its outside", sized.insulation_m2, "area"),
                Duty("Thickness", system.duct_insulation_m or 0.0, "thickness", "As entered"),
            ],
            lane=lane,
            count=0,
        )
    sizes = {section.id: f"{sized.sections[section.id].shape.size} mm" for section in sections}
    yield from fitting_lines(0, system.id, f"{system.name} {lane}".strip(), sections, sizes, lane)


def extract_kit(results: BuildingResults) -> Iterator[KitItem]:
    """Fans of extracts that are no unit's."""
    rooms = {room.id: room for room in results.building.rooms}
    for extract in results.building.extracts:
        if not extract.by_unit and extract.room in rooms:
            room = rooms[extract.room]
            yield KitItem(
                0,
                extract.id,
                code="EF",
                tag=f"{room.number} EF {extract.name}",
                item="Extract fan, flow and total pressure",
                serves=f"{room.number} {room.name}",
                duties=(
                    Duty("Flow", extract.flow_m3_s, "airflow", "While it runs"),
                    Duty("Total pressure", extract.fan_pa, "pressure", "As entered"),
                ),
                power_w=extract.flow_m3_s * extract.fan_pa / extract.fan_efficiency,
            )
