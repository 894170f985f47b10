"""Who may change what of a plan."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from calc.plan.entry import resolve
from server.foundation.models import Person
from server.foundation.problems import NotAllowed
from server.foundation.roles import PLANS, SETS, has_role


def _measured(path: str) -> bool:
    try:
        return resolve(path).measured
    except KeyError:
        return False


@lru_cache(maxsize=4096)
def role_may_change(role: str, path: str) -> bool:
    """Whether somebody of a role may change what is at the path: setters what is found out at the machine."""
    return role in (SETS if _measured(path) else PLANS)


def may_change(person: Any, path: str) -> bool:
    """Whether this person may change what is at the path."""
    return isinstance(person, Person) and role_may_change(person.role, path)


def require_may_change(person: Any, path: str) -> Any:
    """The person, where they may change what is at the path. Raises NotAllowed."""
    if may_change(person, path):
        return person
    if has_role(person, SETS):
        raise NotAllowed(
            "A setter changes the chuck's condition and what is measured at the machine. Ask a planner for the rest."
        )
    raise NotAllowed("Only a planner changes a plan. Ask one, or sign in as one.")
