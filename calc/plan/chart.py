"""Grip against spindle speed as curves: what the chart of stop Force draws."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from calc.chuck.grip import ChuckForce
from calc.chuck.pressure import book_grip
from calc.chuck.speed import Side, StackPart
from calc.plan.force import ForceFigures
from calc.shelf.workholding import Chuck

POINTS = 200


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
    demand: tuple[tuple[float, float], ...]
    demand_corner: tuple[tuple[float, float], ...]
    demand_n: float
    allowable_n: float
    cap_rpm: float
    cap_n: float
    top_rpm: float
    wall_n: float | None
    pressures: tuple[
        tuple[float, float], ...
    ]  # (bar, grip standing still [N]), rising: straight lines between are exact
    pressure_bar: float
    pressure_path: str | None = None  # the facts that dragging changes
    speed_path: str | None = None


def _curve(
    static: float, stack: tuple[StackPart, ...], jaws: int, most: float, side: Side, transmission: float
) -> tuple[tuple[float, float], ...]:
    moment = sum(p.mass_kg * p.radius_mm for p in stack) / 1000
    loss = transmission * jaws * moment * (2 * math.pi / 60) ** 2 * (1 if side == "od" else -1)  # N per rpm²
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


def _demand(needed: Callable[[float], float], most: float, *, grows: bool) -> tuple[tuple[float, float], ...]:
    steps = POINTS - 1 if grows else 1
    return tuple((most * i / steps, needed(most * i / steps)) for i in range(steps + 1))


def _pressures(chuck: ChuckForce, figures: ForceFigures) -> tuple[tuple[float, float], ...]:
    """Every pressure the book knows with the grip it gives here."""
    share = figures.grip.height_factor * figures.condition
    if chuck.chart:
        points = [p.pressure_bar for p in chuck.chart if p.pressure_bar < chuck.max_pressure_bar]
        if chuck.chart[-1].pressure_bar >= chuck.max_pressure_bar:
            points.append(chuck.max_pressure_bar)
    else:
        points = [0.1, chuck.max_pressure_bar]
    return tuple((p, book_grip(p, chuck) * share) for p in points)


def force_chart(
    figures: ForceFigures, chuck: Chuck, limit_rpm: float, side: Side, others: dict[str, tuple[StackPart, ...]]
) -> ForceChart:
    """The chart of a set-up; `others` are jaw stacks to overlay, by label."""
    static, jaws, asked = figures.grip.grip_n, chuck.jaws, figures.asked
    wall = figures.wall.limit_n if figures.wall else None
    mine = _curve(static, figures.stack, jaws, limit_rpm, side, figures.transmission)
    corner = _curve(static * figures.corner_condition, figures.stack, jaws, limit_rpm, side, figures.transmission)
    curves = [Curve("grip", "grip", mine), Curve("corner", "worst credible corner", corner)]
    curves += [
        Curve("other", label, _curve(static, stack, jaws, limit_rpm, side, figures.transmission))
        for label, stack in others.items()
    ]
    cap, sign = figures.limit.speed_cap_rpm, 1 if side == "od" else -1
    moment = sum(p.mass_kg * p.radius_mm for p in figures.stack) / 1000
    demand = _demand(asked.at, limit_rpm, grows=asked.grows)
    worse = _demand(asked.at_corner, limit_rpm, grows=asked.grows)
    # The chuck's limit is drawn where there is room for it: it must not press the curves flat.
    most = max(*(y for c in curves for _, y in c.points), worse[0][1], wall or 0.0)
    if figures.grip.allowable_grip_n < 1.6 * most:
        most = max(most, figures.grip.allowable_grip_n)
    return ForceChart(
        rpm_most=limit_rpm,
        force_most_n=most * 1.08,
        curves=tuple(curves),
        demand=demand,
        demand_corner=worse,
        demand_n=asked.at(cap) if cap > 0 else figures.demand.required_grip_n,
        allowable_n=figures.grip.allowable_grip_n,
        cap_rpm=cap,
        cap_n=max(0.0, static - sign * figures.transmission * jaws * moment * (2 * math.pi * cap / 60) ** 2),
        top_rpm=figures.top_rpm,
        wall_n=wall,
        pressures=_pressures(chuck.force, figures),
        pressure_bar=figures.pressure_bar,
    )
