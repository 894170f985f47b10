"""Fill an empty shelf: the starting materials, and a shop's machines, chucks and blanks."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import transaction

from calc.data.materials import starting_materials
from calc.fields import Quantity
from calc.plan.shelf_items import item_fields
from server.apps.shelf.models import ChartPoint, Chuck, JawBlank, Machine, Material, ShelfState


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
def load_shelf(machines: list[dict[str, Any]], chucks: list[dict[str, Any]], blanks: list[dict[str, Any]]) -> None:
    """Add what is given; keys must be new."""
    renew()
    load_starting_materials()
    Machine.objects.bulk_create(Machine(**row) for row in machines)
    for given in chucks:
        row = {k: v for k, v in given.items() if k not in ("chart", "machine")}
        usual = [n for n in ("guide_friction", "efficiency") if n not in row]
        chuck = Chuck.objects.create(machine=Machine.objects.get(key=given["machine"]), typical=usual, **row)
        ChartPoint.objects.bulk_create(ChartPoint(chuck=chuck, pressure_bar=p, grip_n=g) for p, g in given["chart"])
    for given in blanks:
        blank = JawBlank.objects.create(**{k: v for k, v in given.items() if k != "chucks"})
        blank.chucks.set(Chuck.objects.filter(key__in=given["chucks"]))
