"""Keep one edit of a plan, or show what it would do without keeping it."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4

from django.db import transaction

from calc.identity import Identities
from calc.plan.entry import Entry, Known, value_of
from calc.reading import write
from server.apps.house import queries as house
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Tried, at, ids_for, kept, sent_before, try_change
from server.apps.runs.convert import rows
from server.apps.runs.convert.words import text
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.edits import others_since
from server.apps.runs.queries.find import run_to_change
from server.apps.runs.queries.look import Look, Sent, Shown
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import Computed, computed, parts_of, plan, reader_of
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.problems import Conflict


def read_entry(document: Any, entry: Entry, on_shelf: Snapshot, ids: Identities) -> Any:
    """The core value of what was given. Raises CalcError at the path with what to do."""
    known = Known(document, lambda kind, key: key in on_shelf.ids[kind], lambda: write(house.current()), ids)
    return value_of(entry, known)


def _try(run: Run, entry: Entry, key: UUID) -> Tried:
    on_shelf = shelf.current()
    new = read_entry(run.document, entry, on_shelf, ids_for(run, key))
    return try_change(run, at(entry.path, new, (entry.text or "").strip()[:200]), on_shelf)


def preview(run: Run, entry: Entry, look: Look, person: Any) -> Sent:
    """The plan as it would be, and what moves against the kept one; nothing is saved."""
    require_may_change(person, entry.path)
    tried = _try(run, entry, uuid4())
    reader = reader_of(run, look.system, person)
    return Shown(run, tried.result, tried.on_shelf, look, reader, tried.was).preview(entry.path)


def parts(run: Run, names: list[str], entry: Entry | None, look: Look, person: Any) -> bytes:
    """Parts of the plan as it is, or as it would be with an entry; nothing is saved."""
    reader = reader_of(run, look.system, person)
    if entry is None:
        on_shelf = shelf.current()
        return parts_of(Computed(run, computed(run, on_shelf), on_shelf), names, reader, look.held, None)
    require_may_change(person, entry.path)
    return parts_of(_try(run, entry, uuid4()).computed, names, reader, look.held, entry.path)


@transaction.atomic
def keep_edit(run_id: int, entry: Entry, asked: Asked) -> Sent:
    """Keep an edit: one fact, one history entry. Sending the same key twice keeps it once.

    An edit merges when what is at its path is untouched since the base; else Conflict tells both values.
    """
    require_may_change(asked.person, entry.path)
    # Locked while it is changed, so that two edits never take the same revision.
    run = run_to_change(run_id)
    if sent_before(run, asked):
        return plan(run, asked.look, asked.person)
    touched = others_since(run, entry.path, asked.base_revision)
    if touched:
        raise _conflict(run, entry, touched[-1])
    return kept(_try(run, entry, asked.key), asked)


def _conflict(run: Run, entry: Entry, last: Edit) -> Conflict:
    """Both values, and who changed it last."""
    on_shelf, who = shelf.current(), last.by.username
    theirs_typed = last.typed if last.path == entry.path else ""
    yours = entry.text if entry.text is not None else text(entry.path, entry.value, on_shelf, entry.system)
    try:
        now = rows.current(run, entry.path, entry.given, on_shelf)
    except KeyError:
        return Conflict(f"{who} took this out of the plan since you looked.", yours=yours, theirs="no longer there")
    theirs = theirs_typed or text(entry.path, now, on_shelf, entry.system)
    return Conflict(f"{who} changed this since you looked. Look at both and choose.", yours=yours, theirs=theirs)
