"""All figures of a plan, without words: what the stops show and what the helps recompute."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any, TypeVar

from calc.plan.document import Document
from calc.plan.outcome import Figures, Outcome, Solved, attempt
from calc.plan.view import NO_OPTIONS, Options, View, WatchedOptions
from calc.plan.watched import Kept, Read, Tell, again, watched
from calc.shelf.taken import Shelf

T = TypeVar("T")

MOST = 128  # plans for which each set of figures is kept, and each stop as it is shown

# A key pressed changes one fact, and a comparison changes one: what did not read it stands as it was.
# Facts are compared by value, so figures are the same from whichever plan they come.
_KEPT: dict[object, Kept[Any]] = {}


def forget() -> None:
    """Keep nothing of what was found."""
    _KEPT.clear()


def misses() -> int:
    """How often something had to be found since `forget`."""
    return sum(kept.misses for kept in _KEPT.values())


class Solving:
    """A plan whose figures are solved as they are asked for; what another plan reads the same, it has already."""

    def __init__(self, document: Document, shelf: Shelf, options: Options = NO_OPTIONS) -> None:
        self.document, self.shelf, self.options = document, shelf, options
        self.every = tuple(Figures(partial(self._outcome, place)) for place in range(len(document.setups)))
        self._found: dict[tuple[Solved[Any], int], Outcome[Any]] = {}

    def _outcome(self, index: int, solved: Solved[Any]) -> Outcome[Any]:
        place = index if solved.per_side else 0
        known = self._found.get((solved, place))
        if known is None:
            known = self.kept(solved, place, lambda view: attempt(lambda: solved.find(view.asked)))
            self._found[solved, place] = known
        return known

    def view(self, index: int) -> View:
        """What a set-up is shown from."""
        return View(self.document, self.shelf, index, self.every, self.options, solve, partial(self._kept_of, index))

    def kept(self, key: object, index: int, find: Callable[[View], T]) -> T:
        """What `find` makes of a set-up's view, of this plan or of one that reads the same. `key` names `find`."""
        known = _KEPT.get((key, index)) or _KEPT.setdefault((key, index), Kept(MOST))
        found: T = known.get(self._read, lambda tell: find(self._watched(index, tell)))
        return found

    def _kept_of(self, index: int, key: object, find: Callable[[View], T]) -> T:
        return self.kept(key, index, find)

    def _read(self, read: Read) -> Any:
        match read[0]:
            case "document":
                return again(self.document, read)
            case "shelf":
                return again(self.shelf, read)
            case "options":
                return self.options[read[1]]
        return self.every[read[1]].outcome(read[2])

    def _watched(self, index: int, tell: Tell) -> View:
        def outcome(place: int, solved: Solved[Any]) -> Outcome[Any]:
            found = self.every[place].outcome(solved)
            tell(("figures", place, solved), found)
            return found

        return View(
            watched(self.document, "document", tell),
            watched(self.shelf, "shelf", tell),
            index,
            tuple(Figures(partial(outcome, place)) for place in range(len(self.every))),
            WatchedOptions(self.options, tell),
            solve,
            lambda _, find: find(self._watched(index, tell)),  # part of what is being found
        )


def solve(document: Document, shelf: Shelf, index: int = 0) -> Figures:
    """Figures of one set-up. Never raises for bad facts: each outcome says why there is none."""
    return Solving(document, shelf).every[index]


def solve_all(document: Document, shelf: Shelf) -> tuple[Figures, ...]:
    """Figures of every set-up."""
    return Solving(document, shelf).every
