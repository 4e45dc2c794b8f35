"""Working of cooling towers and dry coolers."""

from pendrum_core.model.climate import day_number
from pendrum_core.model.plant import TOWER
from pendrum_core.plant.rejection import WATER_KG_M3, WATER_OVER_AIR, Cooler
from pendrum_core.plant.source import PlantResult
from pendrum_core.quantities.constants import CP_WATER
from pendrum_core.quantities.times import MONTHS, clock
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.node import Node, figure


def _water_lost(circuit_id: str, plant: PlantResult, cooler: Cooler) -> tuple[Node, ...]:
    """Make-up water and suction head, of a tower alone."""
    if cooler.inputs.kind != TOWER or plant.made_up_kg_s is None:
        return ()
    inputs, lost = cooler.inputs, plant.made_up_kg_s
    daily = float(lost.mean(axis=1).max()) * 86_400.0 / WATER_KG_M3
    return (
        Node(
            "Water made up, at most",
            float(lost.max()) / WATER_KG_M3,
            "water_flow",
            formula="evaporation × cycles / (cycles − 1)",
            note=f"{daily:.2f} m³ on the day that takes most; the air leaves saturated.",
            ref=f"circuit/{circuit_id}/rejection_cycles",
        ),
        Node(
            "Suction head of its pump",
            cooler.suction_head_m,
            "length",
            "NPSH",
            formula="(p air − p vapour − suction losses) / (ρ g) + water above the pump",
            note=f"The pump needs {inputs.npsh_m:.1f} m.",
            ref=f"circuit/{circuit_id}/rejection_above_pump_m",
        ),
    )


def heat_rejection(results: BuildingResults, circuit_id: str) -> Node:
    """What a circuit's tower or dry cooler is sized for.

    Raises:
        KeyError: its chillers reject no heat into water.
    """
    circuit = next(c for c in results.building.circuits if c.id == circuit_id)
    plant = results.plants[circuit_id]
    cooler, rejected = plant.cooler, plant.rejected
    if cooler is None or rejected is None:
        raise KeyError(circuit_id)
    inputs = cooler.inputs
    month, step = divmod(int(rejected.heat_w.argmax()), rejected.heat_w.shape[1])
    when = f"{MONTHS[day_number(results.building.climate.months[month]) - 1]} {clock(step)}"
    wet = inputs.kind == TOWER

    def field(name: str) -> str:
        return f"circuit/{circuit_id}/{name}"

    air = "Wet-bulb" if wet else "Dry-bulb"
    cold = Node(
        "Water to the chillers",
        cooler.cold_c,
        "temperature",
        formula=f"{air.lower()} + approach",
        inputs=(
            Node(f"{air} then", cooler.air_c, "temperature"),
            Node("Approach", inputs.approach_k, "temperature_difference", ref=field("rejection_approach_k")),
        ),
    )
    return Node(
        f"{circuit.name}: heat rejected",
        cooler.heat_w,
        "load",
        formula="(cold + power of the chillers that water cools) × (1 + margin)",
        source="Braun, Klein and Mitchell 1989: effectiveness of wet towers by transfer units"
        if wet
        else "effectiveness in counterflow by transfer units",
        note=f"Largest at {when}, with that step's {air.lower()}; chillers and cooler settled together at every step.",
        inputs=(
            Node("Rejected then", float(rejected.heat_w.max()), "load"),
            cold,
            Node(
                "Water from them",
                cooler.hot_c,
                "temperature",
                formula="water to the chillers + range",
                ref=field("rejection_range_k"),
            ),
            Node(
                "Water",
                cooler.water_kg_s / WATER_KG_M3,
                "water_flow",
                formula="heat / (cp × range)",
                numbers=f"{figure(cooler.heat_w, 'load')} / ({CP_WATER:.0f} J/kgK × {inputs.range_k:.3g} K)",
            ),
            Node(
                "Transfer units at design",
                cooler.units,
                "ratio",
                "NTU",
                formula=f"{WATER_OVER_AIR:g} kg water to a kg of air" if wet else "equal rates of water and air",
            ),
            Node(
                "Fans at full speed",
                cooler.fan_w,
                "electric_power",
                formula="by heat rejected",
                ref=field("rejection_fan_w_w"),
            ),
            *_water_lost(circuit_id, plant, cooler),
            Node(
                "Condenser pump",
                cooler.pump_w,
                "electric_power",
                formula="V Δp / η",
                numbers=f"{figure(inputs.drop_pa, 'head')}, η {inputs.pump_efficiency:.2f}",
                ref=field("rejection_drop_pa"),
            ),
        ),
    )
