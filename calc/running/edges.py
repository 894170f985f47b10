"""The clock of an edge: pieces it has made and has left, by the plan or by what edges before it really lasted."""

from __future__ import annotations

import math
from dataclasses import dataclass
from statistics import median_low

from calc.running.lot import EdgeAt, Lot
from calc.running.story import LIVED, Story

LEARNT_FROM = 3  # edges: fewer tell nothing that the plan does not
NEWEST = 7


@dataclass(frozen=True)
class EdgeClock:
    """How far an edge is: pieces on it, how many it lasts and where that is from, how many are left for it."""

    edge: EdgeAt
    on_it: int
    lasts: int | None
    learnt: bool
    left: int | None
    lived: tuple[tuple[int, str], ...]  # pieces and why it was changed, of each before it
    carried: float = 0.0  # share of its life that the lot before wore off

    @property
    def used(self) -> int:
        """Edges that the lot has used, this one with them."""
        return len(self.lived) + 1

    def inserts_for(self, pieces: int) -> int | None:
        """Inserts to be taken from the shelf for so many more pieces, beside the one that is in; None where nobody
        knows how long an edge lasts.

        Reference: docs/method.md, “The clock of an edge”
        """
        if self.lasts is None or self.left is None:
            return None
        more = math.ceil(max(0, pieces - self.left) / self.lasts)
        unused = -self.used % self.edge.edges  # edges of the insert that is in
        return math.ceil(max(0, more - unused) / self.edge.edges)


def lasts(edge: EdgeAt, lived: tuple[tuple[int, str], ...]) -> tuple[int | None, bool]:
    """(pieces that an edge lasts, whether that is from what edges lasted).

    From three edges on that were changed because they were done, it is the low middle of the newest seven of them: a
    half of them lasted longer. One that was changed when it was due is left out: it might have lasted longer.

    Reference: derived in docs/method.md, “The clock of an edge”.
    """
    true = [n for n, why in lived if why in LIVED][-NEWEST:]
    if len(true) < LEARNT_FROM:
        return edge.per_edge, False
    return max(1, median_low(true)), True


def clock_of(edge: EdgeAt, story: Story) -> EdgeClock:
    """The clock of an edge."""
    changed = [(c.after, c.why) for c in story.changes if c.edge == edge.key and c.kind == "edge"]
    lived, before = [], 0
    for after, why in changed:
        if after > before:  # two changes without a piece between them are one
            lived.append((after - before, why))
        before = after
    # What it made in the lot before is worn off already.
    carried = story.carried.get(edge.key, 0.0) if not changed else 0.0
    last, learnt = lasts(edge, tuple(lived[1:] if story.carried.get(edge.key) else lived))
    on_it = story.counted - before
    left = None if last is None else max(0, math.floor(last * (1 - carried) - on_it + 1e-9))
    return EdgeClock(edge, on_it, last, learnt, left, tuple(lived), carried)


def clocks_of(lot: Lot, story: Story) -> tuple[EdgeClock, ...]:
    """The clock of every edge, the one that is due first before the others."""
    found = [clock_of(edge, story) for edge in lot.edges]
    return tuple(sorted(found, key=lambda c: math.inf if c.left is None else c.left))
