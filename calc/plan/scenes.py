"""The views of a set-up's drawing: the section that every stop brings its layer to, and what each draws besides."""

from __future__ import annotations

from calc.plan.all_stops import ALL_STOPS
from calc.plan.compute import PlanResult
from calc.plan.hold.drawn import standing_of
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.view import View
from calc.quantities import Sentence
from calc.scene.shapes import Scene, Shape, box_of


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


def scenes_of(plan: PlanResult, index: int) -> tuple[Scene, ...]:
    """Every view of a set-up that there are figures for; the section always."""
    view = plan.views[index]
    own = [scene for kind in ALL_STOPS for scene in kind.views(view)]
    # The part alone comes first: it is what the plan begins with.
    first = [s for s in own if s.name == ALL_STOPS[0].name]
    return (*first, section(view), *(s for s in own if s not in first))
