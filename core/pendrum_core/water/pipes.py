"""Standard pipes for water: nominal sizes, inner diameters and roughness by material.

Roughness: steel and copper after VDI 2073-2 and Colebrook's commercial pipe; plastics EN 1055 practice, 0.007 mm.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from pendrum_core.model.systems import Circuit


@dataclass(frozen=True)
class PipeSeries:
    """Pipes of a material.

    Attributes:
        title, standard: what they are, and the standard of their sizes.
        roughness_m: absolute roughness [m].
        sizes: nominal size and inner diameter [m], small to large.
        outer_m: outer diameters, where the names do not say them [m].
    """

    title: str
    standard: str
    roughness_m: float
    sizes: tuple[tuple[str, float], ...]
    outer_m: tuple[float, ...] = ()

    @property
    def inner_m(self) -> tuple[float, ...]:
        """Inner diameters [m]. Source: the series' standard."""
        return tuple(inner for _, inner in self.sizes)

    def outer_of(self, diameter_m: float) -> float:
        """Outer diameter of a pipe of an inner diameter [m]; between sizes with the wall of the nearest. Source: the series' standard."""
        at = min(range(len(self.sizes)), key=lambda i: abs(self.sizes[i][1] - diameter_m))
        name, inner = self.sizes[at]
        if self.outer_m:
            return diameter_m + self.outer_m[at] - inner
        outer = _STEEL_OUTER_M[name] if name in _STEEL_OUTER_M else float(name.split(" × ")[0]) / 1000.0
        return diameter_m + outer - inner

    def name_of(self, diameter_m: float) -> str:
        """Nominal size of an inner diameter, or the diameter itself."""
        return next(
            (name for name, inner in self.sizes if abs(inner - diameter_m) < 1e-6), f"{diameter_m * 1000:.1f} mm"
        )


def _by_wall(*sizes: tuple[float, float]) -> tuple[tuple[str, float], ...]:
    """Sizes from outer diameter and wall [mm]."""
    return tuple((f"{outer:g} × {wall:g}", round(outer - 2 * wall, 3) / 1000.0) for outer, wall in sizes)


# Outer diameters by nominal size. Source: EN 10255 to DN 150, EN 10220 above.
_STEEL_OUTER_M = {
    "DN 10": 0.0172, "DN 15": 0.0213, "DN 20": 0.0269, "DN 25": 0.0337, "DN 32": 0.0424, "DN 40": 0.0483, "DN 50": 0.0603,
    "DN 65": 0.0761, "DN 80": 0.0889, "DN 100": 0.1143, "DN 125": 0.1397, "DN 150": 0.1651, "DN 200": 0.2191,
    "DN 250": 0.2730, "DN 300": 0.3239,
}  # fmt: skip

PIPES: Mapping[str, PipeSeries] = {
    "steel": PipeSeries(
        "steel", "EN 10255 medium series to DN 150, EN 10220 above", 4.5e-5,
        (("DN 10", 0.0126), ("DN 15", 0.0161), ("DN 20", 0.0217), ("DN 25", 0.0273), ("DN 32", 0.0360),
         ("DN 40", 0.0419), ("DN 50", 0.0531), ("DN 65", 0.0689), ("DN 80", 0.0809), ("DN 100", 0.1053),
         ("DN 125", 0.1297), ("DN 150", 0.1551), ("DN 200", 0.2065), ("DN 250", 0.2604), ("DN 300", 0.3097)),
    ),
    "thin steel": PipeSeries(
        "thin-walled steel, pressed", "EN 10305-3", 1.0e-5,
        _by_wall((12, 1.2), (15, 1.2), (18, 1.2), (22, 1.5), (28, 1.5), (35, 1.5), (42, 1.5), (54, 1.5), (76.1, 2), (88.9, 2), (108, 2)),
    ),
    "copper": PipeSeries(
        "copper", "EN 1057", 1.5e-6,
        _by_wall((10, 1), (12, 1), (15, 1), (18, 1), (22, 1), (28, 1), (35, 1.2), (42, 1.2), (54, 1.5), (64, 2), (76.1, 2), (88.9, 2), (108, 2.5)),
    ),
    "cross-linked polyethylene": PipeSeries(
        "cross-linked polyethylene", "EN ISO 15875-2, series S 3.2", 7e-6,
        _by_wall((16, 2.2), (20, 2.8), (25, 3.5), (32, 4.4), (40, 5.5), (50, 6.9), (63, 8.6), (75, 10.3), (90, 12.3), (110, 15.1)),
    ),
    "multilayer": PipeSeries(
        "multilayer", "EN ISO 21003-2, usual walls", 7e-6,
        _by_wall((16, 2), (20, 2), (26, 3), (32, 3), (40, 3.5), (50, 4), (63, 4.5), (75, 5)),
    ),
}  # fmt: skip

OWN_PIPES = "catalogue"


def series_of(circuit: Circuit) -> PipeSeries:
    """Pipes that a circuit is built of: a standard series, or those of the catalogue, as rough as steel.

    Raises:
        ValueError: pipes of a catalogue that has none.
    """
    if circuit.pipe != OWN_PIPES:
        return PIPES[circuit.pipe]
    pipes = circuit.sizes.pipes
    if not pipes:
        raise ValueError(f"circuit {circuit.name} is built of pipes of the catalogue, and there are none in it")
    return PipeSeries(
        "catalogue",
        "the project's catalogue",
        PIPES["steel"].roughness_m,
        tuple((name, inner) for name, inner, _ in pipes),
        tuple(outer for *_, outer in pipes),
    )
