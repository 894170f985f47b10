"""What a lot that ran teaches its plan: how long edges lasted and how often a piece came, where the plan still does it
as the release did.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document
from calc.quantities import Figure, Sentence, counted
from calc.running.edges import LEARNT_FROM, NEWEST, EdgeClock
from calc.running.pace import Pace
from calc.running.story import LIVED

TEACHES_FROM = 20  # pieces: fewer say how the run began, not how it goes


@dataclass(frozen=True)
class Taught:
    """Something that a plan may count in place of what it computes: the fact's path, its value there, in words."""

    path: str
    value: float
    words: Sentence


def taught(edges: Sequence[EdgeClock], was: Document, now: Document) -> Iterator[Taught]:
    """How long edges really lasted, of the tools whose cuts the plan still makes with the figures of the release.

    An edge is told from three on that were done, by the low middle of the newest seven, as its clock counts it.

    Reference: docs/method.md, “The clock of an edge”
    """
    before, today = _cuts(was), _cuts(now)
    for clock in edges:
        keys = clock.edge.keys
        if not clock.learnt or clock.lasts is None or any(_bare(before[k]) != _bare(today.get(k)) for k in keys):
            continue
        if any(today[k].lasted_pieces == clock.lasts for k in keys):
            continue  # it counts already
        setup, cut = keys[0].split(".")
        many = min(NEWEST, sum(why in LIVED for _, why in clock.lived))
        words = "An edge of tool {s}, {e}, lasted {n}: the middle of {m}, by the plan {p}."
        yield Taught(
            f"setups.{setup}.cuts.{cut}.lasted_pieces",
            clock.lasts,
            Sentence(
                words,
                s=str(clock.edge.station),
                e=clock.edge.name,
                n=counted(clock.lasts, "piece"),
                m=counted(max(many, LEARNT_FROM), "edge"),
                p="not known" if clock.edge.per_edge is None else str(clock.edge.per_edge),
            ),
        )


def pace_taught(paces: Sequence[tuple[Pace, int]], was: Document, now: Document) -> Taught | None:
    """How often a piece really came: all lots of a release, each with its pieces; None where one of them has made too
    few, or where the plan is another one now.

    Reference: docs/method.md, “The run”
    """
    same = {k: _bare(c) for k, c in _cuts(was).items()} == {k: _bare(c) for k, c in _cuts(now).items()}
    if not paces or not same or any(not pace.seen or pieces < TEACHES_FROM for pace, pieces in paces):
        return None
    seconds = round(60 * sum(pace.minutes for pace, _ in paces), 1)
    if seconds == now.route.seen_s or seconds < 0.1:
        return None
    every, of = Figure(seconds, "s", "up", (1, 1)), counted(min(pieces for _, pieces in paces), "piece")
    return Taught(
        "route.seen_s", seconds, Sentence("A piece came every {t}, its stops with it, of {n}.", t=every, n=of)
    )


def _cuts(document: Document) -> dict[str, PlannedCut]:
    return {f"{s.id}.{c.id}": c for s in document.setups for c in s.cuts}


def _bare(cut: PlannedCut | None) -> PlannedCut | None:
    """A cut without what it is called, where its tool stands and what was seen of it: none of that wears an edge."""
    if cut is None:
        return None
    return replace(
        cut, name="", station=None, clocked_s=None, lasted_pieces=None, pin_speed=False, pin_feed=False, pin_depth=False
    )
