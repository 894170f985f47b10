"""The shelf as CSV: a line an item, columns named as the fields, figures in core units."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from typing import Any

from calc.item_kind import ItemKind
from calc.shelf.all_kinds import KINDS
from server.apps.shelf import convert
from server.apps.shelf.models import Item
from server.apps.shelf.queries.rows import rows_of
from server.foundation.sheets import Unreadable, cell, named, uncell
from server.foundation.sheets import rows_of as csv_rows

Entries = dict[str, str | list[str]]
MOST_LINES = 500


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, float):
        return repr(value).removesuffix(".0")  # every digit, so that it is read back the same
    if isinstance(value, list):
        return " ".join(value)
    return cell(str(value))


def _row(kind: ItemKind[Any], row: Item) -> dict[str, str]:
    values = {"key": row.key} | convert.flat(row) | convert.links_of(row)
    cells = {kind.column(name): _cell(v) for name, v in values.items()}
    if kind.chart:
        cells["chart"] = " ".join(f"{_cell(p)}:{_cell(g)}" for p, g in convert.chart_of(row))
    return cells


def write(kind: str) -> str:
    """Every item of a kind as a CSV file. Raises NotFound for an unknown kind."""
    rows, record = rows_of(kind), KINDS[kind]
    out = io.StringIO()
    writer = csv.DictWriter(out, record.columns, lineterminator="\r\n")
    writer.writeheader()
    writer.writerows(_row(record, row) for row in rows)
    return out.getvalue()


@dataclass(frozen=True)
class Line:
    """A line of a file as given: its number, key, fields and chart; `problem` where it cannot be read at all."""

    number: int
    key: str
    given: Entries
    chart: str | None
    problem: str = ""


def _given(kind: ItemKind[Any], cells: dict[str, str]) -> tuple[Entries, str | None]:
    plain = {n: uncell(v) for n, v in cells.items() if n not in ("key", "chart")}
    several = {link.name for link in kind.links if link.many}
    given: Entries = {n: v.split() if n in several else v for n, v in plain.items()}
    chart = cells.get("chart")
    return given, None if chart is None else "\n".join(point.replace(":", "\t") for point in chart.split())


def read(kind: str, text: str) -> list[Line]:
    """The lines of a file. Raises Unreadable for one without the right columns or with too many lines."""
    rows = csv_rows(text)
    names = [c.strip() for c in rows[0]]
    # A column may be called by its code or by the field's own name.
    record = KINDS[kind]
    fields = [record.field_of(n) for n in names]
    known = record.columns
    open_names = {*known, *(f.name for f in record.fields)}
    strange = [n for n in names if n not in open_names]
    if strange or len(set(fields)) < len(fields):
        told = named(strange) or "one twice"
        raise Unreadable(f"The first line has columns that are not known: {told}. Known are: {', '.join(known)}.")
    if len(rows) - 1 > MOST_LINES:
        raise Unreadable(f"Give {MOST_LINES} lines at most; cut the file in two.")
    lines = []
    for number, row in enumerate(rows[1:], 2):
        if len(row) != len(names):
            lines.append(
                Line(number, "", {}, None, f"This line has {len(row)} cells; the first line has {len(names)}.")
            )
            continue
        cells = dict(zip(fields, (c.strip() for c in row), strict=True))
        lines.append(Line(number, cells.get("key", ""), *_given(record, cells)))
    return lines
