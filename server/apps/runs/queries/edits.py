"""The edits of a run: which touch what is at a path, which a person can take back, and the run as it was."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from calc.plan.entry import OF_THE_RUN, PLAN
from calc.plan.paths import parts_of
from server.apps.runs.convert import rows
from server.apps.runs.models import Edit, Run
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import NotFound

FORM = 2  # of the edits that can be taken back: their paths are of ids


def paths_of(edit: Edit) -> list[str]:
    """The paths that an edit changed."""
    return [path for path, _, _ in edit.parts] or [edit.path]


def touches(one: str, other: str) -> bool:
    """Whether a change of what is at one path is also a change of what is at the other."""
    if PLAN in (one, other):
        return one not in OF_THE_RUN and other not in OF_THE_RUN
    a, b = parts_of(one), parts_of(other)
    most = min(len(a), len(b))
    return a[:most] == b[:most]


def others_since(run: Run, path: str, base_revision: int) -> list[Edit]:
    """Edits after a revision that touch what is at the path, the oldest first."""
    later = Edit.objects.filter(run=run, revision__gt=base_revision).select_related("by").order_by("revision")
    return [edit for edit in later if any(touches(path, p) for p in paths_of(edit))]


@dataclass(frozen=True)
class OwnEdits:
    """What undo would reverse and what redo would, the next one last: edits by id, those that go together as one."""

    undo: tuple[tuple[int, ...], ...]
    redo: tuple[tuple[int, ...], ...]


def own_edits(run: Run, person: Person) -> OwnEdits:
    """Undo reverses one's last edit not undone yet, with the one that it carries on; redo one's last undo.

    A new edit ends what could be redone.
    """
    undo: list[tuple[int, ...]] = []
    redo: list[tuple[int, ...]] = []
    mine = Edit.objects.filter(run=run, by=person, form=FORM).order_by("revision")
    for pk, reverses, continues in mine.values_list("pk", "reverses_id", "continues_id"):
        if reverses is None:
            begun = undo.pop() if continues is not None and undo and undo[-1][-1] == continues else ()
            undo.append((*begun, pk))
            redo.clear()
        elif undo and undo[-1][-1] == reverses:
            undo.pop()
            redo.append((pk,))
        elif redo and redo[-1][-1] == reverses:
            redo.pop()
            undo.append((pk,))
    return OwnEdits(tuple(undo), tuple(redo))


def first_draft(run: Run) -> int:
    """The earliest draft that can be looked at: those before were kept in another form."""
    earlier = Edit.objects.filter(run=run, form__lt=FORM).order_by("-revision").values_list("revision", flat=True)
    return earlier.first() or 0


def take_back_to(run: Run, revision: int, on_shelf: Snapshot) -> None:
    """Take the loaded run back to a revision: every later edit is taken back, the newest first. Saves nothing.

    Raises NotFound without such a revision.
    """
    if not 0 <= revision <= run.revision:
        raise NotFound("There is no such draft of this run.")
    if revision < first_draft(run):
        raise NotFound("This draft was kept in an older form that cannot be shown any more.")
    for edit in Edit.objects.filter(run=run, revision__gt=revision).order_by("-revision"):
        for path, old, _ in reversed(edit.parts or [[edit.path, edit.old, edit.new]]):
            rows.put(run, path, old, on_shelf)


def whole_at(run: Run, revision: int, on_shelf: Snapshot) -> dict[str, Any]:
    """The whole plan at a revision as plain data; the run given is taken there. Raises NotFound."""
    take_back_to(run, revision, on_shelf)
    return rows.whole(run, on_shelf)
