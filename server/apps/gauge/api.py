"""Gauge runs and greasing over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Query, Router, Status

from server.apps.gauge import live, queries
from server.apps.gauge.actions import runs
from server.apps.gauge.schemas import ChuckGaugeOut, GaugeAsk, GaugeRunIn, GaugeRunPage, GreaseIn, LeaveOutIn, LiveAsk
from server.foundation.schemas import Problem, Units

router = Router(tags=["gauge"])
LOOKS = {401: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 403: Problem, 409: Problem, **LOOKS}


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
