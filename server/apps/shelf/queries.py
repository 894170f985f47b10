"""Reads of the shelf."""

from __future__ import annotations

from typing import Any

from calc.plan import shelf as core
from server.apps.shelf import convert
from server.apps.shelf.models import Chuck, JawBlank, Machine, Material

# The document's references, and the tables they point into.
TABLES: dict[str, type[Machine] | type[Material] | type[Chuck] | type[JawBlank]] = {
    "machine": Machine,
    "material": Material,
    "chuck": Chuck,
    "jaw_blank": JawBlank,
}


def names(kind: str) -> dict[str, str]:
    """Key -> name of everything of one kind."""
    return dict(TABLES[kind].objects.values_list("key", "name"))


def item(kind: str, key: str) -> Any:
    """One item by its key."""
    return TABLES[kind].objects.filter(key=key).first()


def chucks_of(machine: Machine | None) -> dict[str, str]:
    """The chucks that a machine has; all of them while there is none."""
    rows = Chuck.objects.all() if machine is None else machine.chucks.all()
    return dict(rows.values_list("key", "name"))


def machine_value(row: Machine) -> core.Machine:
    """A machine as the core's value."""
    return convert.machine(row)


def material_value(row: Material) -> core.Material:
    """A material as the core's value."""
    return convert.material(row)


def setup_shelf(chuck: Chuck | None, blank: JawBlank | None, on_machine: bool) -> core.SetupShelf:
    """What one set-up takes from the shelf, with every blank its chuck could carry."""
    blanks = () if chuck is None else tuple(convert.blank(b) for b in chuck.blanks.all())
    chosen = convert.blank(blank) if blank is not None else None
    return core.SetupShelf(convert.chuck(chuck) if chuck else None, chosen, blanks, on_machine)
