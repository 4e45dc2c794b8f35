"""What in stores of hot water deserves a second look."""

from collections.abc import Iterator

from pendrum_core.checks.snag import DOUBTFUL, NOTE, Snag
from pendrum_core.results.building import BuildingResults

SAFE_C = 60.0  # at which stored water is held against legionella (EN 806-2, CEN/TR 16355)
_WARMER_K = 3.0  # that the charging water must be above the store


def hot_water_snags(results: BuildingResults) -> Iterator[Snag]:
    """Stores that run short, that their circuit cannot heat, that are cool enough for legionella, and draws without a store."""
    circuits = {circuit.id: circuit for circuit in results.building.circuits}
    for store in results.building.stores:
        found = results.stores.get(store.id)
        about = {"kind": "hot_water", "id": store.id, "stage": "water"}
        if found is None:
            if not store.draws:
                yield Snag(
                    NOTE,
                    "store_unused",
                    sentence=f"{store.name}: no room draws from it.",
                    way_out="say in their uses what rooms draw a day, or remove the store",
                    **about,
                )
            continue
        if found.short_j > 1.0:
            share = found.short_j / found.heat_j_day
            yield Snag(
                DOUBTFUL,
                "store_short",
                sentence=f"{store.name}: {share:.0%} of the busiest day's hot water does not come hot; it holds {found.volume_l:.0f} L and is charged with "
                f"{found.charge_w / 1000:.1f} kW.",
                way_out="a larger store, or more power",
                **about,
            )
        hottest = max(draw.hot_c for draw in store.draws)
        if store.store_c < hottest:
            yield Snag(
                DOUBTFUL,
                "store_too_cool",
                sentence=f"{store.name} is held at {store.store_c:g} °C; {hottest:g} °C are asked of it.",
                way_out="hold it warmer, or ask for less",
                **about,
            )
        if store.store_c < SAFE_C:
            yield Snag(
                NOTE,
                "store_legionella",
                sentence=f"{store.name} is held at {store.store_c:g} °C; below {SAFE_C:g} °C legionella may grow in stored water.",
                way_out="hold it at 60 °C, or heat it through by a routine of its own",
                **about,
            )
        circuit = circuits.get(store.circuit or "")
        if circuit is not None and circuit.kind != "heating":
            yield Snag(
                DOUBTFUL,
                "store_on_cold_water",
                sentence=f"{store.name} hangs on {circuit.name}, which carries chilled water.",
                way_out="another circuit",
                **about,
            )
        elif circuit is not None and circuit.flow_c < store.store_c + _WARMER_K:
            yield Snag(
                DOUBTFUL,
                "store_above_flow",
                sentence=f"{store.name} is to be {store.store_c:g} °C; {circuit.name} brings {circuit.flow_c:g} °C.",
                way_out="a warmer circuit, or a cooler store",
                **about,
            )
