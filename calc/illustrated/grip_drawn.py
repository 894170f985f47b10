"""Pictures of the grip's calculators: grip against pressure and speed."""

from __future__ import annotations

import math

from calc.chuck.fit import GripFitInput, GripFitResult
from calc.chuck.grip import ChuckGripInput, ChuckGripResult
from calc.chuck.speed import GripAtSpeedInput, GripAtSpeedResult
from calc.chuck.speed_limit import SpeedLimitInput, SpeedLimitResult
from calc.illustrated.graph import Axis, Graph, Level, Line, line_of
from calc.quantities import Figure, Sentence

ROOM = 1.15  # times what is drawn


def _kept(static_n: float, lost_n: float, rpm: float, outside: bool) -> float:
    return max(0.0, static_n - lost_n * rpm * rpm) if outside else static_n + lost_n * rpm * rpm


def at_speed(given: GripAtSpeedInput, found: GripAtSpeedResult) -> Graph | None:
    """What is left of the grip over the speed."""
    if given.rpm == 0:
        return None
    outside, lost = given.side == "od", given.transmission * found.centrifugal_n / given.rpm**2
    most = ROOM * given.rpm
    curve = line_of("", 0, most, lambda n: _kept(given.static_grip_n, lost, n, outside))
    words = Sentence(
        "The grip goes from {a} standing still to {b} at {n}.",
        a=Figure(given.static_grip_n, "N", "down"),
        b=Figure(found.grip_n, "N", "down"),
        n=Figure(given.rpm, "rpm"),
    )
    levels = (Level("y", "a third", given.static_grip_n / 3, "danger"),) if outside else ()
    top = ROOM * max(y for _, y in curve.points)
    axes = Axis("spindle speed", "rpm", 0, most), Axis("grip", "N", 0, top)
    return Graph(*axes, (curve,), words, levels, mark=(given.rpm, found.grip_n))


def speed_cap(given: SpeedLimitInput, found: SpeedLimitResult) -> Graph | None:
    """Grip and demand over the speed, and where the cap is."""
    loss = given.jaws * sum(p.mass_kg * p.radius_mm / 1000 for p in given.stack) * (math.pi / 30) ** 2
    most = ROOM * max(given.chuck_max_rpm, found.speed_cap_rpm)
    outside, lost = given.side == "od", given.transmission * loss
    curve = line_of("grip", 0, most, lambda n: _kept(given.static_grip_n, lost, n, outside))
    demand = Line("needed", ((0, given.required_grip_n), (most, given.required_grip_n)), "other")
    top = ROOM * max(given.required_grip_n, *(y for _, y in curve.points))
    words = Sentence(
        "The cap is {n}; {g} are needed.",
        n=Figure(found.speed_cap_rpm, "rpm", "down"),
        g=Figure(given.required_grip_n, "N", "up"),
    )
    levels = (Level("x", "cap", found.speed_cap_rpm, "aim"),)
    return Graph(Axis("spindle speed", "rpm", 0, most), Axis("grip", "N", 0, top), (curve, demand), words, levels)


def at_pressure(given: ChuckGripInput, found: ChuckGripResult) -> Graph | None:
    """The chart at this height and condition, as far as the chuck's book goes."""
    chuck = given.chuck
    if not found.grip_n or not given.pressure_bar:
        return None
    if chuck.chart:
        share = found.height_factor * given.condition_factor
        curve = Line("", tuple((p.pressure_bar, p.grip_n * share) for p in chuck.chart))
    else:
        per_bar = found.grip_n / given.pressure_bar
        curve = Line("", ((0, 0), (chuck.max_pressure_bar, per_bar * chuck.max_pressure_bar)))
    top = ROOM * max(found.allowable_grip_n, *(y for _, y in curve.points))
    words = Sentence(
        "At {p} the jaws hold with {g}; at this height the chuck stands {a}.",
        p=Figure(given.pressure_bar, "bar"),
        g=Figure(found.grip_n, "N", "down"),
        a=Figure(found.allowable_grip_n, "N", "down"),
    )
    levels = (Level("y", "chuck stands", found.allowable_grip_n, "danger"),)
    axes = Axis("pressure", "bar", 0, chuck.max_pressure_bar), Axis("grip", "N", 0, top)
    return Graph(*axes, (curve,), words, levels, mark=(given.pressure_bar, found.grip_n))


def gauge_run(given: GripFitInput, found: GripFitResult) -> Graph | None:
    """The readings, and the line through them."""
    most, sign = ROOM * max(p.rpm for p in given.points), -1 if given.side == "od" else 1
    if most <= 0:
        return None
    curve = line_of("", 0, most, lambda n: max(0.0, found.static_grip_n + sign * found.k_n_per_rpm2 * n * n))
    dots = tuple((p.rpm, p.grip_n) for p in given.points)
    top = ROOM * max(y for _, y in (*curve.points, *dots))
    words = Sentence(
        "{n} readings; standing still the line gives {a}.", n=str(len(dots)), a=Figure(found.static_grip_n, "N", "down")
    )
    return Graph(Axis("spindle speed", "rpm", 0, most), Axis("grip", "N", 0, top), (curve,), words, dots=dots)
