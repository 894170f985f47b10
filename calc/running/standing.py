"""How a lot stands: the next check, the next edge, and whether it goes on or stops."""

from __future__ import annotations

from dataclasses import dataclass

from calc.quantities import Sentence, counted
from calc.running.edges import EdgeClock, clocks_of
from calc.running.lot import Lot
from calc.running.story import Story
from calc.running.watch import Watched, watched


@dataclass(frozen=True)
class Check:
    """In how many pieces something is to be measured: 0 is the next one; which dimensions, and why the first."""

    pieces: int
    dimensions: tuple[str, ...]
    why: Sentence


@dataclass(frozen=True)
class LotStanding:
    """A lot as it stands: each dimension, each edge, the next check, and what says to stop."""

    lot: Lot
    story: Story
    watched: tuple[Watched, ...]
    edges: tuple[EdgeClock, ...]
    check: Check | None
    stops: tuple[Sentence, ...]

    @property
    def left(self) -> int:
        """Good pieces that are still to come."""
        return max(0, self.lot.quantity - self.story.good)

    def of(self, dimension: str) -> Watched | None:
        """A dimension as it stands; None where there is none."""
        return next((w for w in self.watched if w.dimension.id == dimension), None)


def standing_of(lot: Lot, story: Story) -> LotStanding:
    """How a lot stands after what happened to it.

    Reference: docs/method.md, “Running”
    """
    edges = clocks_of(lot, story)
    clocks = {c.edge.key: c for c in edges}
    every = tuple(watched(d, story, clocks[d.edge], lot.check_every) for d in lot.dimensions)
    # With all good pieces made none comes that could be measured.
    check = _check(every, story) if story.good < lot.quantity else None
    return LotStanding(lot, story, every, edges, check, tuple(_stops(every, edges)))


def _check(every: tuple[Watched, ...], story: Story) -> Check | None:
    if not every:
        return None
    due = min(w.due for w in every)
    first = next(w for w in every if w.due == due)
    # What is due together is measured together, with what would be due before the check after it.
    names = tuple(w.dimension.id for w in every if w.due <= max(due, story.counted + 1))
    return Check(max(0, due - story.counted - 1), names, first.why)


def _stops(every: tuple[Watched, ...], edges: tuple[EdgeClock, ...]) -> list[Sentence]:
    """What says not to go on, in words."""
    found = [Sentence("{n}: {w}", n=w.dimension.ask.name, w=w.told) for w in every if w.level == "stop"]
    for w in every:
        if w.level != "stop" and w.drift is not None and w.drift.pieces_left_sure == 0:
            words = "{n}: its line is at the limit to work to. Correct before the next piece."
            found.append(Sentence(words, n=w.dimension.ask.name))
    for clock in edges:
        if clock.left == 0 and clock.on_it > 0:
            words = "Tool {n}: its edge has made {m}, as many as it lasts. Change it before the next."
            found.append(Sentence(words, n=str(clock.edge.station), m=counted(clock.on_it, "piece")))
    return found
