"""The shelf as CSV: a line an item, columns named as the fields, figures in core units."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from typing import Any

from calc.shelf.items import item_fields
from calc.shelf.properties import column, field_of
from server.apps.shelf import convert, items
from server.apps.shelf.form import LINKS
from server.apps.shelf.models import Item

MOST_LINES = 500
FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")


def columns(kind: str) -> list[str]:
    """The columns of a kind's file, in order."""
    more = [link.name for link in LINKS.get(kind, ())]
    return ["key", *(column(kind, f.name) for f in item_fields(kind)), *more, *(["chart"] if kind == "chuck" else [])]


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, float):
        return repr(value).removesuffix(".0")  # every digit, so that it is read back the same
    if isinstance(value, list):
        return " ".join(value)
    text = str(value)
    # A spreadsheet would take such a name for a formula.
    return f"'{text}" if text.startswith(FORMULA_SIGNS) else text


def _row(kind: str, row: Item) -> dict[str, str]:
    values = {"key": row.key} | convert.flat(kind, row) | convert.links_of(row)
    cells = {column(kind, name): _cell(v) for name, v in values.items()}
    if kind == "chuck":
        cells["chart"] = " ".join(f"{_cell(p)}:{_cell(g)}" for p, g in convert.chart_of(row))
    return cells


def write(kind: str) -> str:
    """Every item of a kind as a CSV file. Raises NotFound for an unknown kind."""
    rows = items.rows_of(kind)
    out = io.StringIO()
    writer = csv.DictWriter(out, columns(kind), lineterminator="\r\n")
    writer.writeheader()
    writer.writerows(_row(kind, row) for row in rows)
    return out.getvalue()


@dataclass(frozen=True)
class Line:
    """A line of a file as given: its number, key, fields and chart; `problem` where it cannot be read at all."""

    number: int
    key: str
    given: dict[str, Any]
    chart: str | None
    problem: str = ""


class Unreadable(Exception):
    """The file as a whole cannot be read; the sentence says why."""


def _dialect(first: str) -> str:
    return max(",;\t", key=first.count)


def _given(kind: str, cells: dict[str, str]) -> tuple[dict[str, Any], str | None]:
    given: dict[str, Any] = {
        n: v[1:] if v.startswith("'") else v for n, v in cells.items() if n not in ("key", "chart")
    }
    for link in LINKS.get(kind, ()):
        if link.many and link.name in given:
            given[link.name] = given[link.name].split()
    chart = cells.get("chart")
    return given, None if chart is None else "\n".join(point.replace(":", "\t") for point in chart.split())


def read(kind: str, text: str) -> list[Line]:
    """The lines of a file. Raises Unreadable for one without the right columns or with too many lines."""
    body = text.lstrip("\ufeff")
    head = body.partition("\n")[0]
    try:
        rows = list(csv.reader(io.StringIO(body, newline=""), delimiter=_dialect(head), strict=True))
    except csv.Error as error:
        raise Unreadable(f"This is not a CSV file: {error}.") from error
    rows = [r for r in rows if any(cell.strip() for cell in r)] if rows else []
    if not rows:
        raise Unreadable("The file is empty. Its first line names the columns.")
    names = [c.strip() for c in rows[0]]
    # A column may be called by its code or by the field's own name.
    fields = [field_of(kind, n) for n in names]
    known = columns(kind)
    open_names = {*known, *(f.name for f in item_fields(kind))}
    strange = [n for n in names if n not in open_names]
    if strange or len(set(fields)) < len(fields):
        told = ", ".join(f"“{n}”" for n in strange) or "one twice"
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
        lines.append(Line(number, cells.get("key", ""), *_given(kind, cells)))
    return lines
