"""Shelf rows as the core's values and as flat rows of fields, and back; the kind's record says how."""

from __future__ import annotations

import re
from typing import Any

from calc.item import Item
from calc.item_kind import ItemKind
from calc.shelf.all_kinds import KINDS
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.shelf import models

Values = dict[str, Any]  # figures in core units and words by field: what a row holds and a history keeps
Links = dict[str, Any]  # what an item belongs to by link: a key, or a list of them where there may be several
KIND_OF_MODEL = {model: kind for kind, model in models.OF_KIND.items()}


def model_of(kind: str) -> type[models.Item]:
    """The table that a kind's rows are in."""
    return models.Tool if kind in TOOL_KINDS else models.OF_KIND[kind]


def is_key(text: str) -> bool:
    """Whether the text may be an item's key."""
    return re.fullmatch(r"[a-z0-9][a-z0-9-]{0,59}", text) is not None


def kind_of(row: models.Item) -> ItemKind[Any]:
    """The record of the row's kind."""
    return KINDS[row.kind if isinstance(row, models.Tool) else KIND_OF_MODEL[type(row)]]


def value(row: models.Item) -> Item:
    """The row as the core's value."""
    kind, linked = kind_of(row), links_of(row)
    held = {link.field: linked[link.name] for link in kind.links if link.field}
    filled = {name: v for name, v in flat(row).items() if v is not None}
    typical = {"typical": True} if kind.typical_by in row.typical else {}
    return kind.read({"key": row.key, **filled, **held, **typical}, chart_of(row))  # type: ignore[no-any-return]


def flat(row: models.Item) -> Values:
    """The row's fields in core units, by the names of its form."""
    fields = kind_of(row).fields
    if isinstance(row, models.Tool):
        return {f.name: row.name if f.name == "name" else row.figures.get(f.name, f.field.default) for f in fields}
    return {f.name: getattr(row, f.name) for f in fields}


def chart_of(row: models.Item) -> list[tuple[float, float]]:
    """A chuck's chart; no points for other kinds."""
    return [(p.pressure_bar, p.grip_n) for p in row.chart.all()] if isinstance(row, models.Chuck) else []


def links_of(row: models.Item) -> Links:
    """What the item belongs to, by key: one, or a list where there may be several."""
    found: Links = {}
    for link in kind_of(row).links:
        other = getattr(row, link.name)
        found[link.name] = sorted(o.key for o in other.all()) if link.many else other.key
    return found


def names_linked(row: models.Item) -> dict[str, str]:
    """What the one item that each link leads to is called."""
    return {link.name: getattr(row, link.name).name for link in kind_of(row).links if not link.many}


def write(row: models.Item, kind: ItemKind[Any], values: Values, links: Links) -> None:
    """Put a form's values and single links into the row; the several of a link need the row saved first."""
    if isinstance(row, models.Tool):
        row.kind, row.name = kind.name, values["name"]
        row.figures = {n: v for n, v in values.items() if n != "name"}
        return
    for name, given in values.items():
        setattr(row, name, given)
    for link in kind.links:
        if not link.many:
            setattr(row, link.name, model_of(link.kind)._default_manager.get(key=links[link.name]))


def write_parts(row: models.Item, kind: ItemKind[Any], links: Links, chart: list[tuple[float, float]]) -> None:
    """Keep what stands in rows beside a saved one: its chart, and the several of a link."""
    if isinstance(row, models.Chuck):
        row.chart.all().delete()
        models.ChartPoint.objects.bulk_create(models.ChartPoint(chuck=row, pressure_bar=p, grip_n=g) for p, g in chart)
    for link in kind.links:
        if link.many:
            others = model_of(link.kind)._default_manager.filter(key__in=links[link.name])
            getattr(row, link.name).set(others)
