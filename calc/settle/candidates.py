"""Every combination of passes, feed and speed worth a try for one operation, with its time, forces and limits."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from calc.chuck.demand import CutLoad, GripDemandInput, Pushes, beside, terms_of
from calc.cuts.chip import Engaged, Forces, Metal, chip_of, forces_of
from calc.cuts.drilling import Drilled, drill_forces
from calc.cuts.spindle import Turning, motor_power, spindle_has, spindle_torque, turns
from calc.cuts.tool_life import Worn, edge_life, reference_here
from calc.many import MANY, Array
from calc.plan.cuts.edge import REFERENCE_DEPTH, REFERENCE_FEED, exponent_of, reference_speed, speed_window
from calc.plan.cuts.operations import in_solid, torque_across
from calc.plan.cuts.solve import CutFigures
from calc.plan.part.solve import PartFigures
from calc.route.time import Path, minutes_of
from calc.rules import Rules
from calc.threads.chip import thread_chip
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.rules.turning_columns import usable

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
    if planned.by_depth:
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
    low, high = speed_window(planned.kind, cut.tool, part.material)
    share = THREAD_SPEED if planned.kind == "thread" else 1.0
    return _stepped(0.4 * low * share, high * share, grid.speeds, SPEED_STEP)


def _passes(cut: CutFigures, stock: float, grid: Grid) -> NDArray[np.int64]:
    planned = cut.planned
    if planned.kind == "thread":
        return np.array([planned.passes]) if planned.pin_depth else np.arange(4, 21)
    if not planned.by_depth:
        return np.array([1])
    if planned.pin_depth and planned.depth_mm:
        return np.array([max(1, math.ceil(stock / planned.depth_mm - 1e-9))])
    deepest = usable(cut.tool) if cut.tool is not None and isinstance(cut.tool.edge, Insert) else 6.0
    least = max(1, math.ceil(stock / max(deepest, 0.05) - 1e-9))
    most = max(least, min(MOST_PASSES, math.ceil(stock / 0.2)))
    return np.unique(np.round(np.geomspace(least, most, grid.passes)).astype(np.int64))


@dataclass(frozen=True, eq=False)
class _Grid:
    """The candidates of an operation: passes, depth [mm], feed [mm/rev] and surface speed [m/min] of each."""

    passes: NDArray[np.int64]
    depth: Array
    feed: Array
    speed: Array


def _path(cut: CutFigures, tried: _Grid) -> Path[Array]:
    planned = cut.planned
    slow = None
    if planned.slow_feed_mm_rev is not None:  # it goes with the feed, as it is planned
        slow = tried.feed * (planned.slow_feed_mm_rev / (planned.feed_mm_rev or planned.slow_feed_mm_rev))
    return Path(
        planned.kind,
        planned.from_diameter_mm or 0.0,
        planned.to_diameter_mm or 0.0,
        cut.length_mm,
        tried.passes.astype(np.float64),
        tried.feed,
        slow,
        planned.slow_below_mm,
        planned.width_mm,
        planned.point_deg,
    )


@dataclass(frozen=True, eq=False)
class _Pushed:
    """Forces of the candidates [N]: tangential at the edge, along and across the axis, passive on a bar."""

    tangential: Array
    axial: Array
    radial: Array
    passive: Array


def _forces(cut: CutFigures, part: PartFigures, rules: Rules, tried: _Grid) -> _Pushed:
    """What `operation` says of one cut, of every candidate."""
    planned, m = cut.planned, part.material
    metal = Metal(m.kc11, m.mc, planned.rake_deg, m.rake_reference_deg, rules.worn)
    a, b, feed = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0, tried.feed
    nothing = np.zeros_like(feed)

    def chip(engaged: Engaged[Array]) -> Forces[Array]:
        return forces_of(MANY, engaged, chip_of(MANY, engaged), metal)

    if planned.kind == "drill":
        one = chip(Engaged(feed / 2, np.full_like(feed, (b - a) / 2), 0.0, planned.point_deg / 2))
        torque, thrust = drill_forces(MANY, one.tangential, Drilled(b, a, planned.point_deg))
        return _Pushed(torque_across(MANY, torque, b), in_solid(MANY, thrust, a), nothing, nothing)
    if planned.kind == "thread":
        thin = thread_chip(MANY, feed, tried.passes.astype(np.float64), internal=b > a)
        one = chip(Engaged(thin.thickness, thin.edge))
        return _Pushed(one.tangential, one.passive, one.feed, one.passive)
    if planned.kind in ("groove", "part"):
        one = chip(Engaged(feed, np.full_like(feed, planned.width_mm or 1.0)))
        return _Pushed(one.tangential, one.passive, one.feed, one.passive)
    one = chip(Engaged(feed, tried.depth, planned.corner_radius_mm, planned.approach_deg))
    if planned.kind == "face":
        return _Pushed(one.tangential, one.passive, one.feed, one.passive)
    return _Pushed(one.tangential, one.feed, one.passive, one.passive)


def _needed(asked: GripDemandInput, load: CutLoad, forces: _Pushed, factor: float, top: Array) -> Array:
    """Grip [N] that each candidate needs at its top speed, safety included."""
    unseated = forces.axial if load.unseated_axial_n > 0 else np.zeros_like(forces.axial)
    push = Pushes(
        factor * forces.tangential,
        forces.axial,
        forces.radial,
        unseated,
        load.cut_diameter_mm,
        load.overhang_mm,
        load.torque_only,
    )
    weighs = beside(MANY, asked, top) if asked.part_mass_kg > 0 else None
    return terms_of(MANY, "", push, asked, weighs).required


def _tried(cut: CutFigures, part: PartFigures, grid: Grid) -> _Grid:
    """Every combination of passes, feed and speed."""
    planned = cut.planned
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    stock = (part.face_stock_mm if planned.kind == "face" else abs(a - b) / 2) or planned.depth_mm or 0.5
    p3, f3, v3 = np.meshgrid(_passes(cut, stock, grid), _feeds(cut, grid), _speeds(cut, part, grid), indexing="ij")
    passes, feed, speed = p3.ravel(), f3.ravel(), v3.ravel()
    depth = np.full_like(feed, planned.width_mm or max(0.05, abs(a - b) / 2))
    if planned.by_depth:
        depth = np.full_like(feed, planned.depth_mm) if planned.pin_depth and planned.depth_mm else stock / passes
        depth = np.ceil(depth * 1000 - 1e-6) / 1000
    return _Grid(passes, depth, feed, speed)


@dataclass(frozen=True, eq=False)
class Settling:
    """What the candidates of an operation are tried in: the plan's figures, the rules, what the grip is asked.

    `load` is the operation's load as planned: its lever and seat count.
    """

    cut: CutFigures
    part: PartFigures
    rules: Rules
    asked: GripDemandInput
    load: CutLoad


def candidates(given: Settling, cap_rpm: float, grid: Grid = FINE) -> Candidates:
    """Every candidate of an operation with its limits, the grip's left to who asks.

    `cap_rpm` [rpm] is what the spindle may turn.
    """
    cut, part, rules = given.cut, given.part, given.rules
    planned, machine, material = cut.planned, part.machine, part.material
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    outer, inner, fixed = max(a, b), min(a, b), planned.rpm
    tried = _tried(cut, part, grid)
    feed, every = tried.feed, np.ones_like(tried.feed, dtype=bool)
    forces, drive = _forces(cut, part, rules, tried), Turning(tried.speed, fixed, cap_rpm)
    cuts_at = b if planned.kind == "drill" else outer
    rpm = np.full_like(feed, fixed) if fixed is not None else turns(MANY, drive, cuts_at)
    smallest = outer if planned.kind == "thread" else b if planned.kind == "drill" else inner
    top = rpm if fixed is not None else turns(MANY, drive, smallest) if smallest > 0 else np.full_like(feed, cap_rpm)
    real = np.pi * cuts_at * rpm / 1000
    power = motor_power(MANY, forces.tangential, real)
    torque = spindle_torque(MANY, forces.tangential, cuts_at)
    has_power, has_torque = spindle_has(MANY, machine.power_kw, machine.torque_nm, rpm)
    minutes = np.broadcast_to(minutes_of(MANY, _path(cut, tried), drive), feed.shape)
    needed = _needed(given.asked, given.load, forces, rules.interrupted if planned.interrupted else 1.0, top)
    worn = Worn(feed, np.maximum(tried.depth, 1e-3), REFERENCE_FEED, REFERENCE_DEPTH)
    v15 = reference_here(MANY, reference_speed(cut.tool, material), worn)
    life = edge_life(MANY, v15, real, exponent_of(cut.tool))
    limits: dict[str, Mask] = {
        "the spindle's power": power <= has_power * (1 + 1e-9),
        "the spindle's torque": torque <= has_torque * (1 + 1e-9),
        "the edge's life": (life >= np.maximum(rules.least_life_min, minutes)) | every * (planned.kind == "thread"),
    }
    if planned.kind == "thread":
        deep = thread_chip(MANY, feed, tried.passes.astype(np.float64), internal=b > a).depth
        limits["the first pass of the thread"] = deep / np.sqrt(tried.passes) <= FIRST_PASS_MM
    if fixed is not None:
        limits["the machine's speed"] = every & (fixed <= cap_rpm)
    soft = _add_edge_limits(limits, cut, tried)
    _add_stiffness(limits, cut, forces.passive, every)
    return Candidates(cut, tried.passes, tried.depth, feed, tried.speed, minutes, top, needed, life, limits, soft)


def _add_edge_limits(limits: dict[str, Mask], cut: CutFigures, tried: _Grid) -> tuple[str, ...]:
    """Limits of corner, finish, breaker and edge; gives the names of those that are given up where they clash."""
    planned, tool, window, feed, depth = cut.planned, cut.tool, cut.consulted.window, tried.feed, tried.depth
    r = planned.corner_radius_mm
    if not planned.by_depth:
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


def _add_stiffness(limits: dict[str, Mask], cut: CutFigures, passive: Array, every: Mask) -> None:
    """The bar bends no more than its tolerance stands, where there is one."""
    bar, tool = cut.consulted.bar, cut.tool
    if bar is None or tool is None or not isinstance(tool.carrier, Holder):
        return
    if bar.allowed_mm is None:
        return
    force = cut.result.passive_n
    bends = bar.deflection_mm / force * passive if force > 0 else np.zeros_like(passive)
    limits["the bar's bend"] = every & (bends <= bar.allowed_mm * (1 + 1e-9))
