"""Every public function of the core says what it gives, in which unit, and where its formula is from."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path
from unittest import TestCase

import pendrum_core

ROOT = Path(pendrum_core.__file__).parent
# A unit in brackets or in words, or at the end of the name.
UNIT = re.compile(r"\[[^\]]+\]|°C|\bW\b|\bPa\b|kg/|m³|m²|\bK\b|\bm\b|\bJ\b|W/|\bshares?\b|\bs\b|\bh\b|degrees|kWh")
NAMED = re.compile(
    r"_(w|c|pa|m|m2|m3_s|kg_s|k|j_kg|j_kgk|ratio|w_m2|w_m2k|w_k|wk|deg|rad|kwh|kg_m3|m_s|h|share|steps?)$"
)
# A published rule, or a statement that there is none to be published.
SOURCE = re.compile(
    r"Source|EN \d|EN ISO|ISO \d|ASHRAE|CIBSE|IAPWS|[Hh]andbook|62\.1|methods/|[Bb]alance|\b(1[89]|20)\d\d\b|by definition"
)
NUMBERS = ("float", "ndarray", "NDArray", "Array")


def public() -> Iterator[tuple[str, ast.FunctionDef, str, str]]:
    """Place, function, its docstring, and the docstrings of its module and package."""
    for path in sorted(ROOT.rglob("*.py")):
        tree = ast.parse(path.read_text())
        package = path.parent / "__init__.py"
        around = (ast.get_docstring(tree) or "") + (ast.get_docstring(ast.parse(package.read_text())) or "")
        for node in tree.body:
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
                yield f"{path.relative_to(ROOT)} {node.name}", node, ast.get_docstring(node) or "", around


def gives_numbers(node: ast.FunctionDef) -> bool:
    return node.returns is not None and any(name in ast.unparse(node.returns) for name in NUMBERS)


class Docstrings(TestCase):
    def test_all_have_one(self) -> None:
        found = list(public())
        self.assertGreater(len(found), 300)
        self.assertEqual([place for place, _, said, _ in found if not said], [])

    def test_figures_have_units(self) -> None:
        without = [
            place for place, node, said, _ in public()
            if gives_numbers(node) and not UNIT.search(said) and not NAMED.search(node.name)
        ]  # fmt: skip
        self.assertEqual(without, [])

    def test_figures_have_sources(self) -> None:
        without = [
            place for place, node, said, around in public()
            if gives_numbers(node) and not SOURCE.search(said + around)
        ]  # fmt: skip
        self.assertEqual(without, [])

    def test_what_is_raised_is_said(self) -> None:
        """A function that refuses an argument says so."""
        unsaid = []
        for place, node, said, _ in public():
            own = (n for n in ast.walk(node) if isinstance(n, ast.Raise) and n.exc is not None)
            if any("Raises" not in said and "raise" not in said.lower() for _ in own):
                unsaid.append(place)
        self.assertEqual(unsaid, [])
