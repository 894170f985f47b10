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
