"""The doors: who is let through, what a request may bring, and how every refusal is told."""

import json
import uuid

import pytest
from django.conf import settings as conf
from django.core.exceptions import ImproperlyConfigured
from django.test import Client

from server.foundation.models import Shop

pytestmark = pytest.mark.django_db
PRESSURE = "setups.s1.force.pressure_bar"


def asked(planner, run, text):
    return {"path": PRESSURE, "text": text, "base_revision": run.revision, "key": str(uuid.uuid4())}


@pytest.mark.parametrize("header", ["X-Forwarded-For", "X-Forwarded-Host", "Forwarded", "Via", "X-Real-IP"])
@pytest.mark.parametrize("path", ["/", "/api/session", "/api/runs"])
def test_the_demo_refuses_what_came_through_a_proxy_and_a_real_shop_does_not_mind(header, path, demo, planner):
    answer = planner.get(path, headers={header: "192.0.2.1"})
    assert answer.status_code == 403
    assert "through no proxy" in answer.content.decode()
    Shop.objects.update(kind="real")
    assert planner.get(path, headers={header: "192.0.2.1"}).status_code == 200


def test_a_name_that_is_not_ours_is_refused_also_where_something_is_only_read(planner, settings):
    for path in ("/", "/api/session", "/api/runs", "/api/nothing"):
        for host in ("rebound.example", "127.0.0.1.rebound.example", "localhost:1:2", ""):
            assert planner.get(path, headers={"Host": host}).status_code == 400, (path, host)
    # A name that the shop gave itself holds for the shop, and never for the demo.
    settings.ALLOWED_HOSTS = ["shop.example"]
    assert planner.get("/api/runs", headers={"Host": "shop.example"}).status_code == 403
    Shop.objects.update(kind="real")
    assert planner.get("/api/runs", headers={"Host": "shop.example"}).status_code == 200


def test_what_the_api_says_is_kept_by_no_cache(planner, nobody, demo):
    for answer in (planner.get("/api/runs"), nobody.get("/api/runs"), planner.get("/api/nothing"), planner.get("/")):
        assert answer["Cache-Control"] == "no-store"


def test_cookies_have_a_name_of_this_place_and_are_closed(planner, demo):
    page = Client(SERVER_NAME="127.0.0.1").get("/")
    names = {conf.SESSION_COOKIE_NAME, conf.CSRF_COOKIE_NAME}
    assert set(page.cookies) == names
    assert all(conf.INSTANCE in name and len(conf.INSTANCE) == 8 for name in names)
    assert page.cookies[conf.SESSION_COOKIE_NAME]["httponly"]
    assert f'content="{conf.CSRF_COOKIE_NAME}"' in page.content.decode()


def settings_with(monkeypatch, **env):
    """The settings as they would be with another environment."""
    import importlib

    import server.config.settings as module

    for name, value in env.items():
        monkeypatch.setenv(f"NOBLE_ANVIL_{name}", value)
    try:
        return {n: getattr(importlib.reload(module), n) for n in dir(module) if n.isupper()}
    finally:
        monkeypatch.undo()
        importlib.reload(module)


def test_over_https_cookies_are_secure_and_no_secret_is_a_fallback(monkeypatch):
    with pytest.raises(ImproperlyConfigured, match="secret of 32 signs"):
        settings_with(monkeypatch, SECRET_KEY="")
    with pytest.raises(ImproperlyConfigured, match="needs NOBLE_ANVIL_PROXY"):
        settings_with(monkeypatch, HTTPS="1")
    plain, safe = settings_with(monkeypatch), settings_with(monkeypatch, HTTPS="1", PROXY="192.0.2.1")
    assert (plain["SESSION_COOKIE_SECURE"], plain["SECURE_HSTS_SECONDS"]) == (False, 0)
    assert safe["SESSION_COOKIE_SECURE"] and safe["CSRF_COOKIE_SECURE"] and safe["SECURE_HSTS_SECONDS"] > 10**7
    assert safe["SESSION_COOKIE_NAME"].startswith("__Host-")
    other = settings_with(monkeypatch, SECRET_KEY="x" * 40)
    assert other["SESSION_COOKIE_NAME"] != plain["SESSION_COOKIE_NAME"]


