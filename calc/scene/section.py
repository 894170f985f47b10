"""The half-section of chuck, jaws and part: above the axis cut open, below it the outline."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

from calc.plan.cuts import CutsFigures
from calc.plan.document import Document, OutsideStep, PlannedCut
from calc.plan.hold import HoldFigures
from calc.plan.part import PartFigures
from calc.plan.solve import Figures
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Point, Scene, Shape, box_of, mirrored, rectangle

CHUCK_SHOWN_MM = 46.0
BORING = ("jaws",)  # while the jaws are bored the part is not in them yet


@dataclass(frozen=True)
class Stations:
    """Where things stand along the axis [mm]."""

    guide: float
    base: float
    top: float
    floor: float
    part: float
    end: float


def _stations(hold: HoldFigures | None, part: PartFigures, seat: str) -> Stations:
    if hold is None:
        return Stations(0, 0, 0, 0, 0, part.length_mm)
    guide = hold.chuck.body_length_mm
    base = guide + hold.chuck.guide_to_jaw_base_mm
    top = base + hold.jaw_height_mm
    floor = top - hold.pocket.bore_depth_mm
    start = top - part.plain_length_mm if seat == "face" else floor
    return Stations(guide, base, top, floor, start, start + part.length_mm)


def _broken(x: float, high: float, low: float) -> tuple[Point, ...]:
    """A break line from `high` down to `low`: the chuck goes on behind it."""
    bends = 6
    step = (high - low) / bends
    return tuple((x + (1.6 if i % 2 else -1.6), high - i * step) for i in range(bends + 1))


def _chuck_and_jaw(hold: HoldFigures, at: Stations, largest: float) -> list[Shape]:
    blank, pocket, chuck = hold.blank, hold.pocket, hold.chuck
    body = chuck.body_diameter_mm / 2
    face, out = blank.face_radius_mm, blank.face_radius_mm + blank.length_mm
    bored = pocket.bore_diameter_mm / 2
    groove_r, groove_x = bored + pocket.groove_depth_mm, at.floor + pocket.groove_width_mm
    jaw: tuple[Point, ...] = (
        (at.base, face), (at.floor, face), (at.floor, groove_r), (groove_x, groove_r), (groove_x, bored),
        (at.top, bored), (at.top, out), (at.base, out),
    )  # fmt: skip
    master = rectangle(at.guide, face + 4, at.base, min(body, out - 2))
    thread = float((re.search(r"\d+", chuck.bolt_size) or [12.0])[0])
    middle = face + blank.length_mm * 0.62
    head = at.base + blank.bolt_head_mm
    back = max(0.0, at.guide - CHUCK_SHOWN_MM)
    below = max(pocket.bore_diameter_mm / 2, largest) + 12
    shapes = [
        Shape("chuck", "chuck", ((at.guide, 0), (at.guide, body), *_broken(back, body, 0))),
        Shape("chuck-below", "chuck", ((at.guide, 0), *_broken(back, 0, -below), (at.guide, -below))),
        Shape("master", "master", master),
        Shape("jaw", "jaw", jaw, facts=("jaw_height", "jaw_mass")),
        Shape("bolt-hole", "hole", rectangle(head, middle - thread * 0.8, at.top, middle + thread * 0.8)),
        Shape("bolt-head", "bolt", rectangle(head - thread, middle - thread * 0.75, head, middle + thread * 0.75)),
        Shape("bolt", "bolt", rectangle(at.base, middle - thread / 2, head - thread, middle + thread / 2)),
        Shape("jaw-behind", "hidden", mirrored(rectangle(at.base, face * 0.5, at.top, min(out * 0.5 + 6, below)))),
    ]
    if bored > face:
        shapes.append(
            Shape("metal-to-bore", "removed", rectangle(at.floor, face, at.top, bored),
                  facts=("bore_diameter", "depth"), stops=BORING)
        )  # fmt: skip
    return shapes


def _step_edges(steps: tuple[OutsideStep, ...], start: float) -> list[tuple[float, float, OutsideStep]]:
    edges, x = [], start
    for step in steps:
        edges.append((x, x + (step.length_mm or 0.0), step))
        x += step.length_mm or 0.0
    return edges


def _part(document: Document, part: PartFigures, at: Stations, has_jaws: bool) -> list[Shape]:
    inner = part.bore_mm / 2
    upper: list[Point] = [(at.part, inner)]
    lower: list[Shape] = []
    edges = _step_edges(document.part.profile.outside, at.part)
    for i, (x0, x1, step) in enumerate(edges):
        r = (step.diameter_mm or 0.0) / 2
        edge = min(part.edge_mm, r - inner, x1 - x0) if i == 0 else 0.0
        upper += [(x0, r - edge), (x0 + edge, r), (x1, r)] if edge > 0 else [(x0, r), (x1, r)]
        lower.append(Shape(f"outline-{i}", "outline", rectangle(x0, -r, x1, 0), facts=(f"outside_{i}_diameter",)))
    upper.append((at.end, inner))
    section = Shape("part", "part", tuple(upper), facts=("length",), stops=("part", "hold", "force", "cuts"))
    ghost = Shape("part-outline", "hidden", tuple(upper), stops=BORING)
    return [section, *([ghost] if has_jaws else []), *lower]


def _region(cut: PlannedCut, document: Document, part: PartFigures, at: Stations) -> tuple[Point, ...]:
    """Where a cut takes metal, above the axis."""
    a, b = (cut.from_diameter_mm or 0.0) / 2, (cut.to_diameter_mm or 0.0) / 2
    if cut.kind == "face":
        return rectangle(at.end, min(a, b), at.end + max(part.face_stock_mm, cut.depth_mm or 0.0), max(a, b))
    if cut.kind == "bore":
        return rectangle(at.part, a, at.end, b)
    edges = _step_edges(document.part.profile.outside, at.part)
    fits = [e for e in edges if 2 * b >= (e[2].diameter_mm or 0.0) - 1e-9]
    x0, x1, _ = max(fits or edges[-1:], key=lambda e: e[2].diameter_mm or 0.0)
    return rectangle(x0, b, x1, a)


def _cuts(document: Document, part: PartFigures, cuts: CutsFigures, at: Stations, index: int) -> list[Shape]:
    return [
        Shape(f"cut-{i}", "cut", _region(c, document, part, at), stops=("part", "hold", "force", "cuts"),
              facts=tuple(f"cut_{i}_{n}" for n in ("from_diameter_mm", "to_diameter_mm", "depth_mm", "tangential")))
        for i, c in enumerate(document.setups[index].cuts) if c.from_diameter_mm is not None
    ]  # fmt: skip


def _centre(part: PartFigures, at: Stations) -> Shape:
    mouth = max(part.bore_mm / 2, 3.0)
    end = at.end + part.face_stock_mm
    reach = mouth / math.tan(math.radians(30))
    wide = mouth * 1.35
    back = end + (wide - mouth) / math.tan(math.radians(30))
    points = ((end - reach, 0.0), (back, wide), (back + 22, wide), (back + 22, -wide), (back, -wide))
    return Shape("live-centre", "centre", points, facts=("live_centre",))


def _part_dimensions(document: Document, part: PartFigures, at: Stations) -> list[Dimension]:
    edges = _step_edges(document.part.profile.outside, at.part)
    right = at.end + part.face_stock_mm
    largest = max((s.diameter_mm or 0.0) for s in document.part.profile.outside) / 2
    below = -(largest + 10)
    found = [
        Dimension("length", "length", (at.part, below), (at.end, below), 0 if len(edges) == 1 else -14,
                  Figure(part.length_mm, "mm"), stops=("part",)),
    ]  # fmt: skip
    for i, (x0, x1, step) in enumerate(edges):
        r = (step.diameter_mm or 0.0) / 2
        every = ("part", "hold", "jaws") if i == 0 else ("part", "cuts")
        x = (x0 + x1) / 2 if i == 0 else x1
        found.append(
            Dimension(f"diameter-{i}", f"outside_{i}_diameter" if i else "outside_0_diameter", (x, -r), (x, r),
                      right - x + 18 + 16 * i, Figure(2 * r, "mm", places=part.places if i == 0 else None), "Ø ",
                      stops=every)
        )  # fmt: skip
        if len(edges) > 1:
            found.append(
                Dimension(f"length-{i}", f"outside_{i}_length", (x0, below), (x1, below), 0, Figure(x1 - x0, "mm"),
                          stops=("part",))
            )  # fmt: skip
        if step.stock_diameter_mm:
            s = step.stock_diameter_mm / 2
            found.append(
                Dimension(f"stock-{i}", f"outside_{i}_stock", (x1, -s), (x1, s), right - x1 + 18 + 16 * (i + 1),
                          Figure(2 * s, "mm"), "Ø ", " stock", stops=("part",))
            )  # fmt: skip
    if part.bore_mm > 0:
        b = part.bore_mm / 2
        found.append(Dimension("bore", "bore", (at.end, -b), (at.end, b), right - at.end + 6, Figure(2 * b, "mm"), "Ø ",
                               " bore", stops=("part",)))  # fmt: skip
    return found


def _jaw_dimensions(hold: HoldFigures, part: PartFigures, at: Stations) -> list[Dimension]:
    blank, pocket = hold.blank, hold.pocket
    out = blank.face_radius_mm + blank.length_mm
    line = out + 8
    middle = at.top - hold.held_mm / 2
    heads = at.base + blank.bolt_head_mm
    return [
        Dimension("depth", "depth", (at.floor, line), (at.top, line), 0, Figure(pocket.bore_depth_mm, "mm"), "", " deep",
                  stops=("hold", "jaws")),
        Dimension("floor", "floor", (heads, line), (at.floor, line), 0, Figure(pocket.floor_mm, "mm", "down"), "",
                  " floor", stops=("jaws",), outside="before"),
        Dimension("jaw-height", "jaw_height", (at.base, line), (at.top, line), 14, Figure(hold.jaw_height_mm, "mm"), "",
                  " jaw", stops=("hold",)),
        Dimension("grip-height", "grip_height", (at.guide, line), (middle, line), 28,
                  Figure(hold.grip_height_mm, "mm", "up"), "", " to grip", stops=("hold", "force")),
        Dimension("bore-jaws", "bore_diameter", (at.floor, -pocket.bore_diameter_mm / 2), (at.floor, pocket.bore_diameter_mm / 2),
                  at.top - at.floor + 12, Figure(pocket.bore_diameter_mm, "mm", places=part.places), "Ø ", stops=("jaws",)),
        Dimension("overhang", "overhang", (middle, -line * 0.2), (at.end + part.face_stock_mm, -line * 0.2), 0,
                  Figure(at.end + part.face_stock_mm - middle, "mm", "up"), "", " overhang", stops=("force",)),
    ]  # fmt: skip


def _cut_dimensions(document: Document, at: Stations, part: PartFigures, index: int) -> list[Dimension]:
    """From and to of every cut; shown while the fact is pointed at."""
    found = []
    right = at.end + part.face_stock_mm
    for i, cut in enumerate(document.setups[index].cuts):
        for name, value in (("from_diameter_mm", cut.from_diameter_mm), ("to_diameter_mm", cut.to_diameter_mm)):
            if value:
                fact = f"cut_{i}_{name}"
                found.append(Dimension(fact, fact, (at.end, -value / 2), (at.end, value / 2), right - at.end + 34,
                                       Figure(value, "mm"), "Ø ", stops=("pointed",)))  # fmt: skip
    return found


def _words(part: PartFigures, hold: HoldFigures | None, cuts: CutsFigures | None) -> tuple[Sentence, ...]:
    words = [
        Sentence("Half-section. The part is {l} long and gripped on Ø{d} over {p} of plain length.",
                 l=Figure(part.length_mm, "mm"), d=Figure(part.grip_diameter_mm, "mm", places=part.places),
                 p=Figure(part.plain_length_mm, "mm"))
    ]  # fmt: skip
    if hold:
        words.append(
            Sentence("The jaws are {h} high, bored Ø{b} and {t} deep, with {f} of floor above the bolt heads.",
                     h=Figure(hold.jaw_height_mm, "mm"), b=Figure(hold.pocket.bore_diameter_mm, "mm", places=part.places),
                     t=Figure(hold.pocket.bore_depth_mm, "mm"), f=Figure(hold.pocket.floor_mm, "mm", "down"))
        )  # fmt: skip
    for c in cuts.cuts if cuts else ():
        words.append(
            Sentence("{name}: from Ø{a} to Ø{b}, {d} deep.", name=c.name,
                     a=Figure(c.planned.from_diameter_mm or 0, "mm", exact=True, places=(2, 3)),
                     b=Figure(c.planned.to_diameter_mm or 0, "mm", exact=True, places=(2, 3)),
                     d=Figure(c.planned.depth_mm or 0, "mm", exact=True, places=(2, 3)))
        )  # fmt: skip
    return tuple(words)


def section(document: Document, figures: Figures, index: int = 0) -> Scene:
    """The section of one set-up; what has no figures yet is left out, and the words say so."""
    part, hold = figures.part.value, figures.hold.value
    axis_to = 60.0
    if part is None:
        axis = Shape("axis", "axis", ((-8, 0), (axis_to, 0)), closed=False)
        return Scene(
            (axis,), (), (-10, -20, axis_to + 2, 20), (Sentence("Nothing can be drawn until Part is complete."),)
        )
    setup = document.setups[index]
    at = _stations(hold, part, setup.hold.seat)
    largest = max((s.stock_diameter_mm or s.diameter_mm or 0.0) for s in document.part.profile.outside) / 2
    shapes: list[Shape] = _chuck_and_jaw(hold, at, largest) if hold else []
    shapes += _part(document, part, at, hold is not None)
    if figures.cuts.value:
        shapes += _cuts(document, part, figures.cuts.value, at, index)
    if setup.hold.live_centre:
        shapes.append(_centre(part, at))
    shapes.append(
        Shape(
            "axis",
            "axis",
            ((max(0.0, at.guide - CHUCK_SHOWN_MM) - 8, 0), (at.end + part.face_stock_mm + 12, 0)),
            closed=False,
        )
    )
    dimensions = _part_dimensions(document, part, at) + (_jaw_dimensions(hold, part, at) if hold else [])
    dimensions += _cut_dimensions(document, at, part, index)
    if hold:
        # At Jaws the bore's own dimension stands where the gripped diameter's would.
        dimensions = [d for d in dimensions if not (d.name == "diameter-0" and "jaws" in d.stops)] + [
            Dimension(d.name, d.fact, d.start, d.end, d.offset, d.figure, d.prefix, d.suffix, ("part", "hold"))
            for d in dimensions if d.name == "diameter-0"
        ]  # fmt: skip
    every, all_dimensions = tuple(shapes), tuple(dimensions)
    return Scene(every, all_dimensions, box_of(every, all_dimensions), _words(part, hold, figures.cuts.value))
