"""Small faults put into the program one at a time: does a test notice? `python bench/mutants.py [--random 30] [--seed 1] [--only NAME]`

Faults that slipped through once stand by name; the rest are drawn at random, with a seed, from the signs, comparisons and
numbers of the core. Each is put into a copy of the program, and the tests run there until one fails. A fault that nothing
notices is printed with its place: it wants a test, or it changes nothing (say so in docs/proof.md).
"""

import argparse
import ast
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
CORE = "core/pendrum_core"
# What shows and proves rather than computes, and compiled code's own settings.
_OUTSIDE = ("proof/", "working/", "results/units.py", "quantities/compiled.py", "quantities/faults.py")
_CORE_TESTS = ("core.tests.reference", "core.tests.test_properties", "core.tests.test_air_system", "core.tests.test_plant", "core")  # fmt: skip


@dataclass(frozen=True)
class Fault:
    """One fault: where, what stands there, what is put in its place, and the tests that should notice."""

    name: str
    file: str
    old: str
    new: str
    tests: tuple[str, ...] = _CORE_TESTS
    at: int = -1  # position in the file; -1: the one place where the text stands


NAMED = (
    Fault("phase of the ground", f"{CORE}/climate/ground.py", "YEAR_DAYS - reach)", "YEAR_DAYS + reach)"),
    Fault("terrain exponent", f"{CORE}/air/infiltration.py", '"suburb": (0.22,', '"suburb": (0.33,'),
    Fault("fan rise's sign", f"{CORE}/air/parts.py", "PartState(kind, c + rise, w,", "PartState(kind, c - rise, w,"),
    Fault("pipe length in the kit", f"{CORE}/results/kit.py", "2.0 * section.length_m", "section.length_m"),
    Fault("outdoor air of the envelope", f"{CORE}/results/envelope.py", "room.infiltration_m3_s + room.direct", "room.infiltration_m3_s - room.direct"),
    Fault("gas filling", f"{CORE}/fabric/panes.py", "gas, air = GASES[name]", 'gas, air = GASES["air"]'),
    Fault("share of gains in winter", f"{CORE}/room/days/winter.py", "solved.outside.climate.winter_gains_share", "0.0 * solved.outside.climate.winter_gains_share"),
    Fault("people of rooms nobody is in", "server/calculations/inputs/gains.py", "* area if occupied else 0.0", "* area", ("server",)),
    Fault("a pipe with two ends", "server/projects/kinds/water.py", "self.room is not None and self.air_system is not None", "False", ("server",)),
    Fault("another owner's drawing", "server/api/drawings.py", "found = get_object_or_404(LevelDrawing, level=_level(request, project_id, level))\n    media", "found = get_object_or_404(LevelDrawing, level=level)\n    media", ("server",)),
    Fault("dehumidification month", "server/calculations/inputs/climate.py", 'site["dehumidification_month"], site', '(site["dehumidification_month"] or 11) % 12 + 1, site', ("server",)),
)  # fmt: skip

_SWAPS: dict[type[ast.AST], tuple[str, str]] = {
    ast.Add: ("+", "-"), ast.Sub: ("-", "+"), ast.Mult: ("*", "/"), ast.Div: ("/", "*"),
    ast.Lt: ("<", ">="), ast.Gt: (">", "<="), ast.LtE: ("<=", ">"), ast.GtE: (">=", "<"),
}  # fmt: skip


def _places(path: Path) -> Iterator[tuple[int, str, str]]:
    """Every place of a file that can be turned wrong: position, what stands there, what comes in its place."""
    text = path.read_text()
    starts = [0]
    for line in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(line))
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.BinOp | ast.Compare):
            kind = type(node.op) if isinstance(node, ast.BinOp) else type(node.ops[0])
            left = node.left
            right = node.right if isinstance(node, ast.BinOp) else node.comparators[0]
            if kind not in _SWAPS or isinstance(left, ast.JoinedStr | ast.Tuple | ast.List):
                continue
            old, new = _SWAPS[kind]
            begin = starts[(left.end_lineno or 1) - 1] + (left.end_col_offset or 0)
            at = text.find(old, begin, starts[right.lineno - 1] + right.col_offset)
            if at >= 0 and text.isascii():
                yield at, old, new
        elif (
            isinstance(node, ast.Constant)
            and isinstance(node.value, float)
            and node.value not in (0.0, 1.0)
            and text.isascii()
        ):
            at = starts[node.lineno - 1] + node.col_offset
            yield at, text[at : starts[(node.end_lineno or 1) - 1] + (node.end_col_offset or 0)], repr(node.value * 1.1)


