"""Proof of air and water: the coil, the fan, a duct tree, radiators."""

from collections.abc import Iterator

from pendrum_core import moist_air as psy
from pendrum_core.air.coil import coil_at_dew_point, mix
from pendrum_core.air.fan import size_fan
from pendrum_core.duct.network import section_loss
from pendrum_core.duct.shapes import STEEL_KG_M3, chosen_shape, rectangular_shape, round_shape
from pendrum_core.model.systems import Section
from pendrum_core.network.friction import Fluid
from pendrum_core.network.tree import build_tree, path_losses, sum_upwards
from pendrum_core.proof.cases import Case
from pendrum_core.proof.entry import Entry
from pendrum_core.water.emitters import output_factor

_AIR, _DUCTS, _WATER = "Air", "Ducts", "Water"
_SIZES = "least perimeter within friction, velocity and height, searched apart from the program"
_REAL_GAS = "humid air as a real gas, worked apart from the program"


def air_entries(case: Case) -> Iterator[Entry]:
    """Mixing, cooling coil and fan."""
    inputs, expected = case["inputs"], case["expected"]
    p, out, ret = inputs["pressure_Pa"], inputs["outdoor"], inputs["return_air"]
    w_out = psy.humidity_ratio_from_relative(out["T_C"], out["RH"], p)
    w_ret = psy.humidity_ratio_from_relative(ret["T_C"], ret["RH"], p)
    m = out["dry_air_flow_kg_s"] + ret["dry_air_flow_kg_s"]
    t_mix, w_mix = mix(out["dry_air_flow_kg_s"] / m, out["T_C"], w_out, ret["T_C"], w_ret)
    coil = coil_at_dew_point(t_mix, w_mix, inputs["coil"]["apparatus_dew_point_C"], 0.12, p)
    flow = m * float(psy.specific_volume_m3_kg(coil.leaving_c, coil.leaving_w, p))
    fan = size_fan(
        flow,
        m * float(psy.specific_heat_j_kgk(coil.leaving_w)),
        total_pa=600.0,
        static_pa=580.0,
        efficiency=0.6,
        motor_efficiency=0.85,
        motor_margin=0.0,
    )
    duty, mixed, left = expected["coil_duty"], expected["mixed"], expected["leaving_coil"]
    total, sensible = (1000.0 * duty[key] for key in ("total_without_condensate_kW", "sensible_kW"))
    shaft = expected["fan_shaft_power_W"]
    yield Entry(
        _AIR,
        "Mixed air",
        expected=mixed["T_C"],
        found=float(t_mix),
        quantity="temperature",
        within=0.1,
        source=_REAL_GAS,
    )
    yield Entry(
        _AIR,
        "Wet-bulb of it",
        expected=mixed["wet_bulb_C"],
        found=float(psy.wet_bulb_c(t_mix, w_mix, p)),
        quantity="temperature",
        within=0.1,
        source=_REAL_GAS,
    )
    yield Entry(
        _AIR,
        "Air off the coil",
        expected=left["T_C"],
        found=float(coil.leaving_c),
        quantity="temperature",
        within=0.1,
        source=_REAL_GAS,
    )
    yield Entry(
        _AIR,
        "Coil, total",
        expected=total,
        found=m * float(coil.total_j_kg),
        quantity="load",
        within=0.01 * total,
        source=_REAL_GAS,
    )
    yield Entry(
        _AIR,
        "Coil, sensible",
        expected=sensible,
        found=m * float(coil.sensible_j_kg),
        quantity="load",
        within=0.01 * sensible,
        source=_REAL_GAS,
    )
    yield Entry(
        _AIR,
        "Fan, shaft",
        expected=shaft,
        found=fan.shaft_w,
        quantity="power",
        within=0.01 * shaft,
        source="flow × pressure / efficiency",
    )


def duct_entries(case: Case) -> Iterator[Entry]:
    """A tree of nine sections with given sizes."""
    inputs, expected = case["inputs"], case["expected"]
    fluid = Fluid(inputs["air_density_kg_m3"], inputs["air_viscosity_Pa_s"])
    rows = inputs["sections"]
    tree = build_tree({s["id"]: s["parent"] for s in rows})
    flows = sum_upwards(tree, {s["id"]: s.get("terminal_flow_m3_s", 0.0) for s in rows})
    losses = {}
    for s in rows:
        shape = (
            round_shape(s["diameter_m"]) if s["shape"] == "round" else rectangular_shape(s["width_m"], s["height_m"])
        )
        section = Section(
            s["id"],
            s["id"],
            parent=s["parent"],
            length_m=s["length_m"],
            loss_coefficient=s["C"],
            component_drop_pa=s["component_drop_Pa"],
            end=None,
            end_drop_pa=s.get("terminal_drop_Pa", 0.0),
        )
        losses[s["id"]] = section_loss(section, flows[s["id"]], shape, inputs["roughness_m"], fluid)[3]
    paths = path_losses(tree, losses, list(expected["terminals"]))
    source = "Darcy-Weisbach with Colebrook's friction, worked apart from the program"
    fan = expected["fan"]["fan_total_pressure_Pa"]
    yield Entry(
        _DUCTS,
        "Pressure of the fan, index run",
        expected=fan,
        found=paths.index_loss_pa,
        quantity="pressure",
        within=0.01 * fan,
        source=source,
    )
    for end, want in expected["terminals"].items():
        loss = want["path_loss_Pa"]
        yield Entry(
            _DUCTS,
            f"Run to {end}",
            expected=loss,
            found=paths.loss_pa[end],
            quantity="pressure",
            within=0.01 * loss,
            source=source,
        )


