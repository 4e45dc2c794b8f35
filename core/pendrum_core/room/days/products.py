"""Sums over terms and rooms, compiled: transfers times signals, which every room's every day goes through, and loads."""

import numpy as np
from numpy.typing import NDArray

from pendrum_core.quantities.compiled import compiled

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
Ints = NDArray[np.int64]


@compiled
def _add(to, of, transfer, signals, out):
    for term in range(len(to)):
        row, signal = to[term], of[term]
        for month in range(out.shape[1]):
            for k in range(out.shape[2]):
                out[row, month, k] += transfer[term, k] * signals[signal, month, k]


@compiled
def _add_at(terms, to, transfer, days, of, turn, step, out):
    for index in range(len(terms)):
        term, row, day, at = terms[index], to[index], of[index], step[index]
        value = 0.0
        for k in range(transfer.shape[1]):
            one = transfer[term, k] * days[day, k]
            value += one.real * turn[at, k].real - one.imag * turn[at, k].imag
        out[row] += value


@compiled
def _add_loads(rows, loads, moisture, day_of, load_sum, moisture_sum):
    for row in rows:
        for month in range(loads.shape[1]):
            day = day_of[row, month]
            for step in range(loads.shape[2]):
                load_sum[month, step] += max(loads[row, month, step], 0.0)
                moisture_sum[month, step] += moisture[row, day, step]


def add_loads(rows: Ints, loads: Array, moisture: Array, day_of: Ints, load_sum: Array, moisture_sum: Array) -> None:
    """Add what some rooms ask of their plant, negative loads as zero, and their moisture.

    `loads` (rooms, months, 144), `moisture` (rooms, different days, 144) with `day_of` (rooms, months) the day of each
    month; the sums are (months, 144).
    """
    _add_loads(rows, loads, moisture, day_of, load_sum, moisture_sum)


def add_products_at(
    terms: Ints, to: Ints, transfer: Complex, days: Complex, of: Ints, turn: Complex, step: Ints, out: Array
) -> None:
    """Add the real part of transfer times day times turn, summed over the harmonics, to `out`.

    For each of `terms` (J,): the row of `out`, the day (D, 73) and the step, whose weights are `turn` (144, 73).
    """
    _add_at(terms, to, transfer, days, of, turn, step, out)


def summed_products(to: Ints, of: Ints, transfer: Complex, signals: Complex, rows: int) -> Complex:
    """Sum of transfer (J, 73) times signal (U, months, 73) into rows, (rows, months, 73).

    `to` is the row and `of` the signal of each term, (J,).
    """
    out = np.zeros((rows, *signals.shape[1:]), dtype=complex)
    _add(to, of, transfer, signals, out)
    return out
