"""What is sent of runs and plans. Figures are sent as they are to be read, in the units asked for.

What goes out is plain pydantic: ninja's Schema wraps every nested object to read model attributes,
which costs more on a plan's thousand values than computing the plan does.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from pydantic import BaseModel

from server.apps.runs.drawn import ChartOut, SceneOut
from server.apps.runs.pictures import PictureOut
from server.foundation.schemas import FieldMessage

Units = Literal["metric", "inch"]
State = Literal["settled", "open", "stopped"]
Basis = Literal["entered", "measured", "standard", "derived", "typical", "book"]


class RunOut(BaseModel):
    """A run's name plate."""

    id: int
    drawing_number: str
    name: str
    units: Units
    machine: str
    quantity: int | None
    setup: str
    revision: int
    changed_at: datetime
    put_away: bool
    released: bool


class LineOut(BaseModel):
    """A stop in one line."""

    key: str
    title: str
    state: State
    line: str


class BenchRow(RunOut):
    """A run on the bench: how it stands and what it needs next."""

    verdict: State
    needs: str
    lines: list[LineOut]


class BenchOut(BaseModel):
    """One page of the bench."""

    rows: list[BenchRow]
    total: int
    page: int
    page_size: int
    planning: int
    away: int


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


class CarryOut(BaseModel):
    """What a setter carries to the machine."""

    pressure: str | None
    clamp: str | None
    bore: str | None
    depth: str | None


class ProgramOut(BaseModel):
    """Whether the jaw-boring program can be written, and what keeps it from being."""

    ready: bool
    reasons: list[str]


class SideOut(BaseModel):
    """One set-up as it is drawn and carried."""

    index: int
    title: str
    end: str
    verdict: State
    carry: CarryOut
    scenes: list[SceneOut]
    chart: ChartOut | None
    program: ProgramOut


class PlanRulesOut(BaseModel):
    """The house rules a plan was computed under; what today's change, and what that would move."""

    number: int
    today: int
    changes: list[str]
    moves: list[str]


class ReleaseOut(BaseModel):
    """Who released what, when, and what was confirmed."""

    number: int
    revision: int
    rules: int
    by: str
    at: datetime
    note: str
    confirmed: list[str]


class CautionOut(BaseModel):
    """One thing to confirm by name."""

    code: str
    text: str
    where: str


class ReleasesOut(BaseModel):
    """What releasing the plan as it is asks, and every release there was, the last first."""

    run: RunOut
    revision: int
    rules: int
    verdict: State
    reasons: list[str]
    cautions: list[CautionOut]
    releases: list[ReleaseOut]


class DifferenceOut(BaseModel):
    """A figure that differs."""

    stop: str
    label: str
    before: str
    after: str


class DifferencesOut(BaseModel):
    """What changed from one release to another, or to the draft (`after` null)."""

    before: int
    after: int | None
    rows: list[DifferenceOut]


class PlanOut(BaseModel):
    """A whole computed plan: the part's stops, then each side's."""

    run: RunOut
    revision: int
    units: Units
    verdict: State
    may_edit: bool
    undo: bool
    redo: bool
    at: int | None
    rules: PlanRulesOut | None
    release: ReleaseOut | None
    stops: list[StopOut]
    sides: list[SideOut]


class DrawingOut(BaseModel):
    """What a drawing would make: what it leaves to be chosen, else the lines of its steps."""

    layers: list[str]
    units: list[str]
    lines: dict[str, str]
    notes: list[str]


class CheckOut(BaseModel):
    """A question solved by itself, of the draft it was asked for; no table where there is nothing to solve."""

    revision: int
    table: TableOut | None


class RunMade(BaseModel):
    """Where the new run is."""

    id: int


class HistoryEntry(BaseModel):
    """One edit as a sentence."""

    revision: int
    text: str
    by: str
    at: datetime
    path: str
    is_reversal: bool


class HistoryOut(BaseModel):
    """A page of a run's history, the newest first."""

    entries: list[HistoryEntry]
    more: bool
    total: int


class PulseOut(BaseModel):
    """What tells a screen whether it is still true."""

    revision: int
    shelf: UUID


class HitOut(BaseModel):
    """Something found."""

    kind: Literal[
        "run",
        "machine",
        "chuck",
        "jaw_blank",
        "jaw_set",
        "ring",
        "plug",
        "insert",
        "groove_insert",
        "thread_insert",
        "holder",
        "drill",
        "blade",
        "material",
    ]
    key: str
    title: str
    detail: str
