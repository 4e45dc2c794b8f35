"""Drawings under the plan: pictures as they are, DXF as lines."""

import io
import struct
from dataclasses import dataclass
from typing import Any

import ezdxf
import orjson
from ezdxf import path as paths
from ezdxf.disassemble import recursive_decompose
from ezdxf.lldxf.const import DXFError

from projects.errors import Refused

LARGEST_BYTES = 20_000_000
LINES = "application/x-pendrum-lines"
_MOST_LINES, _MOST_POINTS = 60_000, 600_000
_FURTHEST = 1e9  # units from the origin
_FINENESS = 0.002  # of an entity's size
_PICTURE_WIDTH_M = 30.0  # until it is scaled
# DXF $INSUNITS to metres; 0 is "no unit", taken for millimetres as architects draw.
_UNITS_M = {0: 0.001, 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1.0, 8: 2.54e-8, 10: 0.9144, 14: 0.1}
_DRAWN = {"LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE"}


@dataclass(frozen=True)
class Drawing:
    """What is kept of a file: bytes to show, its size in units, and metres per unit."""

    media_type: str
    data: bytes
    width: float
    height: float
    m_per_unit: float


def read_drawing(name: str, data: bytes) -> Drawing:
    """Read a picture (PNG, JPEG) or a DXF file.

    Raises:
        Refused: it is neither, too large, or holds nothing that can be drawn.
    """
    if len(data) > LARGEST_BYTES:
        raise Refused("invalid", f"{name} is too large; at most {LARGEST_BYTES / 1e6:.0f} MB are read.")
    size = _png_size(data) or _jpeg_size(data)
    if size is not None:
        width, height = size
        media = "image/png" if data[:4] == b"\x89PNG" else "image/jpeg"
        return Drawing(media, data, width, height, _PICTURE_WIDTH_M / max(width, 1.0))
    if name.lower().endswith(".dxf"):
        return _dxf(name, data)
    raise Refused("invalid", f"{name} is neither a PNG or JPEG picture nor a DXF file.")


def _png_size(data: bytes) -> tuple[float, float] | None:
    if data[:8] != b"\x89PNG\r\n\x1a\n" or len(data) < 24:
        return None
    width, height = struct.unpack(">II", data[16:24])
    return float(width), float(height)


def _jpeg_size(data: bytes) -> tuple[float, float] | None:
    if data[:3] != b"\xff\xd8\xff":
        return None
    at = 2
    while at + 9 < len(data) and data[at] == 0xFF:
        marker, length = data[at + 1], int.from_bytes(data[at + 2 : at + 4], "big")
        if 0xC0 <= marker <= 0xCF and marker not in (0xC4, 0xC8, 0xCC):
            height, width = struct.unpack(">HH", data[at + 5 : at + 9])
            return float(width), float(height)
        at += 2 + length
    return None


def _dxf(name: str, data: bytes) -> Drawing:
    try:
        document = ezdxf.read(io.StringIO(data.decode("utf-8", errors="surrogateescape").replace("\r\n", "\n")))
    except (DXFError, ValueError, KeyError, IndexError) as error:
        raise Refused("invalid", f"{name} cannot be read as DXF: {error}.") from error
    shown = {layer.dxf.name for layer in document.layers if not (layer.is_off() or layer.is_frozen())}
    known = {layer.dxf.name for layer in document.layers}
    lines: list[list[list[float]]] = []
    points = 0
    # Blocks are drawn as what they hold, where they are put.
    for entity in recursive_decompose(document.modelspace()):
        layer = entity.dxf.get("layer", "0")
        if entity.dxftype() not in _DRAWN or (layer in known and layer not in shown) or entity.dxf.get("invisible", 0):
            continue
        line = _flattened(entity)
        if len(line) > 1:
            lines.append(line)
            points += len(line)
        if len(lines) > _MOST_LINES or points > _MOST_POINTS:
            raise Refused(
                "invalid",
                f"{name} has more than {_MOST_LINES} lines or {_MOST_POINTS} points; take out hatches and furniture, or switch "
                "their layers off.",
            )
    if not lines:
        raise Refused("invalid", f"{name} has no lines in its model space.")
    xs, ys = [p[0] for line in lines for p in line], [p[1] for line in lines for p in line]
    left, low = min(xs), min(ys)
    moved = [[[round(x - left, 3), round(y - low, 3)] for x, y in line] for line in lines]
    unit = _UNITS_M.get(int(document.header.get("$INSUNITS", 0)), 0.001)
    return Drawing(LINES, orjson.dumps(moved), max(xs) - left, max(ys) - low, unit)


def _flattened(entity: Any) -> list[list[float]]:
    """Points along an entity; none where it is no line that can be drawn.

    How fine it is follows from its own size, so that no radius asks for more than some hundred points.
    """
    try:
        path = paths.make_path(entity)
        corners = [point for point in path.control_vertices() if point.magnitude < _FURTHEST]
        if len(corners) < len(path.control_vertices()) or len(corners) < 2:
            return []
        size = max(
            max(p.x for p in corners) - min(p.x for p in corners), max(p.y for p in corners) - min(p.y for p in corners)
        )
        return [[round(p.x, 3), round(p.y, 3)] for p in path.flattening(max(size * _FINENESS, 1e-6), segments=4)]
    except (DXFError, ValueError, ZeroDivisionError, OverflowError, TypeError, AttributeError):
        return []


def about(drawing: Any) -> dict[str, Any]:
    """A stored drawing without its bytes."""
    return {
        "level": drawing.level_id, "name": drawing.name, "media_type": drawing.media_type, "width": drawing.width,
        "height": drawing.height, "m_per_unit": drawing.m_per_unit, "x_m": drawing.x_m, "y_m": drawing.y_m,
    }  # fmt: skip
