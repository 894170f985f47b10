"""Wire shapes of the session and of problems."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Field, Schema
from pydantic import BaseModel

Units = Literal["metric", "inch"]
Role = Literal["owner", "planner", "setter", "operator"]


class SessionOut(Schema):
    """Who is signed in. `may_look_as`: the demo lets a visitor on this machine take any role."""

    name: str
    role: Role
    demo: bool
    may_look_as: bool


class SignIn(Schema):
    """What a person types to sign in."""

    username: str = Field(max_length=200)
    password: str = Field(max_length=200)


class LookAs(Schema):
    """The role to look as, in the demo."""

    role: Role


class OwnPassword(Schema):
    """A change of one's own password."""

    old: str = Field(max_length=200)
    new: str = Field(max_length=200)


class PersonOut(Schema):
    """Somebody who may sign in."""

    id: int
    username: str
    role: Role
    active: bool
    has_password: bool


class NewPerson(Schema):
    """Somebody to add."""

    username: str = Field(max_length=200)
    role: Role = "operator"
    password: str = Field(max_length=200)


class PersonChange(Schema):
    """What changes about somebody; what is left out stays."""

    role: Role | None = None
    active: bool | None = None
    password: str | None = Field(default=None, max_length=200)


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
