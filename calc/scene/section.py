"""The half-section of chuck, jaws and part: above the axis cut open, below it the outline."""

from __future__ import annotations

import math

from calc.plan.cuts import CutsFigures
from calc.plan.document import Document
from calc.plan.hold import HoldFigures
from calc.plan.part import PartFigures
from calc.plan.sides import made_first
from calc.plan.solve import Figures
from calc.programs.jaw_boring import Boring, moves_of
from calc.quantities import Figure, Sentence
from calc.scene.jaw import CHUCK_SHOWN_MM, Stations, chuck_and_jaw, jaw_dimensions, keep_out, stations
from calc.scene.part import Placed, cut_dimensions, cut_shapes, grip_dimensions, part_shapes, placed
from calc.scene.shapes import Scene, Shape, box_of
from calc.shelf.taken import SetupShelf


def _centre(at: Placed) -> Shape:
    mouth = max(at.part.body.bore_at(at.part.length_mm if at.held == "a" else 0.0) / 2, 3.0)
    reach = mouth / math.tan(math.radians(30))
    wide = mouth * 1.35
    back = at.right + (wide - mouth) / math.tan(math.radians(30))
    points = ((at.right - reach, 0.0), (back, wide), (back + 22, wide), (back + 22, -wide), (back, -wide))
    return Shape("live-centre", "centre", points, facts=("live_centre",))


def _path(boring: Boring, at: Stations) -> list[Shape]:
    """Where the boring tool's tip goes when it finishes each pocket; the roughing passes fill what is dotted."""
    shapes: list[Shape] = []
    points: list[tuple[float, float]] = []
    for m in moves_of(boring):
        if m.note.endswith("finish"):
            points = []
        if points or m.note.endswith("finish"):
            points.append((at.top + m.z_mm, m.x_mm / 2))
        if m.kind == "rapid" and len(points) > 1:
            shapes.append(
                Shape(
                    f"tool-path-{len(shapes)}", "path", tuple(points), closed=False, facts=("program",), stops=("jaws",)
                )
            )
            points = []
    return shapes


def _words(part: PartFigures, hold: HoldFigures | None, cuts: CutsFigures | None) -> tuple[Sentence, ...]:
    words = [Sentence("Half-section. The part is {l} long.", l=Figure(part.length_mm, "mm"))]
    if hold:
        grip = hold.grip
        words += [
            Sentence(
                "Gripped {side} on {name}, Ø{d}, over {p} of plain length.",
                side="outside" if grip.side == "od" else "inside",
                name=grip.name,
                d=Figure(grip.diameter_mm, "mm", places=hold.places),
                p=Figure(grip.length_mm, "mm"),
            ),
            Sentence(
                "The jaws are {h} high, {verb} Ø{b} and {t} deep, with {f} of floor above the bolt heads.",
                h=Figure(hold.jaw_height_mm, "mm"),
                verb="bored" if grip.side == "od" else "turned",
                b=Figure(hold.pocket.bore_diameter_mm, "mm", places=hold.places),
                t=Figure(hold.pocket.bore_depth_mm, "mm"),
                f=Figure(max(0.0, hold.pocket.floor_mm), "mm", "down"),
            ),
        ]
    for c in cuts.cuts if cuts else ():
        words.append(
            Sentence(
                "{name}: from Ø{a} to Ø{b}, {d} deep.",
                name=c.name,
                a=Figure(c.planned.from_diameter_mm or 0, "mm", exact=True, places=(2, 3)),
                b=Figure(c.planned.to_diameter_mm or 0, "mm", exact=True, places=(2, 3)),
                d=Figure(c.planned.depth_mm or 0, "mm", exact=True, places=(2, 3)),
            )
        )
    return tuple(words)


def section(document: Document, figures: Figures, index: int, shelf: SetupShelf, boring: Boring | None = None) -> Scene:
    """The section of one set-up; what has no figures yet is left out, and the words say so."""
    part, hold, sides = figures.part.value, figures.hold.value, figures.sides.value
    if part is None or sides is None:
        axis = Shape("axis", "axis", ((-8, 0), (60, 0)), closed=False)
        return Scene((axis,), (), (-10, -20, 62, 20), (Sentence("Nothing can be drawn until Part is complete."),))
    setup = document.setups[index]
    at = stations(hold, setup.hold.seat)
    where = placed(part, hold, sides.held_end(index), at.part)
    largest = max(document.part.stock.diameter_mm or 0.0, *((s.step.diameter_mm or 0.0) for s in part.body.outside)) / 2
    made, _ = made_first(part, sides.first)
    shapes: list[Shape] = chuck_and_jaw(hold, at, largest) if hold else []
    shapes += part_shapes(where, document, made, index, has_jaws=hold is not None)
    if figures.cuts.value:
        shapes += cut_shapes(document, where, index)
    if setup.hold.live_centre:
        shapes.append(_centre(where))
    if hold:
        shapes += keep_out(hold, figures.jaws.value, shelf, at)
    if hold and boring:
        shapes += _path(boring, at)
    left = max(0.0, at.guide - CHUCK_SHOWN_MM) - 8
    shapes.append(Shape("axis", "axis", ((left, 0), (where.right + 12, 0)), closed=False))
    dimensions = [*grip_dimensions(where, hold), *jaw_dimensions(hold, at, where.right)] if hold else []
    dimensions += cut_dimensions(document, where, index)
    every, all_dimensions = tuple(shapes), tuple(dimensions)
    return Scene(every, all_dimensions, box_of(every, all_dimensions), _words(part, hold, figures.cuts.value))
