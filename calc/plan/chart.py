"""Grip against spindle speed as curves: what the chart of stop Force draws."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.chuck.speed import StackPart
from calc.plan.force import CORNER_CONDITION, ForceFigures

POINTS = 61


@dataclass(frozen=True)
class Curve:
    """A line of the chart: (rpm, N) points."""

    name: str
    label: str
    points: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class ForceChart:
    """Everything the chart draws; speeds in rpm, forces in N as sums over all jaws."""

    rpm_most: float
    force_most_n: float
    curves: tuple[Curve, ...]
    demand_n: float
    allowable_n: float
    cap_rpm: float
    cap_n: float
    top_rpm: float


def _curve(static: float, stack: tuple[StackPart, ...], jaws: int, most: float) -> tuple[tuple[float, float], ...]:
    moment = sum(p.mass_kg * p.radius_mm for p in stack) / 1000
    loss = jaws * moment * (2 * math.pi / 60) ** 2  # N per rpm²
    points = []
    for i in range(POINTS):
        rpm = most * i / (POINTS - 1)
        grip = static - loss * rpm * rpm
        if grip <= 0:
            # End exactly where the grip is gone, so that the line meets the axis there.
            points.append((math.sqrt(static / loss), 0.0))
            break
        points.append((rpm, grip))
    return tuple(points)


def force_chart(
    figures: ForceFigures, jaws: int, limit_rpm: float, others: dict[str, tuple[StackPart, ...]]
) -> ForceChart:
    """The chart of a set-up; `others` are jaw stacks to overlay, by label."""
    static = figures.grip.grip_n
    curves = [Curve("grip", "grip", _curve(static, figures.stack, jaws, limit_rpm))]
    curves.append(
        Curve("corner", "worst credible corner", _curve(static * CORNER_CONDITION, figures.stack, jaws, limit_rpm))
    )
    curves += [Curve("other", label, _curve(static, stack, jaws, limit_rpm)) for label, stack in others.items()]
    cap = figures.limit.speed_cap_rpm
    moment = sum(p.mass_kg * p.radius_mm for p in figures.stack) / 1000
    return ForceChart(
        rpm_most=limit_rpm, force_most_n=max(static, figures.demand.required_grip_n) * 1.12,
        curves=tuple(curves), demand_n=figures.demand.required_grip_n, allowable_n=figures.grip.allowable_grip_n,
        cap_rpm=cap, cap_n=max(0.0, static - jaws * moment * (2 * math.pi * cap / 60) ** 2), top_rpm=figures.top_rpm,
    )  # fmt: skip
