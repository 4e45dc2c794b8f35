"""How a room's air answers to heat, as periodic responses per 10-minute step."""

from dataclasses import dataclass

import numpy as np
import scipy.fft
from numpy.typing import NDArray

from pendrum_core.quantities.constants import DAY_S, STEPS_PER_DAY
from pendrum_core.room.harmonics import FREQUENCIES, HARMONICS, OMEGA_RAD_S, step_response

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
_STEP_S = DAY_S / STEPS_PER_DAY


@dataclass(frozen=True)
class Kernel:
    """Temperature for a watt put into the air during step 0 of every day, (R, 144) [K/W].

    Attributes:
        air: step averages of the air's temperature.
        end: sensed temperature at the end of each step.
    """

    air: Array
    end: Array


def _values(harmonics: Complex) -> Array:
    return np.asarray(scipy.fft.irfft(harmonics, n=STEPS_PER_DAY, axis=-1))


_TO_END = np.exp(1j * np.pi * FREQUENCIES / STEPS_PER_DAY) * np.sinc(FREQUENCIES / STEPS_PER_DAY)


def _folded(response: Complex) -> Complex:
    """A smooth response at `OMEGA_RAD_S` (R, 361) to the values at the ends of steps, (R, 73)."""
    weighted = response * _TO_END
    total = weighted[:, :HARMONICS].copy()
    for shift in (1, 2):
        start = shift * STEPS_PER_DAY
        total += weighted[:, start : start + HARMONICS]
        total += weighted[:, start - HARMONICS + 1 : start + 1][:, ::-1].conj()
    return np.asarray(total)


def end_response(response: Complex, capacity_j_k: Array) -> Complex:
    """Fold a response at `OMEGA_RAD_S` (R, 361) to the values at the ends of steps, (R, 73).

    An input held over a step reaches the end of the step with the weight sinc(n/144) exp(i pi n/144). That sum
    converges slowly for the jump in slope of an air node, so the node itself, 1/(i w C + g) with the conductance g of
    the highest frequency, is taken out and put back by its exact recursion T(end) = a T(start) + (1 - a) P/g.
    """
    conductance = (1.0 / response[:, -1] - 1j * OMEGA_RAD_S[-1] * capacity_j_k).real[:, None]
    node = 1.0 / (1j * OMEGA_RAD_S[None, :] * capacity_j_k[:, None] + conductance)
    rest = response - node
    total = _folded(rest)
    decay = np.exp(-conductance * _STEP_S / capacity_j_k[:, None])
    steps = np.exp(-2j * np.pi * np.arange(HARMONICS) / STEPS_PER_DAY)
    return np.asarray(total + (1.0 - decay) / conductance / (1.0 - decay * steps))


def kernel(response: Complex, surfaces: Complex, radiant_weight: Array, capacity_j_k: Array) -> Kernel:
    """Responses of rooms.

    Args:
        response: air temperature per watt into the air, (R, 361) [K/W].
        surfaces: mean surface temperature per kelvin of the air, (R, 361) [-].
        radiant_weight: share of the mean surface temperature in what is sensed, (R,) [-].
    """
    share = radiant_weight[:, None]
    slow = step_response(response * surfaces)
    # The mean surface temperature moves slowly within a step: its average serves for its end as well.
    end = (1.0 - share) * end_response(response, capacity_j_k) + share * slow
    return Kernel(_values(step_response(response)), _values(end))


@dataclass(frozen=True)
class RadiantPlant:
    """A plant that gives a share of its heat as radiant heat.

    Attributes:
        share: of each room's, (R,) [-].
        to_air: of a radiant watt, what reaches the air held at its temperature, (R, 361) [-].
        to_surfaces: what it makes of the mean surface temperature then, (R, 361) [K/W].
    """

    share: Array
    to_air: Complex
    to_surfaces: Complex


def radiant_kernel(
    response: Complex, surfaces: Complex, radiant_weight: Array, capacity_j_k: Array, plant: RadiantPlant
) -> Kernel:
    """The same for a watt of a plant of which a share is radiant: the rest goes into the air, where it acts at once."""
    share, weight = plant.share[:, None], radiant_weight[:, None]
    late = response * plant.to_air
    air = step_response((1.0 - share) * response + share * late)
    slow = step_response(((1.0 - share) * response + share * late) * surfaces + share * plant.to_surfaces)
    at_end = (1.0 - share) * end_response(response, capacity_j_k) + share * _folded(late)
    return Kernel(_values(air), _values((1.0 - weight) * at_end + weight * slow))


def convolved(response: Array, values: Array) -> Array:
    """Periodic convolution of responses (R, 144) with courses (R, M, 144)."""
    product = scipy.fft.rfft(response, axis=-1)[:, None] * scipy.fft.rfft(values, axis=-1)
    return np.asarray(scipy.fft.irfft(product, n=STEPS_PER_DAY, axis=-1))
