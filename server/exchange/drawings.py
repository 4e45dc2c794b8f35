"""Drawings under the plan: pictures as they are, DXF as lines."""

import io
import struct
from dataclasses import dataclass, field
from typing import Any

import ezdxf
import ezdxf.filemanagement
import orjson
from ezdxf import path as paths
from ezdxf.disassemble import recursive_decompose
from ezdxf.lldxf.const import DXFError

from projects.errors import Refused

LARGEST_BYTES = 20_000_000
LINES = "application/x-pendrum-lines"
_MOST_LINES, _MOST_POINTS = 60_000, 600_000
_FURTHEST = 1e9  # units from the origin
_LONGEST_LAYER = 255
_FINENESS = 0.002  # of an entity's size
_PICTURE_WIDTH_M = 30.0  # until it is scaled
# DXF $INSUNITS to metres; 0 is "no unit", taken for millimetres as architects draw.
_UNITS_M = {0: 0.001, 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1.0, 8: 2.54e-8, 10: 0.9144, 14: 0.1}
_DRAWN = {"LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE"}


@dataclass(frozen=True)
class Drawing:
    """What is kept of a file: bytes to show, its size in units, metres per unit, layers and those not shown."""

    media_type: str
    data: bytes
    width: float
    height: float
    m_per_unit: float
    layers: list[str] = field(default_factory=list)
    hidden_layers: list[str] = field(default_factory=list)


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
        document = ezdxf.filemanagement.read(
            io.StringIO(data.decode("utf-8", errors="surrogateescape").replace("\r\n", "\n"))
        )
    except (DXFError, ValueError, KeyError, IndexError) as error:
        raise Refused("invalid", f"{name} cannot be read as DXF: {error}.") from error
    off = {layer.dxf.name for layer in document.layers if layer.is_off() or layer.is_frozen()}
    layers, left_out = _by_layer(name, document, off)
    on = [line for layer, lines in layers.items() if layer not in off for line in lines]
    if not on:
        raise Refused("invalid", f"{name} has no lines in its model space on layers that are switched on.")
    xs, ys = [p[0] for line in on for p in line], [p[1] for line in on for p in line]
    left, low = min(xs), min(ys)
    kept = [
        {"layer": layer, "lines": [[[round(x - left, 3), round(y - low, 3)] for x, y in line] for line in lines]}
        for layer, lines in sorted(layers.items())
        if layer not in left_out
    ]
    unit = _UNITS_M.get(int(document.header.get("$INSUNITS", 0)), 0.001)
    hidden = sorted(off & layers.keys() - left_out)
    return Drawing(
        LINES,
        orjson.dumps(kept),
        width=max(xs) - left,
        height=max(ys) - low,
        m_per_unit=unit,
        layers=_named(kept),
        hidden_layers=hidden,
    )


def _by_layer(name: str, document: Any, off: set[str]) -> tuple[dict[str, list[Any]], set[str]]:
    """Lines of each layer, and the layers that are off and too large to be kept.

    Raises:
        Refused: the layers that are on hold more than can be drawn.
    """
    layers: dict[str, list[Any]] = {}
    left_out: set[str] = set()
    counts = {True: [0, 0], False: [0, 0]}
    # Blocks are drawn as what they hold, where they are put.
    for entity in recursive_decompose(document.modelspace()):
        layer = str(entity.dxf.get("layer", "0"))[:_LONGEST_LAYER]
        if entity.dxftype() not in _DRAWN or entity.dxf.get("invisible", 0) or layer in left_out:
            continue
        line = _flattened(entity)
        if len(line) < 2:
            continue
        layers.setdefault(layer, []).append(line)
        count = counts[layer in off]
        count[0] += 1
        count[1] += len(line)
        if count[0] <= _MOST_LINES and count[1] <= _MOST_POINTS:
            continue
        if layer not in off:
            raise Refused(
                "invalid",
                f"{name} has more than {_MOST_LINES} lines or {_MOST_POINTS} points; take out hatches and furniture, or switch "
                "their layers off.",
            )
        left_out.add(layer)
        count[0] -= len(layers[layer])
        count[1] -= sum(map(len, layers[layer]))
    return layers, left_out


def _named(kept: list[dict[str, Any]]) -> list[str]:
    return [part["layer"] for part in kept]


def layers_of(data: bytes, name: str) -> list[str]:
    """Names of the layers of lines that a project's file brings.

    Raises:
        Refused: they are no lines of points by layer, or too many.
    """
    try:
        kept = orjson.loads(data)
        lines = [line for part in kept for line in part["lines"]]
        points = [point for line in lines for point in line]
        good = all(len(p) == 2 and all(type(v) in (int, float) and abs(v) < _FURTHEST for v in p) for p in points)
        good = good and all(isinstance(part["layer"], str) for part in kept)
    except (orjson.JSONDecodeError, TypeError, KeyError):
        good, kept, lines, points = False, [], [], []
    if not good:
        raise Refused("invalid", f"{name}: its lines are not lists of points by layer.")
    if len(lines) > 2 * _MOST_LINES or len(points) > 2 * _MOST_POINTS:
        raise Refused("invalid", f"{name} has more than {_MOST_LINES} lines or {_MOST_POINTS} points.")
    return _named(kept)


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
        "level": drawing.level_id,
        "name": drawing.name,
        "media_type": drawing.media_type,
        "width": drawing.width,
        "height": drawing.height,
        "m_per_unit": drawing.m_per_unit,
        "x_m": drawing.x_m,
        "y_m": drawing.y_m,
        "layers": drawing.layers,
        "hidden_layers": drawing.hidden_layers,
    }
