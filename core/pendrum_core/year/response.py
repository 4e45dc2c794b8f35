"""A room's answers as a few decaying exponentials, fitted to its exact transfers and checked against them.

The transfers are those of the design day's balance: layered walls as they are, faces that exchange heat with the air and with their
area-weighted mean, air and furniture as one node, and leaks as a conductance. Each answer of the air and of the mean surface temperature
to a signal is written as a sum of g/(1 + i w tau) over fixed time constants from two minutes to months, the static answer exact.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from pendrum_core.fabric.layers import Layers, transfer_matrix

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]
STEP_S = 600.0
# Time constants [s]: two minutes to a season, evenly in their logarithm.
TAU_S: Array = np.geomspace(120.0, 8e6, 28)
_OMEGA: Array = np.concatenate([[0.0], np.geomspace(2e-8, np.pi / STEP_S, 150)])
_BETWEEN: Array = np.geomspace(3e-8, np.pi / STEP_S, 97)  # other frequencies, at which the fit is checked
_STATIC_WEIGHT, _FLOOR, _RIDGE = 1e5, 2e-3, 1e-9


@dataclass(frozen=True)
class Wall:
    """A face: area [m2], layers, inside convection [W/m2 K], resistance to its environment (None: adiabatic), signal's number."""

    area_m2: float
    layers: Layers
    convection_w_m2k: float
    outer_m2k_w: float | None
    signal: int


@lru_cache(maxsize=4096)
def _admittance(layers: Layers, outer: float | None, key: str) -> tuple[Complex, Complex]:
    """Across and own at the frequencies of a key [W/m2 K]."""
    m = transfer_matrix(layers, _BETWEEN if key == "between" else _OMEGA)
    if outer is None:
        return np.zeros_like(m.a), m.c / m.d
    a, b = m.a + outer * m.c, m.b + outer * m.d
    return np.exp(-m.log_scale) / b, a / b


@dataclass(frozen=True)
class Transfers:
    """Air and mean surface temperature per unit of each signal, (signals, frequencies): outdoor air first, then environments, a
    watt into the air, a watt of radiant heat onto all faces.
    """

    air: Complex
    surface: Complex


def transfers(
    capacity_j_k: float, walls: Sequence[Wall], signals: int, exchange_w_k: float, radiation_w_m2k: float, key: str = ""
) -> Transfers:
    """Exact transfers; `signals` environments, of which number 0 is the outdoor air that leaks in."""
    omega = _BETWEEN if key == "between" else _OMEGA
    total = sum(wall.area_m2 for wall in walls)
    shape = omega.shape
    alpha, beta, gamma, kept = (np.zeros(shape, dtype=complex) for _ in range(4))
    through, onto = np.zeros((signals, *shape), dtype=complex), np.zeros((signals, *shape), dtype=complex)
    convected = 0.0
    for wall in walls:
        across, own = _admittance(wall.layers, wall.outer_m2k_w, key)
        hc, area = wall.convection_w_m2k, wall.area_m2
        g = 1.0 / (hc + radiation_w_m2k + own)
        alpha += area * radiation_w_m2k * g / total
        beta += area * hc * g
        gamma += area * g / total
        kept += area * hc * hc * g
        convected += area * hc
        through[wall.signal] += area * hc * g * across
        onto[wall.signal] += area * g * across / total
    share = radiation_w_m2k * beta / (1.0 - alpha)
    store = 1j * omega * capacity_j_k + exchange_w_k + convected - kept - share * beta / total
    air = through + share * onto
    air[0] += exchange_w_k
    radiant = (beta + share * gamma) / total
    whole = np.concatenate([air, np.ones((1, *shape)), radiant[None]]) / store
    direct = np.concatenate([onto, np.zeros((1, *shape)), gamma[None] / total])
    surface = (beta / total * whole + direct) / (1.0 - alpha)
    return Transfers(whole, surface)


def _basis(omega: Array) -> Complex:
    return np.asarray(1.0 / (1.0 + 1j * omega[:, None] * TAU_S[None]), dtype=np.complex128)


@dataclass(frozen=True)
class Answers:
    """Weights of the exponentials by signal, (signals, poles), of the air and of the mean surface temperature; what of the latter comes
    at once, (signals,); and the largest error of the fit, relative to the static answer of each signal [-].
    """

    air: Array
    surface: Array
    surface_at_once: Array
    error: float


def _fitted(wanted: Complex, at_once: bool) -> tuple[Array, Array]:
    """Weights (signals, poles) and direct parts (signals,), by least squares of the relative error."""
    basis = _basis(_OMEGA)
    columns = np.concatenate([basis, np.ones((len(_OMEGA), 1))], axis=1) if at_once else basis
    weights, direct = np.zeros((len(wanted), len(TAU_S))), np.zeros(len(wanted))
    for row, target in enumerate(wanted):
        scale = float(np.abs(target).max())
        if scale == 0.0:
            continue
        weight = 1.0 / (np.abs(target) + _FLOOR * scale)
        weight[0] *= _STATIC_WEIGHT
        matrix = columns * weight[:, None]
        right = target * weight
        ridge = _RIDGE * np.eye(columns.shape[1]) * float(np.linalg.norm(matrix[1:]))
        lhs = np.concatenate([matrix.real, matrix.imag, ridge])
        found = np.linalg.lstsq(lhs, np.concatenate([right.real, right.imag, np.zeros(len(ridge))]), rcond=None)[0]
        weights[row] = found[: len(TAU_S)]
        direct[row] = found[-1] if at_once else 0.0
        told = float(found.sum())
        if told:
            # What least squares leave of the static answer, so that weather that never changes is told to the last digit.
            exactly = float(target[0].real) / told
            weights[row] *= exactly
            direct[row] *= exactly
    return weights, direct


@lru_cache(maxsize=8192)
def answers(
    capacity_j_k: float, walls: tuple[Wall, ...], signals: int, exchange_w_k: float, radiation_w_m2k: float
) -> Answers:
    """Fit a room of that air and furniture; the error is taken at frequencies between those of the fit.

    Rooms that are alike, and rooms that did not change since the last year, are fitted once.

    Raises:
        ValueError: the fit is off by more than 0.5 % of a static answer.
    """
    exact = transfers(capacity_j_k, walls, signals, exchange_w_k, radiation_w_m2k)
    between = transfers(capacity_j_k, walls, signals, exchange_w_k, radiation_w_m2k, "between")
    air, _ = _fitted(exact.air, False)
    surface, direct = _fitted(exact.surface, True)
    basis = _basis(_BETWEEN)
    error = 0.0
    for found, wanted, at_once in ((air, between.air, 0.0), (surface, between.surface, direct)):
        off = np.abs(found @ basis.T + np.reshape(at_once, (-1, 1)) - wanted)
        static = np.abs(found.sum(axis=1) + at_once)
        seen = static > 1e-12
        error = max(error, float((off[seen] / static[seen, None]).max(initial=0.0)))
    if error > 5e-3:
        raise ValueError(f"its answers cannot be told by exponentials within 0.5 % ({error:.1%})")
    return Answers(air, surface, direct, error)
