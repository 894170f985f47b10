"""Wire shapes of Running."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Field, Schema
from pydantic import AwareDatetime, BaseModel

from calc.running.said import LotSaid
from server.foundation.schemas import Units

LOT = Annotated[str, Field(max_length=12)]
NAME = Annotated[str, Field(max_length=60)]
NOTE = Annotated[str, Field("", max_length=160)]
Value = Annotated[str, Field(max_length=60)] | float
Done = Annotated[AwareDatetime | None, Field(description="When it was done, for what waited on a tablet; none: now")]
NUMBER = Annotated[int, Field(ge=1, le=10_000_000)]


class RunningAsk(Schema):
    """In which units, of which release (none: the one that stands), of which lot (none: the one that is made)."""

    units: Units = "metric"
    release: int | None = Field(None, ge=1)
    lot: LOT = ""


class AtLot(Schema):
    """What is said of a lot of a release. `key`: made by the sender, so that sending twice keeps once."""

    key: UUID
    release: int = Field(ge=1)
    lot: LOT
    units: Units = "metric"
    at: Done = None


class PieceIn(AtLot):
    """A piece, good or scrap with its reason, with what was measured of it. `sure`: what looks wrong was said again."""

    good: bool = True
    reason: NOTE = ""
    values: dict[NAME, Value] = {}
    temp_c: float = Field(20.0, allow_inf_nan=False)
    instrument: NAME = ""
    sure: bool = False


class MeasureIn(AtLot):
    """What was measured of a piece that was counted before; none: the last one."""

    piece: NUMBER | None = None
    values: dict[NAME, Value]
    temp_c: float = Field(20.0, allow_inf_nan=False)
    instrument: NAME = ""
    sure: bool = False


class ChangeIn(AtLot):
    """A fresh edge, or an offset moved by so much as it was typed, or as it was advised in mm."""

    kind: Literal["edge", "offset"]
    edge: Annotated[str, Field(max_length=20)]
    amount: Value | None = None
    why: Literal["due", "worn", "size", "broken", "other"] = "other"


class StopIn(AtLot):
    """It stopped, and why; or it goes on."""

    what: Literal["stop", "on"]
    why: Literal["edge", "measure", "chips", "stock", "alarm", "size", "break", "other"] = "other"
    note: NOTE = ""


class CorrectIn(AtLot):
    """What is right of a piece, and why it is corrected: whether it is good, or a value."""

    piece: NUMBER
    good: bool | None = None
    reason: NOTE = ""
    values: dict[NAME, Value] = {}
    why: Annotated[str, Field(max_length=160)]
    sure: bool = False


class PiecesFileIn(AtLot):
    """A CSV file of measured pieces: a row each, its number first, then a column for each dimension."""

    text: Annotated[str, Field(max_length=4_000_000)]


class CloseIn(AtLot):
    """A lot is closed: which of its cuts go into the notebook, and what the next one should know."""

    keep: Annotated[list[NAME], Field(max_length=80)] = []
    lesson: Annotated[str, Field(max_length=400)] = ""


class LotLine(BaseModel):
    """A lot of a run, and how far it is."""

    key: str
    name: str
    counted: int
    good: int
    quantity: int
    closed: bool


class HeadOut(BaseModel):
    """What stands over a lot: pieces, and when it is done, in words."""

    counted: int
    good: int
    scrap: int
    quantity: int
    left: int
    done: str
    pace: str
    board: str


class StillOut(BaseModel):
    """It stands still, since when, and why."""

    since: datetime
    why: str


class LogLine(BaseModel):
    """Something that happened, in words."""

    at: datetime
    by: str
    after: int
    words: str


class ReleaseAt(BaseModel):
    """Which release it is; `replaced`: another stands now."""

    number: int
    by: str
    at: datetime
    replaced: bool


class InstrumentAt(BaseModel):
    """An instrument of the shop, and what it measures."""

    name: str
    kind: str


class WhyOut(BaseModel):
    """A reason that can be chosen."""

    key: str
    words: str


class RunningOut(BaseModel):
    """A lot of a release as it stands at the machine. `revision` counts whatever is kept of it."""

    run: int
    name: str
    drawing_number: str
    machine: str
    units: Units
    release: ReleaseAt
    place: str
    may_mark: bool
    lots: list[LotLine]
    lot: str
    revision: int
    head: HeadOut
    standing: LotSaid
    still: StillOut | None
    log: list[LogLine]
    instruments: list[InstrumentAt]
    changed_for: list[WhyOut]
    stopped_for: list[WhyOut]
    counts_itself: bool
    machine_trouble: str


class KeptOut(BaseModel):
    """What was kept: the piece it is of, what follows in words, and the lot as it stands now."""

    piece: int | None
    told: list[str]
    level: Literal["good", "watch", "stop"]
    page: RunningOut


class RunningPulse(BaseModel):
    """Whether anything was kept since, and whether the release still stands."""

    revision: int
    replaced: bool


class ValueOut(BaseModel):
    """What was measured of a piece."""

    dimension: str
    title: str
    shown: str
    typed: str
    instrument: str
    by: str
    at: datetime


class CorrectedOut(BaseModel):
    """What was corrected of a piece, in words."""

    words: str
    why: str
    by: str
    at: datetime


class PieceOut(BaseModel):
    """A piece with what was measured of it, and what was corrected."""

    number: int
    good: bool
    reason: str
    by: str
    at: datetime
    values: list[ValueOut]
    corrected: list[CorrectedOut]


class PiecesFileLine(BaseModel):
    """A row of a file: what became of it."""

    line: int
    piece: int | None
    outcome: Literal["kept", "bad"]
    told: str


class PiecesFileOut(BaseModel):
    """What became of every row of a file."""

    kept: int
    bad: int
    lines: list[PiecesFileLine]
    page: RunningOut


class BesideOut(BaseModel):
    """Something planned beside what it came to."""

    what: str
    planned: str
    real: str


class KeptPrintOut(BaseModel):
    """How a dimension kept its print, in words."""

    title: str
    words: str


class WorkedOut(BaseModel):
    """A cut that is offered to the notebook: its figures in words."""

    key: str
    name: str
    words: str
    remarks: str


class LessonOut(BaseModel):
    """What the next one should know, from which part, by whom and when."""

    part: str
    material: str
    machine: str
    text: str
    by: str
    at: datetime


class ClosingOut(BaseModel):
    """A lot at its end."""

    closed_at: datetime | None
    may_keep: bool
    rows: list[BesideOut]
    kept: list[KeptPrintOut]
    worked: list[WorkedOut]
    lessons: list[LessonOut]


class RanOut(BaseModel):
    """A lot of this part as it ran: which it was, and planned beside real."""

    words: str
    rows: list[BesideOut]


class TaughtOut(BaseModel):
    """Something that the plan may count in place of what it computes: the path and value of the fact, and in words."""

    path: str
    value: float
    words: str


class LastTimeOut(BaseModel):
    """What was learnt of a part or its material before, of the same part first; how the part ran last, and what of it
    its plan may count."""

    lessons: list[LessonOut]
    ran: list[RanOut]
    taught: list[TaughtOut]
