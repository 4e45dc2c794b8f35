"""Assemblies, and what is beyond a surface."""

from functools import lru_cache

from calculations.inputs.climate import ground_by_month_c
from calculations.inputs.missing import Missing
from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.fabric.bridged import Bridged, equivalent_layers, with_allowance
from pendrum_core.fabric.declared import declared_layers
from pendrum_core.fabric.ground import SOIL_THICKNESS_M, SOILS, GroundContact, ground_u_value, virtual_temperatures_c
from pendrum_core.fabric.steady import RSI_DOWN, RSI_HORIZONTAL, air_gap_resistance
from pendrum_core.model.fabric import Layer, Layers, films_m2k_w, total_resistance
from pendrum_core.model.rooms import Boundary, inside_convection
from projects.resolver import kit_in_use
from projects.rows import Row

LEAST_M2K_W = 1e-3
ISO_13370_PARTS = ("slab", "basement_floor", "basement_wall")
_ADIABATIC = Boundary("adiabatic")
_GAP_DIRECTION = {"roof": "up", "floor": "down"}


def layer_of(look: Lookups, material: Row, thickness_m: float | None, element: str) -> Layer:
    """A material in a thickness.

    Raises:
        ValueError: no thickness, or a gap thicker than the standard's table.
    """
    if material["resistance_m2k_w"] is not None:
        return Layer(material["name"], plain_resistance_m2k_w=material["resistance_m2k_w"])
    if not thickness_m:
        raise ValueError(f"layer {material['name']} has no thickness")
    if material["air_gap"]:
        resistance = air_gap_resistance(thickness_m, _GAP_DIRECTION.get(element, "horizontal"))
        return Layer(material["name"], thickness_m, plain_resistance_m2k_w=resistance)
    return Layer(
        material["name"],
        thickness_m,
        material["conductivity_w_mk"],
        material["density_kg_m3"],
        material["specific_heat_j_kgk"],
    )


def bridged_layers(look: Lookups, assembly: Row) -> list[Bridged]:
    """Layers of an assembly, outermost first, with what crosses them.

    Raises:
        ValueError: a layer without thickness.
    """
    result = []
    for row in look.many("layers of assembly", assembly["id"]):
        material = look.existing("material", row["material"])
        layer = layer_of(look, material, row["thickness_m"], assembly["element"])
        other = look.row("material", row["bridge_material"]) if row["bridge_share"] else None
        bridge = layer_of(look, other, row["thickness_m"], assembly["element"]) if other else None
        result.append(Bridged(layer, bridge, row["bridge_share"] if bridge else 0.0))
    return result


def assembly_layers(look: Lookups, assembly: Row) -> Layers:
    """Homogeneous layers of an assembly; the same object while nothing of it changes.

    Raises:
        ValueError: it has no layers, or one of them is incomplete.
    """
    found: Layers = look.remembered("layers", assembly["id"], lambda: _layers(look, assembly["id"]))
    return found


def _layers(look: Lookups, identity: str) -> Layers:
    assembly = look.existing("assembly", identity)
    films = sum(films_m2k_w(assembly["element"]))
    if assembly["declared_u_value"] is not None:
        return declared_layers(assembly["declared_u_value"], films, assembly["mass_class"], assembly["mass_place"])
    rows = bridged_layers(look, assembly)
    if not rows:
        raise ValueError("it has no layers")
    return with_allowance(equivalent_layers(rows, films), films, assembly["extra_u_value"])


def _turned_layers(look: Lookups, identity: str) -> Layers:
    """The same object for all walls that show the assembly from behind."""
    found: Layers = look.remembered(
        "turned layers", identity, lambda: assembly_layers(look, look.existing("assembly", identity))[::-1]
    )
    return found


def layers_or_missing(look: Lookups, title: str, identity: str, turned: bool = False) -> Layers:
    """Layers of an assembly that a room needs; `turned` as they are met from the other side.

    Raises:
        Missing: there are none.
    """
    assembly = look.existing("assembly", identity)
    try:
        if turned:
            return _turned_layers(look, identity)
        return assembly_layers(look, assembly)
    except ValueError as error:
        raise Missing(
            "no_layers",
            "assembly",
            assembly["id"],
            "fabric",
            f"Assembly {assembly['name']}, used in {title}: {error}.",
            "complete its layers",
        ) from None


