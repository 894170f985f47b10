"""The house rules over HTTP."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.http import HttpRequest
from ninja import Field, Router, Schema

from server.apps.house import queries
from server.apps.house.actions import change_rules
from server.foundation.roles import PLANS, has_role
from server.foundation.schemas import Problem

router = Router(tags=["house rules"])


class ChangedOut(Schema):
    """Who changed a rule, when and why."""

    number: int
    by: str
    at: datetime
    reason: str


class RuleOption(Schema):
    """One of a few answers."""

    value: str
    label: str


class RuleOut(Schema):
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


class RulesOut(Schema):
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


@router.get("/rules", response={200: RulesOut, 401: Problem}, operation_id="houseRules")
def house_rules(request: HttpRequest) -> dict[str, Any]:
    """The house rules with their history."""
    return queries.page(may_edit=has_role(request.user, PLANS))


@router.post(
    "/rules",
    response={200: RulesOut, 400: Problem, 401: Problem, 403: Problem, 409: Problem, 422: Problem},
    operation_id="changeRules",
)
def change(request: HttpRequest, given: RulesIn) -> dict[str, Any]:
    """Change house rules: plans keep the rules they were computed under until they take these."""
    return change_rules(given.values, given.reason, given.base_number, request.user)
