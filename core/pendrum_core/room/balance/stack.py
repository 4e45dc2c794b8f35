"""Many rooms laid end to end as flat arrays, so that one numpy operation serves them all.

Faces of a room that are built alike and see the same environment are one term; walls that are built alike anywhere are
one kind. Sums over a room's faces are then products of a sparse matrix (rooms x kinds) with a small table.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from pendrum_core.fabric.layers import Layers, transfer_matrix
from pendrum_core.fabric.steady import inside_film
from pendrum_core.model.climate import Climate
from pendrum_core.model.rooms import CONDUCTION_CATEGORIES, Boundary, Element, Room
from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.course import InsideCourse, convected_share
from pendrum_core.room.balance.harmonics import HARMONICS, OMEGA_RAD_S, to_harmonics
from pendrum_core.room.balance.outdoors import Outdoors
from pendrum_core.schedule.pattern import step_averages

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class Admittance:
    """A wall between its environment and the inner face, at `OMEGA_RAD_S` [W/m2 K].

    q_inner = across * T_environment - own * T_inner. `across` is 0 for an adiabatic element.
    """

    across: Complex
    own: Complex


@lru_cache(maxsize=2048)
def admittance(layers: Layers, outer_resistance_m2k_w: float | None) -> Admittance:
    """Admittances of a layered wall; None for the outer resistance means an adiabatic outer face."""
    m = transfer_matrix(layers, OMEGA_RAD_S)
    if outer_resistance_m2k_w is None:
        # With no flux through the outer face: 0 = c T + d q.
        return Admittance(np.zeros(len(OMEGA_RAD_S), dtype=complex), m.c / m.d)
    a, b = m.a + outer_resistance_m2k_w * m.c, m.b + outer_resistance_m2k_w * m.d
    return Admittance(np.exp(-m.log_scale) / b, a / b)


def own_at_once(layers: Layers, outer_resistance_m2k_w: float | None) -> float:
    """Limit of `Admittance.own` for the fastest changes: what lies between the face and the first mass [W/m2 K]."""
    between = 0.0
    for layer in reversed(layers):
        if layer.capacity_j_m2k > 0.0:
            return 1.0 / between if between else np.inf
        between += layer.resistance_m2k_w
    return 0.0 if outer_resistance_m2k_w is None else 1.0 / (between + outer_resistance_m2k_w)


def outer_resistance(boundary: Boundary, climate: Climate) -> float | None:
    """Resistance between the outer face and the environment temperature [m2 K/W]."""
    if boundary.kind == "adiabatic":
        return None
    if boundary.kind == "outdoors":
        return 1.0 / climate.coefficients.outside
    if boundary.kind == "room":
        return 1.0 / (boundary.far_convection_w_m2k + climate.coefficients.radiation_inside)
    return boundary.extra_resistance_m2k_w


@dataclass(frozen=True)
class Kinds:
    """Walls that differ: K of them, 361 frequencies.

    Attributes:
        convection: inside, (K,) [W/m2 K].
        across, own: admittances, (K, 361) [W/m2 K].
        face: G = 1/(own + hc + hr), (K, 361) [m2 K/W].
        face_at_once: its limit for the fastest changes, (K,): 0 where there is mass at the face [m2 K/W].
        layers_m2k_w: resistance of the layers, (K,).
        beyond_m2k_w: between them and the environment, (K,); infinite for adiabatic ones.
        film_m2k_w: inside, of ISO 6946 for the direction in which heat flows, (K,).
    """

    convection: Array
    across: Complex
    own: Complex
    face: Complex
    face_at_once: Array
    layers_m2k_w: Array
    beyond_m2k_w: Array
    film_m2k_w: Array


@dataclass(frozen=True)
class Signals:
    """Environment temperatures counted from the room's set-point: few different ones, many terms.

    Attributes:
        rows: U courses as harmonics, (months, 73) [K] each; the first is zero.
        of: row of each term, (T,).
        level_k: constant to add, (T,) [K].
        winter_k: environment minus heating set-point on the winter day, (T,) [K].
        sky_k: by how much of that the environment is colder than the air there: the clear sky's pull, (T,) [K].
    """

    rows: tuple[Complex, ...]
    of: Ints
    level_k: Array
    winter_k: Array
    sky_k: Array

    @cached_property
    def harmonics(self) -> Complex:
        """All rows, (U, months, 73)."""
        return np.stack(self.rows)

    def at(self, terms: slice | Ints) -> Complex:
        """Harmonics of some terms' temperatures, (n, months, 73)."""
        values = self.harmonics[self.of[terms]].copy()
        values[..., 0] += STEPS_PER_DAY * self.level_k[terms][:, None]
        return np.asarray(values)


