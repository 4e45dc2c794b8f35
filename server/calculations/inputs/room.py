"""A room as the core takes it."""

from calendar import month_name
from dataclasses import replace
from math import isfinite

from calculations.inputs.faces import faces_of
from calculations.inputs.gains import gains_of, return_gains_of, return_share
from calculations.inputs.missing import Missing
from calculations.inputs.thermostat import crossed, humidity_of, thermostat_of
from calculations.lookups import Lookups
from pendrum_core.air.infiltration import leakage_flow_m3_s, local_wind_m_s
from pendrum_core.air.outdoor_air import breathing_air_m3_s
from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.model.rooms import Room
from pendrum_core.model.schedules import DayPattern
from projects.resolver import Effective, effective_values
from projects.rows import Row

AIR_J_M3K = 1200.0  # heat capacity of room air per volume, at 20 °C near sea level
FURNITURE_J_M2K = 10_000.0  # per floor area, in the air node
DEFAULT_EYE_M = 1.5
OFF_PLAN_SHARE = 0.01  # of the plan's area, from which a typed one is said to differ


def title_of(room: Row) -> str:
    """Number and name."""
    return f"{room['number']} {room['name']}"


def room_or_snags(look: Lookups, identity: str) -> tuple[Room | None, list[Snag], dict[str, Effective]]:
    """A room, what was found on the way, and its effective values; no room where something is missing.

    In two steps, what happens in it and what it is enclosed by: an edit of one leaves the other standing.
    """
    values = _effective(look, identity)
    snags: list[Snag] = []
    try:
        bare, eye, found = look.remembered("bare room", identity, lambda: _bare(look, identity))
        snags += found
        title = f"{bare.number} {bare.name}"
        elements, windows, found = look.remembered(
            "faces", f"{identity}/{title}/{eye}", lambda: faces_of(look, title, identity, eye)
        )
        snags += found
        return replace(bare, elements=elements, windows=windows), snags, values
    except Missing as missing:
        return None, [*snags, missing.snag], values


def _effective(look: Lookups, identity: str) -> dict[str, Effective]:
    values: dict[str, Effective] = look.remembered(
        "effective", identity, lambda: effective_values(look, look.existing("room", identity)), compare=True
    )
    return values


def _bare(look: Lookups, identity: str) -> tuple[Room, float, list[Snag]]:
    """A room without its faces, the height from which it sees the skyline, and what was found on the way.

    Raises:
        Missing: something without which it cannot be calculated.
    """
    room, values = look.existing("room", identity), _effective(look, identity)
    title = title_of(room)
    use = look.row("use", room["use"])
    if use is None:
        raise Missing("no_use", "room", identity, "rooms", f"{title} has no use.", "choose a use for it")
    area, height = room["floor_area_m2"], values["height_m"].value
    if not area or not height:
        what = "floor area" if not area else "height"
        raise Missing(
            "no_volume", "room", identity, "rooms", f"{title} has no {what}, so no volume.", f"enter its {what}"
        )
    surfaces = look.many("surfaces of room", identity)
    if not surfaces:
        raise Missing(
            "no_surfaces", "room", identity, "rooms", f"{title} has no surfaces.", "add its walls, floor and roof"
        )
    low, high = values["heating_setpoint_c"].value, values["cooling_setpoint_c"].value
    if low > high:
        raise Missing(
            "setpoints_crossed",
            "room",
            identity,
            "rooms",
            f"{title}: heating set-point {low} °C ({values['heating_setpoint_c'].origin}) is above cooling "
            f"set-point {high} °C ({values['cooling_setpoint_c'].origin}).",
            "change one of the two",
        )
    volume = area * height
    thermostat = thermostat_of(look, use, room, values, volume)
    if thermostat is not None:
        _refuse_crossed(title, identity, crossed(look, use, values))
    snags = _away_snags(title, identity, use, values)
    drawn = room["plan_area_m2"]
    if drawn and abs(drawn - area) > OFF_PLAN_SHARE * drawn:
        snags.append(
            Snag(
                DOUBTFUL,
                "area_off_plan",
                kind="room",
                id=identity,
                stage="rooms",
                sentence=f"{title}: its floor area is {area:.2f} m², its outline on the plan has {drawn:.2f} m².",
                way_out="delete the area: the room takes the plan's",
            )
        )
    leak, winter_leak = _infiltration_m3_s(look, use, room, values, volume, surfaces)
    people = values["people_per_m2"].value * area if room["occupied"] else 0.0
    need = 0.0
    if room["occupied"]:
        rates = use["air_per_person_m3_s"] * people, use["air_per_area_m3_s_m2"] * area
        need = breathing_air_m3_s(*rates, use["outdoor_air_changes"], volume)
    to_return = return_share(look, room, use)
    bare = Room(
        id=identity,
        number=room["number"],
        name=room["name"],
        floor_area_m2=area,
        volume_m3=volume,
        elements=(),
        windows=(),
        gains=gains_of(look, use, values, area, room["occupied"], to_return),
        return_gains=return_gains_of(look, use, values, area, to_return),
        infiltration_m3_s=leak,
        direct_outdoor_air_m3_s=0.0 if _brings_outdoor_air(look, room) else need / use["air_effectiveness"],
        # Design values are what the thermostat asks at most: a programme may ask for other ones than the use's figure.
        heating_setpoint_c=max(_asked((thermostat.winter,) if thermostat else None), default=low),
        cooling_setpoint_c=min(_asked(thermostat.cooling if thermostat else None), default=high),
        heated=values["heated"].value,
        cooled=values["cooled"].value,
        capacity_j_k=AIR_J_M3K * volume + FURNITURE_J_M2K * area,
        winter_infiltration_m3_s=winter_leak,
        thermostat=thermostat,
        humidity=humidity_of(look, use),
        heating_radiant_share=use["heating_radiant_share"],
        warm_limit_c=use["warm_limit_c"],
    )
    return bare, _eye_m(look, room, height), snags


