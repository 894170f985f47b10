"""The whole shelf in lines: every kind with its items, how many figures are typical, how many plans take each."""

from __future__ import annotations

from typing import Any

from calc.item import Item as Value
from calc.shelf.all_kinds import KINDS
from server.apps.runs.queries.find import runs_taking
from server.apps.shelf import convert
from server.apps.shelf.models import Item
from server.apps.shelf.queries.rows import rows_of
from server.apps.shelf.queries.snapshot import current
from server.apps.shelf.schemas import ShelfKind, ShelfRow
from server.foundation.roles import sees_drafts


def shelf(person: Any) -> list[ShelfKind]:
    """Every kind, in the order of the list of kinds; how many plans take what, for who sees drafts."""
    found, on_shelf = [], current()
    for kind in KINDS.values():
        taking = runs_taking(kind.name) if sees_drafts(person) else {}
        values = on_shelf.items[kind.name]
        # A row that came in a moment ago is not among what is kept yet.
        rows = [
            _line(row, values.get(row.pk) or convert.value(row), taking.get(row.pk, (0, 0)))
            for row in rows_of(kind.name)
        ]
        found.append(ShelfKind(kind=kind.name, title=kind.title, noun=kind.noun, items=rows))
    return found


def _line(row: Item, value: Value, taken: tuple[int, int]) -> ShelfRow:
    line, (runs, sides) = convert.kind_of(row).line(value, convert.names_linked(row)), taken
    return ShelfRow(key=row.key, name=row.name, line=line, typical=len(row.typical), runs=runs, sides=sides)
