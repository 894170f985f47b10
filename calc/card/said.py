"""A card as it is read, in one unit system."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from calc.card.ask import Ask, Instrument, Level, Told
from calc.card.step import Card, CardStep, StepKind
from calc.fields import Choice, FieldSpec, Flag, Quantity, fields_of
from calc.quantities import Figure, Sentence, System
from calc.said.reader import OptionSaid, options_said
from calc.said.stop import StepSaid, steps_said


@dataclass(frozen=True)
class ToSetSaid:
    """A figure to set, with the fact of the picture that it is."""

    label: str
    prefix: str
    number: str
    unit: str
    side: int | None
    fact: str


@dataclass(frozen=True)
class ToolSaid:
    """A tool at its station."""

    turret: str
    station: int
    offset: int
    edge: str
    holder: str
    out: str
    cuts: list[str]
    stock: str


@dataclass(frozen=True)
class BlankSaid:
    """One thing to enter: a quantity in the unit shown, a choice, or yes and no; `usual` is offered as it stands."""

    name: str
    label: str
    help: str
    unit: str
    kind: str
    options: list[OptionSaid]
    usual: str
    required: bool


@dataclass(frozen=True)
class AskSaid:
    """A reading that a step asks for: what is entered, what is expected, what may be pressed instead of typed."""

    kind: str
    title: str
    instrument: Instrument
    expected: str
    blanks: list[BlankSaid]
    presets: list[str]
    of: str


@dataclass(frozen=True)
class CardStepSaid:
    """A step on a screen of its own."""

    id: str
    place: str
    title: str
    words: list[str]
    side: int | None
    kind: StepKind
    caution: str
    lights: list[str]
    ask: AskSaid | None


@dataclass(frozen=True)
class CardSaid:
    """A card."""

    to_set: list[ToSetSaid]
    tools: list[ToolSaid]
    steps: list[CardStepSaid]
    cautions: list[str]


@dataclass(frozen=True)
class ToldSaid:
    """What follows from a reading. `far`: why it looks wrong; it counts when it is said again."""

    label: str
    prefix: str
    number: str
    unit: str
    words: list[str]
    level: Level
    done: bool
    steps: list[StepSaid]
    far: str


def _amount(value: Figure | Sentence, system: System) -> tuple[str, str]:
    """(number, unit) of a figure; words stand as the number."""
    if isinstance(value, Sentence):
        return value.text(system), ""
    return value.number(system), value.unit_shown(system)


def card_said(card: Card, system: System) -> CardSaid:
    """The card in a unit system."""
    return CardSaid(
        [ToSetSaid(f.label, f.prefix, *_amount(f.figure, system), f.side, f.fact) for f in card.to_set],
        [
            ToolSaid(
                t.turret, t.station, t.offset, t.edge, t.holder, t.out.text(system), list(t.cuts), t.stock.text(system)
            )
            for t in card.tools
        ],
        [_step(s, system) for s in card.steps],
        [c.text(system) for c in card.cautions],
    )


def _step(step: CardStep, system: System) -> CardStepSaid:
    return CardStepSaid(
        step.id,
        step.place,
        step.title,
        [w.text(system) for w in step.words],
        step.side,
        step.kind,
        step.caution.text(system) if step.caution else "",
        list(step.lights),
        ask_said(step.ask, system) if step.ask else None,
    )


def ask_said(ask: Ask, system: System) -> AskSaid:
    """What a step asks for, in a unit system."""
    fields = fields_of(ask.entry)
    first = fields[0].spec
    presets = []
    if isinstance(first, Quantity):
        presets = [Figure(p, first.unit, places=first.places).number(system) for p in ask.presets]
    expected = ask.expected
    return AskSaid(
        ask.kind,
        ask.title,
        ask.instrument,
        expected.text(system) if expected else "",
        list(_blanks(ask, fields, system)),
        presets,
        ask.of,
    )


def _blanks(ask: Ask, fields: tuple[FieldSpec, ...], system: System) -> Iterator[BlankSaid]:
    for field in fields:
        spec, usual = field.spec, ask.defaults.get(field.name, field.default)
        label, about = getattr(spec, "label", ""), getattr(spec, "help", "")
        match spec:
            case Quantity():
                shown = Figure(0.0, spec.unit).unit_shown(system)
                text = "" if usual is None else Figure(float(usual), spec.unit, places=spec.places).number(system)
                yield BlankSaid(field.name, label, about, shown, "quantity", [], text, field.required)
            case Choice():
                options = options_said(spec.options)
                yield BlankSaid(field.name, label, about, "", "choice", options, usual or "", field.required)
            case Flag():
                yield BlankSaid(field.name, label, about, "", "flag", [], "yes" if usual else "", field.required)


def told_said(told: Told, far: Sentence | None, system: System) -> ToldSaid:
    """What follows from a reading, in a unit system."""
    number, unit = _amount(told.answer, system)
    return ToldSaid(
        told.label,
        told.prefix,
        number,
        unit,
        [w.text(system) for w in told.words],
        told.level,
        told.done,
        steps_said(told.steps),
        far.text(system) if far else "",
    )
