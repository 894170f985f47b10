"""The one declaration of an input: frozen dataclasses whose fields carry label, unit, help and range.

The same annotation is the check inside the core, the API schema (`calc.describing`), the reader of
plain data (`calc.reading`), the form's label and unit and the command line's help. Nothing declares
a label, a unit or a range twice.
"""

from __future__ import annotations

import dataclasses
import math
import types
import typing
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, get_args, get_origin

from calc.errors import Bounds, CalcError, FieldError, OutOfRange


@dataclass(frozen=True)
class Quantity:
    """A number: its label, core unit, meaning and range (`above` excludes the bound itself).

    `where` tells, for a shelf item, where on the maker's data sheet such a figure is found.
    """

    label: str
    unit: str = ""
    help: str = ""
    low: float | None = None
    high: float | None = None
    above: float | None = None
    whole: bool = False
    places: tuple[int, int] | None = None
    where: str = ""

    def called(self, label: str | None = None, help: str | None = None, **changes: Any) -> Quantity:
        """The same term under another label or meaning, or with what else differs."""
        if label is not None:
            changes["label"] = label
        if help is not None:
            changes["help"] = help
        return dataclasses.replace(self, **changes)


@dataclass(frozen=True)
class Choice:
    """One of a few named answers: value -> what the person reads."""

    label: str
    options: Mapping[str, str]
    help: str = ""
    where: str = ""


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
    where: str = ""


@dataclass(frozen=True)
class Group:
    """A nested value, or a list of them between `least` and `most` long."""

    label: str
    help: str = ""
    least: int = 0
    most: int = 60


@dataclass(frozen=True)
class When:
    """A field matters only where another one of the same input has one of these values."""

    field: str
    values: tuple[str | bool, ...]


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
    when: When | None = None

    @property
    def key(self) -> str:
        """Its name outside Python, where a word may be taken: `class_` is written "class"."""
        return self.name.removesuffix("_")


def _unwrap(hint: Any) -> tuple[Any, Spec | None, bool, When | None]:
    """(bare type, declaration, may be None, when it matters) of an annotation."""
    spec: Spec | None = None
    when: When | None = None
    nullable = False
    while True:
        if get_origin(hint) is typing.Annotated:
            hint, *extras = get_args(hint)
            spec = next((e for e in extras if isinstance(e, Spec)), spec)
            when = next((e for e in extras if isinstance(e, When)), when)
        elif get_origin(hint) in (typing.Union, types.UnionType):
            kinds = [k for k in get_args(hint) if k is not type(None)]
            nullable = nullable or len(kinds) < len(get_args(hint))
            hint = kinds[0]
        else:
            return hint, spec, nullable, when


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
        bare, spec, nullable, when = _unwrap(hints[field.name])
        many = get_origin(bare) is tuple
        nested = get_args(bare)[0] if many else bare
        if many:
            nested, inner, _, _ = _unwrap(nested)
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
                when,
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
        raise OutOfRange(field, shown, Bounds(low, spec.high, spec.unit, spec.label, spec.above is not None))


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
