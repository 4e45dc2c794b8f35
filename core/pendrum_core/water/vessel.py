"""Expansion vessel of a closed circuit. Source: EN 12828:2012+A1, annex D; pressures are gauge."""

from dataclasses import dataclass

# Nominal volumes of vessels [L], a usual series.
VESSELS_L = (8, 12, 18, 25, 35, 50, 80, 100, 140, 200, 250, 300, 400, 500, 600, 800, 1000)
_RESERVE_SHARE, _LEAST_RESERVE_L = 0.005, 3.0
_BELOW_VALVE_BAR, _BELOW_VALVE_SHARE = 0.5, 0.10
_BAR_PA = 1e5


@dataclass(frozen=True)
class Vessel:
    """A sized vessel.

    Attributes:
        expansion_share: of the content, from filling to the highest temperature [-].
        expansion_m3, reserve_m3: volumes; `final_pa` pressure at the highest temperature, gauge.
        volume_m3: needed; `chosen_m3` next of the series, None above it.
        fill_at_least_pa, fill_at_most_pa: between which it is filled with the chosen vessel, gauge; nought without one.
    """

    expansion_share: float
    expansion_m3: float
    reserve_m3: float
    final_pa: float
    volume_m3: float
    chosen_m3: float | None
    fill_at_least_pa: float
    fill_at_most_pa: float


def size_vessel(
    content_m3: float,
    density_fill_kg_m3: float,
    density_hot_kg_m3: float,
    initial_pa: float,
    valve_pa: float,
    series_l: tuple[float, ...] = VESSELS_L,
) -> Vessel:
    """Size a vessel for a content, between the initial pressure and the safety valve's, gauge [Pa].

    Raises:
        ValueError: the safety valve is so near the initial pressure that nothing is left for expansion.
    """
    p0, valve = initial_pa / _BAR_PA, valve_pa / _BAR_PA
    final = valve - max(_BELOW_VALVE_BAR, _BELOW_VALVE_SHARE * valve)
    if final <= p0:
        raise ValueError(
            f"a safety valve at {valve:.1f} bar leaves {final:.1f} bar for expansion, not above the initial {p0:.1f} bar"
        )
    content = content_m3 * 1000.0
    share = density_fill_kg_m3 / density_hot_kg_m3 - 1.0
    expansion = content * share
    reserve = max(_RESERVE_SHARE * content, _LEAST_RESERVE_L)
    volume = (expansion + reserve) * (final + 1.0) / (final - p0)
    chosen = next((size for size in series_l if size >= volume), None)
    low = high = 0.0
    if chosen is not None:
        low = chosen * (p0 + 1.0) / (chosen - reserve) - 1.0
        high = (final + 1.0) / (1.0 + expansion * (final + 1.0) / (chosen * (p0 + 1.0))) - 1.0
    return Vessel(
        share,
        expansion / 1000.0,
        reserve_m3=reserve / 1000.0,
        final_pa=final * _BAR_PA,
        volume_m3=volume / 1000.0,
        chosen_m3=None if chosen is None else chosen / 1000.0,
        fill_at_least_pa=low * _BAR_PA,
        fill_at_most_pa=high * _BAR_PA,
    )
