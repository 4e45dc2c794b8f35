"""Hot water: what a day takes, the store and its charging power, and how both go through the day.

The store is sized by the curve of what is drawn against that of what is charged, as EN 12831-3 sets them against each other:
the two must never lie further apart than the store holds.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.hot_water import HotWaterStore
from pendrum_core.quantities.constants import STEP_S, STEPS_PER_DAY
from pendrum_core.schedule.pattern import step_averages
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk

Array = NDArray[np.float64]
DAY_S = 86_400.0
# Nominal volumes of stores [L]: the common row of the trade.
VOLUMES_L = (
    80,
    100,
    120,
    150,
    200,
    300,
    400,
    500,
    750,
    800,
    1000,
    1500,
    2000,
    2500,
    3000,
    4000,
    5000,
    6000,
    8000,
    10_000,
)
_TIGHT = 1e-9
_ROUNDS = 80


def heat_j_per_litre(hot_c: float, cold_c: float) -> float:
    """Heat in a litre of water at `hot_c` above the cold main [J/L]; nothing where the main is as warm."""
    mean = (hot_c + cold_c) / 2.0
    return density_kg_m3(mean) / 1000.0 * specific_heat_j_kgk(mean) * max(0.0, hot_c - cold_c)


def daily_heat_j(litres_per_day: float, hot_c: float, cold_c: float) -> float:
    """Heat to warm a day's hot water from the cold main [J]."""
    return litres_per_day * heat_j_per_litre(hot_c, cold_c)


def standing_w(volume_l: float, store_c: float, around_c: float) -> float:
    """Heat that a store loses [W]: at 45 K the limit of class C of regulation (EU) 812/2013, 16.66 + 8.33 V^0.4, straight with the difference."""
    return float((16.66 + 8.33 * volume_l**0.4) * max(0.0, store_c - around_c) / 45.0)


@dataclass(frozen=True)
class HotWaterResult:
    """A store.

    Attributes:
        heat_j_day: drawn on the busiest day, as heat above the cold main.
        draw_w: drawn at every step of that day, (144,).
        litres_day: at the temperatures at which it is drawn.
        peak_l_s: greatest draw, as water of the store's temperature mixed to what is asked.
        needed_l: volume that the day asks; `volume_l`: the nominal one, or the pinned one.
        stored_j: usable heat of that volume.
        charge_w: power that its source must give, losses included.
        standing_w, loop_w: lost by the store and by circulation, all day.
        charge_course_w, content_j: charging power and usable heat in the store through the day, (144,).
        short_j: heat that is missing on that day, where a pinned volume or power is too small.
        state: "sized" or "pinned".
    """

    store: HotWaterStore
    heat_j_day: float
    draw_w: Array
    litres_day: float
    peak_l_s: float
    needed_l: float
    volume_l: float
    stored_j: float
    charge_w: float
    standing_w: float
    loop_w: float
    charge_course_w: Array
    content_j: Array
    short_j: float
    state: str

    @property
    def losses_w(self) -> float:
        """Lost while nothing is drawn [W]."""
        return self.standing_w + self.loop_w


def draw_course_w(store: HotWaterStore) -> Array:
    """Heat drawn at every step of the busiest day, (144,) [W].

    Raises:
        ValueError: water is drawn, but the profile is nought all day.
    """
    shape = step_averages(store.profile)
    total = sum(daily_heat_j(draw.litres_day, draw.hot_c, store.cold_c) for draw in store.draws)
    mean = float(shape.mean())
    if mean <= 0.0:
        if total > 0.0:
            raise ValueError(f"{store.name}: its profile is nought all day, so that nothing can be drawn")
        return np.zeros(STEPS_PER_DAY)
    return np.asarray(total / DAY_S * shape / mean)


def _farthest_j(draw_w: Array, charge_w: float) -> float:
    """The most that draws run ahead of a charging power over any stretch of repeated days [J]."""
    ahead = deepest = 0.0
    for step in np.tile((draw_w - charge_w) * STEP_S, 2):
        ahead = max(0.0, ahead + float(step))
        deepest = max(deepest, ahead)
    return deepest


