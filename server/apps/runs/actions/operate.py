"""Whole operations at once: proposed from the profile, taken from the notebook."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db import transaction

from calc.plan import edits
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.reading import write
from server.apps.notebook import queries as notebook
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, at, change, ids_for
from server.apps.runs.actions.items import CHANGED
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.plan import place_of_setup
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict


def cuts_path(setup: str) -> str:
    """The list of a set-up's operations."""
    return f"setups.{setup}.cuts"


def _proposed(run: Run, setup: str, asked: Asked) -> list[Any]:
    """A side's operations as the profile proposes them, plain data. Raises Conflict while the part is not complete."""
    document = document_of(run)
    index = place_of_setup(document, setup)
    taken = shelf_of(run, shelf.current())
    figures = solve(document, taken, index)
    part, sides = figures[PART], figures[SIDES]
    if part is None or sides is None:
        raise Conflict("Operations are proposed from the part: complete Part and Sides first.")
    ids = ids_for(run, asked.key)
    made = propose(side_of(document, part, sides.first, index, taken.tools, notebook.proven_of()))
    return [write(c) | {"id": ids.new()} for c in made]


@transaction.atomic
def take_proposal(run_id: int, setup: str, asked: Asked) -> Sent:
    """Put the proposed operations in place of the side's own, as one edit."""
    path = cuts_path(setup)
    return change(run_id, path, asked, CHANGED, lambda run: at(path, _proposed(run, setup, asked)))


@transaction.atomic
def take_figures(run_id: int, path: str, figures: Mapping[str, Any], asked: Asked) -> Sent:
    """Put a proven cut's figures into an operation, as one edit."""

    def make(run: Run) -> Making:
        return Making(path, tuple(edits.with_figures(run.document, path, dict(figures))), "as proven before")

    return change(run_id, path, asked, CHANGED, make)