@dataclass(frozen=True)
class Stack:
    """Rooms as flat arrays; T terms, P pairs of room and kind, R rooms.

    Attributes:
        room_of, kind_of, category_of, pair_of: of each term, (T,); categories count in CONDUCTION_CATEGORIES.
        area: of each term, (T,) [m2].
        pair_room, pair_kind: (P,).
        kind_area: sparse (R, K) [m2].
        total_area: (R,) [m2].
        capacity_j_k, exchange_w_k: air node's capacity, and its exchange with air from outdoors and other rooms, (R,).
    """

    rooms: tuple[Room, ...]
    kinds: Kinds
    room_of: Ints
    kind_of: Ints
    category_of: Ints
    pair_of: Ints
    area: Array
    pair_room: Ints
    pair_kind: Ints
    kind_area: csr_matrix
    total_area: Array
    capacity_j_k: Array
    exchange_w_k: Array


_Environment = tuple[float | None, int, float, float, float, float, float]


class _Environments:
    """The different courses of environment temperature, and the level of each boundary."""

    def __init__(self, outside: Outdoors, beyond: Mapping[str, InsideCourse]) -> None:
        self.outside = outside
        self.beyond = beyond
        self.rows: list[Complex] = [np.zeros((len(outside.climate.months), HARMONICS), dtype=complex)]
        self._index: dict[object, int] = {}
        self._known: dict[Boundary, _Environment] = {}

    def of(self, boundary: Boundary) -> _Environment:
        """Outer resistance, row, level and its share of the cooling set-point, the same two for winter, the sky's pull."""
        found = self._known.get(boundary)
        if found is None:
            lost = boundary.kind == "room" and boundary.neighbour not in self.beyond
            outer = None if lost else outer_resistance(boundary, self.outside.climate)
            found = (outer, *self._course(boundary), self._above_air_k(boundary))
            self._known[boundary] = found
        return found

    def _above_air_k(self, boundary: Boundary) -> float:
        """By how much the air on the far side is warmer than the environment on the winter day [K]: the sky's pull
        outdoors, the colder faces in another room."""
        if boundary.kind == "room":
            there = self.beyond.get(boundary.neighbour)
            return there.winter_air_c - self._winter_inside_c(boundary, there) if there else 0.0
        return winter_air_c(boundary, self.outside) - winter_environment_c(boundary, self.outside)

    def _winter_inside_c(self, boundary: Boundary, there: InsideCourse) -> float:
        """What the face in another room feels on the winter day; by the simplified procedure its air [°C]."""
        climate = self.outside.climate
        if climate.heating_procedure == "u_values":
            return there.winter_air_c
        share = convected_share(boundary.far_convection_w_m2k, climate.coefficients.radiation_inside)
        return share * there.winter_air_c + (1.0 - share) * there.winter_radiant_c

    def _row(self, key: object, make: Complex) -> int:
        if key not in self._index:
            self._index[key] = len(self.rows)
            self.rows.append(make)
        return self._index[key]

    def _course(self, boundary: Boundary) -> tuple[int, float, float, float, float]:
        outside, climate = self.outside, self.outside.climate
        winter = winter_environment_c(boundary, outside)
        if boundary.kind == "outdoors":
            key = (boundary.tilt_deg, boundary.azimuth_deg, boundary.solar_absorptance, boundary.eye_m)
            return self._row(key, outside.sol_air_harmonics(*key)), 0.0, -1.0, winter, -1.0
        if boundary.kind == "temperature" and boundary.by_month_c:
            monthly = np.array([boundary.by_month_c[m.month - 1] for m in climate.months])
            steps = np.repeat(monthly[:, None], STEPS_PER_DAY, axis=1)
            return self._row(boundary.by_month_c, to_harmonics(steps)), 0.0, -1.0, winter, -1.0
        if boundary.kind == "temperature":
            return 0, boundary.temperature_c, -1.0, winter, -1.0
        if boundary.kind == "pattern":
            days = np.stack([step_averages(boundary.patterns[m.month - 1]) for m in climate.months])
            return self._row(boundary.patterns, to_harmonics(days)), 0.0, -1.0, winter, -1.0
        if boundary.kind == "room" and boundary.neighbour in self.beyond:
            there, far = self.beyond[boundary.neighbour], boundary.far_convection_w_m2k
            share = convected_share(far, climate.coefficients.radiation_inside)
            felt = share * there.air_harmonics + (1.0 - share) * there.radiant_harmonics
            row = self._row(("room", boundary.neighbour, far), felt)
            return row, 0.0, -1.0, self._winter_inside_c(boundary, there), -1.0
        if boundary.kind == "difference":
            return 0, boundary.cooling_difference_k, 0.0, -boundary.heating_difference_k, 0.0
        return 0, 0.0, 0.0, 0.0, 0.0


