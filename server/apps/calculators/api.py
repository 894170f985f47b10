"""Every calculator of the core over HTTP, one route each, under the core's own field names."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError

from calc.catalog import Calculator
from calc.describing import FieldTold, Json
from server.apps.calculators import queries
from server.apps.calculators.queries import all_calculators, input_schema
from server.apps.calculators.schemas import CalculatorAnswer, CalculatorAsked, CalculatorsShown, TakenListOut
from server.foundation.problems import NotFound
from server.foundation.schemas import Problem, Units

router = Router(tags=["calculators"])


class CalculatorOut(Schema):
    """A calculator and its declared fields."""

    name: str
    summary: str
    fields: list[FieldTold]


@router.get("/calc", response={200: list[CalculatorOut], 401: Problem}, operation_id="listCalculators")
def list_calculators(request: HttpRequest) -> list[Calculator]:
    """Every calculator with its fields, units and ranges."""
    return all_calculators()


def _body(request: HttpRequest) -> Any:
    try:
        return json.loads(request.body)
    except (json.JSONDecodeError, UnicodeDecodeError, RecursionError) as error:
        raise HttpError(400, "The request is not JSON.") from error


def _route(calculator: Calculator) -> Callable[[HttpRequest, Units], Json]:
    def calculate(request: HttpRequest, units: Units = "metric") -> Json:
        return calculator.answer(_body(request), units)

    calculate.__name__ = f"calc_{calculator.name.replace('-', '_')}"
    return calculate


for _calculator in all_calculators():
    _schema = {"required": True, "content": {"application/json": {"schema": input_schema(_calculator)}}}
    router.post(
        f"/calc/{_calculator.name}",
        response={200: Json, 400: Problem, 401: Problem, 403: Problem, 422: Problem},
        operation_id=f"calc-{_calculator.name}",
        summary=_calculator.summary,
        openapi_extra={"requestBody": _schema},
    )(_route(_calculator))


@router.post(
    "/calc/{name}",
    response={404: Problem, 401: Problem, 403: Problem},
    operation_id="noCalculator",
    include_in_schema=False,
)
def no_calculator(request: HttpRequest, name: str) -> None:
    """Any other name."""
    raise NotFound(f"There is no calculator “{name}”. GET /api/calc lists them.")


@router.get("/calculators", response={200: CalculatorsShown, 401: Problem}, operation_id="shownCalculators")
def list_shown(request: HttpRequest, units: Units = "metric") -> CalculatorsShown:
    """Every calculator in the order of the work, with the example that it opens with."""
    return queries.shown(units)


@router.post(
    "/calculators/{name}",
    response={200: CalculatorAnswer, 400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem},
    operation_id="askCalculator",
)
def ask_calculator(request: HttpRequest, name: str, given: CalculatorAsked) -> CalculatorAnswer:
    """An answer with its working and picture, and what was entered as it was read."""
    return queries.answer(name, given.given, given.units)


@router.get(
    "/calculators/{name}/from/{run_id}",
    response={200: TakenListOut, 401: Problem, 403: Problem, 404: Problem},
    operation_id="takeFromPlan",
)
def take_from_plan(request: HttpRequest, name: str, run_id: int) -> TakenListOut:
    """What a run's plan asked this calculator."""
    return queries.taken_from(name, run_id, request.user)
