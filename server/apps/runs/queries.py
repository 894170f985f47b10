"""Reads of runs: one plan computed, as it is or as it was, and its name plate."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet

from calc.errors import FieldError
from calc.plan.compute import PlanResult, compute
from calc.quantities import System
from server.apps.runs import convert, facts
from server.apps.runs.models import Edit, Run
from server.apps.runs.own_edits import own_edits
from server.apps.runs.paths import may_change
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import NotFound


def runs() -> QuerySet[Run]:
    """Runs with their set-ups."""
    return Run.objects.prefetch_related("setups")


def runs_that_take(kind: str, item_id: int) -> QuerySet[Run]:
    """Runs that take a shelf item, each once."""
    path = {"chuck": "setups__chuck_id", "jaw_blank": "setups__jaw_blank_id"}.get(kind, f"{kind}_id")
    taken = Run.objects.filter(**{path: item_id}).values("pk")
    return runs().filter(pk__in=taken)


def run_by_id(run_id: int, *, lock: bool = False) -> Run:
    """One run; with `lock`, nobody else changes it until the transaction ends. Raises NotFound."""
    rows = runs().select_for_update() if lock else runs()
    run = rows.filter(pk=run_id).first() if run_id < 2**63 else None
    if run is None:
        raise NotFound("There is no such run on the bench.")
    return run


def revision_of(run_id: int) -> int:
    """A run's revision, and nothing else. Raises NotFound."""
    found = Run.objects.filter(pk=run_id).values_list("revision", flat=True).first() if run_id < 2**63 else None
    if found is None:
        raise NotFound("There is no such run on the bench.")
    return found


def computed(run: Run, on_shelf: Snapshot) -> PlanResult:
    """The run's plan. Raises CalcError where its document contradicts itself."""
    options = {
        "machine": on_shelf.names["machine"],
        "material": on_shelf.names["material"],
        "chuck": shelf.chucks_of(on_shelf, run.machine_id),
    }
    return compute(convert.document_of(run), convert.shelf_of(run, on_shelf), options)


def plan_of(run: Run, result: PlanResult, on_shelf: Snapshot, system: System, person: Any) -> dict[str, Any]:
    """A computed plan as the screen is sent it."""
    mine = own_edits(run, person) if isinstance(person, Person) else None
    can = {"undo": bool(mine and mine.undo), "redo": bool(mine and mine.redo)}
    view = convert.plan_view(run, result, on_shelf, system, lambda path: not run.put_away and may_change(person, path))
    return view | can | {"at": None}


def plan(run: Run, system: System, person: Any) -> dict[str, Any]:
    """The plan as the screen is sent it."""
    on_shelf = shelf.current()
    return plan_of(run, computed(run, on_shelf), on_shelf, system, person)


def _as_of(run: Run, revision: int, on_shelf: Snapshot) -> None:
    """Take the loaded run back to a revision: every later edit is taken back, the newest first. Saves nothing."""
    if not 0 <= revision <= run.revision:
        raise NotFound("There is no such draft of this run.")
    later = Edit.objects.filter(run=run, revision__gt=revision).order_by("-revision")
    for path, old in later.values_list("path", "old"):
        facts.put(run, path, old, on_shelf)


def plan_at(run: Run, revision: int, system: System) -> dict[str, Any]:
    """The plan as it was at a revision, computed with today's shelf; to look at. Raises NotFound."""
    on_shelf = shelf.current()
    now, run.put_away = run.revision, False
    _as_of(run, revision, on_shelf)
    run.typed = {}
    view = convert.plan_view(run, computed(run, on_shelf), on_shelf, system, lambda _: False)
    return view | {"undo": False, "redo": False, "at": revision, "revision": now}


def whole_at(run: Run, revision: int) -> dict[str, Any]:
    """The whole plan at a revision as plain data. Raises NotFound."""
    on_shelf = shelf.current()
    then = run_by_id(run.pk)
    _as_of(then, revision, on_shelf)
    return facts.whole(then, on_shelf)


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(p for p in problems if p.field == path)
