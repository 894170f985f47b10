"""Keep one edit of a plan, or show what it would do without keeping it."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from server.apps.runs import facts, queries
from server.apps.runs.actions.change import Change, Tried, keep, others_since, sent_before, try_change
from server.apps.runs.facts import Entry
from server.apps.runs.models import Run
from server.apps.runs.paths import require_may_change
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict


def _try(run: Run, entry: Entry) -> Tried:
    on_shelf = shelf.current()
    new = facts.read_entry(run, entry, on_shelf)
    return try_change(run, Change(entry.path, new, (entry.text or "").strip()[:200]), on_shelf)


def preview(run: Run, entry: Entry, person: Any) -> dict[str, Any]:
    """The plan as it would be; nothing is saved."""
    require_may_change(person, entry.path)
    tried = _try(run, entry)
    return queries.plan_of(run, tried.result, tried.on_shelf, entry.system, person)


@transaction.atomic
def keep_edit(run_id: int, entry: Entry, base_revision: int, key: UUID, person: Any) -> dict[str, Any]:
    """Keep an edit: one fact, one history entry. Sending the same key twice keeps it once.

    An edit merges when what is at its path is untouched since the base; else Conflict tells both values.
    """
    require_may_change(person, entry.path)
    # Locked while it is changed, so that two edits never take the same revision.
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, entry.system, person)
    touched = others_since(run, entry.path, base_revision)
    if touched:
        raise _conflict(run, entry, touched[-1].path == entry.path and touched[-1].typed)
    tried = _try(run, entry)
    keep(tried, key, person)
    return queries.plan_of(run, tried.result, tried.on_shelf, entry.system, person)


def _conflict(run: Run, entry: Entry, theirs_typed: str | bool) -> Conflict:
    on_shelf = shelf.current()
    yours = entry.text if entry.text is not None else facts.text(entry.path, entry.value, on_shelf, entry.system)
    try:
        theirs = theirs_typed or facts.text(
            entry.path, facts.current(run, entry.path, on_shelf), on_shelf, entry.system
        )
    except KeyError:
        return Conflict("Somebody took this out of the plan since you looked.", yours=yours, theirs="no longer there")
    return Conflict("Somebody changed this since you looked. Look at both and choose.", yours=yours, theirs=theirs)