def _brings_outdoor_air(look: Lookups, room: Row) -> bool:
    """Whether a system of the room brings it outdoor air: room units move its own air alone."""
    systems = (look.row("air_system", room[field]) for field in ("air_system", "second_system") if room[field])
    return any(system is not None and system["arrangement"] != "room units" for system in systems)


def _asked(patterns: tuple[DayPattern, ...] | None) -> list[float]:
    """Every set-point that patterns ask for."""
    return [value for day in patterns or () for _, value in day.steps if isfinite(value)]


def _refuse_crossed(title: str, identity: str, found: tuple[int, tuple[tuple[int, int], ...]] | None) -> None:
    """Heating above cooling at any hour of any month."""
    if found:
        month, minutes = found
        hours = ", ".join(f"{a // 60:02d}:{a % 60:02d} to {b // 60:02d}:{b % 60:02d}" for a, b in minutes)
        raise Missing(
            "setpoints_crossed",
            "room",
            identity,
            "uses",
            f"{title}: the heating set-point is above the cooling set-point from {hours} (standard time) in "
            f"{month_name[month]}.",
            "change the set-points or their schedule",
        )


def _away_snags(title: str, identity: str, use: Row, values: dict[str, Effective]) -> list[Snag]:
    """A setback above its set-point, or a set-up below it: each may come from another place than the other."""
    found = []
    for what, away, name, wrong_way in (
        ("heating", "setback", "heating_setback_c", 1.0),
        ("cooling", "setup", "cooling_setup_c", -1.0),
    ):
        goal, resting = values[f"{what}_setpoint_c"], values[name]
        on = values["heated" if what == "heating" else "cooled"].value and use[f"{what}_programme"] is None
        if (
            on
            and use["setpoint_schedule"]
            and use[f"{what}_away"] == away
            and (resting.value - goal.value) * wrong_way > 0
        ):
            side = "above" if wrong_way > 0 else "below"
            found.append(
                Snag(
                    DOUBTFUL,
                    f"{what}_away_wrong_way",
                    kind="room",
                    id=identity,
                    stage="rooms",
                    sentence=f"{title}: outside the hours of its set-points {what} would go to {resting.value} °C "
                    f"({resting.origin}), {side} the set-point of {goal.value} °C ({goal.origin}).",
                    way_out="change one of the two",
                )
            )
    return found


def _eye_m(look: Lookups, room: Row, height: float) -> float:
    """Height above ground from which the room's windows see the skyline; 0 where the site is open."""
    if not look.said("site", "skyline"):
        return 0.0
    level = look.row("level", room["level"])
    return max(0.0, level["floor_m"] + height / 2.0) if level else DEFAULT_EYE_M


def _infiltration_m3_s(
    look: Lookups, use: Row, room: Row, values: dict[str, Effective], volume: float, surfaces: tuple[Row, ...]
) -> tuple[float, float | None]:
    """Leaks in summer, and in winter where they differ. A room's own air changes come before the use's basis."""
    basis = use["infiltration_basis"]
    if basis == "air_changes" or values["infiltration_ach"].origin == "own":
        return values["infiltration_ach"].value * volume / 3600.0, None
    envelope = sum(s["area_m2"] for s in surfaces if s["boundary"] == "outdoors")
    if basis == "envelope":
        return use["infiltration_m3_s_m2"] * envelope, None
    site = look.one("site")
    area, storeys, shelter = use["leakage_cm2_m2"] * envelope, look.level_count(), site["shelter_class"]
    hottest = max(month["dry_bulb_c"] for month in look.months())
    summer_k = hottest - values["cooling_setpoint_c"].value
    winter_k = values["heating_setpoint_c"].value - site["winter_dry_bulb_c"]
    flows = [
        leakage_flow_m3_s(area, kelvin, local_wind_m_s(wind, site["terrain"]), shelter, storeys)
        for kelvin, wind in ((summer_k, site["summer_wind_m_s"]), (winter_k, site["winter_wind_m_s"]))
    ]
    return flows[0], flows[1]
