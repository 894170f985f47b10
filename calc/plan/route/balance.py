"""What would balance two lanes: each operation that the other spindle can do as well, with the cycle that it makes."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from calc.plan.across import across, moved_across
from calc.plan.cuts.clear import CLEAR, GRIPPED
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document, setup_path
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures, Solved
from calc.plan.route.solve import ROUTE, RouteFigures
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.working import Note

HEAD = ("operation", "one piece every", "waits then")


@dataclass(frozen=True)
class Move:
    """Operations done on the other spindle: the plan that this makes, and where they stood."""

    cuts: tuple[PlannedCut, ...]
    index: int
    other: int
    document: Document


def moves(view: View, found: RouteFigures) -> Iterator[Move]:
    """What may go from the lane that is waited for to the other one.

    The other end reaches a hole that goes through, and the largest diameter. The hole keeps its order: what is moved
    to a later side takes along what is done in it afterwards, to an earlier one what is done before.
    """
    waits = found.waits_s
    if waits is None or waits[1] <= 0:
        return
    document = view.document
    index = 0 if waits[0] == "second" else 1
    mine = document.setups[index]
    known = set()
    for cut in mine.cuts:
        chain = across(document, index, cut.id)
        if chain and chain not in known:  # one move from each of its operations
            known.add(chain)
            yield Move(chain, index, 1 - index, moved_across(document, index, chain))


JUDGED: tuple[Solved[Any], ...] = (HOLD, GRIPPED, CUTS, CLEAR, FORCE)


def _against(every: Sequence[Figures]) -> Sentence | None:
    """What stops a plan at the work that a move changes: holds and what they grip, cuts and their room, force."""
    for figures in every:
        for judged in JUDGED:
            outcome = figures.outcome(judged)
            if outcome.problems:
                return Sentence("{why}", why=outcome.problems[0].message)
            if outcome.value is None:
                return Sentence("something that it needs is missing there")
            notes: tuple[Note, ...] = outcome.value if isinstance(outcome.value, tuple) else outcome.value.notes
            stop = next((n for n in notes if n.level == "stop"), None)
            if stop is not None:
                return stop.sentence
    return None


def _row(view: View, found: RouteFigures, move: Move) -> tuple[float, Row]:
    """A move with the cycle that it makes, to be put in order by it."""
    every = [view.solve(move.document, view.shelf, i) for i in range(len(move.document.setups))]
    route, against = every[0][ROUTE], _against(every)
    name = f"{' and '.join(c.name for c in move.cuts)} on the other spindle"
    if route is None:
        return math.inf, Row(name, (Sentence("none"), Sentence("")), why_not=against or Sentence("cannot be run"))
    waits = route.waits_s
    said = Sentence("nothing")
    if waits is not None:
        said = Sentence("{lane}, {t}", lane=waits[0], t=Figure(waits[1], "s", "down", (1, 1)))
    why = against or (None if route.cycle_s < found.cycle_s - 1e-9 else Sentence("no quicker"))
    chosen = move.cuts[0 if move.index == 0 else -1]
    path = None if against else f"{setup_path(view.document, move.index)}.cuts.{chosen.id}"
    to = view.document.setups[move.other].id
    return route.cycle_s, Row(name, (Figure(route.cycle_s / 60, "min", "up"), said), False, path, to, why)


def balance(view: View, found: RouteFigures) -> Table | None:
    """The moves, the quickest cycle first, each judged as the plan that it makes; None where there is none."""
    rows = sorted((_row(view, found, move) for move in moves(view, found)), key=lambda row: row[0])
    if not rows:
        return None
    return Table("balance", "What would balance the lanes", HEAD, tuple(row for _, row in rows))
