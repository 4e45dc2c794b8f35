"""TMY3 files, by the solar library's reader."""

import io

import numpy as np

from pendrum_core.weather.delimited import LIMITS, Reading
from pendrum_core.weather.fault import Fault
from pendrum_core.weather.plausible import sun_faults
from pendrum_core.weather.year import WeatherYear

_COLUMNS = {
    "dry_bulb": "temp_air",
    "relative_humidity": "relative_humidity",
    "pressure": "pressure",
    "wind": "wind_speed",
    "global": "ghi",
    "beam": "dni",
    "diffuse": "dhi",
}
_SCALE = {"relative_humidity": 0.01, "pressure": 100.0}


def looks_like_tmy3(text: str) -> bool:
    """Whether the second line is that of a TMY3 file."""
    lines = text.split("\n", 2)
    return len(lines) > 1 and lines[1].startswith("Date (MM/DD/YYYY),Time (HH:MM)")


def read_tmy3_text(text: str) -> Reading:
    """Read a typical year of 8760 hours or nothing; every fault names its line."""
    from pvlib.iotools import read_tmy3  # slow to import

    try:
        data, about = read_tmy3(io.StringIO(text), coerce_year=None, map_variables=True)
    except Exception as error:  # the reader raises whatever pandas raises on a broken file
        return Reading(faults=[Fault(0, f"not readable as TMY3: {error}")])
    faults = []
    if len(data) != 8760:
        faults.append(Fault(0, f"{len(data)} hours; a TMY3 year has 8760"))
    values = {}
    for name, column in _COLUMNS.items():
        if column not in data:
            return Reading(faults=[Fault(0, f"the column of {name.replace('_', ' ')} is not there")])
        values[name] = data[column].to_numpy(dtype=float) * _SCALE.get(name, 1.0)
        low, high = LIMITS[name]
        wrong = np.flatnonzero(~((values[name] >= low) & (values[name] <= high)))[:20]
        faults += [Fault(int(h) + 3, f"{name.replace('_', ' ')}: {values[name][h]:g} cannot be") for h in wrong]
    if faults:
        return Reading(faults=faults)
    year = WeatherYear(
        # Months of a typical year come from different years; a year without a leap day keeps its hours in order.
        2023,
        float(about["latitude"]),
        longitude_deg=float(about["longitude"]),
        utc_offset_h=float(about["TZ"]),
        elevation_m=float(about["altitude"]),
        dry_bulb_c=values["dry_bulb"],
        relative_humidity=np.clip(values["relative_humidity"], 0.0, 1.0),
        pressure_pa=values["pressure"],
        wind_m_s=values["wind"],
        global_w_m2=values["global"],
        beam_w_m2=values["beam"],
        diffuse_w_m2=values["diffuse"],
        notes=(f"TMY3 station {str(about['Name']).strip(chr(34))}",),
    )
    out_of_place = sun_faults(year)
    return Reading(faults=out_of_place) if out_of_place else Reading(year=year)
