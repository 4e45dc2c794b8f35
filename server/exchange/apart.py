"""Files are read in a process of their own, which can be ended: a file that asks for too much time or memory stops nobody.

The process is forked from a small server of its own (multiprocessing's forkserver) that has the readers loaded, so that
it starts within some hundredths of a second and shares no threads or locks with the one that answers requests.
"""

import importlib
import logging
import math
import multiprocessing
import os
import resource
import signal
import time
from collections.abc import Callable
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any, TypeVar

from projects.errors import Refused

Found = TypeVar("Found")
_log = logging.getLogger("pendrum.files")
_context = multiprocessing.get_context("forkserver")
_context.set_forkserver_preload(["exchange.readers"])
# The process that forks finds the server's packages by this: it starts before any path is handed to it.
_HERE = str(Path(__file__).resolve().parent.parent)
os.environ["PYTHONPATH"] = os.pathsep.join(filter(None, [_HERE, os.environ.get("PYTHONPATH", "")]))

_LOOK_S = 0.2
MEMORY_BYTES = 1_500_000_000
# Processor time of a small file, and more for each megabyte: a large model may take its time.
_SECONDS, _SECONDS_PER_MB, _MOST_SECONDS = 4.0, 0.6, 60.0
_PATIENCE = 8.0  # as much longer by the clock: on a busy machine a reader waits for its turn


def seconds_for(size: int) -> float:
    """Processor time that the reading of a file of a size may take [s]."""
    return min(_MOST_SECONDS, _SECONDS + _SECONDS_PER_MB * size / 1e6)


def read_apart(
    reader: Callable[..., Found], name: str, data: bytes, *more: Any, waiting: Callable[[float], None] | None = None
) -> Found:
    """What `reader(name, data, *more)` gives, worked out apart.

    waiting: called a few times a second with the share of the allowed time that has gone by the clock, at most 1; what it raises
        ends the reading.

    Raises:
        Refused: the reader refuses the file, or cannot make anything of it, or it takes too long or too much memory.
    """
    mine, its = _context.Pipe(duplex=False)
    place = (reader.__module__, reader.__name__)
    allowed = seconds_for(len(data))
    process = _context.Process(target=_work, args=(its, place, allowed, name, data, more), daemon=True)
    process.start()
    its.close()
    begun = time.monotonic()
    too_long = Refused("invalid", f"{name} takes longer than {allowed:.0f} s to read; it was given up.")
    try:
        while not mine.poll(_LOOK_S):
            gone = (time.monotonic() - begun) / allowed
            if gone >= _PATIENCE:
                raise too_long
            if waiting is not None:
                waiting(min(gone, 1.0))
        done, found = mine.recv()
    except EOFError:
        process.join(_LOOK_S)
        if process.exitcode == -signal.SIGXCPU:
            raise too_long from None
        raise Refused(
            "invalid", f"{name} takes more than {MEMORY_BYTES / 1e9:.1f} GB of memory to read; it was given up."
        ) from None
    finally:
        process.kill()
        process.join()
        mine.close()
    if done:
        return found
    raise found


def _taken_bytes() -> int:
    """Address space of this process: libraries reserve far more than they use."""
    try:
        with open("/proc/self/statm") as file:
            return int(file.read().split()[0]) * resource.getpagesize()
    except OSError:
        return 4 * MEMORY_BYTES  # another system than Linux


def _work(
    answer: Connection, place: tuple[str, str], seconds: float, name: str, data: bytes, more: tuple[Any, ...]
) -> None:
    importlib.import_module("exchange.readers")
    reader: Callable[..., Any] = getattr(importlib.import_module(place[0]), place[1])
    most = _taken_bytes() + MEMORY_BYTES
    resource.setrlimit(resource.RLIMIT_AS, (most, most))
    until = math.ceil(time.process_time() + seconds)
    resource.setrlimit(resource.RLIMIT_CPU, (until, until + 1))
    try:
        answer.send((True, reader(name, data, *more)))
    except Refused as error:
        answer.send((False, Refused(error.code, error.sentence, error.faults)))
    except MemoryError:
        return  # nothing can be relied on any more: the other end sees the pipe closed
    except Exception as error:  # a file may hold anything; what it breaks is told, and kept for those who mend it
        _log.warning("%s could not be read", name, exc_info=error)
        what = f"{type(error).__name__}: {error}"[:160]
        answer.send(
            (False, Refused("invalid", f"{name} cannot be read: something in it is not as its form asks ({what})."))
        )
