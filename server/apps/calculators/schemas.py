"""Wire shapes of the calculators as the screen shows them."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from calc.describing import FieldKind, Json
from calc.said.drawn import SceneSaid
from calc.said.graph import GraphSaid
from server.foundation.schemas import Units


class FieldShown(BaseModel):
    """A field of a calculator as the screen shows it; `fields` where it is a group."""

    name: str
    label: str
    help: str
    kind: FieldKind
    required: bool
    many: bool
    unit: str
    options: dict[str, str]
    when: dict[str, list[str | bool]]
    fields: list[FieldShown] | None


class CalculatorShown(BaseModel):
    """A calculator as the screen shows it: where in the work it belongs, its fields with the units shown, and the
    worked example that it opens with, in core units."""

    name: str
    group: str
    title: str
    summary: str
    fields: list[FieldShown]
    example: Json


class CalculatorsShown(BaseModel):
    """All calculators, in the order of the work, and the groups they stand in: (key, title)."""

    groups: list[tuple[str, str]]
    calculators: list[CalculatorShown]


class CalculatorAsked(BaseModel):
    """What is entered: numbers are in core units, text is read as it is written, a bare figure in `units`."""

    given: Json
    units: Units = "metric"


class FoundOut(BaseModel):
    """A figure of the answer."""

    name: str
    label: str
    unit: str
    text: str


class StepOut(BaseModel):
    """A step of the working."""

    symbol: str
    label: str
    formula: str
    substituted: str
    value: Any
    unit: str
    source: str
    symbols: dict[str, str]


class SaidNoteOut(BaseModel):
    """What must be said about an answer."""

    level: Literal["info", "caution", "stop"]
    code: str
    text: str


class CalculatorAnswer(BaseModel):
    """An answer; what was entered as it was read, in core units (`given`) and as it is edited (`shown`); a picture,
    where one helps: a drawing or a graph."""

    answers: list[FoundOut]
    notes: list[SaidNoteOut]
    working: list[StepOut]
    given: Json
    shown: Json
    scene: SceneSaid | None
    graph: GraphSaid | None


class TakenOut(BaseModel):
    """What a plan asked this calculator: where, what it gave, and which of its fields are facts of the plan."""

    words: str
    given: Json
    paths: dict[str, str]


class TakenListOut(BaseModel):
    """All that a plan asked, of which state: a revision of the draft, or a release where that alone is seen."""

    revision: int
    release: int | None
    taken: Annotated[list[TakenOut], Field(max_length=200)]
