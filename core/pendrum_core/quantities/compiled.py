"""Compiled loops (numba), kept on disk where that can be written."""

from collections.abc import Callable
from typing import Any

from numba import njit


def compiled(function: Callable[..., Any]) -> Callable[..., Any]:
    """The function compiled, without the interpreter's lock.

    Its compiled form is kept beside the package or in the user's cache folder; where neither can be written (an installation
    that is read-only, a user without a home), every process compiles anew.
    """
    try:
        return njit(cache=True, nogil=True)(function)
    except RuntimeError:
        return njit(nogil=True)(function)
