"""The pace of the garbage collector, and what becomes of freed memory.

A document of 500 rooms is some 100,000 long-lived objects. At Python's default pace a full collection walks all of
them every few edits, which shows as an edit that takes three times as long as its neighbours. And every edit works
with arrays of some megabytes: handed back to the system and asked for again each time, they come as pages that have
to be cleared first, which takes a tenth of the edit.
"""

import ctypes
import gc

_TRIM_THRESHOLD, _TOP_PAD, _MMAP_THRESHOLD = -1, -2, -3  # names of mallopt(3)
_KEPT_BYTES = 512 << 20
_GROWN_BY_BYTES = 64 << 20
_LARGEST_FROM_HEAP_BYTES = 32 << 20


def calm_memory() -> None:
    """Collect the old generation rarely, the young one stays cheap; keep freed memory where the C library can."""
    gc.set_threshold(50_000, 20, 100)
    try:
        mallopt = ctypes.CDLL(None).mallopt
    except (AttributeError, OSError):
        return  # another C library than glibc has other habits
    mallopt(_TRIM_THRESHOLD, _KEPT_BYTES)
    mallopt(_TOP_PAD, _GROWN_BY_BYTES)
    mallopt(_MMAP_THRESHOLD, _LARGEST_FROM_HEAP_BYTES)