DEEP = '{"a":' * 400 + "1" + "}" * 400
STRANGE = [
    ("a NUL in a text", '{"path": "p", "text": "2\\u0000"}', 422),
    ("a NUL in a name", '{"path": "p", "te\\u0000xt": "2"}', 422),
    ("half of a character", '{"path": "p", "text": "2\\ud800"}', 422),
    ("nested deep", DEEP, 422),
    ("nested deeper than anything reads", "[" * 100_000, 400),
    ("a figure of 400 digits", '{"path": "p", "value": ' + "9" * 400 + "}", 422),
    ("a figure of 5000 digits", '{"path": "p", "value": ' + "9" * 5000 + "}", 422),
    ("no figure", '{"path": "p", "value": NaN}', 422),
    ("endless", '{"path": "p", "value": Infinity}', 422),
    ("no JSON", "{", 400),
    ("no text", "\udcff\udcfe", 400),
]


@pytest.mark.parametrize(("what", "body", "status"), STRANGE, ids=[s[0] for s in STRANGE])
def test_what_no_field_can_hold_is_refused_and_told(what, body, status, planner, demo):
    for place in ("preview", "edits", "items", "undo", "parts"):
        answer = planner.generic(
            "POST",
            f"/api/runs/{demo.pk}/{place}",
            body.encode(errors="surrogateescape"),
            content_type="application/json",
        )
        assert (answer.status_code, answer["Content-Type"]) == (status, "application/problem+json")
        assert len(answer.content) < 1000


@pytest.mark.parametrize("digits", [400, 5000])
def test_typed_figures_of_many_digits_are_refused_at_their_field(digits, planner, demo):
    for text in ("9" * digits, "9" * digits + " bar", "1." + "1" * digits, "1/" + "9" * digits, "9e" + "9" * digits):
        status, answer = planner.send(f"runs/{demo.pk}/edits", asked(planner, demo, text))
        assert status == 422, text[:20]
        assert answer["errors"][0]["field"] == PRESSURE
        status, answer = planner.send("calc/part-off", {"diameter_mm": text, "width_mm": "3"})
        assert status == 422, text[:20]


@pytest.mark.parametrize("method", ["PUT", "TRACE", "BREW", "OPTIONS", "DELETE", "CONNECT"])
def test_an_unknown_method_is_told_in_the_apis_own_form(method, planner, demo):
    answer = planner.generic(method, f"/api/runs/{demo.pk}/plan")
    assert (answer.status_code, answer["Content-Type"]) == (405, "application/problem+json")
    assert "GET" in answer["Allow"]


def test_a_sign_that_no_text_has_is_refused_in_an_address(planner):
    for path in ("/api/find?words=a%00b", "/api/runs/1%00/plan", "/api/shelf/chuck/items/a%00b", "/runs/%00"):
        assert planner.get(path).status_code == 400, path


def test_a_script_name_that_was_sent_changes_nothing(planner, demo):
    for name in ("/elsewhere", "javascript:alert(1)", "\x00"):
        answer = planner.get("/api/runs", headers={"Script-Name": name})
        assert answer.status_code == 200
        page = planner.get("/", headers={"Script-Name": name}).content.decode()
        assert "elsewhere" not in page and "alert" not in page


def test_a_preview_of_a_set_without_its_blank_is_told_at_its_field(planner, demo):
    for fields in ({}, {"blank": ""}, {"blank": None}, {"blank": "none"}, {"chuck": ""}, {"chucks": "x"}):
        for key in (None, "set-7"):
            status, answer = planner.send("shelf/jaw_set/preview", {"key": key, "fields": fields})
            assert status in (200, 422), (fields, key, answer)


def test_a_problem_is_what_is_sent_whatever_went_wrong(planner, demo, monkeypatch):
    def broken(*_, **__):
        raise RuntimeError("broken")

    monkeypatch.setattr("server.apps.runs.queries.bench.bench", broken)
    planner.raise_request_exception = False
    answer = planner.get("/api/runs")
    assert (answer.status_code, answer["Content-Type"]) == (500, "application/problem+json")
    assert json.loads(answer.content)["title"] == "Internal Server Error"
