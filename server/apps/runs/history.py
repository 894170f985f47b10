"""A run's history: its edits as sentences, the newest first."""

from __future__ import annotations

from typing import Any

from calc.plan.standing import HEADLINES, headline_text
from calc.quantities import System
from server.apps.runs import facts
from server.apps.runs.models import Edit, Run
from server.apps.runs.paths import PLAN, PROFILE, PUT_AWAY
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot

PAGE = 100


def _names(value: Any) -> list[str]:
    return [str(item.get("name", "?")) for item in value or []]


def _what(edit: Edit, on_shelf: Snapshot, system: System) -> str:
    """What the edit itself did."""
    if edit.path == PLAN:
        return "the whole plan put back" if edit.reverses_id else f"back to {edit.typed}"
    if edit.path == PROFILE:
        return f"{edit.label} put back" if edit.reverses_id else f"{edit.label} read from {edit.typed or 'a drawing'}"
    if edit.path == PUT_AWAY:
        return "put away" if edit.new else "brought back to the bench"
    if isinstance(edit.new, list) and isinstance(edit.old, list):
        before, after = _names(edit.old), _names(edit.new)
        came, went = [n for n in after if n not in before], [n for n in before if n not in after]
        told = [f"{', '.join(came)} put in"] * bool(came) + [f"{', '.join(went)} taken out"] * bool(went)
        return f"{edit.label}: {', '.join(told) or 'changed'}"
    old, new = (facts.text(edit.path, v, on_shelf, system) for v in (edit.old, edit.new))
    return f"{edit.label} {old} → {new}"


def _moved(edit: Edit, system: System) -> list[str]:
    """What it moved elsewhere."""
    told = [
        f"{HEADLINES[name][0]} {headline_text(name, edit.moved[name][0], system)}"
        f" → {headline_text(name, edit.moved[name][1], system)}"
        for name in HEADLINES
        if name in edit.moved
    ]
    if "verdict" in edit.moved:
        told.append(f"now {edit.moved['verdict'][1]}")
    return told


def sentence(edit: Edit, on_shelf: Snapshot, system: System) -> str:
    """An edit in words: "Gauge pressure 18 bar → 20 bar, cap 2 350 rpm → 2 480 rpm"."""
    word = {"undo": "undone: ", "redo": "redone: "}.get(edit.how, "")
    return word + ", ".join([_what(edit, on_shelf, system), *_moved(edit, system)])


def history(run: Run, before: int | None, system: System) -> dict[str, Any]:
    """A page of edits older than a revision, the newest first."""
    on_shelf = shelf.current()
    rows = Edit.objects.filter(run=run).select_related("by").order_by("-revision")
    if before is not None:
        rows = rows.filter(revision__lt=before)
    found = list(rows[: PAGE + 1])
    return {
        "entries": [
            {
                "revision": e.revision,
                "text": sentence(e, on_shelf, system),
                "by": e.by.username,
                "at": e.at,
                "path": e.path,
                "is_reversal": e.reverses_id is not None,
            }
            for e in found[:PAGE]
        ],
        "more": len(found) > PAGE,
        "total": run.revision,
    }
