"""Gauge runs and greasing over HTTP."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Field, Query, Router, Schema, Status

from server.apps.gauge import live, queries
from server.apps.gauge.actions import runs
from server.foundation.schemas import Problem, Units

router = Router(tags=["gauge"])
LOOKS = {401: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 403: Problem, 409: Problem, **LOOKS}


class GaugeAsk(Schema):
    """In which units."""

    units: Units = "metric"


class LiveAsk(Schema):
    """Which of the shop's gauges."""

    gauge: str = Field(max_length=60)


class GreaseOut(Schema):
    """An entry of the greasing log."""

    on: date
    by: str
    note: str


class GaugeRunOut(Schema):
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


class TrendPoint(Schema):
    """The condition measured on a day."""

    on: date
    condition: float


class JawSetOption(Schema):
    """A jaw set that was bored on the chuck."""

    value: str
    label: str


class ChuckGaugeOut(Schema):
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


class ReadingOut(Schema):
    """A reading, and how far it stands off the fitted curve; null where it is left out or there is no curve."""

    number: int
    rpm: float
    grip: float
    left_out: bool
    off: float | None


class GaugeFigure(Schema):
    """A fitted figure in words."""

    label: str
    text: str


class GaugeNote(Schema):
    """What must be said about a fit."""

    level: Literal["info", "caution", "stop"]
    code: str
    text: str


class GaugeRunPage(GaugeRunOut):
    """A run with its readings, its curve and what is said about the fit."""

    unit: str
    total: int
    readings: list[ReadingOut]
    curve: list[list[float]]
    figures: list[GaugeFigure]
    outliers: list[int]
    notes: list[GaugeNote]
    usable: bool
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


def _page(key: str, units: Units) -> dict[str, Any]:
    return queries.chuck_page(key, list(live.gauges()), units)


@router.get("/chucks/{key}/gauge", response={200: ChuckGaugeOut, **LOOKS}, operation_id="chuckGauge")
def chuck_gauge(request: HttpRequest, key: str, asked: Query[GaugeAsk]) -> dict[str, Any]:
    """A chuck's greasing log, its gauge runs, and where its condition is going."""
    return _page(key, asked.units)


@router.post("/chucks/{key}/greasings", response={200: ChuckGaugeOut, **CHANGES}, operation_id="noteGreasing")
def note_greasing(request: HttpRequest, key: str, given: GreaseIn) -> dict[str, Any]:
    """Note that the chuck was greased."""
    runs.grease(key, given.on, given.note, request.user)
    return _page(key, "metric")


@router.post("/chucks/{key}/gauge-runs", response={201: GaugeRunPage, **CHANGES}, operation_id="newGaugeRun")
def new_gauge_run(request: HttpRequest, key: str, given: GaugeRunIn) -> Status[dict[str, Any]]:
    """Take a gauge run in: typed or pasted readings, or one that a gauge will fill."""
    run = runs.take_in(key, given.dict(), given.key, given.units, request.user)
    return Status(201, queries.run_page(queries.run_by_id(run.pk), given.units))


@router.get("/gauge-runs/{int:run_id}", response={200: GaugeRunPage, **LOOKS}, operation_id="gaugeRun")
def gauge_run(request: HttpRequest, run_id: int, asked: Query[GaugeAsk]) -> dict[str, Any]:
    """A run with its readings and its fit."""
    return queries.run_page(queries.run_by_id(run_id), asked.units)


@router.post("/gauge-runs/{int:run_id}/left-out", response={200: GaugeRunPage, **CHANGES}, operation_id="leaveOut")
def leave_out(request: HttpRequest, run_id: int, given: LeaveOutIn, asked: Query[GaugeAsk]) -> dict[str, Any]:
    """Leave readings out of the fit, or take them in again."""
    return queries.run_page(runs.leave_out(run_id, given.numbers, given.left_out, request.user), asked.units)


@router.post("/gauge-runs/{int:run_id}/keep", response={200: GaugeRunPage, **CHANGES}, operation_id="keepGaugeRun")
def keep(request: HttpRequest, run_id: int, asked: Query[GaugeAsk]) -> dict[str, Any]:
    """Let plans count with this run."""
    return queries.run_page(runs.keep(run_id, request.user), asked.units)


@router.delete("/gauge-runs/{int:run_id}", response={204: None, **CHANGES}, operation_id="removeGaugeRun")
def remove(request: HttpRequest, run_id: int) -> Status[None]:
    """Take away a run that does not count."""
    runs.remove(run_id, request.user)
    return Status(204, None)


EVENTS = {"responses": {200: {"content": {"text/event-stream": {"schema": {"type": "string"}}}}}}


@router.get(
    "/gauge-runs/{int:run_id}/live",
    response={200: str, 403: Problem, 409: Problem, **LOOKS},
    operation_id="liveGauge",
    openapi_extra=EVENTS,
)
def live_gauge(request: HttpRequest, run_id: int, asked: Query[LiveAsk]) -> StreamingHttpResponse:
    """Readings of a gauge as they arrive, as server-sent events; each is kept before it is sent."""
    from server.foundation.problems import NotFound

    run = runs.ready_for_gauge(run_id, request.user)
    if asked.gauge not in live.gauges():
        raise NotFound("This shop has no gauge of that name.")
    answer = StreamingHttpResponse(live.stream(run.pk, asked.gauge), content_type="text/event-stream")
    answer["Cache-Control"] = "no-store"
    answer["X-Accel-Buffering"] = "no"
    return answer
