"""Drawings under the plan: pictures as they are, DXF as lines."""

import io
import struct
from dataclasses import dataclass
from typing import Any

import ezdxf
import orjson
from ezdxf import path as paths
from ezdxf.lldxf.const import DXFError

from projects.errors import Refused

LARGEST_BYTES = 20_000_000
LINES = "application/x-pendrum-lines"
_MOST_LINES = 60_000
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
    lines: list[list[list[float]]] = []
    for entity in document.modelspace():
        if entity.dxftype() not in _DRAWN:
            continue
        points = [[round(p.x, 3), round(p.y, 3)] for p in paths.make_path(entity).flattening(20.0, segments=8)]
        if len(points) > 1:
            lines.append(points)
        if len(lines) > _MOST_LINES:
            raise Refused("invalid", f"{name} has more than {_MOST_LINES} lines; take out hatches and furniture.")
    if not lines:
        raise Refused("invalid", f"{name} has no lines in its model space.")
    xs, ys = [p[0] for line in lines for p in line], [p[1] for line in lines for p in line]
    left, low = min(xs), min(ys)
    moved = [[[round(x - left, 3), round(y - low, 3)] for x, y in line] for line in lines]
    unit = _UNITS_M.get(int(document.header.get("$INSUNITS", 0)), 0.001)
    return Drawing(LINES, orjson.dumps(moved), max(xs) - left, max(ys) - low, unit)


def about(drawing: Any) -> dict[str, Any]:
    """A stored drawing without its bytes."""
    return {
        "level": drawing.level_id, "name": drawing.name, "media_type": drawing.media_type, "width": drawing.width,
        "height": drawing.height, "m_per_unit": drawing.m_per_unit, "x_m": drawing.x_m, "y_m": drawing.y_m,
    }  # fmt: skip
