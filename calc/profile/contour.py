"""Steps as a contour: vertices (z along the axis, r from it) with the arcs between them.

z runs from end A to end B. An arc between two vertices is told by its bulge, the tangent of a
quarter of its angle, above 0 where it turns left on the way: the same as in a DXF polyline.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from calc.errors import FieldProblem
from calc.profile.steps import TurnedStep
from calc.quantities import Figure, Sentence

CLOSE = 1e-9
QUARTER = math.tan(math.pi / 8)  # bulge of a quarter circle
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(12)


@dataclass(frozen=True, slots=True)
class Vertex:
    """A point of a contour [mm], and the bulge of what follows it."""

    z: float
    r: float
    bulge: float = 0.0


Contour = tuple[Vertex, ...]


@dataclass(frozen=True, slots=True)
class Span:
    """A step's place along the axis [mm]: from `start` to `end`, with the step itself and its index."""

    start: float
    end: float
    step: TurnedStep
    index: int

    @property
    def name(self) -> str:
        """What its step is called in a path: its id, or its place where it has none."""
        return self.step.id or str(self.index)


def spans(steps: Sequence[TurnedStep], whole: float | None = None) -> tuple[Span, ...]:
    """Where each step lies from its own end inward; a last step without a length goes on to `whole`."""
    found, z = [], 0.0
    for i, step in enumerate(steps):
        length = step.length_mm if step.length_mm is not None else max(0.0, (whole or 0.0) - z)
        found.append(Span(z, z + length, step, i))
        z += length
    return tuple(found)


def _arc_bulge(span: Span) -> float:
    """Bulge of a step that is an arc: above 0 radius bulges away from the axis."""
    step = span.step
    if step.arc_mm is None:
        return 0.0
    assert step.diameter_mm is not None and step.last_diameter_mm is not None
    chord = math.hypot(span.end - span.start, (step.last_diameter_mm - step.diameter_mm) / 2)
    half = math.asin(min(1.0, chord / (2 * abs(step.arc_mm))))
    # On the way along z a bulge away from the axis turns right.
    return -math.copysign(math.tan(half / 2), step.arc_mm)


@dataclass(frozen=True, slots=True)
class _Corner:
    """What the corner between two steps takes off: `eats` along z and r, and the bulge of its cut."""

    z: float = 0.0
    r: float = 0.0
    bulge: float = 0.0


def _edge(step: TurnedStep, default: float) -> tuple[float, bool]:
    """(size, rounded) of the edge of a step."""
    if step.round_mm is not None:
        return step.round_mm, True
    return (step.chamfer_mm if step.chamfer_mm is not None else default), False


