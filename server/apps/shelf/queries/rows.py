"""Rows of the shelf by their kind."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet

from calc.item_kind import ItemKind
from calc.shelf.all_kinds import KINDS
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.shelf.convert import model_of
from server.apps.shelf.models import Item
from server.foundation.problems import NotFound


def kind_named(kind: str) -> ItemKind[Any]:
    """The record of a kind. Raises NotFound."""
    if kind not in KINDS:
        raise NotFound("There is no such shelf.")
    return KINDS[kind]


def rows_of(kind: str) -> QuerySet[Any]:
    """The rows of a kind, with what they are linked to. Raises NotFound."""
    record = kind_named(kind)
    rows: QuerySet[Any] = model_of(kind)._default_manager.all()
    if kind in TOOL_KINDS:
        return rows.filter(kind=kind)
    single, many = ([link.name for link in record.links if link.many is several] for several in (False, True))
    if single:
        rows = rows.select_related(*single)
    return rows.prefetch_related(*many, *(["chart"] if record.chart else []))


def row_by_key(kind: str, key: str, *, lock: bool = False) -> Item:
    """One row; with `lock`, held until the transaction ends. Raises NotFound."""
    rows = rows_of(kind).filter(key=key)
    # Of the row itself only: the machine beside it is not changed.
    row = (rows.select_for_update(of=("self",)) if lock else rows).first() if "\x00" not in key else None
    if row is None:
        raise NotFound(f"There is no such {KINDS[kind].noun} on the shelf.")
    return row  # type: ignore[no-any-return]
