"""The feed that three schools allow, and what they share: calculator `feed-window`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Flag, Group
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import BOOK, Working, derived, typical

RADIUS = typical("feed between a third and two thirds of the corner radius")
FINISH = derived("Theoretical finish")
Bound = Literal["radius", "finish", "breaker"]


SCHOOL_WORDS = {"radius": "the corner radius", "finish": "the finish", "breaker": "the chip breaker"}


@dataclass(frozen=True)
class Breaker(Checked):
    """The window in which an insert's chip breaker works, from its box."""

    feed_min: Annotated[float, terms.FEED_FROM.called(help="Below it the chip does not curl")]
    feed_max: Annotated[float, terms.FEED_TO.called(help="Above it the chip is crushed")]
    depth_min: Annotated[float, terms.DEPTH_FROM]
    depth_max: Annotated[float, terms.DEPTH_TO]

    def contradictions(self) -> Iterator[FieldError]:
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("This cannot be below where the window begins."))
        if self.depth_min > self.depth_max:
            yield FieldError("depth_max", Sentence("This cannot be below where the window begins."))


@dataclass(frozen=True)
class FeedWindowInput(Checked):
    """Input of `feed-window`."""

    corner_radius_mm: Annotated[float, terms.CORNER_RADIUS.called(low=None, above=0)]
    ra_um: Annotated[float | None, terms.FINISH.called(help="From the print; empty: none")] = None
    depth_mm: Annotated[float | None, terms.DEPTH_OF_CUT] = None
    breaker: Annotated[Breaker | None, Group("Breaker window", "From the insert's box")] = None
    wiper: Annotated[bool, Flag("Wiper edge", "Its flat halves the roughness")] = False


@dataclass(frozen=True, slots=True)
class School:
    """What one school allows [mm/rev]; None: it sets no such bound."""

    feed_min_mm_rev: Annotated[float | None, Found("feed from", "mm/rev", "up")]
    feed_max_mm_rev: Annotated[float | None, Found("feed to", "mm/rev", "down")]


@dataclass(frozen=True, slots=True)
class Schools:
    """The three of them; None where there is nothing to go by."""

    radius: Annotated[School, Found("Corner radius")]
    finish: Annotated[School | None, Found("Finish")]
    breaker: Annotated[School | None, Found("Chip breaker")]


@dataclass(frozen=True, slots=True, kw_only=True)
class FeedWindowResult(Explained):
    """The overlap; both ends are given even where they cross. `bound_by` is the school that sets the upper end."""

    feed_min_mm_rev: Annotated[float, Found("Feed from", "mm/rev", "up")]
    feed_max_mm_rev: Annotated[float, Found("Feed to", "mm/rev", "down")]
    bound_by: Annotated[Bound, Found("Bound by", options=SCHOOL_WORDS)]
    schools: Annotated[Schools, Found("")]
    chip_breaks: Annotated[bool | None, Found("Chip breaks")]


WIPER = 2.0  # typical: a wiper flat leaves half of the theory's Ra


def finish_feed(ra_um: float, corner_radius_mm: float, *, wiper: bool = False) -> float:
    """The largest feed [mm/rev] for a theoretical Ra [µm] with this corner [mm]; a wiper doubles the Ra it may leave.

    >>> round(finish_feed(3.2, 0.8), 4)
    0.2825

    Reference: Ra = f²/(18·√3·r) of arcs side by side, both above 0; the wiper's factor is typical.
    """
    return math.sqrt(18 * math.sqrt(3) * corner_radius_mm * ra_um * (WIPER if wiper else 1.0) / 1000)