def shape_entries(case: Case) -> Iterator[Entry]:
    """A tree whose sections are sized by the program, each with its own shape, height and velocity limit."""
    inputs, expected = case["inputs"], case["expected"]
    fluid = Fluid(inputs["air_density_kg_m3"], inputs["air_viscosity_Pa_s"])
    rows = inputs["sections"]
    tree = build_tree({s["id"]: s["parent"] for s in rows})
    flows = sum_upwards(tree, {s["id"]: s.get("terminal_flow_m3_s", 0.0) for s in rows})
    losses, sheet = {}, 0.0
    for s in rows:
        height = s.get("height_limit_mm")
        section = Section(
            s["id"],
            s["id"],
            parent=s["parent"],
            length_m=s["length_m"],
            loss_coefficient=s["C"],
            component_drop_pa=s.get("component_drop_Pa", 0.0),
            end=None,
            end_drop_pa=s.get("terminal_drop_Pa", 0.0),
        )
        shape, _ = chosen_shape(
            s["shape"],
            None if height is None else height / 1000.0,
            flow_m3_s=flows[s["id"]],
            roughness_m=inputs["roughness_m"],
            fluid=fluid,
            limit_pa_m=inputs["friction_limit_Pa_m"],
            limit_m_s=s["velocity_limit_m_s"],
        )
        losses[s["id"]] = section_loss(section, flows[s["id"]], shape, inputs["roughness_m"], fluid)[3]
        mass = shape.perimeter_m * s["length_m"] * shape.sheet_m * STEEL_KG_M3
        sheet += mass
        want = expected["sections"][s["id"]]
        size = want["chosen"]
        for key, value in (("width_mm", shape.width_m), ("height_mm", shape.height_m), ("diameter_mm", shape.width_m)):
            if key in size:
                yield Entry(
                    _DUCTS,
                    f"{s['id']}, {key[:-3]}",
                    expected=size[key] / 1000.0,
                    found=value,
                    quantity="length",
                    within=1e-6,
                    source=_SIZES,
                )
        for name, of, value, share in (
            ("equivalent diameter", want["equivalent_diameter_m"], shape.equivalent_diameter_m, 0.002),
            ("loss", want["section_loss_Pa"], losses[s["id"]], 0.01),
            ("sheet", want["sheet_mass_kg"], mass, 0.005),
        ):
            quantity = {"equivalent diameter": "length", "loss": "pressure", "sheet": "ratio"}[name]
            yield Entry(
                _DUCTS,
                f"{s['id']}, {name}",
                expected=of,
                found=value,
                quantity=quantity,
                within=share * of,
                source=_SIZES,
            )
    paths = path_losses(tree, losses, list(expected["terminals"]))
    for end, want in expected["terminals"].items():
        loss = want["path_loss_Pa"]
        yield Entry(
            _DUCTS,
            f"Path to {end}",
            expected=loss,
            found=paths.loss_pa[end],
            quantity="pressure",
            within=0.01 * loss,
            source=_SIZES,
        )
    total = expected["sheet_mass_total_kg"]
    yield Entry(_DUCTS, "Sheet, kg", expected=total, found=sheet, quantity="ratio", within=0.005 * total, source=_SIZES)


def water_entries(case: Case) -> Iterator[Entry]:
    """Radiators at other temperatures than they are rated at."""
    for want in case["expected"]["operating_points"]:
        flow, back, room = want["flow_C"], want["return_C"], want["room_C"]
        output = want["output_W_log_with_dTn_49_83"]
        found = 1000.0 * output_factor(flow, back, room, 1.3, True)
        yield Entry(
            _WATER,
            f"A radiator of 1 kW at {flow:g}/{back:g}/{room:g} °C",
            expected=output,
            found=found,
            quantity="load",
            within=0.002 * output,
            source="EN 442-2, logarithmic mean temperature difference",
        )
