"""Small rooms for tests."""

from pendrum_core.fabric.glazing import Glazing
from pendrum_core.fabric.layers import Layer
from pendrum_core.model.climate import Climate, Site, SummerMonth
from pendrum_core.model.rooms import Boundary, Element, Gain, Room, SunWindow
from pendrum_core.schedule.pattern import DayPattern

DAY = DayPattern(((480, 0.0), (720, 1.0), (780, 0.4), (1080, 1.0), (1440, 0.05)))
WALL = (
    Layer("brick", 0.1, 0.77, 1700.0, 900.0),
    Layer("wool", 0.12, 0.037, 30.0, 1030.0),
    Layer("plaster", 0.013, 0.5, 1300.0, 1000.0),
)
SLAB = (Layer("concrete", 0.15, 2.1, 2400.0, 1000.0),)
GLASS = Glazing("double", 1.4, 0.5, 0.2, 2)
MONTHS = tuple(
    SummerMonth(m, t, t - 9.0, 9.0, 0.3 + 0.012 * (6 - abs(7 - m)), 2.4 - 0.05 * (6 - abs(7 - m)))
    for m, t in enumerate((10.0, 12.0, 17.0, 22.0, 26.0, 30.0, 32.0, 31.0, 27.0, 21.0, 15.0, 11.0), start=1)
)
CLIMATE = Climate(Site(46.0, 10.0, 1.0, 150.0), -9.0, MONTHS)


def room(
    name: str = "r", azimuth: float = 200.0, cooled: bool = True, scale: float = 1.0, people: float = 250.0
) -> Room:
    """A room with two outer walls, a window, a slab, an inner wall and a neighbour; `scale` multiplies every size."""
    glass = (Layer("glass", plain_resistance_m2k_w=GLASS.resistance_m2k_w),)
    outer = Boundary("outdoors", 90.0, azimuth % 360.0, 0.6)
    return Room(
        id=name,
        number=name,
        name=name,
        floor_area_m2=20.0 * scale,
        volume_m3=60.0 * scale,
        elements=(
            Element("w1", "wall", "walls", 10.0 * scale, WALL, 2.5, outer),
            Element(
                "w2", "wall", "walls", 12.0 * scale, WALL, 2.5, Boundary("outdoors", 90.0, (azimuth + 90) % 360, 0.6)
            ),
            Element("win", "window", "windows", 4.0 * scale, glass, 2.5, outer),
            Element(
                "floor",
                "floor",
                "floors",
                20.0 * scale,
                SLAB,
                0.7,
                Boundary("temperature", 180.0, temperature_c=12.0, extra_resistance_m2k_w=2.0),
            ),
            Element("ceiling", "ceiling", "neighbours", 20.0 * scale, SLAB, 5.0, Boundary("adiabatic")),
            Element(
                "n",
                "neighbour",
                "neighbours",
                9.0 * scale,
                WALL,
                2.5,
                Boundary("difference", extra_resistance_m2k_w=0.13, cooling_difference_k=4.0, heating_difference_k=8.0),
            ),
        ),
        windows=(SunWindow("win", "window", GLASS, 4.0 * scale, 90.0, azimuth % 360.0),),
        gains=(
            Gain("people", people * scale, 180.0 * scale, 0.6, DAY),
            Gain("lights", 160.0 * scale, 0.0, 0.5, DAY),
            Gain("equipment", 240.0 * scale, 30.0 * scale, 0.3, DAY),
        ),
        infiltration_m3_s=0.006 * scale,
        direct_outdoor_air_m3_s=0.0,
        heating_setpoint_c=20.0,
        cooling_setpoint_c=24.0,
        heated=True,
        cooled=cooled,
        capacity_j_k=280_000.0 * scale,
    )
