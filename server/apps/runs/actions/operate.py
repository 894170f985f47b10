"""Whole operations at once: proposed from the profile, taken from the notebook, settled."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from calc.plan import edits
from calc.plan.document import setup_path
from calc.plan.edits import Change, changed
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.propose.operations import propose, side_of
from calc.quantities import System
from calc.reading import write
from calc.settle.operation import Settled, settle_operation
from calc.settle.setup import settle_setup
from server.apps.notebook import queries as notebook
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, at, change, ids_for
from server.apps.runs.actions.items import CHANGED
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import place_of_setup
from server.apps.runs.schemas import SettledCut, SettledOut
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


@dataclass(frozen=True)
class Settlement:
    """What settling found: what is to be changed, the cuts, and the whole in words."""

    making: Making
    cuts: tuple[Settled, ...]
    words: str


def _settled_path(setup: str, cut: str | None) -> str:
    return f"setups.{setup}" if cut is None else f"{cuts_path(setup)}.{cut}"


def _settlement(run: Run, setup: str, cut: str | None, system: System) -> Settlement:
    document, taken = document_of(run), shelf_of(run, shelf.current())
    index = place_of_setup(document, setup)
    path = _settled_path(setup, cut)
    parts: tuple[Change, ...]
    if cut is not None:
        one = settle_operation(document, taken, index, cut)
        before = next(c for c in document.setups[index].cuts if c.id == cut)
        parts = tuple(changed(write(before), write(one.planned), path))
        return Settlement(Making(path, parts, "settled"), (one,), one.words.text(system))
    whole = settle_setup(document, taken, index)
    parts = tuple(
        part
        for place, (old, new) in enumerate(zip(document.setups, whole.document.setups, strict=True))
        for part in changed(write(old), write(new), setup_path(document, place))
    )
    return Settlement(Making(path, parts, "settled"), whole.cuts, whole.words.text(system))


def settle(run_id: int, setup: str, cut: str | None, system: System, person: Any) -> SettledOut:
    """What settling would do; nothing is kept. Raises CalcError where no figures keep every limit."""
    require_may_change(person, cuts_path(setup))
    run = run_by_id(run_id)
    return settled_view(run.revision, _settlement(run, setup, cut, system), system)


def settled_view(revision: int, found: Settlement, system: System) -> SettledOut:
    """A settlement as it is sent."""
    return SettledOut(
        revision=revision,
        words=found.words,
        cuts=[
            SettledCut(
                id=c.id,
                name=c.name,
                words=c.words.text(system),
                before=round(c.minutes_before, 3),
                after=round(c.minutes, 3),
                binds=c.binds.name if c.binds else "",
                without=round(c.binds.minutes, 3) if c.binds and c.binds.minutes else None,
                then=c.then.name if c.then else "",
                gives_up=list(c.gives_up),
                tried=c.tried,
                figures=c.figures.text(system),
            )
            for c in found.cuts
        ],
    )


@transaction.atomic
def take_settled(run_id: int, setup: str, cut: str | None, asked: Asked) -> Sent:
    """Settle and keep it, as one edit."""
    path = _settled_path(setup, cut)
    return change(run_id, path, asked, CHANGED, lambda run: _settlement(run, setup, cut, asked.system).making)
