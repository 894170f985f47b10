"""The part drawn alone, and what of it every picture needs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

from calc.plan.document import Document
from calc.plan.part.solve import PART, PartFigures
from calc.plan.stop_kind import Drawing
from calc.plan.view import View
from calc.profile.body import End
from calc.profile.contour import Span, points
from calc.profile.grips import from_end
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Label, Point, Scene, Shape, box_of, rectangle
from calc.threads.designation import designation


@dataclass(frozen=True)
class Placed:
    """Where the part stands: its held end at `start` [mm along the spindle], seen from that end."""

    part: PartFigures
    held: End
    start: float
    raw: float  # stock still on the held end
    spans: tuple[Span, ...]

    @property
    def end(self) -> float:
        """Its worked end, finished."""
        return self.start + self.raw + self.part.length_mm

    @property
    def right(self) -> float:
        """Its worked end with the stock on it."""
        return self.end + self.part.face_stock_mm

    def x(self, u: float) -> float:
        """A length from the finished held end, along the spindle."""
        return self.start + self.raw + u

    def flip(self, line: list[Point]) -> list[Point]:
        """A contour in z of the profile as points along the spindle, from the held end."""
        whole = self.part.length_mm
        if self.held == "a":
            return [(self.x(z), r) for z, r in line]
        return [(self.x(whole - z), r) for z, r in reversed(line)]


def inner(at: Placed) -> list[Point]:
    """The bores' wall from the held end to the worked one; on the axis where it is solid."""
    line: list[Point] = []
    for bore in sorted((at.flip(points(b)) for b in at.part.body.bores), key=lambda b: b[0][0]):
        x0, x1 = bore[0][0], bore[-1][0]
        if not line and x0 > at.x(0) + 1e-6:
            line += [(at.x(0), 0.0), (x0, 0.0)]
        elif line and x0 > line[-1][0] + 1e-6:
            line += [(line[-1][0], 0.0), (x0, 0.0)]
        line += bore
        if x1 < at.end - 1e-6:
            line.append((x1, 0.0))
    if not line:
        return [(at.x(0), 0.0), (at.end, 0.0)]
    if line[-1][0] < at.end - 1e-6:
        line += [(line[-1][0], 0.0)] * (line[-1][1] > 0) + [(at.end, 0.0)]
    return line


def near(s: Span, held: End) -> float:
    """Radius [mm] of a step at its end that is nearer the held one."""
    d = s.step.diameter_mm if held == "a" else s.step.last_diameter_mm
    return (d or 0.0) / 2


def far(s: Span, held: End) -> float:
    """Radius [mm] of a step at its end that is away from the held one."""
    d = s.step.last_diameter_mm if held == "a" else s.step.diameter_mm
    return (d or 0.0) / 2


def drawings(view: View) -> Iterator[Drawing]:
    """The finished part alone: what the plan begins with."""
    part = view[PART]
    if part is not None:
        yield Drawing("part", "The part", ("part",), partial(_alone, view.document, part), first=True)


def _alone(document: Document, part: PartFigures) -> Scene:
    """The finished part, end A on the left, with every dimension."""
    at = Placed(part, "a", 0.0, 0.0, from_end(part.body.outside, part.length_mm, "a"))
    body = part.body
    upper = (*at.flip(points(body.outer)), *reversed(inner(at)))
    shapes = [Shape("part", "part", upper, facts=("length",))]
    for s in at.spans:
        shapes.append(
            Shape(
                f"outline-{s.name}",
                "outline",
                ((s.start, 0), (s.start, -near(s, "a")), (s.end, -far(s, "a")), (s.end, 0)),
                facts=(f"step_{s.name}",),
            )
        )
        if s.step.thread:
            shapes.append(_thread(s))
    d = document.part.stock.diameter_mm
    top = max(d or 0.0, *(s.step.diameter_mm or 0.0 for s in at.spans)) / 2 + 3
    if d is not None:
        face, hollow = part.face_stock_mm, (document.part.stock.bore_mm or 0.0) / 2
        shapes.append(
            Shape("stock", "ghost", rectangle(-face, hollow, part.length_mm + face, d / 2), facts=("stock_diameter",))
        )
    shapes.append(Shape("axis", "axis", ((-12, 0), (part.length_mm + 12, 0)), closed=False))
    dimensions = tuple(part_dimensions(document, at))
    labels = (
        Label((-part.face_stock_mm, top), Sentence("end A"), anchor="end"),
        Label((part.length_mm + part.face_stock_mm, top), Sentence("end B")),
    )
    words = [Sentence("The part, end A on the left, is {l} long.", l=Figure(part.length_mm, "mm"))]
    for s in at.spans:
        words.append(
            Sentence(
                "{n}: {d} across flats, {l} long." if s.step.flats else "{n}: Ø{d}, {l} long.",
                n=s.step.name,
                d=Figure(s.step.diameter_mm or 0, "mm", exact=True, places=(2, 3)),
                l=Figure(s.end - s.start, "mm", exact=True, places=(2, 3)),
            )
        )
    for s in (*body.inside, *body.inside_b):
        words.append(
            Sentence(
                "{n}: bored Ø{d}.", n=s.step.name, d=Figure(s.step.diameter_mm or 0, "mm", exact=True, places=(2, 3))
            )
        )
    every = tuple(shapes)
    return Scene(every, dimensions, box_of(every, dimensions), tuple(words), labels)


