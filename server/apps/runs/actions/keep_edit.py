"""Keep one edit of a plan, or show what it would do without keeping it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Q

from calc.errors import CalcError
from calc.plan.compute import PlanResult
from calc.quantities import System
from server.apps.runs import convert, facts, queries
from server.apps.runs.facts import Entry
from server.apps.runs.models import Edit, Run, RunSetup
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.problems import Conflict
from server.foundation.roles import require_planner


@dataclass(frozen=True)
class Tried:
    """A run with one fact changed in memory."""

    run: Run
    row: Run | RunSetup
    old: Any
    new: Any
    result: PlanResult
    on_shelf: Snapshot

    def view(self, system: System) -> dict[str, Any]:
        """The plan with the change, as the screen is sent it."""
        return convert.plan_view(self.run, self.result, self.on_shelf, system, True)


def _try(run: Run, entry: Entry) -> Tried:
    """Change the fact in memory and compute. Raises CalcError where the fact itself is refused.

    A value elsewhere that this change makes wrong stays; its stop is then stopped.
    """
    on_shelf = shelf.current()
    new = facts.read_entry(run, entry, on_shelf)
    old = facts.current(run, entry.path, on_shelf)
    row = facts.put(run, entry.path, new, on_shelf)
    try:
        result = queries.computed(run, on_shelf)
    except CalcError as error:  # the document contradicts itself: tell it at the edited fact if it can be
        raise CalcError(queries.problems_at(error.errors, entry.path) or error.errors) from error
    refused = queries.problems_at(result.problems, entry.path)
    if refused:
        raise CalcError(refused)
    return Tried(run, row, old, new, result, on_shelf)


def preview(run: Run, entry: Entry, person: Any) -> dict[str, Any]:
    """The plan as it would be; nothing is saved."""
    require_planner(person)
    return _try(run, entry).view(entry.system)


def _sent_before(run: Run, entry: Entry, base_revision: int, key: UUID) -> bool:
    """Whether this very edit is kept already. Raises Conflict where its path has changed since the base.

    An edit merges when its path is untouched since then; else both values are told.
    """
    same_key = Q(key=key)
    same_path = Q(run=run, path=entry.path, revision__gt=base_revision)
    known = list(Edit.objects.filter(same_key | same_path).order_by("revision"))
    mine = next((e for e in known if e.key == key), None)
    if mine is not None and mine.run_id == run.pk:
        return True
    if mine is not None:
        raise Conflict("This edit was already kept for another run.")
    if known:
        yours = entry.text if entry.text is not None else entry.value
        theirs = known[-1].typed or known[-1].new
        raise Conflict("Somebody changed this since you looked. Look at both and choose.", yours=yours, theirs=theirs)
    return False


@transaction.atomic
def keep_edit(run_id: int, entry: Entry, base_revision: int, key: UUID, person: Any) -> dict[str, Any]:
    """Keep an edit: one fact, one history entry. Sending the same key twice keeps it once."""
    planner = require_planner(person)
    # Locked while it is changed, so that two edits never take the same revision.
    run = queries.run_by_id(run_id, lock=True)
    if _sent_before(run, entry, base_revision, key):
        return queries.plan(run, entry.system, person)
    tried = _try(run, entry)
    typed = (entry.text or "").strip()[:200]
    if tried.new != tried.old:
        run.revision += 1
        if facts.reference_kind(entry.path) is None:
            run.typed = {**run.typed, entry.path: typed} if typed else _without(run.typed, entry.path)
        if tried.row is not run:
            tried.row.save()
        run.save()
        Edit.objects.create(
            run=run,
            revision=run.revision,
            path=entry.path,
            old=tried.old,
            new=tried.new,
            typed=typed,
            key=key,
            by=planner,
        )
    return tried.view(entry.system)


def _without(typed: dict[str, str], path: str) -> dict[str, str]:
    return {p: t for p, t in typed.items() if p != path}
