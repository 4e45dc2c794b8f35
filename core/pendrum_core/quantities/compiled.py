"""Compiled loops (numba), kept on disk where that can be written."""

from collections.abc import Callable
from typing import Any

import numpy as np
from numba import njit
from numpy.typing import ArrayLike, NDArray

# Sums may be taken in any order, so that several are taken at once; infinities and NaN keep their meaning.
_REORDERED = {"reassoc", "contract", "arcp", "nsz"}


def compiled(function: Callable[..., Any]) -> Callable[..., Any]:
    """The function compiled, without the interpreter's lock.

    Its compiled form is kept beside the package or in the user's cache folder; where neither can be written (an installation
    that is read-only, a user without a home), every process compiles anew.
    """
    return _compiled(function, False)


def compiled_sums(function: Callable[..., Any]) -> Callable[..., Any]:
    """As `compiled`, for long sums whose last digit may depend on their order."""
    return _compiled(function, _REORDERED)


def _compiled(function: Callable[..., Any], fastmath: bool | set[str]) -> Callable[..., Any]:
    try:
        return njit(cache=True, nogil=True, fastmath=fastmath)(function)
    except RuntimeError:
        return njit(nogil=True, fastmath=fastmath)(function)


def block(values: ArrayLike, shape: tuple[int, ...]) -> NDArray[np.float64]:
    """Values of that shape in one block that can be written, as one compiled form takes all of them, whatever they measure [any unit];
    copied where they are not.

    Source: by definition.
    """
    found = np.asarray(values, dtype=np.float64)
    if found.shape == shape and found.flags.c_contiguous and found.flags.writeable:
        return found
    return np.array(np.broadcast_to(found, shape), order="C")
