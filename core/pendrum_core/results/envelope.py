"""The envelope of a building by element."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from pendrum_core.fabric.layers import Layers, total_resistance
from pendrum_core.fabric.periodic import dynamic_values
from pendrum_core.fabric.steady import RSE, inside_film
from pendrum_core.model.rooms import Element, Room


@dataclass
class EnvelopeLine:
    """One construction in one kind of place.

    Attributes:
        construction: id of the assembly or glazing.
        category: load source it counts to.
        towards: kind of boundary.
        area_m2: openings taken out.
        conductance_w_k: U A with the films of ISO 6946.
    """

    construction: str
    category: str
    towards: str
    area_m2: float = 0.0
    conductance_w_k: float = 0.0

    @property
    def u_value(self) -> float:
        """Mean U-value [W/m2 K]."""
        return self.conductance_w_k / self.area_m2

    @property
    def inside(self) -> bool:
        """Whether it parts two rooms of the building: heat moves through it, but the building does not lose it."""
        return self.towards == "room"


@dataclass
class Envelope:
    """Sum over rooms.

    Attributes:
        lines: towards the outdoors, the ground and fixed neighbours, and between rooms.
        air_w_k: infiltration and untreated outdoor air.
        capacity_j_k: heat capacity that a day reaches (ISO 13786) of all faces, with air and furniture.
    """

    lines: list[EnvelopeLine] = field(default_factory=list)
    air_w_k: float = 0.0
    capacity_j_k: float = 0.0

    @property
    def transmission_w_k(self) -> float:
        """Sum of U A of what the building loses heat through."""
        return sum(line.conductance_w_k for line in self.lines if not line.inside)

    @property
    def time_constant_h(self) -> float:
        """Capacity over total heat loss coefficient [h]; 0 where nothing is lost."""
        total = self.transmission_w_k + self.air_w_k
        return self.capacity_j_k / total / 3600.0 if total > 0.0 else 0.0


@dataclass(frozen=True)
class _Share:
    """One room's part: construction, category, boundary, area and conductance of each face that counts; capacity."""

    elements: tuple[Element, ...]
    faces: tuple[tuple[tuple[str, str, str], float, float], ...]
    capacity_j_k: float


class Envelopes:
    """Envelopes of one building again and again; what a room brings is kept while its elements are the same."""

    def __init__(self) -> None:
        self._shares: dict[str, _Share] = {}

    def of(self, rooms: Sequence[Room], air_heat_j_m3k: float) -> Envelope:
        """Areas, U A and heat capacity of the rooms together."""
        result = Envelope()
        lines: dict[tuple[str, str, str], EnvelopeLine] = {}
        # What was found for some layers holds for this call: they are told apart by identity.
        capacities: dict[int, float] = {}
        losses: dict[tuple[int, str, float, float], float] = {}
        shares: dict[str, _Share] = {}
        for room in rooms:
            share = self._shares.get(room.id)
            if share is None or share.elements is not room.elements:
                share = _share(room, capacities, losses)
            shares[room.id] = share
            result.air_w_k += (room.infiltration_m3_s + room.direct_outdoor_air_m3_s) * air_heat_j_m3k
            result.capacity_j_k += room.capacity_j_k + share.capacity_j_k
            for place, area, conductance in share.faces:
                line = lines.get(place)
                if line is None:
                    line = lines[place] = EnvelopeLine(*place)
                line.area_m2 += area
                line.conductance_w_k += conductance
        self._shares = shares
        result.lines = sorted(lines.values(), key=lambda line: (line.inside, -line.conductance_w_k))
        return result


def _share(room: Room, capacities: dict[int, float], losses: dict[tuple[int, str, float, float], float]) -> _Share:
    capacity = 0.0
    faces: dict[tuple[str, str, str], tuple[float, float]] = {}
    for element in room.elements:
        b = element.boundary
        key = id(element.layers)
        if key not in capacities:
            capacities[key] = _inner_capacity(element.layers)
        capacity += capacities[key] * element.area_m2
        if b.kind in ("adiabatic", "difference"):
            continue
        place = (key, b.kind, b.tilt_deg, b.extra_resistance_m2k_w)
        if place not in losses:
            losses[place] = element_u_value(element)
        line = (element.construction, element.category, b.kind)
        area, conductance = faces.get(line, (0.0, 0.0))
        faces[line] = (area + element.area_m2, conductance + losses[place] * element.area_m2)
    return _Share(room.elements, tuple((line, *sums) for line, sums in faces.items()), capacity)


def _inner_capacity(layers: Layers) -> float:
    if not any(layer.capacity_j_m2k > 0.0 for layer in layers):
        return 0.0
    return dynamic_values(layers, 0.0, 0.0).internal_areal_capacity


def element_u_value(element: Element) -> float:
    """U-value with the standard's inside film and what is beyond [W/m2 K], ISO 6946:2017."""
    b = element.boundary
    beyond = RSE if b.kind == "outdoors" else b.extra_resistance_m2k_w
    return 1.0 / (inside_film(b.tilt_deg) + total_resistance(element.layers) + beyond)
