"""Changes to people."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction

from server.foundation import queries
from server.foundation.models import Person
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_owner


def load_person(name: str, role: str) -> bool:
    """Add somebody who cannot sign in with a password; gives whether they were added now."""
    person, made = Person.objects.get_or_create(username=name, defaults={"role": role})
    if made:
        person.set_unusable_password()
        person.save()
    return made


def _checked_name(name: str) -> str:
    said = " ".join(name.split())
    try:
        Person.username_validator(said)
    except ValidationError:
        raise BadValue("username", "Letters, figures and . @ + - _ only, without spaces.") from None
    if len(said) > 60:
        raise BadValue("username", "Give a name of up to 60 characters.")
    if Person.objects.filter(username__iexact=said).exists():
        raise BadValue("username", f"“{said}” is taken; choose another name.")
    return said


def _checked_password(password: str, person: Person | None = None) -> str:
    try:
        validate_password(password, person)
    except ValidationError as error:
        raise BadValue("password", " ".join(error.messages)) from error
    if "\x00" in password:
        raise BadValue("password", "This password has a sign in it that cannot be typed again.")
    return password


@transaction.atomic
def add_person(given: dict[str, Any], by: Any) -> Person:
    """Add somebody who may sign in. Raises NotAllowed or BadValue."""
    require_owner(by)
    person = Person(username=_checked_name(given["username"]), role=given["role"])
    person.set_password(_checked_password(given["password"], person))
    person.save()
    return person


@transaction.atomic
def change_person(person_id: int, given: dict[str, Any], by: Any) -> Person:
    """Give somebody another role or password, or close or open their account. One owner stays always."""
    require_owner(by)
    # All owners are held, so that two of them cannot take each other's role at once.
    owners = set(
        Person.objects.select_for_update()
        .filter(role="owner", is_active=True)
        .order_by("pk")
        .values_list("pk", flat=True)
    )
    person = queries.person_by_id(person_id)
    role, active = given.get("role") or person.role, given.get("active")
    active = person.is_active if active is None else active
    if owners == {person.pk} and (role != "owner" or not active):
        raise Conflict("This is the only owner. Make somebody else an owner first.")
    person.role, person.is_active = role, active
    if given.get("password"):
        person.set_password(_checked_password(given["password"], person))
    person.save()
    return person


@transaction.atomic
def change_own_password(person: Person, old: str, new: str) -> Person:
    """Change one's own password, knowing the old one. Raises BadValue."""
    if not person.check_password(old):
        raise BadValue("old", "This is not your password as it is now.")
    person.set_password(_checked_password(new, person))
    person.save()
    return person
