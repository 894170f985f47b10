"""A run's history: its edits as sentences, the newest first."""

from __future__ import annotations

from typing import Any

from calc.plan.edits import is_put, place_at
from calc.plan.entry import PLAN, PROFILE, PROPOSED, PUT_AWAY
from calc.plan.standing import moved_words
from calc.quantities import System
from server.apps.runs.convert.words import text
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.edits import first_draft
from server.apps.runs.schemas import HistoryEntry, HistoryOut
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot

PAGE = 100


def _names(value: Any) -> list[str]:
    return [str(item.get("name", "?")) for item in value or []]


def _of_a_list(edit: Edit) -> str:
    before, after = _names(edit.old), _names(edit.new)
    came, went = [n for n in after if n not in before], [n for n in before if n not in after]
    told = [f"{', '.join(came)} put in"] * bool(came) + [f"{', '.join(went)} taken out"] * bool(went)
    return f"{edit.label}: {', '.join(told) or 'changed'}"


def _of_a_whole(edit: Edit) -> str | None:
    """What an edit did that is of no single fact: several at once, the plan, the profile, the bench."""
    back = edit.reverses_id is not None
    if edit.path == PROPOSED:
        first = edit
        while first.reverses is not None:  # what it is about stands in the edit that is taken back
            first = first.reverses
        return first.typed
    if edit.parts:
        return f"{edit.label}: {'put back' if back else edit.typed}"
    if edit.path == PLAN:
        return "the whole plan put back" if back else f"back to {edit.typed}"
    if edit.path == PROFILE:
        return f"{edit.label} put back" if back else f"{edit.label} read from {edit.typed or 'a drawing'}"
    if edit.path == PUT_AWAY:
        return "put away" if edit.new else "brought back to the bench"
    return None


def _of_an_item(edit: Edit) -> str | None:
    """What an edit did that put an item in, took one out or put it at another place."""
    if isinstance(edit.new, list) and isinstance(edit.old, list):
        return _of_a_list(edit)
    if is_put(edit.new):
        return f"{edit.label} put in"
    if edit.new is None and is_put(edit.old):
        return f"{edit.label} taken out"
    if place_at(edit.path) is not None:
        return f"{edit.label} put at another place"
    return None


def _of_a_fact(edit: Edit, on_shelf: Snapshot, system: System) -> str:
    old, new = (text(edit.path, v, on_shelf, system) for v in (edit.old, edit.new))
    return f"{edit.label} {old} → {new}"


def sentence(edit: Edit, on_shelf: Snapshot, system: System) -> str:
    """An edit in words: "Gauge pressure 18 bar → 20 bar, cap 2 350 rpm → 2 480 rpm"."""
    word = {"undo": "undone: ", "redo": "redone: "}.get(edit.how, "")
    moved = moved_words(edit.moved, system)
    if "verdict" in edit.moved:
        moved.append(f"now {edit.moved['verdict'][1]}")
    told = _of_a_whole(edit) or _of_an_item(edit) or _of_a_fact(edit, on_shelf, system)
    return word + ", ".join([told, *moved])


def history(run: Run, before: int | None, system: System) -> HistoryOut:
    """A page of edits older than a revision, the newest first."""
    on_shelf = shelf.current()
    rows = Edit.objects.filter(run=run).select_related("by").order_by("-revision")
    if before is not None:
        rows = rows.filter(revision__lt=before)
    found = list(rows[: PAGE + 1])
    entries = [
        HistoryEntry(
            revision=e.revision,
            text=sentence(e, on_shelf, system),
            by=e.by.username,
            at=e.at,
            path=e.path,
            is_reversal=e.reverses_id is not None,
        )
        for e in found[:PAGE]
    ]
    return HistoryOut(entries=entries, more=len(found) > PAGE, total=run.revision, first=first_draft(run))
