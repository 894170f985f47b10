"""Signing in and out, who is here, and the people who may sign in."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status
from ninja.errors import HttpError
from ninja.utils import check_csrf

from server.foundation import actions, entering, queries, trail
from server.foundation.loopback import on_loopback
from server.foundation.models import Person
from server.foundation.problems import BadValue, NotAllowed, problem
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
    TrailAsk,
    TrailEntryOut,
    TrailOut,
)

router = Router(tags=["session"])
REFUSALS = {401: Problem, 403: Problem, 422: Problem}


def _session(request: HttpRequest, person: Any) -> SessionOut:
    assert isinstance(person, Person)
    name = person.get_full_name() or person.username
    demo = queries.is_demo()
    may = demo and on_loopback(request)
    return SessionOut.model_validate({"name": name, "role": person.role, "demo": demo, "may_look_as": may})


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
    if not entering.may_try(request, given.username):
        return _wait()
    person = authenticate(request, username=given.username, password=given.password)
    if person is None:
        trail.note("refused", name=given.username)
        if entering.may_try(request, given.username):
            return problem(401, "Name and password do not fit together.")
        trail.note("resting", name=given.username)
        return _wait()
    login(request, person)
    trail.note("signed-in", person)
    answer = HttpResponse(_session(request, person).model_dump_json(), content_type="application/json")
    entering.make_known(request, answer, given.username)
    return answer


def _wait() -> HttpResponse:
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    return problem(429, f"Too many wrong passwords. Wait {minutes} minutes, or ask an owner to let you in again.")


@router.delete("/session", response={204: None, 401: Problem, 403: Problem}, operation_id="signOut")
def sign_out(request: HttpRequest) -> Status[None]:
    """Sign out."""
    trail.note("signed-out", request.user)
    logout(request)
    return Status(204, None)


@router.delete("/session/everywhere", response={204: None, **REFUSALS}, operation_id="signOutEverywhere")
def sign_out_everywhere(request: HttpRequest) -> Status[None]:
    """Sign out here and wherever else one is signed in."""
    assert isinstance(request.user, Person)
    actions.sign_out_everywhere(request.user)
    logout(request)
    return Status(204, None)


@router.post("/session/look-as", response={200: SessionOut, 400: Problem, **REFUSALS}, operation_id="lookAs")
def look_as(request: HttpRequest, given: LookAs) -> SessionOut:
    """Look as another role: in the demo only, from this machine only."""
    person = queries.demo_person(given.role) if queries.is_demo() and on_loopback(request) else None
    if person is None:
        raise NotAllowed("Only the demo lets you take another role, and only on its own machine.")
    login(request, person, backend="server.foundation.entering.ByName")
    return _session(request, person)


@router.post(
    "/session/password", response={204: None, 400: Problem, 429: Problem, **REFUSALS}, operation_id="changeOwnPassword"
)
def change_own_password(request: HttpRequest, given: OwnPassword) -> Status[None] | HttpResponse:
    """Change one's own password, knowing the one there is; one stays signed in here and nowhere else."""
    person = request.user
    assert isinstance(person, Person)
    if not entering.may_try(request, person.username):
        return _wait()
    if not person.check_password(given.old):
        entering.count_wrong(request, person)
        trail.note("refused", person, "the password there was, to change it")
        raise BadValue("old", "This is not your password as it is now.")
    update_session_auth_hash(request, actions.change_own_password(person, given.new))
    return Status(204, None)


def _person(person: Person) -> PersonOut:
    return PersonOut.model_validate(
        {
            "id": person.pk,
            "username": person.username,
            "role": person.role,
            "active": person.is_active,
            "has_password": person.has_usable_password(),
            "resting": entering.is_resting(person),
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
    """Give somebody another role or password, close their account, let them in again; for owners."""
    return _person(actions.change_person(person_id, given.dict(), request.user))


@router.get("/trail", response={200: TrailOut, 401: Problem, 403: Problem, 422: Problem}, operation_id="trail")
def read_trail(request: HttpRequest, asked: Query[TrailAsk]) -> TrailOut:
    """Who came in, who did not, and what was done to the shop's doors, rules and plans; for owners."""
    require_owner(request.user)
    rows = trail.entries(asked.before)
    found = [
        TrailEntryOut(
            id=row.pk,
            at=row.at,
            what=row.what,
            who=row.by.username if row.by else row.name,
            words=trail.WORDS.get(row.what, row.what),
            about=row.about,
            address=row.address,
        )
        for row in rows
    ]
    return TrailOut(entries=found, more=len(rows) == trail.SHOWN)
