"""Every combination of passes, feed and speed worth a try for one operation, with its time, forces and limits."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from calc.chuck.demand import CutLoad, GripDemandInput
from calc.cuts.timing import RUN_IN_MM, THREAD_RUN_IN
from calc.cuts.tool_life import DEPTH_EXPONENT, FEED_EXPONENT, REFERENCE_MIN
from calc.plan.about_cut import REFERENCE_DEPTH, REFERENCE_FEED, exponent_of, reference_speed, speed_factor
from calc.plan.cuts import CutFigures
from calc.plan.operations import CHISEL_TIMES, ROOT_WIDTH, THREAD_EXTERNAL, THREAD_INTERNAL
from calc.plan.part import PartFigures
from calc.rules import Rules
from calc.settle.vector import Array, forces, required
from calc.shelf.tools import Drill, GrooveInsert, Holder, Insert
from calc.tools.turning_columns import usable

Mask = NDArray[np.bool_]
MOST_PASSES = 40
FEED_STEP, SPEED_STEP = 0.001, 1.0
FIRST_PASS_MM, THREAD_SPEED = 0.4, 0.7  # typical: deepest first pass of a thread, and its speed over turning


@dataclass(frozen=True)
class Grid:
    """How finely feeds and speeds are tried."""

    feeds: int = 90
    speeds: int = 90
    passes: int = MOST_PASSES


FINE, COARSE = Grid(), Grid(36, 30, 12)


@dataclass(frozen=True, eq=False)
class Candidates:
    """Candidates of one operation, a row each. `limits`: name -> which of them keep it; `needed` grip [N] at their top
    speed.
    """

    cut: CutFigures
    passes: NDArray[np.int64]
    depth: Array
    feed: Array
    speed: Array
    minutes: Array
    top_rpm: Array
    needed: Array
    life: Array
    limits: dict[str, Mask]
    soft: tuple[str, ...]


def _stepped(low: float, high: float, count: int, step: float) -> Array:
    """Values from low to high that lie on the step, about `count` of them, geometric."""
    first, last = math.ceil(low / step - 1e-6), math.floor(high / step + 1e-6)
    if last < max(1, first):
        return np.array([max(step, high if high > 0 else step)])
    values = np.unique(np.round(np.geomspace(max(1, first), last, count)))
    return values * step


def _feeds(cut: CutFigures, grid: Grid) -> Array:
    planned, edge = cut.planned, cut.tool.edge if cut.tool else None
    if planned.kind == "thread" or planned.pin_feed:
        return np.array([planned.feed_mm_rev or 0.1])
    if planned.kind in ("turn", "face", "bore"):
        r = planned.corner_radius_mm
        high = max(0.05, 2 * r / 3 if r > 0 else 0.3)
        if isinstance(edge, Insert):
            high = min(high, edge.feed_max) if edge.feed_max > 0.02 else high
        return _stepped(0.02, high, grid.feeds, FEED_STEP)
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
    factor = speed_factor(cut.tool, part.material)
    factor *= THREAD_SPEED if planned.kind == "thread" else 1.0
    return _stepped(
        0.4 * part.material.speed_low_m_min * factor, part.material.speed_high_m_min * factor, grid.speeds, SPEED_STEP
    )


def _passes(cut: CutFigures, stock: float, grid: Grid) -> NDArray[np.int64]:
    planned = cut.planned
    if planned.kind == "thread":
        return np.array([planned.passes]) if planned.pin_depth else np.arange(4, 21)
    if planned.kind not in ("turn", "face", "bore"):
        return np.array([1])
    if planned.pin_depth and planned.depth_mm:
        return np.array([max(1, math.ceil(stock / planned.depth_mm - 1e-9))])
    deepest = usable(cut.tool) if cut.tool is not None and isinstance(cut.tool.edge, Insert) else 6.0
    least = max(1, math.ceil(stock / max(deepest, 0.05) - 1e-9))
    most = max(least, min(MOST_PASSES, math.ceil(stock / 0.2)))
    return np.unique(np.round(np.geomspace(least, most, grid.passes)).astype(np.int64))


def _minutes(cut: CutFigures, passes: NDArray[np.int64], depth: Array, feed: Array, speed: Array, cap: float) -> Array:
    """Time in cut [min] of every candidate: the vector form of `minutes_of`."""
    planned, length = cut.planned, cut.length_mm
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    outer, inner = max(a, b), min(a, b)
    fixed = planned.rpm

    def turns(d: Array | float) -> Array:
        if fixed is not None:
            return np.full_like(speed, min(cap, fixed))
        return np.minimum(cap, 1000 * speed / (np.pi * np.maximum(d, 1e-6)))

    def across(top: float, low: float, f: Array) -> Array:
        if fixed is not None:
            return (top - low) / 2 / (f * min(fixed, cap))
        turn = np.clip(1000 * speed / (np.pi * cap), low, top)
        return np.pi * (top**2 - turn**2) / (4000 * speed * f) + (turn - low) / (2 * f * cap)

    match planned.kind:
        case "face":
            return passes * across(outer, inner, feed)
        case "part" | "groove":
            slow = planned.slow_feed_mm_rev
            if planned.kind == "part" and slow is not None and inner < planned.slow_below_mm < outer:
                edge = planned.slow_below_mm
                share = slow / (planned.feed_mm_rev or slow)
                return across(outer, edge, feed) + across(edge, inner, feed * share)
            plunges = (
                math.ceil(length / planned.width_mm - 1e-9) if planned.kind == "groove" and planned.width_mm else 1
            )
            return plunges * across(outer, inner, feed)
        case "thread":
            return passes * (length + THREAD_RUN_IN * feed) / (feed * turns(outer))
        case "drill":
            tip = (b - a) / 2 / math.tan(math.radians(planned.point_deg / 2)) if planned.point_deg < 180 else 0.0
            return (length + tip) / (feed * turns(b))
    total = np.zeros_like(feed)
    sign = -1.0 if b > a else 1.0
    each = abs(a - b) / 2 / passes
    for i in range(1, int(passes.max()) + 1):
        d = np.maximum(a - 2 * sign * each * i, 1e-6)
        total += np.where(i <= passes, (length + RUN_IN_MM) / (feed * turns(d)), 0.0)
    return total


def _forces(
    cut: CutFigures, part: PartFigures, rules: Rules, passes: NDArray[np.int64], depth: Array, feed: Array
) -> tuple[Array, Array, Array, Array]:
    """(tangential at the edge for power, axial, radial, passive for bars) [N]: the vector form of `operation`."""
    planned, m = cut.planned, part.material
    rest = (planned.rake_deg, m.rake_reference_deg, m.kc11, m.mc, rules.worn)
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    if planned.kind == "drill":
        one = forces(feed / 2, np.full_like(feed, (b - a) / 2), 0.0, planned.point_deg / 2, *rest)
        both = 2 * one.tangential
        torque = both * (b + a) / 4000
        thrust = both / 2 * math.sin(math.radians(planned.point_deg / 2)) * (CHISEL_TIMES if a <= 0 else 1.0)
        return 2000 * torque / b, thrust, np.zeros_like(feed), np.zeros_like(feed)
    if planned.kind == "thread":
        deep = (THREAD_INTERNAL if b > a else THREAD_EXTERNAL) * feed
        area = (deep**2 * math.tan(math.radians(30)) + ROOT_WIDTH * feed * deep) / passes
        edge = 2 * deep / math.cos(math.radians(30)) + ROOT_WIDTH * feed
        one = forces(area / edge, edge, 0.0, 90.0, *rest)
        return one.tangential, one.passive, one.feed, one.passive
    if planned.kind in ("groove", "part"):
        one = forces(feed, np.full_like(feed, planned.width_mm or 1.0), 0.0, 90.0, *rest)
        return one.tangential, one.passive, one.feed, one.passive
    one = forces(feed, depth, planned.corner_radius_mm, planned.approach_deg, *rest)
    if planned.kind == "face":
        return one.tangential, one.passive, one.feed, one.passive
    return one.tangential, one.feed, one.passive, one.passive


def candidates(
    cut: CutFigures,
    part: PartFigures,
    rules: Rules,
    asked: GripDemandInput,
    load: CutLoad,
    cap_rpm: float,
    grid: Grid = FINE,
) -> Candidates:
    """Every candidate of an operation with its limits, the grip's left to who asks.

    `load` is the operation's load as planned: its lever and seat count; `cap_rpm` [rpm] what the spindle may turn.
    """
    planned, machine, material = cut.planned, part.machine, part.material
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    outer, inner = max(a, b), min(a, b)
    stock = part.face_stock_mm if planned.kind == "face" else abs(a - b) / 2
    stock = stock or planned.depth_mm or 0.5
    p1, f1, v1 = _passes(cut, stock, grid), _feeds(cut, grid), _speeds(cut, part, grid)
    p3, f3, v3 = np.meshgrid(p1, f1, v1, indexing="ij")
    passes, feed, speed = p3.ravel(), f3.ravel(), v3.ravel()
    by_passes = planned.kind in ("turn", "face", "bore")
    depth = stock / passes if by_passes else np.full_like(feed, planned.width_mm or max(0.05, (outer - inner) / 2))
    if planned.pin_depth and planned.depth_mm and by_passes:
        depth = np.full_like(feed, planned.depth_mm)
    depth = np.ceil(depth * 1000 - 1e-6) / 1000 if by_passes else depth
    tangential, axial, radial, passive = _forces(cut, part, rules, passes, depth, feed)
    fixed = planned.rpm
    cuts_at = b if planned.kind == "drill" else outer
    rpm = (
        np.full_like(speed, fixed)
        if fixed is not None
        else np.minimum(cap_rpm, 1000 * speed / (np.pi * max(cuts_at, 1e-6)))
    )
    smallest = outer if planned.kind == "thread" else b if planned.kind == "drill" else inner
    top = (
        rpm
        if fixed is not None
        else np.full_like(speed, cap_rpm)
        if smallest <= 0
        else np.minimum(cap_rpm, 1000 * speed / (np.pi * smallest))
    )
    real = np.pi * cuts_at * rpm / 1000
    power, torque = tangential * real / 60000 / 0.8, tangential * cuts_at / 2000
    has_power = np.minimum(machine.power_kw, machine.torque_nm * 2 * np.pi * rpm / 60000)
    has_torque = np.minimum(machine.torque_nm, 60000 * machine.power_kw / (2 * np.pi * rpm))
    minutes = _minutes(cut, passes, depth, feed, speed, cap_rpm)
    factor = rules.interrupted if planned.interrupted else 1.0
    needed = required(
        asked,
        factor * tangential,
        axial,
        radial,
        axial if load.unseated_axial_n > 0 else np.zeros_like(axial),
        load.cut_diameter_mm,
        load.overhang_mm,
        top,
        torque_only=load.torque_only,
    )
    n = exponent_of(cut.tool)
    v15 = (
        reference_speed(cut.tool, material)
        * (REFERENCE_FEED / feed) ** FEED_EXPONENT
        * (REFERENCE_DEPTH / np.maximum(depth, 1e-3)) ** DEPTH_EXPONENT
    )
    life = REFERENCE_MIN * (v15 / real) ** (1 / n)
    every = np.ones_like(feed, dtype=bool)
    limits: dict[str, Mask] = {
        "the spindle's power": power <= has_power * (1 + 1e-9),
        "the spindle's torque": torque <= has_torque * (1 + 1e-9),
        "the edge's life": (life >= np.maximum(rules.least_life_min, minutes)) | every * (planned.kind == "thread"),
    }
    if planned.kind == "thread":
        deep = (THREAD_INTERNAL if b > a else THREAD_EXTERNAL) * feed
        limits["the first pass of the thread"] = deep / np.sqrt(passes) <= FIRST_PASS_MM
    if fixed is not None:
        limits["the machine's speed"] = every & (fixed <= cap_rpm)
    soft = _add_edge_limits(limits, cut, planned.corner_radius_mm, feed, depth, every)
    _add_stiffness(limits, cut, part, passive, every)
    return Candidates(cut, passes, depth, feed, speed, minutes, top, needed, life, limits, soft)


def _add_edge_limits(
    limits: dict[str, Mask], cut: CutFigures, r: float, feed: Array, depth: Array, every: Mask
) -> tuple[str, ...]:
    """Limits of corner, finish, breaker and edge; gives the names of those that are given up where they clash."""
    planned, tool, window = cut.planned, cut.tool, cut.about.window
    if planned.kind not in ("turn", "face", "bore"):
        return ()
    soft: list[str] = []
    if window is not None and r > 0:
        schools = window.schools
        limits["two thirds of the corner"] = feed <= (schools.radius.feed_max_mm_rev or 9) * (1 + 1e-9)
        limits["a third of the corner"] = feed >= (schools.radius.feed_min_mm_rev or 0) * (1 - 1e-9)
        limits["depth of a corner radius"] = depth >= r * (1 - 1e-9)
        soft += ["a third of the corner", "depth of a corner radius"]
        if schools.finish is not None:
            limits["the finish"] = feed <= (schools.finish.feed_max_mm_rev or 9) * (1 + 1e-9)
    if tool is not None and isinstance(tool.edge, Insert):
        w = tool.edge.breaker
        limits["the breaker's largest feed"] = feed <= w.feed_max * (1 + 1e-9)
        limits["the breaker's least feed"] = feed >= w.feed_min * (1 - 1e-9)
        limits["the breaker's depth"] = (depth >= w.depth_min * (1 - 1e-9)) & (depth <= w.depth_max * (1 + 1e-9))
        limits["the edge's usable depth"] = depth <= usable(tool) * (1 + 1e-9)
        soft += ["the breaker's least feed", "the breaker's depth"]
    if planned.pin_feed:
        for name in ("two thirds of the corner", "the breaker's largest feed"):
            if name in limits:
                soft.append(name)
    return tuple(soft)


def _add_stiffness(limits: dict[str, Mask], cut: CutFigures, part: PartFigures, passive: Array, every: Mask) -> None:
    """The bar bends no more than its tolerance stands, where there is one."""
    bar, tool = cut.about.bar, cut.tool
    if bar is None or tool is None or not isinstance(tool.carrier, Holder):
        return
    allowed = next((s.value for s in bar.working if s.symbol == "δ_a"), None)
    if allowed is None:
        return
    force = next((s.values["F"] for s in bar.working if s.symbol == "δ"), 0.0)
    if force > 0:
        limits["the bar's bend"] = bar.deflection_mm / force * passive <= allowed * (1 + 1e-9)
    else:
        limits["the bar's bend"] = every
