"""Who may do what."""

from __future__ import annotations

from typing import Any

from server.foundation.models import Person
from server.foundation.problems import NotAllowed

Role = Person.Role
PLANS = (Role.OWNER, Role.PLANNER)
SETS = (*PLANS, Role.SETTER)


AT_MACHINE = (Role.SETTER, Role.OPERATOR)


def has_role(person: Any, roles: tuple[Person.Role, ...]) -> bool:
    """Whether this is somebody with one of these roles."""
    return isinstance(person, Person) and person.role in roles


def sees_drafts(person: Any) -> bool:
    """Whether this is somebody who sees plans that are not released."""
    return has_role(person, SETS)


def require_sees_drafts(person: Any) -> None:
    """Raise NotAllowed for who sees only what is released."""
    if not sees_drafts(person):
        raise NotAllowed("Operators see what is released. Ask a setter or a planner for the rest.")


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


def require_setter(person: Any) -> Person:
    """The person, who may note what was found at the machine. Raises NotAllowed."""
    if not has_role(person, SETS):
        raise NotAllowed("Only a setter or a planner notes this. Ask one, or sign in as one.")
    return person  # type: ignore[no-any-return]


def may_mark(person: Any) -> bool:
    """Whether this is somebody who ticks steps and reads at the machine."""
    return has_role(person, AT_MACHINE)


def require_at_machine(person: Any) -> Person:
    """The person, if they work at the machine. Raises NotAllowed."""
    if not may_mark(person):
        raise NotAllowed("Setters and operators tick and read at the card. Sign in as one; you can watch it from here.")
    return person  # type: ignore[no-any-return]
