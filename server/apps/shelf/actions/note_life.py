"""Note what happened to a jaw set: the set's figures follow, and its life keeps it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from django.db import transaction

from calc.errors import CalcError, FieldError
from calc.fields import Choice, Quantity, Spec, Text
from calc.quantities import Sentence
from calc.typed import typed_value
from server.apps.shelf.actions.learn import put_in
from server.apps.shelf.models import JawSet, JawSetEvent
from server.apps.shelf.queries.rows import row_by_key
from server.apps.shelf.queries.snapshot import hold_to_change
from server.apps.shelf.schemas import LifeIn
from server.foundation.models import Person
from server.foundation.roles import require_setter

WHAT = Choice(
    "What happened",
    {
        "recut": "re-cut",
        "refit": "refitted",
        "lent": "lent",
        "back": "came back",
        "damaged": "damaged",
        "bored": "bored anew",
    },
)
SIZE = Quantity("Bored to", "mm", "Diameter after it", above=0, high=2000)
REMOVAL = Quantity("Taken off, or mark", "mm", "Per side", low=0, high=20)
NOTE = Text("Note", "To whom, or what was seen", most=60)


@dataclass(frozen=True)
class Happened:
    """What happened, read: sizes in mm."""

    what: str
    size: float | None
    removal: float | None
    note: str | None


NEEDS = {"recut": ("size", "removal"), "bored": ("size",), "lent": ("note",), "damaged": ("removal",)}


def _read(given: LifeIn) -> Happened:
    specs: dict[str, Spec] = {"what": WHAT, "size": SIZE, "removal": REMOVAL, "note": NOTE}
    problems: list[FieldError] = []
    found: dict[str, Any] = {}
    for name, spec in specs.items():
        try:
            found[name] = typed_value(name, spec, getattr(given, name), nullable=name != "what", system=given.units)
        except CalcError as error:
            problems += error.errors
    for name in NEEDS.get(found.get("what", ""), ()):
        if found.get(name) is None and name not in {p.field for p in problems}:
            problems.append(FieldError(name, Sentence(f"{specs[name].label}: this is needed here.")))
    if problems:
        raise CalcError(problems)
    return Happened(**found)


def _after(row: JawSet, found: Happened) -> dict[str, Any]:
    """The set's fields that the event changes."""
    what, removal = found.what, found.removal or 0.0
    match what:
        case "recut" | "bored":
            if what == "recut" and removal > row.wall_left_mm + 1e-9:
                raise CalcError(
                    [FieldError("removal", Sentence("More than the wall that was left: look at both again."))]
                )
            return {
                "bored_mm": found.size,
                "wall_left_mm": max(0.0, row.wall_left_mm - removal),
                "damage_mm": 0.0,
                "lent_to": "",
            }
        case "lent":
            return {"lent_to": found.note}
        case "back":
            # Where it was mounted since stays told until it is cut again: coming back makes it no truer.
            return {}
        case "damaged":
            return {"damage_mm": max(row.damage_mm, removal)}
    return {}


@transaction.atomic
def note_life(key: str, given: LifeIn, person: Any) -> None:
    """Keep an event of a set's life, and what it makes of the set. Raises CalcError with every field to look at."""
    by: Person = require_setter(person)
    hold_to_change()
    row = row_by_key("jaw_set", key, lock=True)
    assert isinstance(row, JawSet)
    found = _read(given)
    after = _after(row, found)
    JawSetEvent.objects.create(
        jaw_set=row,
        what=found.what,
        on=date.today(),
        size_mm=found.size,
        removal_mm=found.removal,
        note=found.note or "",
        by=by,
    )
    put_in("jaw_set", row, after, by)
