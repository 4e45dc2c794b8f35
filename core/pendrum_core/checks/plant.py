"""What in circuits and plants deserves a second look."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.plant import GROSS_OVER_NET, KINDS, TOWER
from pendrum_core.model.systems import UNDERFLOOR, Circuit
from pendrum_core.plant.rejection import Cooler
from pendrum_core.plant.source import LEAST_FACTOR, by_flow
from pendrum_core.results.buffers import buffer_of
from pendrum_core.results.building import BuildingResults
from pendrum_core.results.vessels import vessel_of
from pendrum_core.water.liquid import WATER
from pendrum_core.water.network import liquid_of
from pendrum_core.water.pump import PumpResult

_CLOSE = 0.005
_NOTICED_W = 10.0
_SUCTION_SAFE_M = 0.5
_FAR_ABOVE = 1.3  # over the calculated head with its margin, from which on a pinned one is noted
_ABOVE_FREEZING_K = 3.0  # of a chilled liquid at its coldest: the evaporator's surface is colder than it


def plant_snags(results: BuildingResults) -> Iterator[Snag]:
    """Capacities, shares, efficiencies and vessels of every circuit with a plant."""
    for circuit in results.building.circuits:
        if circuit.id in results.circuits:
            try:
                chosen = vessel_of(results, circuit).chosen_m3
            except ValueError as error:
                yield Snag(
                    DOUBTFUL,
                    "vessel_impossible",
                    kind="circuit",
                    id=circuit.id,
                    stage="water",
                    sentence=f"{circuit.name}: {error}.",
                    way_out="another safety valve, or less static height",
                )
            else:
                if chosen is None:
                    yield Snag(
                        NOTE,
                        "vessel_above_series",
                        kind="circuit",
                        id=circuit.id,
                        stage="water",
                        sentence=f"{circuit.name}: its expansion vessel is above the series of 8 to 1000 L.",
                        way_out="several vessels, or one that holds its pressure by a pump",
                    )
            yield from _pump(circuit, results.circuits[circuit.id].pump)
            freezes, coldest = liquid_of(circuit).freezing_c(), min(circuit.flow_c, circuit.return_c)
            if coldest < freezes + _ABOVE_FREEZING_K and (circuit.glycol != WATER or coldest < 0.0):
                yield Snag(
                    DOUBTFUL,
                    "liquid_freezes",
                    kind="circuit",
                    id=circuit.id,
                    stage="water",
                    sentence=f"{circuit.name}: its liquid freezes at {freezes:.1f} °C and is as cold as {coldest:.1f} °C.",
                    way_out="more glycol, or warmer water",
                )
        if circuit.emitters == UNDERFLOOR:
            yield from _floors(results, circuit)
        yield from _told_far(circuit)
        for unit in circuit.units:
            kind = KINDS[unit.kind]
            most = max(unit.full_cool, unit.full_warm, unit.part_cool, unit.part_warm)
            limit = kind.believable / (GROSS_OVER_NET[unit.fuel] if unit.gross else 1.0)
            if most > limit + 1e-9:
                yield Snag(
                    DOUBTFUL,
                    "efficiency_impossible",
                    kind="plant_unit",
                    id=unit.id,
                    stage="water",
                    sentence=f"{circuit.name}, {unit.name}: an efficiency of {most:.2f} is beyond the {limit:.2f} that a "
                    f"{unit.kind} can reach{' on gross value' if unit.gross else ''}.",
                    way_out="check it, and which value it is on",
                )
        plant = results.plants.get(circuit.id)
        if plant is None:
            continue
        free = [unit for unit in circuit.units if not unit.standby and unit.capacity_w is None]
        total = sum(unit.share for unit in free)
        if free and len(free) == len(plant.working) and total < 1.0 - _CLOSE:
            yield Snag(
                DOUBTFUL,
                "shares_below_load",
                kind="circuit",
                id=circuit.id,
                stage="water",
                sentence=f"{circuit.name}: the shares of its units make {total:.0%} of the load.",
                way_out="make them 100 % or more",
            )
        unmet = max(float(plant.summer.unmet_w.max()), float(plant.winter.unmet_w.max()))
        if unmet > _CLOSE * max(plant.course.peak[0], 1.0):
            yield Snag(
                DOUBTFUL,
                "plant_short",
                kind="circuit",
                id=circuit.id,
                stage="water",
                sentence=f"{circuit.name}: its units give {plant.working_w / 1000:.1f} kW; {unmet / 1000:.1f} kW of the largest load are not met.",
                way_out="a larger unit, or one more",
            )
        elif len(plant.capacity_w) > 1 and plant.without_largest_w < plant.course.peak[0]:
            share = plant.without_largest_w / max(plant.course.peak[0], 1.0)
            yield Snag(
                NOTE,
                "largest_unit_out",
                kind="circuit",
                id=circuit.id,
                stage="water",
                sentence=f"{circuit.name}: with its largest unit out {share:.0%} of the largest load are left.",
                way_out="take it as it is, or give the others larger shares",
            )
        buffer = buffer_of(results, circuit)
        if buffer is not None and circuit.buffer_h is not None and buffer.runs_h < circuit.buffer_h * (1.0 - _CLOSE):
            yield Snag(
                DOUBTFUL,
                "buffer_short",
                kind="circuit",
                id=circuit.id,
                stage="water",
                sentence=f"{circuit.name}: with its buffer of {buffer.volume_m3 * 1000.0:.0f} L the smallest unit runs for {buffer.runs_h * 60.0:.0f} min "
                f"at its least output, in place of {circuit.buffer_h * 60.0:.0f}.",
                way_out=f"{buffer.needed_m3 * 1000.0:.0f} L, or no pin",
            )
        if plant.cooler is not None and plant.cooler.inputs.kind == TOWER:
            yield from _suction(circuit, plant.cooler)
        if circuit.kind == "heating":
            yield from _short_at_reset(results, circuit.id)


def _pump(circuit: Circuit, pump: PumpResult) -> Iterator[Snag]:
    """A pinned head against the calculated one: three numbers, two freedoms."""
    if circuit.pinned_head_pa is None or pump.network_head_pa <= 0.0:
        return
    told = f"{circuit.name}: its pumps are pinned at {pump.head_pa / 1000:.1f} kPa, and its index run and source take {pump.network_head_pa / 1000:.1f} kPa at {pump.flow_m3_s * 1000:.2f} L/s"
    if pump.head_pa < pump.network_head_pa * (1.0 - _CLOSE):
        yield Snag(
            DOUBTFUL,
            "pump_short",
            kind="circuit",
            id=circuit.id,
            stage="water",
            sentence=f"{told}: {pump.open_share * pump.flow_m3_s * 1000:.2f} L/s flow.",
            way_out="a higher head, larger pipes, or no pin",
        )
    elif pump.head_pa > pump.calculated_head_pa * _FAR_ABOVE:
        yield Snag(
            NOTE,
            "pump_oversized",
            kind="circuit",
            id=circuit.id,
            stage="water",
            sentence=f"{told}: valves throttle {(pump.head_pa - pump.network_head_pa) / 1000:.1f} kPa away.",
            way_out="a lower head, or no pin",
        )


def _suction(circuit: Circuit, cooler: Cooler) -> Iterator[Snag]:
    """A pump of open water that would draw vapour."""
    has, needs = cooler.suction_head_m, cooler.inputs.npsh_m
    if has < needs + _SUCTION_SAFE_M:
        yield Snag(
            DOUBTFUL,
            "pump_draws_vapour",
            kind="circuit",
            id=circuit.id,
            stage="water",
            sentence=f"{circuit.name}: its condenser water's pump has a suction head of {has:.1f} m and needs {needs:.1f} m and "
            f"{_SUCTION_SAFE_M:g} m more.",
            way_out="the tower higher above the pump, less loss before it, or another pump",
        )


def _told_far(circuit: Circuit) -> Iterator[Snag]:
    """Machines whose efficiencies are told for water so far from the circuit's that no line reaches there."""
    for unit in circuit.units:
        if float(by_flow(unit, np.array(circuit.flow_c))) > LEAST_FACTOR:
            continue
        yield Snag(
            DOUBTFUL,
            "told_far",
            kind="plant_unit",
            id=unit.id,
            stage="water",
            sentence=f"{circuit.name}, {unit.name}: its efficiencies are told for water of {unit.told_flow_c:.0f} °C and lose "
            f"{unit.flow_share_k:.1%} a kelvin; at {circuit.flow_c:.0f} °C no more than half is left, which is where they are held.",
            way_out="efficiencies told nearer to the circuit's flow temperature, or a smaller share",
        )


