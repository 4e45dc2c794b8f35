"""Elements of existing buildings whose layers are not known: a U-value and a class of mass become layers."""

from pendrum_core.fabric.layers import Layer, Layers

# Areal heat capacity kappa_m [J/m2 K]. Source: ISO 52016-1:2017, table B.14.
MASS_CLASSES = {
    "very light": 50_000.0,
    "light": 75_000.0,
    "medium": 110_000.0,
    "heavy": 175_000.0,
    "very heavy": 250_000.0,
}
MASS_PLACES = ("inside", "outside", "both sides", "spread", "middle")  # classes I, E, IE, D, M of table B.13
_MASS_CONDUCTIVITY, _DENSITY, _HEAT = 1.5, 2000.0, 1000.0  # of the layers that stand for the mass


def declared_layers(u_value: float, films_m2k_w: float, mass: str, place: str) -> Layers:
    """Layers outside to inside with the U-value, and the mass where it lies.

    Raises:
        ValueError: unknown class or place, or a U-value that the films and the mass alone do not allow.
    """
    if mass not in MASS_CLASSES or place not in MASS_PLACES:
        raise ValueError(f"mass {mass!r} with place {place!r} is not among the classes")
    capacity = MASS_CLASSES[mass]
    resistance = 1.0 / u_value - films_m2k_w
    if place == "spread":
        if resistance <= 0.005:
            raise ValueError(_too_high(u_value, films_m2k_w + 0.005))
        thickness = capacity / (_DENSITY * _HEAT)
        return (Layer(f"{mass} element", thickness, thickness / resistance, _DENSITY, _HEAT),)
    sides = 2 if place == "both sides" else 1
    thickness = capacity / sides / (_DENSITY * _HEAT)
    solid = Layer(f"{mass} mass", thickness, _MASS_CONDUCTIVITY, _DENSITY, _HEAT)
    left = resistance - sides * solid.resistance_m2k_w
    if left <= 0.005:
        raise ValueError(_too_high(u_value, films_m2k_w + sides * solid.resistance_m2k_w + 0.005))
    if place == "middle":
        half = Layer("resistance", plain_resistance_m2k_w=left / 2.0)
        return (half, solid, half)
    rest = Layer("resistance", plain_resistance_m2k_w=left)
    return {"inside": (rest, solid), "outside": (solid, rest), "both sides": (solid, rest, solid)}[place]


def _too_high(u_value: float, least_m2k_w: float) -> str:
    return f"a U-value of {u_value:g} W/m2K is above the {1.0 / least_m2k_w:.2f} that films and mass alone have"
