"""A figure of an item that something measured has better than what stands there."""

from __future__ import annotations

from django.db import transaction

from server.apps.runs.actions.follow_shelf import follow
from server.apps.shelf.actions.load import renew
from server.apps.shelf.models import ShelfChange
from server.apps.shelf.queries.rows import row_by_key
from server.apps.shelf.queries.snapshot import hold_to_change
from server.foundation.models import Person


@transaction.atomic
def learn(kind: str, key: str, field: str, value: float, by: Person) -> None:
    """Put a measured figure in, as a change of the item that its history keeps. Raises NotFound."""
    hold_to_change()
    row = row_by_key(kind, key, lock=True)
    before = getattr(row, field)
    if before == value:
        return
    setattr(row, field, value)
    row.revision += 1
    row.save()
    changes = {field: [before, value]}
    ShelfChange.objects.create(kind=kind, item_key=row.key, revision=row.revision, changes=changes, by=by)
    renew()
    follow(kind, row.pk)
