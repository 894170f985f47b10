"""Undo and redo: the inverse of one's own last edit, appended as an edit of its own."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from calc.quantities import System
from server.apps.runs import facts, queries
from server.apps.runs.actions.change import Change, keep, others_since, sent_before, try_change
from server.apps.runs.models import Edit, Run
from server.apps.runs.own_edits import own_edits
from server.apps.runs.paths import require_may_change
from server.apps.shelf import queries as shelf
from server.foundation.models import Person
from server.foundation.problems import Conflict


@transaction.atomic
def reverse(run_id: int, forward: bool, key: UUID, system: System, person: Any) -> dict[str, Any]:
    """Undo one's last edit of this run, or with `forward` redo what was undone last.

    Raises Conflict where there is nothing to reverse, or where somebody has since changed that field.
    """
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, system, person)
    mine = own_edits(run, person) if isinstance(person, Person) else None
    stack = (mine.redo if forward else mine.undo) if mine else ()
    if not stack:
        raise Conflict(f"You have nothing to {'redo' if forward else 'undo'} in this run.")
    edit = Edit.objects.get(pk=stack[-1])
    require_may_change(person, edit.path)
    on_shelf = shelf.current()
    _refuse_overwriting(run, edit, forward, person, system)
    change = Change(edit.path, edit.old, edit.typed_before, edit, "redo" if forward else "undo")
    tried = try_change(run, change, on_shelf)
    keep(tried, key, person)
    return queries.plan_of(run, tried.result, tried.on_shelf, system, person)


def _refuse_overwriting(run: Run, edit: Edit, forward: bool, person: Person, system: System) -> None:
    """Raise Conflict where somebody else has changed what this would put back."""
    theirs = [e for e in others_since(run, edit.path, edit.revision) if e.by_id != person.pk]
    if not theirs:
        return
    last, on_shelf = theirs[-1], shelf.current()
    word = "redone" if forward else "undone"
    said = ""
    if last.path == edit.path:
        old, new = (facts.text(last.path, value, on_shelf, system) for value in (last.old, last.new))
        said = f", {old} → {new}"
    raise Conflict(
        f"{edit.label} is not {word}: {last.by.username} changed it after you{said}. Change it by hand if you want to."
    )
