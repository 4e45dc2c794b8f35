"""A room marched through a year in 10-minute steps: exponentials, thermostat, limits, outdoor air drawn in."""

import numpy as np

from pendrum_core.quantities.compiled import compiled, compiled_sums

STEPS_AN_HOUR = 6


@compiled
def _opened(base, k0, conductance, outdoor, above, band):
    """Share that is open and the air with it, where outdoor air is drawn in proportion to the warmth above a limit."""
    full = (base + k0 * conductance * outdoor) / (1.0 + k0 * conductance)
    if full >= above + band:
        return 1.0, full
    low, high = 0.0, 1.0
    for _ in range(30):
        share = 0.5 * (low + high)
        air = (base + k0 * share * conductance * outdoor) / (1.0 + k0 * share * conductance)
        wanted = min(1.0, max(0.0, (air - above) / band))
        if wanted > share:
            low = share
        else:
            high = share
    share = 0.5 * (low + high)
    return share, (base + k0 * share * conductance * outdoor) / (1.0 + k0 * share * conductance)


@compiled_sums
def march(
    decay,
    air_in,
    surface_in,
    surface_direct,
    per_watt,
    surface_per_watt,
    per_radiant,
    surface_per_radiant,
    direct_per_radiant,
    convective,
    radiant,
    low,
    high,
    heat_most,
    cold_most,
    drawn,
    drawn_share,
    above,
    band,
    only_cooler,
    outdoor,
    first_w_k,
    first_c,
    sensed_weight,
    heat_radiant,
    told,
    run_in,
    air,
    surface,
    power,
    drawn_w,
    asked,
):
    """March a room; hour means of air, mean surface, plant (heating above nought) and heat of drawn-in air come back in four of the last five,
    and in `asked` the plant by step where that has room for it.

    `air_in`, `surface_in`: what the hourly signals bring to each pole, (hours, poles); `surface_direct`: to the surface at once, (hours,).
    `per_*`: weights of a watt into the air, and of a radiant watt. `convective`, `radiant`, `low`, `high`: by step. Before the year the
    last `run_in` hours are marched for its state. `first_w_k`, `first_c`: supply air that flows whatever the thermostat asks, hourly.
    `sensed_weight`: of the mean surface in what the thermostat senses; `heat_radiant`: of the heat that the plant gives, onto all faces.
    `told`: what the plant is told to give by step, of rooms under another one's sensor; empty where the room has its own.
    """
    poles, hours = len(decay), air_in.shape[0]
    rise = 1.0 - decay
    x, y = np.zeros(poles), np.zeros(poles)
    # What a watt through a step does by its end: to the air, to the surface, and a radiant one to both.
    k0 = s0 = r0 = 0.0
    s_radiant = direct_per_radiant
    for i in range(poles):
        x[i], y[i] = air_in[0, i], surface_in[0, i]
        k0 += rise[i] * per_watt[i]
        s0 += rise[i] * surface_per_watt[i]
        r0 += rise[i] * per_radiant[i]
        s_radiant += rise[i] * surface_per_radiant[i]
    follows, kept = len(told) > 0, len(asked) > 0
    into_air = 1.0 - heat_radiant
    ended = 0.0
    for i in range(poles):
        ended += x[i]
    for turn in range(-run_in, hours):
        hour = turn % hours
        mean_air = mean_surface = mean_power = mean_drawn = 0.0
        for part in range(6):
            step = hour * 6 + part
            base = 0.0
            faces = surface_direct[hour] + direct_per_radiant * radiant[step]
            for i in range(poles):
                x[i] = decay[i] * x[i] + rise[i] * (
                    air_in[hour, i] + per_watt[i] * convective[step] + per_radiant[i] * radiant[step]
                )
                base += x[i]
            # Apart, for loops over few arrays are done several poles at a time.
            for i in range(poles):
                y[i] = decay[i] * y[i] + rise[i] * (
                    surface_in[hour, i]
                    + surface_per_watt[i] * convective[step]
                    + surface_per_radiant[i] * radiant[step]
                )
                faces += y[i]
            brought = 0.0
            if drawn > 0.0 and drawn_share[step] > 0.0 and base > above and (outdoor[hour] < base or not only_cooler):
                share, there = _opened(base, k0, drawn * drawn_share[step], outdoor[hour], above, band)
                brought = drawn * drawn_share[step] * share * (outdoor[hour] - there)
            # Supply air comes first: it makes the room stiffer for what the plant does beside it.
            first = first_w_k[hour]
            reached = (base + k0 * (brought + first * first_c[hour])) / (1.0 + k0 * first)
            answer = k0 / (1.0 + k0 * first)
            warmed = (k0 * into_air + r0 * heat_radiant) / (1.0 + k0 * first)
            sensed = (1.0 - sensed_weight) * reached + sensed_weight * (
                faces + s0 * (brought + first * (first_c[hour] - reached))
            )
            q = 0.0
            if follows:
                q = told[step]
            elif sensed < low[step]:
                felt = (1.0 - sensed_weight) * warmed + sensed_weight * (
                    s0 * (into_air - first * warmed) + s_radiant * heat_radiant
                )
                q = min(heat_most, (low[step] - sensed) / felt)
            elif sensed > high[step]:
                felt = (1.0 - sensed_weight) * answer + sensed_weight * s0 * (1.0 - first * answer)
                q = -min(cold_most, (sensed - high[step]) / felt)
            onto = heat_radiant * q if q > 0.0 else 0.0
            there = reached + (warmed if q > 0.0 else answer) * q
            given = q - onto + brought + first * (first_c[hour] - there)
            here = 0.0
            faces += direct_per_radiant * onto
            for i in range(poles):
                x[i] += rise[i] * (per_watt[i] * given + per_radiant[i] * onto)
                here += x[i]
            for i in range(poles):
                y[i] += rise[i] * (surface_per_watt[i] * given + surface_per_radiant[i] * onto)
            faces += s0 * given + (s_radiant - direct_per_radiant) * onto
            if kept and turn >= 0:
                asked[step] = q
            mean_air += 0.5 * (ended + here)
            ended = here
            mean_surface += faces
            mean_power += q
            mean_drawn += brought
        if turn >= 0:
            air[hour] = mean_air / 6.0
            surface[hour] = mean_surface / 6.0
            power[hour] = mean_power / 6.0
            drawn_w[hour] = mean_drawn / 6.0
