"""Materials, layered elements, windows and their shading, fabric kits."""

from typing import Annotated, ClassVar, Self

from pydantic import AfterValidator, Field, model_validator

from projects.fields import Id, Name, plain
from projects.kinds.declare import About, Kind, Ref, called, link, number, options

Source = Annotated[str, Field(max_length=200), AfterValidator(plain), called("Source of the values")]
UValue = Annotated[float, number("U-value of the window, films included", "u_value", 0.1, 5.8)]


class MaterialFields(Kind):
    """A material, or an air gap with a resistance in place of a conductivity."""

    name: Annotated[Name, called("Material")]
    conductivity_w_mk: Annotated[float, number("Conductivity", "conductivity", 0.001, 500)] | None = None
    density_kg_m3: Annotated[float, number("Density", "density", 0, 12000)] = 0.0
    specific_heat_j_kgk: Annotated[float, number("Specific heat", "specific_heat", 0, 5000)] = 0.0
    resistance_m2k_w: Annotated[float, number("Resistance", "resistance", 0.001, 20)] | None = None
    air_gap: Annotated[bool, called("Air gap")] = False
    vapour_factor: Annotated[float, number("Vapour resistance µ", "count", 1, 1e7)] | None = None
    source: Source = ""

    @model_validator(mode="after")
    def one_of_three(self) -> Self:
        given = (self.conductivity_w_mk is not None) + (self.resistance_m2k_w is not None) + self.air_gap
        if given != 1:
            raise ValueError("give one of conductivity_w_mk, resistance_m2k_w and air_gap, not more and not none")
        return self


class AssemblyFields(Kind):
    """A layered element."""

    name: Annotated[Name, called("Name")]
    element: Annotated[str, options("Element", ["wall", "roof", "floor", "partition", "door"])]
    solar_absorptance: Annotated[float, number("Solar absorptance", "ratio", 0, 1)] = 0.6
    ground_u_value: Annotated[float, number("U to the ground, soil included", "u_value", 0.01, 5)] | None = None
    extra_u_value: Annotated[float, number("Allowance for thermal bridges ΔU", "u_value", 0, 1)] = 0.0
    declared_u_value: Annotated[float, number("Existing: U-value instead of layers", "u_value", 0.05, 5)] | None = None
    mass_class: Annotated[str, options("Class of mass", ["very light", "light", "medium", "heavy", "very heavy"])] = (
        "medium"
    )
    mass_place: Annotated[str, options("Mass lies", ["inside", "outside", "both sides", "spread", "middle"])] = "spread"
    ground_procedure: Annotated[
        str,
        options(
            "Worked out by",
            {
                "declared": "U-value entered",
                "slab": "slab, ISO 13370",
                "basement_floor": "basement floor, ISO 13370",
                "basement_wall": "basement wall, ISO 13370",
                "perimeter": "perimeter factor",
            },
        ),
    ] = "declared"
    ground_area_m2: Annotated[float, number("Whole ground floor", "area", 0.01, 1e6)] | None = None
    ground_perimeter_m: Annotated[float, number("Its outer edge", "length", 0.1, 1e5)] | None = None
    ground_wall_m: Annotated[float, number("Walls above, thickness", "thickness", 0, 3)] = 0.3
    ground_depth_m: Annotated[float, number("Basement floor below ground", "length", 0, 50)] = 0.0
    edge_resistance_m2k_w: Annotated[float, number("Edge insulation, R", "resistance", 0, 20)] = 0.0
    edge_width_m: Annotated[float, number("Edge insulation reaching", "length", 0, 10)] = 0.0
    edge_vertical: Annotated[bool, called("Edge insulation downwards")] = False
    perimeter_factor_w_mk: (
        Annotated[float, number("Loss per length of outer edge", "linear_transmittance", 0.05, 10)] | None
    ) = None
    glass_share: Annotated[float, number("Glass share", "percent", 0, 1, open_high=True)] = 0.0
    glass_g_value: Annotated[float, number("g-value of the glass", "ratio", 0, 1)] = 0.6


class LayerFields(Kind):
    """A layer of an assembly; position 0 is outermost."""

    about: ClassVar[About] = About(owner="assembly", most=20_000)

    assembly: Annotated[Id, link("Assembly", "assembly")]
    position: Annotated[float, number("Place in the order", "", 0, 1e6)]
    material: Annotated[Id, link("Layer, outside first", "material")]
    thickness_m: Annotated[float, number("Thickness", "thickness", 0.0001, 3)] | None = None
    bridge_material: Annotated[Ref, link("Bridged by", "material")] = None
    bridge_share: Annotated[float, number("Share of the bridge", "percent", 0, 0.9)] = 0.0


