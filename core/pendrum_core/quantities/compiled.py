"""Compiled loops (numba), kept on disk where that can be written."""

from collections.abc import Callable
from typing import Any

from numba import njit

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
