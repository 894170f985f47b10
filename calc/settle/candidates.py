"""Every combination of passes, feed and speed worth a try for one operation, with its time, forces and limits."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from calc.chuck.centre import centre_thrust
from calc.cuts.chip import Engaged, Forces, Metal, chip_of, forces_of
from calc.cuts.drilling import Drilled, drill_forces
from calc.cuts.economic_speed import MOST_LIFE_MIN
from calc.cuts.feed_window import finish_feed
from calc.cuts.spindle import Turning, motor_power, spindle_has, spindle_torque, turns
from calc.cuts.tool_life import Worn, edge_life, reference_here
from calc.many import MANY, Array
from calc.plan.cuts.edge import REFERENCE_DEPTH, REFERENCE_FEED, exponent_of, reference_speed, speed_window
from calc.plan.cuts.minutes import length_gone, passes_of
from calc.plan.cuts.operations import blade_in_cut, in_solid, torque_across
from calc.plan.cuts.solve import CutFigures
from calc.plan.part.solve import PartFigures
from calc.route.time import Path, minutes_of
from calc.rules import Rules
from calc.settle.grid import Tried
from calc.settle.grip import Asking, Grip, Pushed, allowed_rpm
from calc.threads.chip import thread_chip
from calc.tools.boring_bar import chatter_width, spread_of
from calc.tools.kinds.insert import Insert
from calc.tools.rules.turning_columns import usable

Mask = NDArray[np.bool_]
Goal = Literal["quickest", "cheapest", "life"]
GOALS: dict[str, str] = {"quickest": "the quickest piece", "cheapest": "the cheapest piece", "life": "long edge life"}
LONG_LIFE_MIN = 30.0  # typical: what an edge lasts at the least where long life is the goal
CLAMP_STEP_RPM = 10.0
TURNED_RA_UM = 3.2  # typical: what a finishing cut leaves where the print gives no Ra
FIRST_PASS_MM = 0.4  # typical: deepest first pass of a thread
GRIP, CAP, WINDOW, LIFE = "the grip at speed", "the speed cap", "the material's window", "the edge's life"


@dataclass(frozen=True, eq=False)
class Candidates:
    """Candidates of one operation, a row each.

    `minutes` in cut of a piece, `counted` with its share of the edge changes; `clamp` [rpm] that the row is given, 0
    where it carries none. `limits`: name -> which of them keep it; `soft` are given up where nothing is left else, the
    last first.
    """

    cut: CutFigures
    passes: NDArray[np.int64]
    depth: Array
    feed: Array
    speed: Array
    minutes: Array
    counted: Array
    clamp: Array
    life: Array
    limits: dict[str, Mask]
    soft: tuple[str, ...]


@dataclass(frozen=True, eq=False)
class Settling:
    """What the candidates of an operation are tried in: the plan's figures, the rules, the goal, what the grip is
    asked.
    """

    cut: CutFigures
    part: PartFigures
    rules: Rules
    goal: Goal
    asking: Asking
    centre_thrust_n: float | None = None  # what a live centre is pressed with

    @property
    def least_life_min(self) -> float:
        """How long an edge must last [min]."""
        return LONG_LIFE_MIN if self.goal == "life" else self.rules.least_life_min

    @property
    def change_min(self) -> float:
        """What an edge change counts [min]: for the cheapest piece with the minutes that the edge's price would buy."""
        bought = self.rules.edge_cost / self.rules.minute_cost if self.rules.minute_cost else 0.0
        return self.rules.edge_change_min + (bought if self.goal == "cheapest" else 0.0)


def _path(cut: CutFigures, tried: Tried) -> Path[Array]:
    planned = cut.planned
    slow = None
    if planned.slow_feed_mm_rev is not None:  # it goes with the feed, as it is planned
        slow = tried.feed * (planned.slow_feed_mm_rev / (planned.feed_mm_rev or planned.slow_feed_mm_rev))
    return Path(
        planned.kind,
        planned.from_diameter_mm or 0.0,
        planned.to_diameter_mm or 0.0,
        length_gone(planned, cut.length_mm),
        np.broadcast_to(passes_of(planned, tried.passes.astype(np.float64)), tried.feed.shape),
        tried.feed,
        slow,
        planned.slow_below_mm,
        planned.width_mm,
        planned.point_deg,
    )


