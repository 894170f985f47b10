"""Wire shapes of the house rules."""

from __future__ import annotations

from datetime import datetime

from ninja import Field, Schema
from pydantic import BaseModel


class ChangedOut(BaseModel):
    """Who changed a rule, when and why."""

    number: int
    by: str
    at: datetime
    reason: str


class RuleOption(BaseModel):
    """One of a few answers."""

    value: str
    label: str


class RuleOut(BaseModel):
    """A rule: its meaning, what it is and what is usual."""

    name: str
    label: str
    help: str
    value: float | str
    unit: str
    text: str
    usual: str
    options: list[RuleOption] | None
    changed: ChangedOut | None


class ChangeOut(ChangedOut):
    """A revision of the rules and what it changed."""

    changes: list[str]


class RulesOut(BaseModel):
    """The page of the house rules."""

    number: int
    may_edit: bool
    rules: list[RuleOut]
    history: list[ChangeOut]


class RulesIn(Schema):
    """Changed rules, as typed, with the reason."""

    base_number: int = Field(ge=1, le=1_000_000)
    values: dict[str, str] = Field(max_length=60)
    reason: str = Field(max_length=200)


class CalendarFieldOut(BaseModel):
    """A line of the calendar: what it means, what it says, and what is usual."""

    name: str
    label: str
    help: str
    most: int
    text: str
    usual: str


class OffOut(BaseModel):
    """A stretch off that the calendar's file brings."""

    name: str
    begins: str
    ends: str


class CalendarOut(BaseModel):
    """When the shop works. `off` are the next of `off_count` stretches from its file."""

    number: int
    may_edit: bool
    fields: list[CalendarFieldOut]
    has_file: bool
    off: list[OffOut]
    off_count: int
    changed: str | None


class CalendarIn(Schema):
    """A changed calendar, as typed. `file`: iCalendar text; empty takes it out; None leaves it as it is."""

    base_number: int = Field(ge=1, le=1_000_000)
    values: dict[str, str] = Field(max_length=10)
    file: str | None = Field(default=None, max_length=1_000_000)