def _balanced_j(draw_w: Array, reheat_s: float) -> float:
    """Usable heat of the store that is just never empty, where its power fills it in the reheat time [J]."""
    mean = float(draw_w.mean())
    low, high = 0.0, float(draw_w.sum()) * STEP_S
    for _ in range(_ROUNDS):
        middle = (low + high) / 2.0
        if _farthest_j(draw_w, max(middle / reheat_s, mean)) > middle:
            low = middle
        else:
            high = middle
        if high - low < _TIGHT * (1.0 + high):
            break
    return high


def _least_power_w(draw_w: Array, stored_j: float) -> float:
    """Power with which a store of a content is just never empty [W]."""
    low, high = float(draw_w.mean()), float(draw_w.max())
    if _farthest_j(draw_w, low) <= stored_j:
        return low
    for _ in range(_ROUNDS):
        middle = (low + high) / 2.0
        if _farthest_j(draw_w, middle) > stored_j:
            low = middle
        else:
            high = middle
    return high


def _day(draw_w: Array, stored_j: float, charge_w: float, losses_w: float) -> tuple[Array, Array, float]:
    """Charging power, content and what is missing through a day that follows another one like it."""
    content, short = stored_j, 0.0
    power, held = np.zeros(STEPS_PER_DAY), np.zeros(STEPS_PER_DAY)
    for _ in range(3):
        short = 0.0
        for step in range(STEPS_PER_DAY):
            wanted = (draw_w[step] + losses_w) * STEP_S
            given = min(charge_w * STEP_S, max(0.0, stored_j - content + wanted))
            content += given - wanted
            short += max(0.0, -content)
            content = max(0.0, content)
            power[step], held[step] = given / STEP_S, content
    return power, held, short


def size_hot_water(store: HotWaterStore) -> HotWaterResult | None:
    """Size a store and its charging power for the busiest day; None where nothing is drawn.

    Of volume and power what is pinned stands, and the other follows from it. Range: temperatures of liquid water.

    Raises:
        ValueError: the store is not warmer than the cold main, or its profile is nought.
    """
    draw = draw_course_w(store)
    heat = float(draw.sum()) * STEP_S
    if heat <= 0.0:
        return None
    per_litre = heat_j_per_litre(store.store_c, store.cold_c) * store.usable_share
    if per_litre <= 0.0:
        raise ValueError(f"{store.name}: at {store.store_c:g} °C it is no warmer than the cold main")
    loop = store.loop_m * store.loop_w_m
    balanced = _balanced_j(draw, store.reheat_h * 3600.0)
    if store.charge_w is not None:
        # Losses come off what is left for draws; they hang on the volume, which is found in a second look.
        guess = balanced / per_litre
        net = store.charge_w - loop - standing_w(guess, store.store_c, store.around_c)
        balanced = _farthest_j(draw, max(0.0, net))
    needed = balanced / per_litre
    volume = store.volume_l if store.volume_l is not None else _next_volume(needed)
    stored, standing = volume * per_litre, standing_w(volume, store.store_c, store.around_c)
    if store.charge_w is not None:
        charge = store.charge_w
    elif store.volume_l is not None:
        charge = _least_power_w(draw, stored) + standing + loop
    else:
        charge = max(balanced / (store.reheat_h * 3600.0), float(draw.mean())) + standing + loop
    power, content, short = _day(draw, stored, charge, standing + loop)
    litres = sum(one.litres_day for one in store.draws)
    return HotWaterResult(
        store,
        heat_j_day=heat,
        draw_w=draw,
        litres_day=litres,
        peak_l_s=litres / DAY_S * float(draw.max() / draw.mean()),
        needed_l=needed,
        volume_l=volume,
        stored_j=stored,
        charge_w=charge,
        standing_w=standing,
        loop_w=loop,
        charge_course_w=power,
        content_j=content,
        short_j=short,
        state="sized" if store.volume_l is None and store.charge_w is None else "pinned",
    )


def _next_volume(needed_l: float) -> float:
    """The nominal volume above; beyond the row, whole stores of its largest."""
    for volume in VOLUMES_L:
        if volume >= needed_l:
            return float(volume)
    largest = VOLUMES_L[-1]
    return float(largest * -(-needed_l // largest))
