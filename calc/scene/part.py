"""The part as it stands in the jaws: its section, outline, stock, cuts and dimensions."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.document import Document
from calc.plan.hold import HoldFigures
from calc.plan.part import PartFigures
from calc.plan.planned_cut import PlannedCut
from calc.profile.body import End
from calc.profile.contour import Span, points
from calc.profile.grips import from_end
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Label, Point, Scene, Shape, box_of, rectangle
from calc.threads.designation import designation

EVERYWHERE = ("sides", "hold", "force", "cuts")


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


def placed(part: PartFigures, hold: HoldFigures | None, held: End, start: float) -> Placed:
    """The part in its place."""
    raw = part.face_stock_mm if hold is not None and hold.grip.key.startswith("stock") else 0.0
    return Placed(part, held, start, raw, from_end(part.body.outside, part.length_mm, held))


def _inner(at: Placed) -> list[Point]:
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


def _stock(at: Placed, document: Document, made: set[int], index: int) -> list[Shape]:
    d = document.part.stock.diameter_mm
    if d is None:
        return []
    x0, x1 = at.start, at.right
    if index > 0:
        left = [s for s in at.spans if s.index not in made]
        x0 = at.x(min((s.start for s in left), default=at.part.length_mm))
    inner = (document.part.stock.bore_mm or 0.0) / 2
    return [
        Shape(
            "stock",
            "ghost",
            rectangle(x0, inner, x1, d / 2),
            facts=("stock_diameter",),
            stops=("part", "sides", "hold", "cuts"),
        )
    ]


def part_shapes(at: Placed, document: Document, made: set[int], index: int, *, has_jaws: bool) -> list[Shape]:
    """Section above the axis, outline below it; the outline alone while the jaws are bored."""
    upper = (*at.flip(points(at.part.body.outer)), *reversed(_inner(at)))
    section = Shape("part", "part", upper, facts=("length",), stops=EVERYWHERE)
    ghost = Shape("part-outline", "hidden", upper, stops=("jaws",))
    lower = [
        Shape(
            f"outline-{s.index}",
            "outline",
            (
                (at.x(s.start), 0),
                (at.x(s.start), -_near(s, at.held)),
                (at.x(s.end), -_far(s, at.held)),
                (at.x(s.end), 0),
            ),
            facts=(f"outside_{s.index}",),
        )
        for s in at.spans
    ]
    return [*_stock(at, document, made, index), section, *([ghost] if has_jaws else []), *lower]


def _near(s: Span, held: End) -> float:
    d = s.step.diameter_mm if held == "a" else s.step.last_diameter_mm
    return (d or 0.0) / 2


def _far(s: Span, held: End) -> float:
    d = s.step.last_diameter_mm if held == "a" else s.step.diameter_mm
    return (d or 0.0) / 2


def _region(cut: PlannedCut, at: Placed) -> tuple[Point, ...]:
    """Where a cut takes metal, above the axis."""
    a, b = (cut.from_diameter_mm or 0.0) / 2, (cut.to_diameter_mm or 0.0) / 2
    if cut.kind == "face":
        return rectangle(at.end, min(a, b), at.end + max(at.part.face_stock_mm, cut.depth_mm or 0.0), max(a, b))
    if cut.length_mm is not None or cut.kind == "part":
        near = at.end - cut.start_mm
        long = cut.length_mm if cut.length_mm is not None else cut.width_mm or 3.0
        return rectangle(near - long, min(a, b), near, max(a, b))
    if cut.kind in ("bore", "drill"):
        return rectangle(at.x(0), a, at.end, b)
    fits = [s for s in at.spans if 2 * b >= (s.step.diameter_mm or 0.0) - 1e-9]
    one = max(fits or at.spans[-1:], key=lambda s: (s.step.diameter_mm or 0.0, s.start))
    return rectangle(at.x(one.start), b, at.x(one.end), a)


def part_view(part: PartFigures, document: Document) -> Scene:
    """The finished part alone, end A on the left, with every dimension."""
    at = Placed(part, "a", 0.0, 0.0, from_end(part.body.outside, part.length_mm, "a"))
    body = part.body
    upper = (*at.flip(points(body.outer)), *reversed(_inner(at)))
    shapes = [Shape("part", "part", upper, facts=("length",))]
    for s in at.spans:
        shapes.append(
            Shape(
                f"outline-{s.index}",
                "outline",
                ((s.start, 0), (s.start, -_near(s, "a")), (s.end, -_far(s, "a")), (s.end, 0)),
                facts=(f"outside_{s.index}",),
            )
        )
        if s.step.thread:
            shapes.append(_thread(s))
    d = document.part.stock.diameter_mm
    top = max(d or 0.0, *(s.step.diameter_mm or 0.0 for s in at.spans)) / 2 + 3
    if d is not None:
        face, inner = part.face_stock_mm, (document.part.stock.bore_mm or 0.0) / 2
        shapes.append(
            Shape("stock", "ghost", rectangle(-face, inner, part.length_mm + face, d / 2), facts=("stock_diameter",))
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
                "{n}: Ø{d}, {l} long.",
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
    return Scene(every, dimensions, box_of(every, dimensions), tuple(words), "part", "The part", ("part",), labels)


def _thread(s: Span) -> Shape:
    """A thread's root as a thin line inside its crest."""
    length = s.step.thread_length_mm or s.end - s.start
    r = (s.step.diameter_mm or 0.0) / 2
    named = designation(s.step.thread)
    root = r - 0.6 * (named.pitch_mm if named else 1.0)
    x0, x1 = (s.start, s.start + length) if s.index == 0 else (s.end - length, s.end)
    return Shape(f"thread-{s.index}", "hidden", ((x0, root), (x1, root)), closed=False, facts=(f"outside_{s.index}",))


