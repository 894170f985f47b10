"""Reads of runs: the bench, and one plan computed."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet

from calc.errors import FieldError
from calc.plan.compute import PlanResult, compute
from calc.plan.stops import Stop
from calc.quantities import System
from server.apps.runs import convert
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import NotFound


def runs() -> QuerySet[Run]:
    """Runs with their set-ups."""
    return Run.objects.prefetch_related("setups")


def run_by_id(run_id: int, *, lock: bool = False) -> Run:
    """One run; with `lock`, nobody else changes it until the transaction ends. Raises NotFound."""
    rows = runs().select_for_update() if lock else runs()
    run = rows.filter(pk=run_id).first() if run_id < 2**63 else None
    if run is None:
        raise NotFound("There is no such run on the bench.")
    return run


def computed(run: Run, on_shelf: Snapshot) -> PlanResult:
    """The run's plan. Raises CalcError where its document contradicts itself."""
    options = {
        "machine": on_shelf.names["machine"],
        "material": on_shelf.names["material"],
        "chuck": shelf.chucks_of(on_shelf, run.machine_id),
    }
    return compute(convert.document_of(run), convert.shelf_of(run, on_shelf), options)


def may_edit(person: Any) -> bool:
    """Whether this person changes plans."""
    return isinstance(person, Person) and person.role == Person.Role.PLANNER


def plan(run: Run, system: System, person: Any) -> dict[str, Any]:
    """The plan as the screen is sent it."""
    on_shelf = shelf.current()
    return convert.plan_view(run, computed(run, on_shelf), on_shelf, system, may_edit(person))


def _needs(stop: Stop | None, system: System) -> str:
    return f"{stop.title}: {stop.line.text(system)}" if stop else "nothing is open; look it over before it is set"


def bench() -> list[dict[str, Any]]:
    """Every run with how it stands and what it needs next."""
    on_shelf = shelf.current()
    rows = []
    for run in runs():
        result = computed(run, on_shelf)
        system: System = "inch" if run.units == "inch" else "metric"
        first = next((s for s in result.stops if s.state == "stopped"), None) or next(
            (s for s in result.stops if s.state == "open"), None
        )
        row = convert.run_view(run, on_shelf) | {"verdict": result.verdict, "needs": _needs(first, system)}
        row["lines"] = [{"title": s.title, "state": s.state, "line": s.line.text(system)} for s in result.stops]
        rows.append(row)
    return rows


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(p for p in problems if p.field == path)
