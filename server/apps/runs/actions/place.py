"""Where a run stands at the machine, and how it goes there: moved by what happens there."""

from __future__ import annotations

from typing import Any, Literal

from django.utils import timezone

from calc.route.board import Really
from server.apps.runs.models import PLACES, Run

Place = Literal["planning", "ready", "setting", "proving", "running"]
ORDER = [name for name, _ in PLACES]


def moved_on(run_id: int, to: Place, person: Any) -> None:
    """Let a run stand at `to`, unless it has come further already; within the transaction that moves it."""
    run = Run.objects.select_for_update().only("place").get(pk=run_id)
    if ORDER.index(run.place) >= ORDER.index(to):
        return
    Run.objects.filter(pk=run_id).update(place=to, placed_at=timezone.now(), placed_by=person.username)


def goes(run_id: int, really: Really, said: str) -> None:
    """Keep how a run goes, for the board; `said`: how far it is, in words."""
    kept = {"began": really.began, "left_min": really.left_min, "at": really.at, "said": said}
    Run.objects.filter(pk=run_id).update(really=kept)
