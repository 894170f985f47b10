"""A lot is closed: what of it is worth keeping goes where the next one finds it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from uuid import uuid5

from django.db import transaction
from django.utils import timezone

from server.apps.notebook.actions.keep_cut import keep_worked
from server.apps.running.actions.at_lot import held, kept
from server.apps.running.models import Lesson
from server.apps.running.queries.closing import closed_of, closing_out
from server.apps.running.queries.page import machine_of
from server.apps.running.schemas import CloseIn, ClosingOut
from server.apps.runs.queries.released_plan import released_result
from server.foundation.problems import BadValue


@transaction.atomic
def close(run_id: int, given: CloseIn, person: Any) -> ClosingOut:
    """Close a lot, keep the cuts that were asked for, and the lesson. Raises NotAllowed, NotFound, BadValue."""
    somebody, at, row, sent = held(run_id, given, person)
    if row.counted == 0:
        raise BadValue("lot", "No piece was counted yet: there is nothing to close.")
    if not sent:
        if given.keep:
            worked = {w.key: w for w in closed_of(at).worked}
            for key in dict.fromkeys(given.keep):
                if key not in worked:
                    raise BadValue("keep", "This lot has no such cut.")
                name = f"{at.run.name} ({at.run.drawing_number}): {worked[key].name}"
                keep_worked(worked[key].proven, uuid5(given.key, key), somebody, name)
        text = " ".join(given.lesson.split())
        if text:
            material = released_result(at.release.key).views[0].shelf.material
            Lesson.objects.create(
                lot=row,
                drawing_number=at.run.drawing_number,
                part=at.run.name,
                material=material.name if material else "",
                machine=machine_of(at),
                text=text,
                by=somebody,
            )
        row.closed_at = timezone.now()
        row.save(update_fields=["closed_at"])
        kept(row)
    return closing_out(replace(at, row=row), given.units, person)
