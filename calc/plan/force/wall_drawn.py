"""The wall as the jaws squeeze it, drawn exaggerated with the true figure beside."""

from __future__ import annotations

from calc.illustrated.jaws_drawn import beside, drawn_times, squeezed
from calc.plan.force.wall import WallFigures
from calc.plan.hold.figures import HoldFigures
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Scene, box_of
from calc.walls.lobing import wall_shape


def wall_view(hold: HoldFigures, wall: WallFigures) -> Scene:
    """Both walls under the planned grip, the round ones dashed, arrows where the jaws press."""
    given, shape = wall.given, wall_shape(wall.given)
    outer = given.outer_diameter_mm / 2
    shapes, times = squeezed(given, shape, hold.wrap_deg)
    out = Figure(wall.lobing.out_of_round_mm, "mm", "up", (4, 5))
    grip = Figure(given.total_grip_n, "N", "up")
    labels = [
        Label(beside(outer, 0), Sentence("out of round {x}", x=out), "out_of_round"),
        Label(beside(outer, 1), Sentence("at a grip of {f}", f=grip)),
        Label(beside(outer, 2), drawn_times(times)),
    ]
    words = [Sentence("The wall under {f} of grip comes out {x} out of round.", f=grip, x=out)]
    if wall.allowed_mm is not None and wall.limit_n is not None:
        said = Sentence(
            "allowed {a}: stands {f}",
            a=Figure(wall.allowed_mm, "mm", "down", (4, 5)),
            f=Figure(wall.limit_n, "N", "down"),
        )
        labels.append(Label(beside(outer, 3), said, "wall_limit"))
        words.append(
            Sentence(
                "Allowed are {a}, {why}; the wall stands {f}.",
                a=Figure(wall.allowed_mm, "mm", "down", (4, 5)),
                why=wall.allowed_from,
                f=Figure(wall.limit_n, "N", "down"),
            )
        )
    box = box_of(shapes, ())
    return Scene(shapes, (), (box[0], box[1], outer * 2.6, box[3]), tuple(words), tuple(labels))
