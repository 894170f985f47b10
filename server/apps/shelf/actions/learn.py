"""A figure of an item that something measured has better than what stands there."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from django.db import transaction

from server.apps.runs.actions.follow_shelf import follow
from server.apps.shelf import convert
from server.apps.shelf.actions.load import renew
from server.apps.shelf.models import Item, ShelfChange, Tool
from server.apps.shelf.queries.rows import row_by_key
from server.apps.shelf.queries.snapshot import hold_to_change
from server.foundation.models import Person


@transaction.atomic
def learn(kind: str, key: str, field: str, better: Callable[[Any], Any], by: Person) -> None:
    """Put in what a measured figure makes of a field, as a change that the item's history keeps. Raises NotFound."""
    hold_to_change()
    row = row_by_key(kind, key, lock=True)
    now = convert.flat(row)[field]
    value = better(now)
    if now != value:
        put_in(kind, row, {field: value}, by)


def put_in(kind: str, row: Item, fields: Mapping[str, Any], by: Person) -> None:
    """Give a held item these fields, note what changed in its history, and let its plans follow."""
    now = convert.flat(row)
    changes = {n: [now[n], v] for n, v in fields.items() if now[n] != v}
    if isinstance(row, Tool):
        row.figures = {**row.figures, **fields}
    else:
        for name, value in fields.items():
            setattr(row, name, value)
    row.revision += 1
    row.save()
    ShelfChange.objects.create(kind=kind, item_key=row.key, revision=row.revision, changes=changes, by=by)
    renew()
    follow(kind, row.pk)
