"""Take a CSV file into the notebook: every line answered, kept only as the person says."""

from __future__ import annotations

import uuid
from typing import Any, Literal

from django.db import transaction

from calc.errors import CalcError
from calc.notebook.proven import Proven
from calc.reading import read
from server.apps.notebook import convert
from server.apps.notebook.models import ProvenCut
from server.apps.notebook.schemas import NotebookLineAnswer
from server.foundation.problems import BadValue
from server.foundation.roles import require_planner
from server.foundation.sheets import Unreadable, named, rows_of, uncell

Outcome = Literal["new", "same", "bad"]
MOST_LINES = 2000
TEXTS = {n for n, f in convert.FIELDS.items() if not hasattr(f.spec, "unit")}


def _rows(text: str) -> list[tuple[int, dict[str, str]]]:
    try:
        rows = rows_of(text)
    except Unreadable as error:
        raise BadValue("text", str(error)) from error
    names = [c.strip() for c in rows[0]]
    strange = [n for n in names if n not in convert.FIELDS]
    if strange or len(set(names)) < len(names):
        told = named(strange) or "one twice"
        raise BadValue(
            "text", f"The first line has columns that are not known: {told}. Known are: {', '.join(convert.FIELDS)}."
        )
    if len(rows) - 1 > MOST_LINES:
        raise BadValue("text", f"Give {MOST_LINES} lines at most; cut the file in two.")
    return [
        (i, dict(zip(names, (c.strip() for c in r), strict=False)) if len(r) == len(names) else {})
        for i, r in enumerate(rows[1:], 2)
    ]


def _value(cells: dict[str, str]) -> Proven:
    given: dict[str, str] = {}
    for name, text in cells.items():
        if text == "":
            continue
        given[name] = uncell(text) if name in TEXTS else text
    return read(Proven, given)  # type: ignore[no-any-return]


def _answer(number: int, name: str, outcome: Outcome, messages: list[str]) -> NotebookLineAnswer:
    return NotebookLineAnswer(line=number, name=name, outcome=outcome, messages=messages)


def _lines(text: str) -> tuple[list[NotebookLineAnswer], list[Proven]]:
    """Every line answered, and the values of the new ones. Raises BadValue."""
    answers: list[NotebookLineAnswer] = []
    good: list[Proven] = []
    known = {convert.value(r) for r in ProvenCut.objects.iterator()}
    for number, cells in _rows(text):
        name = cells.get("material") or f"line {number}"
        if not cells:
            answers.append(_answer(number, name, "bad", ["This line has not as many cells as the first line."]))
            continue
        try:
            value = _value(cells)
        except CalcError as error:
            told = [
                f"{convert.FIELDS[e.field].spec.label if e.field in convert.FIELDS else e.field}: {e.sentence}"
                for e in error.errors
            ]
            answers.append(_answer(number, name, "bad", told))
            continue
        outcome: Outcome = "same" if value in known else "new"
        if outcome == "new":
            good.append(value)
            known.add(value)
        answers.append(_answer(number, name, outcome, []))
    return answers, good


def look(text: str) -> list[NotebookLineAnswer]:
    """What would become of every line; nothing is written and nothing held. Raises BadValue."""
    return _lines(text)[0]


@transaction.atomic
def take_file(text: str, keep: str, person: Any) -> tuple[list[NotebookLineAnswer], int]:
    """Take every line; gives the answers and how many were kept.

    `keep` is "all" (nothing where a line is bad) or "good" (the good lines). A line that is in the notebook already is
    left as it is.
    """
    planner = require_planner(person)
    answers, good = _lines(text)
    if keep == "all" and any(a.outcome == "bad" for a in answers):
        return answers, 0
    ProvenCut.objects.bulk_create(ProvenCut(**convert.columns(v), by=planner, key=uuid.uuid4()) for v in good)
    return answers, len(good)
