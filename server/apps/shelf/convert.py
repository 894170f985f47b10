"""Shelf rows as the core's values."""

from __future__ import annotations

import dataclasses
from typing import Any

from calc.chuck.grip import ChartPoint as CorePoint
from calc.chuck.grip import ChuckForce
from calc.plan import shelf as core
from server.apps.shelf import models


def _same(kind: type[Any], row: Any, **more: Any) -> Any:
    """The value whose fields the row has under the same names."""
    names = [f.name for f in dataclasses.fields(kind) if f.name not in more]
    return kind(**{n: getattr(row, n) for n in names}, **more)


def machine(row: models.Machine) -> core.Machine:
    """A machine."""
    return _same(core.Machine, row)  # type: ignore[no-any-return]


def material(row: models.Material) -> core.Material:
    """A material."""
    return _same(core.Material, row)  # type: ignore[no-any-return]


def blank(row: models.JawBlank) -> core.JawBlank:
    """A jaw blank."""
    return _same(core.JawBlank, row)  # type: ignore[no-any-return]


def chuck(row: models.Chuck) -> core.Chuck:
    """A chuck with its chart."""
    points = tuple(CorePoint(p.pressure_bar, p.grip_n) for p in row.chart.all())
    force = _same(ChuckForce, row, chart=points)
    return _same(core.Chuck, row, force=force)  # type: ignore[no-any-return]
