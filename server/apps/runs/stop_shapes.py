"""Wire shapes of a stop: its facts, answers, notes, helps, lists, tables and pictures."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel

from server.apps.runs.pictures import PictureOut
from server.foundation.schemas import FieldMessage

State = Literal["settled", "open", "stopped"]
Basis = Literal["entered", "measured", "standard", "derived", "typical", "book"]


class OptionOut(BaseModel):
    """One answer of a choice."""

    value: str
    label: str


class FactOut(BaseModel):
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
    options: list[OptionOut] | None
    pin_path: str | None
    pinned: bool


class StepOut(BaseModel):
    """One line of working, in core units."""

    symbol: str
    label: str
    formula: str
    substituted: str
    value: str
    unit: str
    source: str
    basis: Basis


class BarOut(BaseModel):
    """A margin: share filled and where its mark stands, both 0…1."""

    share: float
    mark: float
    mark_label: str


class AnswerOut(BaseModel):
    """What a stop is asked for."""

    name: str
    label: str
    prefix: str
    number: str
    unit: str
    below: str
    steps: list[StepOut]
    bar: BarOut | None


class NoteOut(BaseModel):
    """What must be said."""

    level: Literal["info", "caution", "stop"]
    code: str
    text: str


class HelpOut(BaseModel):
    """A change that would help, with what it would do."""

    label: str
    path: str
    value: Any
    outcome: str
    settles: bool
    takable: bool


class ListOut(BaseModel):
    """Steps or cuts: their names, and whether one may be put in or taken out."""

    path: str
    noun: str
    named: str
    kind_label: str
    title: str
    items: list[str]
    lines: str | None
    may_add: bool
    removable_from: int
    kinds: list[OptionOut]


class RowOut(BaseModel):
    """One line of a table; one that can be taken sets its path to its value."""

    label: str
    cells: list[str]
    chosen: bool
    path: str | None
    value: Any
    takable: bool
    why_not: str


class TableOut(BaseModel):
    """Things side by side; `group` is the heading of the facts it belongs to."""

    name: str
    title: str
    group: str
    head: list[str]
    rows: list[RowOut]


class ProcedureOut(BaseModel):
    """What to do at the machine, in order."""

    title: str
    steps: list[str]


class StopOut(BaseModel):
    """A stop of the route; `setup` is its side, null for the whole part's."""

    key: str
    name: str
    setup: int | None
    title: str
    state: State
    line: str
    facts: list[FactOut]
    answers: list[AnswerOut]
    notes: list[NoteOut]
    helps: list[HelpOut]
    lists: list[ListOut]
    tables: list[TableOut]
    procedures: list[ProcedureOut]
    pictures: list[PictureOut]
    problems: list[FieldMessage]
