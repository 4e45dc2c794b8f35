"""Sums of transfers times signals, compiled: the one product that every room's every day goes through."""

import numpy as np
from numba import njit
from numpy.typing import NDArray

Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@njit(cache=True, nogil=True)
def _add(to, of, transfer, signals, out):
    for term in range(len(to)):
        row, signal = to[term], of[term]
        for month in range(out.shape[1]):
            for k in range(out.shape[2]):
                out[row, month, k] += transfer[term, k] * signals[signal, month, k]


def summed_products(to: Ints, of: Ints, transfer: Complex, signals: Complex, rows: int) -> Complex:
    """Sum of transfer (J, 73) times signal (U, months, 73) into rows, (rows, months, 73).

    `to` is the row and `of` the signal of each term, (J,).
    """
    out = np.zeros((rows, *signals.shape[1:]), dtype=complex)
    _add(to, of, transfer, signals, out)
    return out
