"""What a stop is shown from: the plan, the figures of a set-up and those of the others, and names to choose from."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, TypeVar

from calc.plan.document import Document, Setup, setup_path
from calc.plan.outcome import Figures, Outcome, Solved
from calc.shelf.taken import SetupShelf, Shelf

Options = Mapping[str, Mapping[str, str]]
NO_OPTIONS: Options = {"machine": {}, "material": {}, "chuck": {}}
T = TypeVar("T")


@dataclass(frozen=True, eq=False)
class View:
    """A set-up as its stops are shown.

    `every` are the figures of all set-ups, `solve` finds those of a plan that is only tried; `names`: what may be
    chosen, by kind.
    """

    document: Document
    shelf: Shelf
    every: tuple[Figures, ...]
    solve: Callable[[Document, Shelf, int], Figures]
    index: int = 0
    names: Options = field(default_factory=lambda: NO_OPTIONS)
    _kept: dict[Any, Any] = field(default_factory=dict)

    def __getitem__(self, solved: Solved[T]) -> T | None:
        return self.figures[solved]

    def outcome(self, solved: Solved[T]) -> Outcome[T]:
        """The figures of this set-up, or why there are none."""
        return self.figures.outcome(solved)

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

    def of(self, index: int) -> View:
        """The same of another set-up."""
        return replace(self, index=index, _kept={})

    def tried(self, document: Document | None = None, shelf: Shelf | None = None) -> Figures:
        """The figures of this set-up, were the document or the shelf another."""
        return self.solve(document or self.document, shelf or self.shelf, self.index)

    def once(self, find: Callable[[View], T]) -> T:
        """What several stops of this set-up ask for, found once."""
        if find not in self._kept:
            self._kept[find] = find(self)
        return self._kept[find]  # type: ignore[no-any-return]
