"""A figure against another: lines and points over two axes, with levels across and along."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from calc.quantities import Sentence

Points = tuple[tuple[float, float], ...]
Style = Literal["main", "other", "limit", "aim", "danger"]
STEPS = 60


@dataclass(frozen=True)
class Axis:
    """What is told along an axis: its label, core unit, and from where to where."""

    label: str
    unit: str
    low: float
    high: float


@dataclass(frozen=True)
class Line:
    """A line through points in core units; its label stands at its end."""

    label: str
    points: Points
    style: Style = "main"


@dataclass(frozen=True)
class Level:
    """A straight line at one value of an axis: across at a y, along at an x."""

    axis: Literal["x", "y"]
    label: str
    at: float
    style: Style = "limit"


@dataclass(frozen=True)
class Graph:
    """Lines, levels and points; `words` tell the same to who does not see it."""

    x: Axis
    y: Axis
    lines: tuple[Line, ...]
    words: Sentence
    levels: tuple[Level, ...] = ()
    dots: Points = ()
    mark: tuple[float, float] | None = None  # where the answer stands


def line_of(label: str, low: float, high: float, value: Callable[[float], float], style: Style = "main") -> Line:
    """A line of a function over a stretch."""
    points = tuple((x, value(x)) for x in (low + (high - low) * i / STEPS for i in range(STEPS + 1)))
    return Line(label, points, style)