class ShadingFields(Kind):
    """Fixed shading around an opening."""

    name: Annotated[Name, called("Name")]
    overhang_m: Annotated[float, number("Overhang, depth", "length", 0, 20)] = 0.0
    overhang_gap_m: Annotated[float, number("Above the head by", "length", 0, 20)] = 0.0
    overhang_beyond_m: Annotated[float, number("Past the jambs by", "length", 0, 20)] = 0.0
    left_fin_m: Annotated[float, number("Fin at the left, depth", "length", 0, 20)] = 0.0
    right_fin_m: Annotated[float, number("Fin at the right, depth", "length", 0, 20)] = 0.0
    fin_gap_m: Annotated[float, number("Beside the jambs by", "length", 0, 20)] = 0.0
    fin_beyond_m: Annotated[float, number("Past head and sill by", "length", 0, 20)] = 0.0
    reveal_m: Annotated[float, number("Reveal: pane stands back by", "length", 0, 20)] = 0.0


class PaneGap(Kind):
    """A gap between panes and the pane inside of it."""

    gap_mm: Annotated[float, number("Gap", "ratio", 4, 60)]
    gas: Annotated[str, options("Gas", ["air", "argon", "krypton"])] = "argon"
    emissivity_1: Annotated[float, number("Emissivity, outer face", "ratio", 0.01, 0.95)] = 0.837
    emissivity_2: Annotated[float, number("Emissivity, inner face", "ratio", 0.01, 0.95)] = 0.837
    pane_mm: Annotated[float, number("Pane", "ratio", 2, 40)] = 4.0


class GlazingFields(Kind):
    """A window type, with its blind."""

    name: Annotated[Name, called("Name")]
    u_value: UValue
    g_value: Annotated[float, number("g-value of the glass", "ratio", 0, 1)]
    frame_share: Annotated[float, number("Frame share", "percent", 0, 1, open_high=True)] = 0.2
    panes: Annotated[int, options("Panes", {1: "1", 2: "2", 3: "3"})] = 2
    basis: Annotated[
        str,
        options(
            "U-value from", {"whole": "whole window", "parts": "glass, frame, edge", "panes": "panes, frame, edge"}
        ),
    ] = "whole"
    centre_u_value: Annotated[float, number("Centre of the glass", "u_value", 0.1, 5.8)] = 1.1
    frame_u_value: Annotated[float, number("Frame", "u_value", 0.3, 10)] = 1.4
    edge_psi_w_mk: Annotated[float, number("Edge of the glass ψ", "linear_transmittance", 0, 0.5)] = 0.06
    build_up: Annotated[list[PaneGap], Field(max_length=3), called("Build-up of the glass")] = []
    blind: Annotated[str, options("Blind", ["none", "inside", "between", "outside"])] = "none"
    blind_factor: Annotated[float, number("Lets through of the sun's heat", "percent", 0, 1)] = 0.5
    blind_air_share: Annotated[float, number("Of that straight to the air", "percent", 0, 1)] = 0.4
    blind_rule: Annotated[
        str, options("Drawn", {"always": "always", "irradiance": "above an irradiance", "schedule": "by schedule"})
    ] = "irradiance"
    blind_threshold_w_m2: Annotated[float, number("Above, on the window", "irradiance", 0, 1500)] = 200.0
    blind_schedule: Annotated[Ref, link("Schedule of the blind", "schedule")] = None


class KitFields(Kind):
    """Fabric kit: which assembly each role gets."""

    name: Annotated[Name, called("Name")]
    outer_wall: Annotated[Ref, link("Outer wall", "assembly")] = None
    roof: Annotated[Ref, link("Roof", "assembly")] = None
    ground_floor: Annotated[Ref, link("Ground floor", "assembly")] = None
    inner_wall: Annotated[Ref, link("Inner wall", "assembly")] = None
    inner_floor: Annotated[Ref, link("Inner floor", "assembly")] = None
    door: Annotated[Ref, link("Door", "assembly")] = None
    window: Annotated[Ref, link("Window", "glazing")] = None
