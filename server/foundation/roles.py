"""Who may do what."""

from __future__ import annotations

from typing import Any

from server.foundation.models import Person
from server.foundation.problems import NotAllowed

Role = Person.Role
PLANS = (Role.OWNER, Role.PLANNER)
SETS = (*PLANS, Role.SETTER)


def has_role(person: Any, roles: tuple[Person.Role, ...]) -> bool:
    """Whether this is somebody with one of these roles."""
    return isinstance(person, Person) and person.role in roles


def require_planner(person: Any) -> Person:
    """The person, if they plan. Raises NotAllowed."""
    if not has_role(person, PLANS):
        raise NotAllowed("Only a planner changes this. Ask one, or sign in as one.")
    return person  # type: ignore[no-any-return]


def require_owner(person: Any) -> Person:
    """The person, if they are an owner. Raises NotAllowed."""
    if not has_role(person, (Role.OWNER,)):
        raise NotAllowed("Only an owner manages people. Ask one, or sign in as one.")
    return person  # type: ignore[no-any-return]
