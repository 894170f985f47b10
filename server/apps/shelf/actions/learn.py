"""A figure of an item that something measured has better than what stands there."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db import transaction

from server.apps.runs.actions.follow_shelf import follow
from server.apps.shelf.actions.load import renew
from server.apps.shelf.models import Item, ShelfChange
from server.apps.shelf.queries.rows import row_by_key
from server.apps.shelf.queries.snapshot import hold_to_change
from server.foundation.models import Person


@transaction.atomic
def learn(kind: str, key: str, field: str, value: float, by: Person) -> None:
    """Put a measured figure in, as a change of the item that its history keeps. Raises NotFound."""
    hold_to_change()
    row = row_by_key(kind, key, lock=True)
    if getattr(row, field) != value:
        put_in(kind, row, {field: value}, by)


def put_in(kind: str, row: Item, fields: Mapping[str, Any], by: Person) -> None:
    """Give a held item these fields, note what changed in its history, and let its plans follow."""
    changes = {n: [getattr(row, n), v] for n, v in fields.items() if getattr(row, n) != v}
    for name, value in fields.items():
        setattr(row, name, value)
    row.revision += 1
    row.save()
    ShelfChange.objects.create(kind=kind, item_key=row.key, revision=row.revision, changes=changes, by=by)
    renew()
    follow(kind, row.pk)
