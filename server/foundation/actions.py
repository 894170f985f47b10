"""Changes to people."""

from __future__ import annotations

from typing import Any

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.utils import timezone

from server.foundation import entering, queries, trail
from server.foundation.models import Person, Shop
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_owner


def load_person(name: str, role: str) -> bool:
    """Add somebody who cannot sign in with a password; gives whether they were added now."""
    person, made = Person.objects.get_or_create(username=name, defaults={"role": role})
    if made:
        person.set_unusable_password()
        person.save()
    return made


@transaction.atomic
def begin_shop(kind: str) -> None:
    """Say for good what this database holds. Raises Conflict where that was said already."""
    if Shop.objects.select_for_update().exists():
        raise Conflict("A shop was begun here already.")
    Shop.objects.create(pk=1, kind=kind)
    trail.note("begun", about=f"a {kind} shop")


def checked_name(name: str) -> str:
    """A new person's name. Raises BadValue."""
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


def checked_password(password: str, person: Person) -> str:
    """A new password. Raises BadValue."""
    try:
        validate_password(password, person)
    except ValidationError as error:
        raise BadValue("password", " ".join(error.messages)) from error
    return password


@transaction.atomic
def add_person(given: dict[str, Any], by: Any) -> Person:
    """Add somebody who may sign in. Raises NotAllowed or BadValue."""
    owner = require_owner(by)
    person = Person(username=checked_name(given["username"]), role=given["role"])
    person.set_password(checked_password(given["password"], person))
    try:
        with transaction.atomic():
            person.save()
    except IntegrityError:  # somebody else added the same at the same moment
        raise BadValue("username", f"“{person.username}” is taken; choose another name.") from None
    trail.note("person", owner, f"{person.username}, {person.role}")
    return person


@transaction.atomic
def change_person(person_id: int, given: dict[str, Any], by: Any) -> Person:
    """Give somebody another role or password, close or open their account, let them try to sign in again, or end their
    sessions. One owner stays always.
    """
    owner = require_owner(by)
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
    if role != person.role:
        trail.note("role", owner, f"{person.username}: {person.role}, now {role}")
    if active != person.is_active:
        trail.note("opened" if active else "closed", owner, person.username)
    person.role, person.is_active = role, active
    if given.get("password"):
        _new_password(person, given["password"], owner)
    if given.get("lift") and entering.lift(person):
        trail.note("lifted", owner, person.username)
    if given.get("end_sessions"):
        person.sign_outs += 1
        trail.note("everywhere", owner, person.username)
    person.save()
    return person


def _new_password(person: Person, password: str, by: Person) -> None:
    """Set a password: whoever had the one before is out, and whoever guessed at it no longer stands in the way."""
    person.set_password(checked_password(password, person))
    entering.lift(person)
    trail.note("password", by, person.username)


@transaction.atomic
def change_own_password(person: Person, new: str) -> Person:
    """Change one's own password; who it is was asked before. Raises BadValue."""
    _new_password(person, new, person)
    person.save()
    return person


@transaction.atomic
def sign_out_everywhere(person: Person) -> Person:
    """End every session of a person."""
    person.sign_outs += 1
    person.save(update_fields=["sign_outs"])
    trail.note("everywhere", person, person.username)
    return person


def tidy() -> None:
    """Let go of what is over: sessions that have ended, wrong passwords of long ago, the oldest of the trail."""
    Session.objects.filter(expire_date__lt=timezone.now()).delete()
    AccessAttempt.objects.filter(attempt_time__lt=timezone.now() - settings.AXES_COOLOFF_TIME).delete()
    trail.bound()