def winter_environment_c(boundary: Boundary, outside: Outdoors) -> float:
    """Temperature on the far side on the winter day [°C], where it has one of its own.

    The simplified procedure of EN 12831-1 knows no pull of the sky.
    """
    if boundary.kind == "outdoors" and outside.climate.heating_procedure != "u_values":
        return outside.climate.winter_dry_bulb_c - outside.sky_loss_k(boundary.tilt_deg)
    return winter_air_c(boundary, outside)


def winter_air_c(boundary: Boundary, outside: Outdoors) -> float:
    """The same without the sky [°C]."""
    if boundary.kind == "outdoors":
        return outside.climate.winter_dry_bulb_c
    if boundary.kind == "pattern":
        return float(step_averages(boundary.winter_pattern).mean())
    if boundary.kind == "temperature":
        return boundary.temperature_c if boundary.winter_c is None else boundary.winter_c
    return 0.0


class _Faces:
    """The different types of face among rooms: a wall, what is beyond it, and the category it counts to.

    Attributes:
        walls: layers, outer resistance, inside convection and the standard's inside film of each kind.
        places: kind, category and row of environment temperature of each type.
        levels: of each type: level and its share of the cooling set-point, the same two for winter, the sky's pull.
    """

    def __init__(self, environments: _Environments) -> None:
        self._environments = environments
        self._types: dict[tuple[int, int, float, str], int] = {}
        self._kinds: dict[tuple[int, float | None, float, float], int] = {}
        self.walls: list[tuple[Layers, float | None, float, float]] = []
        self.places: list[tuple[int, int, int]] = []
        self.levels: list[tuple[float, float, float, float, float]] = []

    def of(self, rooms: Sequence[Room]) -> tuple[Ints, Array]:
        """Type and area of every element of every room, in order."""
        types, found, areas = self._types, [], []
        for room in rooms:
            for element in room.elements:
                # Layers and boundaries are told apart by identity: they live as long as the rooms that hold them.
                key = (id(element.boundary), id(element.layers), element.convection_w_m2k, element.category)
                place = types.get(key)
                if place is None:
                    place = types[key] = len(types)
                    self._add(element)
                found.append(place)
                areas.append(element.area_m2)
        return np.array(found, dtype=np.int64), np.array(areas)

    def _add(self, element: Element) -> None:
        outer, row, *levels = self._environments.of(element.boundary)
        # Heat flows through it as it lies: the same layers in a roof and in a floor are two kinds.
        film = inside_film(element.boundary.tilt_deg)
        wall = (id(element.layers), outer, element.convection_w_m2k, film)
        kind = self._kinds.get(wall)
        if kind is None:
            kind = self._kinds[wall] = len(self.walls)
            self.walls.append((element.layers, outer, element.convection_w_m2k, film))
        self.places.append((kind, CONDUCTION_CATEGORIES.index(element.category), row))
        self.levels.append((levels[0], levels[1], levels[2], levels[3], levels[4]))


