"""Grip against spindle speed as curves: what the chart of stop Force draws."""

from __future__ import annotations

import math
from collections.abc import Callable

from calc.chuck.book import ChuckForce, book_grip
from calc.chuck.speed import StackPart, pull_of
from calc.plan.comparing import blanks_tried
from calc.plan.force.solve import ForceFigures
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.jaws.solve import JAW_MASS
from calc.plan.pictures import CutPoint, ForceChart, GripCurve
from calc.plan.sides.driven import DRIVEN
from calc.plan.view import View
from calc.working import Working

POINTS = 60  # of a curve: its chords are off by less than a pixel
ROOM = 1.6  # times the highest curve
OVERLAID = 2  # more curves and none is read


def _curve(static: float, loss: float, most: float) -> tuple[tuple[float, float], ...]:
    """Grip over speed from a grip standing still [N] and what speed takes of it [N/rpm²]; below 0 it adds."""
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
    return tuple((p, book_grip(p, chuck, Working()) * share) for p in points)


def _other_stacks(view: View, force: ForceFigures, hold: JawHold) -> dict[str, tuple[StackPart, ...]]:
    """Jaw stacks in the other metal, or of pie jaws, to overlay."""
    found: dict[str, tuple[StackPart, ...]] = {}
    for one in view.once(blanks_tried):
        blank, mine = one.blank, hold.blank
        label = f"with {blank.metal} {'pie ' if blank.kind == 'pie' else ''}jaws"
        if one.chosen or label in found or (blank.kind == mine.kind and blank.height_mm != mine.height_mm):
            continue
        mass = one.figures[JAW_MASS]
        if mass is not None:
            found[label] = (StackPart(mass.mass_kg, mass.radius_mm), *force.stack[1:])
        if len(found) == OVERLAID:
            break
    return found


def _points(view: View, force: ForceFigures) -> tuple[CutPoint, ...]:
    """Every load at its own speed; the one that is held with the least margin is the nearest."""
    nearest = min(force.loads, key=lambda load: load.held)
    found = []
    for load in force.loads:
        cut, path = load.cut, ""
        if cut is not None:
            path = f"{view.at}.cuts.{cut.id}.{'clamp_rpm' if cut.planned.rpm is None else 'rpm'}"
        found.append(
            CutPoint(
                load.name,
                load.top_rpm,
                load.needed_n,
                load.counted_n,
                load.cap_rpm,
                load is nearest,
                load.is_over or load.held_corner < 1,
                path,
                cut is not None and cut.planned.rpm is None,
            )
        )
    return tuple(found)


def force_chart(view: View, force: ForceFigures, hold: HoldFigures) -> ForceChart:
    """The chart of a set-up that has figures, with other jaws to overlay."""
    part = view.asked.need(DRIVEN)
    static, asked = force.grip.grip_n, force.asked
    limit = max(min(hold.chuck.max_rpm, part.machine.max_rpm), force.top_rpm)

    def loss(stack: tuple[StackPart, ...]) -> float:
        return force.transmission * pull_of(stack, hold.chuck.jaws) * (1 if hold.side == "od" else -1)

    mine = loss(force.stack)
    others = _other_stacks(view, force, hold) if isinstance(hold, JawHold) else {}
    curves = [
        GripCurve("grip", "grip", _curve(static, mine, limit)),
        GripCurve("corner", "worst credible corner", _curve(static * force.corner_condition, mine, limit)),
        *(GripCurve("other", label, _curve(static, loss(s), limit)) for label, s in others.items()),
    ]
    cap, wall = force.cap_rpm, force.wall.limit_n if force.wall else None
    demand = _demand(asked.at, limit, grows=asked.grows)
    # At the worst corner what must be held is the load itself, once.
    worse = _demand(lambda rpm: asked.at_corner(rpm) / force.safety, limit, grows=asked.grows)
    most = max(*(y for c in curves for _, y in c.points), demand[0][1], worse[0][1])
    # The limits of chuck and wall are drawn where there is room for them: they must not press the curves flat.
    most = max([most, *(n for n in (force.grip.allowable_grip_n, wall or 0.0) if n < ROOM * most)])
    return ForceChart(
        rpm_most=limit,
        force_most_n=most * 1.08,
        curves=tuple(curves),
        demand=demand,
        demand_corner=worse,
        demand_n=max(load.needed_n for load in force.loads),
        allowable_n=force.grip.allowable_grip_n,
        cap_rpm=cap,
        cap_n=max(0.0, static - mine * cap**2),
        top_rpm=force.top_rpm,
        over=any(load.is_over for load in force.loads),
        wall_n=wall,
        pressures=_pressures(hold.chuck.force, force),
        pressure_bar=force.pressure_bar,
        pressure_path=f"{view.at}.force.pressure_bar",
        points=_points(view, force),
    )
