"""Undo and redo: the inverse of one's own last edit, with what it carries on, appended as an edit of its own."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from calc.plan.edits import Change
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, kept, sent_before, try_change
from server.apps.runs.convert.words import text
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.edits import others_since, own_edits, paths_of
from server.apps.runs.queries.find import run_to_change
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import plan
from server.apps.shelf import queries as shelf
from server.foundation.models import Person
from server.foundation.problems import Conflict
from server.foundation.roles import require_setter


def _inverse(edits: list[Edit], forward: bool) -> Making:
    """What takes edits back that go together, the last one first."""
    how, last = "redo" if forward else "undo", edits[-1]
    if len(edits) == 1 and not last.parts:
        return Making(last.path, (Change(last.path, last.old),), last.typed_before, last, how)
    parts = tuple(Change(path, old) for edit in reversed(edits) for path, old in _before(edit))
    return Making(last.path, parts, last.typed, last, how)


def _before(edit: Edit) -> list[tuple[str, Any]]:
    return [(path, old) for path, old, _ in reversed(edit.parts)] if edit.parts else [(edit.path, edit.old)]


@transaction.atomic
def reverse(run_id: int, forward: bool, asked: Asked) -> Sent:
    """Undo one's last edit of this run, or with `forward` redo what was undone last.

    Raises Conflict where there is nothing to reverse, or where somebody has since changed that field.
    """
    require_setter(asked.person)
    run = run_to_change(run_id)
    if sent_before(run, asked):
        return plan(run, asked.look, asked.person)
    mine = own_edits(run, asked.person) if isinstance(asked.person, Person) else None
    stack = (mine.redo if forward else mine.undo) if mine else ()
    if not stack:
        raise Conflict(f"You have nothing to {'redo' if forward else 'undo'} in this run.")
    edits = list(Edit.objects.filter(pk__in=stack[-1]).order_by("revision"))
    for edit in edits:
        for path in paths_of(edit):
            require_may_change(asked.person, path)
        _refuse_overwriting(run, edit, forward, asked)
    return kept(try_change(run, _inverse(edits, forward), shelf.current()), asked)


def _refuse_overwriting(run: Run, edit: Edit, forward: bool, asked: Asked) -> None:
    """Raise Conflict where somebody else has changed what this would put back."""
    theirs = [
        e for path in paths_of(edit) for e in others_since(run, path, edit.revision) if e.by_id != asked.person.pk
    ]
    if not theirs:
        return
    last, on_shelf = max(theirs, key=lambda e: e.revision), shelf.current()
    word = "redone" if forward else "undone"
    said = ""
    if last.path == edit.path and not last.parts:
        old, new = (text(last.path, value, on_shelf, asked.system) for value in (last.old, last.new))
        said = f", {old} → {new}"
    raise Conflict(
        f"{edit.label} is not {word}: {last.by.username} changed it after you{said}. Change it by hand if you want to."
    )
