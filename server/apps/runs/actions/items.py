"""Steps, sides, cuts and departures put into a plan, taken out, put at another place, split."""

from __future__ import annotations

from django.db import transaction

from calc.plan import edits
from calc.plan.lists import NewItem, list_at, new_item, refuse_taking_out
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, at, change, ids_for
from server.apps.runs.convert.document import document_of
from server.apps.runs.models import Run
from server.apps.runs.queries.look import Sent

CHANGED = "{who} changed these operations since you looked. Look again, then do it."


@transaction.atomic
def add_item(run_id: int, path: str, given: NewItem, asked: Asked) -> Sent:
    """Put a new item at the end of a list. It merges with whatever others do. Raises CalcError at the list."""

    def make(run: Run) -> Making:
        list_at(path)
        made = new_item(run.document, path, given, ids_for(run, asked.key))
        return at(f"{path}.{made['id']}", edits.put(made, edits.last_of(run.document, path)))

    return change(run_id, path, asked, None, make)


@transaction.atomic
def remove_item(run_id: int, path: str, asked: Asked) -> Sent:
    """Take an item out of its list. Raises Conflict where somebody changed it since the base."""
    refused = "{who} changed this since you looked. Look again, then take it out."

    def make(run: Run) -> Making:
        refuse_taking_out(run.document, path)
        return at(path, None)

    return change(run_id, path, asked, refused, make)


@transaction.atomic
def move(run_id: int, path: str, behind: str, asked: Asked) -> Sent:
    """Put an operation behind another. Raises CalcError at the list."""

    def make(run: Run) -> Making:
        moved = edits.move(run.document, path, behind)
        return at(moved.path, moved.new)

    return change(run_id, f"{path}.{edits.BEHIND}", asked, CHANGED, make)


@transaction.atomic
def across(run_id: int, path: str, asked: Asked) -> Sent:
    """Do an operation from the other end, with what goes along, as one edit. Raises CalcError where it cannot go."""

    def make(run: Run) -> Making:
        return Making(path, tuple(edits.across(run.document, path)), "done on the other spindle")

    return change(run_id, path, asked, CHANGED, make)


@transaction.atomic
def split(run_id: int, path: str, asked: Asked) -> Sent:
    """Make roughing and finishing of one operation. Raises CalcError at the list."""

    def make(run: Run) -> Making:
        leave = document_of(run).in_force.finish_stock_mm
        return Making(path, tuple(edits.split(run.document, path, leave, ids_for(run, asked.key))), "split in two")

    return change(run_id, path, asked, CHANGED, make)
