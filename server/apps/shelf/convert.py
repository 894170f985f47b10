"""Shelf rows as the core's values and as flat rows of fields, and back."""

from __future__ import annotations

import dataclasses
import re
from typing import Any

from calc.chuck.grip import ChartPoint as CorePoint
from calc.chuck.grip import ChuckForce
from calc.plan import shelf as core
from calc.plan.shelf_items import item_fields
from server.apps.shelf import models

MODELS: dict[str, type[models.Item]] = {
    "machine": models.Machine, "chuck": models.Chuck, "jaw_blank": models.JawBlank, "material": models.Material,
}  # fmt: skip


def is_key(text: str) -> bool:
    """Whether the text may be an item's key."""
    return re.fullmatch(r"[a-z0-9][a-z0-9-]{0,59}", text) is not None


def _same(kind: type[Any], row: Any, **more: Any) -> Any:
    """The value whose fields the row has under the same names."""
    names = [f.name for f in dataclasses.fields(kind) if f.name not in more]
    return kind(**{n: getattr(row, n) for n in names}, **more)


def machine(row: models.Machine) -> core.Machine:
    """A machine."""
    return _same(core.Machine, row)  # type: ignore[no-any-return]


def material(row: models.Material) -> core.Material:
    """A material."""
    return _same(core.Material, row, typical="kc11" in row.typical)  # type: ignore[no-any-return]


def blank(row: models.JawBlank) -> core.JawBlank:
    """A jaw blank."""
    return _same(core.JawBlank, row)  # type: ignore[no-any-return]


def chuck(row: models.Chuck) -> core.Chuck:
    """A chuck with its chart."""
    points = tuple(CorePoint(p.pressure_bar, p.grip_n) for p in row.chart.all())
    force = _same(ChuckForce, row, chart=points)
    return _same(core.Chuck, row, force=force)  # type: ignore[no-any-return]


def flat(kind: str, row: models.Item) -> dict[str, Any]:
    """The row's fields in core units, by the names of its form."""
    return {f.name: getattr(row, f.name) for f in item_fields(kind)}


def chart_of(row: models.Item) -> list[tuple[float, float]]:
    """A chuck's chart; no points for other kinds."""
    return [(p.pressure_bar, p.grip_n) for p in row.chart.all()] if isinstance(row, models.Chuck) else []


def links_of(row: models.Item) -> dict[str, Any]:
    """What the item belongs to: a chuck's machine by key, a blank's chucks by key."""
    match row:
        case models.Chuck():
            return {"machine": row.machine.key}
        case models.JawBlank():
            return {"chucks": sorted(c.key for c in row.chucks.all())}
    return {}
