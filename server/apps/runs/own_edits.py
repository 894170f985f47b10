"""What a person can undo and redo on a run: a walk over their own edits."""

from __future__ import annotations

from dataclasses import dataclass

from server.apps.runs.models import Edit, Run
from server.foundation.models import Person


@dataclass(frozen=True)
class OwnEdits:
    """Edits that undo would reverse and that redo would, by id, the next one last."""

    undo: tuple[int, ...]
    redo: tuple[int, ...]


def own_edits(run: Run, person: Person) -> OwnEdits:
    """Undo reverses one's last edit not undone yet, redo one's last undo; a new edit ends what could be redone."""
    undo: list[int] = []
    redo: list[int] = []
    mine = Edit.objects.filter(run=run, by=person).order_by("revision").values_list("pk", "reverses_id")
    for pk, reverses in mine:
        if reverses is None:
            undo.append(pk)
            redo.clear()
        elif undo and undo[-1] == reverses:
            undo.pop()
            redo.append(pk)
        elif redo and redo[-1] == reverses:
            redo.pop()
            undo.append(pk)
    return OwnEdits(tuple(undo), tuple(redo))
