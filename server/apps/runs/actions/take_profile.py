"""Take a half-profile from a DXF drawing into a plan: looked at first, then kept whole or not at all."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from calc.plan.entry import PROFILE
from calc.plan.lists import as_lines, with_known_ids
from calc.profile.dxf import DrawnProfile, Question, read_drawing
from calc.quantities import System
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, at, change, ids_for
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.schemas import DrawingOut
from server.foundation.problems import Conflict

LISTS = ("outside", "inside", "inside_b")


@dataclass(frozen=True)
class Drawing:
    """A drawing as it was given: its text and file name, the layer and unit chosen for it."""

    text: str
    name: str
    layer: str | None
    unit: str | None

    def read(self) -> DrawnProfile | Question:
        """What is on it, or what must be chosen first."""
        return read_drawing(self.text, self.layer, self.unit)


def look(run_id: int, drawing: Drawing, system: System, person: Any) -> DrawingOut:
    """What the drawing would make: questions first, else the lines of its steps. Nothing is kept."""
    require_may_change(person, PROFILE)
    run_by_id(run_id)
    found = drawing.read()
    if isinstance(found, Question):
        return DrawingOut(layers=list(found.layers), units=list(found.units), lines={}, notes=[])
    lines = {name: as_lines(getattr(found, name), system) for name in LISTS}
    return DrawingOut(layers=[], units=[], lines=lines, notes=[n.text(system) for n in found.notes])


@transaction.atomic
def take(run_id: int, drawing: Drawing, asked: Asked) -> Sent:
    """Put the drawing's profile in place of the plan's, as one edit. Raises CalcError, Conflict."""
    refused = "{who} changed the part's profile since you looked. Look again, then take the drawing."

    def make(run: Run) -> Making:
        found = drawing.read()
        if isinstance(found, Question):
            raise Conflict("Choose the drawing's layer and unit first.")
        before, ids = run.document["part"]["profile"], ids_for(run, asked.key)
        new = {name: with_known_ids(before[name], list(getattr(found, name)), ids) for name in LISTS}
        return at(PROFILE, new, drawing.name)

    return change(run_id, PROFILE, asked, refused, make)
