"""Thermostats' days, compiled: every step of a day decided in turn, round after round until nothing changes any more.

These loops are the only ones of the core that depend on their own last result at every step, which is why they are
compiled (numba) and not written as operations on whole arrays. They work without the interpreter's lock.

Rounds are put together by Anderson mixing: D. G. Anderson, Iterative procedures for nonlinear integral equations,
J. ACM 12 (1965); for each day on its own.
"""

import numpy as np
from numba import njit

_STEPS = 144
_ROUNDS = 200
_DEPTH = 6  # rounds that mixing remembers
_SETTLED = 1e-6


@njit(cache=True, nogil=True)
def opened_w(air_k, conductance, above_k, band_k, only_cooler, outdoor_k):
    """Heat that drawn-in air brings at an air temperature [W]."""
    if only_cooler and outdoor_k >= air_k:
        return 0.0
    share = min(1.0, max(0.0, (air_k - above_k) / band_k))
    return conductance * share * (outdoor_k - air_k)


@njit(cache=True, nogil=True)
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


@njit(cache=True, nogil=True)
def _weights(residuals, count):
    """Weights (count - 1,) with which the differences to the rounds before are taken off the last; newest first."""
    size = count - 1
    normal, right = np.zeros((size, size)), np.zeros(size)
    trace = 0.0
    for i in range(size):
        for j in range(i, size):
            for k in range(_STEPS):
                first = residuals[0, k] - residuals[i + 1, k]
                normal[i, j] += first * (residuals[0, k] - residuals[j + 1, k])
            normal[j, i] = normal[i, j]
        for k in range(_STEPS):
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


@njit(cache=True, nogil=True)
def _mixed(rounds, weights, result):
    """Put into `result` the last of some `rounds` (rounds, 144) less the weighted differences to those before."""
    result[:] = rounds[0]
    for i in range(weights.size):
        weight = weights[i]
        for k in range(_STEPS):
            result[k] -= weight * (rounds[0, k] - rounds[i + 1, k])


@njit(cache=True, nogil=True)
def _window_power(end, x, answer, begin, length, sign, target, most):
    """Constant power from step `begin` for `length` steps, so that the sensed temperature then meets its target [W]."""
    base = end[(begin + length - 1) % _STEPS]
    reach = 0.0
    for k in range(length):
        base -= answer[length - 1 - k] * x[(begin + k) % _STEPS]
        reach += answer[k]
    return sign * min(most, max(0.0, sign * (target - base) / reach))


@njit(cache=True, nogil=True)
def _added(course, answer, step, power):
    """Add the periodic answer to a power at a step to a course; `answer` stands twice in a row, (288,)."""
    ahead = answer[_STEPS - step : 2 * _STEPS - step]
    for k in range(_STEPS):
        course[k] += power * ahead[k]


@njit(cache=True, nogil=True)
def _answered(free, answer, x, result):
    """Put into `result` what is free with the periodic answers to `x`; `answer` stands twice in a row, (288,)."""
    result[:] = free
    for step in range(_STEPS):
        _added(result, answer, step, x[step])