def _thread(s: Span) -> Shape:
    """A thread's root as a thin line inside its crest."""
    length = s.step.thread_length_mm or s.end - s.start
    r = (s.step.diameter_mm or 0.0) / 2
    named = designation(s.step.thread)
    root = r - 0.6 * (named.pitch_mm if named else 1.0)
    x0, x1 = (s.start, s.start + length) if s.index == 0 else (s.end - length, s.end)
    return Shape(f"thread-{s.name}", "hidden", ((x0, root), (x1, root)), closed=False, facts=(f"step_{s.name}",))


def part_dimensions(document: Document, at: Placed) -> list[Dimension]:
    """Overall length, every step's length and diameter, the bores and the stock: for the part alone."""
    body = at.part.body
    largest = max(near(s, at.held) for s in at.spans)
    reach = max(largest, (document.part.stock.diameter_mm or 0.0) / 2)
    below, right = -(reach + 8), at.right
    many = len(at.spans) > 1
    room = max(9.0, body.length_mm * 0.14)
    found = [
        Dimension(
            "length", "length", (at.x(0), below), (at.end, below), -room if many else 0, Figure(body.length_mm, "mm")
        )
    ]
    for row, s in enumerate(at.spans):
        r = near(s, at.held)
        limits = s.step.limits_mm
        places = (3, 4) if limits and 0 < limits[1] - limits[0] < 0.0254 else None
        x = (at.x(s.start) + at.x(s.end)) / 2
        found.append(
            Dimension(
                f"diameter-{s.name}",
                f"step_{s.name}",
                (x, -r),
                (x, r),
                right - x + room * (row + 1),
                Figure(2 * r, "mm", places=places),
                "" if s.step.flats else "Ø ",
                " flats" if s.step.flats else "",
            )
        )
        if many:
            found.append(
                Dimension(
                    f"length-{s.name}",
                    f"step_{s.name}",
                    (at.x(s.start), below),
                    (at.x(s.end), below),
                    0,
                    Figure(s.end - s.start, "mm"),
                )
            )
    for name, steps, end in (("inside", body.inside, "a"), ("inside_b", body.inside_b, "b")):
        for row, s in enumerate(steps):
            b = (s.step.diameter_mm or 0.0) / 2
            mouth, off = (at.x(0), -room * (row + 1)) if end == "a" else (at.end, room * (row + 0.5))
            found.append(
                Dimension(
                    f"{name}-{s.name}",
                    f"step_{s.name}",
                    (mouth, -b),
                    (mouth, b),
                    off,
                    Figure(2 * b, "mm"),
                    "Ø ",
                    " bore",
                )
            )
    d = document.part.stock.diameter_mm
    if d is not None:
        found.append(
            Dimension(
                "stock",
                "stock_diameter",
                (right, -d / 2),
                (right, d / 2),
                room * (len(at.spans) + 1),
                Figure(d, "mm"),
                "" if document.part.stock.flats else "Ø ",
                " stock",
                stops=("part",),
            )
        )
    return found
