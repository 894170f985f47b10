"""Take a CSV file onto the shelf: every line answered, and kept only as the person says."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

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
from server.apps.shelf.schemas import LineAnswer
from server.foundation.problems import BadValue, Conflict, NotFound
from server.foundation.roles import require_planner


class _Undo(Exception):
    pass


Outcome = Literal["new", "changed", "same", "bad"]


def _answer(line: files.Line, name: str, outcome: Outcome, messages: Sequence[str] = ()) -> LineAnswer:
    """What became, or would become, of a line, with what to do where it is bad."""
    return LineAnswer(line=line.number, name=name, outcome=outcome, messages=list(messages))


def _one(kind: str, line: files.Line, person: Any) -> LineAnswer:
    name = str(line.given.get("name") or line.key or f"line {line.number}")
    if line.problem:
        return _answer(line, name, "bad", (line.problem,))
    row = rows_of(kind).filter(key=line.key).first() if line.key and "\x00" not in line.key else None
    if line.key and row is None and not convert.is_key(line.key):
        return _answer(line, name, "bad", ("key: small letters, figures and - only; or leave it empty.",))
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
        return _answer(line, name, "bad", told)
    except (Conflict, NotFound) as error:
        return _answer(line, name, "bad", (str(error),))
    after = row_by_key(kind, kept)
    if row is None:
        return _answer(line, after.name, "new")
    return _answer(line, after.name, "same" if after.revision == row.revision else "changed")


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


def take_file(kind: str, text: str, keep: str, person: Any) -> tuple[list[LineAnswer], int]:
    """Answer every line; gives the answers and how many lines were kept.

    `keep` is "none" (only look), "all" (nothing where a line is bad) or "good" (the good lines).
    """
    require_planner(person)
    kind_named(kind)
    try:
        lines = files.read(kind, text)
    except files.Unreadable as error:
        raise BadValue("text", str(error)) from error
    answers: list[LineAnswer] = []
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
