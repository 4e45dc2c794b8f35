"""Proof of radiator circuits with their vessels, and of boilers that share a load."""

from collections.abc import Iterator

import numpy as np

from pendrum_core.duct.network import valve_kv_m3_h
from pendrum_core.model.systems import Circuit, Section
from pendrum_core.plant.staging import BEST, EQUAL, FEWEST, IN_TURN, EfficiencyTable, Unit, stage
from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.water.emitters import Rated, size_radiator
from pendrum_core.water.network import size_circuit
from pendrum_core.water.vessel import size_vessel

_WATER, _PLANT = "Water", "Plant"
_EN442 = "EN 442-2:2014, both means, worked apart from the program"
_NETWORK = "Darcy-Weisbach, Colebrook; a network solved for all flows, apart from the program"
_VESSEL = "EN 12828, worked by hand"
_BOILERS = "EN 15316-4-1, EN 437, worked by hand"
_RULES = {
    "in turn": (IN_TURN, False),
    "in turn, others kept warm": (IN_TURN, True),
    "equal": (EQUAL, False),
    "fewest": (FEWEST, False),
    "best efficiency": (BEST, False),
}


def _near(chapter: str, name: str, expected: float, found: float, quantity: str, share: float, source: str) -> Entry:
    return Entry(
        chapter,
        name,
        expected=expected,
        found=float(found),
        quantity=quantity,
        within=max(share * abs(expected), 1e-9),
        source=source,
    )


def circuit_entries(case: Case) -> Iterator[Entry]:
    """Radiators, pipes, index run, balancing, pump, content and vessel."""
    i, e = case["inputs"], case["expected"]
    content = 0.0
    loads = {}
    for radiator, want in zip(i["radiators"], e["radiators"], strict=True):
        found = size_radiator(
            radiator["load_W"],
            i["flow_C"],
            i["return_C"],
            radiator["room_C"],
            Rated(exponent=radiator["exponent_n"]),
            tuple(float(rating) for rating in i["rating_list_W"]),
        )
        end = radiator["end"]
        loads[end] = radiator["load_W"]
        for mean, rating in (("arithmetic", found.arithmetic_w), ("logarithmic", found.logarithmic_w)):
            key = f"rating_needed_{mean}_W"
            yield _near(
                _WATER,
                f"{end}, rating by the {mean} mean",
                want[key],
                found=rating,
                quantity="load",
                share=0.002,
                source=_EN442,
            )
        chosen = want["chosen_rating_logarithmic_W"]
        yield _near(
            _WATER, f"{end}, chosen", chosen, found=found.chosen_w or 0.0, quantity="load", share=1e-9, source=_EN442
        )
        yield Entry(
            _WATER,
            f"{end}, return with it",
            expected=want["chosen_logarithmic_return_C"],
            found=found.chosen_return_c,
            quantity="temperature",
            within=0.1,
            source=_EN442,
        )
        content += i["content"]["radiator_L_per_kW"] * chosen / 1000.0
    sections = tuple(
        Section(
            s["id"],
            s["id"],
            parent=s["parent"],
            length_m=s["length_each_way_m"],
            loss_coefficient=s["zeta_sum"] + s.get("emitter_zeta", 0.0),
            component_drop_pa=s.get("component_drop_Pa", 0.0),
            end=s["id"] if s["id"] in loads else None,
            valve_kv_m3_h=s.get("valve_kv_m3_h"),
        )
        for s in i["sections"]
    )
    circuit = Circuit(
        "c",
        "c",
        kind="heating",
        sections=sections,
        flow_c=i["flow_C"],
        return_c=i["return_C"],
        friction_limit_pa_m=i["friction_limit_Pa_m"],
        velocity_limit_m_s=i["velocity_limit_m_s"],
        roughness_m=i["roughness_m"],
        source_drop_pa=0.0,
        pump_margin=0.0,
        pump_efficiency=i["pump_efficiency"],
        motor_efficiency=i["motor_efficiency"],
    )
    found_circuit = size_circuit(circuit, loads)
    for name, want in e["sections"].items():
        pipe = found_circuit.sections[name]
        yield _near(
            _WATER,
            f"{name}, diameter",
            want["inner_diameter_mm"] / 1e3,
            found=pipe.diameter_m,
            quantity="diameter",
            share=1e-6,
            source=_NETWORK,
        )
        yield _near(
            _WATER,
            f"{name}, flow",
            want["volume_flow_m3_h"] / 3600.0,
            found=pipe.flow_m3_s,
            quantity="water_flow",
            share=0.003,
            source=_NETWORK,
        )
        yield _near(
            _WATER,
            f"{name}, loss",
            want["section_loss_Pa"],
            found=pipe.loss_pa,
            quantity="pressure",
            share=0.02,
            source=_NETWORK,
        )
    for end, want in e["ends"].items():
        yield _near(
            _WATER,
            f"{end}, path",
            want["path_loss_Pa"],
            found=found_circuit.paths.loss_pa[end],
            quantity="pressure",
            share=0.02,
            source=_NETWORK,
        )
        kv = want["balancing_valve_Kv_m3_h"]
        if kv is not None:
            flow, left = found_circuit.sections[end].flow_m3_s, found_circuit.paths.balancing_pa[end]
            yield _near(
                _WATER,
                f"{end}, balancing Kv",
                kv,
                found=valve_kv_m3_h(flow, left, found_circuit.fluid.density_kg_m3),
                quantity="ratio",
                share=0.02,
                source=_NETWORK,
            )
    pump = found_circuit.pump
    yield _near(
        _WATER, "Pump, head", e["pump"]["head_Pa"], found=pump.head_pa, quantity="pressure", share=0.02, source=_NETWORK
    )
    yield _near(
        _WATER,
        "Pump, electrical",
        e["pump"]["electrical_power_W"],
        found=pump.electrical_w,
        quantity="electric_power",
        share=0.02,
        source=_NETWORK,
    )
    content += found_circuit.water_content_m3 * 1000.0 + i["content"]["boiler_L"]
    yield _near(
        _WATER, "Water content, L", e["water_content_L"], found=content, quantity="ratio", share=0.003, source=_NETWORK
    )
    v, want = i["vessel"], e["expansion_vessel"]
    vessel = size_vessel(
        content / 1000.0,
        v["density_fill_kg_m3"],
        v["density_max_kg_m3"],
        1e5 * v["p0_bar_gauge"],
        1e5 * v["safety_valve_bar_gauge"],
        tuple(float(size) for size in v["list_L"]),
    )
    yield _near(
        _WATER,
        "Expansion vessel, L",
        want["vessel_volume_L"],
        found=1e3 * vessel.volume_m3,
        quantity="ratio",
        share=0.015,
        source=_VESSEL,
    )
    yield _near(
        _WATER,
        "Vessel chosen, L",
        want["chosen_vessel_L"],
        found=1e3 * (vessel.chosen_m3 or 0.0),
        quantity="ratio",
        share=1e-9,
        source=_VESSEL,
    )
    for key, found_pa in (("at_least", vessel.fill_at_least_pa), ("at_most", vessel.fill_at_most_pa)):
        bar = want[f"fill_pressure_{key}_bar_gauge"]
        yield _near(
            _WATER,
            f"Fill pressure {key.replace('_', ' ')}, bar",
            bar,
            found=found_pa / 1e5,
            quantity="ratio",
            share=0.015,
            source=_VESSEL,
        )


