"""Bring an earlier draft of a plan back, as a new edit."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from calc.quantities import System
from server.apps.runs import queries
from server.apps.runs.actions.change import Change, keep, others_since, sent_before, try_change
from server.apps.runs.paths import PLAN
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict
from server.foundation.roles import require_planner


@transaction.atomic
def restore(run_id: int, revision: int, base_revision: int, key: UUID, system: System, person: Any) -> dict[str, Any]:
    """Make the plan what it was at a revision; name, number and place on the bench stay.

    Raises NotFound without such a revision, Conflict where somebody changed the plan since the base.
    """
    planner = require_planner(person)
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, system, person)
    if [e for e in others_since(run, PLAN, base_revision) if e.by_id != planner.pk]:
        raise Conflict("Somebody changed the plan since you looked. Look at the history again, then bring it back.")
    on_shelf = shelf.current()
    tried = try_change(run, Change(PLAN, queries.whole_at(run, revision), f"draft {revision}"), on_shelf)
    keep(tried, key, planner)
    return queries.plan_of(run, tried.result, tried.on_shelf, system, person)
