"""One fact of a run by its path: reading what was typed, and where the fact is kept."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Choice, Flag, Quantity, Text, check_range
from calc.plan.document import value_at, with_value
from calc.plan.stops import field_at
from calc.quantities import Sentence, System, parse
from server.apps.runs.models import Run, RunSetup
from server.apps.shelf.queries import Snapshot

REFERENCE = re.compile(r"^(?:(machine|material)|setups\.(\d+)\.(chuck|jaw_blank))$")


@dataclass(frozen=True)
class Entry:
    """What a person gives for a fact: typed text, or a value picked or offered."""

    path: str
    text: str | None
    value: Any
    system: System


def reference_kind(path: str) -> str | None:
    """ "machine", "material", "chuck" or "jaw_blank" when the path points into the shelf."""
    found = REFERENCE.match(path)
    return (found[1] or found[3]) if found else None


def read_entry(run: Run, entry: Entry, on_shelf: Snapshot) -> Any:
    """The core value of what was given. Raises CalcError at the path with what to do."""
    kind = reference_kind(entry.path)
    if kind is not None:
        key = entry.value if isinstance(entry.value, str) else entry.text
        if key not in on_shelf.ids[kind]:
            raise FieldProblem(entry.path, "Choose one that is on the shelf.")
        return key
    try:
        field = field_at(entry.path)
        value_at(run.document, entry.path)
    except KeyError as error:
        raise FieldProblem(entry.path, "There is no such fact in this plan.") from error
    return _value(entry, field.spec, field.nullable)


def _value(entry: Entry, spec: Any, nullable: bool) -> Any:
    given = entry.value if entry.text is None else entry.text.strip()
    if given in (None, ""):
        if nullable:
            return None
        raise FieldProblem(entry.path, f"{spec.label} cannot be empty. Write a figure, or leave it as it was.")
    match spec:
        case Quantity():
            return _number(entry, spec, given)
        case Choice():
            if given not in spec.options:
                raise FieldProblem(entry.path, "Choose one of the answers offered.")
            return given
        case Flag():
            if not isinstance(given, bool):
                raise FieldProblem(entry.path, "Answer yes or no.")
            return given
        case Text():
            if not isinstance(given, str) or len(given) > spec.most or "\x00" in given:
                raise FieldProblem(entry.path, f"Write up to {spec.most} characters.")
            return given
    raise FieldProblem(entry.path, "This fact is not entered by itself.")


def _number(entry: Entry, spec: Quantity, given: Any) -> float | int:
    if isinstance(given, str):
        number = parse(given, spec.unit, entry.system, entry.path)
    elif isinstance(given, (int, float)) and not isinstance(given, bool):
        number = float(given)
    else:
        raise FieldProblem(entry.path, f"{spec.label} must be a figure.")
    check_range(entry.path, spec, number)
    if spec.whole:
        if number != int(number):
            raise FieldProblem(entry.path, f"{spec.label} must be a whole number.")
        return int(number)
    return number


def current(run: Run, path: str, on_shelf: Snapshot) -> Any:
    """The value kept at a path."""
    kind = reference_kind(path)
    if kind is None:
        return value_at(run.document, path)
    kept = getattr(_holder(run, path), f"{kind}_id")
    return next((key for key, pk in on_shelf.ids[kind].items() if pk == kept), None)


def _holder(run: Run, path: str) -> Run | RunSetup:
    found = REFERENCE.match(path)
    assert found is not None
    if found[1]:
        return run
    # From the run's own loaded rows, so that a preview changes what it computes with.
    setup = next((s for s in run.setups.all() if s.position == int(found[2])), None)
    if setup is None:
        raise CalcError([FieldError(path, Sentence("There is no such set-up in this plan."))])
    return setup


def put(run: Run, path: str, value: Any, on_shelf: Snapshot) -> Run | RunSetup:
    """Set a fact on the loaded rows, saving nothing. Gives the row that it is kept on."""
    kind = reference_kind(path)
    if kind is None:
        run.document = with_value(run.document, path, value)
        return run
    holder = _holder(run, path)
    setattr(holder, f"{kind}_id", on_shelf.ids[kind][value])
    return holder
