"""Thermostats' days, compiled: every step of a day decided in turn, round after round until nothing changes any more.

These loops are the only ones of the core that depend on their own last result at every step, which is why they are
compiled (numba) and not written as operations on whole arrays. They work without the interpreter's lock.

Rounds are put together by Anderson mixing: D. G. Anderson, Iterative procedures for nonlinear integral equations,
J. ACM 12 (1965); for each day on its own.
"""

import numpy as np

from pendrum_core.quantities.compiled import compiled

_STEPS = 144
_ROUNDS = 200
_DEPTH = 6  # rounds that mixing remembers
_SETTLED = 1e-6


@compiled
def opened_w(air_k, conductance, above_k, band_k, only_cooler, outdoor_k):
    """Heat that drawn-in air brings at an air temperature [W]."""
    if only_cooler and outdoor_k >= air_k:
        return 0.0
    share = min(1.0, max(0.0, (air_k - above_k) / band_k))
    return conductance * share * (outdoor_k - air_k)


@compiled
def balanced_w(base_k, answer, conductance, above_k, band_k, only_cooler, outdoor_k):
    """Heat of drawn-in air at the temperature that it brings about itself [W].

    Between closed and fully open the flow grows with the temperature, so that a quadratic gives the balance.
    """
    if base_k <= above_k or (only_cooler and outdoor_k >= base_k):
        return 0.0
    g = conductance * answer
    air = (base_k + g * outdoor_k) / (1.0 + g)
    if air < above_k + band_k:
        a, b = g / band_k, 1.0 - g * (above_k + outdoor_k) / band_k
        c = g * above_k * outdoor_k / band_k - base_k
        air = (np.sqrt(max(b * b - 4.0 * a * c, 0.0)) - b) / (2.0 * a) if a > 1e-12 else base_k
    return (air - base_k) / answer


@compiled
def weights_of(residuals, count):
    """Weights (count - 1,) with which the differences to the rounds before are taken off the last; newest first."""
    size = count - 1
    normal, right = np.zeros((size, size)), np.zeros(size)
    trace = 0.0
    for i in range(size):
        for j in range(i, size):
            for k in range(residuals.shape[1]):
                first = residuals[0, k] - residuals[i + 1, k]
                normal[i, j] += first * (residuals[0, k] - residuals[j + 1, k])
            normal[j, i] = normal[i, j]
        for k in range(residuals.shape[1]):
            right[i] += (residuals[0, k] - residuals[i + 1, k]) * residuals[0, k]
        trace += normal[i, i]
    for i in range(size):
        normal[i, i] += 1e-12 * trace + 1e-30
    # Positive definite: elimination needs no exchange of rows.
    for i in range(size):
        for j in range(i + 1, size):
            factor = normal[j, i] / normal[i, i]
            for k in range(i, size):
                normal[j, k] -= factor * normal[i, k]
            right[j] -= factor * right[i]
    for i in range(size - 1, -1, -1):
        for j in range(i + 1, size):
            right[i] -= normal[i, j] * right[j]
        right[i] /= normal[i, i]
    return right


@compiled
def mixed_into(rounds, weights, result):
    """Put into `result` the last of some `rounds` (rounds, n) less the weighted differences to those before."""
    result[:] = rounds[0]
    for i in range(weights.size):
        weight = weights[i]
        for k in range(result.size):
            result[k] -= weight * (rounds[0, k] - rounds[i + 1, k])


@compiled
def _window_power(end, x, answer, begin, length, sign, target, most):
    """Constant power from step `begin` for `length` steps, so that the sensed temperature then meets its target [W]."""
    base = end[(begin + length - 1) % _STEPS]
    reach = 0.0
    for k in range(length):
        base -= answer[length - 1 - k] * x[(begin + k) % _STEPS]
        reach += answer[k]
    return sign * min(most, max(0.0, sign * (target - base) / reach))


@compiled
def _added(course, answer, step, power):
    """Add the periodic answer to a power at a step to a course; `answer` stands twice in a row, (288,)."""
    ahead = answer[_STEPS - step : 2 * _STEPS - step]
    for k in range(_STEPS):
        course[k] += power * ahead[k]


