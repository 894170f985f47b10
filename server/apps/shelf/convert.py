"""Shelf rows as the core's values and as flat rows of fields, and back."""

from __future__ import annotations

import dataclasses
import re
from typing import Any

from calc.chuck.grip import ChartPoint as CorePoint
from calc.chuck.grip import ChuckForce
from calc.reading import read
from calc.shelf.items import item_fields
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.workholding import Chuck, JawBlank, JawSet, Plug, Ring
from calc.tools.records import TOOL_KINDS
from server.apps.shelf import models

MODELS: dict[str, type[models.Item]] = {
    "machine": models.Machine,
    "chuck": models.Chuck,
    "jaw_blank": models.JawBlank,
    "jaw_set": models.JawSet,
    "ring": models.Ring,
    "plug": models.Plug,
    "material": models.Material,
    **dict.fromkeys(TOOL_KINDS, models.Tool),
}


def is_key(text: str) -> bool:
    """Whether the text may be an item's key."""
    return re.fullmatch(r"[a-z0-9][a-z0-9-]{0,59}", text) is not None


def _same(kind: type[Any], row: Any, **more: Any) -> Any:
    """The value whose fields the row has under the same names."""
    names = [f.name for f in dataclasses.fields(kind) if f.name not in more]
    return kind(**{n: getattr(row, n) for n in names}, **more)


def machine(row: models.Machine) -> Machine:
    """A machine."""
    return _same(Machine, row)  # type: ignore[no-any-return]


def material(row: models.Material) -> Material:
    """A material."""
    return _same(Material, row, typical="kc11" in row.typical)  # type: ignore[no-any-return]


def blank(row: models.JawBlank) -> JawBlank:
    """A jaw blank."""
    return _same(JawBlank, row)  # type: ignore[no-any-return]


def ring(row: models.Ring) -> Ring:
    """A boring ring."""
    return _same(Ring, row)  # type: ignore[no-any-return]


def plug(row: models.Plug) -> Plug:
    """A boring plug."""
    return _same(Plug, row)  # type: ignore[no-any-return]


def jaw_set(row: models.JawSet) -> JawSet:
    """A jaw set, with the chuck and blank it belongs to by key."""
    return _same(JawSet, row, chuck_key=row.chuck.key, blank_key=row.blank.key)  # type: ignore[no-any-return]


def chuck(row: models.Chuck) -> Chuck:
    """A chuck with its chart."""
    points = tuple(CorePoint(p.pressure_bar, p.grip_n) for p in row.chart.all())
    force = _same(ChuckForce, row, chart=points)
    return _same(Chuck, row, force=force)  # type: ignore[no-any-return]


def tool(row: models.Tool) -> Any:
    """A tool of its kind."""
    return read(TOOL_KINDS[row.kind], {"key": row.key, "name": row.name, **row.figures})


def flat(kind: str, row: models.Item) -> dict[str, Any]:
    """The row's fields in core units, by the names of its form."""
    if isinstance(row, models.Tool):
        return {
            f.name: row.name if f.name == "name" else row.figures.get(f.name, f.field.default)
            for f in item_fields(kind)
        }
    return {f.name: getattr(row, f.name) for f in item_fields(kind)}


def chart_of(row: models.Item) -> list[tuple[float, float]]:
    """A chuck's chart; no points for other kinds."""
    return [(p.pressure_bar, p.grip_n) for p in row.chart.all()] if isinstance(row, models.Chuck) else []


def links_of(row: models.Item) -> dict[str, Any]:
    """What the item belongs to: a chuck's machine by key, a blank's chucks by key."""
    match row:
        case models.Chuck():
            return {"machine": row.machine.key}
        case models.JawSet():
            return {"chuck": row.chuck.key, "blank": row.blank.key}
        case models.JawBlank() | models.Ring() | models.Plug():
            return {"chucks": sorted(c.key for c in row.chucks.all())}
    return {}
