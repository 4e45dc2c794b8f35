"""Generic materials.

Conductivity, density and specific heat: EN ISO 10456:2007, table 3; vapour factors (dry cup) from the same table or its
annex. Insulation products, which that table leaves to their makers, have typical declared values, marked as such.
"""

from typing import Any

_ISO = "EN ISO 10456:2007, table 3"
_TYPICAL = "typical declared value; check the product"
_GAP = "ISO 6946:2017, table 8"

# Group: (name, conductivity [W/mK], density [kg/m3], specific heat [J/kgK], vapour factor [-], source)
_ROWS: dict[str, tuple[tuple[str, float, float, float, float, str], ...]] = {
    "Masonry": (
        ("Brick, outer leaf", 0.77, 1700, 900, 16, _TYPICAL),
        ("Brick, inner leaf", 0.56, 1700, 900, 16, _TYPICAL),
        ("Concrete block, medium", 0.90, 1800, 1000, 10, _TYPICAL),
        ("Concrete block, light", 0.30, 1000, 1000, 10, _TYPICAL),
        ("Aerated concrete 400", 0.11, 400, 1000, 10, _TYPICAL),
        ("Aerated concrete", 0.16, 600, 1000, 10, _TYPICAL),
        ("Clay hollow block", 0.18, 800, 1000, 10, _TYPICAL),
        ("Calcium silicate block", 0.99, 1800, 1000, 20, _TYPICAL),
        ("Rammed earth", 1.10, 2000, 1000, 10, _TYPICAL),
        ("Granite", 2.80, 2600, 1000, 10000, _ISO),
        ("Basalt", 3.50, 2850, 1000, 10000, _ISO),
        ("Sandstone", 2.30, 2600, 1000, 40, _ISO),
        ("Limestone, medium", 1.40, 2000, 1000, 50, _ISO),
        ("Limestone, hard", 1.70, 2200, 1000, 200, _ISO),
        ("Marble", 3.50, 2800, 1000, 10000, _ISO),
        ("Slate", 2.20, 2400, 1000, 1000, _ISO),
        ("Gneiss", 3.50, 2550, 1000, 10000, _ISO),
        ("Lava, porous", 0.55, 1600, 1000, 20, _ISO),
    ),
    "Concrete and screed": (
        ("Concrete, medium density 1800", 1.15, 1800, 1000, 100, _ISO),
        ("Concrete, medium density 2000", 1.35, 2000, 1000, 100, _ISO),
        ("Concrete, medium density 2200", 1.65, 2200, 1000, 120, _ISO),
        ("Concrete, high density", 2.00, 2400, 1000, 130, _ISO),
        ("Concrete, reinforced", 2.30, 2300, 1000, 130, _ISO),
        ("Concrete, reinforced 2 % steel", 2.50, 2400, 1000, 130, _ISO),
        ("Cement screed", 1.15, 1800, 1000, 60, _TYPICAL),
        ("Anhydrite screed", 1.20, 2100, 1000, 30, _TYPICAL),
        ("Terrazzo", 1.75, 2300, 1000, 100, _TYPICAL),
        ("Perlite concrete", 0.16, 500, 1000, 15, _TYPICAL),
    ),
    "Plaster and board": (
        ("Gypsum plaster 1000", 0.40, 1000, 1000, 10, _ISO),
        ("Gypsum plaster 1300", 0.57, 1300, 1000, 10, _ISO),
        ("Plaster", 0.50, 1300, 1000, 10, _TYPICAL),
        ("Gypsum insulating plaster", 0.18, 600, 1000, 10, _ISO),
        ("Lime and sand plaster", 0.80, 1600, 1000, 10, _ISO),
        ("Cement and sand render", 1.00, 1800, 1000, 10, _ISO),
        ("Gypsum plasterboard 700", 0.21, 700, 1000, 10, _ISO),
        ("Gypsum board", 0.25, 900, 1000, 10, _ISO),
        ("Fibre-cement board", 0.36, 1400, 1000, 50, _TYPICAL),
        ("Calcium silicate board", 0.065, 220, 900, 6, _TYPICAL),
    ),
    "Timber": (
        ("Timber 450", 0.12, 450, 1600, 50, _ISO),
        ("Timber, soft", 0.13, 500, 1600, 50, _ISO),
        ("Timber, hard 700", 0.18, 700, 1600, 200, _ISO),
        ("Plywood 300", 0.09, 300, 1600, 150, _ISO),
        ("Plywood", 0.13, 500, 1600, 200, _ISO),
        ("Plywood 700", 0.17, 700, 1600, 220, _ISO),
        ("Plywood 1000", 0.24, 1000, 1600, 250, _ISO),
        ("Cement-bonded particleboard", 0.23, 1200, 1500, 50, _ISO),
        ("Particleboard 300", 0.10, 300, 1700, 50, _ISO),
        ("Particleboard 600", 0.14, 600, 1700, 50, _ISO),
        ("Particleboard 900", 0.18, 900, 1700, 50, _ISO),
        ("Oriented strand board", 0.13, 650, 1700, 50, _ISO),
        ("Fibreboard 250", 0.07, 250, 1700, 5, _ISO),
        ("Fibreboard 400", 0.10, 400, 1700, 10, _ISO),
        ("Fibreboard 600", 0.14, 600, 1700, 20, _ISO),
        ("Fibreboard 800", 0.18, 800, 1700, 30, _ISO),
    ),
    "Insulation": (
        ("Mineral wool", 0.037, 30, 1030, 1, _TYPICAL),
        ("Mineral wool, board", 0.035, 100, 1030, 1, _TYPICAL),
        ("Glass wool 032", 0.032, 25, 1030, 1, _TYPICAL),
        ("Expanded polystyrene", 0.035, 20, 1450, 60, _TYPICAL),
        ("Expanded polystyrene, grey", 0.031, 18, 1450, 60, _TYPICAL),
        ("Extruded polystyrene", 0.034, 32, 1450, 150, _TYPICAL),
        ("Rigid polyurethane", 0.026, 35, 1400, 60, _TYPICAL),
        ("Phenolic foam", 0.021, 35, 1400, 50, _TYPICAL),
        ("Cellular glass", 0.041, 115, 1000, 1000000, _TYPICAL),
        ("Wood fibre, soft", 0.040, 50, 2100, 5, _TYPICAL),
        ("Wood fibre, board", 0.043, 160, 2100, 5, _TYPICAL),
        ("Cellulose, blown", 0.040, 50, 1600, 2, _TYPICAL),
        ("Cork board", 0.045, 120, 1560, 10, _TYPICAL),
        ("Straw bale", 0.060, 100, 2000, 2, _TYPICAL),
        ("Sheep wool", 0.040, 25, 1700, 1, _TYPICAL),
        ("Vacuum panel", 0.008, 190, 800, 1000000, _TYPICAL),
    ),
    "Membranes and coverings": (
        ("Bitumen", 0.17, 1050, 1000, 50000, _ISO),
        ("Bitumen sheet", 0.23, 1100, 1000, 50000, _ISO),
        ("Polyvinyl chloride sheet", 0.17, 1390, 900, 50000, _ISO),
        ("Polyethylene sheet", 0.33, 920, 2200, 100000, _ISO),
        ("Synthetic rubber sheet", 0.25, 1150, 1000, 6000, _TYPICAL),
        ("Linoleum", 0.17, 1200, 1400, 800, _ISO),
        ("Carpet", 0.06, 200, 1300, 5, _ISO),
        ("Rubber flooring", 0.17, 1200, 1400, 10000, _ISO),
        ("Cork tiles", 0.065, 400, 1500, 20, _ISO),
        ("Ceramic tiles", 1.30, 2300, 840, 1000000, _ISO),
        ("Clay roof tiles", 1.00, 2000, 800, 30, _ISO),
        ("Concrete roof tiles", 1.50, 2100, 1000, 60, _ISO),
        ("Green roof substrate", 0.60, 1200, 1200, 5, _TYPICAL),
    ),
    "Metal, glass, ground": (
        ("Steel sheet", 50.0, 7800, 450, 1000000, _ISO),
        ("Stainless steel", 17.0, 7900, 500, 1000000, _ISO),
        ("Aluminium", 160.0, 2800, 880, 1000000, _ISO),
        ("Copper", 380.0, 8900, 380, 1000000, _ISO),
        ("Zinc", 110.0, 7200, 380, 1000000, _ISO),
        ("Lead", 35.0, 11300, 130, 1000000, _ISO),
        ("Glass", 1.0, 2500, 750, 1000000, _ISO),
        ("Clay or silt", 1.5, 1500, 2000, 50, _ISO),
        ("Sand and gravel", 2.0, 2000, 1000, 50, _ISO),
        ("Soil, homogeneous rock", 3.5, 2500, 800, 10000, _ISO),
    ),
}


def materials() -> list[dict[str, Any]]:
    """The catalogue as fields of materials, with the group each stands in."""
    solids = [
        {
            "group": group,
            "fields": {
                "name": name, "conductivity_w_mk": conductivity, "density_kg_m3": density, "specific_heat_j_kgk": heat,
                "vapour_factor": vapour, "source": source,
            },
        }
        for group, rows in _ROWS.items()
        for name, conductivity, density, heat, vapour, source in rows
    ]  # fmt: skip
    gap = {"name": "Air gap, by thickness", "air_gap": True, "vapour_factor": 1.0, "source": _GAP}
    return [*solids, {"group": "Air gaps", "fields": gap}]


def material(name: str) -> dict[str, Any]:
    """Fields of one material of the catalogue."""
    return next(item["fields"] for item in materials() if item["fields"]["name"] == name)