def _forces(cut: CutFigures, part: PartFigures, wear: float, tried: Tried) -> Pushed:
    """What `operation` says of one cut, of every candidate."""
    planned, m = cut.planned, part.material
    metal = Metal(m.kc11, m.mc, planned.rake_deg, m.rake_reference_deg, wear)
    a, b, feed = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0, tried.feed
    nothing = np.zeros_like(feed)

    def chip(engaged: Engaged[Array]) -> Forces[Array]:
        return forces_of(MANY, engaged, chip_of(MANY, engaged), metal)

    if planned.kind == "drill":
        one = chip(Engaged(feed / 2, np.full_like(feed, (b - a) / 2), 0.0, planned.point_deg / 2))
        torque, thrust = drill_forces(MANY, one.tangential, Drilled(b, a, planned.point_deg))
        return Pushed(torque_across(MANY, torque, b), in_solid(MANY, thrust, a), nothing, nothing)
    if planned.kind == "thread":
        thin = thread_chip(MANY, feed, tried.passes.astype(np.float64), internal=b > a)
        one = chip(Engaged(thin.thickness, thin.edge))
        return Pushed(one.tangential, one.passive, one.feed, one.passive)
    if planned.kind in ("groove", "part"):
        one = chip(Engaged(feed, np.full_like(feed, blade_in_cut(planned))))
        return Pushed(one.tangential, one.passive, one.feed, one.passive)
    one = chip(Engaged(feed, tried.depth, planned.corner_radius_mm, planned.approach_deg))
    if planned.kind == "face":
        return Pushed(one.tangential, one.passive, one.feed, one.passive)
    return Pushed(one.tangential, one.feed, one.passive, one.passive)


@dataclass(frozen=True, eq=False)
class _Spun:
    """How fast the candidates turn [rpm]: where they cut hardest, at the most, and the clamp they are given."""

    drive: Turning[Array]
    hardest: Array
    clamp: Array
    held: Mask


def _spun(given: Settling, tried: Tried, forces: Pushed, grip: Grip) -> _Spun:
    cut = given.cut
    planned, feed = cut.planned, tried.feed
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    outer, inner = max(a, b), min(a, b)
    most = allowed_rpm(given.asking, forces, grip)
    cuts_at = b if planned.kind == "drill" else outer
    if planned.rpm is not None:
        fixed = np.full_like(feed, planned.rpm)
        return _Spun(
            Turning(tried.speed, planned.rpm, planned.rpm), fixed, np.zeros_like(feed), fixed <= most * (1 + 1e-12)
        )
    # A clamp is written in whole steps, rounded down; it need be no higher than the cut ever turns.
    clamp = np.floor(most / CLAMP_STEP_RPM + 1e-9) * CLAMP_STEP_RPM
    clamp = np.where(clamp > 0, clamp, np.floor(most))
    smallest = outer if planned.kind == "thread" else b if planned.kind == "drill" else inner
    if smallest > 0:
        turned = np.ceil(1000 * tried.speed / (np.pi * smallest) / CLAMP_STEP_RPM) * CLAMP_STEP_RPM
        clamp = np.minimum(clamp, turned)
    held = clamp >= 1.0
    drive = Turning(tried.speed, None, np.maximum(clamp, 1.0))
    return _Spun(drive, turns(MANY, drive, cuts_at), clamp, held)


