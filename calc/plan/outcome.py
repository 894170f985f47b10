"""A set of figures that the plan solves: what it is found from, and why there may be none."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TYPE_CHECKING, Any, Generic, Literal, TypeVar

from calc.errors import CalcError, FieldError
from calc.plan.document import Document, Setup, setup_path
from calc.plan.watched import whole
from calc.quantities import Sentence
from calc.shelf.taken import SetupShelf, Shelf
from calc.working import Note

if TYPE_CHECKING:
    from calc.rules import Rules

State = Literal["settled", "open", "stopped"]
T = TypeVar("T")


class Missing(Exception):
    """Facts that nobody has entered yet: (path, label)."""

    def __init__(self, *facts: tuple[str, str]) -> None:
        self.facts = facts
        super().__init__(", ".join(label for _, label in facts))


class Waiting(Exception):
    """These figures need others first."""

    def __init__(self, on: str) -> None:
        self.on = on
        super().__init__(on)


@dataclass(frozen=True, eq=False)
class Outcome(Generic[T]):
    """Figures, or why there are none."""

    value: T | None = None
    problems: tuple[FieldError, ...] = ()
    missing: tuple[tuple[str, str], ...] = ()
    waiting_on: str = ""

    # Found again and the same to the object, it is the same outcome: what read it need not be found again.
    def __eq__(self, other: object) -> bool:
        return isinstance(other, Outcome) and self.value is other.value and self._why == other._why

    def __hash__(self) -> int:
        return hash((id(self.value), self.missing, self.waiting_on))

    @property
    def _why(self) -> tuple[object, ...]:
        return self.problems, self.missing, self.waiting_on

    @property
    def line(self) -> Sentence:
        """The rail's line where there are no figures."""
        if self.problems:
            return self.problems[0].sentence
        if self.missing:
            return Sentence("{what} missing", what=", ".join(label.lower() for _, label in self.missing))
        return Sentence(f"waiting on {self.waiting_on}")

    def state(self, notes: tuple[Note, ...] = ()) -> State:
        """How a stop stands, given what must be said about it."""
        if self.problems or any(n.level == "stop" for n in notes):
            return "stopped"
        return "open" if self.value is None else "settled"


def attempt(solve: Callable[[], T]) -> Outcome[T]:
    """Run a solver and keep why it could not answer."""
    try:
        return Outcome(solve())
    except CalcError as error:
        return Outcome(problems=error.errors)
    except Missing as missing:
        return Outcome(missing=missing.facts)
    except Waiting as waiting:
        return Outcome(waiting_on=waiting.on)


@contextmanager
def naming(paths: Mapping[str, str]) -> Iterator[None]:
    """Give a calculator's field errors the plan's paths."""
    try:
        yield
    except CalcError as error:
        raise error.renamed(dict(paths)) from error


@dataclass(frozen=True, eq=False)
class Solved(Generic[T]):
    """A set of figures by name, and how it is found; what it rests on is seen from what `find` reads.

    `title` is the stop that a person waits on for them; `per_side`: there is one for each set-up.
    """

    name: str
    title: str
    find: Callable[[Asked], T]
    per_side: bool = True


@dataclass(frozen=True, eq=False)
class Figures:
    """The outcomes of one set-up, each solved when it is first asked for."""

    ask: Callable[[Solved[Any]], Outcome[Any]]

    def __getitem__(self, solved: Solved[T]) -> T | None:
        return self.outcome(solved).value

    def outcome(self, solved: Solved[T]) -> Outcome[T]:
        """The figures, or why there are none."""
        return self.ask(solved)


@dataclass(frozen=True, eq=False)
class Asked:
    """What is asked of a set-up: the plan, what it takes from the shelf, and the figures of every set-up."""

    document: Document
    shelf: Shelf
    index: int
    every: Sequence[Figures]

    @property
    def figures(self) -> Figures:
        """The figures of this set-up."""
        return self.every[self.index]

    def need(self, solved: Solved[T]) -> T:
        """Figures that others are made of. Raises Waiting where there are none."""
        value = self.figures[solved]
        if value is None:
            raise Waiting(solved.title)
        return value

    def share(self, solved: Solved[T]) -> T:
        """Figures that these are a part of, or have as a part. Raises what keeps them from being found."""
        outcome = self.figures.outcome(solved)
        if outcome.problems:
            raise CalcError(outcome.problems)
        if outcome.missing:
            raise Missing(*outcome.missing)
        if outcome.value is None:
            raise Waiting(outcome.waiting_on)
        return outcome.value

    @cached_property
    def setup(self) -> Setup:
        """The set-up as it is held: the second pocket of a shared set has the first side's jaws."""
        return as_held(self.document, self.index)

    @property
    def at(self) -> str:
        """The set-up's path."""
        return setup_path(self.document, self.index)

    @property
    def taken(self) -> SetupShelf:
        """What the set-up takes: two pockets in one set share the first side's chuck and jaws."""
        return self.shelf.setups[self.document.jaws_of(self.index)]

    @property
    def takes_over(self) -> bool:
        """The second side is held in the second spindle, which takes hold before the piece is parted off."""
        setups = self.shelf.setups
        chuck = setups[1].chuck if len(self.document.setups) > 1 and len(setups) > 1 else None
        return chuck is not None and chuck.spindle == "second" and not self.document.one_set

    @property
    def rules(self) -> Rules:
        """The rules in force."""
        return self.document.in_force

    def of(self, index: int) -> Asked:
        """The same asked of another set-up."""
        return Asked(self.document, self.shelf, index, self.every)


def as_held(document: Document, index: int) -> Setup:
    """A set-up with the tooth, stroke and jaw height that count for it."""
    mine = document.setups[index]
    if document.jaws_of(index) == index:
        return mine
    mine, first = whole(mine), document.setups[0]
    jaws = replace(mine.jaws, tooth=first.jaws.tooth, position=first.jaws.position)
    return replace(mine, hold=replace(mine.hold, jaw_height_mm=first.hold.jaw_height_mm), jaws=jaws)