def boiler_entries(case: Case) -> Iterator[Entry]:
    """Boilers over bins of outdoor temperature, in every way of staging."""
    i = case["inputs"]
    table = EfficiencyTable(
        tuple(i["efficiency_table"]["part_load"]),
        tuple(i["efficiency_table"]["return_C"]),
        tuple(tuple(row) for row in i["efficiency_table"]["efficiency_net"]),
    )
    electricity = i["electricity_W"]
    units = [
        Unit(
            b["name"],
            1e3 * b["nominal_kW"],
            table,
            least_part=i["least_part_load"],
            idle_share=i["idle_share_of_nominal"],
            running_w=electricity["firing"],
            running_w_w=electricity["per_kW"] / 1e3,
            resting_w=electricity["not_firing"],
        )
        for b in i["boilers"]
    ]
    load, back, hours = (np.array([row[key] for row in i["bins"]]) for key in ("load_kW", "return_C", "hours"))
    for name, (rule, warm) in _RULES.items():
        want = case["expected"].get(name)
        if want is None:
            continue
        found = stage(units, 1e3 * load, back, rule, warm)
        for k, row in enumerate(want["bins"]):
            what = f"{name}, {row['outdoor_C']:g} °C"
            yield _near(
                _PLANT,
                f"{what}, fuel",
                1e3 * row["fuel_net_kW"],
                found=found.fuel_w[:, k].sum(),
                quantity="load",
                share=0.005,
                source=_BOILERS,
            )
            power = found.auxiliary_w[:, k].sum()
            yield _near(
                _PLANT,
                f"{what}, electricity",
                1e3 * row["electricity_kW"],
                found=power,
                quantity="load",
                share=0.005,
                source=_BOILERS,
            )
            for unit, output in zip(units, found.output_w[:, k], strict=True):
                given = 1e3 * row["output_kW"][unit.name]
                yield Entry(
                    _PLANT,
                    f"{what}, {unit.name}",
                    expected=given,
                    found=float(output),
                    quantity="load",
                    within=max(0.005 * given, 1.0),
                    source=_BOILERS,
                )
        sums = want["sum"]
        fuel, unmet = (float((values * hours).sum()) / 1e3 for values in (found.fuel_w.sum(axis=0), found.unmet_w))
        yield _near(
            _PLANT,
            f"{name}, fuel of the season, net, kWh",
            sums["fuel_net_kWh"],
            found=fuel,
            quantity="ratio",
            share=0.005,
            source=_BOILERS,
        )
        gross = i["gross_over_net"] * fuel
        yield _near(
            _PLANT,
            f"{name}, gross, kWh",
            sums["fuel_gross_kWh"],
            found=gross,
            quantity="ratio",
            share=0.005,
            source=_BOILERS,
        )
        yield _near(
            _PLANT,
            f"{name}, unmet, kWh",
            sums["unmet_kWh"],
            found=unmet,
            quantity="ratio",
            share=0.005,
            source=_BOILERS,
        )
