"""Rooms over a year: set up, marched, and summed.

Source: the heat balance of room/, marched hour by hour.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.rooms import GAIN_CATEGORIES, Boundary, Element, Room
from pendrum_core.model.year import YearRoom
from pendrum_core.room.balance.course import convected_share
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.year.comfort import adaptive_hours
from pendrum_core.year.march import STEPS_AN_HOUR, march
from pendrum_core.year.response import STEP_S, TAU_S, Answers, Wall, answers
from pendrum_core.year.sky import YearSky

Array = NDArray[np.float64]
Single = NDArray[np.float32]
RUN_IN_H = 24 * 45
UNMET_K = 0.5
_KWH = 1e-3  # of a watt over an hour


@dataclass(frozen=True)
class RoomYear:
    """A room's year; hourly means, (hours,).

    Attributes:
        air_c, surface_c: air, and mean of the faces.
        heating_w, cooling_w: by the plant; drawn_w: outdoor air drawn in while it is warm, signed.
        gains_w: people, lights, equipment, and moisture of all, (4, hours); sun_w: what enters through its windows; outdoor_w: what
            outdoor air and air of other rooms bring, beside supply air and what is drawn in.
        too_warm_h, occupied_h: occupied hours above its limit, and all occupied hours; `adaptive_h` those above and below the adaptive
            limits of each category (comfort.py).
        unmet_heating_h, unmet_cooling_h: hours whose mean is more than 0.5 K outside the set-point of that hour; `missed_*_kh` by how much.
        balance_kwh: of the year by source, what warms it above nought; `open_kwh` what it leaves open.
        fit_error: of its answers, relative [-].
    """

    id: str
    air_c: Single
    surface_c: Single
    heating_w: Single
    cooling_w: Single
    drawn_w: Single
    gains_w: Single
    sun_w: Single
    outdoor_w: Single
    too_warm_h: int
    occupied_h: int
    unmet_heating_h: int
    unmet_cooling_h: int
    missed_heating_kh: float
    missed_cooling_kh: float
    balance_kwh: Mapping[str, float]
    open_kwh: float
    fit_error: float
    adaptive_h: Mapping[str, tuple[int, int]]

    @property
    def heating_kwh(self) -> float:
        """Over the year."""
        return float(self.heating_w.sum(dtype=np.float64)) * _KWH

    @property
    def cooling_kwh(self) -> float:
        """Over the year."""
        return float(self.cooling_w.sum(dtype=np.float64)) * _KWH

    @property
    def operative_c(self) -> Single:
        """Half air, half faces."""
        return (self.air_c + self.surface_c) / np.float32(2.0)


@dataclass(frozen=True)
class Stream:
    """Supply air that flows into a room whatever its thermostat asks, (hours,): heat capacity rate [W/K] and temperature [°C]."""

    rate_w_k: Array
    supply_c: Array

    def __add__(self, other: "Stream") -> "Stream":
        """Both, mixed."""
        rate = self.rate_w_k + other.rate_w_k
        heat = self.rate_w_k * self.supply_c + other.rate_w_k * other.supply_c
        return Stream(rate, np.divide(heat, rate, out=np.array(self.supply_c), where=rate > 0.0))


@dataclass(frozen=True)
class Led:
    """Whether other rooms are under this room's sensor, and what its own plant is told to give by step where it is under another's [W]."""

    leads: bool = False
    told_w: Array | None = None


@dataclass(frozen=True)
class Felt:
    """What others feel of a room: its air and what its faces exchange radiation with, hourly [°C]; its plant by step where it leads [W]."""

    air_c: Array
    radiant_c: Array
    asked_w: Array


Beyond = Mapping[str, tuple[Array, Array]]  # rooms' air and what their faces exchange radiation with, (hours,) [°C]


def _environment(boundary: Boundary, room: Room, sky: YearSky, beyond: Beyond) -> Array | None:
    """Temperature on the far side over the year; None where nothing comes through."""
    hours, climate = len(sky.dry_bulb_c), sky.climate
    months = sky.weather.month_of
    if boundary.kind == "outdoors":
        return sky.sol_air_c(boundary.tilt_deg, boundary.azimuth_deg, boundary.solar_absorptance, boundary.eye_m)
    if boundary.kind == "temperature":
        if boundary.by_month_c:
            return np.array((0.0, *boundary.by_month_c))[months]
        return np.full(hours, boundary.temperature_c)
    if boundary.kind == "pattern":
        days = np.stack(
            [step_averages(pattern).reshape(24, STEPS_AN_HOUR).mean(axis=1) for pattern in boundary.patterns]
        )
        return np.asarray(days[months - 1, np.arange(hours) % 24])
    if boundary.kind == "difference":
        middle = (room.heating_setpoint_c + room.cooling_setpoint_c) / 2.0
        warm = np.arange(1, 13)[None] == months[:, None]
        means = np.array([sky.dry_bulb_c[months == m].mean() if (months == m).any() else 0.0 for m in range(1, 13)])
        outdoors = (warm * means).sum(axis=1)
        return np.where(
            outdoors > middle,
            room.cooling_setpoint_c + boundary.cooling_difference_k,
            room.heating_setpoint_c - boundary.heating_difference_k,
        )
    if boundary.kind == "room" and boundary.neighbour in beyond:
        air, radiant = beyond[boundary.neighbour]
        share = convected_share(boundary.far_convection_w_m2k, climate.coefficients.radiation_inside)
        return share * air + (1.0 - share) * radiant
    return None


def _outer(boundary: Boundary, sky: YearSky) -> float | None:
    c = sky.climate.coefficients
    if boundary.kind == "adiabatic":
        return None
    if boundary.kind == "outdoors":
        return 1.0 / c.outside
    if boundary.kind == "room":
        return 1.0 / (boundary.far_convection_w_m2k + c.radiation_inside)
    return boundary.extra_resistance_m2k_w


@dataclass(frozen=True)
class _Set:
    """A room set up: its walls, the signals that they see, and its answers."""

    walls: tuple[Wall, ...]
    signals: tuple[Array, ...]
    answers: Answers
    exchange_w_k: float


def _set_up(year: YearRoom, sky: YearSky, beyond: Beyond) -> _Set:
    room = year.room
    leak = room.infiltration_m3_s + room.direct_outdoor_air_m3_s
    given = [(t, beyond[t.room]) for t in room.transfers if t.room in beyond]
    exchange = (leak + sum(t.flow_m3_s for t, _ in given)) * sky.air_heat_j_m3k
    # Air that comes in: outdoors and other rooms' by their flows.
    coming = (
        sky.dry_bulb_c
        if not given
        else (
            (leak * sky.dry_bulb_c + sum(t.flow_m3_s * air for t, (air, _) in given))
            / max(leak + sum(t.flow_m3_s for t, _ in given), 1e-12)
        )
    )
    signals: list[Array] = [np.asarray(coming)]
    places: dict[Boundary, int] = {}
    walls = []
    for element in room.elements:
        boundary = element.boundary
        place = places.get(boundary)
        if place is None:
            environment = _environment(boundary, room, sky, beyond)
            place = -1 if environment is None else len(signals)
            places[boundary] = place
            if environment is not None:
                signals.append(environment)
        outer = None if place < 0 else _outer(boundary, sky)
        walls.append(Wall(element.area_m2, element.layers, element.convection_w_m2k, outer, max(place, 0)))
    try:
        found = answers(
            room.capacity_j_k, tuple(walls), len(signals), exchange, sky.climate.coefficients.radiation_inside
        )
    except ValueError as error:
        raise ValueError(f"room {room.number}: {error}") from error
    return _Set(tuple(walls), tuple(signals), found, exchange)


def _hourly(steps: Array) -> Array:
    """Means over hours of a course by step."""
    return np.asarray(steps.reshape(-1, STEPS_AN_HOUR) @ np.full(STEPS_AN_HOUR, 1.0 / STEPS_AN_HOUR))


def _gains(year: YearRoom, hours: int) -> tuple[Array, Array, Array]:
    """Convective and radiant by step, and by category and hour, moisture last [W]."""
    steps = hours * STEPS_AN_HOUR
    convective, radiant, by_category = np.zeros(steps), np.zeros(steps), np.zeros((len(GAIN_CATEGORIES) + 1, hours))
    for gain in year.gains:
        share = gain.course.steps().ravel()[:steps]
        watts = gain.sensible_w * share
        radiant += gain.radiant_share * watts
        convective += (1.0 - gain.radiant_share) * watts
        by_category[GAIN_CATEGORIES.index(gain.category)] += _hourly(watts)
        if gain.latent_w:
            by_category[-1] += gain.latent_w * _hourly(share)
    return convective, radiant, by_category


def room_year(
    year: YearRoom,
    sky: YearSky,
    beyond: Beyond,
    stream: Stream | None = None,
    before: RoomYear | None = None,
    led: Led | None = None,
) -> tuple[RoomYear, Felt]:
    """March a room [°C, W, kWh by the fields' names]. Also what others feel of it. `before` is an earlier march of it, with whose gains and sun it shares memory.

    Raises:
        ValueError: its answers cannot be fitted.
    """
    led = led or Led()
    room, hours = year.room, len(sky.dry_bulb_c)
    steps = hours * STEPS_AN_HOUR
    made = _set_up(year, sky, beyond)
    a = made.answers
    convective, radiant, by_category = _gains(year, hours)
    sun_radiant, sun_air = np.zeros(hours), np.zeros(hours)
    for window in room.windows:
        onto, air = sky.window_sun(window)
        sun_radiant += window.sun_area_m2 * onto
        sun_air += window.sun_area_m2 * air
    convective += np.repeat(sun_air, STEPS_AN_HOUR)
    radiant += np.repeat(sun_radiant, STEPS_AN_HOUR)
    n = len(made.signals)
    signals = np.stack(made.signals)  # (n, hours)
    never = np.full(steps, np.inf)
    low = -never if year.heating is None else year.heating.steps().ravel()[:steps]
    high = never if year.cooling is None else year.cooling.steps().ravel()[:steps]
    drawn = year.drawn
    conductance = drawn.flow_m3_s * sky.air_heat_j_m3k if drawn else 0.0
    air, surface, power, drawn_w = (np.empty(hours) for _ in range(4))
    asked = np.empty(steps if led.leads else 0)
    weight = room.thermostat.radiant_weight if room.thermostat else 0.0
    plant_radiant = 0.0 if sky.climate.heating_procedure == "u_values" else room.heating_radiant_share
    march(
        np.exp(-STEP_S / TAU_S),
        np.ascontiguousarray(signals.T @ a.air[:n]),
        np.ascontiguousarray(signals.T @ a.surface[:n]),
        signals.T @ a.surface_at_once[:n],
        a.air[n],
        a.surface[n],
        a.air[n + 1],
        a.surface[n + 1],
        float(a.surface_at_once[n + 1]),
        convective,
        radiant,
        low,
        high,
        np.inf if year.heating_w is None else year.heating_w,
        np.inf if year.cooling_w is None else year.cooling_w,
        conductance,
        drawn.course.steps().ravel()[:steps] if drawn else np.zeros(steps),
        drawn.above_c if drawn else 0.0,
        max(drawn.band_k, 0.05) if drawn else 1.0,
        drawn.only_cooler if drawn else True,
        sky.dry_bulb_c,
        stream.rate_w_k if stream else np.zeros(hours),
        stream.supply_c if stream else np.zeros(hours),
        weight,
        plant_radiant,
        led.told_w if led.told_w is not None else np.empty(0),
        min(RUN_IN_H, hours),
        air,
        surface,
        power,
        drawn_w,
        asked,
    )
    heating, cooling = np.maximum(power, 0.0), np.maximum(-power, 0.0)
    low_h, high_h = _hourly(low), _hourly(high)
    sensed = (1.0 - weight) * air + weight * surface
    below, above = np.maximum(low_h - sensed, 0.0), np.maximum(sensed - high_h, 0.0)
    there = np.ones(hours, dtype=bool) if year.people is None else year.people.hours()[:hours] > 0.0
    radiant_h = _hourly(radiant) + plant_radiant * heating
    area = sum(wall.area_m2 for wall in made.walls)
    felt = surface + radiant_h / area / sky.climate.coefficients.radiation_inside
    balance = _balance(
        year,
        sky,
        made=made,
        course=(air, surface, radiant_h),
        plant=(heating, cooling, drawn_w),
        gains=by_category,
        sun=sun_radiant + sun_air,
        stream=stream,
    )
    result = RoomYear(
        id=room.id,
        air_c=air.astype(np.float32),
        surface_c=surface.astype(np.float32),
        heating_w=heating.astype(np.float32),
        cooling_w=cooling.astype(np.float32),
        drawn_w=drawn_w.astype(np.float32),
        gains_w=before.gains_w if before else by_category.astype(np.float32),
        sun_w=before.sun_w if before else (sun_radiant + sun_air).astype(np.float32),
        outdoor_w=(made.exchange_w_k * (made.signals[0] - air)).astype(np.float32),
        too_warm_h=int((there & (air > year.warm_limit_c)).sum()),
        occupied_h=int(there.sum()),
        unmet_heating_h=int((below > UNMET_K).sum()),
        unmet_cooling_h=int((above > UNMET_K).sum()),
        missed_heating_kh=float(below[np.isfinite(below)].sum()),
        missed_cooling_kh=float(above[np.isfinite(above)].sum()),
        balance_kwh=balance,
        open_kwh=sum(balance.values()),
        fit_error=a.error,
        adaptive_h=adaptive_hours((air + surface) / 2.0, sky.running_mean_c, there),
    )
    return result, Felt(air, felt, asked)


def _balance(
    year: YearRoom,
    sky: YearSky,
    made: _Set,
    course: tuple[Array, Array, Array],
    plant: tuple[Array, Array, Array],
    gains: Array,
    sun: Array,
    stream: Stream | None,
) -> dict[str, float]:
    """Heat of the year by source [kWh]: over a year that repeats, walls let through what their means say."""
    air, surface, radiant = (float(values.mean()) for values in course)
    heating, cooling, drawn = (float(values.sum()) * _KWH for values in plant)
    hours, radiation = len(sky.dry_bulb_c), sky.climate.coefficients.radiation_inside
    means = [float(signal.mean()) for signal in made.signals]
    area = sum(wall.area_m2 for wall in made.walls)
    found = {"sun": float(sun.sum()) * _KWH}
    found |= {name: float(row.sum()) * _KWH for name, row in zip(GAIN_CATEGORIES, gains, strict=False)}
    found["outdoor air"] = made.exchange_w_k * (means[0] - air) * hours * _KWH
    for element, wall in zip(year.room.elements, made.walls, strict=True):
        found[element.category] = (
            found.get(element.category, 0.0)
            + _through_w(element, wall, means=means, air=air, surface=surface, onto=radiant / area, radiation=radiation)
            * hours
            * _KWH
        )
    if stream is not None:
        # What the other sources leave, as it was: means over an hour do not give the exchange of its steps.
        found["supply air"] = -sum(found.values()) - drawn - heating + cooling
    return found | {"drawn air": drawn, "heating": heating, "cooling": -cooling}


def _through_w(
    element: Element, wall: Wall, means: Sequence[float], air: float, surface: float, onto: float, radiation: float
) -> float:
    """Mean heat into the room through a face [W]."""
    if wall.outer_m2k_w is None:
        return 0.0
    u = 1.0 / (sum(layer.resistance_m2k_w for layer in wall.layers) + wall.outer_m2k_w)
    there, hc = means[wall.signal], wall.convection_w_m2k
    face = (hc * air + radiation * surface + onto + u * there) / (hc + radiation + u)
    return element.area_m2 * u * (there - face)
