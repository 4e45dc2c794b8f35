"""Hot water as inputs: what is drawn, the store, its loop, and the sun that preheats it."""

from dataclasses import dataclass, field

from pendrum_core.schedule.pattern import DayPattern


@dataclass(frozen=True)
class Draw:
    """Hot water a day [L] at a temperature [°C], on the busiest day."""

    litres_day: float
    hot_c: float


@dataclass(frozen=True)
class Collector:
    """Solar collectors before a preheating tank.

    Attributes:
        area_m2, tilt_deg, azimuth_deg: of the collectors, azimuth clockwise from north.
        eta0, a1_w_m2k, a2_w_m2k2: efficiency eta0 - (a1 dT + a2 dT^2)/G of the fluid's mean over outdoors (ISO 9806).
        excess_k: mean of the fluid above the tank [K].
        tank_l: preheating tank [L]; `most_c`: at which the collectors stop [°C].
    """

    area_m2: float
    tilt_deg: float = 40.0
    azimuth_deg: float = 180.0
    eta0: float = 0.78
    a1_w_m2k: float = 3.5
    a2_w_m2k2: float = 0.015
    excess_k: float = 8.0
    tank_l: float = 300.0
    most_c: float = 90.0


@dataclass(frozen=True)
class HotWaterStore:
    """A store of hot water.

    Attributes:
        circuit: heating circuit that charges it; None: its own electric element.
        draws: what the rooms that it serves take on the busiest day.
        profile: course of a day's draw; only its shape counts, set against the busiest day's mean.
        cold_c, store_c, around_c: cold main, store, and the air around it [°C].
        usable_share: of the store's water that comes out hot [-].
        reheat_h: in which an empty store is full again [h].
        volume_l, charge_w: pinned, else sized.
        loop_m, loop_w_m, loop_pump_w: circulation: pipe there and back, heat lost per metre, pump.
        priority: whether heating waits while it is charged.
        collector: solar preheating; None without.
    """

    id: str
    name: str
    circuit: str | None
    draws: tuple[Draw, ...]
    profile: DayPattern
    cold_c: float = 10.0
    store_c: float = 60.0
    around_c: float = 18.0
    usable_share: float = 0.9
    reheat_h: float = 2.0
    volume_l: float | None = None
    charge_w: float | None = None
    loop_m: float = 0.0
    loop_w_m: float = 8.0
    loop_pump_w: float = 0.0
    priority: bool = True
    collector: Collector | None = field(default=None)
