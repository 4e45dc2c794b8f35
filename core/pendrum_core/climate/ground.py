"""Ground temperature from air temperatures."""

from math import cos, exp, pi, sqrt

YEAR_DAYS = 365.0
_MID_MONTH = (15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349)


def ground_temperature_c(
    mean_c: float, amplitude_k: float, coldest_month: int, depth_m: float, diffusivity_m2_s: float
) -> tuple[float, ...]:
    """Undisturbed ground at a depth in the middle of January to December [°C].

    T = Tm - A exp(-z k) cos(2 pi (d - d0)/365 - z k), k = sqrt(pi/(365 alpha)). Source: Kusuda and Achenbach (1965).

    Args:
        mean_c, amplitude_k: of the year's monthly mean air temperatures; half of the swing.
        coldest_month: 1 to 12; its middle is the coldest day d0.
        diffusivity_m2_s: alpha of the soil, conductivity over heat capacity.
    """
    per_day = diffusivity_m2_s * 86_400.0
    reach = depth_m * sqrt(pi / (YEAR_DAYS * per_day))
    first = _MID_MONTH[coldest_month - 1]
    return tuple(
        mean_c - amplitude_k * exp(-reach) * cos(2.0 * pi * (day - first) / YEAR_DAYS - reach) for day in _MID_MONTH
    )
