"""Wire shapes of the card."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Field, Schema
from pydantic import AwareDatetime, BaseModel

from calc.card.said import CardSaid, ToldSaid
from calc.said.drawn import SceneSaid
from server.foundation.schemas import Units

STEP = Annotated[str, Field(max_length=60)]
Entered = Annotated[str, Field(max_length=60)] | bool | float | None
Done = Annotated[AwareDatetime | None, Field(description="When it was done, for what waited on a tablet; none: now")]


class CardAsk(Schema):
    """In which units, and of which release; none: the one that stands."""

    units: Units = "metric"
    release: int | None = Field(None, ge=1)


class PaperAsk(CardAsk):
    """On which paper; `draft`: the card that the draft would have, not for the machine."""

    paper: Literal["A4", "Letter"] = "A4"
    draft: bool = False


class MarkIn(Schema):
    """A step ticked, skipped with a reason, or opened again, at the card of a release."""

    key: UUID
    release: int = Field(ge=1)
    step: STEP
    state: Literal["done", "skipped", "open"]
    reason: str = Field("", max_length=160)
    units: Units = "metric"
    at: Done = None


class ReadIn(Schema):
    """What was read at a step, as it was typed or as an instrument sent it. `sure`: it was said again.

    `seen`: how many readings of the step were known where it was read; more were made meanwhile on another tablet.
    """

    key: UUID
    release: int = Field(ge=1)
    step: STEP
    values: dict[str, Entered]
    units: Units = "metric"
    instrument: str = Field("", max_length=60)
    sure: bool = False
    seen: Annotated[int | None, Field(ge=0, le=10_000)] = None
    at: Done = None


class LookIn(Schema):
    """What would follow from a reading; nothing is kept."""

    release: int = Field(ge=1)
    step: STEP
    values: dict[str, Entered]
    units: Units = "metric"


class InstrumentIn(Schema):
    """Which instrument is to be read, and in which units what it says is shown."""

    name: str = Field(max_length=60)
    units: Units = "metric"


class InstrumentOut(BaseModel):
    """What an instrument said, as it is entered."""

    name: str
    text: str


class InstrumentLine(BaseModel):
    """An instrument of the shop, and what it measures."""

    name: str
    kind: str


class MarkOut(BaseModel):
    """What a step was ticked or skipped with, by whom and when."""

    step: str
    title: str
    state: Literal["done", "skipped", "open"]
    reason: str
    by: str
    at: datetime


class TrialOut(BaseModel):
    """The plan computed with what was found: whether it still holds, and what stops it."""

    holds: bool
    why: list[str]


class FollowsOut(BaseModel):
    """What follows from a reading, and how the plan stands with it where it differs."""

    told: ToldSaid
    trial: TrialOut | None


class CardReadingOut(BaseModel):
    """A reading that was kept, with what followed. `twice`: it and another were made without knowing of each other."""

    step: str
    title: str
    kind: str
    shown: str
    instrument: str
    twice: bool
    by: str
    at: datetime
    follows: FollowsOut


class ReleaseLine(BaseModel):
    """Which release a card is of; `replaced`: another stands now."""

    number: int
    by: str
    at: datetime
    replaced: bool


class CodeOut(BaseModel):
    """A QR code: so many squares a side, the dark ones as an SVG path, and the address that it opens."""

    size: int
    path: str
    address: str


class CardOut(BaseModel):
    """The card of a release with what was done at it. `scenes`: a side's picture by the set-up's place."""

    run: int
    name: str
    drawing_number: str
    machine: str
    material: str
    stock: str
    quantity: int | None
    units: Units
    sides: list[str]
    release: ReleaseLine
    place: str
    may_mark: bool
    card: CardSaid
    scenes: list[SceneSaid]
    instruments: list[InstrumentLine]
    code: CodeOut | None = None
    marks: list[MarkOut]
    readings: list[CardReadingOut]


class DoneOut(BaseModel):
    """What was done at a card so far, of how many steps: the last mark of each step, every reading."""

    steps: int
    replaced: bool
    place: str
    marks: list[MarkOut]
    readings: list[CardReadingOut]


class FolderIn(Schema):
    """A run's folder as one PDF is asked for: in which units, on which paper."""

    key: UUID
    units: Units = "metric"
    paper: Literal["A4", "Letter"] = "A4"


class FolderOut(BaseModel):
    """A folder that was made: of which release, how many bytes, and where it is."""

    release: int
    size: int
    href: str


class StepTookOut(BaseModel):
    """A step of a set-up with its minutes; none for the first, and after a pause."""

    title: str
    minutes: str


class TaskTookOut(BaseModel):
    """A task of a set-up: planned now, and what it took last time [min]; none where nothing of it was ticked."""

    task: str
    planned: str
    took: str
    steps: list[StepTookOut]


class TookOut(BaseModel):
    """What the last set-up of this part took, task by task; `told` says which that was, or that there is none."""

    told: str
    tasks: list[TaskTookOut]


class ComparedOut(BaseModel):
    """Predicted and measured, one after another, of what a shelf item was read for."""

    kind: str
    title: str
    unit: str
    points: list[ComparedPoint]


class ComparedPoint(BaseModel):
    """One reading beside what was predicted."""

    at: datetime
    by: str
    run: str
    measured: float
    predicted: float | None
    words: str


ComparedOut.model_rebuild()
