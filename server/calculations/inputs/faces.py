"""Faces of a room in two steps: what they are and what is beyond them, then their layers.

The first step rests on surfaces, openings, kit and glazing; a layer that changes leaves it standing, and only the faces
that have that layer are made anew.
"""

from calculations.inputs.fabric import boundary, ground_boundary, layers_or_missing
from calculations.inputs.missing import Missing
from calculations.inputs.windows import opening, opening_area
from calculations.lookups import Lookups
from pendrum_core.checks.snag import DOUBTFUL, Snag
from pendrum_core.model.fabric import Layers
from pendrum_core.model.rooms import Boundary, Element, SunWindow, inside_convection
from projects.resolver import kit_in_use, surface_assembly
from projects.rows import Row
from projects.shared_walls import is_shared, other_side, seen_from_behind

LEAST_AREA_M2 = 1e-6
UNLIKE_SHARE = 0.02  # areas of a wall's two sides that differ by more are said
_CATEGORY = {"outer_wall": "walls", "roof": "roofs", "ground_floor": "floors"}
_UNKNOWN = Boundary("adiabatic")


class _Face:
    """An element that waits for its layers; it remembers the last one made."""

    def __init__(self, bare: Element, on_ground: Row | None, turned: bool = False) -> None:
        self._bare = bare
        self._turned = turned
        self._on_ground = on_ground
        self._made: Element | None = None

    def built(self, look: Lookups, title: str, known: dict[str, Layers], snags: list[Snag]) -> Element:
        """The element; `known` are the layers of assemblies that this room has met already.

        Raises:
            Missing: its assembly has no layers, or something about the ground is not given.
        """
        assembly = self._bare.construction
        key = f"{assembly}/{self._turned}"
        layers = known.get(key)
        if layers is None:
            layers = known[key] = layers_or_missing(look, title, assembly, self._turned)
        if self._on_ground is not None:
            beyond, layers = ground_boundary(look, title, self._on_ground, assembly, layers, snags)
            return _with(self._bare, beyond, layers)
        made = self._made
        if made is None or made.layers is not layers:
            made = self._made = _with(self._bare, self._bare.boundary, layers)
        return made


def _with(bare: Element, beyond: Boundary, layers: Layers) -> Element:
    # Said out field by field: `replace` takes three times as long, and a building has thousands.
    return Element(
        bare.id,
        bare.name,
        category=bare.category,
        area_m2=bare.area_m2,
        layers=layers,
        convection_w_m2k=bare.convection_w_m2k,
        boundary=beyond,
        construction=bare.construction,
    )


_Drawn = tuple[tuple[Element | _Face, ...], tuple[SunWindow, ...], list[Snag]]


def faces_of(
    look: Lookups, title: str, identity: str, eye_m: float
) -> tuple[tuple[Element, ...], tuple[SunWindow, ...], list[Snag]]:
    """Every surface of a room with its openings.

    Raises:
        Missing: one of them lacks something without which the room cannot be calculated.
    """
    drawn: _Drawn = look.remembered(
        "drawn faces", f"{identity}/{title}/{eye_m}", lambda: _drawn(look, title, identity, eye_m)
    )
    faces, windows, found = drawn
    known: dict[str, Layers] = {}
    snags = list(found)
    elements = tuple(face if isinstance(face, Element) else face.built(look, title, known, snags) for face in faces)
    return elements, windows, snags


def _drawn(look: Lookups, title: str, identity: str, eye_m: float) -> _Drawn:
    snags: list[Snag] = []
    faces: list[Element | _Face] = []
    windows: list[SunWindow] = []
    kit = kit_in_use(look)
    for surface in look.many("surfaces of room", identity):
        inside = look.many("openings of surface", surface["id"])
        if is_shared(surface):
            inside = (*inside, *_behind(look, title, surface, snags))
        faces.append(_wall(look, title, surface=surface, inside=inside, kit=kit, eye_m=eye_m, snags=snags))
        for row in inside:
            element, window = opening(look, title, surface, row, kit, eye_m)
            faces.append(element if element.layers else _Face(element, None))
            if window is not None:
                windows.append(window)
    return tuple(faces), tuple(windows), snags


def _behind(look: Lookups, title: str, surface: Row, snags: list[Snag]) -> tuple[Row, ...]:
    """Openings that are entered on the other side of a wall between rooms: they are seen from both."""
    twin = other_side(surface, look.many("surfaces of room", surface["neighbour"]))
    beyond = look.row("room", surface["neighbour"])
    there = f"{beyond['number']} {beyond['name']}" if beyond else "the other room"
    if twin is None or twin["boundary"] != "room":
        snags.append(
            Snag(
                DOUBTFUL,
                "one_sided_wall",
                kind="surface",
                id=surface["id"],
                stage="rooms",
                sentence=f"{title}, {surface['name']} is to {there}, but {there} has no wall to here: it does not feel what "
                "goes through.",
                way_out="choose the room beyond it again: both rooms then have the wall",
            )
        )
        return ()
    # Said once, by the room whose id comes first.
    apart = abs(twin["area_m2"] - surface["area_m2"])
    if surface["room"] < surface["neighbour"] and apart > UNLIKE_SHARE * max(twin["area_m2"], surface["area_m2"]):
        snags.append(
            Snag(
                DOUBTFUL,
                "shared_wall_areas",
                kind="surface",
                id=surface["id"],
                stage="rooms",
                sentence=f"{title}, {surface['name']} has {surface['area_m2']:.2f} m², its other side in {there} "
                f"{twin['area_m2']:.2f} m²; the same wall cannot have two areas.",
                way_out="give both sides the same area",
            )
        )
    return look.many("openings of surface", twin["id"])


def _wall(
    look: Lookups, title: str, surface: Row, inside: tuple[Row, ...], kit: Row | None, eye_m: float, snags: list[Snag]
) -> _Face:
    name, identity = surface["name"], surface["id"]
    taken = sum(opening_area(row) for row in inside)
    net = surface["area_m2"] - taken
    if net < 0.0:
        names = ", ".join(row["name"] for row in inside)
        raise Missing(
            "openings_larger",
            "surface",
            identity,
            "rooms",
            f"{title}, {name}: its openings ({names}) have {taken:.2f} m², the wall only {surface['area_m2']:.2f} m².",
            "make the openings smaller or the wall larger",
        )
    assembly = surface_assembly(look, surface, kit).value
    if assembly is None:
        raise Missing(
            "no_assembly",
            "surface",
            identity,
            "fabric",
            f"{title}, {name} has no assembly, and the fabric kit has none for {surface['role'].replace('_', ' ')}.",
            "fill the kit's role, or choose an assembly for the surface",
        )
    on_ground = surface["boundary"] == "ground"
    beyond = _UNKNOWN if on_ground else boundary(look, title, surface, assembly["solar_absorptance"], eye_m, snags)
    outer = surface["boundary"] in ("outdoors", "ground") and surface["role"] in _CATEGORY
    bare = Element(
        id=identity,
        name=name,
        category=_CATEGORY[surface["role"]] if outer else "neighbours",
        # A wall wholly taken up by its openings keeps a sliver: elements of no area have no place in the balance.
        area_m2=max(net, LEAST_AREA_M2),
        layers=(),
        convection_w_m2k=inside_convection(surface["tilt_deg"]),
        boundary=beyond,
        construction=assembly["id"],
    )
    return _Face(bare, surface if on_ground else None, seen_from_behind(surface))
