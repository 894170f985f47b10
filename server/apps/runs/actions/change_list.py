"""Put a step or a cut into a plan, or take one out."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from calc.plan.lists import list_at, with_item, without_item
from calc.quantities import System
from server.apps.runs import queries
from server.apps.runs.actions.change import Change, keep, others_since, sent_before, try_change
from server.apps.runs.models import Run
from server.apps.runs.paths import require_may_change
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict


@transaction.atomic
def add_item(
    run_id: int, path: str, name: str, kind: str | None, key: UUID, system: System, person: Any
) -> dict[str, Any]:
    """Put a new item at the end of a list. It merges with whatever others do. Raises CalcError at the list."""
    require_may_change(person, path)
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, system, person)
    list_at(path)
    return _keep(run, path, with_item(run.document, path, name, kind, system), key, system, person)


@transaction.atomic
def remove_item(
    run_id: int, path: str, index: int, base_revision: int, key: UUID, system: System, person: Any
) -> dict[str, Any]:
    """Take an item out of a list. Raises Conflict where somebody changed it, or the list, since the base."""
    require_may_change(person, path)
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, system, person)
    rule = list_at(path)
    if others_since(run, f"{path}.{index}", base_revision):
        raise Conflict(f"Somebody changed this {rule.noun} or its list since you looked. Look again, then take it out.")
    return _keep(run, path, without_item(run.document, path, index), key, system, person)


def _keep(run: Run, path: str, items: list[Any], key: UUID, system: System, person: Any) -> dict[str, Any]:
    tried = try_change(run, Change(path, items), shelf.current())
    keep(tried, key, person)
    return queries.plan_of(run, tried.result, tried.on_shelf, system, person)