def cut_shapes(document: Document, at: Placed, index: int) -> list[Shape]:
    """What each cut takes."""
    return [
        Shape(
            f"cut-{i}",
            "cut",
            _region(c, at),
            stops=EVERYWHERE,
            facts=(
                f"tool_{i}",
                *(
                    f"cut_{i}_{n}"
                    for n in (
                        "name",
                        "from_diameter_mm",
                        "to_diameter_mm",
                        "depth_mm",
                        "length_mm",
                        "start_mm",
                        "tangential",
                    )
                ),
            ),
        )
        for i, c in enumerate(document.setups[index].cuts)
        if c.from_diameter_mm is not None
    ]


def cut_dimensions(document: Document, at: Placed, index: int) -> list[Dimension]:
    """From and to of every cut; shown while the fact is pointed at."""
    found = []
    for i, cut in enumerate(document.setups[index].cuts):
        for name, value in (("from_diameter_mm", cut.from_diameter_mm), ("to_diameter_mm", cut.to_diameter_mm)):
            if value:
                fact = f"cut_{i}_{name}"
                found.append(
                    Dimension(
                        fact,
                        fact,
                        (at.end, -value / 2),
                        (at.end, value / 2),
                        at.right - at.end + 34,
                        Figure(value, "mm"),
                        "Ø ",
                        stops=("pointed",),
                    )
                )
    return found


def part_dimensions(document: Document, at: Placed) -> list[Dimension]:
    """Overall length, every step's length and diameter, the bores and the stock: for the part alone."""
    body = at.part.body
    largest = max(_near(s, at.held) for s in at.spans)
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
        r = _near(s, at.held)
        limits = s.step.limits_mm
        places = (3, 4) if limits and 0 < limits[1] - limits[0] < 0.0254 else None
        x = (at.x(s.start) + at.x(s.end)) / 2
        found.append(
            Dimension(
                f"diameter-{s.index}",
                f"outside_{s.index}",
                (x, -r),
                (x, r),
                right - x + room * (row + 1),
                Figure(2 * r, "mm", places=places),
                "Ø ",
            )
        )
        if many:
            found.append(
                Dimension(
                    f"length-{s.index}",
                    f"outside_{s.index}",
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
                    f"{name}-{s.index}",
                    f"{name}_{s.index}",
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
                "Ø ",
                " stock",
                stops=("part",),
            )
        )
    return found


def grip_dimensions(at: Placed, hold: HoldFigures) -> list[Dimension]:
    """The diameter that is gripped, and the part's length, where it stands in the jaws."""
    grip = hold.grip
    r, x = grip.diameter_mm / 2, at.start + (grip.offset_mm + grip.plain_mm) / 2
    fact = "stock_diameter" if grip.key.startswith("stock") else "grip"
    return [
        Dimension(
            "gripped",
            fact,
            (x, -r),
            (x, r),
            at.right - x + 18,
            Figure(2 * r, "mm", places=hold.places),
            "Ø ",
            stops=("sides", "hold"),
        ),
        Dimension(
            "part-length",
            "length",
            (at.x(0), -(r + 14)),
            (at.end, -(r + 14)),
            0,
            Figure(at.part.length_mm, "mm"),
            stops=("sides",),
        ),
    ]
