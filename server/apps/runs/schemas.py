"""What is sent of runs and plans. Figures are sent as they are to be read, in the units asked for.

What goes out is plain pydantic: ninja's Schema wraps every nested object to read model attributes,
which costs more on a plan's thousand values than computing the plan does.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from pydantic import BaseModel

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
    kind: Literal["quantity", "choice", "flag", "text"]
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
    items: list[str]
    may_add: bool
    removable_from: int
    kinds: list[OptionOut]


class StopOut(BaseModel):
    """A stop of the route."""

    name: str
    title: str
    state: State
    line: str
    facts: list[FactOut]
    answers: list[AnswerOut]
    notes: list[NoteOut]
    helps: list[HelpOut]
    lists: list[ListOut]
    problems: list[FieldMessage]


class ShapeOut(BaseModel):
    """A shape of the drawing, in mm."""

    name: str
    role: Literal[
        "chuck",
        "master",
        "jaw",
        "bolt",
        "hole",
        "part",
        "outline",
        "hidden",
        "cut",
        "removed",
        "axis",
        "centre",
        "grip",
    ]
    points: list[list[float]]
    closed: bool
    facts: list[str]
    stops: list[str]


class DimensionOut(BaseModel):
    """A dimension of the drawing, in mm; its text in the units asked for."""

    name: str
    fact: str
    start: list[float]
    end: list[float]
    offset: float
    text: str
    stops: list[str]
    outside: Literal["before", "after"]


class SceneOut(BaseModel):
    """The drawing and the same in words."""

    shapes: list[ShapeOut]
    dimensions: list[DimensionOut]
    words: list[str]


class CurveOut(BaseModel):
    """A line of the force chart."""

    name: str
    label: str
    points: list[list[float]]


class ChartOut(BaseModel):
    """Grip against speed."""

    unit: str
    rpm_most: float
    force_most: float
    curves: list[CurveOut]
    demand: float
    demand_text: str
    static_text: str
    cap: float
    cap_force: float
    cap_text: str
    top: float
    top_text: str


class CarryOut(BaseModel):
    """What a setter carries to the machine."""

    pressure: str | None
    clamp: str | None
    bore: str | None
    depth: str | None


class PlanOut(BaseModel):
    """A whole computed plan."""

    run: RunOut
    revision: int
    units: Units
    verdict: State
    may_edit: bool
    undo: bool
    redo: bool
    at: int | None
    carry: CarryOut
    stops: list[StopOut]
    scene: SceneOut
    chart: ChartOut | None


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

    kind: Literal["run", "machine", "chuck", "jaw_blank", "material"]
    key: str
    title: str
    detail: str
