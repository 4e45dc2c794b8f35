"""A hot-water store through a year: two fully mixed tanks, sun before them, losses, and the source that keeps the second one hot.

Draws, sun and outdoor air are constant within an hour; the tanks are marched in steps of a minute.
Source: heat balance of fully mixed tanks; collectors as EN ISO 9806 describes them.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pendrum_core.model.hot_water import Collector
from pendrum_core.model.year import YearCourse
from pendrum_core.quantities.compiled import compiled
from pendrum_core.water.hot_water import HotWaterResult
from pendrum_core.water.properties import density_kg_m3, specific_heat_j_kgk
from pendrum_core.year.sky import YearSky

Array = NDArray[np.float64]
HOUR_S, MINUTE_S, _MINUTES = 3600.0, 60.0, 60
_NO_SUN = Collector(0.0, tank_l=0.0)
_MEAN_C = 40.0  # at which water's heat capacity is taken for the tanks


@dataclass(frozen=True)
class HotWaterYear:
    """Hourly means of a store [W], (hours,).

    Attributes:
        drawn_w: heat in what was drawn; `asked_w`: what was asked; the rest was too cool.
        charged_w: from its source; `solar_w`: from the collectors into the preheating tank.
        lost_w: by both tanks and the loop.
        tank_c, preheated_c: temperatures at the ends of hours [°C].
        stored_j: change of what the tanks hold from the beginning to the end of the year [J].
    """

    asked_w: Array
    drawn_w: Array
    charged_w: Array
    solar_w: Array
    lost_w: Array
    tank_c: Array
    preheated_c: Array
    stored_j: float

    @property
    def missing_w(self) -> Array:
        """Asked and not given [W]."""
        return np.maximum(self.asked_w - self.drawn_w, 0.0)


@compiled
def march_tanks(
    use_w_k,
    hot_c,
    cold_c,
    set_c,
    around_c,
    tank_w_s_k,
    tank_loss_w_k,
    loop_w,
    most_w,
    pre_w_s_k,
    pre_loss_w_k,
    area,
    eta0,
    a1,
    a2,
    excess,
    most_c,
    sun,
    outdoor,
    tank,
    pre,
    drawn,
    charged,
    solar,
    lost,
    tanks,
    pres,
):
    """March both tanks; hour means and temperatures come back in the last six arrays, the last temperatures as the result."""
    for hour in range(len(use_w_k)):
        d = c = s = loss = 0.0
        for _ in range(_MINUTES):
            entering = pre if pre_w_s_k > 0.0 else cold_c
            # What is mixed at the tap: the cooler the tank, the more of it, at most all.
            out = use_w_k[hour]
            if tank > hot_c and tank > cold_c:
                out = use_w_k[hour] * (hot_c - cold_c) / (tank - cold_c)
            give = out * (tank - cold_c)
            away = tank_loss_w_k * (tank - around_c) + loop_w
            wanted = (set_c - tank) * tank_w_s_k / MINUTE_S + away + out * (tank - entering)
            power = min(most_w, max(0.0, wanted))
            gain = away_pre = 0.0
            if pre_w_s_k > 0.0:
                if pre < most_c:
                    over = pre + excess - outdoor[hour]
                    gain = max(0.0, area * (eta0 * sun[hour] - a1 * over - a2 * over * abs(over)))
                away_pre = pre_loss_w_k * (pre - around_c)
                pre += (gain - away_pre - out * (pre - cold_c)) * MINUTE_S / pre_w_s_k
            tank += (power - away - out * (tank - entering)) * MINUTE_S / tank_w_s_k
            d += give
            c += power
            s += gain
            loss += away + away_pre
        drawn[hour], charged[hour], solar[hour], lost[hour] = d / _MINUTES, c / _MINUTES, s / _MINUTES, loss / _MINUTES
        tanks[hour], pres[hour] = tank, pre
    return tank, pre


def hourly_draw(sized: HotWaterResult, profile: YearCourse | None, hours: int) -> Array:
    """Heat asked in every hour [W]: the day's course of the profile, its busiest day taking what the busiest day takes."""
    if profile is None:
        return np.resize(sized.draw_w.reshape(24, 6).mean(axis=1), hours)
    course = profile.hours()[:hours]
    days = course[: hours // 24 * 24].reshape(-1, 24).sum(axis=1)
    busiest = float(days.max(initial=0.0))
    return np.asarray(course * (sized.heat_j_day / HOUR_S / busiest)) if busiest > 0.0 else np.zeros(hours)


def hot_water_year(sized: HotWaterResult, profile: YearCourse | None, sky: YearSky) -> HotWaterYear:
    """A store over the hours of a weather year; the tanks begin as the year before left them."""
    store, hours = sized.store, len(sky.dry_bulb_c)
    asked = hourly_draw(sized, profile, hours)
    hot = sum(one.litres_day * one.hot_c for one in store.draws) / max(sized.litres_day, 1e-12)
    use_w_k = asked / max(hot - store.cold_c, 1e-9)
    per_litre_k = density_kg_m3(_MEAN_C) / 1000.0 * specific_heat_j_kgk(_MEAN_C)
    sun_by = store.collector or _NO_SUN
    sun = sky.plane(sun_by.tilt_deg, sun_by.azimuth_deg).total if store.collector else np.zeros(hours)
    per_k = max(store.store_c - store.around_c, 1e-9)
    # A preheating tank loses as a store of its volume does.
    pre_loss = (16.66 + 8.33 * sun_by.tank_l**0.4) / 45.0 if store.collector else 0.0
    rows = [np.empty(hours) for _ in range(6)]
    tank, pre = store.store_c, store.cold_c
    start = (tank, pre)
    for _ in range(2):  # the first pass settles the tanks, the second counts
        start = (tank, pre)
        tank, pre = march_tanks(
            use_w_k,
            hot,
            store.cold_c,
            store.store_c,
            store.around_c,
            sized.volume_l * per_litre_k,
            sized.standing_w / per_k,
            sized.loop_w,
            sized.charge_w,
            sun_by.tank_l * per_litre_k,
            pre_loss,
            sun_by.area_m2,
            sun_by.eta0,
            sun_by.a1_w_m2k,
            sun_by.a2_w_m2k2,
            sun_by.excess_k,
            sun_by.most_c,
            sun,
            sky.dry_bulb_c,
            tank,
            pre,
            *rows,
        )
    held = per_litre_k * (sized.volume_l * (tank - start[0]) + sun_by.tank_l * (pre - start[1]))
    drawn, charged, solar, lost, tanks, pres = rows
    return HotWaterYear(
        asked, drawn, charged, solar_w=solar, lost_w=lost, tank_c=tanks, preheated_c=pres, stored_j=held
    )


def saved_share(with_sun: HotWaterYear, without: HotWaterYear) -> float:
    """What the sun spares the source, against the same store without collectors [-]."""
    plain = float(without.charged_w.sum())
    return 1.0 - float(with_sun.charged_w.sum()) / plain if plain > 0.0 else 0.0
