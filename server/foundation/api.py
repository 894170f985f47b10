"""Signing in and out, who is here, and the people who may sign in."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from ninja import Router, Status
from ninja.errors import HttpError
from ninja.utils import check_csrf

from server.foundation import actions, queries
from server.foundation.loopback import on_loopback
from server.foundation.models import Person
from server.foundation.problems import NotAllowed, problem
from server.foundation.roles import require_owner
from server.foundation.schemas import (
    LookAs,
    NewPerson,
    OwnPassword,
    PersonChange,
    PersonOut,
    Problem,
    SessionOut,
    SignIn,
)

router = Router(tags=["session"])
REFUSALS = {401: Problem, 403: Problem, 422: Problem}


def _session(request: HttpRequest, person: Any) -> SessionOut:
    assert isinstance(person, Person)
    name = person.get_full_name() or person.username
    may = settings.DEMO and on_loopback(request)
    return SessionOut.model_validate({"name": name, "role": person.role, "demo": settings.DEMO, "may_look_as": may})


@router.get("/session", response={200: SessionOut, 401: Problem}, operation_id="whoIsHere")
def who_is_here(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request, request.user)


@router.post(
    "/session", response={200: SessionOut, 400: Problem, 429: Problem, **REFUSALS}, auth=None, operation_id="signIn"
)
def sign_in(request: HttpRequest, given: SignIn) -> SessionOut | HttpResponse:
    """Sign in with name and password. After some wrong ones the name rests for a while."""
    if check_csrf(request) is not None:
        raise HttpError(403, "The page is too old: load it again and sign in.")
    if "\x00" in given.username or "\x00" in given.password:
        return problem(401, "Name and password do not fit together.")
    person = authenticate(request, username=given.username, password=given.password)
    if getattr(request, "axes_locked_out", False):
        minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
        return problem(429, f"Too many wrong passwords. Wait {minutes} minutes, or ask an owner for a new password.")
    if person is None:
        return problem(401, "Name and password do not fit together.")
    login(request, person)
    return _session(request, person)


@router.delete("/session", response={204: None, 401: Problem, 403: Problem}, operation_id="signOut")
def sign_out(request: HttpRequest) -> Status[None]:
    """Sign out."""
    logout(request)
    return Status(204, None)


@router.post("/session/look-as", response={200: SessionOut, 400: Problem, **REFUSALS}, operation_id="lookAs")
def look_as(request: HttpRequest, given: LookAs) -> SessionOut:
    """Look as another role: in the demo only, from this machine only."""
    person = queries.demo_person(given.role) if settings.DEMO and on_loopback(request) else None
    if person is None:
        raise NotAllowed("Only the demo lets you take another role, and only on its own machine.")
    login(request, person, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request, person)


@router.post("/session/password", response={204: None, 400: Problem, **REFUSALS}, operation_id="changeOwnPassword")
def change_own_password(request: HttpRequest, given: OwnPassword) -> Status[None]:
    """Change one's own password; one stays signed in here and nowhere else."""
    assert isinstance(request.user, Person)
    person = actions.change_own_password(request.user, given.old, given.new)
    update_session_auth_hash(request, person)
    return Status(204, None)


def _person(person: Person) -> PersonOut:
    return PersonOut.model_validate(
        {
            "id": person.pk,
            "username": person.username,
            "role": person.role,
            "active": person.is_active,
            "has_password": person.has_usable_password(),
        }
    )


@router.get("/people", response={200: list[PersonOut], 401: Problem, 403: Problem}, operation_id="people")
def people(request: HttpRequest) -> list[PersonOut]:
    """Everybody who may sign in; for owners."""
    require_owner(request.user)
    return [_person(p) for p in queries.people()]


@router.post("/people", response={201: PersonOut, 400: Problem, **REFUSALS}, operation_id="addPerson")
def add_person(request: HttpRequest, given: NewPerson) -> Status[PersonOut]:
    """Add somebody; for owners."""
    return Status(201, _person(actions.add_person(given.dict(), request.user)))


@router.patch(
    "/people/{int:person_id}",
    response={200: PersonOut, 400: Problem, 404: Problem, 409: Problem, **REFUSALS},
    operation_id="changePerson",
)
def change_person(request: HttpRequest, person_id: int, given: PersonChange) -> PersonOut:
    """Give somebody another role or password, or close their account; for owners."""
    return _person(actions.change_person(person_id, given.dict(), request.user))