def _numbered(face_room: Ints, type_of: Ints, kinds: Ints, categories: Ints, rows: Ints) -> Ints:
    """Number of the term of each face: faces of a room of the same category, kind and environment are one."""
    like = (categories * (kinds.max() + 1) + kinds) * (rows.max() + 1) + rows
    _, alike = np.unique(like, return_inverse=True)
    _, terms = np.unique(face_room * len(like) + alike[type_of], return_inverse=True)
    return np.asarray(terms)


def _kinds(walls: Sequence[tuple[Layers, float | None, float, float]], radiation_w_m2k: float) -> Kinds:
    found = [admittance(layers, resistance) for layers, resistance, *_ in walls]
    convection = np.array([hc for _, _, hc, _ in walls])
    own = np.stack([wall.own for wall in found])
    at_once = np.array([own_at_once(layers, resistance) for layers, resistance, *_ in walls])
    return Kinds(
        convection=convection,
        across=np.stack([wall.across for wall in found]),
        own=own,
        face=1.0 / (own + (convection[:, None] + radiation_w_m2k)),
        face_at_once=1.0 / (at_once + convection + radiation_w_m2k),
        layers_m2k_w=np.array([sum(layer.resistance_m2k_w for layer in layers) for layers, *_ in walls]),
        beyond_m2k_w=np.array([np.inf if beyond is None else beyond for _, beyond, *_ in walls]),
        film_m2k_w=np.array([film for *_, film in walls]),
    )


def stack_rooms(
    rooms: Sequence[Room], outside: Outdoors, merge: bool = True, beyond: Mapping[str, InsideCourse] | None = None
) -> tuple[Stack, Signals]:
    """Lay rooms end to end. Every room must have at least one element.

    Without `merge` every element is a term of its own, in order. `beyond` is the air of neighbouring rooms by id; where
    one is not known, the wall to it lets nothing through.
    """
    environments = _Environments(outside, beyond or {})
    faces = _Faces(environments)
    type_of, areas = faces.of(rooms)
    face_room = np.repeat(np.arange(len(rooms)), [len(room.elements) for room in rooms])
    kinds, categories, rows = (np.array(column, dtype=np.int64) for column in zip(*faces.places, strict=True))
    terms = _numbered(face_room, type_of, kinds, categories, rows) if merge else np.arange(len(areas))
    first = np.zeros(int(terms.max()) + 1, dtype=np.int64)
    first[terms[::-1]] = np.arange(len(terms))[::-1]
    room_of, type_of_term = face_room[first], type_of[first]
    kind_of = kinds[type_of_term]
    area: Array = np.asarray(np.bincount(terms, weights=areas), dtype=np.float64)
    level, share, cold, cold_share, sky = np.array(faces.levels).T[:, type_of]
    cooling = np.array([room.cooling_setpoint_c for room in rooms])[face_room]
    heating = np.array([room.heating_setpoint_c for room in rooms])[face_room]
    level_k, winter_k, sky_k = (
        np.bincount(terms, weights=areas * value) / area
        for value in (level + share * cooling, cold + cold_share * heating, sky)
    )
    walls = faces.walls
    used, pair_of = np.unique(room_of * len(walls) + kind_of, return_inverse=True)
    kind_area = csr_matrix((area, (room_of, kind_of)), shape=(len(rooms), len(walls)))
    stack = Stack(
        rooms=tuple(rooms),
        kinds=_kinds(walls, outside.climate.coefficients.radiation_inside),
        room_of=room_of,
        kind_of=kind_of,
        category_of=categories[type_of_term],
        pair_of=pair_of,
        area=area,
        pair_room=used // len(walls),
        pair_kind=used % len(walls),
        kind_area=kind_area,
        total_area=np.asarray(kind_area.sum(axis=1)).ravel(),
        capacity_j_k=np.array([room.capacity_j_k for room in rooms]),
        exchange_w_k=np.array(
            [
                (room.infiltration_m3_s + room.direct_outdoor_air_m3_s + room.transfer_m3_s) * outside.air_heat_j_m3k
                for room in rooms
            ]
        ),
    )
    return stack, Signals(tuple(environments.rows), rows[type_of_term], level_k, winter_k, sky_k)
