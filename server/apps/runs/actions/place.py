"""Where a run stands at the machine: moved by what happens there."""

from __future__ import annotations

from typing import Any, Literal

from django.utils import timezone

from server.apps.runs.models import PLACES, Run

Place = Literal["planning", "ready", "setting", "proving", "running"]
ORDER = [name for name, _ in PLACES]


def moved_on(run_id: int, to: Place, person: Any) -> None:
    """Let a run stand at `to`, unless it has come further already; within the transaction that moves it."""
    run = Run.objects.select_for_update().only("place").get(pk=run_id)
    if ORDER.index(run.place) >= ORDER.index(to):
        return
    Run.objects.filter(pk=run_id).update(place=to, placed_at=timezone.now(), placed_by=person.username)
