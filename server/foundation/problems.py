"""Errors on the wire: application/problem+json (RFC 9457), with the field named where there is one."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpResponse

from calc.errors import CalcError
from calc.quantities import System

AGAIN = "A value needs another look"


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


class TooMany(Exception):
    """More is asked for at once than there is room for."""


def told(error: Exception, system: System) -> dict[str, Any] | None:
    """What a person is told of an error: status, title, and fields where it is of fields; None for any other."""
    match error:
        case CalcError():
            fields = [{"field": e.field, "message": e.sentence.text(system)} for e in error.errors]
            return {"status": 422, "title": AGAIN, "errors": fields}
        case BadValue():
            return {"status": 422, "title": AGAIN, "errors": [{"field": error.field, "message": error.message}]}
        case NotAllowed():
            return {"status": 403, "title": str(error)}
        case NotFound():
            return {"status": 404, "title": str(error)}
        case Conflict():
            return {"status": 409, "title": str(error), **error.details}
        case TooMany():
            return {"status": 429, "title": str(error)}
    return None


def problem(status: int, title: str, **details: Any) -> HttpResponse:
    """A problem document."""
    body = {"type": "about:blank", "status": status, "title": title} | details
    # Escaped, because what a person sent is quoted back, and that may be no valid text at all.
    return HttpResponse(json.dumps(body), status=status, content_type="application/problem+json")
