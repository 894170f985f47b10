"""Whole operations at once: proposed from the profile, put in another order, split, settled."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.plan.document import Document
from calc.plan.order import moved_item, split_item, with_figures
from calc.plan.solve import solve
from calc.quantities import System
from calc.reading import write
from calc.route.propose import propose, side_of
from calc.settle.operation import Settled, settle_operation
from calc.settle.setup import settle_setup
from server.apps.notebook import queries as notebook
from server.apps.runs import convert, queries
from server.apps.runs.actions.change import Change, keep, others_since, sent_before, try_change
from server.apps.runs.models import Run
from server.apps.runs.paths import require_may_change
from server.apps.shelf import queries as shelf
from server.foundation.problems import Conflict, NotFound


@dataclass(frozen=True)
class Asked:
    """Who asks, in which units, with which key, having looked at which draft."""

    person: Any
    system: System
    key: UUID
    base_revision: int


def cuts_path(index: int) -> str:
    """The list of a set-up's operations."""
    return f"setups.{index}.cuts"


def _require_side(document: Document, index: int) -> None:
    if not 0 <= index < len(document.setups):
        raise NotFound("There is no such side in this plan.")


def _change(run_id: int, path: str, asked: Asked, make: Any) -> dict[str, Any]:
    """Lock, refuse what somebody changed since, make the new value and keep it as one edit."""
    require_may_change(asked.person, path)
    run = queries.run_by_id(run_id, lock=True)
    if sent_before(run, asked.key):
        return queries.plan(run, asked.system, asked.person)
    if others_since(run, path, asked.base_revision):
        raise Conflict("Somebody changed these operations since you looked. Look again, then do it.")
    tried = try_change(run, Change(path, make(run)), shelf.current())
    keep(tried, asked.key, asked.person)
    return queries.plan_of(run, tried.result, tried.on_shelf, asked.system, asked.person)


def proposed(run: Run, index: int) -> list[Any]:
    """A side's operations as the profile proposes them, plain data.

    Raises Conflict while Part or Sides are not complete.
    """
    document, on_shelf = convert.document_of(run), shelf.current()
    _require_side(document, index)
    taken = convert.shelf_of(run, on_shelf)
    figures = solve(document, taken, index)
    part, sides = figures.part.value, figures.sides.value
    if part is None or sides is None:
        raise Conflict("Operations are proposed from the part: complete Part and Sides first.")
    return [write(c) for c in propose(side_of(document, part, sides.first, index, taken.tools, notebook.proven_of()))]


@transaction.atomic
def take_proposal(run_id: int, index: int, asked: Asked) -> dict[str, Any]:
    """Put the proposed operations in place of the side's own, as one edit."""
    return _change(run_id, cuts_path(index), asked, lambda run: proposed(run, index))


@transaction.atomic
def move(run_id: int, path: str, index: int, to: int, asked: Asked) -> dict[str, Any]:
    """Put an operation at another place. Raises CalcError at the list."""
    return _change(run_id, path, asked, lambda run: moved_item(run.document, path, index, to))


@transaction.atomic
def split(run_id: int, path: str, index: int, asked: Asked) -> dict[str, Any]:
    """Make roughing and finishing of one operation. Raises CalcError at the list."""
    return _change(
        run_id,
        path,
        asked,
        lambda run: split_item(run.document, path, index, convert.document_of(run).in_force.finish_stock_mm),
    )


@transaction.atomic
def take_figures(run_id: int, index: int, cut: int, figures: dict[str, Any], asked: Asked) -> dict[str, Any]:
    """Put a proven cut's figures into an operation, as one edit."""
    path = cuts_path(index)
    return _change(run_id, path, asked, lambda run: with_figures(run.document, path, cut, figures))


@dataclass(frozen=True)
class Settlement:
    """What settling found: the value for the path that it changes, the cuts, and the whole in words."""

    path: str
    new: Any
    cuts: tuple[Settled, ...]
    words: str


def _settlement(run: Run, index: int, cut: int | None, system: System) -> Settlement:
    document, taken = convert.document_of(run), convert.shelf_of(run, shelf.current())
    _require_side(document, index)
    if cut is not None:
        one = settle_operation(document, taken, index, cut)
        items = [write(one.planned) if i == cut else write(c) for i, c in enumerate(document.setups[index].cuts)]
        return Settlement(cuts_path(index), items, (one,), one.words.text(system))
    whole = settle_setup(document, taken, index)
    return Settlement("setups", [write(s) for s in whole.document.setups], whole.cuts, whole.words.text(system))


def settle(run_id: int, index: int, cut: int | None, system: System, person: Any) -> dict[str, Any]:
    """What settling would do; nothing is kept. Raises CalcError where no figures keep every limit."""
    require_may_change(person, cuts_path(index))
    run = queries.run_by_id(run_id)
    return settled_view(run.revision, _settlement(run, index, cut, system), system)


def settled_view(revision: int, found: Settlement, system: System) -> dict[str, Any]:
    """A settlement as it is sent."""
    return {
        "revision": revision,
        "words": found.words,
        "cuts": [
            {
                "index": c.index,
                "name": c.name,
                "words": c.words.text(system),
                "before": round(c.minutes_before, 3),
                "after": round(c.minutes, 3),
                "binds": c.binds.name if c.binds else "",
                "without": round(c.binds.minutes, 3) if c.binds and c.binds.minutes else None,
                "then": c.then.name if c.then else "",
                "gives_up": list(c.gives_up),
                "tried": c.tried,
            }
            for c in found.cuts
        ],
    }


@transaction.atomic
def take_settled(run_id: int, index: int, cut: int | None, asked: Asked) -> dict[str, Any]:
    """Settle and keep it, as one edit."""
    path = cuts_path(index) if cut is not None else "setups"
    return _change(run_id, path, asked, lambda run: _settlement(run, index, cut, asked.system).new)
