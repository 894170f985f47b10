"""The house rules and the shop's calendar over HTTP."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from server.apps.house import queries
from server.apps.house.actions import change_calendar, change_rules
from server.apps.house.schemas import CalendarIn, CalendarOut, RulesIn, RulesOut
from server.foundation.roles import PLANS, has_role
from server.foundation.schemas import Problem

router = Router(tags=["house rules"])


@router.get("/rules", response={200: RulesOut, 401: Problem}, operation_id="houseRules")
def house_rules(request: HttpRequest) -> RulesOut:
    """The house rules with their history."""
    return queries.page(may_edit=has_role(request.user, PLANS))


@router.post(
    "/rules",
    response={200: RulesOut, 400: Problem, 401: Problem, 403: Problem, 409: Problem, 422: Problem},
    operation_id="changeRules",
)
def change(request: HttpRequest, given: RulesIn) -> RulesOut:
    """Change house rules: plans keep the rules they were computed under until they take these."""
    return change_rules(given.values, given.reason, given.base_number, request.user)


@router.get("/calendar", response={200: CalendarOut, 401: Problem}, operation_id="shopCalendar")
def shop_calendar(request: HttpRequest) -> CalendarOut:
    """When the shop works."""
    return queries.calendar_page(may_edit=has_role(request.user, PLANS))


@router.post(
    "/calendar",
    response={200: CalendarOut, 400: Problem, 401: Problem, 403: Problem, 409: Problem, 422: Problem},
    operation_id="changeCalendar",
)
def change_hours(request: HttpRequest, given: CalendarIn) -> CalendarOut:
    """Change when the shop works: it counts for every plan at once."""
    return change_calendar(given.values, given.file, given.base_number, request.user)
