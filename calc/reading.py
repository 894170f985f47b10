"""Declared dataclasses from plain data, and back."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping
from typing import Any

from calc.errors import CalcError, FieldError
from calc.fields import Choice, FieldSpec, Flag, Group, Quantity, Text, check_range, fields_of
from calc.quantities import Sentence, System
from calc.written import parse


def _one(field: FieldSpec, value: Any, name: str, seen: Seen, system: System | None) -> Any:
    spec = field.spec
    match spec:
        case Group():
            assert field.nested is not None
            return read(field.nested, value, name + ".", seen, system)
        case Quantity():
            if isinstance(value, str):
                value = parse(value, spec.unit, system, name)
            if isinstance(value, bool) or not isinstance(value, (int, float)) or not _is_finite(value):
                raise CalcError([FieldError(name, Sentence(f"{spec.label} must be a number{_in(spec.unit)}."))])
            if spec.whole and value != int(value):
                raise CalcError([FieldError(name, Sentence(f"{spec.label} must be a whole number."))])
            check_range(name, spec, value)
            return int(value) if spec.whole else float(value)
        case Choice():
            if not isinstance(value, str) or value not in spec.options:
                raise CalcError([FieldError(name, Sentence(f"{spec.label}: choose {_listed(spec.options)}."))])
            return value
        case Flag():
            if not isinstance(value, bool):
                raise CalcError([FieldError(name, Sentence(f"{spec.label}: answer true or false."))])
            return value
        case Text():
            if not isinstance(value, str) or len(value) > spec.most or "\x00" in value:
                raise CalcError([FieldError(name, Sentence(f"{spec.label}: give up to {spec.most} characters."))])
            return value


def _is_finite(value: float) -> bool:
    try:
        return math.isfinite(value)
    except OverflowError:  # a whole number too large for any float
        return False


def _in(unit: str) -> str:
    return f" in {unit}" if unit else ""


def _listed(options: Mapping[str, str]) -> str:
    return " or ".join(f"“{o}”" for o in options)


# What was made of plain data before, by its identity: the data, the kind, the value.
Seen = dict[int, tuple[Any, type[Any], Any]] | None


def read(kind: type[Any], data: Any, prefix: str = "", seen: Seen = None, system: System | None = None) -> Any:
    """Build a declared dataclass from plain data.

    Strings are read as a machinist writes them, a bare number in the core unit, or in that which `system` shows.
    Raises CalcError with every unknown, missing, unreadable and out-of-range field under its dotted name. With `seen`,
    what is made is noted there, and the same plain object is not read again: it must not have been changed since.
    """
    if seen is not None and id(data) in seen and seen[id(data)][1] is kind:
        return seen[id(data)][2]
    if not isinstance(data, Mapping):
        raise CalcError([FieldError(prefix.rstrip("."), Sentence("Give an object with named fields here."))])
    problems: list[FieldError] = []
    specs = {f.key: f for f in fields_of(kind)}
    for name in data:
        if name not in specs:
            known = ", ".join(specs)
            problems.append(
                FieldError(f"{prefix}{name}", Sentence("{w}", w=f"There is no such field; known: {known}."))
            )
    made: dict[str, Any] = {}
    for name, field in specs.items():
        dotted = prefix + name
        value = data.get(name)
        if value is None:
            if field.required and not field.nullable:
                problems.append(FieldError(dotted, Sentence(f"{field.spec.label} is missing.")))
            elif field.required:
                made[field.name] = None
            continue
        try:
            made[field.name] = (_many if field.many else _one)(field, value, dotted, seen, system)
        except CalcError as error:
            problems.extend(error.errors)
    if problems:
        raise CalcError(problems)
    try:
        found = kind(**made)
    except CalcError as error:
        raise CalcError(FieldError(prefix + e.field, e.sentence) for e in error.errors) from error
    if seen is not None:
        seen[id(data)] = (data, kind, found)  # with the data, so that its identity is not given to another
    return found


def _many(field: FieldSpec, value: Any, name: str, seen: Seen, system: System | None) -> tuple[Any, ...]:
    spec = field.spec
    if not isinstance(value, (list, tuple)):
        raise CalcError([FieldError(name, Sentence(f"{spec.label}: give a list."))])
    if isinstance(spec, Group) and not spec.least <= len(value) <= spec.most:
        raise CalcError([FieldError(name, Sentence(f"{spec.label}: give {spec.least} to {spec.most} of them."))])
    problems: list[FieldError] = []
    made = []
    for index, item in enumerate(value):
        try:
            made.append(_one(field, item, f"{name}.{_named(item, index)}", seen, system))
        except CalcError as error:
            problems.extend(error.errors)
    if problems:
        raise CalcError(problems)
    return tuple(made)


def _named(item: Any, index: int) -> str:
    """What an item of a list is called in a path: its id, or its place where it has none."""
    known = item.get("id") if isinstance(item, Mapping) else None
    return known if isinstance(known, str) and known else str(index)


def write(value: Any) -> Any:
    """A declared dataclass as plain data that `read` takes back."""
    if isinstance(value, tuple):
        return [write(v) for v in value]
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return {f.name: write(getattr(value, f.name)) for f in dataclasses.fields(value)}
    return value
