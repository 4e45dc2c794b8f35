"""A report as a page: the same for the preview and for the PDF."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from html import escape
from pathlib import Path
from typing import Any

from django.conf import settings
from django.template.loader import render_to_string

from calculations.units import unit
from exchange.report.sheet import Bars, Measured, Part, Table, text

PAGES = {"A4": "A4 portrait", "A4 wide": "A4 landscape", "A3": "A3 landscape", "Letter": "Letter portrait"}
_SUBSETS = ("latin", "latin-ext")
_WEIGHTS = (400, 600)


def page(parts: Sequence[Part], system: str, size: str, head: Mapping[str, str], embedded: bool) -> str:
    """HTML of a report.

    Args:
        system: "SI" or "IP".
        size: a key of PAGES.
        head: "title", and what stands at the head ("running") and foot ("foot") of every page.
        embedded: whether fonts are named by files, as a PDF needs them.
    """
    quoted = {key: "".join(map(_in_css, value)) for key, value in head.items()}
    return render_to_string(
        "report.html",
        {
            "title": head["title"],
            "running": quoted["running"],
            "foot": quoted["foot"],
            "page": PAGES[size],
            "fonts": fonts(embedded),
            "parts": [_part(part, system) for part in parts],
        },
    )


def _in_css(sign: str) -> str:
    """A sign as it may stand in a style sheet's text, whatever it is."""
    return sign if sign.isascii() and (sign.isalnum() or sign in " .,-") else f"\\{ord(sign):x} "


def fonts(embedded: bool = True) -> str:
    """Rules for the fonts that come with the web interface, by their files or by their addresses."""
    folder: Path = settings.ROOT / "web" / "dist" / "assets"
    wanted = [(weight, subset) for weight in _WEIGHTS for subset in _SUBSETS]
    found = [
        (weight, file)
        for weight, subset in wanted
        for file in sorted(folder.glob(f"ibm-plex-sans-condensed-{subset}-{weight}-normal-*.woff2"))[:1]
    ]
    return "\n".join(
        f'@font-face {{ font-family: "Plex"; font-weight: {weight}; src: url("{_address(file, embedded)}"); }}'
        for weight, file in found
    )


def _address(file: Path, embedded: bool) -> str:
    return file.as_uri() if embedded else f"{settings.STATIC_URL}assets/{file.name}"


def _part(part: Part, system: str) -> dict[str, Any]:
    return {
        "key": part.key,
        "title": part.title,
        "continued": part.continued,
        "blocks": [_block(block, system) for block in part.blocks],
    }


def _block(block: Table | Bars | str, system: str) -> dict[str, Any]:
    if isinstance(block, str):
        return {"text": block}
    if isinstance(block, Bars):
        return _bars(block, system)
    heads = [
        {
            "title": column.title,
            "unit": unit(column.quantity, system) if column.quantity else "",
            "number": bool(column.quantity),
        }
        for column in block.columns
    ]
    # A template loop over tens of thousands of cells takes seconds: the body is put together here.
    body = "".join(
        "<tr>"
        + "".join(
            f'<td class="n">{text(cell, column.quantity, system)}</td>'
            if column.quantity or isinstance(cell, Measured)
            else f"<td>{escape(text(cell, '', system))}</td>"
            for cell, column in zip(row, block.columns, strict=True)
        )
        + "</tr>"
        for row in block.rows
    )
    titled = any(head["title"] for head in heads)
    return {
        "title": block.title,
        "heads": heads if titled else None,
        "body": body,
        "widths": _widths(block, system) if titled else None,
    }


_LINE_SIGNS = 118.0  # that stand in a line of an A4 page, about


def _widths(table: Table, system: str) -> list[float]:
    """Shares of the page's width by what stands in the columns: a print engine that need not look at every cell is twice as fast.

    Figures are never broken: where a line has no room for all, texts give way.
    """
    wanted, fixed = [], []
    sample = table.rows[:: max(1, len(table.rows) // 200)]
    for at, column in enumerate(table.columns):
        cells = [row[at] for row in sample]
        longest = max((len(text(cell, column.quantity, system)) for cell in cells), default=4)
        figures = bool(column.quantity) or any(isinstance(cell, Measured) for cell in cells)
        fixed.append(figures)
        wanted.append(
            max(longest + 2.0, 0.6 * len(column.title) + 1.0, 5.0) if figures else min(max(longest + 1.0, 6.0), 46.0)
        )
    kept = sum(width for width, figures in zip(wanted, fixed, strict=True) if figures)
    texts = sum(wanted) - kept
    room = max(_LINE_SIGNS - kept, 0.25 * _LINE_SIGNS)
    if texts > room:
        wanted = [width if figures else width * room / texts for width, figures in zip(wanted, fixed, strict=True)]
    whole = sum(wanted)
    return [round(100.0 * width / whole, 2) for width in wanted]


_ROWS_A_PIECE = 300


def pieces(parts: Sequence[Part]) -> list[list[Part]]:
    """Parts in pieces of a few hundred rows, so that a long report is put on pages in bounded memory and with progress."""
    found: list[list[Part]] = [[]]
    room = _ROWS_A_PIECE
    for part in parts:
        blocks: list[Table | Bars | str] = []
        continued = False
        for block in part.blocks:
            rows = block.rows if isinstance(block, Table) else []
            at = 0
            while True:
                taken = rows[at : at + room]
                blocks.append(replace(block, rows=taken) if isinstance(block, Table) else block)
                at, room = at + len(taken), room - len(taken) - 1
                if room > 0:
                    break
                found[-1].append(Part(part.key, part.title, blocks, continued))
                found.append([])
                blocks, continued, room = [], True, _ROWS_A_PIECE
                if at >= len(rows):
                    break
        if blocks:
            found[-1].append(Part(part.key, part.title, blocks, continued))
    return [piece for piece in found if piece]


def _bars(block: Bars, system: str) -> dict[str, Any]:
    """Loads above nought to the right of a line, those below to its left, on one scale."""
    below = -sum(min(watts, 0.0) for _, _, watts in block.parts)
    above = sum(max(watts, 0.0) for _, _, watts in block.parts)
    scale = 1000.0 / max(below + above, 1e-9)
    left, right = below * scale, below * scale
    bars = []
    for name, colour, watts in block.parts:
        width = abs(watts) * scale
        if watts < 0:
            left -= width
        bars.append(
            {
                "x": round(left if watts < 0 else right, 2),
                "width": round(width, 2),
                "colour": colour,
                "name": name,
                "text": text(Measured(watts, "load"), "", system),
            }
        )
        if watts >= 0:
            right += width
    told = ", ".join(f"{bar['name']} {bar['text']}" for bar in bars)
    return {"title": block.title, "bars": bars, "nought": round(below * scale, 2), "label": f"{block.title}: {told}"}
