"""Working of room loads."""

from pendrum_core.model.climate import day_number
from pendrum_core.model.rooms import CATEGORIES
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.room.balance.sources import gain_at
from pendrum_core.room.outcome.detail import room_detail, warmth_k
from pendrum_core.working.elements import BALANCE, CATEGORY_NAMES, category_term, set_point
from pendrum_core.working.node import Node, addition, figure


def room_cooling(results: BuildingResults, room_id: str, month: int | None = None, step: int | None = None) -> Node:
    """A room's sensible cooling load at its peak, or at a given month index and step.

    Raises:
        KeyError: the room is not cooled; its result is a temperature.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    detail = room_detail(loads.room, results.outdoors, loads.beyond)
    at_peak = month is None or step is None
    m, s = (loads.peak_month, loads.peak_step) if month is None or step is None else (month, step)
    parts = [(name, value) for name, value in zip(CATEGORIES, loads.parts_at(m, s).tolist(), strict=True)]
    parts = sorted((p for p in parts if abs(p[1]) > 0.05), key=lambda p: -abs(p[1]))
    day = results.building.climate.months[m]
    text = f"{MONTHS[day_number(day) - 1]} {clock(s)}"
    air = set_point(loads, m, s, room_id)
    held = (
        "air held at the set-point"
        if loads.control is None
        else "air held at its design set-point, and what its own course adds"
    )
    return Node(
        f"{loads.room.number} {loads.room.name}: sensible cooling load" + (", peak" if at_peak else ""),
        float(loads.total[m, s]),
        "load",
        "Qs",
        formula=f"sum of what each source does to the air at {text}, {held}",
        numbers=addition([value for _, value in parts], "load"),
        source=BALANCE,
        note=f"Searched over {loads.total.shape[0]} design days × {loads.total.shape[1]} steps. "
        f"Parts add up to the total within {max(loads.split_error, 1e-15):.0e}, "
        f"the balance closes within {max(loads.balance_error, 1e-15):.0e}.",
        inputs=(
            *(
                category_term(name, value, loads=loads, detail=detail, calendar=day.month, month=m, step=s, text=text)
                for name, value in parts
            ),
            air,
        ),
    )


def room_temperature(results: BuildingResults, room_id: str) -> Node:
    """The hottest air of a room that is not cooled, and what each source makes of it.

    Raises:
        KeyError: the room is cooled.
    """
    loads = results.rooms[room_id]
    if loads.floating_peak_c is None:
        raise KeyError(room_id)
    month, step = loads.peak_month, loads.peak_step
    day = results.building.climate.months[month]
    text = f"{MONTHS[day_number(day) - 1]} {clock(step)}"
    reference = loads.room.cooling_setpoint_c
    made = zip(CATEGORIES, warmth_k(loads, results.outdoors)[:, month, step].tolist(), strict=True)
    names = CATEGORY_NAMES | {"storage": "Heating and cooling"}
    parts = sorted(((names[name], value) for name, value in made if abs(value) > 5e-3), key=lambda part: -abs(part[1]))
    hours, worst = loads.too_warm_h()
    worst_month = MONTHS[day_number(results.building.climate.months[worst]) - 1]
    return Node(
        f"{loads.room.number} {loads.room.name}: hottest air",
        loads.floating_peak_c,
        "temperature",
        "Ta",
        formula=f"reference + what each source makes of the air's temperature at {text}",
        numbers=f"{figure(reference, 'temperature')} + {addition([value for _, value in parts], 'temperature_difference')}",
        source=BALANCE,
        note=f"Above the limit of its use, {loads.room.warm_limit_c:.0f} °C, for {hours:.1f} h of the {worst_month} design day.",
        inputs=(
            Node("Reference, from which all temperatures are counted", reference, "temperature"),
            *(Node(name, value, "temperature_difference") for name, value in parts),
        ),
    )


def room_latent(results: BuildingResults, room_id: str) -> Node:
    """Moisture of a room at the time of its sensible peak, as heat.

    Raises:
        KeyError: no such room, or it is not cooled.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    month, step = loads.cooling.month, loads.cooling.step
    day = results.building.climate.months[month]
    inputs = []
    for gain in loads.room.gains:
        now = gain_at(gain, day.month, step)
        if gain.latent_w:
            inputs.append(
                Node(
                    gain.name or CATEGORY_NAMES[gain.category],
                    gain.latent_w * now,
                    "power",
                    formula="full latent gain × fraction of the day pattern",
                    numbers=f"{figure(gain.latent_w, 'power')} × {now:.3g}",
                    inputs=(
                        Node("Full latent gain", gain.latent_w, "power", ref=f"room/{room_id}/{gain.category}"),
                        Node(
                            f"Fraction at {clock(step)}", now, "ratio", ref=f"room/{room_id}/{gain.category}_schedule"
                        ),
                    ),
                )
            )
    return Node(
        f"{loads.room.number} {loads.room.name}: latent load at the sensible peak",
        loads.cooling.latent_w,
        "load",
        "Ql",
        formula=f"moisture of people and equipment at {MONTHS[day_number(day) - 1]} {clock(step)}",
        numbers=addition([float(node.value or 0.0) for node in inputs], "load"),
        inputs=tuple(inputs),
        note="Moisture that comes with leaks counts on the coil.",
    )


def room_cooling_per_area(results: BuildingResults, room_id: str) -> Node:
    """Sensible peak over floor area.

    Raises:
        KeyError: no such room, or it is not cooled.
    """
    loads = results.rooms[room_id]
    if loads.cooling is None:
        raise KeyError(room_id)
    area = loads.room.floor_area_m2
    return Node(
        f"{loads.room.number} {loads.room.name}: cooling by area",
        loads.cooling.sensible_w / area,
        "power_per_area",
        formula="sensible peak over floor area",
        numbers=f"{figure(loads.cooling.sensible_w, 'load')} / {figure(area, 'area')}",
        inputs=(
            room_cooling(results, room_id),
            Node("Floor area", area, "area", "A", ref=f"room/{room_id}/floor_area_m2"),
        ),
    )
