"""The page view: the demo's signing in, and the policy it sends."""

import io
import json
import re

import pytest
from django.conf import settings
from django.core.management import CommandError, call_command
from django.db import InterfaceError, OperationalError
from django.test import Client

from server.apps.runs.models import Edit, Run
from server.foundation.models import Person, Shop


def test_in_the_demo_on_loopback_a_visitor_is_the_planner(demo):
    client = Client(SERVER_NAME="127.0.0.1")
    assert client.get("/").status_code == 200
    who = client.get("/api/session").json()
    assert (who["role"], who["demo"]) == ("planner", True)


@pytest.mark.parametrize(("is_demo", "address"), [(True, "192.0.2.7"), (True, "nonsense"), (False, "127.0.0.1")])
def test_nobody_is_signed_in_from_elsewhere_or_without_the_demo(is_demo, address, demo):
    if not is_demo:
        Shop.objects.update(kind="real")
    client = Client(SERVER_NAME="127.0.0.1", REMOTE_ADDR=address)
    assert client.get("/runs/1/part").status_code == 200
    assert client.get("/api/session").status_code == 401


def test_the_policy_is_strict_and_its_nonce_is_new_each_time(demo):
    client = Client(SERVER_NAME="127.0.0.1")
    first, second = client.get("/"), client.get("/")
    policy = first["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    nonces = [re.search(r"'nonce-([^']+)'", r["Content-Security-Policy"])[1] for r in (first, second)]
    assert nonces[0] != nonces[1]
    assert f'nonce="{nonces[0]}"' in first.content.decode()
    assert first["X-Frame-Options"] == "DENY"


def test_what_keeps_cards_stands_at_the_root_and_is_asked_for_each_time(demo):
    client = Client(SERVER_NAME="127.0.0.1")
    keeper = client.get("/keeper.js")
    assert (keeper.status_code, keeper["Content-Type"]) == (200, "text/javascript; charset=utf-8")
    assert "no-cache" in keeper["Cache-Control"] and "immutable" not in keeper["Cache-Control"]
    # Every file of the page is kept, under the name that its contents gave it.
    built = json.loads((settings.WEB_BUILD / ".vite" / "manifest.json").read_text())
    assert all(f"/static/{part['file']}" in keeper.content.decode() for part in built.values())
    manifest = client.get("/manifest.webmanifest")
    assert manifest["Content-Type"] == "application/manifest+json"
    assert (manifest.json()["start_url"], manifest.json()["icons"][0]["src"]) == ("/", "/static/mark.svg")
    page = client.get("/")
    assert 'rel="manifest" href="/manifest.webmanifest"' in page.content.decode()
    for rule in ("worker-src 'self'", "manifest-src 'self'"):
        assert rule in page["Content-Security-Policy"]
    assert client.post("/keeper.js").status_code == 405


def test_a_person_is_added_with_a_password_worth_having(db, monkeypatch):
    monkeypatch.setattr("sys.stdin", io.StringIO("short\n"))
    with pytest.raises(CommandError):
        call_command("person", "setter", "--role", "planner")
    assert not Person.objects.exists()
    monkeypatch.setattr("sys.stdin", io.StringIO("soft-jaws-and-tea\n"))
    call_command("person", "setter", "--role", "planner", stdout=io.StringIO())
    person = Person.objects.get()
    assert (person.role, person.check_password("soft-jaws-and-tea")) == ("planner", True)


@pytest.mark.parametrize(
    ("sqlstate", "status", "says"), [("53100", 507, "disk is full"), ("57P03", 503, "nothing was kept")]
)
def test_a_database_that_is_full_or_away_gets_its_sentence(sqlstate, status, says, planner, demo, monkeypatch):
    class Cause(Exception):
        pass

    Cause.sqlstate = sqlstate

    def refuse(*args, **kwargs):
        raise OperationalError("no") from Cause()

    monkeypatch.setattr(Run, "save", refuse)
    answer = planner.edit(demo, "part.quantity", text="300")
    assert (answer[0], says in answer[1]["title"]) == (status, True)
    assert not Edit.objects.exists()


def test_the_page_says_so_while_the_database_is_away(demo, monkeypatch):

    def away():
        raise OperationalError("connection refused")

    monkeypatch.setattr("server.config.page.demo_person", away)
    answer = Client(SERVER_NAME="127.0.0.1").get("/")
    assert (answer.status_code, answer["Retry-After"]) == (503, "2")
    assert "load the page again" in answer.content.decode()


@pytest.mark.parametrize("error", [OperationalError, InterfaceError])
def test_a_database_that_is_away_as_soon_as_the_session_is_read_is_told(error, planner, monkeypatch):
    def load(_):
        raise error("connection closed")

    monkeypatch.setattr("django.contrib.sessions.backends.db.SessionStore.load", load)
    for path, form in (("/", "text/plain; charset=utf-8"), ("/api/runs", "application/problem+json")):
        answer = planner.get(path)
        assert (answer.status_code, answer["Retry-After"], answer["Content-Type"]) == (503, "2", form)
