"""Time in cut of one cut of a plan."""

from __future__ import annotations

from calc.cuts.spindle import Turning
from calc.plan.cuts.inputs import PlannedCut
from calc.route.time import Path, minutes_of
from calc.working import N, Working


def passes_of(planned: PlannedCut, passes: N) -> N | float:
    """How often the tool goes along: a spring pass once, whatever its thread took."""
    return 1.0 if planned.springs else passes


def length_gone(planned: PlannedCut, length_mm: float) -> float:
    """The length [mm] that the tool works along: a groover that breaks the edges at both ends plunges twice."""
    return 2 * planned.width_mm if planned.cleans and planned.kind == "groove" and planned.width_mm else length_mm


def path_of(planned: PlannedCut, passes: int, length_mm: float) -> Path[float] | None:
    """What the tool goes through; None while facts are missing."""
    a, b, feed = planned.from_diameter_mm, planned.to_diameter_mm, planned.feed_mm_rev
    if a is None or b is None or not feed:
        return None
    return Path(
        planned.kind,
        a,
        b,
        length_gone(planned, length_mm),
        float(passes_of(planned, passes)),
        feed,
        planned.slow_feed_mm_rev,
        planned.slow_below_mm,
        planned.width_mm,
        planned.point_deg,
    )


def minutes_in_cut(planned: PlannedCut, passes: int, length_mm: float, cap_rpm: float) -> float:
    """Time in cut of one piece [min]; facts that are missing make no time."""
    path = path_of(planned, passes, length_mm)
    if path is None or (planned.speed_m_min is None and planned.rpm is None):
        return 0.0
    return minutes_of(Working(), path, Turning(planned.speed_m_min, planned.rpm, cap_rpm))
