"""A dimension watched while a run goes on: its chart, when to measure it again, and what to correct."""

from __future__ import annotations

import math
from bisect import bisect_left
from dataclasses import dataclass
from typing import Literal

from calc.limits.advice import LEAST as ADVISED_FROM
from calc.limits.advice import Advice, advised, taken_back
from calc.limits.chart import Stretch, chart_of
from calc.limits.drift import LEAST, DriftInput, DriftResult, drift
from calc.quantities import Sentence
from calc.running.edges import EdgeClock
from calc.running.lot import Dimension
from calc.running.story import Sizes, Story

FIRST = {"size": 2, "thread": 2, "finish": 1}  # pieces after each change that are measured
TELL_BY = 8  # checks in the life of an edge tell its drift
STEP_MM = 0.001  # the least that a control takes
Standing = Literal["good", "watch", "stop", "none"]


@dataclass(frozen=True)
class Watched:
    """A dimension as it stands. `places` of its series begin a stretch; `due`: the piece to measure next.

    `drift`: of the stretch it is in, None while that is short; `advice`: None for what no offset corrects; `fresh_mm`:
    what to add to the offset when a fresh edge is put in.
    """

    dimension: Dimension
    sizes: Sizes
    stretches: tuple[Stretch, ...]
    drift: DriftResult | None
    advice: Advice | None
    fresh_mm: float | None
    due: int
    why: Sentence
    level: Standing
    told: Sentence


def places_of(sizes: Sizes, begins: tuple[int, ...]) -> tuple[int, ...]:
    """The places in a series at which pieces from `begins` on stand first."""
    return tuple(sorted({bisect_left(sizes.pieces, b) for b in begins}))


def drift_input(dimension: Dimension, sizes: Sizes, per_edge: int | None) -> DriftInput:
    """What the drift of a size is told from."""
    assert dimension.kind == "size"
    low, high = dimension.ask.working_mm  # type: ignore[union-attr] # of a size
    return DriftInput(sizes.values, low, high, STEP_MM, per_edge, sizes.pieces)


def _since(sizes: Sizes, at: int) -> Sizes:
    return Sizes(sizes.pieces[at:], sizes.values[at:])


def watched(dimension: Dimension, story: Story, clock: EdgeClock, check_every: int) -> Watched:
    """A dimension as it stands after so many pieces."""
    sizes = story.sizes.get(dimension.id, Sizes())
    begins = story.begins(dimension.edge)
    places = places_of(sizes, begins)
    begun = max((b for b in begins if b <= story.counted + 1), default=1)  # the first piece of this stretch
    now = _since(sizes, bisect_left(sizes.pieces, begun))
    stretches: tuple[Stretch, ...] = ()
    told_drift: DriftResult | None = None
    advice: Advice | None = None
    fresh: float | None = None
    if dimension.kind == "size":
        stretches = chart_of(sizes.values, places, sizes.pieces) if sizes.pieces else ()
        given = drift_input(dimension, now, clock.lasts) if len(now.pieces) >= LEAST else None
        if given is not None:
            told_drift, advice = drift(given), advised(given)
        else:
            words = "After {n} measured pieces of this edge and offset it is too early: {m} tell whether it drifts."
            advice = Advice(0.0, Sentence(words, n=str(len(now.pieces)), m=str(ADVISED_FROM)))
        fresh = _fresh(dimension, story, sizes, clock)
    level, told = judged(dimension, now)
    due, why = _due(dimension, now, begun, told_drift, clock, check_every)
    if level != "good" and now.pieces:
        due, why = now.pieces[-1] + 1, Sentence("the last one was not within the limits to work to")
    return Watched(dimension, sizes, stretches, told_drift, advice, fresh, due, why, level, told)


def _fresh(dimension: Dimension, story: Story, sizes: Sizes, clock: EdgeClock) -> float | None:
    """What a fresh edge takes back: of the newest edge whose first stretch is long enough."""
    mine = [c for c in story.changes if c.edge == dimension.edge]
    edge_begins = max((c.after + 1 for c in mine if c.kind == "edge"), default=1)
    moved = [c for c in mine if c.kind == "offset" and c.after + 1 >= edge_begins]
    ends = min((c.after for c in moved if c.after >= edge_begins), default=story.counted)
    first, last = bisect_left(sizes.pieces, edge_begins), bisect_left(sizes.pieces, ends + 1)
    fresh = Sizes(sizes.pieces[first:last], sizes.values[first:last])
    if len(fresh.pieces) < LEAST:
        return None
    since = sum(c.amount_mm for c in moved if c.after >= edge_begins)
    return taken_back(drift_input(dimension, fresh, clock.lasts), since)


def judged(dimension: Dimension, now: Sizes) -> tuple[Standing, Sentence]:
    """How the last one measured stands, in words."""
    if not now.values:
        return "none", Sentence("Nothing was measured yet of this edge and offset.")
    return verdict(dimension, now.values[-1])


def verdict(dimension: Dimension, value: float) -> tuple[Standing, Sentence]:
    """Good, to be watched, or stop, of a value [core unit]; a thread's is 0 good, below tight, above loose.

    Reference: limits by calculator `working-limits`; gauges as at the first piece.
    """
    ask = dimension.ask
    if dimension.kind == "thread":
        if value == 0:
            return "good", Sentence("Both gauges as they should.")
        return ("stop", Sentence("NOT GO enters: scrap.")) if value > 0 else ("stop", Sentence("GO does not go on."))
    if dimension.kind == "finish":
        wanted = ask.print_um  # type: ignore[union-attr] # of a finish
        if wanted is None or value <= wanted * (1 + 1e-9):
            return "good", Sentence("The print is kept.")
        return "stop", Sentence("Rougher than the print asks: a new edge, or less feed.")
    (low, high), (work_low, work_high) = ask.print_mm, ask.working_mm  # type: ignore[union-attr] # of a size
    if work_low - 1e-9 <= value <= work_high + 1e-9:
        return "good", Sentence("Within the limits to work to.")
    if low - 1e-9 <= value <= high + 1e-9:
        return "watch", Sentence("Good by the print, outside the limits to work to: measure the next one too.")
    gone = (value < low) == ask.outside  # type: ignore[union-attr]
    if gone:
        return "stop", Sentence("Outside the print, the metal is gone: this piece is scrap. Correct before the next.")
    return "stop", Sentence("Outside the print, metal is left: cut it again, or scrap it. Correct before the next.")


def _due(
    dimension: Dimension, now: Sizes, begun: int, found: DriftResult | None, clock: EdgeClock, check_every: int
) -> tuple[int, Sentence]:
    """The number of the piece to measure next, and why that one."""
    first = FIRST[dimension.kind]
    if len(now.pieces) < first:
        after = now.pieces[-1] + 1 if now.pieces else begun
        return after, Sentence("the first{n} of an edge or an offset", n=" two" if first > 1 else "")
    last = now.pieces[-1]
    if dimension.kind != "size":
        return last + check_every, Sentence("by the house rule one in {n}", n=str(check_every))
    if found is None:
        early = max(1, min(check_every, math.ceil(clock.lasts / TELL_BY) if clock.lasts else check_every))
        return last + early, Sentence("six of an edge tell whether it drifts")
    if found.pieces_left_sure is None:
        return last + check_every, Sentence("no drift in sight: by the house rule one in {n}", n=str(check_every))
    step = max(1, min(check_every, found.pieces_left_sure // 2))
    if step == check_every:
        return last + step, Sentence("by the house rule one in {n}", n=str(check_every))
    left = str(found.pieces_left_sure)
    return last + step, Sentence("half of the {n} pieces that are left for sure to the limit", n=left)
