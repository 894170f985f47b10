"""A stop as it is read: its facts, answers, notes, helps, lists and tables, every figure in words and figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from calc.errors import FieldError
from calc.fields import Choice, Flag, Group, Quantity
from calc.plan.lists import ListRule, as_lines, lists_of
from calc.plan.outcome import State
from calc.plan.paths import value_at
from calc.plan.stop import Answer, Fact, Help, Panel, Stop, Table
from calc.profile.lines import write_line
from calc.quantities import Figure, System, exact_text, from_core, grouped, shown_as
from calc.said.drawn import ChartSaid, chart_said
from calc.said.pictures import PictureSaid, picture_said
from calc.working import Basis, Level, Step

PRETTY_UNITS = {"kg*mm": "kg·mm", "mm3": "mm³", "N*m": "N·m", "um": "µm", "deg": "°", "mm2": "mm²"}
May = Callable[[str], bool]


@dataclass(frozen=True)
class Reader:
    """Who a plan is read for: the units, the paths that may be changed, the texts that were typed by path."""

    system: System
    may: May = lambda _: False
    typed: Mapping[str, str] = field(default_factory=dict)
    document: Any = field(default_factory=dict)

    def takes(self, path: str | None) -> str | None:
        """The path where it may be changed, else None."""
        return path if path is not None and self.may(path) else None


@dataclass(frozen=True)
class OptionSaid:
    """One answer of a choice."""

    value: str
    label: str


def options_said(options: Mapping[str, str]) -> list[OptionSaid]:
    """The answers of a choice."""
    return [OptionSaid(value, label) for value, label in options.items()]


@dataclass(frozen=True)
class FactSaid:
    """One line of a ledger."""

    name: str
    label: str
    path: str | None
    editable: bool
    group: str
    kind: Literal["quantity", "choice", "flag", "text", "line"]
    value: Any
    text: str
    edit_text: str
    typed: str | None
    unit: str
    source: str
    help: str
    basis: Basis
    optional: bool
    options: list[OptionSaid] | None
    pin_path: str | None
    pinned: bool


@dataclass(frozen=True)
class _Value:
    kind: Literal["quantity", "choice", "flag", "text", "line"] = "quantity"
    text: str = ""
    edit_text: str = ""
    unit: str = ""
    value: Any = None
    options: list[OptionSaid] | None = None


def _quantity(fact: Fact, spec: Quantity, system: System) -> _Value:
    value = fact.value
    figure = Figure(0.0 if value is None else value, spec.unit, fact.rounding, fact.places or spec.places)
    unit = figure.unit_shown(system)
    if value is None:
        return _Value(unit=unit)
    whole = spec.whole or (spec.unit == "" and fact.path is None and float(value).is_integer())
    text = Figure(value, spec.unit, exact=True).number(system) if whole else figure.number(system)
    edit = exact_text(from_core(value, spec.unit, shown_as(spec.unit, system))) if fact.path else ""
    return _Value(text=text, edit_text=edit, unit=unit)


def _value(fact: Fact, system: System) -> _Value:
    spec, value = fact.spec, fact.value
    match spec:
        case Quantity():
            return _quantity(fact, spec, system)
        case Group():
            return _Value("line", write_line(value, system, named=False), write_line(value, system))
        case Choice():
            text = spec.options.get(value, "") if value else ""
            return _Value("choice", text, value=value, options=options_said(spec.options))
        case Flag():
            return _Value("flag", "yes" if value else "no", value=value)
    return _Value("text", value or "", value or "")


def _fact(fact: Fact, reader: Reader) -> FactSaid:
    shown = _value(fact, reader.system)
    return FactSaid(
        name=fact.name,
        label=fact.label,
        path=fact.path,
        editable=fact.path is not None and reader.may(fact.path),
        group=fact.group,
        kind=shown.kind,
        value=shown.value,
        text=shown.text,
        edit_text=shown.edit_text,
        typed=reader.typed.get(fact.path or ""),
        unit=shown.unit,
        source=fact.source.text(reader.system),
        help=fact.spec.help,
        basis=fact.basis,
        optional=fact.optional,
        options=shown.options,
        pin_path=reader.takes(fact.pin_path),
        pinned=fact.pinned,
    )


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


def step_said(step: Step) -> StepSaid:
    """A line of working."""
    return StepSaid(
        step.symbol,
        step.label,
        step.formula,
        step.substituted,
        grouped(exact_text(float(f"{step.value:.6g}"))),
        PRETTY_UNITS.get(step.unit, step.unit),
        step.source.text,
        step.source.basis,
    )


@dataclass(frozen=True)
class BarSaid:
    """A margin: share filled and where its mark stands, both 0…1."""

    share: float
    mark: float
    mark_label: str


@dataclass(frozen=True)
class AnswerSaid:
    """What a stop is asked for."""

    name: str
    label: str
    prefix: str
    number: str
    unit: str
    below: str
    steps: list[StepSaid]
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
        [step_said(s) for s in answer.steps],
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


def _help(one: Help, reader: Reader) -> HelpSaid:
    system = reader.system
    said = one.label.text(system), one.outcome.text(system)
    return HelpSaid(said[0], one.path, one.value, said[1], one.settles, reader.may(one.path))


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


def _list(path: str, rule: ListRule, reader: Reader) -> ListSaid:
    items, may = value_at(reader.document, path), reader.may(path)
    stays = max(rule.fixed, rule.least)
    return ListSaid(
        path,
        rule.noun,
        rule.named,
        rule.kind_label,
        rule.title,
        [ListItemSaid(item["id"], item["name"], may and place >= stays) for place, item in enumerate(items)],
        as_lines(items, reader.system) if rule.lines else None,
        may and len(items) < rule.most,
        rule.ordered and may,
        options_said(rule.kinds),
    )


@dataclass(frozen=True)
class RowSaid:
    """One line of a table; one that can be taken sets its path to its value."""

    label: str
    cells: list[str]
    chosen: bool
    path: str | None
    value: Any
    takable: bool
    why_not: str


@dataclass(frozen=True)
class TableSaid:
    """Things side by side; `group` is the heading of the facts it belongs to."""

    name: str
    title: str
    group: str
    head: list[str]
    rows: list[RowSaid]
    words: str


def table_said(table: Table, reader: Reader) -> TableSaid:
    """A table."""
    system = reader.system
    rows = [
        RowSaid(
            r.label,
            [c.text(system) for c in r.cells],
            r.chosen,
            r.path,
            r.value,
            r.path is not None and not r.chosen and reader.may(r.path),
            r.why_not.text(system) if r.why_not else "",
        )
        for r in table.rows
    ]
    return TableSaid(table.name, table.title, table.group, list(table.head), rows, table.words)


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
class StopSaid:
    """A stop of the route; `side` is the place of its set-up and `setup` that one's id, null for the whole part's."""

    key: str
    name: str
    side: int | None
    setup: str | None
    title: str
    heading: str
    state: State
    line: str
    facts: list[FactSaid]
    answers: list[AnswerSaid]
    notes: list[NoteSaid]
    helps: list[HelpSaid]
    lists: list[ListSaid]
    tables: list[TableSaid]
    procedures: list[ProcedureSaid]
    pictures: list[PictureSaid]
    headings: list[HeadingSaid]
    chart: ChartSaid | None
    program: ProgramSaid | None
    checks: list[str]
    panels: list[Panel]
    links: list[LinkSaid]
    problems: list[ProblemSaid]


def _headings(stop: Stop, lists: list[ListSaid]) -> list[HeadingSaid]:
    """The headings in the order of the facts; a list of lines without items has one, where its first is written."""
    groups = [*(x.path for x in lists if x.lines is not None), *(f.group for f in stop.facts)]
    return [HeadingSaid(g, stop.headings.get(g, g)) for g in dict.fromkeys(groups) if g]


def stop_said(stop: Stop, reader: Reader) -> StopSaid:
    """A stop as it is read."""
    system = reader.system
    lists = [_list(path, rule, reader) for path, rule in lists_of(stop.name, stop.setup)]
    program = stop.program
    return StopSaid(
        key=stop.key,
        name=stop.name,
        side=stop.side,
        setup=stop.setup or None,
        title=stop.title,
        heading=stop.heading,
        state=stop.state,
        line=stop.line.text(system),
        facts=[_fact(f, reader) for f in stop.facts],
        answers=[_answer(a, system) for a in stop.answers],
        notes=[NoteSaid(n.level, n.code, n.sentence.text(system)) for n in stop.notes],
        helps=[_help(h, reader) for h in stop.helps],
        lists=lists,
        tables=[table_said(t, reader) for t in stop.tables],
        procedures=[ProcedureSaid(p.title, [s.text(system) for s in p.steps]) for p in stop.procedures],
        pictures=[picture_said(p, system) for p in stop.pictures],
        headings=_headings(stop, lists),
        chart=chart_said(stop.chart, system, reader.takes) if stop.chart else None,
        program=ProgramSaid(program.ready, [r.text(system) for r in program.reasons]) if program else None,
        checks=list(stop.checks),
        panels=list(stop.panels),
        links=[LinkSaid(x.words, x.kind, x.key) for x in stop.links],
        problems=problems_said(stop.problems, system),
    )
