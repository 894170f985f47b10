"""The views of a set-up's drawing: the section that every stop brings its layer to, and what each draws besides."""

from __future__ import annotations

from functools import partial

from calc.plan.all_stops import ALL_STOPS
from calc.plan.hold.drawn import standing_of
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.stop_kind import Drawing
from calc.plan.view import View
from calc.quantities import Sentence
from calc.scene.shapes import Scene, Shape, box_of

SECTION = "section"


def section(view: View) -> Scene:
    """The half-section of one set-up, above the axis cut open; what has no figures yet is left out."""
    if view[PART] is None or view[SIDES] is None:
        axis = Shape("axis", "axis", ((-8, 0), (60, 0)), closed=False)
        return Scene((axis,), (), (-10, -20, 62, 20), (Sentence("Nothing can be drawn until Part is complete."),))
    standing = standing_of(view)
    layers = sorted(
        (layer for kind in ALL_STOPS for layer in kind.layers(view, standing)), key=lambda layer: layer.above
    )
    shapes = tuple(s for layer in layers for s in layer.shapes)
    dimensions = tuple(d for layer in layers for d in layer.dimensions)
    words = tuple(w for layer in layers for w in layer.words)
    return Scene(shapes, dimensions, box_of(shapes, dimensions), words)


def drawings_of(view: View) -> tuple[Drawing, ...]:
    """Every picture of a set-up that there are figures for: what a stop opens with, the section, the others.

    Nothing is drawn before it is looked at.
    """
    own = [drawing for kind in ALL_STOPS for drawing in kind.drawings(view)]
    whole = Drawing(SECTION, "Section", (), partial(view.keep, SECTION, section))
    return (*(d for d in own if d.first), whole, *(d for d in own if not d.first))