def ground_sizes(look: Lookups, identity: str) -> tuple[float, float]:
    """Area and exposed perimeter of the whole floor of an assembly, from the surfaces that lie on the ground with it
    [m2, m]: what holds where the assembly has none of its own. The plan tells both of every room's.
    """
    found: tuple[float, float] = look.remembered(
        "ground sizes", identity, lambda: _ground_sizes(look, identity), compare=True
    )
    return found


def _ground_sizes(look: Lookups, identity: str) -> tuple[float, float]:
    kit = kit_in_use(look)
    floors = [
        row
        for row in look.every("surface").values()
        if row["boundary"] == "ground" and (row["assembly"] or (kit[row["role"]] if kit else None)) == identity
    ]
    return sum(row["area_m2"] for row in floors), sum(row["exposed_perimeter_m"] or 0.0 for row in floors)


def ground_contact(look: Lookups, assembly: Row, layers: Layers) -> GroundContact:
    """Contact with the ground by ISO 13370.

    Raises:
        ValueError: the whole floor's area or perimeter, or a basement's depth, is not given.
    """
    resistance = total_resistance(layers)
    area_m2, perimeter_m = ground_sizes(look, assembly["id"])
    return GroundContact(
        part=assembly["ground_procedure"],
        area_m2=assembly["ground_area_m2"] or area_m2,
        perimeter_m=assembly["ground_perimeter_m"] or perimeter_m,
        wall_thickness_m=assembly["ground_wall_m"],
        # The floor of a basement is taken to be insulated like the wall that is described.
        floor_resistance_m2k_w=resistance,
        wall_resistance_m2k_w=resistance,
        soil=SOILS[look.said("site", "soil")],
        depth_m=assembly["ground_depth_m"],
        edge_resistance_m2k_w=assembly["edge_resistance_m2k_w"],
        edge_width_m=assembly["edge_width_m"],
        edge_vertical=assembly["edge_vertical"],
    )


def ground_boundary(
    look: Lookups, title: str, surface: Row, identity: str, layers: Layers, snags: list[Snag]
) -> tuple[Boundary, Layers]:
    """What the ground is to a surface, and its layers with the soil that belongs to them.

    Raises:
        Missing: something about the ground is not given.
    """
    assembly = look.existing("assembly", identity)
    procedure = assembly["ground_procedure"]
    tilt, azimuth = surface["tilt_deg"], surface["azimuth_deg"]
    if procedure in ISO_13370_PARTS:
        # Remembered, so that rooms on one floor share the layers with the soil.
        key = f"{identity}/{tilt}/{azimuth}"
        try:
            found: tuple[Boundary, Layers] = look.remembered(
                "ground", key, lambda: _iso_13370(look, identity, tilt, azimuth)
            )
        except ValueError as error:
            raise Missing(
                "ground_incomplete",
                "assembly",
                identity,
                "fabric",
                f"{assembly['name']}, on the ground in {title}: {error}.",
                "enter it",
            ) from None
        return found
    months = ground_by_month_c(look)
    resistance = total_resistance(layers)
    common = {"tilt_deg": tilt, "azimuth_deg": azimuth, "by_month_c": months}
    if procedure == "perimeter":
        factor, length = assembly["perimeter_factor_w_mk"], surface["exposed_perimeter_m"]
        if factor is None or length is None:
            what, kind, row = (
                ("perimeter factor", "assembly", assembly)
                if factor is None
                else ("exposed perimeter", "surface", surface)
            )
            raise Missing(
                "no_perimeter",
                kind,
                row["id"],
                "fabric" if factor is None else "rooms",
                f"{title}, {surface['name']}: no {what} for its loss by perimeter.",
                "enter it",
            )
        if length == 0.0:
            return _ADIABATIC, layers
        beyond = surface["area_m2"] / (factor * length) - RSI_DOWN - resistance
        if beyond <= 0.0:
            snags.append(
                Snag(
                    DOUBTFUL,
                    "perimeter_too_high",
                    kind="surface",
                    id=surface["id"],
                    stage="rooms",
                    sentence=f"{title}, {surface['name']}: a loss of {factor} W/mK along {length} m is above that of its "
                    "layers alone; the layers alone are taken.",
                    way_out="check the length and the factor",
                )
            )
        winter = look.said("site", "winter_dry_bulb_c")
        return Boundary(
            "temperature", extra_resistance_m2k_w=max(beyond, LEAST_M2K_W), winter_c=winter, **common
        ), layers
    beyond, declared = LEAST_M2K_W, assembly["ground_u_value"]
    if declared is None:
        snags.append(
            Snag(
                NOTE,
                "no_ground_u",
                kind="assembly",
                id=assembly["id"],
                stage="fabric",
                sentence=f"{assembly['name']} lies on the ground in {title} but has no U-value to the ground; "
                "its layers alone are taken.",
                way_out="enter it, or have it worked out by ISO 13370",
            )
        )
    else:
        beyond = 1.0 / declared - RSI_DOWN - resistance
        if beyond <= 0.0:
            snags.append(
                Snag(
                    DOUBTFUL,
                    "ground_u_too_high",
                    kind="assembly",
                    id=assembly["id"],
                    stage="fabric",
                    sentence=f"{assembly['name']}: a U-value to the ground of {declared} W/m²K is above that of its "
                    "layers alone; the layers alone are taken.",
                    way_out="lower it",
                )
            )
            beyond = LEAST_M2K_W
    return Boundary("temperature", extra_resistance_m2k_w=beyond, winter_c=min(months), **common), layers