def contour(
    steps: Sequence[TurnedStep], *, outside: bool, whole: float, edge_mm: float = 0.0, opens: bool = True
) -> Contour:
    """The contour of steps from their end inward, with edges and corners.

    Parameters
        steps with diameters, all with lengths but the last of a bore that goes through;
        whole [mm], as far as a bore without a length goes; opens: it comes out there;
        edge_mm [mm] at the part's ends where a step gives no edge
    Returns
        vertices from the first step to the last; a bore that ends inside has no bottom here
    Raises
        FieldProblem at "ID.field": edges and corners that have no room
    """
    found = spans(steps, whole)
    vertices: list[Vertex] = []
    proud = 1.0 if outside else -1.0
    for i, span in enumerate(found):
        step = span.step
        assert step.diameter_mm is not None and step.last_diameter_mm is not None
        before = found[i - 1] if i else None
        after = found[i + 1] if i + 1 < len(found) else None
        r0, r1 = step.diameter_mm / 2, step.last_diameter_mm / 2
        comes_out = outside or (step.length_mm is None and opens)
        start = _corner_of(step, r0, _radius(before, last=True), proud, edge_mm)
        end = _corner_of(step, r1, _radius(after, last=False), proud, edge_mm if comes_out else None)
        room = span.end - span.start
        if start.z + end.z > room * (1 + CLOSE) + CLOSE:
            name = "chamfer_mm" if step.chamfer_mm else "round_mm" if step.round_mm else "corner_mm"
            raise FieldProblem(
                f"{span.name}.{name}",
                Sentence(
                    "Edges and corners do not fit on the {x} of {name}.",
                    name=step.name,
                    x=Figure(room, "mm", exact=True),
                ),
            )
        for edge in (start, end):
            if outside and -edge.r > min(r0, r1) * (1 + CLOSE):
                name = "chamfer_mm" if step.chamfer_mm else "round_mm" if step.round_mm else "chamfer_mm"
                raise FieldProblem(
                    f"{span.name}.{name}",
                    Sentence(
                        "An edge of {x} is larger than the radius of {name}, Ø{d}: give less.",
                        name=step.name,
                        x=Figure(-edge.r, "mm", exact=True),
                        d=Figure(2 * min(r0, r1), "mm", exact=True),
                    ),
                )
        if start.z or start.r:
            vertices.append(Vertex(span.start, r0 + start.r, start.bulge))
        vertices.append(Vertex(span.start + start.z, r0, _arc_bulge(span)))
        vertices.append(Vertex(span.end - end.z, r1, end.bulge))
        if end.z or end.r:
            vertices.append(Vertex(span.end, r1 + end.r))
    _faces_have_room(found, vertices, proud)
    return tuple(_merged(vertices))


def _radius(span: Span | None, *, last: bool) -> float | None:
    if span is None:
        return None
    d = span.step.last_diameter_mm if last else span.step.diameter_mm
    assert d is not None
    return d / 2


def _corner_of(step: TurnedStep, r: float, neighbour: float | None, proud: float, edge_mm: float | None) -> _Corner:
    """What is taken off at one end of a step. `edge_mm` where the part ends here; None: a bore's bottom."""
    if not step.is_plain and not step.thread and not step.groove:
        return _Corner()
    stands = edge_mm is not None if neighbour is None else proud * (r - neighbour) > CLOSE
    if stands:
        size, rounded = _edge(step, edge_mm or 0.0 if neighbour is None else 0.0)
        if size <= 0:
            return _Corner()
        return _Corner(size, -proud * size, -proud * QUARTER if rounded else 0.0)
    if neighbour is not None and proud * (neighbour - r) > CLOSE and step.corner_mm:
        return _Corner(step.corner_mm, proud * step.corner_mm, proud * QUARTER)
    return _Corner()


def _faces_have_room(found: Sequence[Span], vertices: Sequence[Vertex], proud: float) -> None:
    """Refuse edges and corners that meet on the face between two steps."""
    for one, two in itertools.pairwise(found):
        r1, r2 = _radius(one, last=True), _radius(two, last=False)
        assert r1 is not None and r2 is not None
        high, low = (one, two) if proud * (r1 - r2) > 0 else (two, one)
        taken = _edge(high.step, 0.0)[0] + (low.step.corner_mm or 0.0)
        if abs(r1 - r2) > CLOSE and taken > abs(r1 - r2) * (1 + CLOSE) + CLOSE:
            field = "corner_mm" if low.step.corner_mm else "chamfer_mm" if high.step.chamfer_mm else "round_mm"
            owner = low if low.step.corner_mm else high
            words = "The shoulder between {a} and {b} is {x} high: edge and corner do not fit on it."
            raise FieldProblem(
                f"{owner.name}.{field}",
                Sentence(words, a=one.step.name, b=two.step.name, x=Figure(abs(r1 - r2), "mm", exact=True)),
            )


def _merged(vertices: list[Vertex]) -> Iterator[Vertex]:
    """Vertices without those that stand on the one before."""
    last: Vertex | None = None
    for v in vertices:
        if last is not None and abs(v.z - last.z) < CLOSE and abs(v.r - last.r) < CLOSE:
            last = Vertex(last.z, last.r, v.bulge)
            continue
        if last is not None:
            yield last
        last = v
    if last is not None:
        yield last


