"""Wire shapes of the session and of problems."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Schema
from pydantic import BaseModel


class SessionOut(Schema):
    """Who is signed in."""

    name: str
    role: Literal["planner", "operator"]
    demo: bool


class SignIn(Schema):
    """What a person types to sign in."""

    username: str
    password: str


class FieldMessage(BaseModel):
    """One field and what to do about it."""

    field: str
    message: str


class Problem(Schema):
    """A problem document, RFC 9457."""

    type: str
    status: int
    title: str
    errors: list[FieldMessage] = []
    theirs: Any = None
    yours: Any = None
