"""What a scene is made of. x runs along the spindle axis away from its face, y across it, in mm."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from calc.quantities import Figure, Sentence

Point = tuple[float, float]
Role = Literal[
    "chuck",
    "master",
    "jaw",
    "bolt",
    "hole",
    "part",
    "outline",
    "hidden",
    "cut",
    "removed",
    "axis",
    "centre",
    "grip",
    "keepout",
    "path",
    "ghost",
    "wall",
    "track",
    "piece",
    "gap",
    "danger",
    "tool",
    "insert",
]
Stops = tuple[str, ...]  # the stops at which an item is shown; empty means always


@dataclass(frozen=True)
class Shape:
    """A closed polygon or an open line of one role."""

    name: str
    role: Role
    points: tuple[Point, ...]
    closed: bool = True
    facts: tuple[str, ...] = ()
    stops: Stops = ()
    group: str = ""  # shown only while these facts are in view; empty means always
    slides: Point = (0.0, 0.0)  # from where it stands back to where it begins, where it moves


@dataclass(frozen=True)
class Dimension:
    """A measure drawn between two points, on a line shifted sideways by `offset` mm."""

    name: str
    fact: str
    start: Point
    end: Point
    offset: float
    figure: Figure
    prefix: str = ""
    suffix: str | Sentence = ""
    stops: Stops = ()
    outside: Literal["before", "after"] = "after"  # where the figure goes when it does not fit between
    group: str = ""

    @property
    def measured_mm(self) -> float:
        """The distance it spans, along the axis or across it."""
        horizontal = self.start[1] == self.end[1] or abs(self.end[0] - self.start[0]) > abs(self.end[1] - self.start[1])
        return abs(self.end[0] - self.start[0]) if horizontal else abs(self.end[1] - self.start[1])


@dataclass(frozen=True)
class Label:
    """Words on the drawing, at a point."""

    point: Point
    text: Sentence
    fact: str = ""
    stops: Stops = ()
    anchor: Literal["start", "middle", "end"] = "start"
    group: str = ""


@dataclass(frozen=True)
class Scene:
    """A view: its shapes, dimensions and labels, the box they need and the same in words."""

    shapes: tuple[Shape, ...]
    dimensions: tuple[Dimension, ...]
    box: tuple[float, float, float, float]  # least x, least y, greatest x, greatest y
    words: tuple[Sentence, ...]
    labels: tuple[Label, ...] = ()


@dataclass(frozen=True)
class Standing:
    """Where the part stands along the spindle [mm]: its held end, the stock that is still on it, where drawing
    begins.
    """

    start: float = 0.0
    raw: float = 0.0
    left: float = 0.0
    in_jaws: bool = False


@dataclass(frozen=True)
class Layer:
    """What a stop brings to the section. Of two layers the one that is `above` is drawn over the other."""

    above: int
    shapes: tuple[Shape, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    words: tuple[Sentence, ...] = ()


def rectangle(x0: float, y0: float, x1: float, y1: float) -> tuple[Point, ...]:
    """The four corners of an upright rectangle."""
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


def mirrored(points: tuple[Point, ...]) -> tuple[Point, ...]:
    """The same below the axis."""
    return tuple((x, -y) for x, y in points)


# Most edits leave most of the geometry as it was.
@lru_cache(maxsize=4096)
def arc(radius: float, start_deg: float, end_deg: float, every_deg: float = 3.0) -> tuple[Point, ...]:
    """Points of an arc about the origin, both ends included."""
    count = max(2, math.ceil(abs(end_deg - start_deg) / every_deg))
    angles = (math.radians(start_deg + (end_deg - start_deg) * i / count) for i in range(count + 1))
    return tuple((radius * math.cos(a), radius * math.sin(a)) for a in angles)


def turned(points: tuple[Point, ...], angle_deg: float) -> tuple[Point, ...]:
    """The points turned about the origin."""
    c, s = math.cos(math.radians(angle_deg)), math.sin(math.radians(angle_deg))
    return tuple((x * c - y * s, x * s + y * c) for x, y in points)


def box_of(shapes: tuple[Shape, ...], dimensions: tuple[Dimension, ...]) -> tuple[float, float, float, float]:
    """The least box around everything, at least 1 mm wide and high."""
    xs = [x for s in shapes for x, _ in s.points]
    ys = [y for s in shapes for _, y in s.points]
    for d in dimensions:
        upright = d.start[0] == d.end[0]
        for x, y in (d.start, d.end):
            xs.append(x + d.offset if upright else x)
            ys.append(y if upright else y + d.offset)
    return min(xs, default=0.0), min(ys, default=0.0), max(xs, default=1.0), max(ys, default=1.0)
