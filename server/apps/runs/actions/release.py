"""Releasing a plan to the machine."""

from __future__ import annotations

import json
from typing import Any
from uuid import UUID

from django.core.serializers.json import DjangoJSONEncoder
from django.db import transaction
from django.utils import timezone

from calc.plan.cautions import Caution, cautions_of
from calc.plan.compute import PlanResult
from calc.plan.program import written
from calc.quantities import System
from server.apps.runs import convert, queries, releases
from server.apps.runs.models import Release, Run
from server.apps.shelf import queries as shelf
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_planner

SYSTEMS: tuple[System, ...] = ("metric", "inch")


@transaction.atomic
def release(
    run_id: int, base_revision: int, confirmed: list[str], note: str, key: UUID, system: System, person: Any
) -> dict[str, Any]:
    """Freeze a settled plan as the next release. Raises NotAllowed, Conflict, or BadValue for what is not confirmed.

    The same key releases once.
    """
    planner = require_planner(person)
    run = queries.run_by_id(run_id, lock=True)
    if Release.objects.filter(key=key, run=run).exists():
        return releases.page(run, system)
    if run.revision != base_revision:
        raise Conflict("Somebody changed this plan since you looked. Look at it again, then release it.")
    on_shelf = shelf.current()
    result = queries.computed(run, on_shelf)
    document = convert.document_of(run)
    reasons = releases.reasons_against(run, result.verdict, document.rules.number)
    if reasons:
        raise Conflict(" ".join(reasons))
    cautions = cautions_of(document, result)
    missing = [c for c in cautions if c.code not in confirmed]
    if missing:
        raise BadValue("confirmed", f"Confirm every caution, one by one: {len(missing)} are not confirmed yet.")
    last = releases.latest(run)
    number = last.number + 1 if last else 1
    Release.objects.create(
        run=run,
        number=number,
        revision=run.revision,
        rules=document.rules.number,
        document=run.document,
        views={s: _frozen(convert.plan_view(run, result, on_shelf, s, lambda _: False)) for s in SYSTEMS},
        programs={s: _programs(run, result, s, number) for s in SYSTEMS},
        confirmed=[_confirmed(c, system) for c in cautions],
        note=" ".join(note.split()),
        key=key,
        by=planner,
    )
    if run.released_at is None:
        run.released_at = timezone.now()
        run.save(update_fields=["released_at"])
    return releases.page(run, system)


def _confirmed(caution: Caution, system: System) -> dict[str, str]:
    return {"code": caution.code, "text": caution.sentence.text(system), "where": caution.where}


def _frozen(view: dict[str, Any]) -> Any:
    return json.loads(json.dumps(view, cls=DjangoJSONEncoder))


def _programs(run: Run, result: PlanResult, system: System, number: int) -> dict[str, str]:
    """The jaw-boring programs that can be written, by side, with the release in their headers."""
    document, name = convert.document_of(run), f"{run.name} {run.drawing_number}"
    return {
        str(side.index): written(
            document, result.figures, side.index, result.stop("jaws", side.index), system, name, run.revision, number
        )
        for side in result.sides
        if side.program.ready
    }
