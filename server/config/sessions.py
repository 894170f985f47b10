"""Sessions that a late request does not end, and that end by themselves: after a shift, and when nobody is there."""

from __future__ import annotations

import time

from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.exceptions import SessionInterrupted
from django.contrib.sessions.middleware import SessionMiddleware
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers

from server.config.away import AWAY, away

SEEN_EVERY_S = 60  # a session is written at most this often for being used
BY_ITSELF = ("/pulse", "/done")  # what a screen asks though nobody does anything


class Sessions(SessionMiddleware):
    """Django's, which ends sessions in time. A request that comes with one which is gone leaves the browser's cookie
    alone.

    Whoever signs in anew or changes the password gets another session, while requests with the one before may still
    be on their way. Django answers those by deleting the cookie, and by then that is the new one: one was signed out.
    """

    def process_request(self, request: HttpRequest) -> HttpResponse | None:  # type: ignore[override] # Django allows it
        """Ends the session where it has lasted too long, or was not used for too long."""
        super().process_request(request)
        try:
            self._end_in_time(request)
        except AWAY:
            return away()
        return None

    def _end_in_time(self, request: HttpRequest) -> None:
        session = request.session
        if settings.SESSION_COOKIE_NAME not in request.COOKIES or SESSION_KEY not in session:
            return
        now = time.time()
        began, seen = session.get("began"), session.get("seen")
        if began is None or seen is None:
            session["began"], session["seen"] = began or now, now
        elif now - began > settings.SESSION_COOKIE_AGE or now - seen > settings.SESSION_IDLE_S:
            session.flush()
        elif now - seen > SEEN_EVERY_S and not request.path_info.endswith(BY_ITSELF):
            session["seen"] = now

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Deletes the cookie only where this very request emptied the session."""
        session = request.session
        if session.modified and SESSION_KEY in session and "began" not in session:
            session["began"] = session["seen"] = time.time()
        is_gone = settings.SESSION_COOKIE_NAME in request.COOKIES and session.is_empty() and not session.modified
        if is_gone:
            patch_vary_headers(response, ("Cookie",))
            return response
        try:
            return super().process_response(request, response)
        except SessionInterrupted:  # it was ended while this request was answered
            return response
        except AWAY:
            return away()
