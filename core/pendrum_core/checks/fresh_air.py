"""Snags of the air that rooms get: too little of it, more given away than comes in, supply that condenses."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.air.presence import presence
from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.model.climate import day_number
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.room.outcome.loads import RoomLoads

_LEAST_M3_S = 1e-4
_NOTICED_K = 0.5
_NOTICED_SHARE = 0.005


def fresh_air_snags(results: BuildingResults) -> Iterator[Snag]:
    """Rooms with too little air, and systems whose supply air is below the dew point of the rooms."""
    flows = {
        room: flow for system in reversed(list(results.systems.values())) for room, flow in system.airflows.items()
    }
    given: dict[str, float] = {}
    for loads in results.rooms.values():
        for transfer in loads.room.transfers:
            given[transfer.room] = given.get(transfer.room, 0.0) + transfer.flow_m3_s
    for room_id, loads in results.rooms.items():
        name = f"{loads.room.number} {loads.room.name}"
        flow = flows.get(room_id)
        if flow is not None and flow.governing == "pinned" and flow.design_m3_s < flow.ventilation_m3_s - _LEAST_M3_S:
            yield Snag(
                DOUBTFUL,
                "ventilation_below_need",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{name}: its pinned {flow.design_m3_s * 1000.0:.0f} L/s are below the {flow.ventilation_m3_s * 1000.0:.0f} L/s "
                "of outdoor air that it needs.",
                way_out="let the airflow be sized, or pin a larger one",
            )
        if _peopled(loads) and (flow.ventilation_m3_s if flow else loads.room.direct_outdoor_air_m3_s) <= 0.0:
            yield Snag(
                NOTE,
                "people_without_air",
                kind="room",
                id=room_id,
                stage="uses",
                sentence=f"{name} has people but no ventilation is asked for it; only leaks bring outdoor air.",
                way_out="give its use outdoor air per person or per area, or say that it is not occupied",
            )
        arriving = _arriving_m3_s(loads) + (flow.design_m3_s if flow else 0.0)
        if given.get(room_id, 0.0) > arriving + _LEAST_M3_S:
            yield Snag(
                DOUBTFUL,
                "more_given_than_gets",
                kind="room",
                id=room_id,
                stage="rooms",
                sentence=f"{name} gives {given[room_id] * 1000.0:.0f} L/s to other rooms, but only {arriving * 1000.0:.0f} L/s come in.",
                way_out="bring it more air, or let others take less",
            )
    yield from _condensing(results)
    yield from _people_at_one_time(results)


def _peopled(loads: RoomLoads) -> bool:
    return any(gain.category == "people" and gain.sensible_w > 0.0 for gain in loads.room.gains)


def _arriving_m3_s(loads: RoomLoads) -> float:
    """Air that comes into a room by itself: leaks, untreated and transferred air, and what is drawn in."""
    room = loads.room
    drawn = room.thermostat.drawn_air if room.thermostat else None
    return (
        room.infiltration_m3_s + room.direct_outdoor_air_m3_s + room.transfer_m3_s + (drawn.flow_m3_s if drawn else 0.0)
    )


def _people_at_one_time(results: BuildingResults) -> Iterator[Snag]:
    """Systems that count on fewer people than the schedules of their rooms bring together."""
    for system in results.building.systems:
        people = {t.room: t.people for t in system.terminals if t.people > 0.0 and t.room in results.rooms}
        if system.people_share >= 1.0 or not people or system.takes_outdoor_air_alone or len(system.terminals) < 2:
            continue
        there = np.zeros(results.outdoors.dry_bulb_c.shape)
        for room, count in people.items():
            present = presence(results.rooms[room].room, results.outdoors)
            there = there + count * (1.0 if present is None else present)
        share = float(there.max()) / sum(people.values())
        if share > system.people_share + _NOTICED_SHARE:
            yield Snag(
                DOUBTFUL,
                "people_share_low",
                kind="air_system",
                id=system.drawn,
                stage="air",
                sentence=f"{system.name}: outdoor air is for {system.people_share:.0%} of its people at one time, and by their "
                f"schedules {share:.0%} are there together.",
                way_out="a larger share of people at one time, or other schedules",
            )


def _condensing(results: BuildingResults) -> Iterator[Snag]:
    for system in results.building.systems:
        found = results.systems.get(system.id)
        if found is None:
            continue
        path, (below, month, step) = found.summer, found.below_dew_point
        if below > _NOTICED_K:
            when = f"{MONTHS[day_number(results.building.climate.months[month]) - 1]} {clock(step)}"
            yield Snag(
                NOTE,
                "supply_below_dew_point",
                kind="air_system",
                id=system.id,
                stage="air",
                sentence=f"{system.name}: supply air of {path.supply_c[month, step]:.1f} °C is {below:.1f} K below the "
                f"dew point of the rooms' air ({when}); outlets that are not insulated would drip.",
                way_out="a higher supply temperature, drier rooms, or outlets made for it",
            )