def points(path: Sequence[Vertex], every_deg: float = 6.0) -> list[tuple[float, float]]:
    """The contour as straight pieces, arcs in steps of about `every_deg`."""
    made: list[tuple[float, float]] = []
    for a, b in itertools.pairwise(path):
        made.append((a.z, a.r))
        if a.bulge:
            turn = 4 * math.atan(a.bulge)
            count = max(2, math.ceil(abs(math.degrees(turn)) / every_deg))
            made += [_on_arc(a, b, k / count) for k in range(1, count)]
    made.append((path[-1].z, path[-1].r))
    return made


def _on_arc(a: Vertex, b: Vertex, t: float) -> tuple[float, float]:
    """The point at the share t of the arc from a to b."""
    turn = 4 * math.atan(a.bulge)
    cz, cr, _ = arc_centre(a, b)
    angle = math.atan2(a.r - cr, a.z - cz) + t * turn
    radius = math.hypot(a.z - cz, a.r - cr)
    return cz + radius * math.cos(angle), cr + radius * math.sin(angle)


def arc_centre(a: Vertex, b: Vertex) -> tuple[float, float, float]:
    """(z, r, radius) [mm] of the circle an arc lies on; the bulge of `a`, not 0, is tan of a quarter of its turn.

    >>> arc_centre(Vertex(0, 0, 1), Vertex(2, 0))  # half a turn
    (1.0, 0.0, 1.0)

    Reference: chord and bulge of DXF polylines.
    """
    k = (1 - a.bulge**2) / (4 * a.bulge)
    dz, dr = b.z - a.z, b.r - a.r
    cz, cr = (a.z + b.z) / 2 - k * dr, (a.r + b.r) / 2 + k * dz
    return cz, cr, math.hypot(a.z - cz, a.r - cr)


def turned_volume(path: Sequence[Vertex]) -> tuple[float, float]:
    """(volume [mm³], first moment about z = 0 [mm⁴]) between a contour and the axis.

    ∫ π r² dz along the contour, by twelve Gauss points a piece: exact on straight pieces, beyond
    double precision on the arcs of edges and corners.

    >>> [round(x, 3) for x in turned_volume((Vertex(0, 1), Vertex(2, 1)))]  # a rod of radius 1, 2 long: 2π, 2π
    [6.283, 6.283]

    Reference: Guldin's solid of revolution; Gauss–Legendre quadrature.
    """
    volume = moment = 0.0
    for a, b in itertools.pairwise(path):
        if a.bulge == 0:
            dz = b.z - a.z
            t = (_NODES + 1) / 2
            z, r = a.z + t * dz, a.r + t * (b.r - a.r)
            rate = np.full_like(t, dz)
        else:
            turn = 4 * math.atan(a.bulge)
            cz, cr, radius = arc_centre(a, b)
            t = (_NODES + 1) / 2
            angle = math.atan2(a.r - cr, a.z - cz) + t * turn
            z, r = cz + radius * np.cos(angle), cr + radius * np.sin(angle)
            rate = -radius * np.sin(angle) * turn
        area = math.pi * r * r * rate * _WEIGHTS / 2
        volume += float(area.sum())
        moment += float((area * z).sum())
    return volume, moment


def mirrored(path: Sequence[Vertex], whole: float) -> Contour:
    """A contour told from the other end, in the z of this one."""
    turned = [Vertex(whole - v.z, v.r) for v in reversed(path)]
    bulges = [v.bulge for v in reversed(path[:-1])]
    # Mirrored and walked backward, an arc turns the same way.
    return tuple(Vertex(v.z, v.r, bulge) for v, bulge in zip(turned, [*bulges, 0.0], strict=True))
