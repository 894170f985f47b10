"""What a stop is shown from: the plan, the figures of a set-up and those of the others, and names to choose from."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, TypeVar

from calc.plan.document import Document, Setup, setup_path
from calc.plan.outcome import Asked, Figures, Outcome, Solved
from calc.plan.watched import Tell
from calc.shelf.taken import SetupShelf, Shelf

Options = Mapping[str, Mapping[str, str]]
NO_OPTIONS: Options = {"machine": {}, "material": {}, "chuck": {}}
T = TypeVar("T")


class WatchedOptions(Mapping[str, Mapping[str, str]]):
    """What may be chosen, telling of which kind it was asked for."""

    def __init__(self, of: Options, tell: Tell) -> None:
        self._of, self._tell = of, tell

    def __getitem__(self, kind: str) -> Mapping[str, str]:
        self._tell(("options", kind), self._of[kind])
        return self._of[kind]

    def __iter__(self) -> Iterator[str]:
        return iter(self._of)

    def __len__(self) -> int:
        return len(self._of)


@dataclass(frozen=True, eq=False)
class View:
    """A set-up as its stops are shown.

    `every` are the figures of all set-ups; `names`: what may be chosen, by kind; `solve` finds the figures of a plan
    that is only tried; `keep` finds something by its key and keeps it while what was read of the view stays.
    """

    document: Document
    shelf: Shelf
    index: int
    every: Sequence[Figures]
    names: Options
    solve: Callable[[Document, Shelf, int], Figures]
    keep: Callable[[object, Callable[[View], Any]], Any]
    _once: dict[Any, Any] = field(default_factory=dict)

    def __getitem__(self, solved: Solved[T]) -> T | None:
        return self.figures[solved]

    def outcome(self, solved: Solved[T]) -> Outcome[T]:
        """The figures of this set-up, or why there are none."""
        return self.figures.outcome(solved)

    @property
    def asked(self) -> Asked:
        """The same, as figures are solved from it."""
        return Asked(self.document, self.shelf, self.index, self.every)

    @property
    def figures(self) -> Figures:
        """The figures of this set-up."""
        return self.every[self.index]

    @property
    def setup(self) -> Setup:
        """The set-up as it was entered."""
        return self.document.setups[self.index]

    @property
    def at(self) -> str:
        """The set-up's path."""
        return setup_path(self.document, self.index)

    @property
    def jaws_at(self) -> str:
        """The path of the set-up whose chuck and jaws these are."""
        return setup_path(self.document, self.document.jaws_of(self.index))

    @property
    def shares_jaws(self) -> bool:
        """Chuck and jaws are the first side's."""
        return self.document.jaws_of(self.index) != self.index

    @property
    def taken(self) -> SetupShelf:
        """What the set-up takes from the shelf."""
        return self.shelf.setups[self.document.jaws_of(self.index)]

    def tried(self, document: Document | None = None, shelf: Shelf | None = None) -> Figures:
        """The figures of this set-up, were the document or the shelf another."""
        return self.solve(document or self.document, shelf or self.shelf, self.index)

    def once(self, find: Callable[[View], T]) -> T:
        """What several parts of this set-up ask for, found once."""
        if find not in self._once:
            self._once[find] = find(self)
        return self._once[find]  # type: ignore[no-any-return]
