"""Take a CSV file onto the shelf: every line answered, and kept only as the person says."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from calc.errors import CalcError
from calc.fields import Quantity
from calc.shelf.all_kinds import KINDS
from server.apps.shelf import convert
from server.apps.shelf.actions.keep_item import keep_item
from server.apps.shelf.queries import files
from server.apps.shelf.queries.form import Given
from server.apps.shelf.queries.rows import kind_named, row_by_key, rows_of
from server.apps.shelf.queries.words import label
from server.foundation.problems import BadValue, Conflict, NotFound
from server.foundation.roles import require_planner


@dataclass(frozen=True)
class Answer:
    """What became, or would become, of a line: "new", "changed", "same" or "bad" with what to do."""

    line: int
    name: str
    outcome: str
    messages: tuple[str, ...] = ()


class _Undo(Exception):
    pass


def _one(kind: str, line: files.Line, person: Any) -> Answer:
    name = str(line.given.get("name") or line.key or f"line {line.number}")
    if line.problem:
        return Answer(line.number, name, "bad", (line.problem,))
    row = rows_of(kind).filter(key=line.key).first() if line.key and "\x00" not in line.key else None
    if line.key and row is None and not convert.is_key(line.key):
        return Answer(line.number, name, "bad", ("key: small letters, figures and - only; or leave it empty.",))
    given = line.given
    if row is None:
        # What is left empty in a new line is not given.
        given = {n: v for n, v in given.items() if v not in ("", [])}
    try:
        # Figures in a file are in core units, which is what is shown in metric but for force and torque.
        typed = Given(_in_core_units(kind, given), _chart(line.chart))
        kept = keep_item(kind, row.key if row else None, typed, row.revision if row else 0, person, line.key)
    except CalcError as error:
        told = tuple(f"{label(KINDS[kind], e.field)}: {e.sentence}" for e in error.errors)
        return Answer(line.number, name, "bad", told)
    except (Conflict, NotFound) as error:
        return Answer(line.number, name, "bad", (str(error),))
    after = row_by_key(kind, kept)
    if row is None:
        return Answer(line.number, after.name, "new")
    return Answer(line.number, after.name, "same" if after.revision == row.revision else "changed")


def _in_core_units(kind: str, given: files.Entries) -> files.Entries:
    """Bare figures with their core unit written behind them, so that they are read as what they are."""
    units = {f.name: f.field.spec.unit for f in KINDS[kind].fields if isinstance(f.field.spec, Quantity)}
    return {n: f"{v} {units[n]}" if units.get(n) and _is_bare(v) else v for n, v in given.items()}


def _is_bare(text: Any) -> bool:
    try:
        float(text)
    except (TypeError, ValueError):
        return False
    return True


def _chart(text: str | None) -> str | None:
    """Chart points of a file: bar and N."""
    if text is None:
        return None
    return "\n".join(f"{line} N" if "\t" in line else line for line in text.splitlines())


def take_file(kind: str, text: str, keep: str, person: Any) -> tuple[list[Answer], int]:
    """Answer every line; gives the answers and how many lines were kept.

    `keep` is "none" (only look), "all" (nothing where a line is bad) or "good" (the good lines).
    """
    require_planner(person)
    kind_named(kind)
    try:
        lines = files.read(kind, text)
    except files.Unreadable as error:
        raise BadValue("text", str(error)) from error
    answers: list[Answer] = []
    try:
        with transaction.atomic():
            for line in lines:
                with transaction.atomic():
                    answers.append(_one(kind, line, person))
            bad = any(a.outcome == "bad" for a in answers)
            if keep == "none" or (keep == "all" and bad):
                raise _Undo
    except _Undo:
        return answers, 0
    return answers, sum(a.outcome in ("new", "changed") for a in answers)
