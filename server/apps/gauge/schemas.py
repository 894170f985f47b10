"""Wire shapes of gauge runs and greasing."""

from __future__ import annotations

from datetime import date
from typing import Literal
from uuid import UUID

from ninja import Field, Schema
from pydantic import BaseModel

from server.apps.questions.schemas import AskIn
from server.foundation.schemas import Units


class GaugeAsk(Schema):
    """In which units."""

    units: Units = "metric"


class ListenIn(AskIn):
    """Which gauge to read."""

    gauge: str = Field(max_length=60)


class HeardOut(BaseModel):
    """What came of reading a gauge into a run."""

    run: int
    total: int
    good: bool
    told: str


class ArrivedAsk(Schema):
    """Readings after how many."""

    after: int = Field(0, ge=0, le=1_000_000)


class ArrivedOut(BaseModel):
    """Readings as (rpm, newtons), and how many the run has."""

    points: list[list[float]]
    total: int


class GreaseOut(BaseModel):
    """An entry of the greasing log."""

    on: date
    by: str
    note: str


class GaugeRunOut(BaseModel):
    """A gauge run in a line; figures are empty until it is kept."""

    id: int
    on: date
    by: str
    source: str
    side: Literal["od", "id"]
    note: str
    jaw_set: str
    kept: bool
    pressure: str
    static: str
    condition: str
    transmission: str
    r_squared: str


class TrendPoint(BaseModel):
    """The condition measured on a day."""

    on: date
    condition: float


class JawSetOption(BaseModel):
    """A jaw set that was bored on the chuck."""

    value: str
    label: str


class ChuckGaugeOut(BaseModel):
    """A chuck's greasing and gauge runs; `counts` is the run that plans count with."""

    key: str
    name: str
    gauges: list[str]
    today: date
    greased: list[GreaseOut]
    grease: str
    days: int
    runs: list[GaugeRunOut]
    counts: int | None
    trend: list[TrendPoint]
    warning: str
    jaw_sets: list[JawSetOption]


class ReadingOut(BaseModel):
    """A reading, and how far it stands off the fitted curve; null where it is left out or there is no curve."""

    number: int
    rpm: float
    grip: float
    left_out: bool
    off: float | None


class GaugeFigure(BaseModel):
    """A fitted figure in words."""

    label: str
    text: str


class GaugeNote(BaseModel):
    """What must be said about a fit."""

    level: Literal["info", "caution", "stop"]
    code: str
    text: str


class Fitted(BaseModel):
    """The curve through a run's readings, and what is said about the fit; nothing where there is none."""

    curve: list[list[float]] = []
    figures: list[GaugeFigure] = []
    outliers: list[int] = []
    notes: list[GaugeNote] = []
    usable: bool = False


class GaugeRunPage(GaugeRunOut, Fitted):
    """A run with its readings, its curve and what is said about the fit."""

    unit: str
    total: int
    readings: list[ReadingOut]
    problem: str


class GaugeRunIn(Schema):
    """A new run: with typed readings, or to be read from a gauge."""

    source: Literal["typed", "live"]
    side: str = Field(max_length=2)
    on: str = Field(default="", max_length=10)
    pressure: str = Field(max_length=40)
    height: str = Field(max_length=40)
    jaw_mass: str = Field(default="", max_length=40)
    jaw_radius: str = Field(default="", max_length=40)
    jaw_set: str = Field(default="", max_length=60)
    note: str = Field(default="", max_length=120)
    readings: str = Field(default="", max_length=400_000)
    units: Units = "metric"
    key: UUID


class LeaveOutIn(Schema):
    """Readings to leave out of the fit, or to take in again."""

    numbers: list[int] = Field(max_length=5000)
    left_out: bool


class GreaseIn(Schema):
    """The chuck was greased."""

    on: str = Field(default="", max_length=10)
    note: str = Field(default="", max_length=120)