def drawn(count: int, seed: int) -> list[Fault]:
    """Faults at random places of the core, none in one file more often than another for its length alone."""
    chance = random.Random(seed)
    files = [
        p
        for p in sorted((ROOT / CORE).rglob("*.py"))
        if not any(str(p.relative_to(ROOT / CORE)).startswith(out) for out in _OUTSIDE)
    ]
    found: list[Fault] = []
    while len(found) < count:
        path = chance.choice(files)
        places = list(_places(path))
        if not places:
            continue
        at, old, new = chance.choice(places)
        line = path.read_text().count("\n", 0, at) + 1
        name = f"{path.relative_to(ROOT / CORE)}:{line} {old} -> {new}"
        if name not in [one.name for one in found]:
            found.append(Fault(name, str(path.relative_to(ROOT)), old, new, at=at))
    return found


def noticed(fault: Fault) -> tuple[bool, str]:
    """Whether a test fails with the fault in place, and which one.

    Raises:
        ValueError: the place of the fault is not there (any more).
    """
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder)
        for part in ("core", "server", "client", "docs"):
            shutil.copytree(ROOT / part, copy / part, ignore=shutil.ignore_patterns("*.egg-info"))
        shutil.copytree(
            ROOT / "web" / "src", copy / "web" / "src"
        )  # what is generated for the browser is held against the server
        for part in ("pyproject.toml", "README.md"):
            shutil.copy(ROOT / part, copy / part)
        (copy / "var").mkdir()
        path = copy / fault.file
        text = path.read_text()
        if fault.at < 0 and text.count(fault.old) != 1:
            raise ValueError(f"{fault.name}: its place is not there once")
        at = fault.at if fault.at >= 0 else text.index(fault.old)
        path.write_text(text[:at] + fault.new + text[at + len(fault.old) :])
        done = subprocess.run(
            [sys.executable, "server/manage.py", "test", "--failfast", *fault.tests],
            cwd=copy, env={"PYTHONPATH": f"{copy / 'core'}:{copy / 'server'}", "PATH": "/usr/bin:/bin"}, capture_output=True, text=True, check=False,
        )  # fmt: skip
        first = [line for line in done.stderr.splitlines() if line.startswith(("FAIL:", "ERROR:"))]
        return done.returncode != 0, first[0] if first else done.stderr.strip()[-120:] if done.returncode else ""


def main() -> None:
    """Put the faults in, two at a time, and tell what was noticed."""
    reading = argparse.ArgumentParser(description=__doc__)
    reading.add_argument("--random", type=int, default=30)
    reading.add_argument("--seed", type=int, default=1)
    reading.add_argument("--only", default="")
    asked = reading.parse_args()
    faults = [*NAMED, *drawn(asked.random, asked.seed)]
    faults = [fault for fault in faults if asked.only in fault.name]
    began, kept = time.monotonic(), 0
    with ThreadPoolExecutor(2) as pool:
        for fault, (seen, by) in zip(faults, pool.map(noticed, faults), strict=True):
            kept += not seen
            print(f"{'noticed  ' if seen else 'SLIPPED  '} {fault.name}   {by}", flush=True)
    share = 1.0 - kept / len(faults)
    print(f"{len(faults) - kept} of {len(faults)} noticed ({share:.0%}) in {time.monotonic() - began:.0f} s")
    sys.exit(share < 0.9)


if __name__ == "__main__":
    main()
