"""What a visitor is told while the database does not answer."""

from __future__ import annotations

from django.db import OperationalError
from django.http import HttpRequest, HttpResponse
from django.utils.deprecation import MiddlewareMixin

SENTENCE = "The database does not answer just now. Nothing is lost: wait a moment, then load the page again."


class DatabaseAway(MiddlewareMixin):
    """Answers the page with a sentence instead of a failure; the API has its own words for it."""

    def process_exception(self, _: HttpRequest, error: Exception) -> HttpResponse | None:
        """503 for an operational error of the database; anything else goes its way."""
        if not isinstance(error, OperationalError):
            return None
        return HttpResponse(
            SENTENCE, status=503, content_type="text/plain; charset=utf-8", headers={"Retry-After": "2"}
        )
