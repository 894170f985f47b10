"""Parting off: where the spindle tops out, feeds, time, reach and kerf: calculator `part-off`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Generic

from calc import terms
from calc.cuts.spindle import Turning
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import BOOK, N, Steps, Working, derived, typical

CROSS = derived("Facing and parting off")
MOST_PECKS = 1000
REACH_SPARE_MM = 2.0  # typical: the blade goes two millimetres past the centre
# Typical width [mm] up to a diameter [mm] in solid.
WIDTHS = ((25.0, 2.0), (50.0, 3.0), (80.0, 4.0))


@dataclass(frozen=True)
class PartOffInput(Checked):
    """Input of `part-off`."""

    diameter_mm: Annotated[float, Quantity("Diameter", "mm", "Where the blade enters", above=0, high=2000)]
    width_mm: Annotated[float, terms.EDGE_WIDTH.called(help="Of its insert")]
    speed_m_min: Annotated[float, terms.SURFACE_SPEED]
    feed_mm_rev: Annotated[float, terms.FEED]
    max_rpm: Annotated[float, terms.SPEED_LIMIT]
    end_diameter_mm: Annotated[float, Quantity("Ends at", "mm", "0 at the centre, or the bore", low=0, high=2000)] = 0.0
    slow_feed_mm_rev: Annotated[
        float | None, Quantity("Feed near the centre", "mm/rev", "A half to a quarter of the feed", above=0, high=5)
    ] = None
    slow_below_mm: Annotated[float, terms.SLOW_BELOW] = 5.0
    reach_mm: Annotated[float | None, Quantity("Reach", "mm", "How far the blade hangs out", above=0, high=1000)] = None
    reach_max_mm: Annotated[
        float | None, Quantity("Most reach", "mm", "The blade's stated hang-out", above=0, high=1000)
    ] = None
    peck_mm: Annotated[
        float | None, Quantity("Peck", "mm", "Step of a peck, per side; empty: none", above=0, high=50)
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.end_diameter_mm >= self.diameter_mm:
            words = Sentence(
                "It must end smaller than it enters: less than {d}.", d=Figure(self.diameter_mm, "mm", exact=True)
            )
            yield FieldError("end_diameter_mm", words)
        if self.slow_feed_mm_rev is not None and self.slow_feed_mm_rev > self.feed_mm_rev:
            words = Sentence(
                "The slow feed cannot be above the feed, {f}.", f=Figure(self.feed_mm_rev, "mm/rev", exact=True)
            )
            yield FieldError("slow_feed_mm_rev", words)
        least = (self.diameter_mm - self.end_diameter_mm) / 2 / MOST_PECKS
        if self.peck_mm is not None and self.peck_mm < least:
            words = Sentence(
                "That is more than {n} pecks: take {p} at least.", n=str(MOST_PECKS), p=Figure(least, "mm", "up")
            )
            yield FieldError("peck_mm", words)


@dataclass(frozen=True, slots=True)
class FeedStep:
    """A stretch of the plunge, from one diameter [mm] to a smaller one, and its feed [mm/rev]."""

    from_mm: Annotated[float, Found("from Ø", "mm")]
    to_mm: Annotated[float, Found("to Ø", "mm")]
    feed_mm_rev: Annotated[float, Found("feed", "mm/rev")]


@dataclass(frozen=True, slots=True, kw_only=True)
class PartOffResult(Explained):
    """Figures of the plunge. `reach_ok` is None while no reach is given."""

    cap_diameter_mm: Annotated[float, Found("Spindle tops out below", "mm")]
    minutes: Annotated[float, Found("Time", "min", "up")]
    kerf_mm: Annotated[float, Found("Kerf", "mm")]
    reach_ok: Annotated[bool | None, Found("Blade reaches")]
    feeds: Annotated[tuple[FeedStep, ...], Found("Each stretch")]
    pecks: Annotated[int, Found("Pecks")]


@dataclass(frozen=True, eq=False)
class Stretch(Generic[N]):
    """A cut across the axis from a diameter to a smaller one [mm], at a feed [mm/rev]."""

    outer: float
    inner: float
    feed: N


def cap_diameter(w: Steps[N], speed: N, max_rpm: N | float) -> N:
    """Diameter [mm] below which the spindle cannot hold the surface speed [m/min] any more.

    >>> round(cap_diameter(Working(), 200.0, 3000), 2)
    21.22

    Reference: d = v/(π·n).
    """
    return w.step("d_cap", "Where the spindle tops out", "1000*v / (pi*n_max)", "mm", CROSS, v=speed, n_max=max_rpm)


def cross_minutes(w: Steps[N], stretch: Stretch[N], drive: Turning[N], symbol: str = "t", label: str = "Time") -> N:
    """Time [min] of a cut across the axis: at constant surface speed down to where the spindle tops out, then at that.

    Parameters: diameters 0…2000 [mm], feed above 0…5 [mm/rev]; the drive's speed [m/min] or rpm, and cap [rpm].

    >>> round(cross_minutes(Working(), Stretch(80, 0, 0.2), Turning(200.0, None, 3000)), 4)
    0.1345
    >>> cross_minutes(Working(), Stretch(60, 20, 0.1), Turning(None, 800, 4000))
    0.25

    Reference: derived in docs/method.md, “Facing and parting off”.
    """
    far, near, f = stretch.outer, stretch.inner, stretch.feed
    if drive.rpm is not None:
        fixed = {"n_e": drive.rpm, "n_max": drive.cap}
        return w.step(symbol, label, "(D - d)/2 / (f*min(n_e, n_max))", "min", CROSS, D=far, d=near, f=f, **fixed)
    speed = drive.speed
    assert speed is not None
    where = {"D": far, "d": near, "v": speed, "n_max": drive.cap}
    turn = w.step("d_t", "Where it turns at that speed", "max(d, min(D, 1000*v / (pi*n_max)))", "mm", CROSS, **where)
    text = "pi*(D**2 - d_t**2) / (4000*v*f) + (d_t - d)/(2*f*n_max)"
    return w.step(symbol, label, text, "min", CROSS, d_t=turn, f=f, **where)


def width_for(diameter_mm: float) -> float | None:
    """Typical insert width [mm] to part solid stock of this diameter; None where that is beyond the table.

    >>> width_for(24), width_for(36), width_for(100)
    (2.0, 3.0, None)

    Reference: typical; docs/method.md, “Facing and parting off”.
    """
    return next((w for most, w in WIDTHS if diameter_mm <= most), None)


@calculator(PartOffInput)
def part_off(given: PartOffInput) -> PartOffResult:
    """Where the spindle tops out while parting off, the feeds, the time, and whether the blade reaches.

    Parameters
        {parameters}
    Returns
        cap_diameter_mm [mm]; minutes [min] in cut; kerf_mm (the width); reach_ok: at least the radius and
        2 mm, and no more than the blade's stated hang-out; feeds: the stretches; pecks: how many, 0 none
    Raises
        CalcError for values outside these ranges, or an end as large as the start
    Validity
        Retracts of pecking are not counted.
    Example
        >>> r = part_off(PartOffInput(36, 3, 120, 0.1, 3000, slow_feed_mm_rev=0.04))
        >>> round(r.cap_diameter_mm, 2), [(s.from_mm, s.to_mm) for s in r.feeds]
        (12.73, [(36, 5.0), (5.0, 0.0)])

    Reference
        Derived in docs/method.md, “Facing and parting off”
    """
    w = Working()
    cap = cap_diameter(w, given.speed_m_min, given.max_rpm)
    drive = Turning(given.speed_m_min, None, given.max_rpm)
    stretches = _stretches(given)
    minutes = 0.0
    for i, s in enumerate(stretches, start=1):
        stretch = Stretch(s.from_mm, s.to_mm, s.feed_mm_rev)
        t = cross_minutes(w, stretch, drive, f"t_{i}", f"Time of stretch {i}")
        minutes = w.step("t_c", "Time in cut", "t + t_i", "min", CROSS, t=minutes, t_i=t) if i > 1 else t
    reach_ok = _reach(given, w)
    typical_width = width_for(given.diameter_mm)
    if typical_width is not None and given.end_diameter_mm == 0 and given.width_mm < typical_width:
        w.note(
            "caution",
            "blade-narrow",
            "For Ø{d} in solid {w} is usual: a narrower blade wanders.",
            d=Figure(given.diameter_mm, "mm", exact=True),
            w=Figure(typical_width, "mm"),
        )
    if cap > given.end_diameter_mm:
        w.note(
            "info",
            "spindle-tops-out",
            "From Ø{d} inwards the spindle turns {n} and the surface speed falls: cut the feed by half to three "
            "quarters from about {s}.",
            d=Figure(min(cap, given.diameter_mm), "mm", places=(1, 3)),
            n=Figure(given.max_rpm, "rpm", "down"),
            s=Figure(given.slow_below_mm, "mm"),
        )
    depth = (given.diameter_mm - given.end_diameter_mm) / 2
    count = math.ceil(depth / given.peck_mm - 1e-9) if given.peck_mm is not None else 0
    if count:
        w.note("info", "pecks", "Pecking breaks a stringy chip and costs tool life.")
    return PartOffResult(
        cap_diameter_mm=cap,
        minutes=minutes,
        kerf_mm=given.width_mm,
        reach_ok=reach_ok,
        feeds=stretches,
        pecks=count,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _stretches(given: PartOffInput) -> tuple[FeedStep, ...]:
    slow, edge = given.slow_feed_mm_rev, given.slow_below_mm
    if slow is None or edge <= given.end_diameter_mm:
        return (FeedStep(given.diameter_mm, given.end_diameter_mm, given.feed_mm_rev),)
    if edge >= given.diameter_mm:
        return (FeedStep(given.diameter_mm, given.end_diameter_mm, slow),)
    return (FeedStep(given.diameter_mm, edge, given.feed_mm_rev), FeedStep(edge, given.end_diameter_mm, slow))


def _reach(given: PartOffInput, w: Working) -> bool | None:
    if given.reach_mm is None:
        return None
    # Into a bore it need only clear the wall.
    wanted = w.step(
        "L_w",
        "Reach wanted",
        "(D - d)/2 + s",
        "mm",
        typical("two millimetres past the cut"),
        D=given.diameter_mm,
        d=given.end_diameter_mm,
        s=REACH_SPARE_MM,
    )
    w.step("L", "Reach there is", "l", "mm", BOOK, l=given.reach_mm)
    enough = given.reach_mm >= wanted * (1 - 1e-9)
    within = given.reach_max_mm is None or given.reach_mm <= given.reach_max_mm * (1 + 1e-9)
    if not enough:
        w.note(
            "stop",
            "blade-short",
            "The blade reaches {r}; {n} is needed for Ø{d}.",
            r=Figure(given.reach_mm, "mm", "down"),
            n=Figure(wanted, "mm", "up"),
            d=Figure(given.diameter_mm, "mm", exact=True),
        )
    if not within:
        assert given.reach_max_mm is not None
        w.note(
            "stop",
            "blade-out-too-far",
            "The blade hangs out {r}, over the {m} that it is stated for: cut speed and feed, or take another.",
            r=Figure(given.reach_mm, "mm", "up"),
            m=Figure(given.reach_max_mm, "mm", "down"),
        )
    return enough and within
