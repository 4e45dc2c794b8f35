"""Site and design conditions."""

from dataclasses import dataclass

from pendrum_core.sun.skyline import Skyline


@dataclass(frozen=True)
class Site:
    """Where the building stands. Angles [deg], east and north positive; elevation [m]."""

    latitude_deg: float
    longitude_deg: float
    utc_offset_h: float
    elevation_m: float
    ground_reflectance: float = 0.2
    skyline: Skyline = ()


@dataclass(frozen=True)
class SummerMonth:
    """Design conditions of one month: temperatures [°C], daily range [K], optical depths [-].

    Attributes:
        wet_bulb_c: coincident with the maximum dry-bulb.
        ground_reflectance: of this month, where it is not the site's.
        dew_point_c: given for the dehumidification day, whose moisture it sets in place of the wet-bulb.
    """

    month: int
    dry_bulb_c: float
    wet_bulb_c: float
    range_k: float
    tau_b: float
    tau_d: float
    ground_reflectance: float | None = None
    dew_point_c: float | None = None


@dataclass(frozen=True)
class Coefficients:
    """Surface coefficients [W/m2 K] and fixed shares of the room heat balance.

    Source of the defaults: ISO 52016-1:2017, table 25 and annex B; method notes in docs/methods/rooms.md.
    """

    convection_wall: float = 2.5
    convection_ceiling: float = 5.0
    convection_floor: float = 0.7
    radiation_inside: float = 5.13
    convection_outside: float = 20.0
    radiation_outside: float = 4.14
    sky_depression_k: float = 11.0
    solar_share_to_air: float = 0.1

    @property
    def outside(self) -> float:
        """Combined outside coefficient [W/m2 K]."""
        return self.convection_outside + self.radiation_outside


@dataclass(frozen=True)
class Climate:
    """Everything outside the building that a design-day calculation needs.

    Attributes:
        winter_dry_bulb_c: [°C], flat over the day.
        months: the design days of summer in order: twelve months, and the dehumidification day where there is one.
        profile: course of the dry-bulb, "handbook" or "sinusoid".
        winter_gains_share: of the internal gains counted on the winter day [-].
        heating_procedure: "balance", or "u_values" for the simplified steady procedure of EN 12831-1.
    """

    site: Site
    winter_dry_bulb_c: float
    months: tuple[SummerMonth, ...]
    profile: str = "handbook"
    heating_procedure: str = "balance"
    winter_gains_share: float = 0.0
    coefficients: Coefficients = Coefficients()


DEHUMIDIFICATION = 13  # number by which the dehumidification day is called beside months 1 to 12


def day_number(day: SummerMonth) -> int:
    """1 to 12 for the months, 13 for the dehumidification day."""
    return day.month if day.dew_point_c is None else DEHUMIDIFICATION
