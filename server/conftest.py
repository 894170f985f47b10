"""Fixtures for the server's tests: the demo shop, and clients signed in as each role."""

from __future__ import annotations

import json
import uuid
from collections.abc import Callable
from typing import Any

import pytest
from django.test import Client

from e2e import served
from server import kept_demo, one_sided
from server.apps.demo import runs as demo_runs
from server.apps.demo import shop
from server.apps.questions.actions.answer import answer, begun
from server.apps.runs.models import Run
from server.foundation.models import Person, Shop
from server.together import together


def pytest_runtest_setup(item: pytest.Item) -> None:
    """Nothing of a journey that ran before in this process answers what is asked here."""
    served.rest()


class ApiClient(Client):
    """Posts and reads JSON; `question` is the last one that took long."""

    question = ""

    def __init__(self, **more: Any) -> None:
        super().__init__(**{"SERVER_NAME": "127.0.0.1"} | more)

    def send(self, path: str, body: Any = None, method: str = "post", **headers: str) -> Any:
        """The answer's status and its parsed body; of a plan, all of it."""
        if isinstance(body, dict) and path.startswith("runs/"):
            body = {"whole": True} | body
        answer = self.generic(
            method.upper(), f"/api/{path}", json.dumps(body), content_type="application/json", headers=headers
        )
        return answer.status_code, together(json.loads(answer.content)) if answer.content else None

    def edit(self, run: Run, path: str, **entry: Any) -> Any:
        """Keep an edit of a run."""
        given = {"path": path, "base_revision": run.revision, "key": str(uuid.uuid4())} | entry
        return self.send(f"runs/{run.pk}/edits", given)

    def preview(self, run: Run, path: str, **entry: Any) -> Any:
        """Preview an edit of a run."""
        return self.send(f"runs/{run.pk}/preview", {"path": path} | entry)

    def answer(self, path: str, body: Any) -> Any:
        """Status and answer of a question that takes long, answered here and now."""
        status, question = self.send(path, {"key": str(uuid.uuid4())} | body)
        if status != 202:
            return status, question
        begun_now = begun(question["key"])
        if begun_now is not None:
            answer(begun_now)
        told = self.get(f"/api/questions/{question['key']}").json()
        self.question = told["key"]
        return (200, told["answer"]) if told["problem"] is None else (told["problem"]["status"], told["problem"])

    def plan(self, run: Run, units: str = "metric", **asked: int) -> Any:
        """The run's whole plan."""
        query: dict[str, str | int] = {"units": units, "whole": True, **asked}
        return together(self.get(f"/api/runs/{run.pk}/plan", query).json())


@pytest.fixture
def demo(db: None, monkeypatch: pytest.MonkeyPatch) -> Run:
    """The demo's shop and vent plug, with a seal carrier of one side; gives the seal carrier."""
    monkeypatch.setattr(demo_runs, "RUNS", one_sided.runs())
    monkeypatch.setattr(shop, "GREASED_DAYS_AGO", ())
    monkeypatch.setattr(shop, "GAUGE_RUNS", [])
    if not Shop.objects.exists():  # a test may have begun all of it
        kept_demo.begun("one-sided")
    return Run.objects.get(drawing_number="LH-2041")


def _signed_in(name: str) -> ApiClient:
    client = ApiClient()
    client.force_login(Person.objects.get(username=name))
    return client


@pytest.fixture
def signed_in(demo: Run) -> Callable[[str], ApiClient]:
    """Gives a client signed in as a role of the demo."""
    return _signed_in


@pytest.fixture
def planner(demo: Run) -> ApiClient:
    """Signed in as planner."""
    return _signed_in("planner")


@pytest.fixture
def operator(demo: Run) -> ApiClient:
    """Signed in as operator."""
    return _signed_in("operator")


@pytest.fixture
def nobody(demo: Run) -> ApiClient:
    """Not signed in."""
    return ApiClient()
