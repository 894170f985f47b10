"""Reads of people."""

from __future__ import annotations

from server.foundation.models import Person

DEMO_PLANNER = "planner"


def demo_planner() -> Person | None:
    """The demo's planner, who exists only where the demo was loaded."""
    return Person.objects.filter(username=DEMO_PLANNER, is_active=True).first()
