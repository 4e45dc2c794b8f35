"""Working of what a circuit takes of the one that feeds it."""

from pendrum_core.model.systems import EXCHANGER, MIXED
from pendrum_core.results.building import BuildingResults
from pendrum_core.working.node import Node, figure


def circuit_feed(results: BuildingResults, circuit_id: str) -> Node:
    """Flow that a fed circuit takes of its source.

    Raises:
        KeyError: nothing feeds it.
    """
    feed = results.feeds[circuit_id]
    circuit, source = (next(c for c in results.building.circuits if c.id == one) for one in (circuit_id, feed.source))
    beside: tuple[Node, ...] = ()
    if feed.connection == MIXED:
        beside = (
            Node(
                "Of its flow, from the source",
                feed.share,
                "percent",
                formula="(flow − return) / (source's flow − return)",
                note="The rest is its own return, mixed in by its valve.",
            ),
        )
    elif feed.connection == EXCHANGER:
        beside = (
            Node(
                "Exchanger's conductance",
                feed.ua_w_k,
                "heat_loss",
                "UA",
                formula="duty / logarithmic mean difference",
                numbers=f"{figure(feed.duty_w, 'load')} / {feed.mean_k:.2f} K",
            ),
            Node("Approach", circuit.approach_k, "temperature_difference", ref=f"circuit/{circuit.id}/approach_k"),
        )
    return Node(
        f"{circuit.name}: what it takes of {source.name}",
        feed.source_flow_m3_s,
        "water_flow",
        formula="duty / (ρ c (source's flow − return to it))",
        numbers=f"{figure(feed.duty_w, 'load')} over {abs(feed.flow_c - feed.return_c):.1f} K",
        source="heat balance of the joint; docs/methods/plant.md",
        inputs=(
            Node("Design duty, with what is lost on the way", feed.duty_w, "load"),
            Node("Source's flow", feed.flow_c, "temperature", ref=f"circuit/{source.id}/flow_c"),
            Node("Back to it", feed.return_c, "temperature", ref=f"circuit/{circuit.id}/return_c"),
            Node("Its own flow", feed.own_flow_m3_s, "water_flow"),
            *beside,
        ),
    )
