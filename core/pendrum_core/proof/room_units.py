"""Proof of an outdoor-air unit and fan coils that serve the same rooms."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from pendrum_core.air.path import Path, Rooms, Unit
from pendrum_core.air.recovery import Recovery
from pendrum_core.air.walk import walk
from pendrum_core.model.unit_parts import COOLING_COIL, FAN, HEATING_COIL
from pendrum_core.moist_air import enthalpy_j_kg, relative_humidity, specific_heat_j_kgk
from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.quantities.constants import CP_VAPOUR, H_VAPORISATION_0C

_CHAPTER = "Air systems"
_SOURCE = "humid air as a real gas and networks of rooms, worked apart from the program"
_ROUNDS, _AT_REST = 60, 1e-9


@dataclass(frozen=True)
class _Coil:
    """A fan coil at a step: its path where it cools, its heating [W], and water taken out [kg/s]."""

    path: Path | None
    heating_w: float
    dried_kg_s: float


def _one(value: float) -> np.ndarray:
    return np.full((1, 1), value)


def _fan_coil(room: Case, now: Case, unit: Path, first_kg_s: float, outdoor_w: float, bypass: float, p: float) -> _Coil:
    """What a room's unit does with what the outdoor air leaves of the load, its own fan's heat added."""
    supply_w, air_c = float(unit.supply_w[0]), now["T_C"]
    brought = first_kg_s * float(enthalpy_j_kg(air_c, supply_w) - enthalpy_j_kg(unit.supply_c[0], supply_w))
    fan, flow = room["fan_coil_fan_W"], room["fan_coil_air_kg_s"]
    need = now["sensible_W"] - brought + fan
    if need <= 0.0:
        return _Coil(None, -need, 0.0)
    leaving_w = supply_w
    for _ in range(_ROUNDS):
        leaving_c = air_c - need / (flow * float(specific_heat_j_kgk(leaving_w)))
        path = walk(
            Unit(
                pressure_pa=p,
                target_c=np.array([leaving_c]),
                least_outdoor_kg_s=0.0,
                bypass=bypass,
                fan_w=fan,
                parts=(COOLING_COIL, FAN),
            ),
            Rooms(
                _one(flow),
                _one(0.0),
                air_c=_one(air_c),
                latent_w=_one(now["latent_W"]),
                leak_kg_s=_one(now["infiltration_kg_s"]),
                lights_w=np.zeros(1),
                other_kg_s=_one(first_kg_s),
                other_w=_one(supply_w),
            ),
            np.array([air_c]),
            np.array([outdoor_w]),
        )
        apart, leaving_w = abs(float(path.supply_w[0]) - leaving_w), float(path.supply_w[0])
        if apart < _AT_REST:
            break
    return _Coil(path, 0.0, flow * float(path.coil.condensate_kg_kg[0]))


def _step(case: Case, step: Case) -> tuple[Path, dict[str, _Coil], list[float]]:
    """The unit, the rooms' own units and the rooms' temperatures of one step, settled together."""
    inputs, rooms = case["inputs"], case["inputs"]["rooms"]
    p, main = inputs["pressure_Pa"], inputs["outdoor_air_unit"]
    outdoor_c, outdoor_w = step["outdoor"]["T_C"], step["outdoor"]["w_kg_kg"]
    effect = main["exchanger_effectiveness"]
    cools = step["unit_coil_leaving_C"] is not None
    unit = Unit(
        pressure_pa=p,
        target_c=np.array([step["unit_supply_not_below_C"]]),
        at_terminals=True,
        least_outdoor_kg_s=1e9,
        bypass=main["cooling_coil_bypass_factor"],
        fan_w=1e3 * main["fan_electrical_kW"],
        outdoor_only=True,
        cools=cools,
        parts=(HEATING_COIL, COOLING_COIL, FAN, HEATING_COIL),
        dry_to_c=step["unit_coil_leaving_C"],
        recovery=Recovery(effect["sensible"], effect["latent"]) if step["exchanger_runs"] else None,
    )
    supply = [room["outdoor_air_kg_s"] for room in rooms]
    exhaust = [one["outdoor_air_kg_s"] - one["exhaust_to_unit_kg_s"] for one in rooms]
    now = [step["rooms"][room["name"]] for room in rooms]
    air = [n["T_C"] if n["T_C"] is not None else 20.0 for n in now]
    dried = [0.0] * len(rooms)
    for _ in range(_ROUNDS):
        latent = [
            n["latent_W"] - d * (H_VAPORISATION_0C + CP_VAPOUR * t) for n, d, t in zip(now, dried, air, strict=True)
        ]
        leaks = [n["infiltration_kg_s"] for n in now]
        sent, taken, t, moist, leak = (np.array(c)[:, None] for c in (supply, exhaust, air, latent, leaks))
        there = Rooms(sent, taken, t, moist, leak, np.zeros(1))
        path = walk(unit, there, np.array([outdoor_c]), np.array([outdoor_w]))
        coils = {
            room["name"]: _fan_coil(
                room, n, unit=path, first_kg_s=m, outdoor_w=outdoor_w, bypass=inputs["fan_coil_bypass_factor"], p=p
            )
            for room, n, m in zip(rooms, now, supply, strict=True)
            if room["fan_coil_air_kg_s"]
        }
        before = [*air, *(1e3 * d for d in dried)]
        dried = [coils[room["name"]].dried_kg_s if room["name"] in coils else 0.0 for room in rooms]
        for r, (room, n) in enumerate(zip(rooms, now, strict=True)):
            if n["T_C"] is None:
                rate = supply[r] * float(specific_heat_j_kgk(path.supply_w[0]))
                ua = room["UA_to_outdoors_W_K"]
                air[r] = (n["sensible_W"] + ua * outdoor_c + rate * float(path.supply_c[0])) / (ua + rate)
        if max(abs(a - b) for a, b in zip(before, [*air, *(1e3 * d for d in dried)], strict=True)) < _AT_REST:
            break
    return path, coils, air


def room_unit_entries(case: Case) -> Iterator[Entry]:
    """Rooms, their fan coils and the outdoor-air unit at every step."""
    p = case["inputs"]["pressure_Pa"]
    for step in case["inputs"]["steps"]:
        want, name = case["expected"][step["name"]], step["name"]
        path, coils, air = _step(case, step)
        flow = float(path.flow_kg_s[0])

        def near(
            what: str, expected: float, found: float, quantity: str, share: float, least: float, name: str = name
        ) -> Entry:
            bound = max(share * abs(expected), least)
            return Entry(
                _CHAPTER,
                f"{name}, {what}",
                expected=expected,
                found=float(found),
                quantity=quantity,
                within=bound,
                source=_SOURCE,
            )

        for r, room in enumerate(case["inputs"]["rooms"]):
            title, there = room["name"], want["rooms"][room["name"]]
            yield near(f"{title}", there["T_C"], air[r], "temperature", 0.0, 0.1)
            found = float(relative_humidity(air[r], path.room_w[r, 0], p))
            yield near(f"{title}, humidity", there["RH"], found, "percent", 0.0, 0.01)
            if title not in coils:
                continue
            coil, asked = coils[title], there["fan_coil"]
            if coil.path is None:
                yield near(
                    f"{title}, heating", 1e3 * asked.get("heating_kW", 0.0), coil.heating_w, "load", 0.015, 100.0
                )
                continue
            moved, state = float(coil.path.flow_kg_s[0]), coil.path.coil
            for what, key, per_kg in (
                ("coil", "total_kW", state.total_j_kg),
                ("sensible", "sensible_kW", state.sensible_j_kg),
            ):
                yield near(f"{title}, {what}", 1e3 * asked[key], moved * float(per_kg[0]), "load", 0.015, 100.0)
            wet = float((coil.dried_kg_s > 0.0) == (asked["mode"] == "wet"))
            yield near(f"{title}, coil is {asked['mode']}", 1.0, wet, "count", 0.0, 0.5)
            yield near(
                f"{title}, off coil", asked["leaving_coil_C"], float(state.leaving_c[0]), "temperature", 0.0, 0.1
            )
        main = want["outdoor_air_unit"]
        for point, t, w in (
            ("exhaust_from_rooms", path.return_c, path.return_w),
            ("after_exchanger", path.fresh_c, path.fresh_w),
            ("after_cooling_coil", path.coil.leaving_c, path.coil.leaving_w),
            ("supply", path.supply_c, path.supply_w),
        ):
            told = point.replace("_", " ")
            if point == "after_cooling_coil" and path.cooling_w[0] <= 0.0:
                continue
            yield near(told, main[point]["T_C"], float(t[0]), "temperature", 0.0, 0.1)
            yield near(f"{told}, w", main[point]["w_kg_kg"], float(w[0]), "ratio", 0.005, 4e-5)
        if path.recovered is not None:
            gained = flow * float(path.recovered.recovered_j_kg[0])
            yield near("recovered", 1e3 * main["recovered_kW"], gained, "load", 0.015, 50.0)
        coil_kw = main["cooling_coil"]["total_kW"]
        yield near("unit's coil", 1e3 * coil_kw, flow * float(path.coil.total_j_kg[0]), "load", 0.015, 100.0)
        again = float(path.heating_w[0] + path.reheat_w[0])
        yield near("unit's heating", 1e3 * main["reheat_or_heating_coil_kW"], again, "load", 0.015, 100.0)
