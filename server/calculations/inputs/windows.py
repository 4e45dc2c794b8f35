"""Openings: their conduction, and the sun through them."""

from calculations.inputs.fabric import boundary
from calculations.inputs.missing import Missing
from calculations.inputs.schedules import design_patterns
from calculations.lookups import Lookups
from pendrum_core.fabric.panes import Gap, centre_u_value, window_u_value
from pendrum_core.model.fabric import Glazing, Layer, Layers
from pendrum_core.model.rooms import Blind, Element, SunWindow, inside_convection
from pendrum_core.sun.shading import Shading
from projects.resolver import opening_construction
from projects.rows import Row

OUTSIDE_BLIND_AIR_SHARE = 0.1  # behind an outside blind the sun spreads as through bare glass
_SHADING_FIELDS = (
    "overhang_m",
    "overhang_gap_m",
    "overhang_beyond_m",
    "left_fin_m",
    "right_fin_m",
    "fin_gap_m",
    "fin_beyond_m",
    "reveal_m",
)


def opening_area(opening: Row) -> float:
    """Area of all that are alike [m2]."""
    return float(opening["count"] * opening["width_m"] * opening["height_m"])


def centre_of(row: Row) -> float:
    """U-value of the centre of the glass [W/m2 K]: entered, or from the panes."""
    if row["basis"] != "panes" or not row["build_up"]:
        return float(row["centre_u_value"])
    panes = [0.004, *(part["pane_mm"] / 1000.0 for part in row["build_up"])]
    gaps = [Gap(p["gap_mm"] / 1000.0, p["gas"], p["emissivity_1"], p["emissivity_2"]) for p in row["build_up"]]
    return centre_u_value(panes, gaps)


def window_u(row: Row, width_m: float, height_m: float) -> float:
    """U-value of a window of a size [W/m2 K]."""
    if row["basis"] == "whole":
        return float(row["u_value"])
    return window_u_value(
        centre_of(row), row["frame_u_value"], row["edge_psi_w_mk"], row["frame_share"], width_m, height_m
    )


def shading_of(row: Row) -> Shading:
    """A shading row as the core takes it."""
    return Shading(**{field: row[field] for field in _SHADING_FIELDS})


def blind_of(look: Lookups, row: Row) -> Blind | None:
    """The blind of a glazing."""
    if row["blind"] == "none":
        return None
    share = OUTSIDE_BLIND_AIR_SHARE if row["blind"] == "outside" else row["blind_air_share"]
    patterns = design_patterns(look, row["blind_schedule"])
    return Blind(row["blind_factor"], share, row["blind_rule"], row["blind_threshold_w_m2"], patterns.by_month)


def opening(
    look: Lookups, title: str, surface: Row, row: Row, kit: Row | None, eye_m: float
) -> tuple[Element, SunWindow | None]:
    """The conduction of an opening, a door's still without its layers, and its sun where it faces the outdoors.

    Raises:
        Missing: it lies in the ground, or has no construction, or one that cannot be.
    """
    if surface["boundary"] == "ground":
        raise Missing(
            "opening_in_ground",
            "opening",
            row["id"],
            "rooms",
            f"{title}: {row['name']} is in {surface['name']}, which lies on the ground.",
            "move it to another surface, or change what is beyond the surface",
        )
    found = opening_construction(look, row, kit)
    what = "glazing" if row["kind"] == "window" else "door assembly"
    if found.value is None:
        raise Missing(
            "no_glazing",
            "opening",
            row["id"],
            "fabric",
            f"{title}, {row['name']} has no {what}, and the fabric kit has none.",
            f"fill the kit's {row['kind']}, or choose one for the opening",
        )
    outdoors, construction = surface["boundary"] == "outdoors", found.value
    area, tilt = opening_area(row), surface["tilt_deg"]
    sun, layers, absorptance = None, (), 0.0
    if row["kind"] == "window":
        glass = _glass(title, row, construction)
        key = f"{construction['id']}/{glass.u_value}/{glass.name}"
        layers = look.remembered("pane", key, lambda: _pane(glass))
        if outdoors:
            sun = _sun(look, surface, row=row, glass=glass, area=area, eye_m=eye_m, blind=blind_of(look, construction))
    else:
        absorptance = construction["solar_absorptance"]
        if outdoors and construction["glass_share"] > 0.0:
            pane = Glazing(construction["name"], 1.5, construction["glass_g_value"], 0.0, 2)
            sun = _sun(
                look, surface, row=row, glass=pane, area=area * construction["glass_share"], eye_m=eye_m, blind=None
            )
    beyond = boundary(look, title, surface, absorptance, eye_m, [])
    element = Element(
        row["id"],
        row["name"],
        category="windows" if row["kind"] == "window" else "doors",
        area_m2=area,
        layers=layers,
        convection_w_m2k=inside_convection(tilt),
        boundary=beyond,
        construction=construction["id"],
    )
    return element, sun


def _pane(glass: Glazing) -> Layers:
    return (Layer(glass.name, plain_resistance_m2k_w=glass.resistance_m2k_w),)


def _glass(title: str, opening_row: Row, row: Row) -> Glazing:
    try:
        u = window_u(row, opening_row["width_m"], opening_row["height_m"])
        return Glazing(row["name"], u, row["g_value"], row["frame_share"], row["panes"])
    except ValueError as error:
        raise Missing(
            "glazing_impossible",
            "glazing",
            row["id"],
            "fabric",
            f"{title}, {opening_row['name']}: {error}.",
            "change the glazing's values",
        ) from None


def _sun(
    look: Lookups, surface: Row, row: Row, glass: Glazing, area: float, eye_m: float, blind: Blind | None
) -> SunWindow:
    shading = look.row("shading", row["shading"])
    return SunWindow(
        row["id"],
        row["name"],
        glazing=glass,
        area_m2=area,
        tilt_deg=surface["tilt_deg"],
        azimuth_deg=surface["azimuth_deg"],
        eye_m=eye_m,
        width_m=row["width_m"],
        height_m=row["height_m"],
        shading=shading_of(shading) if shading else None,
        blind=blind,
    )
