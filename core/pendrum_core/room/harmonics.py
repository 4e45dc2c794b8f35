"""From a transfer function in frequency to exact step averages.

Inputs are constant within a step and jump at its start; outputs are wanted as averages over a step. For a linear
system with frequency response H this is itself a discrete system, with the response

    H_d(k) = sum over m of H(k + 144 m) sinc²((k + 144 m)/144),   k = 0..72.

Hold and average each contribute one sinc, their phases cancel. The weights over all m sum to one; the sum is cut
at |m| = 2 and the weights rescaled, so that a system without memory passes a jump exactly (no ringing).
"""

import numpy as np
import scipy.fft
from numpy.typing import NDArray

from pendrum_core.quantities.constants import DAY_S, STEPS_PER_DAY

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]

HARMONICS = STEPS_PER_DAY // 2 + 1
_REACH = 2
FREQUENCIES = np.arange(_REACH * STEPS_PER_DAY + HARMONICS)
OMEGA_RAD_S: Array = np.asarray(2 * np.pi * FREQUENCIES / DAY_S, dtype=np.float64)


def _weights() -> Array:
    k = np.arange(HARMONICS)
    shifts = np.arange(-_REACH, _REACH + 1)
    raw = np.sinc((k[None, :] + STEPS_PER_DAY * shifts[:, None]) / STEPS_PER_DAY) ** 2
    return np.asarray(raw / raw.sum(axis=0))


_WEIGHTS = _weights()


def step_response(response: Complex) -> Complex:
    """Fold a response at `OMEGA_RAD_S` (last axis, 361) into the discrete one (last axis, 73)."""
    total = response[..., :HARMONICS] * _WEIGHTS[_REACH]
    for shift in range(1, _REACH + 1):
        start = shift * STEPS_PER_DAY
        total += response[..., start : start + HARMONICS] * _WEIGHTS[_REACH + shift]
        mirrored = response[..., start - HARMONICS + 1 : start + 1][..., ::-1]
        total += mirrored.conj() * _WEIGHTS[_REACH - shift]
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
