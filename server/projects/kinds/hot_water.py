"""Stores of hot water."""

from typing import Annotated, ClassVar

from projects.fields import Name
from projects.kinds.declare import About, Kind, Ref, called, link, number


class HotWaterFields(Kind):
    """A store of hot water: who charges it, how it is drawn from, and the sun that preheats it."""

    about: ClassVar[About] = About(unique="name", most=100)

    name: Annotated[Name, called("Store")]
    circuit: Annotated[
        Ref, link("Charged by", "circuit", empties=True, hint="Without a circuit, by an electric element of its own.")
    ] = None
    profile: Annotated[
        Ref, link("Drawn as", "schedule", hint="Only its shape counts: its busiest day draws what the uses say.")
    ] = None
    store_c: Annotated[float, number("Store held at", "temperature", 30, 90)] = 60.0
    around_c: Annotated[float, number("Air around it", "temperature", -20, 45)] = 18.0
    usable_share: Annotated[float, number("Of its water usable", "percent", 0.3, 1)] = 0.9
    reheat_h: Annotated[float, number("Full again within", "time", 0.1, 24)] = 2.0
    volume_l: Annotated[float, number("Pinned volume", "litres", 10, 200_000)] | None = None
    charge_w: Annotated[float, number("Pinned charging power", "load", 100, 1e7)] | None = None
    priority: Annotated[bool, called("Heating waits while it is charged")] = True
    loop_m: Annotated[float, number("Circulation, there and back", "length", 0, 10_000)] = 0.0
    loop_w_m: Annotated[float, number("Circulation loses, a metre", "heat_per_length", 0, 100)] = 8.0
    loop_pump_w: Annotated[float, number("Circulation pump", "power", 0, 5000)] = 0.0
    collector_m2: Annotated[float, number("Collectors", "area", 0, 10_000)] = 0.0
    collector_tilt_deg: Annotated[float, number("Collectors, tilt", "angle", 0, 90)] = 40.0
    collector_azimuth_deg: Annotated[float, number("Collectors, azimuth", "angle", 0, 360, open_high=True)] = 180.0
    collector_eta0: Annotated[float, number("Collectors η0", "ratio", 0.1, 0.95)] = 0.78
    collector_a1_w_m2k: Annotated[float, number("Collectors a1", "u_value", 0, 20)] = 3.5
    collector_a2_w_m2k2: Annotated[float, number("Collectors a2, W/(m² K²)", "ratio", 0, 0.2)] = 0.015
    collector_excess_k: Annotated[float, number("Collector fluid above the tank", "temperature_difference", 0, 30)] = (
        8.0
    )
    tank_l: Annotated[float, number("Preheating tank", "litres", 20, 200_000)] = 300.0
    tank_most_c: Annotated[float, number("Collectors stop at", "temperature", 40, 110)] = 90.0