@calculator(FeedWindowInput)
def feed_window(given: FeedWindowInput) -> FeedWindowResult:
    """The feeds that corner radius, finish and chip breaker allow, and the overlap of the three.

    Parameters
        {parameters}
    Returns
        feed_min_mm_rev = max(r/3, breaker from); feed_max_mm_rev = min(2r/3, finish, breaker to);
        bound_by: which of them sets the upper end; schools: each on its own;
        chip_breaks: depth at least the corner radius and inside the breaker's window, with a window to
        feed in; None where neither depth nor breaker is known
    Raises
        CalcError for values outside these ranges
    Validity
        The finish is the theoretical one; measured finishes are rougher at small feeds.
    Example
        >>> r = feed_window(FeedWindowInput(0.8, ra_um=3.2, breaker=Breaker(0.15, 0.4, 0.5, 4)))
        >>> round(r.feed_min_mm_rev, 4), round(r.feed_max_mm_rev, 4), r.bound_by
        (0.2667, 0.2825, 'finish')

    Reference
        Typical corner-radius rule; finish derived in docs/method.md, “Theoretical finish”
    """
    w = Working()
    r, b = given.corner_radius_mm, given.breaker
    radius = School(
        w.step("f_r1", "A third of the corner", "r/3", "mm/rev", RADIUS, r=r),
        w.step("f_r2", "Two thirds of the corner", "2*r/3", "mm/rev", RADIUS, r=r),
    )
    finish = None
    if given.ra_um is not None:
        top = w.step(
            "f_Ra",
            "Largest feed for the finish",
            "sqrt(18*sqrt(3) * r * k*Ra / 1000)",
            "mm/rev",
            FINISH,
            r=r,
            k=2.0 if given.wiper else 1.0,
            Ra=given.ra_um,
        )
        finish = School(None, top)
    breaker = School(b.feed_min, b.feed_max) if b else None
    schools: dict[Bound, School | None] = {"radius": radius, "finish": finish, "breaker": breaker}
    uppers: dict[Bound, float] = {
        k: s.feed_max_mm_rev for k, s in schools.items() if s and s.feed_max_mm_rev is not None
    }
    low = w.step(
        "f_min",
        "Least feed",
        "max(f_r1, f_b1)",
        "mm/rev",
        BOOK if b else RADIUS,
        f_r1=radius.feed_min_mm_rev or 0.0,
        f_b1=b.feed_min if b else 0.0,
    )
    bound_by = min(uppers, key=lambda k: uppers[k])
    high = w.step(
        "f_max",
        "Largest feed",
        "min(f_r2, f_Ra, f_b2)",
        "mm/rev",
        BOOK if bound_by == "breaker" else RADIUS,
        f_r2=uppers["radius"],
        f_Ra=uppers.get("finish", uppers["radius"]),
        f_b2=uppers.get("breaker", uppers["radius"]),
    )
    conflict = low > high * (1 + 1e-9)
    if conflict:
        w.note(
            "caution",
            "feed-conflict",
            "The least feed, {a}, is above the largest, {b}: the chip will not break. Take a smaller corner, or leave "
            "more stock.",
            a=Figure(low, "mm/rev", "up", (3, 4)),
            b=Figure(high, "mm/rev", "down", (3, 4)),
        )
    breaks = _breaks(given, conflict=conflict)
    if breaks is False and not conflict:
        w.note(
            "caution",
            "chip-may-not-break",
            "With this depth the chip may not break: the corner is {r}{window}.",
            r=Figure(r, "mm"),
            window=Sentence(
                ", the breaker works from {a} to {b}", a=Figure(b.depth_min, "mm"), b=Figure(b.depth_max, "mm")
            )
            if b
            else "",
        )
    return FeedWindowResult(
        feed_min_mm_rev=low,
        feed_max_mm_rev=high,
        bound_by=bound_by,
        schools=Schools(radius, finish, breaker),
        chip_breaks=breaks,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _breaks(given: FeedWindowInput, *, conflict: bool) -> bool | None:
    if conflict:
        return False
    if given.depth_mm is None:
        return None
    if given.depth_mm < given.corner_radius_mm * (1 - 1e-9):
        return False
    return None if given.breaker is None else given.breaker.depth_min <= given.depth_mm <= given.breaker.depth_max
