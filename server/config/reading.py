"""Reading what a request brings: JSON that is text and figures, and nothing that no field could hold."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpRequest
from ninja.parser import Parser

DEEPEST = 24  # of lists and objects in each other; a run file has nine
DIGITS_MOST = 40
UNTYPABLE = "This holds a sign that no text has. Save it as plain text, then read it again."


class Unreadable(ValueError):
    """What a body cannot hold: where, and the sentence that says so."""

    def __init__(self, field: str, sentence: str) -> None:
        self.field, self.sentence = field, sentence
        super().__init__(sentence)


def _figure(text: str) -> float:
    if len(text) > DIGITS_MOST:
        raise Unreadable("", f"A figure has {len(text)} signs: give {DIGITS_MOST} at most.")
    return float(text)


def _whole(text: str) -> int:
    _figure(text)
    return int(text)


def _none(text: str) -> float:
    raise Unreadable("", f"{text} is no figure.")


def refuse_strange(value: Any, field: str = "", depth: int = 0) -> None:
    """Raise Unreadable for signs that no text has (NUL, halves of a character), and for what is nested too deep."""
    if depth > DEEPEST:
        raise Unreadable(field, "This is nested too deep.")
    match value:
        case str():
            if "\x00" in value or (not value.isascii() and any("\ud800" <= sign <= "\udfff" for sign in value)):
                raise Unreadable(field, UNTYPABLE)
        case dict():
            for name, one in value.items():
                refuse_strange(name, field, depth + 1)
                refuse_strange(one, f"{field}.{name}" if field else name, depth + 1)
        case list():
            for one in value:
                refuse_strange(one, field, depth + 1)


class Reader(Parser):
    """Reads bodies and addresses for the API. What it refuses is told by the request's `unreadable`."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body as plain data. Raises ValueError."""
        try:
            found = json.loads(request.body, parse_int=_whole, parse_float=_figure, parse_constant=_none)
            refuse_strange(found)
        except Unreadable as error:
            request.unreadable = error  # type: ignore[attr-defined]
            raise
        return found
