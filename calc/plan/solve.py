"""All figures of a plan, without words: what the stops show and what the helps recompute."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache, partial
from typing import Any

from calc.plan.all_stops import solving_order
from calc.plan.document import Document
from calc.plan.outcome import Asked, Figures, Outcome, attempt
from calc.shelf.taken import Shelf

KEPT = 1024  # outcomes; a plan of two sides asks for about eighty


@dataclass(frozen=True)
class _Question:
    """What figures rest on, by value, and how they are found."""

    rests_on: tuple[Any, ...]
    find: Callable[[], Any] = field(compare=False)


# A key pressed changes one fact, and a comparison changes one: what does not rest on it stands as it was.
# Values are compared, so figures are the same from whichever plan they come; `KEPT` bounds the memory.
@lru_cache(maxsize=KEPT)
def _kept(question: _Question) -> Outcome[Any]:
    return attempt(question.find)


def solve(document: Document, shelf: Shelf, index: int = 0) -> Figures:
    """Figures of one set-up. Never raises for bad facts: each outcome says why there is none."""
    found: dict[str, Outcome[Any]] = {}
    asked = Asked(document, shelf, index, Figures(found))
    for solved in solving_order():
        needed = tuple(asked.figures.outcome(n) for n in solved.needs)
        rests = (solved, *needed, *solved.rests_on(asked))
        found[solved.name] = _kept(_Question(rests, partial(solved.find, asked)))
    return asked.figures


def solve_all(document: Document, shelf: Shelf) -> tuple[Figures, ...]:
    """Figures of every set-up."""
    return tuple(solve(document, shelf, i) for i in range(len(document.setups)))
