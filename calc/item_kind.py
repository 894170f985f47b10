"""A kind of thing on the shelf, as one record: its words, its fields in order, its line, its links, its columns.

Screens, forms, CSV files, the find box and the API read the record; `calc.shelf.all_kinds` lists them.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import astuple, dataclass, field
from functools import cached_property
from typing import Any, Generic, TypeVar

from calc.errors import CalcError, FieldError
from calc.fields import FieldSpec, Flag, fields_of
from calc.item import Item
from calc.reading import read

T = TypeVar("T", bound=Item)
Names = Mapping[str, str]


@dataclass(frozen=True)
class Link:
    """What an item belongs to: another item of the shelf, or several of a kind.

    `field` is the field of the value that holds the other's key; empty where the value does without.
    """

    name: str
    kind: str
    label: str
    help: str
    where: str
    many: bool = False
    field: str = ""


FITS_CHUCKS = Link(
    "chucks",
    "chuck",
    "Fits chucks",
    "The chucks whose master jaws take it",
    "Serration pitch and bolt spacing must agree",
    many=True,
)


@dataclass(frozen=True)
class ItemField:
    """A field of an item's form and the heading it stands under."""

    field: FieldSpec
    group: str

    @property
    def name(self) -> str:
        """The field's name, the same in value, row and file."""
        return self.field.name

    @property
    def optional(self) -> bool:
        """Whether it may be left empty; text may where a figure may not."""
        return self.field.nullable or self.field.default == ""


@dataclass(frozen=True)
class ItemKind(Generic[T]):
    """A kind of item.

    `line` tells a value from the next of its kind in a few words; it is given the names of what the item is
    linked to, by link. `groups` gives the heading that begins at a field, `order` the order a data sheet is read
    in (what is not named follows), `codes` the property code of ISO 13399 a field's column is called by.
    `part` is a nested value whose fields stand beside the others, `chart` its list of points, shown as a chart.
    `plural` names its place among a shelf's tools, or among what fits a chuck. `sought`: no run takes it by name,
    every run on its chucks looks for it. `typical_by` is the field whose typical figure makes the item typical.
    """

    name: str
    title: str
    noun: str
    item: type[T]
    line: Callable[[T, Names], str]
    groups: Mapping[str, str]
    order: tuple[str, ...] = ()
    links: tuple[Link, ...] = ()
    codes: Mapping[str, str] = field(default_factory=dict)
    part: str = ""
    chart: str = ""
    plural: str = ""
    sought: bool = False
    typical_by: str = ""

    @cached_property
    def _part_fields(self) -> dict[str, FieldSpec]:
        nested = next((f.nested for f in fields_of(self.item) if f.name == self.part), None)
        return {f.name: f for f in fields_of(nested)} if nested is not None else {}

    @cached_property
    def fields(self) -> tuple[ItemField, ...]:
        """The fields that a person fills in, in the order of the form, without key, links and chart."""
        held = {"key", self.chart, *(link.field for link in self.links)}
        found = {f.name: f for f in fields_of(self.item) if f.nested is None and not isinstance(f.spec, Flag)}
        found |= self._part_fields
        names = [n for n in (*self.order, *(n for n in found if n not in self.order)) if n not in held]
        rows, group = [], ""
        for name in names:
            group = self.groups.get(name, group)
            rows.append(ItemField(found[name], group))
        return tuple(rows)

    def form_field(self, name: str) -> ItemField | None:
        """A field of the form by its name."""
        return next((f for f in self.fields if f.name == name), None)

    def link(self, name: str) -> Link | None:
        """A link by its name."""
        return next((link for link in self.links if link.name == name), None)

    @property
    def columns(self) -> list[str]:
        """The columns of the kind's file, in order."""
        more = [link.name for link in self.links]
        return ["key", *(self.column(f.name) for f in self.fields), *more, *(["chart"] if self.chart else [])]

    def column(self, name: str) -> str:
        """The column that a field is written in."""
        return self.codes.get(name, name)

    def field_of(self, column: str) -> str:
        """The field that a column is; a field may be called by its own name too."""
        return next((name for name, code in self.codes.items() if code == column), column)

    def read(self, flat: Mapping[str, Any], chart: Sequence[tuple[float, float]] = ()) -> T:
        """An item from a flat row in core units. Raises CalcError with the row's field names."""
        data = dict(flat)
        if self.part:
            nested = {n: data.pop(n) for n in self._part_fields if n in data}
            if self.chart:
                names = [f.name for f in fields_of(self._part_fields[self.chart].nested or Item)]
                nested[self.chart] = [dict(zip(names, point, strict=True)) for point in chart]
            data[self.part] = nested
        try:
            return read(self.item, data)  # type: ignore[no-any-return]
        except CalcError as error:
            raise CalcError(FieldError(self._flat_name(e.field), e.sentence) for e in error.errors) from error

    def flat(self, item: T) -> dict[str, Any]:
        """What its form holds of an item, in core units, by field; `read` takes it back."""
        part = getattr(item, self.part) if self.part else None
        return {f.name: getattr(part if f.name in self._part_fields else item, f.name) for f in self.fields}

    def chart_of(self, item: T) -> list[tuple[float, float]]:
        """The points of an item's chart; none where the kind has none."""
        points = getattr(getattr(item, self.part), self.chart) if self.chart else ()
        return [(x, y) for x, y in map(astuple, points)]

    def _flat_name(self, name: str) -> str:
        short = name.removeprefix(f"{self.part}.") if self.part else name
        return "chart" if self.chart and short.startswith(self.chart) else short
