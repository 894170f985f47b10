"""Coming in: whose name it is, how many wrong passwords there were, and how long one waits after them.

Wrong passwords are counted three ways: of one name from one address (8), from one address whatever the name (40), and
of one name from wherever (40), each within a quarter of an hour. Who is kept waiting is not counted on, so the wait
ends. A browser in which somebody has signed in before is counted by itself for that name: strangers who guess at a name
never keep its owner out there.
"""

from __future__ import annotations

import secrets
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from axes.handlers.proxy import AxesProxyHandler
from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth import user_login_failed
from django.contrib.auth.backends import ModelBackend
from django.core import signing
from django.db.models import Max, Q
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from server.foundation.models import Person

Credentials = dict[str, Any] | None  # as Django hands over what was given to sign in with
TOGETHER, ALONE = ["username", "ip_address"], ("ip_address", "username")
FIVEFOLD = 5  # what is counted more widely may be this much more
KNOWN_DAYS = 180
NAMES_MOST = 8  # that one browser is known for
SALT = "server.foundation.entering.known"


def one_name(name: str) -> str:
    """A name as all are compared: without case, and without blanks around it or double ones in it."""
    return " ".join(name.split()).casefold()


class ByName(ModelBackend):
    """Looks a person up by the name as all names are compared."""

    def authenticate(
        self,
        request: HttpRequest | None,  # noqa: ARG002 - Django's form of it
        username: str | None = None,
        password: str | None = None,
        **_: Any,
    ) -> Person | None:
        """The person whose name and password these are."""
        if username is None or password is None:
            return None
        person = Person.objects.filter(username__iexact=one_name(username)).first()
        if person is None:
            Person().set_password(password)  # as slow as with somebody: the time tells nothing
            return None
        return person if person.check_password(password) and self.user_can_authenticate(person) else None


def _known(request: HttpRequest) -> dict[str, str]:
    """The names that this browser is known for, each with the mark that tells it from others."""
    try:
        found = signing.loads(
            request.COOKIES.get(settings.KNOWN_COOKIE_NAME, ""), salt=SALT, max_age=KNOWN_DAYS * 86_400
        )
    except signing.BadSignature:
        return {}
    return found if isinstance(found, dict) else {}


def make_known(request: HttpRequest, response: HttpResponse, name: str) -> None:
    """Let this browser be known for a name that signed in here."""
    known, folded = _known(request), one_name(name)
    mark = known.pop(folded, "") or secrets.token_urlsafe(9)
    known = dict([*known.items(), (folded, mark)][-NAMES_MOST:])
    response.set_cookie(
        settings.KNOWN_COOKIE_NAME,
        signing.dumps(known, salt=SALT),
        max_age=KNOWN_DAYS * 86_400,
        httponly=True,
        samesite="Strict",
        secure=settings.SESSION_COOKIE_SECURE,
        path="/api/session",
    )


def _name(credentials: Credentials) -> str:
    return one_name(str((credentials or {}).get("username") or "").replace("\x00", ""))


def _mark(request: Any, credentials: Credentials) -> str:
    """The mark of a browser that is known for the name, else ""."""
    return _known(request).get(_name(credentials), "") if isinstance(request, HttpRequest) else ""


def counted_as(request: HttpRequest, credentials: Credentials) -> str:
    """Under what wrong passwords are counted: the name, in a browser that is known for it with the browser's mark."""
    return f"{_name(credentials)[:200]} {_mark(request, credentials)}".strip()


def counted_by(request_or_attempt: Any, credentials: Credentials = None) -> list[str | list[str]]:
    """What is counted together: see the head of this module."""
    return ["username"] if _mark(request_or_attempt, credentials) else [TOGETHER, *ALONE]


class Counting(AxesDatabaseHandler):  # type: ignore[misc] # axes has no types
    """Counts as axes does, with room for more where more is counted together."""

    def get_failures(self, request: HttpRequest, credentials: Credentials = None) -> int:
        """How many there were, in the measure of the least limit."""
        by = counted_by(request, credentials)
        rooms = [1 if one == TOGETHER or len(by) == 1 else FIVEFOLD for one in by]
        found = zip(rooms, self.get_user_attempts(request, credentials), strict=True)
        return max(int(sum(rows.values_list("failures_since_start", flat=True))) // room for room, rows in found)

    def reset_user_attempts(self, request: HttpRequest, credentials: Credentials = None) -> int:
        """Forget what was counted of this name here, and of nobody else: who has an account must not clear the way
        for guesses at other names.
        """
        name = counted_as(request, credentials)
        here = request.axes_ip_address  # type: ignore[attr-defined]
        gone, _ = AccessAttempt.objects.filter(username=name, ip_address=here).delete()
        return int(gone)


def _of(person: Person) -> Any:
    name = one_name(person.username)
    return AccessAttempt.objects.filter(Q(username=name) | Q(username__startswith=f"{name} "))


def lift(person: Person) -> bool:
    """Let somebody try again at once; gives whether there was anything to forget."""
    return bool(_of(person).delete()[0])


def is_resting(person: Person) -> bool:
    """Whether wrong passwords keep somebody of this name waiting somewhere."""
    since = timezone.now() - settings.AXES_COOLOFF_TIME
    most = _of(person).filter(attempt_time__gte=since).aggregate(Max("failures_since_start"))
    return (most["failures_since_start__max"] or 0) >= settings.AXES_FAILURE_LIMIT


def may_try(request: HttpRequest, name: str) -> bool:
    """Whether a password of this name is looked at here, or too many were wrong."""
    return bool(AxesProxyHandler.is_allowed(request, {"username": name}))


def count_wrong(request: HttpRequest, person: Person) -> None:
    """Count a wrong password that was given elsewhere than at signing in."""
    user_login_failed.send(__name__, credentials={"username": person.username}, request=request)
