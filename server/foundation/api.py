"""Signing in, signing out, and who is here."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from ninja import Router, Status
from ninja.errors import HttpError
from ninja.utils import check_csrf

from server.foundation.models import Person
from server.foundation.problems import problem
from server.foundation.schemas import Problem, SessionOut, SignIn

router = Router(tags=["session"])


def _session(person: Any) -> SessionOut:
    assert isinstance(person, Person)
    name = person.get_full_name() or person.username
    return SessionOut.model_validate({"name": name, "role": person.role, "demo": settings.DEMO})


@router.get("/session", response={200: SessionOut, 401: Problem}, operation_id="whoIsHere")
def who_is_here(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request.user)


@router.post(
    "/session", response={200: SessionOut, 400: Problem, 401: Problem, 403: Problem, 422: Problem}, auth=None,
    operation_id="signIn",
)  # fmt: skip
def sign_in(request: HttpRequest, given: SignIn) -> SessionOut | HttpResponse:
    """Sign in with name and password."""
    if check_csrf(request) is not None:
        raise HttpError(403, "The page is too old: load it again and sign in.")
    if "\x00" in given.username or "\x00" in given.password:
        return problem(401, "Name and password do not fit together.")
    person = authenticate(request, username=given.username, password=given.password)
    if person is None:
        return problem(401, "Name and password do not fit together.")
    login(request, person)
    return _session(person)


@router.delete("/session", response={204: None, 401: Problem, 403: Problem}, operation_id="signOut")
def sign_out(request: HttpRequest) -> Status[None]:
    """Sign out."""
    logout(request)
    return Status(204, None)
