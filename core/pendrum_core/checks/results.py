"""Snags that only results can show."""

from collections.abc import Callable, Iterator, Mapping

from pendrum_core.checks.air import air_snags
from pendrum_core.checks.balance import balance_snags
from pendrum_core.checks.ceilings import ceiling_snags
from pendrum_core.checks.comfort import comfort_snags
from pendrum_core.checks.ends import end_snags
from pendrum_core.checks.feeds import feed_snags
from pendrum_core.checks.fresh_air import fresh_air_snags
from pendrum_core.checks.hot_water import hot_water_snags
from pendrum_core.checks.plant import plant_snags
from pendrum_core.checks.running import running_snags
from pendrum_core.checks.snag import DOUBTFUL, NOTE, STOPS, Snag
from pendrum_core.checks.valves import valve_snags
from pendrum_core.duct.lanes import behind_pa
from pendrum_core.model.systems import MAKE_UP, RETURN, ROOM_UNIT, SUPPLY
from pendrum_core.quantities.faults import reason_of
from pendrum_core.results.building import BuildingResults

UNBALANCED_PA = 60.0
_FAILED_STAGE = {
    "room": "rooms",
    "air_system": "air",
    "circuit": "water",
    "group": "loads",
    "moisture": "air",
    "hot_water": "water",
}


def result_snags(results: BuildingResults, yardsticks_w_m2: Mapping[str, tuple[float, float]]) -> Iterator[Snag]:
    """Walk over the results and yield what an engineer should look at.

    `yardsticks_w_m2` is the ordinary range of cooling per floor area by room [W/m2].
    """
    for failure in results.failures:
        stage = _FAILED_STAGE[failure.kind]
        yield Snag(
            STOPS,
            "not_calculated",
            kind=failure.kind,
            id=failure.id,
            stage=stage,
            sentence=failure.reason,
            way_out="change the value named",
        )
    checks: tuple[Callable[[BuildingResults], Iterator[Snag]], ...] = (
        _room_snags,
        fresh_air_snags,
        comfort_snags,
        lambda of: _yardstick_snags(of, yardsticks_w_m2),
        _system_snags,
        air_snags,
        balance_snags,
        _circuit_snags,
        plant_snags,
        feed_snags,
        running_snags,
        valve_snags,
        end_snags,
        ceiling_snags,
        hot_water_snags,
    )
    for check in checks:
        try:
            yield from check(results)
        except Exception as error:
            reason = reason_of(error, "One of the checks")
            yield Snag(
                STOPS,
                "not_checked",
                kind="project",
                id="",
                stage="loads",
                sentence=reason,
                way_out="tell whoever looks after the program",
            )


def _room_snags(results: BuildingResults) -> Iterator[Snag]:
    served = {room for system in results.systems.values() for room in system.airflows}
    cooled = {
        terminal.room
        for system in results.building.systems
        if system.cools and system.kind != MAKE_UP and system.id in results.systems
        for terminal in system.terminals
    }
    emitting = set(results.emitters) | set(results.floors)
    for room_id, loads in results.rooms.items():
        name = f"{loads.room.number} {loads.room.name}"
        if any(transfer.room not in results.rooms for transfer in loads.room.transfers):
            yield Snag(
                DOUBTFUL,
                "transfer_unknown",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{name} gets air from a room that is not calculated; that air is taken to have its own temperature.",
                way_out="mend the other room, or take the air away",
            )
        if (
            loads.cooling is not None
            and loads.cooling.sensible_w > 1.0
            and room_id not in served
            and room_id not in results.ceilings
        ):
            yield Snag(
                DOUBTFUL,
                "cooled_without_system",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{name} has a cooling load of {loads.cooling.sensible_w / 1000:.2f} kW but is on no air system and no chilled circuit.",
                way_out="put it on a system, or say that it is not cooled",
            )
        if loads.cooling is None and room_id in cooled:
            yield Snag(
                DOUBTFUL,
                "floats_on_system",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{name} is not cooled but gets air from a cooling system; its temperature is worked out without that air.",
                way_out="say that it is cooled, or take it off the system",
            )
        if results.circuits and loads.heating.load_w > 1.0 and room_id not in emitting:
            yield Snag(
                NOTE,
                "heated_without_emitter",
                kind="room",
                id=room_id,
                stage="water",
                sentence=f"{name} needs {loads.heating.load_w / 1000:.2f} kW of heating but no pipe ends at it.",
                way_out="add a pipe section that ends at the room",
            )


def _yardstick_snags(results: BuildingResults, yardsticks_w_m2: Mapping[str, tuple[float, float]]) -> Iterator[Snag]:
    for room_id, (low, high) in yardsticks_w_m2.items():
        loads = results.rooms.get(room_id)
        if loads is None or loads.cooling is None:
            continue
        found = loads.cooling.sensible_w / loads.room.floor_area_m2
        inside = sum(g.sensible_w for g in loads.room.gains if g.category != "people") / loads.room.floor_area_m2
        if inside > high > 0.0:
            yield Snag(
                DOUBTFUL,
                "gains_implausible",
                kind="room",
                id=room_id,
                stage="uses",
                sentence=f"{loads.room.number} {loads.room.name}: its lights and equipment alone give {inside:.0f} W/m², more than "
                f"the {high:.0f} W/m² of cooling that are ordinary for its use.",
                way_out="check their power, how much of it is used, and what is vented",
            )
        if not low <= found <= high:
            yield Snag(
                NOTE,
                "yardstick",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{loads.room.number} {loads.room.name}: {found:.0f} W/m² of cooling lies outside the ordinary "
                f"{low:.0f} to {high:.0f} W/m² of its use.",
                way_out="look at its breakdown, or widen the range of the use",
            )


