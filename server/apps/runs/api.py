"""Routes of the bench and of plans."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router

from server.apps.runs import queries
from server.apps.runs.actions.keep_edit import keep_edit, preview
from server.apps.runs.facts import Entry
from server.apps.runs.schemas import BenchRow, EditIn, EntryIn, PlanOut, Units
from server.foundation.schemas import Problem

router = Router(tags=["runs"])
CHANGES = {200: PlanOut, 401: Problem, 403: Problem, 404: Problem, 422: Problem}


def _plan(view: dict[str, Any]) -> HttpResponse:
    # Written straight to JSON by pydantic, once: the screen waits for this at every key.
    return HttpResponse(PlanOut.model_validate(view).model_dump_json(), content_type="application/json")


def _entry(given: EntryIn) -> Entry:
    return Entry(given.path, given.text, given.value, given.units)


@router.get("/runs", response={200: list[BenchRow], 401: Problem}, operation_id="bench")
def bench(request: HttpRequest) -> list[dict[str, Any]]:
    """The bench: every run, how it stands, what it needs next."""
    return queries.bench()


@router.get("/runs/{int:run_id}/plan", response={200: PlanOut, 401: Problem, 404: Problem, 422: Problem},
            operation_id="plan")  # fmt: skip
def plan(request: HttpRequest, run_id: int, units: Units = "metric") -> HttpResponse:
    """A run's plan, computed, in the units asked for."""
    return _plan(queries.plan(queries.run_by_id(run_id), units, request.user))


@router.post("/runs/{int:run_id}/preview", response={**CHANGES, 400: Problem}, operation_id="previewEdit")
def preview_edit(request: HttpRequest, run_id: int, given: EntryIn) -> HttpResponse:
    """What an edit would do; nothing is kept."""
    return _plan(preview(queries.run_by_id(run_id), _entry(given), request.user))


@router.post("/runs/{int:run_id}/edits", response={**CHANGES, 400: Problem, 409: Problem}, operation_id="keepEdit")
def keep(request: HttpRequest, run_id: int, given: EditIn) -> HttpResponse:
    """Keep an edit: one fact, one history entry."""
    return _plan(keep_edit(run_id, _entry(given), given.base_revision, given.key, request.user))
