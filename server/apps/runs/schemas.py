"""Wire shapes of runs and plans. Figures are sent as they are to be read, in the units asked for."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from ninja import Field, Schema

from server.foundation.schemas import FieldMessage

Units = Literal["metric", "inch"]
State = Literal["settled", "open", "stopped"]
Basis = Literal["entered", "measured", "standard", "derived", "typical", "book"]


class RunOut(Schema):
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


class LineOut(Schema):
    """A stop in one line."""

    title: str
    state: State
    line: str


class BenchRow(RunOut):
    """A run on the bench: how it stands and what it needs next."""

    verdict: State
    needs: str
    lines: list[LineOut]


class OptionOut(Schema):
    """One answer of a choice."""

    value: str
    label: str


class FactOut(Schema):
    """One line of a ledger."""

    name: str
    label: str
    path: str | None
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


class StepOut(Schema):
    """One line of working, in core units."""

    symbol: str
    label: str
    formula: str
    substituted: str
    value: str
    unit: str
    source: str
    basis: Basis


class BarOut(Schema):
    """A margin: share filled and where its mark stands, both 0…1."""

    share: float
    mark: float
    mark_label: str


class AnswerOut(Schema):
    """What a stop is asked for."""

    name: str
    label: str
    prefix: str
    number: str
    unit: str
    below: str
    steps: list[StepOut]
    bar: BarOut | None


class NoteOut(Schema):
    """What must be said."""

    level: Literal["info", "caution", "stop"]
    code: str
    text: str


class HelpOut(Schema):
    """A change that would help, with what it would do."""

    label: str
    path: str
    value: Any
    outcome: str
    settles: bool


class StopOut(Schema):
    """A stop of the route."""

    name: str
    title: str
    state: State
    line: str
    facts: list[FactOut]
    answers: list[AnswerOut]
    notes: list[NoteOut]
    helps: list[HelpOut]
    problems: list[FieldMessage]


class ShapeOut(Schema):
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


class DimensionOut(Schema):
    """A dimension of the drawing, in mm; its text in the units asked for."""

    name: str
    fact: str
    start: list[float]
    end: list[float]
    offset: float
    text: str
    stops: list[str]
    outside: Literal["before", "after"]


class SceneOut(Schema):
    """The drawing and the same in words."""

    shapes: list[ShapeOut]
    dimensions: list[DimensionOut]
    words: list[str]


class CurveOut(Schema):
    """A line of the force chart."""

    name: str
    label: str
    points: list[list[float]]


class ChartOut(Schema):
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


class CarryOut(Schema):
    """What a setter carries to the machine."""

    pressure: str | None
    clamp: str | None
    bore: str | None
    depth: str | None


class PlanOut(Schema):
    """A whole computed plan."""

    run: RunOut
    revision: int
    units: Units
    verdict: State
    may_edit: bool
    carry: CarryOut
    stops: list[StopOut]
    scene: SceneOut
    chart: ChartOut | None


class EntryIn(Schema):
    """A fact's new value: typed text in the units shown, or a picked value."""

    path: str = Field(max_length=120)
    text: str | None = Field(default=None, max_length=200)
    value: str | bool | float | None = None
    units: Units = "metric"


class EditIn(EntryIn):
    """An edit to keep."""

    base_revision: int = Field(ge=0)
    key: UUID
