"""Layers that another material runs through (studs, rafters). Source: ISO 6946:2017, 6.7.2."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from scipy.integrate import quad

from pendrum_core.fabric.layers import Layer, Layers


@dataclass(frozen=True)
class Bridged:
    """A layer and, for a share of its area, the layer that takes its place."""

    layer: Layer
    bridge: Layer | None = None
    share: float = 0.0


@dataclass(frozen=True)
class BridgedResistance:
    """Total resistances with films [m2 K/W]: upper limit, lower limit, and their mean."""

    upper: float
    lower: float
    total: float


def bridged_resistance(layers: Sequence[Bridged], films_m2k_w: float) -> BridgedResistance:
    """Upper limit: sections side by side through the whole element; lower limit: layer by layer.

    Bridges of different layers are taken to cross independently of each other, so that n of them make 2^n sections. Their
    sum is one integral: with the least resistance a of any section, 1/R = (1/a) ∫ u^(R/a - 1) du over 0 to 1, and under
    the integral the layers' shares multiply.
    """
    choices = [
        [(1.0 - b.share, b.layer.resistance_m2k_w)] + ([(b.share, b.bridge.resistance_m2k_w)] if b.bridge else [])
        for b in layers
    ]
    least = [min(resistance for _, resistance in choice) for choice in choices]
    shortest = films_m2k_w + sum(least)
    bridged = [
        [(share, (resistance - low) / shortest) for share, resistance in choice]
        for choice, low in zip(choices, least, strict=True)
        if len(choice) > 1
    ]

    def sections(u: float) -> float:
        result = 1.0
        for choice in bridged:
            result *= sum(share * u**power for share, power in choice)
        return result

    conductance = quad(sections, 0.0, 1.0, epsabs=1e-12, epsrel=1e-11, limit=200)[0] / shortest
    lower = films_m2k_w + sum(1.0 / sum(share / resistance for share, resistance in choice) for choice in choices)
    return BridgedResistance(1.0 / conductance, lower, (1.0 / conductance + lower) / 2.0)


def equivalent_layers(layers: Sequence[Bridged], films_m2k_w: float) -> Layers:
    """Homogeneous layers with the element's resistance by the standard and the mixed capacities.

    A bridged layer gets the resistance of the lower limit, scaled so that the whole has the mean of the two limits.
    """
    if not any(b.bridge for b in layers):
        return tuple(b.layer for b in layers)
    whole = bridged_resistance(layers, films_m2k_w).total - films_m2k_w
    mixed = [
        1.0 / ((1.0 - b.share) / b.layer.resistance_m2k_w + b.share / b.bridge.resistance_m2k_w) if b.bridge else 0.0
        for b in layers
    ]
    plain = sum(b.layer.resistance_m2k_w for b in layers if not b.bridge)
    scale = (whole - plain) / sum(mixed)
    result = []
    for b, resistance in zip(layers, mixed, strict=True):
        if b.bridge is None:
            result.append(b.layer)
            continue
        thickness = b.layer.thickness_m or b.bridge.thickness_m
        density = (1.0 - b.share) * b.layer.density_kg_m3 + b.share * b.bridge.density_kg_m3
        capacity = (1.0 - b.share) * b.layer.capacity_j_m2k + b.share * b.bridge.capacity_j_m2k
        result.append(
            replace(
                b.layer,
                name=f"{b.layer.name} with {b.bridge.name}",
                thickness_m=thickness,
                conductivity_w_mk=thickness / (resistance * scale),
                density_kg_m3=density,
                specific_heat_j_kgk=capacity / (thickness * density) if density > 0.0 else 0.0,
                plain_resistance_m2k_w=0.0,
            )
        )
    return tuple(result)


def with_allowance(layers: Layers, films_m2k_w: float, extra_u_value: float) -> Layers:
    """Layers whose U-value is higher by an allowance for thermal bridges: the most resistant layer gives way.

    Raises:
        ValueError: the allowance asks for more than that layer has.
    """
    if extra_u_value <= 0.0:
        return layers
    resistance = sum(layer.resistance_m2k_w for layer in layers)
    wanted = 1.0 / (1.0 / (resistance + films_m2k_w) + extra_u_value) - films_m2k_w
    at = max(range(len(layers)), key=lambda i: layers[i].resistance_m2k_w)
    weakest = layers[at]
    left = weakest.resistance_m2k_w - (resistance - wanted)
    if left <= 1e-4:
        raise ValueError(f"an allowance of {extra_u_value:g} W/m2K is more than {weakest.name} can give")
    if weakest.conductivity_w_mk > 0.0:
        changed = replace(weakest, conductivity_w_mk=weakest.thickness_m / left)
    else:
        changed = replace(weakest, plain_resistance_m2k_w=left)
    return (*layers[:at], changed, *layers[at + 1 :])
