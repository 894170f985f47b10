"""A shelf item as a form: what is kept, with what a person typed over it, read field by field."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from calc.chuck.chart import read_chart
from calc.errors import CalcError, FieldError
from calc.quantities import Sentence, System
from calc.shelf.items import item_fields, read_item
from calc.typed import typed_value
from server.apps.shelf import convert
from server.apps.shelf.models import Item
from server.apps.shelf.snapshot import Snapshot


@dataclass(frozen=True)
class Link:
    """What an item belongs to: the link's name, the kind linked to, whether there may be several."""

    name: str
    kind: str
    many: bool = False


CHUCKS = Link("chucks", "chuck", many=True)
LINKS: dict[str, tuple[Link, ...]] = {
    "chuck": (Link("machine", "machine"),),
    "jaw_blank": (CHUCKS,),
    "ring": (CHUCKS,),
    "plug": (CHUCKS,),
    "jaw_set": (Link("chuck", "chuck"), Link("blank", "jaw_blank")),
}


@dataclass(frozen=True)
class Given:
    """What a person gives: text in the units of `system` or picked values, and fields confirmed as the shop's own."""

    fields: dict[str, Any]
    chart: str | None = None
    system: System = "metric"
    confirmed: tuple[str, ...] = ()


@dataclass
class Form:
    """An item's fields in core units, its chart and links, as typed so far; `errors` at the fields that are refused."""

    kind: str
    key: str
    values: dict[str, Any]
    chart: list[tuple[float, float]]
    links: dict[str, Any]
    errors: list[FieldError] = field(default_factory=list)
    given: set[str] = field(default_factory=set)

    def value(self) -> Any:
        """The item as the core's value. Raises CalcError with what is missing or does not fit together."""
        filled = {name: v for name, v in self.values.items() if v is not None}
        return read_item(self.kind, {**filled, "key": self.key}, self.chart)

    def complete(self) -> Any | None:
        """The same, or None while something is missing or refused."""
        try:
            return None if self.errors else self.value()
        except CalcError:
            return None


def blank_form(kind: str) -> Form:
    """The form of an item that is not there yet: what has a usual value has that."""
    values = {f.name: None if f.field.required else f.field.default for f in item_fields(kind)}
    links: dict[str, Any] = {link.name: [] if link.many else None for link in LINKS.get(kind, ())}
    return Form(kind, "new", values, [], links)


def form_of(kind: str, row: Item) -> Form:
    """The form of an item as it is kept."""
    return Form(kind, row.key, convert.flat(kind, row), convert.chart_of(row), convert.links_of(row))


def take(form: Form, given: Given, on_shelf: Snapshot) -> None:
    """Put what a person gave over the form; a refused entry leaves what was there and says why."""
    known = {f.name: f.field for f in item_fields(form.kind)}
    for name, entry in given.fields.items():
        declared = known.get(name)
        if declared is None:
            if name in form.links:
                _take_link(form, name, entry, on_shelf)
            else:
                form.errors.append(FieldError(name, Sentence("There is no such field here.")))
            continue
        # Text may be empty where a figure may not.
        optional = declared.nullable or declared.default == ""
        try:
            read = typed_value(name, declared.spec, entry, nullable=optional, system=given.system)
            form.values[name] = "" if read is None and declared.default == "" else read
            form.given.add(name)
        except CalcError as error:
            form.errors += error.errors
    if given.chart is not None and form.kind == "chuck":
        try:
            form.chart = read_chart(given.chart, given.system)
            form.given.add("chart")
        except CalcError as error:
            form.errors += error.errors


def _take_link(form: Form, name: str, entry: Any, on_shelf: Snapshot) -> None:
    link = next(link for link in LINKS[form.kind] if link.name == name)
    keys = entry if isinstance(entry, list) else [entry]
    known = on_shelf.ids[link.kind]
    if not all(isinstance(k, str) and k in known for k in keys) or (not link.many and len(keys) != 1):
        form.errors.append(FieldError(name, Sentence("Choose what is on the shelf.")))
        return
    form.links[name] = sorted(keys) if link.many else keys[0]
    form.given.add(name)