def _system_snags(results: BuildingResults) -> Iterator[Snag]:
    names = {system.id: system for system in results.building.systems}
    for system_id, result in results.systems.items():
        system = names[system_id]
        ended = {section.end for section in system.sections if section.network == SUPPLY}
        if system.kind == ROOM_UNIT:
            ended |= set(result.airflows)
        missing = [r for r in result.airflows if r not in ended and result.airflows[r].design_m3_s > 0]
        if missing:
            numbers = ", ".join(results.rooms[r].room.number for r in missing[:6])
            yield Snag(
                DOUBTFUL,
                "room_without_duct",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: no duct ends at {len(missing)} of its rooms ({numbers}); "
                "their air is not in the ducts' sizes.",
                way_out="add a branch for every room without one",
            )
        short = float(result.short_w.max())
        helped = system.kind == MAKE_UP or any(t.shared and t.rank == 1 for t in system.terminals)
        if short > 1.0 and not helped:
            yield Snag(
                DOUBTFUL,
                "airflow_short",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: pinned airflows leave {short / 1000:.2f} kW of cooling undelivered at the worst time.",
                way_out="let the airflow be sized, or lower the supply temperature",
            )
        if not result.converged:
            yield Snag(
                DOUBTFUL,
                "humidity_not_settled",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: the rooms' humidity does not settle; moisture comes in and none is taken out.",
                way_out="give the system outdoor air",
            )
        if result.fan.motor_w is None:
            yield Snag(
                DOUBTFUL,
                "motor_above_series",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: {result.fan.shaft_w / 1000:.0f} kW at the shaft is above the standard motors.",
                way_out="split the system",
            )
        needed = behind_pa(result.lanes)
        if needed > max(system.return_fan_pa, UNBALANCED_PA / 2.0) and RETURN in result.lanes:
            weak = system.return_fan_pa > 0.0
            yield Snag(
                DOUBTFUL if weak else NOTE,
                "return_fan_short",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: its return and exhaust ducts take {needed:.0f} Pa, "
                + (f"its return fan gives {system.return_fan_pa:.0f} Pa." if weak else "and it has no return fan."),
                way_out="a return fan with that pressure, or wider ducts",
            )
        every = result.networks
        for section in system.sections:
            if section.network not in every:
                continue
            sized = every[section.network].sections[section.id]
            if not sized.within_limits:
                yield Snag(
                    DOUBTFUL,
                    "duct_beyond_limits",
                    kind="duct_section",
                    id=section.id,
                    stage="air",
                    sentence=f"{system.name}, {section.name}: {sized.friction.velocity_m_s:.1f} m/s and "
                    f"{sized.friction.rate_pa_m:.2f} Pa/m at {sized.shape.size} mm; limits "
                    f"{sized.velocity_limit_m_s:.1f} m/s and {system.friction_limit_pa_m:.2f} Pa/m.",
                    way_out="let it be sized, or raise the limit",
                )
        dampers = {end: pa for network in every.values() for end, pa in network.paths.balancing_pa.items()}
        worst = max(dampers.items(), key=lambda item: item[1], default=("", 0.0))
        if worst[1] > UNBALANCED_PA:
            section_name = next(s.name for s in system.sections if s.id == worst[0])
            yield Snag(
                NOTE,
                "run_unbalanced",
                kind="duct_section",
                id=worst[0],
                stage="air",
                sentence=f"{system.name}, {section_name}: a damper has to take {worst[1]:.0f} Pa.",
                way_out="smaller ducts on this branch take it without noise",
            )


def _circuit_snags(results: BuildingResults) -> Iterator[Snag]:
    names = {circuit.id: circuit for circuit in results.building.circuits}
    for circuit_id, result in results.circuits.items():
        circuit = names[circuit_id]
        for section in circuit.sections:
            sized = result.sections[section.id]
            if not sized.within_limits:
                yield Snag(
                    DOUBTFUL,
                    "pipe_beyond_limits",
                    kind="pipe_section",
                    id=section.id,
                    stage="water",
                    sentence=f"{circuit.name}, {section.name}: {sized.friction.velocity_m_s:.2f} m/s and "
                    f"{sized.friction.rate_pa_m:.0f} Pa/m in {sized.size}.",
                    way_out="let it be sized, or raise the limit",
                )
        for end, duty in result.duty_w.items():
            if duty <= 0.0 and end in results.rooms:
                yield Snag(
                    NOTE,
                    "emitter_without_duty",
                    kind="room",
                    id=end,
                    stage="water",
                    sentence=f"{circuit.name}: {results.rooms[end].room.number} "
                    + (
                        "is covered by its other emitter."
                        if (circuit_id, end) in results.bands
                        else f"needs no {'heat' if circuit.kind == 'heating' else 'cooling'}."
                    ),
                    way_out="remove its pipe section",
                )
