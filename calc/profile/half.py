"""Half-sections as polygons: what a part, its stock and the metal that cuts take look like above the axis.

z [mm] runs from the finished face that is worked toward the held end, r [mm] from the axis outward: what the setter
enters of a cut, its begin and its length, is measured from the same face.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from shapely import LineString, MultiPolygon, Polygon, box
from shapely.geometry.base import BaseGeometry

from calc.profile.body import Body, End
from calc.profile.contour import Span, contour, points
from calc.profile.steps import TurnedStep

Line = list[tuple[float, float]]
NO_LIMITS_MM = 0.1  # on radius, typical: what a size without limits may be short of
FAR_MM = 5000.0  # beyond every lathe
NOTHING_MM2 = 1e-6


def rectangle(z0: float, z1: float, r0: float, r1: float) -> Polygon:
    """The ring between two places and two radii [mm]."""
    return box(z0, r0, z1, r1)


def polygons(shape: BaseGeometry) -> Iterable[Polygon]:
    """The polygons of a shape; lines and points, which have no metal in them, are left out."""
    if isinstance(shape, Polygon):
        return () if shape.is_empty else (shape,)
    if isinstance(shape, MultiPolygon):
        return tuple(shape.geoms)
    return tuple(p for g in getattr(shape, "geoms", ()) for p in polygons(g))


def solid(shape: BaseGeometry) -> BaseGeometry:
    """The shape without the lines that cutting leaves."""
    return MultiPolygon(list(polygons(shape)))


def _slack(step: TurnedStep, outside: bool) -> float:
    """How far [mm on radius] the metal may end short of the nominal size."""
    limits, d = step.limits_mm, step.diameter_mm or 0.0
    if limits is None:
        return NO_LIMITS_MM
    return max(0.0, (d - limits[0]) / 2 if outside else (limits[1] - d) / 2)


def _line(found: Sequence[Span], whole: float, *, outside: bool, least: bool) -> Line:
    """Steps as a line with sharp corners, edges and corner radii left aside; arcs as they are."""
    line: Line = []
    for span in found:
        step = span.step
        slack = _slack(step, outside) * (-1 if outside else 1) if least else 0.0
        r0, r1 = (step.diameter_mm or 0.0) / 2, (step.last_diameter_mm or 0.0) / 2
        if step.arc_mm is None:
            line += [(span.start, r0 + slack), (span.end, r1 + slack)]
            continue
        alone = points(contour([step], outside=outside, whole=whole, edge_mm=0.0))
        line += [(span.start + z, r + slack) for z, r in alone]
    return line


def _below(line: Line) -> Polygon:
    return Polygon([(line[0][0], 0.0), *line, (line[-1][0], 0.0)])


def bores_half(body: Body, worked: End, *, least: bool = False) -> BaseGeometry:
    """The bores with sharp corners; `least`: as large as their limits allow."""
    found = _below_all(body, least)
    return found if worked == "a" else flipped(found, body.length_mm)


def _below_all(body: Body, least: bool) -> BaseGeometry:
    made: BaseGeometry = MultiPolygon()
    whole = body.length_mm
    if body.inside:
        made = _below(_line(body.inside, whole, outside=False, least=least))
    if body.inside_b:
        other = _below(_line(body.inside_b, whole, outside=False, least=least))
        made = made.union(flipped(other, whole))
    return made


def body_half(body: Body, worked: End, *, least: bool = False) -> BaseGeometry:
    """The finished part with sharp corners; `least`: with as little metal as its limits allow."""
    outer = _below(_line(body.outside, body.length_mm, outside=True, least=least))
    part = solid(outer.difference(_below_all(body, least)))
    return part if worked == "a" else flipped(part, body.length_mm)


def flipped(shape: BaseGeometry, whole: float) -> BaseGeometry:
    """The same seen from the other end of a part of this length [mm]."""
    return MultiPolygon(
        [
            Polygon(
                [(whole - z, r) for z, r in p.exterior.coords],
                [[(whole - z, r) for z, r in ring.coords] for ring in p.interiors],
            )
            for p in polygons(shape)
        ]
    )


def between(shape: BaseGeometry, z0: float, z1: float) -> BaseGeometry:
    """What lies between two places along the axis."""
    return solid(shape.intersection(rectangle(z0, z1, 0.0, FAR_MM)))


def radii(shape: BaseGeometry, z0: float, z1: float) -> tuple[float, float] | None:
    """(smallest inner, largest outer) radius [mm] of the metal between two places; None where there is none."""
    found = between(shape, z0, z1)
    if found.is_empty:
        return None
    _, low, _, high = found.bounds
    return low, high


def wall(shape: BaseGeometry, z0: float, z1: float) -> tuple[float, float] | None:
    """(largest inner, smallest outer) radius [mm] between two places: the thinnest ring that is there; None where there
    is none at some place.
    """
    piece = between(shape, z0, z1)
    places = sorted({z0, z1, *(z for p in polygons(piece) for z, _ in p.exterior.coords if z0 < z < z1)})
    inner, outer = 0.0, FAR_MM
    for place in {p for z in places for p in (z - 1e-6, z + 1e-6) if z0 < p < z1}:
        cut = piece.intersection(LineString([(place, 0.0), (place, FAR_MM)]))
        if cut.is_empty:
            return None
        _, low, _, high = cut.bounds
        inner, outer = max(inner, low), min(outer, high)
    return (inner, outer) if outer > inner else None


def thick(shape: BaseGeometry, thickness_mm: float) -> BaseGeometry:
    """What of a shape is thicker than this [mm]: empty where none of it is."""
    return shape.buffer(-thickness_mm / 2, join_style="mitre")
