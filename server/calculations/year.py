"""The year of a project: run as a task, summed for the screen, its hours kept for who asks."""

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np
from numpy.typing import NDArray

from calculations.inputs.year import Courses, year_room
from calculations.snapshot import Snapshots
from calculations.weather_files import year_of
from pendrum_core.air.balance import SUPPLY
from pendrum_core.model.rooms import GAIN_CATEGORIES
from pendrum_core.model.systems import MAKE_UP
from pendrum_core.model.year import YearCircuit, YearCourse
from pendrum_core.moist_air import specific_volume_m3_kg
from pendrum_core.results.building import BuildingResults
from pendrum_core.weather.typical import NAME, typical_year
from pendrum_core.year.energy import BuildingYear, building_year
from pendrum_core.year.hot_water import HotWaterYear
from pendrum_core.year.rooms import RoomYear
from pendrum_core.year.sky import YearSky
from pendrum_core.year.tariff import Band, MonthBill, Tariff, bills, emissions_kg, hour_calendar
from projects.errors import Refused
from projects.models import WeatherFile
from projects.rows import Document, Row

Array = NDArray[np.float64]
_KWH = 1e-3
_M3 = 3.6  # of a kilogram a second over an hour
_AIR_C = 20.0
_UNMET_W = 10.0  # from which on an hour counts as one in which a circuit does not give what is asked
FABRIC = "walls, windows and stored heat"


