"""Wire shapes of the notebook."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Field, Schema
from pydantic import BaseModel

from server.apps.questions.schemas import AskIn
from server.foundation.schemas import NotedOut, Units

Entry = str | float | bool | None


class NotebookOption(BaseModel):
    """One answer of a choice."""

    value: str
    label: str


class NotebookField(BaseModel):
    """A field of a proven cut."""

    name: str
    label: str
    help: str
    unit: str
    kind: Literal["quantity", "choice", "text"]
    options: list[NotebookOption] | None
    required: bool


class ProvenLine(BaseModel):
    """A proven cut, every field as it is read."""

    id: int
    said: dict[str, str]
    run: str
    by: str
    at: datetime


class NotebookOut(BaseModel):
    """A page of the notebook."""

    lines: list[ProvenLine]
    count: int
    page: int
    pages: int
    fields: list[NotebookField]


class LikeLine(ProvenLine):
    """A proven cut that is like a planned one: how like, of 100, and why."""

    score: int
    why: list[str]


class LikeOut(BaseModel):
    """What is like a planned cut."""

    revision: int
    cut: str
    cuts: list[LikeLine]


class NotebookAsk(Schema):
    """Which part of the notebook."""

    find: str = Field("", max_length=200)
    kind: str = Field("", max_length=10)
    group: str = Field("", max_length=1)
    page: int = Field(0, ge=0, le=100_000)
    units: Units = "metric"


class NotebookUnits(Schema):
    """In which units."""

    units: Units = "metric"


class ProvenIn(Schema):
    """A proven cut as it is typed."""

    fields: dict[str, Entry] = Field(max_length=40)
    units: Units = "metric"
    key: UUID


class NotebookFileLook(AskIn):
    """A CSV file to be looked at."""

    text: str = Field(max_length=2_000_000)


class NotebookFileIn(Schema):
    """A CSV file: kept whole, or its good lines kept."""

    text: str = Field(max_length=2_000_000)
    keep: Literal["all", "good"] = "all"


class NotebookLineAnswer(BaseModel):
    """What becomes of a line."""

    line: int
    name: str
    outcome: Literal["new", "same", "bad"]
    messages: list[str]


class NotebookFileAnswer(BaseModel):
    """Every line answered, and how many were kept."""

    lines: list[NotebookLineAnswer]
    kept: int
    bad: int


class EverythingAsk(Schema):
    """Which of everything that was noted: by words, and of what kind."""

    find: str = Field("", max_length=200)
    kind: Literal["", "cut", "lesson", "edge", "reading", "coolant", "gauge", "jaws"] = ""
    units: Units = "metric"


class EverythingOut(BaseModel):
    """Everything that was noted at the machines, the newest first, and what is to be done again."""

    lines: list[NotedOut]
    count: int
    due: list[str]
