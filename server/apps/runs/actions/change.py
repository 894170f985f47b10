"""One change of a run, tried in memory and then kept: what every action on a plan shares."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import Q

from calc.errors import CalcError
from calc.plan.compute import PlanResult
from calc.plan.standing import standing_of
from server.apps.runs import facts, queries
from server.apps.runs.models import Edit, Run
from server.apps.runs.paths import OF_THE_RUN, PLAN, PUT_AWAY, rests_on
from server.apps.runs.standing import put_standing
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import Conflict


@dataclass(frozen=True)
class Change:
    """What is to be at a path, with the text that was typed for it."""

    path: str
    new: Any
    typed: str = ""
    reverses: Edit | None = None
    how: str = "edit"


@dataclass(frozen=True)
class Tried:
    """A run with one change made in memory."""

    run: Run
    change: Change
    label: str
    old: Any
    result: PlanResult
    on_shelf: Snapshot


def try_change(run: Run, change: Change, on_shelf: Snapshot) -> Tried:
    """Make the change in memory and compute. Raises CalcError where the fact itself is refused.

    A value elsewhere that this change makes wrong stays; its stop is then stopped.
    """
    if run.put_away and change.path != PUT_AWAY:
        raise Conflict("This run is put away. Bring it back to the bench to change it.")
    old = facts.current(run, change.path, on_shelf)
    named = facts.label(run, change.path)
    facts.put(run, change.path, change.new, on_shelf)
    try:
        result = queries.computed(run, on_shelf)
    except CalcError as error:  # the document contradicts itself: tell it at the edited fact if it can be
        raise CalcError(queries.problems_at(error.errors, change.path) or error.errors) from error
    refused = queries.problems_at(result.problems, change.path)
    if refused:
        raise CalcError(refused)
    return Tried(run, change, named, old, result, on_shelf)


def others_since(run: Run, path: str, base_revision: int) -> list[Edit]:
    """Edits after a revision that touch what is at the path, the oldest first."""
    touching = Q(path__in=rests_on(path)) | Q(path__startswith=path + ".")
    if path == PLAN:  # everything but what the run is called and where it stands
        touching = ~Q(path__in=OF_THE_RUN)
    return list(Edit.objects.filter(touching, run=run, revision__gt=base_revision).order_by("revision"))


def sent_before(run: Run, key: UUID) -> bool:
    """Whether this very change is kept already. Raises Conflict where its key was used for another run."""
    mine = Edit.objects.filter(key=key).first()
    if mine is not None and mine.run_id != run.pk:
        raise Conflict("This edit was already kept for another run.")
    return mine is not None


def keep(tried: Tried, key: UUID, by: Person) -> None:
    """Write a change that was tried: the fact, one history entry, and how the run stands now."""
    run, change = tried.run, tried.change
    if change.new == tried.old:
        return
    run.revision += 1
    before = run.typed.get(change.path, "")
    below = change.path + "."
    # Texts typed for items of a list that changed belong to no item any more.
    run.typed = {p: t for p, t in run.typed.items() if p != change.path and not p.startswith(below)}
    if change.typed and facts.is_typed(change.path):
        run.typed[change.path] = change.typed
    moved = put_standing(run, standing_of(tried.result), tried.on_shelf)
    for setup in run.setups.all():
        setup.save()
    run.save()
    Edit.objects.create(
        run=run,
        revision=run.revision,
        path=change.path,
        old=tried.old,
        new=change.new,
        typed=change.typed,
        typed_before=before,
        label=tried.label[:160],
        moved=moved,
        reverses=change.reverses,
        how=change.how,
        key=key,
        by=by,
    )
