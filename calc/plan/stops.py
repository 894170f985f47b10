"""What a stop of the plan yields: facts, answers, notes, helps, and how it stands."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cache
from typing import Any, Generic, Literal, TypeVar

from calc.errors import CalcError, FieldError
from calc.fields import Choice, FieldSpec, Quantity, Spec, fields_of
from calc.plan.document import Document
from calc.plan.paths import parts_of
from calc.plan.pictures import Bars, Curves, Outline
from calc.quantities import Figure, Sentence
from calc.working import Basis, Note, Step

ENTERED_BY_HAND = Sentence("entered")
State = Literal["settled", "open", "stopped"]
T = TypeVar("T")


@dataclass(frozen=True)
class Fact:
    """One line of a ledger. `name` ties it to the drawing; `path` is set when it can be edited,
    `pin_path` where settling can be told to leave it as it is."""

    name: str
    label: str
    value: Any
    spec: Spec
    path: str | None = None
    group: str = ""
    rounding: Literal["near", "down", "up"] = "near"
    places: tuple[int, int] | None = None
    source: Sentence = ENTERED_BY_HAND
    basis: Basis = "entered"
    options: Mapping[str, str] | None = None
    optional: bool = False
    pin_path: str | None = None
    pinned: bool = False


@dataclass(frozen=True)
class Bar:
    """A margin as a bar: `share` of the full length filled, with a mark at `mark` (both 0…1)."""

    share: float
    mark: float
    mark_label: Sentence


@dataclass(frozen=True)
class Answer:
    """One of the two or three things a stop is asked for, with its working."""

    name: str
    label: str
    figure: Figure | None
    prefix: str = ""
    words: Sentence | None = None
    below: Sentence | None = None
    steps: tuple[Step, ...] = ()
    bar: Bar | None = None


@dataclass(frozen=True)
class Help:
    """One change that would help, with what it would do, recomputed."""

    label: Sentence
    path: str
    value: Any
    outcome: Sentence
    settles: bool


@dataclass(frozen=True)
class Row:
    """One line of a table. With a `path` it can be taken; `why_not` tells what speaks against it."""

    label: str
    cells: tuple[Figure | Sentence, ...]
    chosen: bool = False
    path: str | None = None
    value: Any = None
    why_not: Sentence | None = None


@dataclass(frozen=True)
class Table:
    """Things side by side, with the one in force marked; `group` is the heading of the facts it belongs to."""

    name: str
    title: str
    head: tuple[str, ...]
    rows: tuple[Row, ...]
    group: str = ""


@dataclass(frozen=True)
class Procedure:
    """What to do at the machine, in order."""

    title: str
    steps: tuple[Sentence, ...]


@dataclass(frozen=True)
class Stop:
    """One stop of the route; `setup` is the side it belongs to, None for the whole part's."""

    name: str
    title: str
    state: State
    line: Sentence
    facts: tuple[Fact, ...] = ()
    answers: tuple[Answer, ...] = ()
    notes: tuple[Note, ...] = ()
    helps: tuple[Help, ...] = ()
    problems: tuple[FieldError, ...] = ()
    tables: tuple[Table, ...] = ()
    procedures: tuple[Procedure, ...] = ()
    pictures: tuple[Bars | Curves | Outline, ...] = ()
    setup: int | None = None

    @property
    def key(self) -> str:
        """Its name in an address: "part", "hold-1", "hold-2"."""
        return self.name if self.setup is None else f"{self.name}-{self.setup + 1}"


class Missing(Exception):
    """Facts that nobody has entered yet: (path, label)."""

    def __init__(self, *facts: tuple[str, str]) -> None:
        self.facts = facts
        super().__init__(", ".join(label for _, label in facts))


class Waiting(Exception):
    """This stop needs another one first."""

    def __init__(self, on: str) -> None:
        self.on = on
        super().__init__(on)


@dataclass(frozen=True, eq=False)  # one that is kept is itself
class Outcome(Generic[T]):
    """A stop's figures, or why there are none."""

    value: T | None = None
    problems: tuple[FieldError, ...] = ()
    missing: tuple[tuple[str, str], ...] = ()
    waiting_on: str = ""

    def need(self, title: str) -> T:
        """The figures, or Waiting on this stop."""
        if self.value is None:
            raise Waiting(title)
        return self.value

    @property
    def line(self) -> Sentence:
        """The rail's line where there are no figures."""
        if self.problems:
            return self.problems[0].sentence
        if self.missing:
            return Sentence("{what} missing", what=", ".join(label.lower() for _, label in self.missing))
        return Sentence(f"waiting on {self.waiting_on}")

    def state(self, notes: tuple[Note, ...]) -> State:
        """How the stop stands, given what must be said about it."""
        if self.problems or any(n.level == "stop" for n in notes):
            return "stopped"
        return "open" if self.value is None else "settled"


def attempt(solve: Callable[[], T]) -> Outcome[T]:
    """Run a stop's solver and keep why it could not answer."""
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


@cache
def field_at(path: str) -> FieldSpec:
    """The declaration of the document's fact at a dotted path. Raises KeyError."""
    kind: Any = Document
    found: FieldSpec | None = None
    for part in parts_of(path):
        if isinstance(part, int):
            continue
        found = next((f for f in fields_of(kind) if f.name == part), None) if kind else None
        if found is None:
            raise KeyError(path)
        kind = found.nested
    if found is None or kind is not None:
        raise KeyError(path)
    return found


def entered(
    name: str,
    path: str,
    value: Any,
    *,
    label: str = "",
    group: str = "",
    source: Sentence | None = None,
    basis: Basis = "entered",
) -> Fact:
    """A fact that the setter enters, declared by the document's field at `path`."""
    field = field_at(path)
    spec = field.spec
    places = spec.places if isinstance(spec, Quantity) else None
    said = source or Sentence("{help}", help=spec.help[:1].lower() + spec.help[1:] if spec.help else "")
    return Fact(
        name,
        label or spec.label,
        value,
        spec,
        path,
        group,
        places=places,
        source=said,
        basis=basis,
        optional=field.nullable,
    )


def computed(  # noqa: PLR0913 - a ledger line has these parts
    name: str,
    label: str,
    value: float | None,
    unit: str,
    source: Sentence | str,
    basis: Basis = "derived",
    *,
    group: str = "",
    rounding: Literal["near", "down", "up"] = "near",
    places: tuple[int, int] | None = None,
) -> Fact:
    """A fact that follows from others."""
    said = source if isinstance(source, Sentence) else Sentence("{s}", s=source)
    return Fact(name, label, value, Quantity(label, unit), None, group, rounding, places, said, basis)


def chosen(
    name: str,
    label: str,
    path: str,
    key: str | None,
    options: Mapping[str, str],
    source: Sentence,
    basis: Basis = "book",
) -> Fact:
    """A fact chosen from the shelf; `basis` "typical" while its figures are not the shop's own."""
    return Fact(name, label, key, Choice(label, options), path, source=source, basis=basis, options=options)
