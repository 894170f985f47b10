"""Take a half-profile from a DXF drawing into a plan: looked at first, then kept whole or not at all."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.plan.lists import as_lines
from calc.profile.dxf import Question, read_drawing
from calc.quantities import System
from calc.reading import write
from server.apps.runs import queries
from server.apps.runs.actions.change import Change, keep, others_since, sent_before, try_change
from server.apps.runs.paths import PROFILE, require_may_change
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict


@dataclass(frozen=True)
class Drawing:
    """A drawing as it was given: its text and file name, the layer and unit chosen for it."""

    text: str
    name: str
    layer: str | None
    unit: str | None


def look(run_id: int, drawing: Drawing, system: System, person: Any) -> dict[str, Any]:
    """What the drawing would make: questions first, else the lines of its steps. Nothing is kept."""
    require_may_change(person, PROFILE)
    queries.run_by_id(run_id)
    found = read_drawing(drawing.text, drawing.layer, drawing.unit)
    if isinstance(found, Question):
        return {"layers": list(found.layers), "units": list(found.units), "lines": {}, "notes": []}
    lines = {name: as_lines(write(getattr(found, name)), system) for name in ("outside", "inside", "inside_b")}
    return {"layers": [], "units": [], "lines": lines, "notes": [n.text(system) for n in found.notes]}


@transaction.atomic
def take(run_id: int, drawing: Drawing, base_revision: int, key: UUID, system: System, person: Any) -> dict[str, Any]:
    """Put the drawing's profile in place of the plan's, as one edit. Raises CalcError, Conflict."""
    planner = require_may_change(person, PROFILE)
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, key):
        return queries.plan(run, system, person)
    found = read_drawing(drawing.text, drawing.layer, drawing.unit)
    if isinstance(found, Question):
        raise Conflict("Choose the drawing's layer and unit first.")
    if others_since(run, PROFILE, base_revision):
        raise Conflict("Somebody changed the part's profile since you looked. Look again, then take the drawing.")
    value = {name: write(getattr(found, name)) for name in ("outside", "inside", "inside_b")}
    tried = try_change(run, Change(PROFILE, value, drawing.name), shelf.current())
    keep(tried, key, planner)
    return queries.plan_of(run, tried.result, tried.on_shelf, system, person)
