"""Settle one operation: the best passes, feed, speed and clamp inside every limit at once."""

from __future__ import annotations

from typing import Any

import numpy as np

from calc.errors import FieldProblem
from calc.plan.cuts.clear import CLEAR
from calc.plan.document import Document, setup_path
from calc.settle.binding import forbidden, given_up, kept_by
from calc.settle.candidates import Candidates, Goal, Mask, Settling, candidates
from calc.settle.grid import FINE, Grid, tried_near, tried_on
from calc.settle.grip import Grip
from calc.settle.known import grip_of, known_of, settling_of
from calc.settle.trial import Trial
from calc.settle.winner import Settled, Winner
from calc.shelf.taken import Shelf

TRIED = 60  # how many of the best are put to the whole plan before it is given up


def settle_operation(
    document: Document, shelf: Shelf, index: int, cut: str, goal: Goal = "quickest", grid: Grid = FINE
) -> Settled:
    """The best figures of one cut that every limit allows, with a clamp of its own; all else stays as it is.

    Parameters
        document, shelf: the plan; index: the set-up; cut: the operation's id
        goal: the quickest piece, edge changes counted; the cheapest, edges counted as the minutes that they cost; or
            long edge life
    Returns
        the cut with its figures, the time before and after [min], the limit that binds and the next one
    Raises
        FieldProblem where figures are missing, or where no candidate keeps every limit: told with what forbids it
    Notes
        Exhaustive over its grid and then over every step about its best, the same answer every time; the winner is put
        to the whole plan and must pass.

    Reference
        docs/method.md, “Settling”
    """
    at = f"{setup_path(document, index)}.cuts.{cut}"
    if all(c.id != cut for c in document.setups[index].cuts):
        raise FieldProblem(at, "There is no such cut in this plan any more.")
    known = known_of(document, shelf, index, at)
    one = next(c for c in known.cuts if c.id == cut)
    clear = known.figures[CLEAR]
    for note in clear.by_cut.get(cut, ()) if clear else ():
        if note.level == "stop":
            raise FieldProblem(at, note.sentence)
    given = settling_of(known, document, index, one, goal)
    return settle_one(
        Trial(document, shelf, index, cut), given, grip_of(known, document, index, known.force.grip.grip_n), grid
    )


def settle_one(trial: Trial, given: Settling, grip: Grip, grid: Grid = FINE) -> Settled:
    """A cut settled with a grip. Raises FieldProblem as `settle_operation`."""
    known = tried_on(given.cut, given.part, grid)
    found = candidates(given, known, grip)
    gone = given_up(found)
    rows = _order(found, kept_by(found.limits, gone))
    if len(rows):
        near = candidates(given, tried_near(given.cut, given.part, known, int(rows[0]), grid), grip)
        for one in (near, found):
            for row in _order(one, kept_by(one.limits, gone))[:TRIED]:
                settled = trial.accepted(one, int(row))
                if settled is not None:
                    return Winner(given, grip, one, int(row), settled, found, gone).settled()
    at = f"{setup_path(trial.document, trial.index)}.cuts.{trial.cut}"
    raise FieldProblem(at, forbidden(given.cut.name, found.limits, gone))


def _order(found: Candidates, keep: Mask) -> Any:
    """Candidates that keep every limit, the best first; the longer life, then the fewer passes decide a tie."""
    rows = np.flatnonzero(keep)
    keys = (found.feed[rows], found.passes[rows], -np.round(found.life[rows], 6), np.round(found.counted[rows], 9))
    return rows[np.lexsort(keys)]