@compiled
def _answered(free, answer, x, result):
    """Put into `result` what is free with the periodic answers to `x`; `answer` stands twice in a row, (288,)."""
    result[:] = free
    for step in range(_STEPS):
        _added(result, answer, step, x[step])


@compiled
def _wished(window, target, end, now, answer, most, least, wish):
    """Put into `wish` the constant power of a warm-up or pull-down."""
    begin, length, sign = window
    limit = most if sign > 0 else -least
    power = _window_power(end, now, answer, begin, length, sign, target, limit)
    for k in range(length):
        wish[(begin + k) % _STEPS] = power


@compiled
def settle_days(
    free_air,
    free_end,
    held_air,
    held_end,
    thrust_air,
    thrust_end,
    at_once,
    low,
    high,
    most,
    least,
    fixed,
    first_window,
    windows,
    targets,
    conductance,
    drawn,
    outdoor,
    given,
    wish,
    plant,
    drawn_w,
    settled,
):
    """Find the plant's day for all rooms R and days M.

    Where a set-point jumps and the plant is free, it meets the new one at once by a thrust; through the step it then
    gives what keeps the set-points at the step's end. A warm-up or pull-down gives its constant power unless that would
    leave the set-points at work: it never keeps the plant from heating or cooling.

    Args:
        free_air, free_end: temperatures without plant, (R, M, 144) [K].
        held_air, held_end, thrust_air, thrust_end: answers to a watt through a step and to a thrust, (R, 144) [K/W].
        at_once: what a thrust does to what is sensed at once, (R,) [K/W].
        low, high: set-points (R, M, 144); most, least: power (R,).
        fixed: power where no thermostat decides, else NaN, (R, M, 144).
        first_window: of day d = room * M + day its windows are first_window[d] to first_window[d + 1], (R M + 1,).
        windows: (W, 3) begin, length and sign; targets (W,).
        conductance, outdoor: drawn-in air, (R, M, 144), or of length 0 where none is drawn in.
        drawn: (R, 3) above, band, 1 where only cooler air is drawn in.
        given: result (R, M, 288) [W]: all heat through the steps, then the thrusts at their beginnings.
        wish: result (R, M, 144): power of warm-ups and pull-downs.
        plant, drawn_w: results (R, M, 144) [W]: of the plant with its thrusts, of drawn-in air.
        settled: result (R, M).
    """
    rooms, days = low.shape[0], low.shape[1]
    with_air = conductance.shape[0] > 0
    end, air, before = np.empty(_STEPS), np.empty(_STEPS), np.empty(2 * _STEPS)
    # Of the last rounds: powers, what changed them, and the temperatures with them.
    powers, residuals = np.empty((_DEPTH + 1, 2 * _STEPS)), np.empty((_DEPTH + 1, 2 * _STEPS))
    ends, airs = np.empty((_DEPTH + 1, _STEPS)), np.empty((_DEPTH + 1, _STEPS))
    for room in range(rooms):
        z_end = np.concatenate((held_end[room], held_end[room]))
        z = np.concatenate((held_air[room], held_air[room]))
        y_end = np.concatenate((thrust_end[room], thrust_end[room]))
        y = np.concatenate((thrust_air[room], thrust_air[room]))
        total, jump = held_end[room].sum(), at_once[room]
        above, band, only_cooler = drawn[room, 0], drawn[room, 1], drawn[room, 2] > 0.0
        for day in range(days):
            now = given[room, day]
            floor, ceiling, told = low[room, day], high[room, day], fixed[room, day]
            mine = range(first_window[room * days + day], first_window[room * days + day + 1])
            # To begin with, the month before; in the first what would keep the set-points if they lasted for ever.
            if day > 0:
                now[:] = given[room, day - 1]
            else:
                for step in range(_STEPS):
                    free = free_end[room, day, step]
                    lasting = (min(ceiling[step], max(floor[step], free)) - free) / total
                    now[step] = min(most[room], max(least[room], lasting))
                    now[_STEPS + step] = 0.0
            _answered(free_end[room, day], z_end, now[:_STEPS], end)
            _answered(end.copy(), y_end, now[_STEPS:], end)
            if with_air:
                _answered(free_air[room, day], z, now[:_STEPS], air)
                _answered(air.copy(), y, now[_STEPS:], air)
            count = 0
            for _ in range(_ROUNDS):
                before[:] = now
                wishes = wish[room, day]
                wishes[:] = 0.0
                for w in mine:
                    _wished(windows[w], targets[w], end, now, z_end, most[room], least[room], wishes)
                for step in range(_STEPS):
                    for w in mine:
                        if windows[w, 0] == step:
                            _wished(windows[w], targets[w], end, now, z_end, most[room], least[room], wishes)
                    free_here = np.isnan(told[step])
                    thrust = 0.0
                    last = (step - 1) % _STEPS
                    if free_here and jump > 0.0 and (floor[step] > floor[last] or ceiling[step] < ceiling[last]):
                        sensed = end[last]
                        if step == 0:  # what a thrust at midnight leaves after a day is no part of what it acts on
                            sensed -= y_end[_STEPS - 1] * now[_STEPS]
                        thrust = (min(ceiling[step], max(floor[step], sensed)) - sensed) / jump
                    for _attempt in range(2):
                        change = thrust - now[_STEPS + step]
                        if change != 0.0:
                            now[_STEPS + step] += change
                            _added(end, y_end, step, change)
                            if with_air:
                                _added(air, y, step, change)
                        base_end = end[step] - z_end[0] * now[step]
                        lowest, highest = (floor[step] - base_end) / z_end[0], (ceiling[step] - base_end) / z_end[0]
                        wanted = min(max(wishes[step], lowest), highest)
                        drawn_heat = 0.0
                        if with_air:
                            g, out = conductance[room, day, step], outdoor[room, day, step]
                            base = air[step] - z[0] * now[step]
                            floating = balanced_w(base, z[0], g, above, band, only_cooler, out)
                            sensed = base_end + z_end[0] * floating
                            if sensed < floor[step] or sensed > ceiling[step] or wanted == wishes[step] != 0.0:
                                drawn_heat = opened_w(base + z[0] * wanted, g, above, band, only_cooler, out)
                                power = wanted - drawn_heat
                            else:
                                drawn_heat, power = floating, 0.0
                        else:
                            power = wanted
                        if thrust != 0.0 and not least[room] <= power + thrust <= most[room]:
                            thrust = 0.0  # beyond the plant: all it has, through the whole step
                            continue
                        break
                    done = min(most[room], max(least[room], power))
                    if not free_here:
                        done = told[step]
                    if with_air and done != power:
                        drawn_heat = balanced_w(base + z[0] * done, z[0], g, above, band, only_cooler, out)
                    plant[room, day, step], drawn_w[room, day, step] = done + thrust, drawn_heat
                    change = done + drawn_heat - now[step]
                    if change != 0.0:
                        now[step] += change
                        _added(end, z_end, step, change)
                        if with_air:
                            _added(air, z, step, change)
                largest, most_change = 1.0, 0.0
                for step in range(2 * _STEPS):
                    largest = max(largest, abs(now[step]))
                    most_change = max(most_change, abs(now[step] - before[step]))
                if most_change <= _SETTLED * largest:
                    settled[room, day] = True
                    break
                if not np.isfinite(most_change):
                    break
                count = min(count + 1, _DEPTH + 1)
                for i in range(count - 1, 0, -1):
                    powers[i], residuals[i] = powers[i - 1], residuals[i - 1]
                    ends[i], airs[i] = ends[i - 1], airs[i - 1]
                powers[0], residuals[0], ends[0] = now, now - before, end
                if with_air:
                    airs[0] = air
                if count > 1:
                    # Temperatures follow the powers in proportion: what is mixed of the ones is mixed of the others.
                    weights = weights_of(residuals, count)
                    mixed_into(powers, weights, now)
                    mixed_into(ends, weights, end)
                    if with_air:
                        mixed_into(airs, weights, air)
