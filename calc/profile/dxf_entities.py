"""The lines and arcs of a DXF drawing's entities, with their place; what is none is refused by its name."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from typing import Any

from calc.errors import FieldProblem
from calc.profile.chain import FIELD, Segment, place
from calc.quantities import Sentence

SILENT = {"TEXT", "MTEXT", "DIMENSION", "POINT", "HATCH", "LEADER", "MULTILEADER", "VIEWPORT"}
FLAT = 1e-6  # of an extrusion's direction


def refuse(words: str, **parts: Any) -> FieldProblem:
    """The problem at the drawing's text, as a sentence with its parts."""
    return FieldProblem(FIELD, Sentence(words, **parts))


def _polyline(entity: Any, k: float) -> Iterator[Segment]:
    if entity.dxftype() == "LWPOLYLINE":
        points = [(float(p[0]), float(p[1]), float(p[4])) for p in entity.get_points("xyseb")]
        closed = entity.closed
    else:
        if not entity.is_2d_polyline:
            raise refuse("There is a mesh or 3D polyline on this layer: only flat lines, arcs and polylines are read.")
        points = [(v.dxf.location.x, v.dxf.location.y, v.dxf.bulge) for v in entity.vertices]
        closed = entity.is_closed
    pairs = list(itertools.pairwise(points)) + ([(points[-1], points[0])] if closed and len(points) > 1 else [])
    way = _way(entity, k)
    for a, b in pairs:  # seen from behind, x runs the other way and every arc turns the other way
        yield Segment(way * a[0] * k, a[1] * k, way * b[0] * k, b[1] * k, way * a[2])


def _way(entity: Any, k: float) -> float:
    """1 where an entity is drawn as it is seen, −1 where it is mirrored: its extrusion points away. Refused: tilted."""
    x, y, z = entity.dxf.extrusion if entity.dxf.hasattr("extrusion") else (0.0, 0.0, 1.0)
    if abs(x) > FLAT or abs(y) > FLAT or z == 0:
        raise refuse(
            "There is a {kind}{where} that is tilted out of the drawing's plane: draw the profile flat.",
            kind=entity.dxftype(),
            where=_where(entity, k),
        )
    return 1.0 if z > 0 else -1.0


def segments_of(entity: Any, k: float) -> Iterator[Segment]:
    """The lines and arcs [mm] of an entity; `k`: mm of the drawing's unit. Raises FieldProblem for what is none."""
    kind = entity.dxftype()
    if kind == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        yield Segment(a.x * k, a.y * k, b.x * k, b.y * k)
    elif kind == "ARC":
        a, b = entity.start_point, entity.end_point
        turn = math.radians((entity.dxf.end_angle - entity.dxf.start_angle) % 360)
        yield Segment(a.x * k, a.y * k, b.x * k, b.y * k, _way(entity, k) * math.tan(turn / 4))
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        yield from _polyline(entity, k)
    elif kind not in SILENT:
        raise refuse(
            _NOT_READ.get(
                kind,
                "There is a {kind}{where} on this layer: only lines, arcs and polylines are read. Convert it, or put "
                "it on another layer.",
            ),
            kind=kind,
            where=_where(entity, k),
        )


_NOT_READ = {
    "INSERT": "There is a block{where} on this layer: explode it, since only plain lines, arcs and polylines are read.",
    "SPLINE": "There is a spline{where} on this layer: turn it into lines and arcs in the drawing program.",
}


def _where(entity: Any, k: float) -> Sentence | str:
    for name in ("insert", "center", "start", "location"):
        if entity.dxf.hasattr(name):
            p = entity.dxf.get(name)
            return Sentence(" at {p}", p=place(p.x * k, p.y * k))
    if entity.dxftype() == "SPLINE":
        p = next(iter((*entity.fit_points, *entity.control_points)), (0.0, 0.0))
        return Sentence(" at {p}", p=place(p[0] * k, p[1] * k))
    return ""


def layer_of(entity: Any) -> str:
    """The layer of an entity; of a kind that is not known, the one that its tags say."""
    if entity.dxf.hasattr("layer"):
        return str(entity.dxf.layer)
    tags = getattr(entity, "base_class", None)
    found = tags.get_first_value(8, "0") if tags is not None else "0"
    return str(found)
