"""What rooms get when air comes in: their temperature, and the heat that keeps them at their heating set-points.

Asked and served differ by what the plant gives. With the room's answer K to a watt, the air served is the air asked plus K times
(heat served - heat asked): nothing of the fabric has to be solved again. At every step the supply air brings
rate (T_supply - T_room) at the temperature that it brings about itself; where the room would get warmer than its cooling set-point
a variable flow grows, where it would get colder than its heating set-point it is heated, within limits; between the
two it floats. The day repeats. What its mean flow does is solved at once by harmonics; what is left, heat and the flow's
changes, is found round by round, mixed as in room/thermostat/sweep.py.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.compiled import block, compiled
from pendrum_core.room.thermostat.sweep import mixed_into, weights_of

Array = NDArray[np.float64]
Spectrum = NDArray[np.complex128]
_ROUNDS, _DEPTH, _SETTLED_K = 150, 6, 1e-6
_STEPS = 144
_NOISE_K = 1e-10
_BARELY_K = 0.5


@dataclass(frozen=True)
class Asked:
    """Rooms as they are without systems, (R, D, 144); temperatures [°C], heat into the air [W].

    Attributes:
        answer: of the air, at the ends of steps, to a watt through a step, (R, 144) [K/W].
        heat_w, air_c: of the ideal plant that holds set-points, and the air with it at the ends of steps.
        low_c, high_c: between which the room floats; infinite where it is not heated or not cooled.
    """

    answer: Array
    heat_w: Array
    air_c: Array
    low_c: Array
    high_c: Array

    @cached_property
    def harmonics(self) -> tuple[Spectrum, Spectrum, Spectrum]:
        """Those of the answer, of the heat and of the air."""
        return tuple(np.fft.rfft(of, axis=-1) for of in (self.answer, self.heat_w, self.air_c))  # type: ignore[return-value]


@dataclass(frozen=True)
class Served:
    """Rooms under supply air, (R, D, 144).

    Attributes:
        rate_w_k: heat capacity rate of the supply air.
        heat_w: reheat or emitter; below nought what a chilled ceiling or beam takes.
        air_c: room air at the ends of steps, with which the supply air exchanges its heat.
        settled: whether each room's days came to rest, (R,).
        beside_w: what is into the air beside a steady flow, from which a next call begins [W].
    """

    rate_w_k: Array
    heat_w: Array
    air_c: Array
    settled: NDArray[np.bool_]
    beside_w: Array


@compiled
def _law(without, answer, steady, low, high, least, most, supply, heat_most, cool_most, first, first_c, steady_c):
    """Rate, heat and temperature of one step: from what the temperature would be with a steady flow of air alone, and the answer.

    What holds at the step: limits of temperature, of the supply's rate, of heat and of cooling beside the air; the air that
    comes, that which comes first, and the mean of both. Air that comes first is part of what the room is, for the air that
    comes after it.
    """
    damped = 1.0 + answer * (first - steady)
    base = (without + answer * (first * first_c - steady * steady_c)) / damped
    k0 = answer / damped
    air = (base + k0 * least * supply) / (1.0 + k0 * least)
    if air > high:
        rate = least
        if most > least and supply < high:
            # Air hardly colder than the set-point is asked for less and less, so that flow and temperature have a state that stands.
            open_to = least + (most - least) * min(1.0, (high - supply) / _BARELY_K)
            rate = min(open_to, (base - high) / (k0 * (high - supply)))
            air = (base + k0 * rate * supply) / (1.0 + k0 * rate)
        if cool_most > 0.0 and air > high + _NOISE_K:
            cold = max(-cool_most, (high - base) / k0 - rate * (supply - high))
            return rate, cold, (base + k0 * (rate * supply + cold)) / (1.0 + k0 * rate)
        return rate, 0.0, air
    if air < low and heat_most > 0.0:
        heat = min(heat_most, (low - base) / k0 - least * (supply - low))
        return least, heat, (base + k0 * (least * supply + heat)) / (1.0 + k0 * least)
    return least, 0.0, air


@compiled
def _serve(
    answer, without, steady, low, high, least, most, supply, heat_most, cool_most, first, first_c, steady_c,
    rate, given, served, settled, beside, known,
):  # fmt: skip
    """`beside` is found; where it is `known` nearly, `served` is the air with it to begin with."""
    rooms, days = without.shape[0], without.shape[1]
    powers, residuals = np.empty((_DEPTH + 1, _STEPS)), np.empty((_DEPTH + 1, _STEPS))
    temperatures = np.empty((_DEPTH + 1, _STEPS))
    before, t = np.empty(_STEPS), np.empty(_STEPS)
    for room in range(rooms):
        k = np.concatenate((answer[room], answer[room]))
        k0, lasting = k[0], answer[room].sum()
        q = np.empty(_STEPS)
        for day in range(days):
            # To begin with, what it was when last served, else in the month before; in the first, what would come of it if each
            # step lasted for ever.
            if known:
                q[:] = beside[room, day]
                t[:] = served[room, day]
            elif day == 0:
                for s in range(_STEPS):
                    r, h, x = _law(
                        without[room, day, s], lasting, steady[room], low[room, day, s], high[room, day, s], least[room, day, s],
                        most[room, day, s], supply[room, day, s], heat_most[room, day, s], cool_most[room, day, s],
                        first[room, day, s], first_c[room, day, s], steady_c[room, day, s],
                    )  # fmt: skip
                    q[s] = (x - without[room, day, s]) / lasting
            if not known:
                t[:] = without[room, day]
                for s in range(_STEPS):
                    if abs(q[s]) * lasting > _SETTLED_K:
                        ahead = k[_STEPS - s : 2 * _STEPS - s]
                        for j in range(_STEPS):
                            t[j] += q[s] * ahead[j]
                    else:
                        q[s] = 0.0
            count = 0
            done = False
            for _ in range(_ROUNDS):
                before[:] = q
                largest = 0.0
                for s in range(_STEPS):
                    base = t[s] - k0 * q[s]
                    r, h, x = _law(
                        base, k0, steady[room], low[room, day, s], high[room, day, s], least[room, day, s], most[room, day, s],
                        supply[room, day, s], heat_most[room, day, s], cool_most[room, day, s], first[room, day, s],
                        first_c[room, day, s], steady_c[room, day, s],
                    )  # fmt: skip
                    rate[room, day, s], given[room, day, s] = r, h
                    change = (x - base) / k0 - q[s]
                    # Told in kelvin that last: what a change would come to if it stayed.
                    largest = max(largest, abs(change) * lasting)
                    if abs(change) * k0 > 1e-10:
                        q[s] += change
                        ahead = k[_STEPS - s : 2 * _STEPS - s]
                        for j in range(_STEPS):
                            t[j] += change * ahead[j]
                if largest < _SETTLED_K:
                    done = True
                    break
                count = min(count + 1, _DEPTH + 1)
                for i in range(count - 1, 0, -1):
                    powers[i], residuals[i], temperatures[i] = powers[i - 1], residuals[i - 1], temperatures[i - 1]
                powers[0], residuals[0], temperatures[0] = q, q - before, t
                if count > 1:
                    weights = weights_of(residuals, count)
                    mixed_into(powers, weights, q)
                    mixed_into(temperatures, weights, t)
            served[room, day] = t
            beside[room, day] = q
            settled[room] = settled[room] and done


def serve(
    asked: Asked,
    supply_c: Array,
    least_w_k: Array,
    most_w_k: Array,
    heat_most_w: Array,
    first_w_k: Array | float = 0.0,
    first_c: Array | float = 0.0,
    cool_most_w: Array | float = 0.0,
    start: Served | None = None,
) -> Served:
    """Serve rooms with supply air; `start` is how they were served with nearly the same.

    Args:
        supply_c: at the terminals, (R, D, 144) [°C].
        least_w_k, most_w_k: limits of the supply's heat capacity rate, (R, D, 144); equal where the flow is constant.
        heat_most_w: most that reheat and emitter can do, (R, D, 144) or (R, 1, 1); 0 where there is none, infinite where it is
            sized.
        cool_most_w: most that a chilled ceiling or beam can do, like `heat_most_w`.
        first_w_k, first_c: air of another system that comes before this one's, its heat capacity rate and temperature.
    """
    shape = asked.air_c.shape
    rate, given, served = np.empty(shape), np.empty(shape), np.empty(shape)
    settled = np.ones(shape[0], dtype=np.bool_)
    low, high, least, most, supply, heat_most, cool_most, first, first_at = (
        block(values, shape)
        for values in (
            asked.low_c, asked.high_c, least_w_k, most_w_k, supply_c, heat_most_w, cool_most_w, first_w_k, first_c,
        )
    )  # fmt: skip
    if np.ndim(first_w_k) == 0 and first_w_k == 0.0:
        steady, mixed = least.mean(axis=(1, 2)), supply
    else:
        flow = least + first
        steady = flow.mean(axis=(1, 2))
        mixed = np.divide(least * supply + first * first_at, flow, out=np.array(supply), where=flow > 0.0)
    answers, without_k = _with_steady_air(asked, steady, mixed)
    answer, without = (np.fft.irfft(of, _STEPS, axis=-1) for of in (answers, without_k))
    known = start is not None and start.beside_w.shape == shape
    beside = np.empty(shape)
    if start is not None and known:
        beside[:] = start.beside_w
        served = np.fft.irfft(without_k + answers[:, None] * np.fft.rfft(beside, axis=-1), _STEPS, axis=-1)
    _serve(
        answer, without, steady, low, high, least, most, supply, heat_most, cool_most, first, first_at, mixed,
        rate, given, served, settled, beside, known,
    )  # fmt: skip
    return Served(rate, given, served, settled, beside)


def _with_steady_air(asked: Asked, rate_w_k: Array, supply_c: Array) -> tuple[Spectrum, Spectrum]:
    """Harmonics of the rooms' answers with a steady flow of air in them, (R, 73), and of their air with it and no other heat, (R, D, 73).

    A day that repeats, with a flow that does not change, is solved at once by its harmonics: with the air at x and its answer K,
    x = asked + K (rate (supply - x) - heat asked), so x = (asked + K (rate supply - heat asked)) / (1 + rate K) at each harmonic.
    """
    k, heat, air = asked.harmonics
    damped = 1.0 + rate_w_k[:, None] * k
    brought = rate_w_k[:, None, None] * np.fft.rfft(supply_c, axis=-1) - heat
    return k / damped, (air + k[:, None] * brought) / damped[:, None]
