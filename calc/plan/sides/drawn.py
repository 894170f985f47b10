"""The part as it stands in the jaws: its section and outline, its stock, the axis."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.document import Document
from calc.plan.part.drawn import Placed, far, inner, near
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES, made_first
from calc.plan.view import View
from calc.profile.contour import points
from calc.profile.grips import from_end
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Layer, Shape, Standing, rectangle

EVERYWHERE = ("sides", "hold", "force", "cuts")
AXIS = 9  # over everything else


def placed(view: View, standing: Standing) -> Placed | None:
    """The part in its place; None while it has no figures."""
    part, sides = view[PART], view[SIDES]
    if part is None or sides is None:
        return None
    held = sides.held_end(view.index)
    spans = from_end(part.body.outside, part.length_mm, held)
    return Placed(part, held, standing.start, standing.raw, spans)


def _stock(at: Placed, document: Document, made: set[int], index: int) -> list[Shape]:
    d = document.part.stock.diameter_mm
    if d is None:
        return []
    x0, x1 = at.start, at.right
    if index > 0:
        left = [s for s in at.spans if s.index not in made]
        x0 = at.x(min((s.start for s in left), default=at.part.length_mm))
    hollow = (document.part.stock.bore_mm or 0.0) / 2
    return [
        Shape(
            "stock",
            "ghost",
            rectangle(x0, hollow, x1, d / 2),
            facts=("stock_diameter",),
            stops=("part", "sides", "hold", "cuts"),
        )
    ]


def layers(view: View, standing: Standing) -> Iterator[Layer]:
    """Section above the axis, outline below it; the outline alone while the jaws are bored. And the axis itself."""
    at, sides = placed(view, standing), view[SIDES]
    if at is None or sides is None:
        return
    made, _ = made_first(at.part, sides.first)
    upper = (*at.flip(points(at.part.body.outer)), *reversed(inner(at)))
    section = Shape("part", "part", upper, facts=("length",), stops=EVERYWHERE)
    ghost = Shape("part-outline", "hidden", upper, stops=("jaws",))
    lower = [
        Shape(
            f"outline-{s.name}",
            "outline",
            ((at.x(s.start), 0), (at.x(s.start), -near(s, at.held)), (at.x(s.end), -far(s, at.held)), (at.x(s.end), 0)),
            facts=(f"step_{s.name}",),
        )
        for s in at.spans
    ]
    shapes = (*_stock(at, view.document, made, view.index), section, *([ghost] if standing.in_jaws else []), *lower)
    length = Figure(at.part.length_mm, "mm")
    yield Layer(1, shapes, words=(Sentence("Half-section. The part is {l} long.", l=length),))
    axis = Shape("axis", "axis", ((standing.left - 8, 0), (at.right + 12, 0)), closed=False)
    yield Layer(AXIS, (axis,))
