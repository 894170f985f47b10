"""What a visitor is told while the database does not answer."""

from __future__ import annotations

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.utils.deprecation import MiddlewareMixin

SENTENCE = "The database does not answer just now. Nothing is lost: wait a moment, then load the page again."
AWAY = (OperationalError, InterfaceError)


def away() -> HttpResponse:
    """503, to be tried again."""
    return HttpResponse(SENTENCE, status=503, content_type="text/plain; charset=utf-8", headers={"Retry-After": "2"})


class DatabaseAway(MiddlewareMixin):
    """Answers the page with a sentence instead of a failure; the API has its own words for it."""

    def process_exception(self, _: HttpRequest, error: Exception) -> HttpResponse | None:
        """503 for a database that is away; anything else goes its way."""
        return away() if isinstance(error, AWAY) else None
