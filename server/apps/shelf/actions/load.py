"""Fill an empty shelf: the starting materials, and a shop's machines, chucks and blanks."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from datetime import date, timedelta
from typing import Any

from django.db import transaction

from calc.data.materials import starting_materials
from calc.data.tools import starting_tools
from calc.fields import Quantity
from calc.item_kind import ItemKind
from calc.reading import write
from calc.shelf.all_kinds import KINDS
from calc.shelf.material import MATERIAL
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.shelf.convert import model_of, write_parts
from server.apps.shelf.convert import write as write_row
from server.apps.shelf.models import JawSet, JawSetEvent, Material, ShelfState, Tool

Row = Mapping[str, Any]
Rows = Sequence[Row]
# Figures of a chuck, and how a lathe moves, that are typical until the shop gives its own.
USUAL = (
    "guide_friction",
    "efficiency",
    "index_first_s",
    "index_further_s",
    "rapid_x_m_min",
    "rapid_z_m_min",
    "acceleration_m_s2",
    "spindle_s",
    "change_x_mm",
    "change_z_mm",
)
OF_A_CONE = ("cone_friction", "efficiency")  # the same of a chuck that closes a collet


def renew() -> None:
    """Tell every process that the shelf has changed. To be called within the change's transaction."""
    ShelfState.objects.update_or_create(pk=1, defaults={"token": uuid.uuid4()})


@transaction.atomic
def load_starting_materials() -> int:
    """Put the starting table on a shelf that has no material yet, every figure typical; gives how many came in."""
    if Material.objects.exists():
        return 0
    figures = sorted(f.name for f in MATERIAL.fields if isinstance(f.field.spec, Quantity))
    made = Material.objects.bulk_create(Material(**row, typical=figures) for row in starting_materials())
    renew()
    return len(made)


@transaction.atomic
def load_starting_tools() -> int:
    """Put the starting tools on a shelf that has none yet, every figure typical; gives how many came in."""
    if Tool.objects.exists():
        return 0
    rows = []
    for kind, given in starting_tools().items():
        record = TOOL_KINDS[kind]
        figures = sorted(f.name for f in record.fields if isinstance(f.field.spec, Quantity) and f.name != "stock")
        for one in given:
            value = write(record.read(one))
            rest = {n: v for n, v in value.items() if n not in ("key", "name")}
            rows.append(Tool(kind=kind, key=one["key"], name=one["name"], figures=rest, typical=figures))
    made = Tool.objects.bulk_create(rows)
    renew()
    return len(made)


@transaction.atomic
def stock_tools(stock: dict[str, int]) -> None:
    """Say how many pieces of tools there are, by key."""
    rows = list(Tool.objects.filter(key__in=stock))
    for row in rows:
        row.figures = row.figures | {"stock": stock[row.key]}
    Tool.objects.bulk_update(rows, ["figures"])
    renew()


@transaction.atomic
def load_shelf(shelf: Mapping[str, Rows]) -> None:
    """Add what is given, by kind; keys must be new, links name what is there or given. Starting materials come too."""
    renew()
    load_starting_materials()
    for kind in KINDS.values():
        for given in shelf.get(kind.name, ()):
            _load_item(kind, given)


def _load_item(kind: ItemKind[Any], given: Row) -> None:
    """Keep an item; a jaw set brings its life as (days ago, what, size, removal, note)."""
    values = {f.name: given.get(f.name, None if f.field.required else f.field.default) for f in kind.fields}
    links = {link.name: given[link.name] for link in kind.links}
    usual = OF_A_CONE if given.get("closes") == "collet" else USUAL
    row = model_of(kind.name)(key=given["key"], typical=[n for n in usual if n in values and n not in given])
    write_row(row, kind, values, links)
    row.save()
    write_parts(row, kind, links, given.get("chart", []))
    if isinstance(row, JawSet):
        JawSetEvent.objects.bulk_create(
            JawSetEvent(
                jaw_set=row,
                on=date.today() - timedelta(days=days),
                what=what,
                size_mm=size,
                removal_mm=removal,
                note=note,
            )
            for days, what, size, removal, note in given["life"]
        )
