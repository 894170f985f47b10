"""Sessions that a late request does not end."""

from __future__ import annotations

from django.conf import settings
from django.contrib.sessions.middleware import SessionMiddleware
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers


class Sessions(SessionMiddleware):
    """Django's, but a request that comes with a session which is gone leaves the browser's cookie alone.

    Whoever signs in anew or changes the password gets another session, while requests with the one before may still
    be on their way. Django answers those by deleting the cookie, and by then that is the new one: one was signed out.
    """

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Deletes the cookie only where this very request emptied the session."""
        session = request.session
        is_gone = settings.SESSION_COOKIE_NAME in request.COOKIES and session.is_empty() and not session.modified
        if is_gone:
            patch_vary_headers(response, ("Cookie",))
            return response
        return super().process_response(request, response)