@njit(cache=True, nogil=True)
def settle_days(
    free_air, free_end, air_answer, end_answer, low, high, most, least, fixed, first_window, windows, targets, conductance,
    drawn, outdoor, x, plant, drawn_w, settled,
):  # fmt: skip
    """Find the plant's day for all rooms R and days M.

    Args:
        free_air, free_end: temperatures without plant, (R, M, 144) [K].
        air_answer, end_answer: answers to a watt, (R, 144) [K/W].
        low, high: set-points (R, M, 144); most, least: power (R,).
        fixed: power where no thermostat decides, else NaN, (R, M, 144); windows write theirs here.
        first_window: of day d = room * M + day its windows are first_window[d] to first_window[d + 1], (R M + 1,).
        windows: (W, 3) begin, length and sign; targets (W,).
        conductance, outdoor: drawn-in air, (R, M, 144), or of length 0 where none is drawn in.
        drawn: (R, 3) above, band, 1 where only cooler air is drawn in.
        x, plant, drawn_w: results (R, M, 144) [W]: all heat into the air, of the plant, of drawn-in air.
        settled: result (R, M).
    """
    rooms, days = low.shape[0], low.shape[1]
    with_air = conductance.shape[0] > 0
    end, air, before = np.empty(_STEPS), np.empty(_STEPS), np.empty(_STEPS)
    # Of the last rounds: powers, what changed them, and the temperatures with them.
    powers, residuals = np.empty((_DEPTH + 1, _STEPS)), np.empty((_DEPTH + 1, _STEPS))
    ends, airs = np.empty((_DEPTH + 1, _STEPS)), np.empty((_DEPTH + 1, _STEPS))
    for room in range(rooms):
        z_end = np.concatenate((end_answer[room], end_answer[room]))
        z = np.concatenate((air_answer[room], air_answer[room]))
        total = end_answer[room].sum()
        above, band, only_cooler = drawn[room, 0], drawn[room, 1], drawn[room, 2] > 0.0
        for day in range(days):
            now = x[room, day]
            floor, ceiling, told = low[room, day], high[room, day], fixed[room, day]
            mine = range(first_window[room * days + day], first_window[room * days + day + 1])
            for w in mine:
                for k in range(windows[w, 1]):
                    told[(windows[w, 0] + k) % _STEPS] = 0.0
            # To begin with, the month before; in the first what would keep the set-points if they lasted for ever.
            for step in range(_STEPS):
                if day > 0:
                    now[step] = x[room, day - 1, step]
                else:
                    free = free_end[room, day, step]
                    lasting = (min(ceiling[step], max(floor[step], free)) - free) / total
                    now[step] = min(most[room], max(least[room], lasting))
            _answered(free_end[room, day], z_end, now, end)
            if with_air:
                _answered(free_air[room, day], z, now, air)
            count = 0
            for _ in range(_ROUNDS):
                before[:] = now
                for step in range(_STEPS):
                    for w in mine:
                        if windows[w, 0] == step:
                            length, sign = windows[w, 1], windows[w, 2]
                            limit = most[room] if sign > 0 else -least[room]
                            power = _window_power(end, now, z_end, step, length, sign, targets[w], limit)
                            for k in range(length):
                                told[(step + k) % _STEPS] = power
                    base_end = end[step] - z_end[0] * now[step]
                    wanted = (min(ceiling[step], max(floor[step], base_end)) - base_end) / z_end[0]
                    drawn_heat = 0.0
                    if with_air:
                        g, out = conductance[room, day, step], outdoor[room, day, step]
                        base = air[step] - z[0] * now[step]
                        floating = balanced_w(base, z[0], g, above, band, only_cooler, out)
                        sensed = base_end + z_end[0] * floating
                        if sensed < floor[step] or sensed > ceiling[step]:
                            drawn_heat = opened_w(base + z[0] * wanted, g, above, band, only_cooler, out)
                            power = wanted - drawn_heat
                        else:
                            drawn_heat, power = floating, 0.0
                    else:
                        power = wanted
                    given = min(most[room], max(least[room], power))
                    if not np.isnan(told[step]):
                        given = told[step]
                    if with_air and given != power:
                        drawn_heat = balanced_w(base + z[0] * given, z[0], g, above, band, only_cooler, out)
                    plant[room, day, step], drawn_w[room, day, step] = given, drawn_heat
                    change = given + drawn_heat - now[step]
                    if change != 0.0:
                        now[step] += change
                        _added(end, z_end, step, change)
                        if with_air:
                            _added(air, z, step, change)
                largest, most_change = 1.0, 0.0
                for step in range(_STEPS):
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
                    weights = _weights(residuals, count)
                    _mixed(powers, weights, now)
                    _mixed(ends, weights, end)
                    if with_air:
                        _mixed(airs, weights, air)
