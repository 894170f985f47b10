"""Reads of runs: the bench, and one plan computed."""

from __future__ import annotations

from typing import Any

from django.db.models import Prefetch, QuerySet

from calc.errors import FieldError
from calc.plan.compute import PlanResult, compute
from calc.plan.stops import Stop
from calc.quantities import System
from server.apps.runs import convert
from server.apps.runs.models import Run, RunSetup
from server.apps.shelf import queries as shelf
from server.foundation.models import Person
from server.foundation.problems import NotFound

SETUPS = RunSetup.objects.select_related("chuck", "jaw_blank").prefetch_related("chuck__chart", "chuck__blanks")


def runs() -> QuerySet[Run]:
    """Runs with everything that computing them needs."""
    return Run.objects.select_related("machine", "material").prefetch_related(Prefetch("setups", SETUPS))


def run_by_id(run_id: int) -> Run:
    """One run. Raises NotFound."""
    run = runs().filter(pk=run_id).first() if run_id < 2**63 else None
    if run is None:
        raise NotFound("There is no such run on the bench.")
    return run


def computed(run: Run) -> PlanResult:
    """The run's plan. Raises CalcError where its document contradicts itself."""
    options = {
        "machine": shelf.names("machine"),
        "material": shelf.names("material"),
        "chuck": shelf.chucks_of(run.machine),
    }
    return compute(convert.document_of(run), convert.shelf_of(run), options)


def may_edit(person: Any) -> bool:
    """Whether this person changes plans."""
    return isinstance(person, Person) and person.role == Person.Role.PLANNER


def plan(run: Run, system: System, person: Any) -> dict[str, Any]:
    """The plan as the screen is sent it."""
    return convert.plan_view(run, computed(run), system, may_edit(person))


def _needs(stop: Stop | None, system: System) -> str:
    return f"{stop.title}: {stop.line.text(system)}" if stop else "nothing is open; look it over before it is set"


def bench() -> list[dict[str, Any]]:
    """Every run with how it stands and what it needs next."""
    rows = []
    for run in runs():
        result = computed(run)
        system: System = "inch" if run.units == "inch" else "metric"
        first = next((s for s in result.stops if s.state == "stopped"), None) or next(
            (s for s in result.stops if s.state == "open"), None
        )
        row = convert.run_view(run) | {"verdict": result.verdict, "needs": _needs(first, system)}
        row["lines"] = [{"title": s.title, "state": s.state, "line": s.line.text(system)} for s in result.stops]
        rows.append(row)
    return rows


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(p for p in problems if p.field == path)
