"""A graph as it is sent: its lines in the units shown."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.illustrated.graph import Axis, Graph, Style
from calc.quantities import System, from_core, shown_as

Points = list[list[float]]


@dataclass(frozen=True)
class AxisSaid:
    """An axis: its label with the unit shown, from where to where."""

    label: str
    unit: str
    low: float
    high: float


@dataclass(frozen=True)
class GraphLineSaid:
    """A line of a graph."""

    label: str
    points: Points
    style: Style


@dataclass(frozen=True)
class LevelSaid:
    """A straight line across or along."""

    axis: Literal["x", "y"]
    label: str
    at: float
    style: Style


@dataclass(frozen=True)
class GraphSaid:
    """A graph, and the same in words."""

    x: AxisSaid
    y: AxisSaid
    lines: list[GraphLineSaid]
    levels: list[LevelSaid]
    dots: Points
    mark: list[float] | None
    words: str


def graph_said(graph: Graph, system: System) -> GraphSaid:
    """A graph in the units of a system."""
    axes = {"x": graph.x, "y": graph.y}

    def value(core: float, axis: Axis) -> float:
        return float(f"{from_core(core, axis.unit, shown_as(axis.unit, system)):.7g}")

    def axis(of: Axis) -> AxisSaid:
        return AxisSaid(of.label, shown_as(of.unit, system).unit, value(of.low, of), value(of.high, of))

    def points(core: tuple[tuple[float, float], ...]) -> Points:
        return [[value(x, graph.x), value(y, graph.y)] for x, y in core]

    return GraphSaid(
        axis(graph.x),
        axis(graph.y),
        [GraphLineSaid(line.label, points(line.points), line.style) for line in graph.lines],
        [LevelSaid(one.axis, one.label, value(one.at, axes[one.axis]), one.style) for one in graph.levels],
        points(graph.dots),
        None if graph.mark is None else points((graph.mark,))[0],
        graph.words.text(system),
    )
