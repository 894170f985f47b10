"""Wire shapes of the session and of problems."""

from __future__ import annotations

from datetime import date, datetime
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
    resting: bool


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
    lift: bool | None = None
    end_sessions: bool | None = None


class TrailAsk(Schema):
    """Which entries: those before one of them, else the newest."""

    before: int | None = Field(default=None, ge=1, lt=2**63)


class TrailEntryOut(Schema):
    """Something that happened, in words: who, what, of what, from where."""

    id: int
    at: datetime
    what: str
    who: str
    words: str
    about: str
    address: str


class TrailOut(Schema):
    """Entries of the trail, the newest first; `more`: there are earlier ones."""

    entries: list[TrailEntryOut]
    more: bool


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
    asks: str | None = None


class NotedOut(BaseModel):
    """Something that was noted at a machine, in a line of the notebook: what of, when, by whom, where it stands."""

    kind: Literal["cut", "lesson", "edge", "reading", "coolant", "gauge", "jaws"]
    of: str
    words: str
    on: date
    by: str
    href: str
