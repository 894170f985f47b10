"""Errors on the wire: application/problem+json (RFC 9457), with the field named where there is one."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpResponse


class NotAllowed(Exception):
    """The signed-in person may not do this."""


class BadValue(Exception):
    """A field and the sentence that says what to do about it, where no rule of the trade is concerned."""

    def __init__(self, field: str, message: str) -> None:
        self.field, self.message = field, message
        super().__init__(message)


class NotFound(Exception):
    """There is no such thing, or not for this person."""


class Conflict(Exception):
    """Somebody changed the same fact since; `details` hold both values."""

    def __init__(self, message: str, **details: Any) -> None:
        self.details = details
        super().__init__(message)


def problem(status: int, title: str, **details: Any) -> HttpResponse:
    """A problem document."""
    body = {"type": "about:blank", "status": status, "title": title} | details
    # Escaped, because what a person sent is quoted back, and that may be no valid text at all.
    return HttpResponse(json.dumps(body), status=status, content_type="application/problem+json")
