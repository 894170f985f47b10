"""Wire shapes of the shelf. Figures are sent as they are to be read, in the units asked for."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from ninja import Field, Schema
from pydantic import BaseModel, WithJsonSchema

from calc.shelf.all_kinds import KINDS
from server.apps.questions.schemas import AskIn
from server.foundation.schemas import FieldMessage, Units

Kind = Annotated[str, WithJsonSchema({"type": "string", "enum": list(KINDS)})]


class ShelfRow(BaseModel):
    """An item in one line; `sides` of the runs that take it, 0 of what is a whole run's."""

    key: str
    name: str
    line: str
    typical: int
    runs: int
    sides: int


class ShelfKind(BaseModel):
    """A kind with its items."""

    kind: Kind
    title: str
    noun: str
    items: list[ShelfRow]


class Option(BaseModel):
    """One answer of a choice."""

    value: str
    label: str


class ItemField(BaseModel):
    """A field: what it is, where such a figure is found, and whether it is typical."""

    name: str
    label: str
    help: str
    where: str
    group: str
    kind: Literal["quantity", "text", "choice", "choices"]
    unit: str
    value: Any
    text: str
    edit_text: str
    options: list[Option] | None
    optional: bool
    typical: bool


class HeightCurve(BaseModel):
    """Grip against pressure at one height, as far as the chuck allows."""

    height: str
    where: str
    points: list[list[float]]
    text: str
    overload: bool


class ChuckChart(BaseModel):
    """A chuck's chart: its points as text and drawn, and what it means at heights."""

    text: str
    pressure_unit: str
    grip_unit: str
    points: list[list[float]]
    curves: list[HeightCurve]


class RunMoved(BaseModel):
    """A run that takes the item; `text` tells what a change moves."""

    id: int
    name: str
    drawing_number: str
    text: str
    verdict: str


class ItemChange(BaseModel):
    """One change of the item as a sentence."""

    text: str
    by: str
    at: datetime


class LifeEvent(BaseModel):
    """Something that happened to a jaw set."""

    text: str
    on: date
    by: str


class Item(BaseModel):
    """A shelf item as its screen shows it."""

    kind: Kind
    noun: str
    key: str
    units: Units
    revision: int
    may_edit: bool
    fields: list[ItemField]
    chart: ChuckChart | None
    errors: list[FieldMessage]
    runs: list[RunMoved] | None
    changes: list[ItemChange]
    life: list[LifeEvent] | None
    may_note: bool


Entries = dict[str, str | bool | float | list[str] | None]


class FormIn(Schema):
    """What a person typed over an item: text in the units shown, or picked values."""

    fields: Entries = Field(default_factory=dict, max_length=80)
    chart: str | None = Field(default=None, max_length=8000)
    units: Units = "metric"


class PreviewIn(FormIn):
    """The same, of an item that is there (`key`) or of a new one."""

    key: str | None = Field(default=None, max_length=60)


class KeepIn(FormIn):
    """A change to keep; `confirmed` are fields whose figure is now the shop's own."""

    base_revision: int = Field(default=0, ge=0, le=2**31)
    confirmed: list[str] = Field(default_factory=list, max_length=80)


class LifeIn(Schema):
    """What happened to a jaw set; which figures are needed depends on what it was."""

    what: str = Field(max_length=20)
    size: str | None = Field(default=None, max_length=60)
    removal: str | None = Field(default=None, max_length=60)
    note: str | None = Field(default=None, max_length=200)
    units: Units = "metric"


class EffectsIn(FormIn, AskIn):
    """What a person typed over an item, to ask which plans it would move."""


class EffectsOut(BaseModel):
    """The plans that a change would move, of how many that take the item."""

    effects: list[RunMoved]
    takes: int


class FileLook(AskIn):
    """A CSV file to be looked at."""

    text: str = Field(max_length=2_000_000)


class FileIn(Schema):
    """A CSV file: kept whole, or its good lines kept."""

    text: str = Field(max_length=2_000_000)
    keep: Literal["all", "good"] = "all"


class LineAnswer(BaseModel):
    """What becomes of a line."""

    line: int
    name: str
    outcome: Literal["new", "changed", "same", "bad"]
    messages: list[str]


class FileAnswer(BaseModel):
    """Every line answered, and how many were kept."""

    lines: list[LineAnswer]
    kept: int
    bad: int
