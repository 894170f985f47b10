"""Things side by side as they are read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from calc.plan.stop import Table
from calc.said.reader import Reader


@dataclass(frozen=True)
class RowSaid:
    """One line of a table; one that can be taken sets its path to its value."""

    label: str
    cells: list[str]
    chosen: bool
    path: str | None
    value: Any
    takable: bool
    why_not: str


@dataclass(frozen=True)
class TableSaid:
    """Things side by side; `group` is the heading of the facts it belongs to."""

    name: str
    title: str
    group: str
    head: list[str]
    rows: list[RowSaid]
    words: str


def table_said(table: Table, reader: Reader) -> TableSaid:
    """A table."""
    system = reader.system
    rows = [
        RowSaid(
            r.label,
            [c.text(system) for c in r.cells],
            r.chosen,
            r.path,
            r.value,
            r.path is not None and not r.chosen and reader.may(r.path),
            r.why_not.text(system) if r.why_not else "",
        )
        for r in table.rows
    ]
    return TableSaid(table.name, table.title, table.group, list(table.head), rows, table.words)