def candidates(given: Settling, tried: Tried, grip: Grip) -> Candidates:
    """What is tried of an operation, with its time, its clamp and its limits.

    Every row has the highest clamp at which it is held, so that the grip limits its time and not whether it is there.
    """
    cut, part, rules = given.cut, given.part, given.rules
    planned, machine, material = cut.planned, part.machine, part.material
    outer = max(planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0)
    forces = _forces(cut, part, rules.worn, tried)
    spun = _spun(given, tried, forces, grip)
    cuts_at = (planned.to_diameter_mm or 0.0) if planned.kind == "drill" else outer
    real = np.pi * cuts_at * spun.hardest / 1000
    power = motor_power(MANY, forces.tangential, real)
    torque = spindle_torque(MANY, forces.tangential, cuts_at)
    has_power, has_torque = spindle_has(MANY, machine.power_kw, machine.torque_nm, spun.hardest)
    minutes = np.broadcast_to(minutes_of(MANY, _path(cut, tried), spun.drive), tried.feed.shape)
    worn = Worn(tried.feed, np.maximum(tried.depth, 1e-3), REFERENCE_FEED, REFERENCE_DEPTH)
    v15 = reference_here(MANY, reference_speed(cut.tool, material), worn)
    life = np.minimum(MOST_LIFE_MIN, edge_life(MANY, v15, real, exponent_of(cut.tool)))
    thread = planned.kind == "thread"
    counted = minutes if thread else minutes * (1 + given.change_min / life)
    low, _ = speed_window(planned.kind, cut.tool, material)
    limits: dict[str, Mask] = {
        GRIP: spun.held,
        "the spindle's power": power <= has_power * (1 + 1e-9),
        "the spindle's torque": torque <= has_torque * (1 + 1e-9),
        LIFE: (life >= np.maximum(given.least_life_min, minutes)) | thread,
        WINDOW: (real >= low * (1 - 1e-9)) | thread,
    }
    if given.centre_thrust_n is not None and not cut.torque_only:
        away = forces.axial if planned.feeds_away else 0.0
        lifts = rules.heavier * centre_thrust(MANY, given.asking.factor * forces.tangential, forces.radial, away)
        limits["the live centre's thrust"] = lifts <= given.centre_thrust_n * (1 + 1e-9)
    if thread:
        deep = thread_chip(MANY, tried.feed, tried.passes.astype(np.float64), internal=_internal(cut)).depth
        limits["the first pass of the thread"] = deep / np.sqrt(tried.passes) <= FIRST_PASS_MM
        limits["the machine's threading feed"] = tried.feed * spun.hardest / 1000 <= machine.threading_m_min * (
            1 + 1e-9
        )
    soft = _add_edge_limits(limits, cut, tried)
    soft += _add_stiffness(limits, given, tried)
    return Candidates(
        cut,
        tried.passes,
        tried.depth,
        tried.feed,
        tried.speed,
        minutes,
        counted,
        spun.clamp,
        life,
        limits,
        (WINDOW, *soft),
    )


def _internal(cut: CutFigures) -> bool:
    return (cut.planned.to_diameter_mm or 0.0) > (cut.planned.from_diameter_mm or 0.0)


def _add_edge_limits(limits: dict[str, Mask], cut: CutFigures, tried: Tried) -> tuple[str, ...]:
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
        elif planned.stage == "finish":  # the print asks nothing: as any turned surface
            limits["a turned finish"] = feed <= finish_feed(TURNED_RA_UM, r) * (1 + 1e-9)
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


def _add_stiffness(limits: dict[str, Mask], given: Settling, tried: Tried) -> tuple[str, ...]:
    """A bar in its bore: finishing, the spread of its bend within the tolerance; roughing, the chip that it chatters
    at.
    """
    cut, bar = given.cut, given.cut.consulted.bar
    if bar is None:
        return ()
    asked = cut.consulted.bar_asked
    assert asked is not None
    off = cut.consulted.stock_off_mm
    if asked.tolerance_mm is not None and off is not None:

        def passive(depth: Array) -> Array:
            return _forces(cut, given.part, 1.0, Tried(tried.passes, depth, tried.feed, tried.speed)).passive

        spread = spread_of(passive, tried.depth, asked, off)
        limits["the bar's bend"] = spread <= asked.tolerance_mm / 4 * (1 + 1e-9)
        return ()
    if cut.planned.stage != "rough":
        return ()
    m, engaged = (
        given.part.material,
        Engaged(tried.feed, tried.depth, cut.planned.corner_radius_mm, cut.planned.approach_deg),
    )
    chip = chip_of(MANY, engaged)
    limits["the bar's chatter"] = chip.edge <= chatter_width(MANY, asked, m.kc11 * chip.thickness ** (-m.mc))
    return ("the bar's chatter",)
