"""Take a CSV file onto the shelf: every line answered, and kept only as the person says."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from django.db import transaction

from calc.errors import CalcError
from calc.fields import Quantity
from calc.shelf.all_kinds import KINDS
from server.apps.shelf import convert
from server.apps.shelf.actions.keep_item import check_whole, keep_item
from server.apps.shelf.models import Item
from server.apps.shelf.queries import files
from server.apps.shelf.queries.form import Given, blank_form, form_of, take
from server.apps.shelf.queries.rows import kind_named, row_by_key, rows_of
from server.apps.shelf.queries.snapshot import Snapshot, current, hold_to_change
from server.apps.shelf.queries.words import label
from server.apps.shelf.schemas import LineAnswer
from server.foundation.problems import BadValue, Conflict, NotFound
from server.foundation.roles import require_planner
from server.foundation.sheets import Unreadable


class _Undo(Exception):
    pass


Outcome = Literal["new", "changed", "same", "bad"]


def _answer(line: files.Line, name: str, outcome: Outcome, messages: Sequence[str] = ()) -> LineAnswer:
    """What became, or would become, of a line, with what to do where it is bad."""
    return LineAnswer(line=line.number, name=name, outcome=outcome, messages=list(messages))


@dataclass
class _Known:
    """What is on the shelf of a kind while a file is read: rows by key, and who has which name, in small letters."""

    rows: dict[str, Item]
    names: dict[str, str]
    shelf: Snapshot

    @classmethod
    def of(cls, kind: str) -> _Known:
        rows = {row.key: row for row in rows_of(kind)}
        return cls(rows, {row.name.lower(): key for key, row in rows.items()}, current())

    def row_of(self, line: files.Line) -> Item | None:
        """The item that a line speaks of: by its key; without one, by its name."""
        return self.rows.get(line.key or self.names.get(str(line.given.get("name") or "").lower(), ""))


def _typed(kind: str, line: files.Line, *, is_new: bool) -> Given:
    # What is left empty in a new line is not given.
    given = {n: v for n, v in line.given.items() if not is_new or v not in ("", [])}
    # Figures in a file are in core units, which is what is shown in metric but for force and torque.
    return Given(_in_core_units(kind, given), _chart(line.chart))


def _answered(kind: str, line: files.Line, known: _Known, take: Callable[[Item | None], LineAnswer]) -> LineAnswer:
    """A line's answer: what keeps it from being read, else what `take` finds."""
    name = _name(line)
    row = known.row_of(line)
    if line.problem:
        return _answer(line, name, "bad", (line.problem,))
    if line.key and row is None and not convert.is_key(line.key):
        return _answer(line, name, "bad", ("key: small letters, figures and - only; or leave it empty.",))
    try:
        return take(row)
    except CalcError as error:
        told = tuple(f"{label(KINDS[kind], e.field)}: {e.sentence}" for e in error.errors)
        return _answer(line, name, "bad", told)
    except (Conflict, NotFound) as error:
        return _answer(line, name, "bad", (str(error),))


def _name(line: files.Line) -> str:
    return str(line.given.get("name") or line.key or f"line {line.number}")


def _looked_at(kind: str, line: files.Line, known: _Known) -> LineAnswer:
    """What would become of a line. Nothing is written, and nothing is held."""

    def look(row: Item | None) -> LineAnswer:
        form = form_of(row) if row is not None else blank_form(kind)
        before = form.state()
        take(form, _typed(kind, line, is_new=row is None), known.shelf)
        name = str(form.values.get("name") or "").lower()
        has = known.names.get(name)
        check_whole(form, bool(name) and has is not None and has != (row.key if row is not None else ""))
        if row is None:
            known.names[name] = line.key or f"line {line.number}"
            return _answer(line, _name(line), "new")
        return _answer(line, _name(line), "same" if form.state() == before else "changed")

    return _answered(kind, line, known, look)


def _kept(kind: str, line: files.Line, known: _Known, person: Any) -> LineAnswer:
    """What became of a line."""

    def keep(row: Item | None) -> LineAnswer:
        typed = _typed(kind, line, is_new=row is None)
        key = keep_item(kind, row.key if row else None, typed, row.revision if row else 0, person, line.key)
        after = row_by_key(kind, key)
        known.rows[key], known.names[after.name.lower()] = after, key
        if row is None:
            return _answer(line, after.name, "new")
        return _answer(line, after.name, "same" if after.revision == row.revision else "changed")

    return _answered(kind, line, known, keep)


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


def _lines(kind: str, text: str) -> list[files.Line]:
    try:
        return list(files.read(kind, text))
    except Unreadable as error:
        raise BadValue("text", str(error)) from error


def look(kind: str, text: str, tell: Callable[[int, int], None]) -> list[LineAnswer]:
    """What would become of every line; nothing is written and nothing held. Raises BadValue."""
    lines, known, answers = _lines(kind, text), _Known.of(kind), []
    for place, line in enumerate(lines):
        tell(place, len(lines))
        answers.append(_looked_at(kind, line, known))
    return answers


def take_file(kind: str, text: str, keep: str, person: Any) -> tuple[list[LineAnswer], int]:
    """Take every line; gives the answers and how many lines were kept.

    `keep` is "all" (nothing where a line is bad) or "good" (the good lines).
    """
    require_planner(person)
    kind_named(kind)
    lines, known = _lines(kind, text), _Known.of(kind)
    answers: list[LineAnswer] = []
    try:
        with transaction.atomic():
            hold_to_change()
            for line in lines:
                with transaction.atomic():
                    answers.append(_kept(kind, line, known, person))
            if keep == "all" and any(a.outcome == "bad" for a in answers):
                raise _Undo
    except _Undo:
        return answers, 0
    return answers, sum(a.outcome in ("new", "changed") for a in answers)
