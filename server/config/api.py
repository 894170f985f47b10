"""Assembly of the API: routers, the signed-in rule and the one place where errors become answers."""

from __future__ import annotations

import json
import logging
from copy import deepcopy
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import DataError, IntegrityError, InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import django_auth

from calc.errors import CalcError
from calc.quantities import System
from server.apps.calculators.api import router as calculators
from server.apps.card.api import router as card
from server.apps.gauge.api import router as gauge
from server.apps.house.api import router as house
from server.apps.notebook.api import router as notebook
from server.apps.practice.api import router as practice
from server.apps.questions.api import router as questions
from server.apps.questions.kind import every_kind
from server.apps.running.api import router as running
from server.apps.runs.api import router as runs
from server.apps.shelf.api import router as shelf
from server.config.reading import Reader, Unreadable
from server.foundation.api import router as session
from server.foundation.problems import AGAIN, BadValue, Conflict, NotAllowed, NotFound, TooMany, problem, told

PROBLEM = {
    "description": "Bad Request",
    "content": {"application/json": {"schema": {"$ref": "#/components/schemas/Problem"}}},
}
DISK_FULL = "53100"  # PostgreSQL's own number


class Api(NinjaAPI):
    """The API, whose document says what its refusals are: problems, not plain JSON."""

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> Any:
        """The document, with every problem under its own media type."""
        schema = super().get_openapi_schema(*args, **kwargs)
        for methods in schema["paths"].values():
            for operation in methods.values():
                # Any address may hold a sign that no text has (server/config/doors.py).
                operation["responses"].setdefault(400, deepcopy(PROBLEM))
                for status, answer in operation["responses"].items():
                    if int(status) >= 400 and "content" in answer:
                        answer["content"] = {"application/problem+json": answer["content"]["application/json"]}
        _describe_answers(schema["components"]["schemas"])
        for scheme in schema["components"]["securitySchemes"].values():
            scheme["name"] = "anvil-session"  # of each place its own: settings.INSTANCE follows
        return schema


def _describe_answers(shapes: dict[str, Any]) -> None:
    """Every kind of question has an answer of its own: which ones there are stands in the document too."""
    names = set()
    for kind in every_kind():
        found = kind.answer.model_json_schema(ref_template="#/components/schemas/{model}", mode="serialization")
        shapes |= found.pop("$defs", {}) | {kind.answer.__name__: found}
        names.add(kind.answer.__name__)
    answers = [{"$ref": f"#/components/schemas/{name}"} for name in sorted(names)]
    shapes["QuestionOut"]["properties"]["answer"] = {"anyOf": [*answers, {"type": "null"}], "title": "Answer"}


api = Api(title="Noble Anvil", version="1", auth=django_auth, docs_url=None, openapi_url=None, parser=Reader())
api.add_router("", session)
api.add_router("", calculators)
api.add_router("", gauge)
api.add_router("", notebook)
api.add_router("", questions)
api.add_router("", house)
api.add_router("", runs)
api.add_router("", card)
api.add_router("", running)
api.add_router("", practice)
api.add_router("", shelf)


def _units(request: HttpRequest) -> System:
    """The units that a request speaks in: asked for in its address, or said in its body."""
    said: Any = request.GET.get("units")
    if said is None and request.body:
        try:
            body = json.loads(request.body)
        except (ValueError, RecursionError):
            body = None
        said = body.get("units") if isinstance(body, dict) else None
    return "inch" if said == "inch" else "metric"


def _told(request: HttpRequest, error: Exception) -> HttpResponse:
    said = told(error, _units(request))
    assert said is not None
    return problem(**said)


for of_ours in (CalcError, BadValue, NotAllowed, NotFound, Conflict, TooMany):
    api.exception_handler(of_ours)(_told)


@api.exception_handler(OperationalError)
@api.exception_handler(InterfaceError)
def _database(request: HttpRequest, error: Exception) -> HttpResponse:
    """The database is full, or not there for the moment; nothing of the request was kept."""
    if getattr(error.__cause__, "sqlstate", None) == DISK_FULL:
        return problem(507, "The disk is full: nothing was kept. Free some space on the server, then try again.")
    return problem(503, "The database does not answer just now: nothing was kept. It is tried again.")


@api.exception_handler(ValidationError)
def _bad_shape(request: HttpRequest, error: ValidationError) -> HttpResponse:
    fields = [{"field": ".".join(str(p) for p in e["loc"][2:]), "message": e["msg"]} for e in error.errors]
    return problem(422, "The request does not have the expected form", errors=fields)


@api.exception_handler(AuthenticationError)
def _not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return problem(401, "Sign in first")


@api.exception_handler(RequestDataTooBig)
def _too_large(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
    return problem(413, "This is too large to be read. Of a drawing, save the part alone, without its frame and views.")


@api.exception_handler(HttpError)
def _http(request: HttpRequest, error: HttpError) -> HttpResponse:
    unreadable = getattr(request, "unreadable", None)
    if isinstance(unreadable, Unreadable):
        told = {"field": unreadable.field[:200], "message": unreadable.sentence}
        return problem(422, AGAIN, errors=[told])
    return problem(error.status_code, error.message)


@api.exception_handler(DataError)
def _unkeepable(request: HttpRequest, error: DataError) -> HttpResponse:
    """A figure or sign that the database cannot keep; no check before it knew that."""
    logging.getLogger("server").warning("Refused by the database: %s", request.path)
    return problem(422, "This holds a figure or a sign that cannot be kept. Nothing was kept.")


@api.exception_handler(IntegrityError)
def _at_once(request: HttpRequest, error: IntegrityError) -> HttpResponse:
    """Two changes at the same moment that cannot both be."""
    logging.getLogger("server").warning("Refused by the database: %s", request.path)
    return problem(409, "Somebody changed this at the same moment: nothing of yours was kept. Look again, then repeat.")
