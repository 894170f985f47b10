"""Fill an empty shelf: the starting materials, and a shop's machines, chucks and blanks."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from datetime import date, timedelta
from typing import Any

from django.db import transaction

from calc.data.materials import starting_materials
from calc.data.tools import starting_tools
from calc.fields import Quantity
from calc.reading import read, write
from calc.shelf.items import item_fields
from calc.tools.records import TOOL_KINDS
from server.apps.shelf.models import (
    ChartPoint,
    Chuck,
    JawBlank,
    JawSet,
    JawSetEvent,
    Machine,
    Material,
    Plug,
    Ring,
    ShelfState,
    Tool,
)

Rows = Sequence[dict[str, Any]]


def renew() -> None:
    """Tell every process that the shelf has changed. To be called within the change's transaction."""
    ShelfState.objects.update_or_create(pk=1, defaults={"token": uuid.uuid4()})


@transaction.atomic
def load_starting_materials() -> int:
    """Put the starting table on a shelf that has no material yet, every figure typical; gives how many came in."""
    if Material.objects.exists():
        return 0
    figures = sorted(f.name for f in item_fields("material") if isinstance(f.field.spec, Quantity))
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
        figures = sorted(f.name for f in item_fields(kind) if isinstance(f.field.spec, Quantity) and f.name != "stock")
        for one in given:
            value = write(read(TOOL_KINDS[kind], one))
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
def load_shelf(machines: Rows, chucks: Rows, blanks: Rows, rings: Rows = (), plugs: Rows = (), sets: Rows = ()) -> None:
    """Add what is given; keys must be new. A set brings its life as (days ago, what, size, removal, note)."""
    renew()
    load_starting_materials()
    Machine.objects.bulk_create(Machine(**row) for row in machines)
    for given in chucks:
        row = {k: v for k, v in given.items() if k not in ("chart", "machine")}
        usual = [n for n in ("guide_friction", "efficiency") if n not in row]
        chuck = Chuck.objects.create(machine=Machine.objects.get(key=given["machine"]), typical=usual, **row)
        ChartPoint.objects.bulk_create(ChartPoint(chuck=chuck, pressure_bar=p, grip_n=g) for p, g in given["chart"])
    for model, rows in ((JawBlank, blanks), (Ring, rings), (Plug, plugs)):
        for given in rows:
            item = model._default_manager.create(**{k: v for k, v in given.items() if k != "chucks"})
            item.chucks.set(Chuck.objects.filter(key__in=given["chucks"]))
    for given in sets:
        row = {k: v for k, v in given.items() if k not in ("chuck", "blank", "life")}
        one = JawSet.objects.create(
            chuck=Chuck.objects.get(key=given["chuck"]), blank=JawBlank.objects.get(key=given["blank"]), **row
        )
        JawSetEvent.objects.bulk_create(
            JawSetEvent(
                jaw_set=one,
                on=date.today() - timedelta(days=days),
                what=what,
                size_mm=size,
                removal_mm=removal,
                note=note,
            )
            for days, what, size, removal, note in given["life"]
        )
