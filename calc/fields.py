"""The one declaration of an input: frozen dataclasses whose fields carry label, unit, help and range.

The same annotation is the check inside the core, the API schema, the form's label and unit, the
command line's help and the reference page. Nothing declares a label, a unit or a range twice.
"""

from __future__ import annotations

import dataclasses
import math
import types
import typing
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Self, get_args, get_origin

from calc.errors import CalcError, FieldError, OutOfRange
from calc.quantities import Sentence, parse


@dataclass(frozen=True)
class Quantity:
    """A number: its label, core unit, meaning and range (`above` excludes the bound itself)."""

    label: str
    unit: str = ""
    help: str = ""
    low: float | None = None
    high: float | None = None
    above: float | None = None
    whole: bool = False
    places: tuple[int, int] | None = None


@dataclass(frozen=True)
class Choice:
    """One of a few named answers: value -> what the person reads."""

    label: str
    options: Mapping[str, str]
    help: str = ""


@dataclass(frozen=True)
class Flag:
    """Yes or no."""

    label: str
    help: str = ""


@dataclass(frozen=True)
class Text:
    """Free words."""

    label: str
    help: str = ""
    most: int = 80
    pattern: str | None = None


@dataclass(frozen=True)
class Group:
    """A nested value, or a list of them between `least` and `most` long."""

    label: str
    help: str = ""
    least: int = 0
    most: int = 60


Spec = Quantity | Choice | Flag | Text | Group


@dataclass(frozen=True)
class FieldSpec:
    """One declared field: its name, what it is, the nested type if any, and whether it may be left out."""

    name: str
    spec: Spec
    nested: type[Any] | None
    many: bool
    nullable: bool
    required: bool
    default: Any


def _unwrap(hint: Any) -> tuple[Any, Spec | None, bool]:
    """(bare type, declaration, may be None) of an annotation."""
    spec: Spec | None = None
    nullable = False
    while True:
        if get_origin(hint) is typing.Annotated:
            hint, *extras = get_args(hint)
            spec = next((e for e in extras if isinstance(e, Spec)), spec)
        elif get_origin(hint) in (typing.Union, types.UnionType):
            kinds = [k for k in get_args(hint) if k is not type(None)]
            nullable = nullable or len(kinds) < len(get_args(hint))
            hint = kinds[0]
        else:
            return hint, spec, nullable


_FIELDS: dict[type[Any], tuple[FieldSpec, ...]] = {}


def fields_of(kind: type[Any]) -> tuple[FieldSpec, ...]:
    """The declared fields of a dataclass, in order."""
    if kind not in _FIELDS:
        _FIELDS[kind] = _declared(kind)
    return _FIELDS[kind]


def _declared(kind: type[Any]) -> tuple[FieldSpec, ...]:
    hints = typing.get_type_hints(kind, include_extras=True)
    found = []
    for field in dataclasses.fields(kind):
        bare, spec, nullable = _unwrap(hints[field.name])
        many = get_origin(bare) is tuple
        nested = get_args(bare)[0] if many else bare
        if many:
            nested, inner, _ = _unwrap(nested)
            spec = spec or inner
        if spec is None:
            raise TypeError(f"{kind.__name__}.{field.name} has no declaration")
        has_default = field.default is not dataclasses.MISSING or field.default_factory is not dataclasses.MISSING
        default = field.default if field.default is not dataclasses.MISSING else None
        found.append(
            FieldSpec(
                field.name,
                spec,
                nested if isinstance(nested, type) and dataclasses.is_dataclass(nested) else None,
                many,
                nullable,
                not has_default,
                default,
            )
        )
    return tuple(found)


def check_range(field: str, spec: Quantity, value: float) -> None:
    """Raise OutOfRange when `value` is not in the declared range, or is not a number."""
    low = spec.above if spec.above is not None else spec.low
    outside = (
        not math.isfinite(value)
        or (spec.low is not None and value < spec.low)
        or (spec.above is not None and value <= spec.above)
        or (spec.high is not None and value > spec.high)
    )
    if outside:
        shown = value if math.isfinite(value) else 0.0
        raise OutOfRange(
            field, shown, low, spec.high, spec.unit, label=spec.label, low_open=spec.above is not None
        )  # fmt: skip


Range = tuple[str, Quantity, float, float, bool]
_RANGES: dict[type[Any], tuple[Range, ...]] = {}


