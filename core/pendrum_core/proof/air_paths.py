"""Proof of whole air paths: a variable-volume unit with its rooms, and an outdoor-air unit with recovery."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from pendrum_core.air.economizer import Economizer
from pendrum_core.air.fan import FanCurve
from pendrum_core.air.parts import HUMIDIFIERS
from pendrum_core.air.path import TO_OUTDOORS, TO_PLENUM, Ducts, Path, Rooms, Unit
from pendrum_core.air.recovery import Recovery
from pendrum_core.air.terminals import Given, terminal_flow
from pendrum_core.air.walk import walk
from pendrum_core.model.unit_parts import COOLING_COIL, FAN, HEATING_COIL
from pendrum_core.moist_air import relative_humidity
from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry

_CHAPTER = "Air systems"
_SOURCE = "humid air as a real gas and networks of rooms, worked apart from the program"
_KINDS = {
    "none": "none",
    "dry_bulb_differential": "dry-bulb differential",
    "dry_bulb_fixed": "dry-bulb fixed",
    "enthalpy_differential": "enthalpy differential",
    "enthalpy_fixed": "enthalpy fixed",
}
_ROUNDS, _AT_REST = 60, 1e-9
_FROST = {"reduced recovery": "turned down", "preheat": "preheat"}


def _economizer(rule: Case) -> Economizer:
    kind = _KINDS[rule["kind"]]
    limit = rule.get("limit_C", 0.0) if kind == "dry-bulb fixed" else 1000.0 * rule.get("limit_kJ_kg", 0.0)
    return Economizer(kind, limit)


def _fan(row: Case | None) -> FanCurve | None:
    if row is None:
        return None
    return FanCurve(
        row["design_flow_m3_s"],
        row["design_pressure_Pa"],
        row.get("held_pressure_Pa", 0.0),
        row["fan_efficiency"],
        row["motor_and_drive_efficiency"],
    )


def _ducts(row: Case | None) -> Ducts:
    if row is None:
        return Ducts()
    heat = row.get("heat") or {}
    to = TO_OUTDOORS if row.get("leakage_to") == "outdoors" else TO_PLENUM
    return Ducts(
        row.get("leakage_share", 0.0), to, heat.get("W", 0.0), heat.get("UA_W_K", 0.0), heat.get("surroundings_C", 24.0)
    )


def _parts(fan: str, humidifier: str) -> tuple[str, ...]:
    humid = tuple(kind for kind, made in HUMIDIFIERS.items() if made.kind == humidifier)
    return (
        (HEATING_COIL, FAN, COOLING_COIL, *humid)
        if fan.startswith("blow")
        else (HEATING_COIL, COOLING_COIL, *humid, FAN)
    )


def served(case: Case, economizer: Case) -> tuple[Path, Given]:
    """The unit of a case at all its steps, flows and states settled together."""
    system, steps = case["inputs"]["system"], case["inputs"]["steps"]
    names = [room["name"] for room in system["rooms"]]

    def rooms_of(key: str) -> Any:
        return np.array([[step["rooms"][name].get(key, 0.0) for step in steps] for name in names])

    outdoor = [np.array([step["outdoor"][key] for step in steps]) for key in ("T_C", "w_kg_kg")]
    least, most, exhaust = (
        np.array([[room.get(key, 0.0)] * len(steps) for room in system["rooms"]])
        for key in ("minimum_kg_s", "maximum_kg_s", "exhaust_kg_s")
    )
    coil = system["cooling_coil"]
    humidifier = system.get("humidifier") or {}
    unit = Unit(
        pressure_pa=system["pressure_Pa"],
        target_c=np.full(len(steps), coil["leaving_C"]),
        least_outdoor_kg_s=system["minimum_outdoor_air_kg_s"],
        bypass=coil["bypass_factor"],
        supply_fan=_fan(system["supply_fan"]),
        return_fan=_fan(system.get("return_fan")),
        parts=_parts(system.get("fan_position", ""), humidifier.get("kind", "none")),
        economizer=_economizer(economizer),
        ducts=_ducts(system.get("duct")),
        least_return_w=humidifier.get("return_w_kg_kg", humidifier.get("room_w_kg_kg", 0.0)),
    )
    load, air = rooms_of("sensible_W"), rooms_of("T_C")
    supply_c, supply_w = np.full(len(steps), coil["leaving_C"] + 1.0), np.full(len(steps), 0.008)
    for _ in range(_ROUNDS):
        given = terminal_flow(load, air, supply_c, supply_w, least, most)
        path = walk(
            unit,
            Rooms(
                given.flow_kg_s,
                exhaust,
                air,
                rooms_of("latent_W"),
                rooms_of("infiltration_kg_s"),
                rooms_of("lights_to_return_W").sum(axis=0),
            ),
            outdoor[0],
            outdoor[1],
        )
        apart = float(np.abs(path.supply_c - supply_c).max() + 100.0 * np.abs(path.supply_w - supply_w).max())
        supply_c, supply_w = path.supply_c, path.supply_w
        if apart < _AT_REST:
            break
    return path, given


def _near(name: str, expected: float, found: Any, quantity: str, share: float, least: float) -> Entry:
    return Entry(
        _CHAPTER,
        name,
        expected=expected,
        found=float(found),
        quantity=quantity,
        within=max(share * abs(expected), least),
        source=_SOURCE,
    )


def _coil_mode(path: Path, k: int) -> str:
    if path.cooling_w[k] <= 1e-6 and path.coil.total_j_kg[k] <= 1e-9:
        return "idle"
    return "wet" if path.coil.condensate_kg_kg[k] > 0.0 else "dry"


def vav_entries(case: Case) -> Iterator[Entry]:
    """Every point and duty of every step, and the other economizers in short."""
    system, p = case["inputs"]["system"], case["inputs"]["system"]["pressure_Pa"]
    names = [room["name"] for room in system["rooms"]]
    path, given = served(case, system["economizer"])
    for k, (step, want) in enumerate(case["expected"]["steps"].items()):
        for r, name in enumerate(names):
            room = want["rooms"][name]
            yield _near(f"{step}, {name}, supply kg/s", room["supply_kg_s"], given.flow_kg_s[r, k], "ratio", 0.01, 1e-6)
            yield _near(f"{step}, {name}, reheat", 1e3 * room["reheat_kW"], given.reheat_w[r, k], "power", 0.02, 30.0)
            found = relative_humidity(want["rooms"][name]["T_C"], path.room_w[r, k], p)
            yield _near(f"{step}, {name}, humidity", room["RH"], found, "percent", 0.0, 0.009)
        points = want["points"]
        for point, t, w in (
            ("return from rooms", path.return_c, path.return_w),
            ("return after plenum", path.plenum_c, path.plenum_w),
            ("mixed", path.mixed_c, path.mixed_w),
            ("after heating coil", path.heated_c, path.mixed_w),
            ("after cooling coil", path.coil.leaving_c, path.coil.leaving_w),
            ("supply at terminals", path.supply_c, path.supply_w),
        ):
            if point in points:
                yield _near(f"{step}, {point}", points[point]["T_C"], t[k], "temperature", 0.0, 0.1)
                yield _near(f"{step}, {point}, w", points[point]["w_kg_kg"], w[k], "ratio", 0.005, 4e-5)
        coil = want["cooling_coil"]
        flow = path.flow_kg_s[k]
        yield _near(f"{step}, coil", 1e3 * coil["total_kW"], flow * path.coil.total_j_kg[k], "load", 0.015, 150.0)
        yield _near(
            f"{step}, sensible", 1e3 * coil["sensible_kW"], flow * path.coil.sensible_j_kg[k], "load", 0.015, 150.0
        )
        water = 3600.0 * flow * path.coil.condensate_kg_kg[k]
        yield _near(f"{step}, condensate kg/h", coil["condensate_kg_h"], water, "ratio", 0.05, 0.15)
        yield _near(
            f"{step}, coil is {coil['mode']}", 1.0, float(_coil_mode(path, k) == coil["mode"]), "count", 0.0, 0.5
        )
        yield _near(f"{step}, heating coil", 1e3 * want["heating_coil_kW"], path.heating_w[k], "load", 0.015, 150.0)
        fan = want["supply_fan"]
        yield _near(f"{step}, fan", 1e3 * fan["electrical_kW"], path.fan_w[k], "power", 0.015, 1.0)
        yield _near(f"{step}, outdoor air", want["outdoor_air_share"], path.outdoor_share[k], "percent", 0.0, 0.01)
        on = float(bool(path.economizing[k]) == want["economizer_on"])
        yield _near(f"{step}, economizer", 1.0, on, "count", 0.0, 0.5)
    for kind in case["inputs"].get("other_economizers", ()):
        path, given = served(case, kind)
        for k, (step, want) in enumerate(case["expected"]["other_economizers"][kind["kind"]].items()):
            what = f"{kind['kind'].replace('_', ' ')}, {step}"
            flow = path.flow_kg_s[k]
            yield _near(
                f"{what}, coil",
                1e3 * want["cooling_coil_total_kW"],
                flow * path.coil.total_j_kg[k],
                "load",
                0.015,
                150.0,
            )
            yield _near(f"{what}, heating", 1e3 * want["heating_coil_kW"], path.heating_w[k], "load", 0.015, 150.0)
            yield _near(
                f"{what}, reheat", 1e3 * want["reheat_total_kW"], given.reheat_w[:, k].sum(), "power", 0.02, 30.0
            )
            yield _near(f"{what}, outdoor kg/s", want["outdoor_air_kg_s"], path.outdoor_kg_s[k], "ratio", 0.01, 0.01)


def plate_entries(case: Case) -> Iterator[Entry]:
    """An outdoor-air unit with an exchanger, frost protection and, in turn, each humidifier of the case."""
    inputs = case["inputs"]
    unit, exchanger, frost = inputs["unit"], inputs["exchanger"], inputs.get("frost") or {}
    outdoor = [np.array([row[key] for row in inputs["outdoor"]]) for key in ("T_C", "w_kg_kg")]
    count = len(inputs["outdoor"])
    supplied, taken, air, moist = (
        np.array([[room[key]] * count for room in unit["rooms"]])
        for key in ("supply_kg_s", "exhaust_kg_s", "T_C", "latent_W")
    )
    # What is not taken back leaves through the envelope.
    rooms = Rooms(supplied, supplied - taken, air, moist, np.zeros_like(air), np.zeros(count))
    for title, expected in case["expected"].items():
        humid: Case = inputs["humidifier"] if "without" not in title else {"kind": "none"}
        path = walk(
            Unit(
                pressure_pa=inputs["pressure_Pa"],
                target_c=np.full(count, unit["supply_C"]),
                at_terminals=True,
                least_outdoor_kg_s=unit["supply_kg_s"],
                bypass=0.1,
                fan_w=1e3 * unit["fan_electrical_kW"],
                cools=False,
                outdoor_only=True,
                recovery=Recovery(
                    exchanger["sensible"],
                    exchanger["latent"],
                    _FROST.get(frost.get("by", ""), "none"),
                    frost.get("exhaust_outlet_min_C", 1.0),
                ),
                parts=_parts("", humid["kind"]),
                least_return_w=humid.get("room_w_kg_kg", 0.0),
            ),
            rooms,
            outdoor[0],
            outdoor[1],
        )
        assert path.recovered is not None
        for k, (step, want) in enumerate(expected.items()):
            what, flow = f"{title}, {step}", path.flow_kg_s[k]
            points = want["points"]
            for point, t in (
                ("after exchanger", path.recovered.leaving_c),
                ("after heating coil", path.heated_c),
                ("supply", path.supply_c),
                ("exhaust after exchanger", path.recovered.exhaust_c),
            ):
                yield _near(f"{what}, {point}", points[point]["T_C"], t[k], "temperature", 0.0, 0.1)
            yield _near(f"{what}, supply w", points["supply"]["w_kg_kg"], path.supply_w[k], "ratio", 0.005, 4e-5)
            yield _near(f"{what}, phi", want["recovery_share_phi"], path.recovered.share[k], "ratio", 0.0, 0.01)
            gained = flow * path.recovered.recovered_j_kg[k]
            yield _near(f"{what}, recovered", 1e3 * want["recovered_kW"], gained, "load", 0.01, 150.0)
            yield _near(f"{what}, heating", 1e3 * want["heating_coil_kW"], path.heating_w[k], "load", 0.01, 150.0)
            yield _near(f"{what}, preheat", 1e3 * want["frost_preheat_kW"], path.preheat_w[k], "load", 0.01, 150.0)
            water = 3600.0 * flow * path.humidified_kg_kg[k]
            yield _near(f"{what}, water kg/h", want["humidifier_water_kg_h"], water, "ratio", 0.02, 0.1)
