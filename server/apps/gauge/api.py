"""Gauge runs and greasing over HTTP."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Query, Router, Status

from server.apps.gauge import live, queries
from server.apps.gauge.actions import runs
from server.apps.gauge.schemas import (
    ArrivedAsk,
    ArrivedOut,
    ChuckGaugeOut,
    GaugeAsk,
    GaugeRunIn,
    GaugeRunPage,
    GreaseIn,
    LeaveOutIn,
    ListenIn,
)
from server.apps.questions.schemas import QuestionOut
from server.foundation.schemas import Problem, Units

router = Router(tags=["gauge"])
LOOKS = {401: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 403: Problem, 409: Problem, **LOOKS}
ASKS = {**CHANGES, 429: Problem}


def _page(key: str, units: Units) -> ChuckGaugeOut:
    return queries.chuck_page(key, list(live.gauges()), units)


@router.get("/chucks/{key}/gauge", response={200: ChuckGaugeOut, **LOOKS}, operation_id="chuckGauge")
def chuck_gauge(request: HttpRequest, key: str, asked: Query[GaugeAsk]) -> ChuckGaugeOut:
    """A chuck's greasing log, its gauge runs, and where its condition is going."""
    return _page(key, asked.units)


@router.post("/chucks/{key}/greasings", response={200: ChuckGaugeOut, **CHANGES}, operation_id="noteGreasing")
def note_greasing(request: HttpRequest, key: str, given: GreaseIn) -> ChuckGaugeOut:
    """Note that the chuck was greased."""
    runs.grease(key, given.on, given.note, request.user)
    return _page(key, "metric")


@router.post("/chucks/{key}/gauge-runs", response={201: GaugeRunPage, **CHANGES}, operation_id="newGaugeRun")
def new_gauge_run(request: HttpRequest, key: str, given: GaugeRunIn) -> Status[GaugeRunPage]:
    """Take a gauge run in: typed or pasted readings, or one that a gauge will fill."""
    run = runs.take_in(key, given, request.user)
    return Status(201, queries.run_page(queries.run_by_id(run.pk), given.units))


@router.get("/gauge-runs/{int:run_id}", response={200: GaugeRunPage, **LOOKS}, operation_id="gaugeRun")
def gauge_run(request: HttpRequest, run_id: int, asked: Query[GaugeAsk]) -> GaugeRunPage:
    """A run with its readings and its fit."""
    return queries.run_page(queries.run_by_id(run_id), asked.units)


@router.post("/gauge-runs/{int:run_id}/left-out", response={200: GaugeRunPage, **CHANGES}, operation_id="leaveOut")
def leave_out(request: HttpRequest, run_id: int, given: LeaveOutIn, asked: Query[GaugeAsk]) -> GaugeRunPage:
    """Leave readings out of the fit, or take them in again."""
    return queries.run_page(runs.leave_out(run_id, given.numbers, given.left_out, request.user), asked.units)


@router.post("/gauge-runs/{int:run_id}/keep", response={200: GaugeRunPage, **CHANGES}, operation_id="keepGaugeRun")
def keep(request: HttpRequest, run_id: int, asked: Query[GaugeAsk]) -> GaugeRunPage:
    """Let plans count with this run."""
    return queries.run_page(runs.keep(run_id, request.user), asked.units)


@router.delete("/gauge-runs/{int:run_id}", response={204: None, **CHANGES}, operation_id="removeGaugeRun")
def remove(request: HttpRequest, run_id: int) -> Status[None]:
    """Take away a run that does not count."""
    runs.remove(run_id, request.user)
    return Status(204, None)


@router.post("/gauge-runs/{int:run_id}/listen", response={202: QuestionOut, **ASKS}, operation_id="listenToGauge")
def listen(request: HttpRequest, run_id: int, given: ListenIn) -> Status[QuestionOut]:
    """Read a gauge into a run. Its readings are kept as they arrive; cancelling the question ends the reading."""
    return Status(202, live.ask_to_listen(run_id, given.gauge, given.key, request.user))


@router.get("/gauge-runs/{int:run_id}/readings", response={200: ArrivedOut, **LOOKS}, operation_id="gaugeReadings")
def readings(request: HttpRequest, run_id: int, asked: Query[ArrivedAsk]) -> ArrivedOut:
    """The readings of a run that arrived after a number of them."""
    return queries.arrived(run_id, asked.after)
