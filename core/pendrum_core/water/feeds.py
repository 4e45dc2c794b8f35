"""Circuits that another circuit feeds: direct, mixed with their own return, or through a heat exchanger.

Source: heat and mass balance of the joint; exchangers in counterflow by the logarithmic mean difference.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import log

from pendrum_core.model.systems import DIRECT, EXCHANGER, MIXED, Circuit
from pendrum_core.water.network import liquid_of, water_flow_m3_s

_SAME_K = 0.05
CONNECTIONS = (MIXED, EXCHANGER, DIRECT)


@dataclass(frozen=True)
class Feed:
    """What a circuit takes of the one that feeds it, at design.

    Attributes:
        source: id of that circuit.
        duty_w: with what is lost on its own way.
        return_c: temperature that goes back to the source [°C].
        source_flow_m3_s: of the source's liquid; own_flow_m3_s of its own for that duty.
        share: of its flow that comes from the source, the rest is its own return; 1 where nothing is mixed [-].
        ua_w_k, mean_k: of an exchanger: conductance and logarithmic mean difference; 0 without one.
    """

    source: str
    connection: str
    duty_w: float
    flow_c: float
    return_c: float
    source_flow_m3_s: float
    own_flow_m3_s: float
    share: float
    ua_w_k: float = 0.0
    mean_k: float = 0.0


def return_to_source_c(circuit: Circuit, source: Circuit) -> float:
    """Temperature at which a fed circuit's water goes back to its source [°C].

    Raises:
        ValueError: the source cannot feed it: its kind, its temperatures or the approach do not allow it.
    """
    if circuit.kind != source.kind:
        raise ValueError(f"circuit {circuit.name} is for {circuit.kind}, {source.name} that feeds it for {source.kind}")
    if circuit.by_refrigerant or source.by_refrigerant:
        raise ValueError(f"circuit {circuit.name} and {source.name} that feeds it must both carry water")
    if circuit.connection not in CONNECTIONS:
        raise ValueError(
            f"circuit {circuit.name} is connected {circuit.connection!r}, none of {', '.join(CONNECTIONS)}"
        )
    sign = 1.0 if circuit.kind == "heating" else -1.0
    approach = circuit.approach_k if circuit.connection == EXCHANGER else 0.0
    apart = sign * (source.flow_c - circuit.flow_c)
    warmer = "below" if sign > 0.0 else "above"
    if circuit.connection == DIRECT and abs(apart) > _SAME_K:
        raise ValueError(
            f"circuit {circuit.name} is fed directly: its flow of {circuit.flow_c:g} °C is that of {source.name}, {source.flow_c:g} °C"
        )
    if apart < approach - _SAME_K:
        raise ValueError(
            f"circuit {circuit.name}: its flow of {circuit.flow_c:g} °C must be {f'{approach:g} K or more ' if approach else ''}{warmer} the "
            f"{source.flow_c:g} °C of {source.name}"
        )
    back = circuit.return_c + sign * approach
    if sign * (source.flow_c - back) <= 0.0:
        raise ValueError(
            f"circuit {circuit.name} would send {back:g} °C back to {source.name}, whose flow is {source.flow_c:g} °C"
        )
    return back


def feed_of(circuit: Circuit, source: Circuit, duty_w: float) -> Feed:
    """What a circuit takes of its source for a duty.

    Source: V = Q/(rho c dT) on both sides; mixed: share = (flow - return)/(source's flow - return); UA = Q/LMTD.

    Raises:
        ValueError: the source cannot feed it.
    """
    back = return_to_source_c(circuit, source)
    own = water_flow_m3_s(duty_w, circuit.flow_c, circuit.return_c, liquid_of(circuit))
    taken = water_flow_m3_s(duty_w, source.flow_c, back, liquid_of(source))
    share = 1.0
    if circuit.connection == MIXED:
        share = (circuit.flow_c - circuit.return_c) / (source.flow_c - circuit.return_c)
    mean = 0.0
    if circuit.connection == EXCHANGER:
        hot_end, cold_end = abs(source.flow_c - circuit.flow_c), abs(back - circuit.return_c)
        mean = hot_end if abs(hot_end - cold_end) < 1e-6 else (hot_end - cold_end) / log(hot_end / cold_end)
    return Feed(
        source.id,
        circuit.connection,
        duty_w,
        flow_c=source.flow_c,
        return_c=back,
        source_flow_m3_s=taken,
        own_flow_m3_s=own,
        share=share,
        ua_w_k=duty_w / mean if mean else 0.0,
        mean_k=mean,
    )


def mixed_return_c(circuit: Circuit, parts: Iterable[tuple[float, float]]) -> float:
    """Return of a circuit whose ends send water back at temperatures of their own, from their duties and those [W, °C].

    Its own design return where nothing is asked.

    Source: heat balance of the water that comes together.
    """
    asked, rates = 0.0, 0.0
    for duty, back in parts:
        asked += duty
        rates += duty / abs(circuit.flow_c - back)
    if rates <= 0.0:
        return circuit.return_c
    sign = 1.0 if circuit.kind == "heating" else -1.0
    return circuit.flow_c - sign * asked / rates


def fed_first(circuits: Sequence[Circuit]) -> tuple[list[Circuit], list[Circuit]]:
    """Circuits in an order in which every one stands before the one that feeds it, and those that feed each other in a circle.

    Circuits that a heat pump's other side cools come last: it heats first, and what is left of its time is known by then.
    """
    left, ordered = {circuit.id: circuit for circuit in circuits}, []
    while left:
        feeding = {c.source for c in left.values() if c.source in left}
        ready = [identity for identity in left if identity not in feeding]
        if not ready:
            break
        ordered += [left.pop(identity) for identity in ready]
    ordered.sort(key=lambda circuit: any(unit.reverses for unit in circuit.units))
    return ordered, list(left.values())
