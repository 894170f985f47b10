"""The shelf in sentences: what fields are called, how values read, what changed, what happened to a jaw set."""

from __future__ import annotations

from typing import Any

from calc.item_kind import ItemKind
from calc.plan.labels import value_text as spec_text
from calc.quantities import Figure, System
from server.apps.shelf.models import Item, JawSet, ShelfChange
from server.apps.shelf.schemas import ItemChange, LifeEvent

CHANGES_SHOWN = 20
CHART_LABEL = "Chart of grip against pressure"
LIFE_WORDS = {
    "bored": "bored",
    "recut": "re-cut",
    "refit": "refitted",
    "lent": "lent",
    "back": "came back",
    "damaged": "damaged",
}


def label(kind: ItemKind[Any], name: str) -> str:
    """What a field of an item is called."""
    declared, link = kind.form_field(name), kind.link(name)
    return declared.field.spec.label if declared else link.label if link else CHART_LABEL


def value_text(kind: ItemKind[Any], name: str, value: Any, system: System) -> str:
    """How a field's value reads in a sentence."""
    if name == "chart":
        return f"{len(value)} points" if value else "no points"
    if isinstance(value, list):
        return ", ".join(value) or "none"
    declared = kind.form_field(name)
    return spec_text(declared.field.spec if declared else None, value, system)


def life_of(row: JawSet, system: System) -> list[LifeEvent]:
    """What happened to a jaw set, the newest first."""
    found = []
    for e in row.life.select_related("by"):
        size = f", to {Figure(e.size_mm, 'mm', places=(3, 4)).text(system)}" if e.size_mm is not None else ""
        taken = f", {Figure(e.removal_mm, 'mm', places=(3, 4)).text(system)} a side" if e.removal_mm is not None else ""
        said = f": {e.note}" if e.note else ""
        by = e.by.username if e.by else ""
        found.append(LifeEvent(text=f"{LIFE_WORDS[e.what]}{size}{taken}{said}", on=e.on, by=by))
    return found


def changes_of(kind: ItemKind[Any], row: Item, system: System) -> list[ItemChange]:
    """The latest changes of an item, the newest first."""
    rows = ShelfChange.objects.filter(kind=kind.name, item_key=row.key).select_related("by")[:CHANGES_SHOWN]
    return [ItemChange(text=_change_text(kind, c, system), by=c.by.username, at=c.at) for c in rows]


def _change_text(kind: ItemKind[Any], change: ShelfChange, system: System) -> str:
    if change.revision == 1 and all(old is None for old, _ in change.changes.values()):
        return "put on the shelf"
    told = [
        f"{label(kind, name)} {value_text(kind, name, old, system)} → {value_text(kind, name, new, system)}"
        for name, (old, new) in change.changes.items()
    ]
    return ", ".join(told) or "figures confirmed as the shop's own"