def _iso_13370(look: Lookups, identity: str, tilt: float, azimuth: float) -> tuple[Boundary, Layers]:
    """Half a metre of soil joins the layers; the rest of the resistance lies beyond it.

    Raises:
        ValueError: the contact with the ground is not complete, or cannot be.
    """
    assembly = look.existing("assembly", identity)
    layers = assembly_layers(look, assembly)
    contact = ground_contact(look, assembly, layers)
    soil = contact.soil
    film = RSI_HORIZONTAL if contact.part == "basement_wall" else RSI_DOWN
    beyond = 1.0 / ground_u_value(contact) - film - total_resistance(layers)
    depth = SOIL_THICKNESS_M
    if beyond > depth / soil.conductivity_w_mk:
        density = 2000.0
        earth = Layer("soil", depth, soil.conductivity_w_mk, density, soil.capacity_j_m3k / density)
        layers, beyond = (earth, *layers), beyond - depth / soil.conductivity_w_mk
    air = (look.said("site", field) for field in ("air_mean_c", "air_amplitude_k", "coldest_month"))
    months = virtual_temperatures_c(contact, *air)
    return (
        Boundary(
            "temperature",
            tilt,
            azimuth,
            extra_resistance_m2k_w=max(beyond, LEAST_M2K_W),
            by_month_c=months,
            winter_c=min(months),
        ),
        layers,
    )


@lru_cache(maxsize=4096)
def _outdoors(tilt: float, azimuth: float, absorptance: float, eye_m: float) -> Boundary:
    """One object for all walls alike: the core then works its course out once."""
    return Boundary("outdoors", tilt, azimuth, absorptance, eye_m=eye_m)


def boundary(look: Lookups, title: str, surface: Row, absorptance: float, eye_m: float, snags: list[Snag]) -> Boundary:
    """What is beyond a surface that does not lie on the ground."""
    kind, tilt, azimuth = surface["boundary"], surface["tilt_deg"], surface["azimuth_deg"]
    if kind == "outdoors":
        return _outdoors(tilt, azimuth, absorptance, eye_m)
    if kind == "fixed":
        return Boundary(
            "temperature",
            tilt,
            azimuth,
            temperature_c=surface["fixed_temperature_c"],
            extra_resistance_m2k_w=RSI_HORIZONTAL,
        )
    if kind == "scheduled":
        patterns = design_patterns(look, surface["temperature_schedule"])
        return Boundary(
            "pattern",
            tilt,
            azimuth,
            extra_resistance_m2k_w=RSI_HORIZONTAL,
            patterns=patterns.by_month,
            winter_pattern=patterns.winter,
        )
    if kind == "difference":
        return Boundary(
            "difference",
            tilt,
            azimuth,
            extra_resistance_m2k_w=RSI_HORIZONTAL,
            cooling_difference_k=surface["cooling_difference_k"],
            heating_difference_k=surface["heating_difference_k"],
        )
    if kind == "room" and surface["neighbour"] is not None:
        far = inside_convection(180.0 - tilt)
        return Boundary("room", tilt, azimuth, neighbour=surface["neighbour"], far_convection_w_m2k=far)
    if kind == "room":
        snags.append(
            Snag(
                DOUBTFUL,
                "no_neighbour",
                kind="surface",
                id=surface["id"],
                stage="rooms",
                sentence=f"{title}, {surface['name']} is to another room, but no room is named; it is taken to lose nothing.",
                way_out="choose the room beyond it",
            )
        )
    return _ADIABATIC
