"""A declaration as plain data: for lists, forms, the API document and the command line."""

from __future__ import annotations

import dataclasses
from typing import Any

from calc.fields import Choice, FieldSpec, Flag, Group, Quantity, Text, fields_of


def describe(kind: type[Any]) -> list[dict[str, Any]]:
    """The declaration as plain data: what the reference page and GET /api/calc show."""
    out = []
    for f in fields_of(kind):
        spec = f.spec
        row: dict[str, Any] = {"name": f.key, "label": spec.label, "help": spec.help}
        row["kind"] = type(spec).__name__.lower()
        row["required"] = f.required and not f.nullable
        row["many"] = f.many
        if not f.required and f.default is not None and not dataclasses.is_dataclass(f.default) and not f.many:
            row["default"] = f.default
        if isinstance(spec, Quantity):
            low = spec.above if spec.above is not None else spec.low
            row |= {"unit": spec.unit, "low": low, "high": spec.high, "low_excluded": spec.above is not None}
        elif isinstance(spec, Choice):
            row["options"] = dict(spec.options)
        if f.nested is not None:
            row["fields"] = describe(f.nested)
        out.append(row)
    return out


def json_schema(kind: type[Any]) -> dict[str, Any]:
    """The declaration as a JSON Schema object."""
    properties: dict[str, Any] = {}
    for f in fields_of(kind):
        item = _schema_of(f)
        properties[f.key] = {"type": "array", "items": item, "title": f.spec.label} if f.many else item
    needed = [f.key for f in fields_of(kind) if f.required and not f.nullable]
    return {"type": "object", "properties": properties, "required": needed, "additionalProperties": False}


def _schema_of(field: FieldSpec) -> dict[str, Any]:
    spec = field.spec
    match spec:
        case Group():
            assert field.nested is not None
            return json_schema(field.nested)
        case Quantity():
            schema: dict[str, Any] = {"type": "integer" if spec.whole else "number", "title": spec.label}
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