def _ranges(kind: type[Any]) -> tuple[Range, ...]:
    """(name, declaration, low, high, low excluded) of every single number of a dataclass."""
    rows: list[Range] = []
    for field in fields_of(kind):
        spec = field.spec
        if isinstance(spec, Quantity) and not field.many:
            low = spec.above if spec.above is not None else spec.low
            bounds = (-math.inf if low is None else low, math.inf if spec.high is None else spec.high)
            rows.append((field.name, spec, bounds[0], bounds[1], spec.above is not None))
    return tuple(rows)


class Checked:
    """Base of input dataclasses: ranges are enforced whenever one is made, from wherever."""

    def __post_init__(self) -> None:
        problems: list[FieldError] = []
        kind = type(self)
        if kind not in _RANGES:
            _RANGES[kind] = _ranges(kind)
        for name, spec, low, high, excluded in _RANGES[kind]:
            value = getattr(self, name)
            # The plain comparison is for speed; what fails it is told by check_range.
            if value is None or (low < value <= high if excluded else low <= value <= high and value - value == 0):
                continue
            try:
                check_range(name, spec, value)
            except CalcError as error:
                problems.extend(error.errors)
        problems = problems or list(self.contradictions())
        if problems:
            raise CalcError(problems)

    def contradictions(self) -> Iterator[FieldError]:
        """Fields that are fine alone and not together."""
        yield from ()

    @classmethod
    def read(cls, data: Any, prefix: str = "") -> Self:
        """An instance from plain data; every problem is collected and named by its dotted field."""
        return read(cls, data, prefix)  # type: ignore[no-any-return]


def _one(field: FieldSpec, value: Any, name: str) -> Any:
    spec = field.spec
    match spec:
        case Group():
            assert field.nested is not None
            return read(field.nested, value, name + ".")
        case Quantity():
            if isinstance(value, str):
                value = parse(value, spec.unit, None, name)
            if isinstance(value, bool) or not isinstance(value, (int, float)) or not _is_finite(value):
                raise CalcError([FieldError(name, Sentence(f"{spec.label} must be a number{_in(spec.unit)}."))])
            if spec.whole and value != int(value):
                raise CalcError([FieldError(name, Sentence(f"{spec.label} must be a whole number."))])
            check_range(name, spec, value)
            return int(value) if spec.whole else float(value)
        case Choice():
            if value not in spec.options:
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


def read(kind: type[Any], data: Any, prefix: str = "") -> Any:
    """Build a declared dataclass from plain data.

    Strings are read as a machinist writes them, a bare number in the core unit. Raises CalcError
    with every unknown, missing, unreadable and out-of-range field under its dotted name.
    """
    if not isinstance(data, Mapping):
        raise CalcError([FieldError(prefix.rstrip("."), Sentence("Give an object with named fields here."))])
    problems: list[FieldError] = []
    specs = {f.name: f for f in fields_of(kind)}
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
                made[name] = None
            continue
        try:
            made[name] = _many(field, value, dotted) if field.many else _one(field, value, dotted)
        except CalcError as error:
            problems.extend(error.errors)
    if problems:
        raise CalcError(problems)
    try:
        return kind(**made)
    except CalcError as error:
        raise CalcError(FieldError(prefix + e.field, e.sentence) for e in error.errors) from error


def _many(field: FieldSpec, value: Any, name: str) -> tuple[Any, ...]:
    spec = field.spec
    if not isinstance(value, (list, tuple)):
        raise CalcError([FieldError(name, Sentence(f"{spec.label}: give a list."))])
    if isinstance(spec, Group) and not spec.least <= len(value) <= spec.most:
        raise CalcError([FieldError(name, Sentence(f"{spec.label}: give {spec.least} to {spec.most} of them."))])
    problems: list[FieldError] = []
    made = []
    for index, item in enumerate(value):
        try:
            made.append(_one(field, item, f"{name}.{index}"))
        except CalcError as error:
            problems.extend(error.errors)
    if problems:
        raise CalcError(problems)
    return tuple(made)


def write(value: Any) -> Any:
    """A declared dataclass as plain data that `read` takes back."""
    if isinstance(value, tuple):
        return [write(v) for v in value]
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return {f.name: write(getattr(value, f.name)) for f in dataclasses.fields(value)}
    return value


def describe(kind: type[Any]) -> list[dict[str, Any]]:
    """The declaration as plain data: what the reference page and GET /api/calc show."""
    out = []
    for f in fields_of(kind):
        spec = f.spec
        row: dict[str, Any] = {"name": f.name, "label": spec.label, "help": spec.help}
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
        properties[f.name] = {"type": "array", "items": item, "title": f.spec.label} if f.many else item
    needed = [f.name for f in fields_of(kind) if f.required and not f.nullable]
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
