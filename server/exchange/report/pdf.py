"""A report's PDF: its pieces on pages side by side, then bound; with progress, and ended when it is to stop."""

import os
import shutil
import subprocess
import sys
import time
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

from exchange.report.html import fonts, page, pieces
from exchange.report.sheet import Part
from projects.errors import Refused

_LOOK_S, _MOST_S = 0.1, 240.0
_BIND_SHARE = 0.12  # of the time
_SERVER = Path(__file__).resolve().parent.parent.parent


def write_pdf(
    parts: Sequence[Part],
    system: str,
    size: str,
    head: Mapping[str, str],
    folder: Path,
    waiting: Callable[[float], None],
) -> bytes:
    """The PDF of a report, as `html.page` takes it; `waiting` is told the share that is done, and may raise to end it.

    Raises:
        Refused: it takes too long or too much memory.
    """
    work = folder / "press"
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    try:
        (work / "fonts.css").write_text(fonts(), encoding="utf-8")
        (work / "title.txt").write_text(head["title"], encoding="utf-8")
        files = []
        for number, piece in enumerate(pieces(parts)):
            files.append(work / f"piece-{number:04d}.html")
            files[-1].write_text(page(piece, system, size, head, embedded=True), encoding="utf-8")
        presses = min(os.cpu_count() or 1, 4, len(files))
        _run(
            [["pages", *map(str, files[at::presses])] for at in range(presses)],
            lambda: waiting((1.0 - _BIND_SHARE) * len(list(work.glob("piece-*.pdf"))) / len(files)),
        )
        _run([["bind", str(work)]], lambda: waiting(1.0 - _BIND_SHARE / 2.0))
        return (work / "report.pdf").read_bytes()
    finally:
        shutil.rmtree(work, ignore_errors=True)


def _run(commands: Sequence[Sequence[str]], waiting: Callable[[], None]) -> None:
    """Run presses side by side; what `waiting` raises ends all of them."""
    environment = os.environ | {"PYTHONPATH": os.pathsep.join([str(_SERVER), os.environ.get("PYTHONPATH", "")])}
    running = [
        subprocess.Popen(
            [sys.executable, "-m", "exchange.report.press", *command],
            env=environment,
            stderr=subprocess.PIPE,
            text=True,
        )
        for command in commands
    ]
    begun = time.monotonic()
    try:
        while any(process.poll() is None for process in running):
            if any(process.poll() not in (None, 0) for process in running):
                break
            if time.monotonic() - begun > _MOST_S:
                raise Refused(
                    "invalid",
                    f"The PDF takes longer than {_MOST_S:.0f} s; leave the room data sheets out, or ducts and pipes.",
                )
            waiting()
            time.sleep(_LOOK_S)
    finally:
        for process in running:
            if process.poll() is None:
                process.kill()
        said = [process.communicate()[1] for process in running]
    for process, text in zip(running, said, strict=True):
        if process.returncode != 0:
            last = text.strip().splitlines()[-1] if text.strip() else "it was ended"
            raise Refused("invalid", f"The PDF could not be written: {last}.")
