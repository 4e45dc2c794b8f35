"""How a room's air, and what its thermostat senses, answer to heat, as periodic responses per 10-minute step.

Source: the convolution theorem for periodic courses; heat balance of room/balance.
"""

from dataclasses import dataclass

import numpy as np
import scipy.fft
from numpy.typing import NDArray

from pendrum_core.quantities.constants import DAY_S, STEPS_PER_DAY
from pendrum_core.room.balance.harmonics import OMEGA_RAD_S, At, step_response

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
_STEP_S = DAY_S / STEPS_PER_DAY
# A sensor that hardly feels the air would ask for a thrust of tens of kelvin: it waits for the end of the step.
LEAST_FELT = 0.3


@dataclass(frozen=True)
class Answer:
    """Temperature for heat during step 0 of every day, (R, 144) [K/W].

    Attributes:
        air: step averages of the air's temperature.
        end: sensed temperature at the end of each step, just before the next one.
    """

    air: Array
    end: Array


@dataclass(frozen=True)
class Kernel:
    """Answers of rooms to their plant.

    Attributes:
        held: to a watt through the step.
        thrust: to the same energy at once, at the beginning of the step.
        at_once: by how much a thrust moves what is sensed there and then, (R,) [K/W]; 0 where none is to be given.
    """

    held: Answer
    thrust: Answer
    at_once: Array


def _values(harmonics: Complex) -> Array:
    return np.asarray(scipy.fft.irfft(harmonics, n=STEPS_PER_DAY, axis=-1))


def kernel(
    response: Complex, surfaces: Complex, radiant_weight: Array, capacity_j_k: Array, surfaces_at_once: Array
) -> Kernel:
    """Responses of rooms.

    Args:
        response: air temperature per watt into the air, (R, 361) [K/W].
        surfaces: mean surface temperature per kelvin of the air, (R, 361) [-].
        radiant_weight: share of the mean surface temperature in what is sensed, (R,) [-].
        surfaces_at_once: the part of `surfaces` that follows at once, (R,) [-].
    """
    share = radiant_weight[:, None]
    sensed = response * ((1.0 - share) + share * surfaces)
    air = step_response(response, behind_mass=True)
    felt = (1.0 - radiant_weight) + radiant_weight * surfaces_at_once
    at_once = _STEP_S / capacity_j_k * felt
    ends = _after_thrust(sensed, capacity_j_k, felt)
    return Kernel(
        held=Answer(_values(air), _values(step_response(sensed, At.END, behind_mass=True))),
        # The mean over a step after a thrust is the value at its end after a watt held through the first.
        thrust=Answer(_values(step_response(response, At.END, behind_mass=True)), ends),
        at_once=np.where(felt < LEAST_FELT, 0.0, at_once),
    )


def _after_thrust(sensed: Complex, capacity_j_k: Array, felt: Array) -> Array:
    """What is sensed at the ends of steps after a thrust at the beginning of the first, (R, 144).

    The part that moves at once is that of an air node by itself, 1/(iωC + g), which is known in time; what is left of
    the response is smooth. For g stands the conductance of the highest frequency, so that little is left.
    """
    conductance = (felt / sensed[:, -1] - 1j * OMEGA_RAD_S[-1] * capacity_j_k).real
    conductance = np.maximum(conductance, 1e-3 * capacity_j_k / DAY_S)
    node = 1.0 / (1j * OMEGA_RAD_S[None, :] * capacity_j_k[:, None] + conductance[:, None])
    rest = np.roll(_values(step_response(sensed - felt[:, None] * node, At.THRUST, behind_mass=True)), -1, axis=-1)
    decay = np.exp(-conductance * _STEP_S / capacity_j_k)[:, None]
    alone = decay ** np.arange(1, STEPS_PER_DAY + 1) / (1.0 - decay**STEPS_PER_DAY)
    return np.asarray(rest + (felt * _STEP_S / capacity_j_k)[:, None] * alone)


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


def radiant_kernel(response: Complex, surfaces: Complex, radiant_weight: Array, plant: RadiantPlant) -> Kernel:
    """The same for a watt of a plant of which a share is radiant: the rest goes into the air, where it acts at once.

    Such a plant gives no thrust: faces would take it in without bounds.
    """
    share, weight = plant.share[:, None], radiant_weight[:, None]
    air = response * ((1.0 - share) + share * plant.to_air)
    sensed = (1.0 - weight) * air + weight * (air * surfaces + share * plant.to_surfaces)
    held = Answer(_values(step_response(air)), _values(step_response(sensed, At.END)))
    nothing = np.zeros_like(held.air)
    return Kernel(held, Answer(nothing, nothing), np.zeros(len(share)))


def convolved(response: Array, values: Array) -> Array:
    """Periodic convolution of responses (R, 144) [K/W] with courses (R, M, 144)."""
    product = scipy.fft.rfft(response, axis=-1)[:, None] * scipy.fft.rfft(values, axis=-1)
    return np.asarray(scipy.fft.irfft(product, n=STEPS_PER_DAY, axis=-1))
