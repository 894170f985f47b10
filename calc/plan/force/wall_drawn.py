"""The wall as the jaws squeeze it, drawn exaggerated with the true figure beside."""

from __future__ import annotations

import math

from calc.plan.force.wall import WallFigures
from calc.plan.hold.figures import HoldFigures
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Point, Scene, Shape, arc, box_of
from calc.walls.lobing import wall_shape

SHOWN_SHARE = 0.10  # the largest move is drawn as this share of the outer radius
UPRIGHT = 90.0


def _wall(radius: float, moves: list[tuple[float, float]], times: float) -> tuple[Point, ...]:
    points = []
    for angle, move in moves:
        a = math.radians(angle + UPRIGHT)
        r = radius + times * move
        points.append((r * math.cos(a), r * math.sin(a)))
    return tuple(points)


def wall_view(hold: HoldFigures, wall: WallFigures) -> Scene:
    """Both walls under the planned grip, the round ones dashed, arrows where the jaws press."""
    given, shape = wall.given, wall_shape(wall.given)
    outer, inner = given.outer_diameter_mm / 2, given.inner_diameter_mm / 2
    most = max(max(abs(p.inner_mm), abs(p.outer_mm)) for p in shape) or 1.0
    times = outer * SHOWN_SHARE / most
    step = 10 ** math.floor(math.log10(times)) if times > 0 else 1.0
    times = step * (5 if times / step >= 5 else 2 if times / step >= 2 else 1)
    outside = _wall(outer, [(p.angle_deg, p.outer_mm) for p in shape], times)
    inside = _wall(inner, [(p.angle_deg, p.inner_mm) for p in shape], times)
    half = min(hold.wrap_deg, 360 / given.jaws) / 2
    gripped, sign = (outer, 1) if given.side == "od" else (inner, -1)
    gap = outer * (SHOWN_SHARE + 0.08)
    shapes = [
        Shape("wall", "part", (*outside, *reversed(inside)), facts=("out_of_round",)),
        Shape("round-outer", "hidden", arc(outer, 0, 360)),
        Shape("round-inner", "hidden", arc(inner, 0, 360)),
    ]
    for i in range(given.jaws):
        middle = UPRIGHT + 360 / given.jaws * i
        near, far = gripped + sign * gap * 0.4, gripped + sign * gap
        shapes.append(
            Shape(
                f"jaw-{i}",
                "jaw",
                (*arc(max(1.0, near), middle - half, middle + half), *arc(max(1.0, far), middle + half, middle - half)),
            )
        )
    out = Figure(wall.lobing.out_of_round_mm, "mm", "up", (4, 5))
    grip = Figure(given.total_grip_n, "N", "up")
    labels = [
        Label((outer * 1.25, outer * 0.75), Sentence("out of round {x}", x=out), "out_of_round"),
        Label((outer * 1.25, outer * 0.55), Sentence("at a grip of {f}", f=grip)),
        Label((outer * 1.25, outer * 0.35), Sentence("drawn ×{n}", n=f"{times:,.0f}".replace(",", "\u202f"))),
    ]
    words = [Sentence("The wall under {f} of grip comes out {x} out of round.", f=grip, x=out)]
    if wall.allowed_mm is not None and wall.limit_n is not None:
        said = Sentence(
            "allowed {a}: stands {f}",
            a=Figure(wall.allowed_mm, "mm", "down", (4, 5)),
            f=Figure(wall.limit_n, "N", "down"),
        )
        labels.append(Label((outer * 1.25, outer * 0.15), said, "wall_limit"))
        words.append(
            Sentence(
                "Allowed are {a}, {why}; the wall stands {f}.",
                a=Figure(wall.allowed_mm, "mm", "down", (4, 5)),
                why=wall.allowed_from,
                f=Figure(wall.limit_n, "N", "down"),
            )
        )
    every = tuple(shapes)
    box = box_of(every, ())
    return Scene(every, (), (box[0], box[1], outer * 2.6, box[3]), tuple(words), tuple(labels))
