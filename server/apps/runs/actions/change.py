"""One change of a run, tried in memory and then kept: what every action on a plan shares."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import chain
from typing import Any
from uuid import UUID

from calc.errors import CalcError
from calc.identity import Identities, ids_in
from calc.plan.compute import PlanResult
from calc.plan.edits import Change
from calc.plan.entry import PUT_AWAY, resolve
from calc.plan.standing import standing_of
from server.apps.gauge.queries import today
from server.apps.runs.actions.asked import Asked
from server.apps.runs.convert import rows
from server.apps.runs.convert.rows import taken_by
from server.apps.runs.convert.standing import put_standing
from server.apps.runs.convert.words import label
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.edits import others_since
from server.apps.runs.queries.find import run_to_change
from server.apps.runs.queries.look import Sent
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import Computed, computed, plan, plan_of, problems_at
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot, Taken
from server.foundation.once import ANOTHER, was_sent
from server.foundation.problems import Conflict


@dataclass(frozen=True)
class Making:
    """What is to be at a path, or at several below it, as one edit; `typed` are the words that were given for it.

    `continues`: the edit that it carries on, with which it is undone.
    """

    path: str
    parts: tuple[Change, ...]
    typed: str = ""
    reverses: Edit | None = None
    how: str = "edit"
    continues: Edit | None = None

    @property
    def single(self) -> bool:
        """It changes what is at its path, and nothing else."""
        return len(self.parts) == 1 and self.parts[0].path == self.path


def at(path: str, new: Any, typed: str = "") -> Making:
    """One thing to be at a path."""
    return Making(path, (Change(path, new),), typed)


@dataclass(frozen=True)
class Done:
    """A part of a change made: what was there before."""

    path: str
    old: Any
    new: Any


@dataclass(frozen=True)
class Tried:
    """A run with one change made in memory; `before`: its document, `taken`: what its set-ups took from the shelf,
    `was`: the plan before, where it could be computed; `day`: the one that it was computed on.
    """

    run: Run
    making: Making
    label: str
    done: tuple[Done, ...]
    before: Any
    taken: dict[str, Taken]
    was: PlanResult | None
    result: PlanResult
    on_shelf: Snapshot
    day: str

    @property
    def gone(self) -> tuple[str, ...]:
        """Ids of items that the change takes out."""
        now = set(ids_in(self.run.document))
        return tuple(i for i in ids_in(self.before) if i not in now)

    @property
    def computed(self) -> Computed:
        """The plan that the change makes."""
        return Computed(self.run, self.result, self.on_shelf)


def ids_for(run: Run, key: UUID) -> Identities:
    """Ids for the items that a change puts in: none that is in the plan, and none that ever was."""
    return Identities(key, chain(ids_in(run.document), run.gone))


def try_change(run: Run, making: Making, on_shelf: Snapshot) -> Tried:
    """Make the change in memory and compute. Raises CalcError where the fact itself is refused.

    A value elsewhere that this change makes wrong stays; its stop is then stopped.
    """
    if run.put_away and making.path != PUT_AWAY:
        raise Conflict("This run is put away. Bring it back to the bench to change it.")
    day = today()
    was, taken = _before(run, on_shelf), {s.item: taken_by(s) for s in run.setups.all() if s.pk is not None}
    before, named, done = run.document, label(run, making.path, making.parts[0].new if making.single else None), []
    try:
        for part in making.parts:
            old = rows.current(run, part.path, part.new, on_shelf)
            rows.put(run, part.path, part.new, on_shelf)
            if old != part.new:
                done.append(Done(part.path, old, part.new))
    except KeyError as error:
        taken_out = others_since(run, making.path, 0)
        who = taken_out[-1].by.username if taken_out else "Somebody"
        raise Conflict(f"{who} took this out of the plan since you looked.", theirs="no longer there") from error
    try:
        result = computed(run, on_shelf, is_changed=True)
    except CalcError as error:  # the document contradicts itself: tell it at the edited fact if it can be
        raise CalcError(problems_at(error.errors, making.path) or error.errors) from error
    refused = [p for part in making.parts for p in problems_at(result.problems, part.path)] if making.single else []
    if refused:
        raise CalcError(refused)
    return Tried(run, making, named, tuple(done), before, taken, was, result, on_shelf, day)


def _before(run: Run, on_shelf: Snapshot) -> PlanResult | None:
    """The plan that is to be changed: nearly all of it is kept, and what moves is told against it."""
    try:
        return computed(run, on_shelf)
    except CalcError:
        return None


def sent_before(run: Run, asked: Asked) -> bool:
    """Whether this very change is kept already. Raises Conflict where its key was used for anything else."""
    if was_sent(asked.key, asked.person, asked.said):
        return True
    # Kept before keys were noted with what was said under them.
    earlier = Edit.objects.filter(key=asked.key).first()
    if earlier is not None and (earlier.run_id, earlier.by_id) != (run.pk, asked.person.pk):
        raise Conflict(ANOTHER)
    return earlier is not None


def _keeps_text(path: str) -> bool:
    try:
        return resolve(path).keeps_text
    except KeyError:
        return False


def _put_typed(run: Run, making: Making) -> str:
    """The text that was typed for what changes; gives the one of before. Texts of what changed go with it."""
    before = str(run.typed.get(making.path, ""))
    changed = [part.path for part in making.parts]
    run.typed = {p: t for p, t in run.typed.items() if not any(p == c or p.startswith(f"{c}.") for c in changed)}
    if making.single and making.typed and _keeps_text(making.path):
        run.typed[making.path] = making.typed
    return before


def keep(tried: Tried, asked: Asked) -> None:
    """Write a change that was tried: the facts, one history entry, and how the run stands now."""
    run, making = tried.run, tried.making
    if not tried.done:
        return
    run.revision += 1
    before = _put_typed(run, making)
    run.gone = [*run.gone, *(i for i in tried.gone if i not in run.gone)]
    moved = put_standing(run, standing_of(tried.result), tried.on_shelf, tried.day)
    for setup in run.setups.all():
        if setup.pk is None or tried.taken.get(setup.item) != taken_by(setup):
            setup.save()
    run.save()
    one = tried.done[0] if making.single else None
    Edit.objects.create(
        run=run,
        revision=run.revision,
        path=making.path,
        old=one.old if one else None,
        new=one.new if one else None,
        parts=[] if one else [[d.path, d.old, d.new] for d in tried.done],
        typed=making.typed[:200],
        typed_before=before,
        label=tried.label[:160],
        moved=moved,
        reverses=making.reverses,
        continues=making.continues,
        how=making.how,
        key=asked.key,
        by=asked.person,
    )


def kept(tried: Tried, asked: Asked) -> Sent:
    """Write a change that was tried, and give the plan that it makes."""
    keep(tried, asked)
    return plan_of(tried.computed, asked.look, asked.person, tried.was)


def change(run_id: int, path: str, asked: Asked, refused: str | None, make: Callable[[Run], Making]) -> Sent:
    """Make and keep one edit of what is at a path: the run locked, what is sent twice kept once.

    `refused` is what is told where `{who}` changed it since the base; without it, the change merges with whatever
    others do.
    """
    require_may_change(asked.person, path)
    # Locked while it is changed, so that two edits never take the same revision.
    run = run_to_change(run_id)
    if sent_before(run, asked):
        return plan(run, asked.look, asked.person)
    touched = others_since(run, path, asked.base_revision) if refused is not None else []
    if refused is not None and touched:
        raise Conflict(refused.format(who=touched[-1].by.username))
    return kept(try_change(run, make(run), shelf.current()), asked)
