"""Every endpoint asked as nobody, operator and planner."""

import json
import uuid

import pytest
from django.test import Client

from server.apps.runs.models import Edit
from server.config.api import api
from server.foundation.models import Person

PRESSURE = "setups.0.force.pressure_bar"
KEEP = {"path": PRESSURE, "text": "27", "base_revision": 0, "key": str(uuid.uuid4())}
# (method, path, body, as operator, as planner)
ENDPOINTS = [
    ("get", "session", None, 200, 200),
    ("get", "runs", None, 200, 200),
    ("get", "runs/{run}/plan", None, 200, 200),
    ("post", "runs/{run}/preview", {"path": PRESSURE, "text": "27"}, 403, 200),
    ("post", "runs/{run}/edits", KEEP, 403, 200),
    ("get", "calc", None, 200, 200),
    ("post", "calc/{name}", {}, 422, 422),
    ("delete", "session", None, 204, 204),
]


def ask(client, run, method, path, body):
    return client.send(path.format(run=run.pk, name="cut"), body, method)[0]


@pytest.mark.parametrize(("method", "path", "body", "operator_gets", "planner_gets"), ENDPOINTS)
def test_who_may(method, path, body, operator_gets, planner_gets, nobody, operator, planner, demo):
    assert ask(nobody, demo, method, path, body) == 401
    assert ask(operator, demo, method, path, body) == operator_gets
    assert Edit.objects.count() == 0
    assert ask(planner, demo, method, path, body) == planner_gets


def test_the_matrix_has_every_endpoint():
    described = set()
    for path, methods in api.get_openapi_schema()["paths"].items():
        name = path.removeprefix("/api/").replace("{run_id}", "{run}")
        name = "calc/{name}" if name.startswith("calc/") else name
        described |= {(method, name) for method in methods}
    assert described - {("post", "session")} == {(m, p) for m, p, *_ in ENDPOINTS}


@pytest.mark.parametrize("path", ["runs/{run}/edits", "runs/{run}/preview", "calc/cut", "session"])
def test_changes_need_the_csrf_token(path, demo):
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(Person.objects.get(username="planner"))
    answer = strict.post(
        f"/api/{path.format(run=demo.pk)}", json.dumps({"username": "a", "password": "b"}), "application/json"
    )
    assert answer.status_code == 403


def test_a_run_that_is_not_there_is_404(planner):
    for run_id in (999, 2**70):
        assert planner.get(f"/api/runs/{run_id}/plan").status_code == 404


def test_sign_in_with_a_password(demo, nobody):
    person = Person.objects.create_user("setter", password="soft-jaws-and-tea", role="planner")
    assert person.password.startswith("argon2")
    assert nobody.send("session", {"username": "setter", "password": "wrong"})[0] == 401
    assert nobody.send("session", {"username": "se\x00tter", "password": "wrong"})[0] == 401
    status, who = nobody.send("session", {"username": "setter", "password": "soft-jaws-and-tea"})
    assert (status, who["role"]) == (200, "planner")
    assert nobody.get("/api/session").status_code == 200


def test_the_demo_people_have_no_password(demo, nobody):
    assert nobody.send("session", {"username": "planner", "password": ""})[0] == 401
