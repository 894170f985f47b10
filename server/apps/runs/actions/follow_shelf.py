"""Runs follow the shelf: what a change there moves on the bench, and writing how runs stand after it.

A change of the shelf only says, in its own transaction, that what is kept of the runs that take the item no longer
holds (`Run.stands_on`). Few are then written again at once; many by whoever has the time (server/config/chores.py), and
until then the bench computes those that it shows.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from django.db import transaction
from django.db.models import QuerySet

from calc.plan.standing import moved, standing
from server.apps.gauge.queries import today
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.convert.standing import stand_today
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_to_change, runs_that_take
from server.apps.runs.queries.find import runs as every_run
from server.apps.shelf.queries import Snapshot, current
from server.foundation.problems import NotFound

AT_ONCE = 8  # a second of computing is the most that everybody waits for
WRITTEN = ["standing", "attention", "words", "stands_on"]


@dataclass(frozen=True)
class Effect:
    """A run that a change of the shelf moves: figures and verdict as [before, after]."""

    run: Run
    headlines: dict[str, list[float | None]]
    verdict: tuple[str, str]


def effects(kind: str, item_id: int, after: Snapshot, tell: Callable[[int, int], None]) -> tuple[list[Effect], int]:
    """(runs on the bench that the changed shelf would move, how many take this item). Nothing is written.

    `tell` is told how many of them were looked at.
    """
    runs, on_shelf = list(runs_that_take(kind, item_id).filter(put_away=False)), current()
    found = []
    for place, run in enumerate(runs):
        tell(place, len(runs))
        stand_today(run, on_shelf)
        before, now = run.standing, standing(document_of(run), shelf_of(run, after))
        headlines = moved(before["headlines"], now.headlines)
        if headlines or before["verdict"] != now.verdict:
            found.append(Effect(run, headlines, (before["verdict"], now.verdict)))
    return found, len(runs)


def follow(kind: str, item_id: int) -> None:
    """Let the runs that take an item follow it; within the transaction that changes it."""
    follow_runs(runs_that_take(kind, item_id))


def follow_runs(runs: QuerySet[Run]) -> None:
    """Let these runs follow the shelf; within the transaction that changes it, which holds the shelf."""
    taking = list(runs.values_list("pk", flat=True)[: AT_ONCE + 1])
    runs.update(stands_on="")
    if len(taking) <= AT_ONCE:
        on_shelf = current()
        for run in every_run().filter(pk__in=taking):
            stand_today(run, on_shelf)
            run.save(update_fields=WRITTEN)


def follow_up(most: int) -> int:
    """Write again how runs stand whose standing no longer holds, each for itself; gives how many there were."""
    found = list(
        Run.objects.exclude(stands_on=today()).order_by("put_away", "-changed_at").values_list("pk", flat=True)[:most]
    )
    for pk in found:
        try:
            with transaction.atomic():
                run = run_to_change(pk)
                stand_today(run, current())
                run.save(update_fields=WRITTEN)
        except NotFound:  # taken off meanwhile
            continue
    return len(found)


def follow_all() -> int:
    """Write again how every run stands, as after a change of the rules that compute it; gives how many there are."""
    Run.objects.update(stands_on="")
    while follow_up(200):
        pass
    return Run.objects.count()