def run_year(
    document: Document, file: WeatherFile | None, results: BuildingResults, tell: Callable[[float, str], None]
) -> tuple[dict[str, Any], dict[str, Any]]:
    """Work the year out for the document's results: its hours, and what is told of it; without a file for typical days.

    Raises:
        Refused: nothing to work out, or neither a file of hours nor a design day of every month.
    """
    if not results.rooms:
        raise Refused("nothing", "No room can be calculated; the snags say why.")
    try:
        weather = typical_year(results.building.climate) if file is None else year_of(file)
    except ValueError as error:
        raise Refused(
            "nothing", f"There is no weather year; import one under Place, Weather. Without one, {error}."
        ) from None
    snapshot = Snapshots().take(document)
    courses = Courses(snapshot.look, len(weather.dry_bulb_c) // 24)
    calculated = [room for room in results.building.rooms if room.id in results.rooms]
    years = [year_room(snapshot.look, courses, room, snapshot.effective[room.id]) for room in calculated]
    sky = YearSky.of(weather, results.building.climate)
    running = {
        identity: courses.of(row["running"]) if row["running"] else None
        for identity, row in document.of("air_system").items()
    }
    owed = _owed(document, results, courses, len(weather.dry_bulb_c))
    profiles = {
        identity: courses.of(row["profile"]) for identity, row in document.of("hot_water").items() if row["profile"]
    }
    hours = len(weather.dry_bulb_c)
    connected = [
        (row["use"], row["power_w"] * np.asarray(courses.of(row["schedule"]).hours())[:hours])
        for row in document.of("connected_load").values()
    ]
    found = building_year(
        results,
        years,
        sky,
        running=running,
        owed_kg_s=owed,
        progress=lambda share, doing: tell(0.05 + 0.9 * share, doing),
        profiles=profiles,
        connected=connected,
        circuits={
            identity: YearCircuit(
                *(courses.of(row[field]) if row[field] else None for field in ("running", "flow_schedule"))
            )
            for identity, row in document.of("circuit").items()
        },
    )
    months = weather.month_of
    return _hours(found), _summary(document, (NAME, "") if file is None else (file.name, file.pk), found, months)


def _owed(document: Document, results: BuildingResults, courses: Courses, hours: int) -> dict[str, dict[str, Array]]:
    """What make-up units owe their rooms, hour by hour [kg/s]."""
    density = 1.0 / float(specific_volume_m3_kg(_AIR_C, 0.0, results.outdoors.pressure_pa))
    owed: dict[str, dict[str, Array]] = {}
    for system in results.building.systems:
        if system.kind != MAKE_UP:
            continue
        for terminal in system.terminals:
            balance = results.balance.rooms.get(terminal.room)
            if balance is None or balance.free != SUPPLY:
                continue
            taken = np.full(hours, balance.transfer_out_m3_s + balance.offset_m3_s - balance.transfer_in_m3_s)
            for row in document.of("extract").values():
                if row["room"] == terminal.room and row["above_c"] is None:
                    course: YearCourse = courses.of(row["schedule"])
                    taken += row["flow_m3_s"] * course.hours()[:hours]
            owed.setdefault(system.id, {})[terminal.room] = density * np.maximum(taken, 0.0)
    return owed


def _hours(found: BuildingYear) -> dict[str, Any]:
    """Hourly courses by name, as they are kept."""
    series: dict[str, Any] = {}
    for room, year in found.rooms.items():
        asked = found.asked[room]
        series |= {
            f"room/{room}/air_c": year.air_c,
            f"room/{room}/operative_c": year.operative_c,
            f"room/{room}/heating_w": asked.heating_w,
            f"room/{room}/cooling_w": asked.cooling_w,
            f"room/{room}/sun_w": year.sun_w,
        }
    for system, of_system in found.systems.items():
        for name in ("cooling_w", "heating_w", "fans_w", "flow_kg_s", "outdoor_kg_s"):
            series[f"air_system/{system}/{name}"] = getattr(of_system, name).astype(np.float32)
    for store, of_store in found.stores.items():
        for name in ("drawn_w", "charged_w", "solar_w", "lost_w", "tank_c", "preheated_c"):
            series[f"hot_water/{store}/{name}"] = getattr(of_store, name).astype(np.float32)
    for (use, carrier), watts in found.energy_w.items():
        series[f"energy/{use}/{carrier}"] = watts
    for (what, identity), kg_s in found.water_kg_s.items():
        series[f"water/{what}/{identity}"] = kg_s
    for circuit, watts in found.carried_w.items():
        series |= {f"circuit/{circuit}/carried_w": watts, f"circuit/{circuit}/unmet_w": found.unmet_w[circuit]}
    for (circuit, unit), watts in found.output_w.items():
        series[f"unit/{circuit}/{unit}"] = watts
    return series


def _by_month(watts: Any, months: Any) -> list[float]:
    """kWh of January to December."""
    return [float(value) * _KWH for value in np.bincount(months - 1, weights=watts, minlength=12)[:12]]


def _sources(asked: RoomYear, months: Any) -> dict[str, list[float]]:
    """Heat by source and month; the walls' and windows' is what the others leave, so that it holds what is stored from month to month."""
    found = {
        "sun": _by_month(asked.sun_w, months),
        **{name: _by_month(row, months) for name, row in zip(GAIN_CATEGORIES, asked.gains_w, strict=False)},
        "outdoor air": _by_month(asked.outdoor_w, months),
        "drawn air": _by_month(asked.drawn_w, months),
        "heating": _by_month(asked.heating_w, months),
        "cooling": [-value for value in _by_month(asked.cooling_w, months)],
    }
    return {FABRIC: [-sum(values) for values in zip(*found.values(), strict=True)], **found}


def _room(asked: RoomYear, year: RoomYear, months: Any) -> dict[str, Any]:
    """Heat and cold as asked with ideal plant; temperatures and hours as it is under its supply air."""
    return {
        "heating_kwh": asked.heating_kwh,
        "cooling_kwh": asked.cooling_kwh,
        "heating_month_kwh": _by_month(asked.heating_w, months),
        "cooling_month_kwh": _by_month(asked.cooling_w, months),
        "heating_peak_w": float(asked.heating_w.max()),
        "heating_peak_hour": int(asked.heating_w.argmax()),
        "cooling_peak_w": float(asked.cooling_w.max()),
        "cooling_peak_hour": int(asked.cooling_w.argmax()),
        "served_heating_kwh": year.heating_kwh,
        "coldest_c": float(year.air_c.min()),
        "warmest_c": float(year.air_c.max()),
        "warmest_hour": int(year.air_c.argmax()),
        "too_warm_h": year.too_warm_h,
        "occupied_h": year.occupied_h,
        "unmet_heating_h": year.unmet_heating_h,
        "unmet_cooling_h": year.unmet_cooling_h,
        "missed_heating_kh": year.missed_heating_kh,
        "missed_cooling_kh": year.missed_cooling_kh,
        "balance_kwh": dict(asked.balance_kwh),
        "sources_month_kwh": _sources(asked, months),
        "fit_error": year.fit_error,
        "adaptive_h": {name: list(hours) for name, hours in year.adaptive_h.items()},
    }


def _store(of_store: HotWaterYear) -> dict[str, float]:
    """What a store of hot water did."""
    return {
        "drawn_kwh": float(of_store.drawn_w.sum()) * _KWH,
        "charged_kwh": float(of_store.charged_w.sum()) * _KWH,
        "solar_kwh": float(of_store.solar_w.sum()) * _KWH,
        "lost_kwh": float(of_store.lost_w.sum()) * _KWH,
        "missing_kwh": float(of_store.missing_w.sum()) * _KWH,
        "coolest_c": float(of_store.tank_c.min()),
    }


def _summary(document: Document, weather: tuple[str, str], found: BuildingYear, months: Any) -> dict[str, Any]:
    carriers: dict[str, Array] = {}
    for (_, carrier), watts in found.energy_w.items():
        carriers[carrier] = carriers.get(carrier, np.zeros(found.hours)) + watts
    area = sum(document.of("room")[room]["floor_area_m2"] for room in found.rooms)
    return {
        "version": document.version,
        "weather": weather[0],
        "weather_key": weather[1],
        "hours": found.hours,
        "year": document.one("project")["year"],
        "floor_area_m2": area,
        "energy": [
            {
                "use": use,
                "carrier": carrier,
                "kwh": float(watts.sum(dtype=np.float64)) * _KWH,
                "month_kwh": _by_month(watts, months),
                "peak_w": float(watts.max()),
            }
            for (use, carrier), watts in sorted(found.energy_w.items())
        ],
        "carriers": {
            name: {
                "kwh": float(watts.sum()) * _KWH,
                "peak_w": float(watts.max()),
                "peak_hour": int(watts.argmax()),
                "month_kwh": _by_month(watts, months),
            }
            for name, watts in carriers.items()
        },
        "rooms": {room: _room(found.asked[room], of_room, months) for room, of_room in found.rooms.items()},
        "systems": {
            system: {
                "cooling_kwh": float(of_system.cooling_w.sum()) * _KWH,
                "heating_kwh": float(of_system.heating_w.sum()) * _KWH,
                "fans_kwh": float(of_system.fans_w.sum()) * _KWH,
                "short_h": int((of_system.short_w > 1.0).sum()),
                "balance": of_system.balance,
            }
            for system, of_system in found.systems.items()
        },
        "units": {
            unit: {
                "circuit": circuit,
                "output_kwh": float(watts.sum(dtype=np.float64)) * _KWH,
                "peak_w": float(watts.max()),
                "on_h": int((watts > 0.0).sum()),
                "extracted_kwh": float(found.extracted_w[circuit, unit].sum(dtype=np.float64)) * _KWH
                if (circuit, unit) in found.extracted_w
                else None,
            }
            for (circuit, unit), watts in found.output_w.items()
        },
        "water": {
            f"{what}/{identity}": {
                "m3": float(kg_s.sum(dtype=np.float64)) * _M3,
                "month_m3": [value / _KWH * _M3 for value in _by_month(kg_s, months)],
                "peak_m3_s": float(kg_s.max()) / 1000.0,
            }
            for (what, identity), kg_s in found.water_kg_s.items()
        },
        "stores": {store: _store(of_store) for store, of_store in found.stores.items()},
        "circuits": {
            circuit: {
                "carried_kwh": float(watts.sum(dtype=np.float64)) * _KWH,
                "peak_w": float(watts.max()),
                "on_h": int((watts > 0.0).sum()),
                "unmet_kwh": float(found.unmet_w[circuit].sum(dtype=np.float64)) * _KWH,
                "unmet_h": int((found.unmet_w[circuit] > _UNMET_W).sum()),
                "unmet_peak_w": float(found.unmet_w[circuit].max()),
            }
            | _pumps(found.pumps_w.get(circuit))
            for circuit, watts in found.carried_w.items()
        },
        "faults": list(found.faults),
    }


def _pumps(courses: tuple[Any, Any] | None) -> dict[str, float | None]:
    """Electricity of a circuit's pumps, and what another pump of the same duty saves where it is asked about."""
    pumps, other = (None, None) if courses is None else courses
    used, others = (None if one is None else float(one.sum(dtype=np.float64)) * _KWH for one in (pumps, other))
    return {"pumps_kwh": used, "pumps_saved_kwh": None if used is None or others is None else used - others}


def interval_starts(year: int, hours: int, interval: str) -> NDArray[np.int64]:
    """First hours of the intervals "hour", "day", "month" or "year"."""
    if interval == "month":
        month, _, _ = hour_calendar(year, hours)
        return np.flatnonzero(np.diff(month, prepend=0))
    return np.arange(0, hours, {"hour": 1, "day": 24, "year": hours}[interval])


def tariff_of(row: Row) -> Tariff:
    """A tariff row as the core takes it: peak hours from Monday to Friday, other hours."""
    bands: tuple[Band, ...] = ()
    if row["peak_price_kwh"] is not None:
        bands = (
            Band(
                "peak hours",
                frozenset(range(1, 13)),
                frozenset(range(5)),
                row["peak_from_h"],
                row["peak_to_h"],
                row["peak_price_kwh"],
            ),
        )
    demand = ("peak hours",) if bands and row["demand_in_peak"] else ()
    return Tariff(
        bands,
        row["price_kwh"],
        blocks=(),
        demand_price_kw_month=row["demand_price_kw_month"],
        demand_bands=demand,
        ratchet_share=row["ratchet_share"],
        standing_day=row["standing_day"],
        levy_kwh=row["levy_kwh"],
        tax_share=row["tax_share"],
        emission_kg_kwh=row["emission_kg_kwh"],
    )


def bills_of(document: Document, series: Mapping[str, Any], year: int) -> list[dict[str, Any]]:
    """Every tariff's bills for the kept hours of its carrier; one tariff a carrier counts, the first by name."""
    told = []
    for row in sorted(document.of("tariff").values(), key=lambda row: row["name"]):
        courses = [
            series[name] for name in series if name.startswith("energy/") and name.split("/")[2] == row["carrier"]
        ]
        if not courses:
            continue
        kw = np.sum(courses, axis=0, dtype=np.float64) * _KWH
        tariff = tariff_of(row)
        months = bills(tariff, kw, year)
        told.append(
            {
                "tariff": row["id"],
                "name": row["name"],
                "carrier": row["carrier"],
                "kwh": float(kw.sum()),
                "total": sum(month.total for month in months),
                "emissions_kg": emissions_kg(tariff, kw),
                "months": [_bill(month) for month in months],
            }
        )
    return told


def _bill(month: MonthBill) -> dict[str, Any]:
    return vars(month) | {"kwh": dict(month.kwh), "total": month.total}
