"""Rows of the notebook as the core's values, and as lines to read."""

from __future__ import annotations

from datetime import date
from typing import Any

from calc.fields import Choice, Quantity, fields_of
from calc.notebook.proven import Proven
from calc.quantities import Figure, System
from server.apps.notebook.models import ProvenCut

FIELDS = {f.name: f for f in fields_of(Proven)}


def value(row: ProvenCut) -> Proven:
    """A proven cut."""
    given = {n: getattr(row, n) for n in FIELDS if n != "on"}
    return Proven(**given, on=row.on.isoformat() if row.on else "")


def columns(value: Proven) -> dict[str, Any]:
    """A proven cut as a row's columns."""
    return {n: getattr(value, n) for n in FIELDS if n != "on"} | {
        "on": date.fromisoformat(value.on) if value.on else None
    }


def words(value: Proven, system: System) -> dict[str, str]:
    """Every field as it is read, in the units asked for; empty where it was not noted."""
    said: dict[str, str] = {}
    for name, field in FIELDS.items():
        given, spec = getattr(value, name), field.spec
        match spec:
            case Quantity():
                said[name] = "" if given is None else Figure(given, spec.unit, exact=system == "metric").text(system)
            case Choice():
                said[name] = "" if given == "" else spec.options[given]
            case _:
                said[name] = given
    return said
