"""What a person gives for one declared field: typed text, or a value picked from what is offered."""

from __future__ import annotations

from typing import Any

from calc.errors import FieldProblem
from calc.fields import Choice, Flag, Quantity, Spec, Text, check_range
from calc.quantities import System
from calc.written import parse


def typed_value(field: str, spec: Spec, given: Any, *, nullable: bool, system: System) -> Any:
    """The core value of what was given for `spec`; a bare number is in the unit shown in `system`.

    None for an empty entry where `nullable`. Raises CalcError at `field` with what to do.
    """
    given = given.strip() if isinstance(given, str) else given
    if given in (None, ""):
        if nullable:
            return None
        wanted = "some words" if isinstance(spec, Text) else "a figure" if isinstance(spec, Quantity) else "an answer"
        raise FieldProblem(field, f"{spec.label} cannot be empty. Write {wanted}, or leave it as it was.")
    match spec:
        case Quantity():
            return _number(field, spec, given, system)
        case Choice():
            if not isinstance(given, str) or given not in spec.options:
                raise FieldProblem(field, "Choose one of the answers offered.")
            return given
        case Flag():
            if not isinstance(given, bool):
                raise FieldProblem(field, "Answer yes or no.")
            return given
        case Text():
            if not isinstance(given, str) or "\x00" in given:
                raise FieldProblem(field, f"Write up to {spec.most} characters.")
            if len(given) > spec.most:
                raise FieldProblem(field, f"This has {len(given)} characters; {spec.label} takes {spec.most} at most.")
            return given
    raise FieldProblem(field, "This fact is not entered by itself.")


def _number(field: str, spec: Quantity, given: Any, system: System) -> float | int:
    if isinstance(given, str):
        number = parse(given, spec.unit, system, field)
    elif isinstance(given, (int, float)) and not isinstance(given, bool):
        number = float(given)
    else:
        raise FieldProblem(field, f"{spec.label} must be a figure.")
    check_range(field, spec, number)
    if spec.whole:
        if number != int(number):
            raise FieldProblem(field, f"{spec.label} must be a whole number.")
        return int(number)
    return number
