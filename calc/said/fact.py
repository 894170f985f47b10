"""A line of a ledger as it is read: its value in words and figures, and as it is edited."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from calc.fields import Choice, Flag, Group, Quantity
from calc.plan.stop import Fact
from calc.profile.lines import write_line
from calc.quantities import Figure, System, exact_text, from_core, shown_as
from calc.said.reader import OptionSaid, Reader, options_said
from calc.working import Basis


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
    proposed: bool = False  # nobody has looked at it yet


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


def text_of(value: float | None, spec: Quantity, system: System) -> str:
    """A figure as a line of a ledger shows it, without its unit; nothing where there is none."""
    if value is None:
        return ""
    return Figure(value, spec.unit, places=spec.places, exact=spec.whole).number(system)


def fact_said(fact: Fact, reader: Reader, *, proposed: bool = False) -> FactSaid:
    """A line of a ledger."""
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
        typed=reader.words.get(fact.path or ""),
        unit=shown.unit,
        source=fact.source.text(reader.system),
        help=fact.spec.help,
        basis=fact.basis,
        optional=fact.optional,
        options=shown.options,
        pin_path=reader.takes(fact.pin_path),
        pinned=fact.pinned,
        proposed=proposed,
    )
