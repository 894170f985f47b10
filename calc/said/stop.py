"""A stop as it is read: its line, and what stands on its page, every figure in words and figures."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from calc.errors import FieldError
from calc.plan.lists import PlanList, as_lines
from calc.plan.outcome import State
from calc.plan.pictures import Curves, LanesPicture, Outline
from calc.plan.stop import Answer, Help, Panel, Stop
from calc.plan.stop_kind import Drawing
from calc.programs.jaw_boring import JawProgram
from calc.quantities import System, exact_text, grouped
from calc.said.fact import FactSaid, fact_said
from calc.said.reader import OptionSaid, Reader, options_said
from calc.symbols import key_of
from calc.working import Basis, Level, Step

PRETTY_UNITS = {"kg*mm": "kg·mm", "mm3": "mm³", "N*m": "N·m", "um": "µm", "deg": "°", "mm2": "mm²"}


@dataclass(frozen=True)
class StepSaid:
    """One line of working, in core units."""

    symbol: str
    label: str
    formula: str
    substituted: str
    value: str
    unit: str
    source: str
    basis: Basis
    symbols: dict[str, str]  # of the formula, with what each stands for


def steps_said(steps: Sequence[Step]) -> list[StepSaid]:
    """Lines of working, in their order."""
    return [step_said(step, steps[:place]) for place, step in enumerate(steps)]


def step_said(step: Step, before: Sequence[Step] = ()) -> StepSaid:
    """A line of working; what its symbols stand for may be what a line before it found."""
    return StepSaid(
        step.symbol,
        step.label,
        step.formula,
        step.substituted,
        grouped(exact_text(float(f"{step.value:.6g}"))),
        PRETTY_UNITS.get(step.unit, step.unit),
        step.source.text,
        step.source.basis,
        key_of(step, before),
    )


@dataclass(frozen=True)
class BarSaid:
    """A margin: share filled and where its mark stands, both 0…1."""

    share: float
    mark: float
    mark_label: str


@dataclass(frozen=True)
class AnswerSaid:
    """What a stop is asked for; its working is asked for by its name."""

    name: str
    label: str
    prefix: str
    number: str
    unit: str
    below: str
    bar: BarSaid | None


def _answer(answer: Answer, system: System) -> AnswerSaid:
    figure, bar = answer.figure, answer.bar
    unit = answer.words.text(system) if answer.words else figure.unit_shown(system) if figure else ""
    return AnswerSaid(
        answer.name,
        answer.label,
        answer.prefix,
        figure.number(system) if figure else "",
        unit,
        answer.below.text(system) if answer.below else "",
        BarSaid(bar.share, bar.mark, bar.mark_label.text(system)) if bar else None,
    )


@dataclass(frozen=True)
class NoteSaid:
    """What must be said."""

    level: Level
    code: str
    text: str


@dataclass(frozen=True)
class HelpSaid:
    """A change that would help, with what it would do."""

    label: str
    path: str
    value: Any
    outcome: str
    settles: bool
    takable: bool
    takes_out: bool = False


def help_said(one: Help, reader: Reader) -> HelpSaid:
    """A change that would help."""
    system = reader.system
    said = one.label.text(system), one.outcome.text(system)
    return HelpSaid(said[0], one.path, one.value, said[1], one.settles, reader.may(one.path), one.takes_out)


@dataclass(frozen=True)
class ListItemSaid:
    """An item of a list: its id, its name, and whether it may be taken out."""

    id: str
    name: str
    may_take_out: bool


@dataclass(frozen=True)
class ListSaid:
    """Steps, sides or cuts, and whether one may be put in or put at another place."""

    path: str
    noun: str
    named: str
    kind_label: str
    title: str
    items: list[ListItemSaid]
    lines: str | None
    may_add: bool
    ordered: bool
    kinds: list[OptionSaid]


def _list(one: PlanList, reader: Reader) -> ListSaid:
    rule, may = one.rule, reader.may(one.path)
    stays = max(rule.fixed, rule.least)
    return ListSaid(
        one.path,
        rule.noun,
        rule.named,
        rule.kind_label,
        rule.title,
        [ListItemSaid(key, name, may and place >= stays) for place, (key, name) in enumerate(one.items)],
        as_lines(one.steps, reader.system) if rule.lines else None,
        may and len(one.items) < rule.most,
        rule.ordered and may,
        options_said(rule.kinds),
    )


@dataclass(frozen=True)
class ProcedureSaid:
    """What to do at the machine, in order."""

    title: str
    steps: list[str]


@dataclass(frozen=True)
class ProblemSaid:
    """A field and what to do about it."""

    field: str
    message: str


def problems_said(problems: tuple[FieldError, ...], system: System) -> list[ProblemSaid]:
    """Field errors in words."""
    return [ProblemSaid(p.field, p.sentence.text(system)) for p in problems]


@dataclass(frozen=True)
class HeadingSaid:
    """A heading of facts: its key, as facts, tables and pictures name it, and its words."""

    key: str
    title: str


@dataclass(frozen=True)
class ProgramSaid:
    """Whether the jaw-boring program can be written, and what keeps it from being."""

    ready: bool
    reasons: list[str]


@dataclass(frozen=True)
class LinkSaid:
    """A way to another place: the words, and what it leads to."""

    words: str
    kind: str
    key: str


@dataclass(frozen=True)
class LackSaid:
    """What a stop needs before it has figures, and where it is given: the stop by its key, and the fact by its path
    where it is one.
    """

    label: str
    stop: str
    path: str | None


@dataclass(frozen=True)
class StopLine:
    """A stop of the route in its line; `side` is the place of its set-up and `setup` that one's id, null for the whole
    part's.
    """

    key: str
    name: str
    side: int | None
    setup: str | None
    title: str
    state: State
    line: str
    notes: list[NoteSaid]
    problems: list[ProblemSaid]


@dataclass(frozen=True)
class Offer:
    """A picture that a stop can be shown by: a drawing of the set-up in view, or one of the stop's own pictures;
    `group`: only while these facts are in view.
    """

    of: Literal["drawing", "pictures"]
    name: str
    title: str
    group: str = ""


@dataclass(frozen=True)
class StopPage:
    """What stands on the page of a stop."""

    heading: str
    facts: list[FactSaid]
    answers: list[AnswerSaid]
    lists: list[ListSaid]
    procedures: list[ProcedureSaid]
    headings: list[HeadingSaid]
    program: ProgramSaid | None
    checks: list[str]
    panels: list[Panel]
    links: list[LinkSaid]
    offers: list[Offer]
    lacks: list[LackSaid] = field(default_factory=list)


def _headings(stop: Stop, lists: list[ListSaid]) -> list[HeadingSaid]:
    """The headings in the order of the facts; a list of lines without items has one, where its first is written."""
    groups = [*(x.path for x in lists if x.lines is not None), *(f.group for f in stop.facts)]
    return [HeadingSaid(g, stop.headings.get(g, g)) for g in dict.fromkeys(groups) if g]


def offers_of(stop: Stop, drawings: Iterable[Drawing]) -> Iterator[Offer]:
    """The pictures of a stop, of the drawings of its set-up and its own.

    What it opens with comes first, lanes or an insert before the section, what goes across last.
    """
    here = [d for d in drawings if not d.stops or stop.name in d.stops]
    yield from (Offer("pictures", p.name, p.title, p.group) for p in stop.pictures if isinstance(p, LanesPicture))
    yield from (Offer("drawing", d.name, d.title) for d in here if d.first)
    yield from (Offer("pictures", p.name, p.title, p.group) for p in stop.pictures if isinstance(p, Outline))
    yield from (Offer("drawing", d.name, d.title) for d in here if not d.first)
    yield from (Offer("pictures", p.name, p.title, p.group) for p in stop.pictures if isinstance(p, Curves))


def line_said(stop: Stop, system: System) -> StopLine:
    """A stop in its line, with what must be said of it."""
    return StopLine(
        key=stop.key,
        name=stop.name,
        side=stop.side,
        setup=stop.setup or None,
        title=stop.title,
        state=stop.state,
        line=stop.line.text(system),
        notes=[NoteSaid(n.level, n.code, n.sentence.text(system)) for n in stop.notes],
        problems=problems_said(stop.problems, system),
    )


@dataclass(frozen=True)
class Around:
    """What a page shows that is not of the stop alone: the pictures it offers, what can be solved, its program, the
    paths of its facts that are as they were proposed, and where what it lacks is given.
    """

    offers: tuple[Offer, ...]
    checks: tuple[str, ...]
    program: JawProgram | None
    proposed: frozenset[str] = frozenset()
    lacks: tuple[LackSaid, ...] = ()


def page_said(stop: Stop, around: Around, reader: Reader) -> StopPage:
    """The page of a stop."""
    system = reader.system
    lists = [_list(one, reader) for one in stop.lists]
    program = around.program
    return StopPage(
        heading=stop.heading,
        facts=[fact_said(f, reader, proposed=f.path in around.proposed) for f in stop.facts],
        answers=[_answer(a, system) for a in stop.answers],
        lists=lists,
        procedures=[ProcedureSaid(p.title, [s.text(system) for s in p.steps]) for p in stop.procedures],
        headings=_headings(stop, lists),
        program=ProgramSaid(program.ready, [r.text(system) for r in program.reasons]) if program else None,
        checks=list(around.checks),
        panels=list(stop.panels),
        links=[LinkSaid(x.words, x.kind, x.key) for x in stop.links],
        offers=list(around.offers),
        lacks=list(around.lacks),
    )
