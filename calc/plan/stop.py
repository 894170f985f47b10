"""What a stop of the plan yields: facts, answers, notes, helps, and how it stands."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import reduce
from typing import Any, Literal

from calc.errors import FieldError
from calc.fields import Choice, Quantity, Spec, Text
from calc.plan.declared import field_at, label_at
from calc.plan.lists import PlanList
from calc.plan.outcome import Outcome, State
from calc.plan.pictures import Picture
from calc.quantities import Figure, Rounding, Sentence
from calc.working import Basis, Note, Step

# Reading a drawing; proposing, ordering and settling operations; every tool for the heading in view; what worked; files
# for a spreadsheet; all operations in the order they happen.
Panel = Literal["drawing", "start", "operations", "tools", "proven", "sheets", "order"]
ENTERED_BY_HAND = Sentence("entered")


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
    rounding: Rounding = "near"
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
    """One change that would help, with what it would do, recomputed: the fact at the path set to a value, or the item
    there taken out.
    """

    label: Sentence
    path: str
    value: Any
    outcome: Sentence
    settles: bool
    takes_out: bool = False


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
    """Things side by side, with the one in force marked; `group` is the heading of the facts it belongs to.

    `words` tell how it is to be read.
    """

    name: str
    title: str
    head: tuple[str, ...]
    rows: tuple[Row, ...]
    group: str = ""
    words: str = ""


@dataclass(frozen=True)
class Procedure:
    """What to do at the machine, in order."""

    title: str
    steps: tuple[Sentence, ...]


@dataclass(frozen=True)
class Link:
    """A way from a stop to another place: the words, and what it leads to (`kind`, `key`)."""

    words: str
    kind: str
    key: str


@dataclass(frozen=True)
class Lack:
    """What a stop needs before it has figures: a fact by its path, or another stop by its title where it has none."""

    label: str
    path: str = ""


@dataclass(frozen=True, eq=False)  # one that is kept is itself
class Stop:
    """One stop of the route; `side` is the set-up it belongs to, None for the whole part's.

    Helps, tables and the jaw program are found when they are looked at. `headings` are the groups of its facts by key,
    where a heading is not its own key: a cut's by its id. `panels` are what a screen offers beside it.
    """

    name: str
    title: str
    state: State
    line: Sentence
    facts: tuple[Fact, ...] = ()
    answers: tuple[Answer, ...] = ()
    notes: tuple[Note, ...] = ()
    problems: tuple[FieldError, ...] = ()
    procedures: tuple[Procedure, ...] = ()
    pictures: tuple[Picture, ...] = ()
    headings: Mapping[str, str] = field(default_factory=dict)
    lists: tuple[PlanList, ...] = ()
    panels: tuple[Panel, ...] = ()
    links: tuple[Link, ...] = ()
    lacks: tuple[Lack, ...] = ()
    heading: str = ""
    side: int | None = None
    setup: str = ""

    @property
    def key(self) -> str:
        """Its name in an address: "part", and with its set-up's id "hold-s1"."""
        return f"{self.name}-{self.setup}" if self.setup else self.name

    def place(self, sides: Sequence[str]) -> str:
        """Its title, with the name of its side, up to a comma, where a plan has several; `sides`: the names of all."""
        if self.side is None or len(sides) < 2:
            return self.title
        name = sides[self.side].split(",")[0]
        return f"{self.title}, {name.lower() if name.startswith('Side ') else name}"


def without_figures(outcome: Outcome[Any], facts: tuple[Fact, ...], **more: Any) -> Stop:
    """A stop that has no figures yet, or none any more: its facts, and why. Name and title are the list's to give."""
    lacks = tuple(Lack(label, path) for path, label in outcome.missing)
    if outcome.waiting_on:
        lacks = (Lack(outcome.waiting_on),)
    return Stop("", "", outcome.state(), outcome.line, facts, problems=outcome.problems, lacks=lacks, **more)


@dataclass(frozen=True)
class Amount:
    """A computed value of a ledger, None while not known, as it is to be printed."""

    value: float | None
    unit: str
    rounding: Rounding = "near"
    places: tuple[int, int] | None = None


def computed(
    name: str, label: str, amount: Amount, source: Sentence | str, basis: Basis = "derived", group: str = ""
) -> Fact:
    """A fact that follows from others."""
    said = source if isinstance(source, Sentence) else Sentence("{s}", s=source)
    spec = Quantity(label, amount.unit)
    return Fact(name, label, amount.value, spec, None, group, amount.rounding, amount.places, said, basis)


def said(name: str, label: str, words: str, source: Sentence, group: str) -> Fact:
    """A fact that is told in words."""
    return Fact(name, label, words, Text(label), None, group, source=source, basis="derived")


@dataclass(frozen=True)
class Entering:
    """Makes facts that the setter enters, of one part of the document: its path, and its value."""

    at: str
    owner: Any

    def __call__(
        self,
        name: str,
        path: str,
        *,
        label: str = "",
        group: str = "",
        source: Sentence | None = None,
        basis: Basis = "entered",
    ) -> Fact:
        """A fact declared by the document's field at `path` below the owner."""
        whole = f"{self.at}.{path}" if self.at else path
        declared = field_at(whole)
        spec = declared.spec
        value = reduce(getattr, path.split("."), self.owner)
        places = spec.places if isinstance(spec, Quantity) else None
        words = source or Sentence("{help}", help=spec.help[:1].lower() + spec.help[1:] if spec.help else "")
        return Fact(
            name,
            label or spec.label,
            value,
            spec,
            whole,
            group,
            places=places,
            source=words,
            basis=basis,
            optional=declared.nullable,
        )


def chosen(
    name: str, path: str, key: str | None, options: Mapping[str, str], source: Sentence, basis: Basis = "book"
) -> Fact:
    """A fact chosen from the shelf; `basis` "typical" while its figures are not the shop's own."""
    label = label_at(path)
    return Fact(name, label, key, Choice(label, options), path, source=source, basis=basis, options=options)
