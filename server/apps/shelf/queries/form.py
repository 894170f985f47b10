"""A shelf item as a form: what is kept, with what a person typed over it, read field by field."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from calc.chuck.chart import read_chart
from calc.errors import CalcError, FieldError
from calc.item_kind import ItemField, ItemKind, Link
from calc.quantities import Sentence, System
from calc.shelf.all_kinds import KINDS
from calc.typed import typed_value
from server.apps.shelf import convert
from server.apps.shelf.convert import Links, Values
from server.apps.shelf.models import Item
from server.apps.shelf.queries.snapshot import Snapshot


@dataclass(frozen=True)
class Given:
    """What a person gives: text in the units of `system` or picked values, and fields confirmed as the shop's own."""

    fields: Values
    chart: str | None = None
    system: System = "metric"
    confirmed: tuple[str, ...] = ()


@dataclass
class Form:
    """An item's fields in core units, its chart and links, as typed so far; `errors` at the fields that are refused."""

    kind: ItemKind[Any]
    key: str
    values: Values
    chart: list[tuple[float, float]]
    links: Links
    errors: list[FieldError] = field(default_factory=list)
    given: set[str] = field(default_factory=set)

    def value(self) -> Any:
        """The item as the core's value. Raises CalcError with what is missing or does not fit together."""
        filled = {name: v for name, v in self.values.items() if v is not None}
        return self.kind.read({**filled, "key": self.key}, self.chart)

    def complete(self) -> Any | None:
        """The same, or None while something is missing or refused."""
        try:
            return None if self.errors else self.value()
        except CalcError:
            return None

    def state(self) -> Values:
        """Everything that is kept of it, by name."""
        return self.values | self.links | ({"chart": [list(p) for p in self.chart]} if self.kind.chart else {})


def blank_form(kind: str) -> Form:
    """The form of an item that is not there yet: what has a usual value has that."""
    record = KINDS[kind]
    values = {f.name: None if f.field.required else f.field.default for f in record.fields}
    links: Links = {link.name: [] if link.many else None for link in record.links}
    return Form(record, "new", values, [], links)


def form_of(row: Item) -> Form:
    """The form of an item as it is kept."""
    return Form(convert.kind_of(row), row.key, convert.flat(row), convert.chart_of(row), convert.links_of(row))


def take(form: Form, given: Given, on_shelf: Snapshot) -> None:
    """Put what a person gave over the form; a refused entry leaves what was there and says why."""
    for name, entry in given.fields.items():
        declared, link = form.kind.form_field(name), form.kind.link(name)
        if declared is not None:
            _take_field(form, declared, entry, given.system)
        elif link is not None:
            _take_link(form, link, entry, on_shelf)
        else:
            form.errors.append(FieldError(name, Sentence("There is no such field here.")))
    if given.chart is not None and form.kind.chart:
        try:
            form.chart = read_chart(given.chart, given.system)
            form.given.add("chart")
        except CalcError as error:
            form.errors += error.errors


def _take_field(form: Form, declared: ItemField, entry: Any, system: System) -> None:
    name = declared.name
    try:
        read = typed_value(name, declared.field.spec, entry, nullable=declared.optional, system=system)
    except CalcError as error:
        form.errors += error.errors
        return
    form.values[name] = "" if read is None and declared.field.default == "" else read
    form.given.add(name)


def _take_link(form: Form, link: Link, entry: Any, on_shelf: Snapshot) -> None:
    keys = entry if isinstance(entry, list) else [entry]
    known = on_shelf.ids[link.kind]
    if not all(isinstance(k, str) and k in known for k in keys) or (not link.many and len(keys) != 1):
        form.errors.append(FieldError(link.name, Sentence("Choose what is on the shelf.")))
        return
    form.links[link.name] = sorted(keys) if link.many else keys[0]
    form.given.add(link.name)
