"""Runs as they stand: what is kept of that where it still holds, else computed."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from server.apps.runs.convert.standing import stand_today
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot

TRIES = 5  # of reading runs and shelf in one moment of a shelf that is being changed


def as_they_stand(read: Callable[[], Iterable[Run]]) -> tuple[list[Run], Snapshot]:
    """Runs as they stand today, with the shelf that they stand on; both of one moment, and nothing is saved."""
    for _ in range(TRIES):
        before, runs, on_shelf = shelf.token(), list(read()), shelf.current()
        if on_shelf.token == before:
            break
    for run in runs:
        stand_today(run, on_shelf)
    return runs, on_shelf
