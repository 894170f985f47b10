"""Which run is on a machine now."""

from __future__ import annotations

from typing import Any

from server.apps.runs.models import Run


def run_at(machine: str) -> Any:
    """The run that is proved or running on a machine by its name, the one that came there last; None where none is."""
    found = Run.objects.filter(machine__name=machine, put_away=False, place__in=("proving", "running"))
    return found.order_by("-placed_at").first()
