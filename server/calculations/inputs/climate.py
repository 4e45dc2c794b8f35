"""Site, design days and ground temperatures."""

from calculations.lookups import Lookups
from pendrum_core.climate.ground import ground_temperature_c
from pendrum_core.fabric.ground import SOILS
from pendrum_core.model.climate import Climate, Site, SummerMonth
from pendrum_core.sun.skyline import Obstruction
from projects.rows import Row

SOIL_AT_SURFACE_M2_S = 1e-6  # any soil: at no depth it does not count


def climate(look: Lookups) -> Climate:
    """Site and design conditions; the dehumidification day follows December where it is given."""
    site, project = look.one("site"), look.one("project")
    months = [_month(row) for row in look.months()]
    extra = _dehumidification_day(site, look.months())
    return Climate(
        site=Site(
            site["latitude"],
            site["longitude"],
            site["utc_offset_h"],
            site["elevation_m"],
            site["ground_reflectance"],
            tuple(Obstruction(**part) for part in site["skyline"]),
        ),
        winter_dry_bulb_c=site["winter_dry_bulb_c"],
        months=(*months, extra) if extra else tuple(months),
        profile=project["profile"],
        heating_procedure=project["heating_procedure"],
        winter_gains_share=project["winter_gains_share"],
    )


def _month(row: Row) -> SummerMonth:
    return SummerMonth(
        row["month"],
        row["dry_bulb_c"],
        wet_bulb_c=row["wet_bulb_c"],
        range_k=row["range_k"],
        tau_b=row["tau_b"],
        tau_d=row["tau_d"],
        ground_reflectance=row["ground_reflectance"],
    )


def _dehumidification_day(site: Row, months: tuple[Row, ...]) -> SummerMonth | None:
    """The day of the highest dew point: its month's sun and daily range, its own dry-bulb and moisture."""
    month, dew = site["dehumidification_month"], site["dehumidification_dew_point_c"]
    dry = site["dehumidification_dry_bulb_c"]
    if month is None or dew is None or dry is None:
        return None
    row = months[month - 1]
    return SummerMonth(
        month,
        dry,
        wet_bulb_c=min(dry, dew),
        range_k=row["range_k"],
        tau_b=row["tau_b"],
        tau_d=row["tau_d"],
        ground_reflectance=row["ground_reflectance"],
        dew_point_c=dew,
    )


def ground_by_month_c(look: Lookups) -> tuple[float, ...]:
    """Ground temperature of January to December [°C], as the site says."""
    site = look.one("site")
    if site["ground_source"] == "formula":
        soil = SOILS[site["soil"]]
        return ground_temperature_c(
            site["air_mean_c"],
            site["air_amplitude_k"],
            site["coldest_month"],
            site["ground_depth_m"],
            soil.conductivity_w_mk / soil.capacity_j_m3k,
        )
    constant = site["ground_temperature_c"]
    if site["ground_source"] == "constant":
        return (constant,) * 12
    own = [row["ground_temperature_c"] for row in look.months()]
    return tuple(constant if value is None else value for value in own)


def air_by_month_c(look: Lookups) -> tuple[float, ...]:
    """Mean air of January to December as the site's mean and swing have it [°C]: the ground at no depth."""
    site = look.one("site")
    return ground_temperature_c(
        site["air_mean_c"], site["air_amplitude_k"], site["coldest_month"], 0.0, SOIL_AT_SURFACE_M2_S
    )