def _floors(results: BuildingResults, circuit: Circuit) -> Iterator[Snag]:
    """Heated floors that cannot give what is asked of them."""
    for section in circuit.sections:
        found = results.floors.get(section.end or "")
        if found is None or found.short_w < _NOTICED_W:
            continue
        room = results.rooms[section.end or ""].room
        at_limit = found.flux_w_m2 > found.limit_w_m2
        yield Snag(
            DOUBTFUL,
            "floor_short",
            kind="room",
            id=room.id,
            stage="water",
            sentence=f"{room.number} {room.name}: its heated floor gives {found.gives_w / 1000:.2f} of {found.duty_w / 1000:.2f} kW, "
            + (
                "its surface being as warm as it may be."
                if at_limit
                else f"at {circuit.flow_c:.0f} °C; {found.needed_flow_c:.0f} °C would give it."
            ),
            way_out="another emitter for the rest" if at_limit else "hotter water, closer pipes, or a thinner covering",
        )


def _short_at_reset(results: BuildingResults, circuit_id: str) -> Iterator[Snag]:
    """Coils that need air hotter than the reset water."""
    circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    plant = results.plants[circuit_id]
    ends = {section.end for section in circuit.sections}
    for system in results.building.systems:
        found = results.systems.get(system.id)
        if found is None or system.drawn not in ends:
            continue
        works = found.summer.heating_w > 1.0
        if works.any() and bool(np.any(found.summer.heated_c[works] > plant.flow_c[works] - 1.0)):
            yield Snag(
                DOUBTFUL,
                "coil_above_reset",
                kind="air_system",
                id=system.drawn,
                stage="water",
                sentence=f"{system.name}: its heating coil needs hotter air than {circuit.name} brings by its outdoor reset.",
                way_out="a warmer mild end of the reset, or a colder supply",
            )
