"""Runs follow the shelf: what a change there moves on the bench, and writing how runs stand after it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from django.db import transaction
from django.db.models import QuerySet

from calc.plan.standing import Standing, moved, standing
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.convert.standing import put_standing
from server.apps.runs.models import Run
from server.apps.runs.queries.find import runs as every_run
from server.apps.runs.queries.find import runs_that_take
from server.apps.shelf.queries import Snapshot, current

CHUNK = 200
WRITTEN = ["standing", "attention", "words"]


@dataclass(frozen=True)
class Effect:
    """A run that a change of the shelf moves: figures and verdict as [before, after]."""

    run: Run
    headlines: dict[str, list[float | None]]
    verdict: tuple[str, str]


def _stand(runs: Iterable[Run], on_shelf: Snapshot) -> Iterator[tuple[Run, Standing]]:
    for run in runs:
        yield run, standing(document_of(run), shelf_of(run, on_shelf))


def effects(kind: str, item_id: int, after: Snapshot, tell: Callable[[int, int], None]) -> tuple[list[Effect], int]:
    """(runs on the bench that the changed shelf would move, how many take this item). Nothing is written.

    `tell` is told how many of them were looked at.
    """
    runs = list(runs_that_take(kind, item_id).filter(put_away=False))
    found = []
    for place, (run, now) in enumerate(_stand(runs, after)):
        tell(place, len(runs))
        before = run.standing
        headlines = moved(before["headlines"], now.headlines)
        if headlines or before["verdict"] != now.verdict:
            found.append(Effect(run, headlines, (before["verdict"], now.verdict)))
    return found, len(runs)


@transaction.atomic
def follow(kind: str | None = None, item_id: int | None = None) -> int:
    """Write again how runs stand: those that take an item, or all of them. Gives how many were looked at."""
    return follow_runs(every_run() if kind is None or item_id is None else runs_that_take(kind, item_id))


@transaction.atomic
def follow_runs(runs: QuerySet[Run]) -> int:
    """Write again how these runs stand; gives how many were looked at."""
    on_shelf = current()
    chunk: list[Run] = []
    seen = 0
    for run, now in _stand(runs.iterator(chunk_size=CHUNK), on_shelf):
        put_standing(run, now, on_shelf)
        chunk.append(run)
        seen += 1
        if len(chunk) >= CHUNK:
            Run.objects.bulk_update(chunk, WRITTEN)
            chunk = []
    Run.objects.bulk_update(chunk, WRITTEN)
    return seen
