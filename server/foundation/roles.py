"""Who may do what."""

from __future__ import annotations

from typing import Any

from server.foundation.models import Person
from server.foundation.problems import NotAllowed


def require_planner(person: Any) -> Person:
    """The person, if they plan. Raises NotAllowed."""
    if not isinstance(person, Person) or person.role != Person.Role.PLANNER:
        raise NotAllowed("Only a planner changes a plan. Ask one, or sign in as one.")
    return person
