"""What insulated pipes lose to the air around them.

Source: EN ISO 12241:2008, 4.1 (cylindrical layers) and annex A (outer surface of horizontal pipes indoors).
"""

from math import log, pi

from scipy.optimize import brentq

# Of the outer surface in still air, W/m2K: constant for a jacket that is not of metal, and growth per kelvin.
_SURFACE_W_M2K, _GROWTH_W_M2K2 = 8.5, 0.05
FARTHEST_K = 200.0  # of water from the air around, in the validity of the surface coefficient


def pipe_loss_w_m(
    water_c: float, around_c: float, outer_m: float, insulation_m: float, conductivity_w_mk: float
) -> float:
    """Heat that a metre of pipe gives to the air around it; below nought where the water is colder [W/m].

    q = (T water - T around) / (ln(De/Di) / (2 pi lambda) + 1 / (h pi De)), with h = 8.5 + 0.05 |T surface - T around|. The wall of
    the pipe and the film of the water resist nothing.

    Args:
        water_c, around_c: [°C].
        outer_m: outer diameter of the pipe [m].
        insulation_m: thickness, 0 for a bare pipe [m].
        conductivity_w_mk: of the insulation [W/mK].

    Raises:
        ValueError: a diameter, thickness or conductivity that cannot be, or water too far from the air around.

    Source: EN ISO 12241:2008, equations for one cylindrical layer.
    """
    if not (outer_m > 0.0 and insulation_m >= 0.0 and conductivity_w_mk > 0.0):
        raise ValueError(
            f"outer diameter {outer_m:g} m, insulation {insulation_m:g} m and conductivity {conductivity_w_mk:g} W/mK: "
            "diameter and conductivity are above 0, the thickness is 0 or more"
        )
    apart = water_c - around_c
    if abs(apart) > FARTHEST_K:
        raise ValueError(f"water at {water_c:g} °C is more than {FARTHEST_K:g} K from {around_c:g} °C around it")
    if apart == 0.0:
        return 0.0
    outside_m = outer_m + 2.0 * insulation_m
    layer = log(outside_m / outer_m) / (2.0 * pi * conductivity_w_mk)

    def given(surface_k: float) -> float:
        return (_SURFACE_W_M2K + _GROWTH_W_M2K2 * surface_k) * pi * outside_m * surface_k

    def left_over(surface_k: float) -> float:
        return given(surface_k) * layer + surface_k - abs(apart)

    surface_k = brentq(left_over, 0.0, abs(apart), xtol=1e-9)
    return float(given(surface_k)) * (1.0 if apart > 0.0 else -1.0)
