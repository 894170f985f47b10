"""A declaration as plain data: for lists, forms, the API document and the command line."""

from __future__ import annotations

import dataclasses
import sys
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import wraps
from typing import Any, Literal, TypeVar, cast

from calc.fields import Choice, FieldSpec, Flag, Group, Quantity, Text, fields_of
from calc.quantities import System, exact_text, from_core, shown_as

Json = dict[str, Any]  # plain data by name
FieldKind = Literal["quantity", "choice", "flag", "text", "group"]


@dataclass(frozen=True)
class FieldTold:
    """A declared field as plain data: its unit and range where it is a quantity, its options where it is a choice,
    what it waits on, its own fields where it is a group.
    """

    name: str
    label: str
    help: str
    kind: FieldKind
    required: bool
    many: bool
    default: str | int | float | bool | None = None
    unit: str | None = None
    low: float | None = None
    high: float | None = None
    low_excluded: bool | None = None
    options: dict[str, str] | None = None
    when: dict[str, list[str | bool]] | None = None
    fields: list[FieldTold] | None = None


def describe(kind: type[Any]) -> list[FieldTold]:
    """The declaration as plain data: what the reference page and GET /api/calc show."""
    return [_told(field) for field in fields_of(kind)]


def _told(field: FieldSpec) -> FieldTold:
    spec = field.spec
    is_plain = not (field.required or field.many or dataclasses.is_dataclass(field.default))
    told = FieldTold(
        name=field.key,
        label=spec.label,
        help=spec.help,
        kind=cast(FieldKind, type(spec).__name__.lower()),
        required=field.required and not field.nullable,
        many=field.many,
        default=field.default if is_plain else None,
        when=None if field.when is None else {field.when.field: list(field.when.values)},
        fields=None if field.nested is None else describe(field.nested),
    )
    match spec:
        case Quantity():
            low = spec.low if spec.above is None else spec.above
            return replace(told, unit=spec.unit, low=low, high=spec.high, low_excluded=spec.above is not None)
        case Choice():
            return replace(told, options=dict(spec.options))
    return told


def written(value: Any, system: System) -> Any:
    """A declared value as it is edited in `system`: figures as text in the unit shown, nothing where there is none;
    words, choices and flags as they are; groups and lists of them likewise.
    """
    return {f.key: _written(f, getattr(value, f.name), system) for f in fields_of(type(value))}


def _written(field: FieldSpec, value: Any, system: System) -> Any:
    if field.many:
        one = replace(field, many=False)
        return [_written(one, v, system) for v in value]
    if isinstance(field.spec, Group):
        return None if value is None else written(value, system)
    if isinstance(field.spec, Quantity):
        unit = field.spec.unit
        return "" if value is None else exact_text(from_core(value, unit, shown_as(unit, system)))
    return "" if value is None else value


F = TypeVar("F", bound=Callable[..., Any])


def calculator(kind: type[Any]) -> Callable[[F], F]:
    """A calculator with this input: its docstring says its declared fields, with units and ranges, at {parameters}, and
    its result remembers what it was given.
    """

    def put(function: F) -> F:
        lines = "\n".join(f"        {line}" for line in parameters(kind))
        function.__doc__ = (function.__doc__ or "").replace("        {parameters}", lines)

        @wraps(function)
        def remembering(given: Any, *more: Any, **named: Any) -> Any:
            result = function(given, *more, **named)
            object.__setattr__(result, "given", given)  # it is frozen for everybody else
            return result

        # Its doctest is found in its module by this: what is wrapped counts as another module's.
        vars(sys.modules[function.__module__]).setdefault("__test__", {})[function.__name__] = function
        return cast(F, remembering)

    return put


def parameters(kind: type[Any]) -> list[str]:
    """The declared fields in lines: name, label, unit, range, meaning.

    >>> from calc.coolant.mixing import CoolantInput
    >>> parameters(CoolantInput)[0]
    'given.reading: Refractometer, 0 to 80; Reading on its scale'
    """
    return [f"given.{f.name}: {_declared(f)}" for f in fields_of(kind)]


def _declared(field: FieldSpec) -> str:
    spec = field.spec
    told = spec.label
    match spec:
        case Quantity():
            told += f" [{spec.unit}]" if spec.unit else ""
            told += f", {_range(spec)}"
        case Choice():
            told += f": {' | '.join(spec.options)}"
    told += ", several" if field.many else ""
    told += ", or None" if field.nullable else ""
    return f"{told}; {spec.help}" if spec.help else told


def _range(spec: Quantity) -> str:
    low = f"above {spec.above:g}" if spec.above is not None else f"{spec.low:g}" if spec.low is not None else ""
    high = f"{spec.high:g}" if spec.high is not None else ""
    whole = "whole, " if spec.whole else ""
    if low and high:
        return f"{whole}{low} to {high}"
    return whole + (f"from {low}" if low and spec.above is None else low or f"up to {high}" if low or high else "any")


def json_schema(kind: type[Any]) -> Json:
    """The declaration as a JSON Schema object."""
    properties: Json = {}
    for f in fields_of(kind):
        item = _schema_of(f)
        properties[f.key] = {"type": "array", "items": item, "title": f.spec.label} if f.many else item
    needed = [f.key for f in fields_of(kind) if f.required and not f.nullable]
    return {"type": "object", "properties": properties, "required": needed, "additionalProperties": False}


def _schema_of(field: FieldSpec) -> Json:
    spec = field.spec
    match spec:
        case Group():
            assert field.nested is not None
            return json_schema(field.nested)
        case Quantity():
            schema: Json = {"type": "integer" if spec.whole else "number", "title": spec.label}
            schema["description"] = f"{spec.help} [{spec.unit or '-'}]".strip()
            for name, bound in (("minimum", spec.low), ("exclusiveMinimum", spec.above), ("maximum", spec.high)):
                if bound is not None:
                    schema[name] = bound
            return schema
        case Choice():
            return {"enum": list(spec.options), "title": spec.label}
        case Flag():
            return {"type": "boolean", "title": spec.label}
        case Text():
            return {"type": "string", "maxLength": spec.most, "title": spec.label}
