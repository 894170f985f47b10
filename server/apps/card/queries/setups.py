"""What the last set-up of a part took, from the ticks of its card."""

from __future__ import annotations

from typing import Any

from calc.card.took import SetupTook, took
from calc.plan.route.run import Task
from calc.plan.route.solve import ROUTE
from calc.quantities import Figure, counted
from server.apps.card.convert import card_for
from server.apps.card.models import Mark
from server.apps.card.queries.cards import coolant_before
from server.apps.card.schemas import StepTookOut, TaskTookOut, TookOut
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.plan import computed
from server.apps.runs.queries.releases import released_before
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.roles import require_sees_drafts

TICKS = 2  # between which there is time
NONE_YET = "No card of this part was worked through yet: what its set-up takes is told here once one was."


def took_last(run_id: int, person: Any) -> TookOut:
    """Task by task, beside what is planned now. Raises NotFound, NotAllowed."""
    require_sees_drafts(person)
    run = run_by_id(run_id)
    route = computed(run, shelf.current()).views[0][ROUTE]
    tasks = route.run.tasks if route is not None else ()
    for release in released_before(run):
        marks = Mark.objects.filter(release=release.pk)
        if marks.count() < TICKS:
            continue
        try:
            card = card_for(release.key, coolant_before(run.machine_id))
        except NotFound:  # released before there were cards
            continue
        found = took(card, [(m.step, m.at.timestamp()) for m in marks], [t.key for t in tasks])
        return TookOut(told=_told(release, found), tasks=[_task(t, found) for t in tasks])
    return TookOut(told=NONE_YET, tasks=[])


def _told(release: Any, found: SetupTook) -> str:
    whole = sum(s.minutes or 0.0 for s in found.steps)
    told = f"Release {release.number} of {release.at:%-d %b %Y}: {_minutes(whole)} at its card"
    if found.paused_min:
        told += f", without {_minutes(found.paused_min)} in which nothing was ticked"
    return f"{told}, {counted(len(found.steps), 'step')} ticked."


def _task(task: Task, found: SetupTook) -> TaskTookOut:
    minutes = found.minutes(task.key)
    return TaskTookOut(
        task=task.words,
        planned=_minutes(task.minutes),
        took="" if minutes is None else _minutes(minutes),
        steps=[
            StepTookOut(title=s.step.title, minutes="" if s.minutes is None else _minutes(s.minutes))
            for s in found.steps
            if s.task == task.key
        ],
    )


def _minutes(minutes: float) -> str:
    return Figure(minutes, "min", places=(0, 0)).text("metric")
