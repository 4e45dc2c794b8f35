"""From a transfer function in frequency to what a linear system does at 10-minute steps.

Inputs are constant within a step and jump at its start. A linear system with frequency response H is then itself a
discrete system; its response is a sum over the bands of frequencies that look alike at steps,

    H_d(k) = sum over m of W(k + 144 m) H(k + 144 m),   k = 0..72,

with the weights (x = n/144)

    sinc²(x)              for averages over the steps,
    sinc(x) exp(iπx)      for the values at their ends, just before the next jump,
    1                     for the values at their starts after a thrust of one step's worth of energy at the first.

Bands beyond |m| = 2 are not calculated: there H has the form a + b (iω)^-1/2 + c (iω)^-1 + d (iω)^-3/2 (faces without
mass, thick layers, lumped masses, and the mixture of the last two), so that the weights of the bands at |m| = 1 and 2
can be chosen to give the whole sum of each of these four exactly. The sums of powers are Hurwitz's zeta function.
"""

from enum import Enum

import numpy as np
import scipy.fft
from numpy.typing import NDArray
from scipy.special import zeta

from pendrum_core.quantities.constants import DAY_S, STEPS_PER_DAY

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]

HARMONICS = STEPS_PER_DAY // 2 + 1
_REACH = 2
FREQUENCIES = np.arange(_REACH * STEPS_PER_DAY + HARMONICS)
OMEGA_RAD_S: Array = np.asarray(2 * np.pi * FREQUENCIES / DAY_S, dtype=np.float64)


class At(Enum):
    """What is wanted of each step: its average, the value at its end, or at its start after a thrust at the first."""

    MEAN = "mean"
    END = "end"
    THRUST = "thrust"


_SHIFTS: Array = np.arange(-_REACH, _REACH + 1, dtype=np.float64)
_FREE = np.array([0, 1, 3, 4])  # bands whose weights are chosen; that of m = 0 is what it is
# Where a mass comes first, as with heat into the air, the form begins at (iω)^-1. What follows a thrust is folded
# without the part that moves at once (room/thermostat/kernel.py): it begins at (iω)^-3/2.
_POWERS = {
    (At.MEAN, False): (0.0, 0.5, 1.0, 1.5),
    (At.END, False): (0.0, 0.5, 1.0, 1.5),
    (At.MEAN, True): (1.0, 1.5, 2.0, 3.0),
    (At.END, True): (1.0, 1.5, 2.0, 3.0),
    (At.THRUST, True): (1.5, 2.0, 2.5, 3.0),
}


def _plain(at: At, x: NDArray[np.floating]) -> Complex:
    """Weights before the far bands are added to them."""
    if at is At.MEAN:
        return np.asarray(np.sinc(x) ** 2, dtype=np.complex128)
    if at is At.END:
        return np.asarray(np.exp(1j * np.pi * x) * np.sinc(x))
    return np.ones(x.shape, dtype=np.complex128)


def _far(at: At, x: float, power: float) -> complex:
    """Sum of weight times (i n/144)^-power over all bands beyond those calculated."""
    above, below = _REACH + 1 + x, _REACH + 1 - x  # of the first far band on either side
    ahead, behind = 1j**-power, (-1j) ** -power
    if at is At.MEAN:
        squared = (np.sin(np.pi * x) / np.pi) ** 2
        return complex(squared * (ahead * zeta(2 + power, above) + behind * zeta(2 + power, below)))
    if at is At.END:
        if power == 0.0:
            # What passes at once passes a jump whole.
            return complex(1.0 - _plain(at, x + _SHIFTS).sum())
        turned = np.exp(1j * np.pi * x) * np.sin(np.pi * x) / np.pi
        return complex(turned * (ahead * zeta(1 + power, above) - behind * zeta(1 + power, below)))
    return complex(ahead * zeta(power, above) + behind * zeta(power, below))


def _weights(at: At, behind_mass: bool) -> Complex:
    """Weights of the bands, (5, 73)."""
    result, form = np.empty((len(_SHIFTS), HARMONICS), dtype=np.complex128), _POWERS[at, behind_mass]
    for k in range(HARMONICS):
        x = k / STEPS_PER_DAY
        bands: Array = x + _SHIFTS
        result[:, k] = _plain(at, bands)
        powers = np.stack([(1j * bands[_FREE]) ** -power for power in form])
        far = np.array([_far(at, x, power) for power in form])
        result[_FREE, k] += np.linalg.solve(powers, far)
    return result


_WEIGHTS = {key: _weights(*key) for key in _POWERS}


def step_response(response: Complex, at: At = At.MEAN, behind_mass: bool = False) -> Complex:
    """Fold a response at `OMEGA_RAD_S` (last axis, 361) into the discrete one (last axis, 73).

    `behind_mass` says that nothing of it comes at once, or with the root of time.
    """
    weights = _WEIGHTS[at, behind_mass]
    total = response[..., :HARMONICS] * weights[_REACH]
    for shift in range(1, _REACH + 1):
        start = shift * STEPS_PER_DAY
        total += response[..., start : start + HARMONICS] * weights[_REACH + shift]
        mirrored = response[..., start - HARMONICS + 1 : start + 1][..., ::-1]
        total += mirrored.conj() * weights[_REACH - shift]
    return np.asarray(total)


def to_harmonics(values: Array) -> Complex:
    """Step averages (last axis 144) to harmonics (last axis 73)."""
    return np.asarray(scipy.fft.rfft(values, axis=-1))


def to_steps(harmonics: Complex) -> Array:
    """Harmonics (last axis 73) to step averages (last axis 144)."""
    return np.asarray(scipy.fft.irfft(harmonics, n=STEPS_PER_DAY, axis=-1))


def spread(harmonics: Complex) -> Complex:
    """Repeat harmonics (last axis 73) over all `OMEGA_RAD_S` (361): a stepped signal's spectrum repeats itself."""
    index = FREQUENCIES % STEPS_PER_DAY
    mirrored = index > STEPS_PER_DAY // 2
    folded = np.where(mirrored, STEPS_PER_DAY - index, index)
    values = harmonics[..., folded]
    return np.asarray(np.where(mirrored, values.conj(), values))
