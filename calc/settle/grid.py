"""What is tried of an operation: passes, depths, feeds and speeds, on a grid over their windows."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from calc.many import Array
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.solve import CutFigures
from calc.plan.part.solve import PartFigures
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.insert import Insert
from calc.tools.rules.turning_columns import usable

MOST_PASSES = 40
FEED_STEP, SPEED_STEP = 0.001, 1.0
SLOWEST_SHARE = 0.4  # of the window's slow end: slower than that nothing is tried


@dataclass(frozen=True)
class Grid:
    """How finely feeds and speeds are tried."""

    feeds: int = 60
    speeds: int = 44
    passes: int = MOST_PASSES


FINE, COARSE = Grid(), Grid(20, 18, 10)


@dataclass(frozen=True, eq=False)
class Tried:
    """Candidates before anything is known of them: passes, depth [mm], feed [mm/rev] and surface speed [m/min]."""

    passes: NDArray[np.int64]
    depth: Array
    feed: Array
    speed: Array


def _stepped(low: float, high: float, count: int, step: float, ends: tuple[float, ...] = ()) -> Array:
    """Values from low to high that lie on the step, about `count` of them, geometric; `ends` of windows within them are
    among them, to the step inside.
    """
    first, last = math.ceil(low / step - 1e-6), math.floor(high / step + 1e-6)
    if last < max(1, first):
        return np.array([max(step, high if high > 0 else step)])
    values = np.round(np.geomspace(max(1, first), last, count))
    inside = [f for e in ends for f in (math.floor(e / step + 1e-6), math.ceil(e / step - 1e-6)) if first <= f <= last]
    return np.unique([*values, *(v for v in inside if v > 0)]) * step


def _feeds(cut: CutFigures, grid: Grid) -> Array:
    planned, edge = cut.planned, cut.tool.edge if cut.tool else None
    if planned.kind == "thread" or planned.pin_feed:
        return np.array([planned.feed_mm_rev or 0.1])
    if planned.by_depth:
        r = planned.corner_radius_mm
        high = max(0.05, 2 * r / 3 if r > 0 else 0.3)
        ends: tuple[float, ...] = ()
        if isinstance(edge, Insert):
            high = min(high, edge.feed_max) if edge.feed_max > 0.02 else high
            ends = (edge.feed_min, edge.feed_max)
        window = cut.consulted.window
        if window is not None:
            ends = (*ends, window.feed_min_mm_rev, window.feed_max_mm_rev)
        return _stepped(0.02, high, grid.feeds, FEED_STEP, ends)
    if isinstance(edge, (Drill, GrooveInsert)):
        return _stepped(edge.feed_min, edge.feed_max, grid.feeds, FEED_STEP)
    return _stepped(0.02, max(0.2, planned.feed_mm_rev or 0.0), grid.feeds, FEED_STEP)


def _speeds(cut: CutFigures, part: PartFigures, grid: Grid) -> Array:
    planned = cut.planned
    if planned.rpm is not None:
        return np.array(
            [math.pi * max(planned.from_diameter_mm or 1.0, planned.to_diameter_mm or 1.0) * planned.rpm / 1000]
        )
    if planned.pin_speed and planned.speed_m_min is not None:
        return np.array([planned.speed_m_min])
    low, high = speed_window(planned.kind, cut.tool, part.material)
    return _stepped(SLOWEST_SHARE * low, high, grid.speeds, SPEED_STEP, (low, high))


def _passes(cut: CutFigures, stock: float, grid: Grid) -> NDArray[np.int64]:
    planned = cut.planned
    if planned.kind == "thread":
        fixed = planned.pin_depth or planned.springs
        return np.array([planned.passes]) if fixed else np.arange(4, 21)
    if not planned.by_depth:
        return np.array([1])
    if planned.pin_depth and planned.depth_mm:
        return np.array([max(1, math.ceil(stock / planned.depth_mm - 1e-9))])
    deepest = usable(cut.tool) if cut.tool is not None and isinstance(cut.tool.edge, Insert) else 6.0
    least = max(1, math.ceil(stock / max(deepest, 0.05) - 1e-9))
    most = max(least, min(MOST_PASSES, math.ceil(stock / 0.2)))
    return np.unique(np.round(np.geomspace(least, most, grid.passes)).astype(np.int64))


def _of(cut: CutFigures, part: PartFigures, axes: tuple[NDArray[np.int64], Array, Array]) -> Tried:
    """Every combination of these passes, feeds and speeds."""
    planned = cut.planned
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    p3, f3, v3 = np.meshgrid(*axes, indexing="ij")
    passes, feed, speed = p3.ravel(), f3.ravel(), v3.ravel()
    depth = np.full_like(feed, planned.width_mm or max(0.05, abs(a - b) / 2))
    if planned.by_depth:
        stock = stock_of(cut, part)
        depth = np.full_like(feed, planned.depth_mm) if planned.pin_depth and planned.depth_mm else stock / passes
        depth = np.ceil(depth * 1000 - 1e-6) / 1000
    return Tried(passes, depth, feed, speed)


def stock_of(cut: CutFigures, part: PartFigures) -> float:
    """What a cut takes, per side [mm]."""
    planned = cut.planned
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    return (part.face_stock_mm if planned.kind == "face" else abs(a - b) / 2) or planned.depth_mm or 0.5


def tried_on(cut: CutFigures, part: PartFigures, grid: Grid) -> Tried:
    """Every combination of passes, feed and speed on a grid."""
    axes = _passes(cut, stock_of(cut, part), grid), _feeds(cut, grid), _speeds(cut, part, grid)
    return _of(cut, part, axes)


def tried_near(cut: CutFigures, part: PartFigures, known: Tried, row: int, grid: Grid) -> Tried:
    """Every step of feed and speed about a row of what was tried, as far as its neighbours on the grid."""

    def about(axis: Array, value: float, step: float) -> Array:
        had = np.unique(axis)
        at = int(np.searchsorted(had, value))
        low, high = had[max(0, at - 1)], had[min(len(had) - 1, at + 1)]
        return np.unique([value, *_stepped(float(low), float(high), 40, step)]) if high > low else np.array([value])

    passes = _passes(cut, stock_of(cut, part), grid)
    at = int(np.searchsorted(passes, known.passes[row]))
    near = np.arange(passes[max(0, at - 1)], passes[min(len(passes) - 1, at + 1)] + 1) if len(passes) > 1 else passes
    feeds = about(known.feed, float(known.feed[row]), FEED_STEP)
    speeds = about(known.speed, float(known.speed[row]), SPEED_STEP)
    return _of(cut, part, (near, feeds, speeds))
