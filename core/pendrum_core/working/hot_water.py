"""Working of stores of hot water."""

from pendrum_core.results.building import BuildingResults
from pendrum_core.water.hot_water import heat_j_per_litre
from pendrum_core.working.node import Node, addition, figure


def _draws(results: BuildingResults, store_id: str) -> tuple[Node, ...]:
    store = results.stores[store_id].store
    return tuple(
        Node(
            f"Drawn at {draw.hot_c:g} °C",
            draw.litres_day,
            "litres",
            formula="a person, an area and a room and day, of the uses of its rooms",
        )
        for draw in store.draws
    )


def hot_water_day(results: BuildingResults, store_id: str) -> Node:
    """Heat in a day's hot water."""
    found = results.stores[store_id]
    store = found.store
    numbers = " + ".join(
        f"{d.litres_day:.0f} L × {heat_j_per_litre(d.hot_c, store.cold_c) / 1e3:.1f} kJ/L" for d in store.draws
    )
    return Node(
        f"{store.name}: hot water of the busiest day",
        found.heat_j_day,
        "energy",
        formula="Σ litres × ρ c (hot − cold)",
        numbers=numbers,
        source="water by Kell (1975) and IAPWS SR6-08",
        inputs=(*_draws(results, store_id), Node("Cold main", store.cold_c, "temperature", ref="site//cold_water_c")),
    )


def hot_water_volume(results: BuildingResults, store_id: str) -> Node:
    """Volume of a store."""
    found = results.stores[store_id]
    store = found.store
    per_litre = heat_j_per_litre(store.store_c, store.cold_c)
    usable_j = found.needed_l * per_litre * store.usable_share
    return Node(
        f"{store.name}: volume",
        found.volume_l,
        "litres",
        formula="usable heat / (ρ c (store − cold) × usable share), next nominal volume",
        numbers=f"{figure(usable_j, 'energy')} / ({per_litre / 1e3:.1f} kJ/L × {store.usable_share:.0%}) = {found.needed_l:.0f} L",
        source="curves of need and supply, EN 12831-3:2017",
        note="The usable heat is the most that draws run ahead of the charging power on the busiest day."
        if store.volume_l is None
        else "Pinned; the day asks for the volume above.",
        inputs=(
            Node("Usable heat", usable_j, "energy", formula="greatest lead of what is drawn over what is charged"),
            Node("Store held at", store.store_c, "temperature", ref=f"hot_water/{store_id}/store_c"),
            Node("Of its water usable", store.usable_share, "percent", ref=f"hot_water/{store_id}/usable_share"),
            Node("Full again within", store.reheat_h, "time", ref=f"hot_water/{store_id}/reheat_h"),
            hot_water_day(results, store_id),
        ),
    )


def hot_water_charge(results: BuildingResults, store_id: str) -> Node:
    """Power that charges a store."""
    found = results.stores[store_id]
    store = found.store
    parts = (
        Node(
            "For what is drawn",
            found.charge_w - found.losses_w,
            "load",
            formula="usable heat / time to be full again, at least the day's mean",
        ),
        Node(
            "Standing loss",
            found.standing_w,
            "load",
            formula="(16.66 + 8.33 V^0.4) (store − around) / 45 K",
            numbers=f"V = {found.volume_l:.0f} L",
            source="class C of regulation (EU) 812/2013",
            ref=f"hot_water/{store_id}/around_c",
        ),
        Node(
            "Circulation",
            found.loop_w,
            "load",
            formula="length × loss a metre",
            numbers=f"{store.loop_m:g} m × {store.loop_w_m:g} W/m",
            ref=f"hot_water/{store_id}/loop_m",
        ),
    )
    return Node(
        f"{store.name}: charging power",
        found.charge_w,
        "load",
        formula="for what is drawn + losses",
        numbers=addition([node.value or 0.0 for node in parts], "load"),
        note="" if store.charge_w is None else "Pinned.",
        inputs=parts,
    )
