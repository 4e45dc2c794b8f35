"""Writes the reference cases of the proof book that come from the plain network march (core/tests/network_march.py).

    python bench/make_cases.py

The march takes nothing from the way rooms are calculated: cells of every layer, backward Euler in steps of 5 s.
"""

import json
import sys
from dataclasses import replace
from pathlib import Path

import numpy as np

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "core")]

from core.tests.network_march import Course, Keep, Network  # noqa: E402
from pendrum_core.proof.cases import DATA, building_of, load_case  # noqa: E402
from pendrum_core.room.balance.outdoors import outdoors  # noqa: E402


def _steps(value: float, begin_h: float, end_h: float, else_: float) -> list[float]:
    return [value if begin_h <= k / 6 < end_h else else_ for k in range(144)]


def _cooling(course: Course) -> dict:
    load = -course.plant_w
    return {
        "cooling_load_W": load.round(3).tolist(), "peak_W": float(load.max()), "peak_step_index": int(load.argmax()),
        "daily_energy_Wh": float(load.sum() / 6.0), "air_temperature_C": course.air_c.round(4).tolist(),
    }  # fmt: skip


def _written(case: dict, seconds: float = 5.0) -> None:
    building = building_of(case)
    rooms = [replace(room, thermostat=None) for room in building.rooms]
    control, keeps = case["inputs"]["control"], {}
    for room in rooms:
        rule = control[room.id]
        if rule.get("plant") == "none":
            continue
        low = np.array(rule.get("heating_C", [rule.get("air_C", 24.0)] * 144))
        high = np.array(rule.get("cooling_C", [rule.get("air_C", 24.0)] * 144))
        follows = (
            (rule["follows"], rule["capacity_W"] / control[rule["follows"]]["capacity_W"])
            if "follows" in rule
            else None
        )
        keeps[room.id] = Keep(
            low, high, rule.get("radiant_weight", 0.0), rule.get("capacity_W", np.inf), follows=follows
        )
    network = Network(rooms, outdoors(building.climate), seconds)
    found = network.run(keeps, days=60)
    case["expected"] = {"rooms": {name: _cooling(course) for name, course in found.items()}}
    for name, expected in case["expected"]["rooms"].items():
        if name not in keeps:
            case["expected"]["rooms"][name] = {"air_temperature_C": expected["air_temperature_C"]}
    (DATA / f"{case['id']}.json").write_text(json.dumps(case, indent=1) + "\n")


def main() -> None:
    """Both cases."""
    base = load_case("room_light_south_window")
    for key in ("expected", "tolerances", "reference_uncertainty"):
        base.pop(key, None)
    base["method"] = "bench/make_cases.py: finite volumes, both rooms in one network, steps of 5 s"
    one = json.loads(json.dumps(base))
    one |= {"id": "room_pull_down_operative", "title": "Light room, set up at night, operative temperature kept"}
    one["notes"] = ["what is sensed is half air, half mean surface; the set-point is met at once where it jumps"]
    one["inputs"]["control"] = {
        "room": {"heating_C": [16.0] * 144, "cooling_C": _steps(24.0, 8, 18, 28.0), "radiant_weight": 0.5}
    }
    _written(one)
    two = json.loads(json.dumps(base))
    two |= {
        "id": "rooms_partition_and_follower",
        "title": "A led room, its leader, and a store without plant beyond a slab",
    }
    two["notes"] = ["the follower gives the share of its capacity that the leader gives of its own"]
    inputs = two["inputs"]
    room = inputs["rooms"][0]
    store = room | {"name": "store", "infiltration_conductance_W_K": 10.0}
    inputs["rooms"] = [room, room | {"name": "led"}, store]
    elements, gains = list(inputs["elements"]), list(inputs["gains"])
    stud = [
        {"name": "board", "thickness_m": 0.0125, "conductivity_W_mK": 0.25, "density_kg_m3": 900.0, "specific_heat_J_kgK": 1000.0},
        {"name": "wool", "thickness_m": 0.07, "conductivity_W_mK": 0.04, "density_kg_m3": 30.0, "specific_heat_J_kgK": 1030.0},
        {"name": "board", "thickness_m": 0.0125, "conductivity_W_mK": 0.25, "density_kg_m3": 900.0, "specific_heat_J_kgK": 1000.0},
    ]  # fmt: skip
    slab = [
        {
            "name": "concrete",
            "thickness_m": 0.2,
            "conductivity_W_mK": 2.1,
            "density_kg_m3": 2400.0,
            "specific_heat_J_kgK": 1000.0,
        }
    ]
    bare = [e for e in elements if e["name"] in ("wall south", "partition west", "roof", "floor")]
    inputs["elements"] = [
        *(e for e in elements if e["name"] != "roof"),
        *({**e, "room": "led"} for e in elements if e["name"] not in ("partition west", "window south")),
        *({**e, "room": "store"} for e in bare if e["name"] != "floor"),
        {"name": "partition to led", "room": "room", "area_m2": 18.0, "layers": stud, "h_ci_W_m2K": 2.5,
         "outside": {"kind": "room", "room": "led", "h_ci_W_m2K": 2.5}},
        {"name": "slab to store", "room": "room", "area_m2": 30.0, "layers": slab, "h_ci_W_m2K": 5.0,
         "outside": {"kind": "room", "room": "store", "h_ci_W_m2K": 0.7}},
    ]  # fmt: skip
    inputs["gains"] = [*gains, *({**g, "room": "led", "sensible_W": [0.6 * w for w in g["sensible_W"]]} for g in gains)]
    kept = {"heating_C": [16.0] * 144, "cooling_C": _steps(24.0, 7, 19, 27.0), "capacity_W": 4000.0}
    inputs["control"] = {
        "room": kept,
        "led": kept | {"capacity_W": 2000.0, "follows": "room"},
        "store": {"plant": "none"},
    }
    _written(two)


if __name__ == "__main__":
    main()
