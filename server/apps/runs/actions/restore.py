"""Bring an earlier draft of a plan back, as a new edit."""

from __future__ import annotations

from django.db import transaction

from calc.plan.entry import PLAN
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import at, kept, sent_before, try_change
from server.apps.runs.queries.edits import others_since, whole_at
from server.apps.runs.queries.find import run_by_id, run_to_change
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.plan import plan
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict
from server.foundation.roles import require_planner


@transaction.atomic
def restore(run_id: int, revision: int, asked: Asked) -> Sent:
    """Make the plan what it was at a revision; name, number and place on the bench stay.

    Raises NotFound without such a revision, Conflict where somebody changed the plan since the base.
    """
    planner = require_planner(asked.person)
    run = run_to_change(run_id)
    if sent_before(run, asked):
        return plan(run, asked.look, planner)
    theirs = [e for e in others_since(run, PLAN, asked.base_revision) if e.by_id != planner.pk]
    if theirs:
        who = theirs[-1].by.username
        raise Conflict(f"{who} changed the plan since you looked. Look at the history again, then bring it back.")
    on_shelf = shelf.current()
    then = whole_at(run_by_id(run_id), revision, on_shelf)
    return kept(try_change(run, at(PLAN, then, f"draft {revision}"), on_shelf), asked)
