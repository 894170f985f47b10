"""Coming in: what is counted, who waits and for how long, how a session ends, and what the trail tells of it."""

import io
import time
from datetime import timedelta

import pytest
from axes.models import AccessAttempt
from django.contrib.sessions.models import Session
from django.core.management import CommandError, call_command
from django.db import IntegrityError, transaction
from django.utils import timezone

from server.foundation import trail
from server.foundation.actions import tidy
from server.foundation.models import Person, Shop, TrailEntry

GOOD = "soft-jaws-and-tea"
pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def people(demo, settings):
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]  # hundreds are tried here
    Shop.objects.update(kind="real")
    for name, role in (("ada", "planner"), ("ben", "setter"), ("cleo", "owner")):
        Person.objects.create_user(name, password=GOOD, role=role)


@pytest.fixture
def at_address(nobody):
    """Gives a new browser at an address."""
    return lambda address="192.0.2.1": type(nobody)(REMOTE_ADDR=address)


def sign_in(client, name, password=GOOD):
    return client.send("session", {"username": name, "password": password})[0]


def told(what):
    return [(e.by.username if e.by else e.name) for e in TrailEntry.objects.filter(what=what).order_by("pk")]


def test_names_are_one_without_case_and_blanks(at_address):
    for typed in ("ADA", " ada ", "Ada", "  aDa"):
        assert sign_in(at_address(), typed) == 200, typed
    assert sign_in(at_address(), "a da") == 401
    with pytest.raises(IntegrityError), transaction.atomic():
        Person.objects.create_user("ADA", password=GOOD)


def test_wrong_passwords_are_counted_of_a_name_whatever_its_case(at_address):
    client = at_address()
    assert [sign_in(client, n, "wrong") for n in ("ada", "Ada", "ADA ", " ada", "aDA", "adA", "AdA")] == [401] * 7
    assert sign_in(client, "aDa", "wrong") == 429
    assert sign_in(client, "ada") == 429
    assert told("resting") == ["aDa"]


def test_one_address_that_tries_many_names_waits(at_address):
    client = at_address("192.0.2.7")
    answers = [sign_in(client, f"name-{i}", "wrong") for i in range(40)]
    assert answers == [401] * 39 + [429]
    assert sign_in(client, "ben") == 429
    assert sign_in(at_address("192.0.2.8"), "ben") == 200


def test_one_name_tried_from_many_addresses_waits_but_never_where_its_owner_was_before(at_address):
    mine = at_address("192.0.2.200")
    assert sign_in(mine, "ada") == 200
    mine.delete("/api/session")
    answers = [sign_in(at_address(f"192.0.2.{i}"), "ada", "wrong") for i in range(1, 42)]
    assert answers == [401] * 39 + [429] * 2
    assert sign_in(at_address("192.0.2.150"), "ada") == 429
    assert sign_in(mine, "ada") == 200  # strangers keep nobody out where they were before
    assert sign_in(at_address("192.0.2.150"), "ben") == 200


def test_a_known_browser_counts_for_itself_and_a_forged_mark_is_none(at_address, settings):
    mine = at_address("192.0.2.200")
    sign_in(mine, "ada")
    assert [sign_in(mine, "ada", "wrong") for _ in range(8)] == [401] * 7 + [429]
    assert sign_in(at_address("192.0.2.201"), "ada") == 200  # an unknown one counts apart from it
    forged = at_address("192.0.2.202")
    forged.cookies[settings.KNOWN_COOKIE_NAME] = mine.cookies[settings.KNOWN_COOKIE_NAME].value + "x"
    assert [sign_in(forged, "ada", "wrong") for _ in range(8)] == [401] * 7 + [429]


def test_whoever_goes_on_guessing_does_not_lengthen_the_wait(at_address):
    client = at_address()
    for _ in range(12):
        sign_in(client, "ada", "wrong")
    counted = AccessAttempt.objects.get()
    assert counted.failures_since_start == 8
    AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(minutes=16))
    assert sign_in(client, "ada") == 200


def test_who_has_an_account_clears_the_way_for_no_guesses_at_another(at_address):
    client = at_address()
    for _ in range(7):
        sign_in(client, "ada", "wrong")
    assert sign_in(client, "ben") == 200
    assert sign_in(client, "ada", "wrong") == 429


def test_a_new_password_or_an_owner_ends_the_wait(at_address, signed_in):
    owner, ada = at_address("192.0.2.90"), Person.objects.get(username="ada")
    assert sign_in(owner, "cleo") == 200
    for given in ({"lift": True}, {"password": "another good one"}):
        client = at_address()
        for _ in range(8):
            sign_in(client, "ada", "wrong")
        assert sign_in(client, "ada", ada_s := given.get("password", GOOD)) == 429
        resting = {p["username"]: p["resting"] for p in owner.get("/api/people").json()}
        assert resting["ada"] and not resting["ben"]
        assert owner.send(f"people/{ada.pk}", given, "patch")[0] == 200
        assert sign_in(client, "ada", ada_s) == 200
    assert told("lifted") == ["cleo"]


def test_guesses_at_the_password_there_is_are_counted_too(at_address):
    client = at_address()
    sign_in(client, "ada")
    answers = [client.send("session/password", {"old": "wrong", "new": "x" * 20})[0] for _ in range(9)]
    assert answers == [422] * 8 + [429]
    assert client.send("session/password", {"old": GOOD, "new": "another good one"})[0] == 429


@pytest.fixture
def clock(monkeypatch):
    """Moves the time on by seconds."""
    now = [time.time()]
    monkeypatch.setattr("server.config.sessions.time.time", lambda: now[0])
    return lambda seconds: now.__setitem__(0, now[0] + seconds)


def test_a_session_ends_when_nobody_is_there_whatever_the_screen_asks_by_itself(at_address, clock, demo):
    client = at_address()
    sign_in(client, "ada")
    for _ in range(6):
        clock(1500)
        assert client.get("/api/session").status_code == 200  # used, it goes on
    by_itself = [f"/api/runs/{demo.pk}/pulse", f"/api/runs/{demo.pk}/card/1/done"]
    for _ in range(4):
        clock(1500)
        assert [client.get(path).status_code for path in by_itself] == [200, 404]  # nothing is released yet
    clock(1500)
    assert [client.get(path).status_code for path in by_itself] == [401, 401]


def test_a_session_ends_after_a_shift_however_it_is_used(at_address, clock):
    client = at_address()
    sign_in(client, "ada")
    for _ in range(23):
        clock(1800)
        assert client.get("/api/session").status_code == 200
    clock(1900)
    assert client.get("/api/session").status_code == 401
    assert not Session.objects.exists()


def test_signing_out_everywhere_ends_every_session_of_ones_own(at_address):
    clients = [at_address(f"192.0.2.{i}") for i in range(3)]
    for client in clients:
        sign_in(client, "ada")
    other = at_address("192.0.2.9")
    sign_in(other, "ben")
    assert clients[0].delete("/api/session/everywhere").status_code == 204
    assert [c.get("/api/session").status_code for c in (*clients, other)] == [401, 401, 401, 200]
    owner = at_address()
    sign_in(owner, "cleo")
    ben = Person.objects.get(username="ben").pk
    assert owner.send(f"people/{ben}", {"end_sessions": True}, "patch")[0] == 200
    assert other.get("/api/session").status_code == 401
    assert told("everywhere") == ["ada", "cleo"]


def test_what_is_over_is_let_go(at_address, monkeypatch):
    for name in ("ada", "ben"):
        sign_in(at_address(), name)
    sign_in(at_address(), "ada", "wrong")
    first = Session.objects.order_by("pk").first()
    Session.objects.filter(pk=first.pk).update(expire_date=timezone.now() - timedelta(seconds=1))
    AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(hours=1))
    monkeypatch.setattr(trail, "KEPT", 2)
    tidy()
    assert (Session.objects.count(), AccessAttempt.objects.count(), TrailEntry.objects.count()) == (1, 0, 2)


def test_the_trail_tells_an_owner_who_came_in_from_where_and_what_was_done(at_address):
    owner, stranger = at_address("192.0.2.5"), at_address("198.51.100.9")
    sign_in(owner, "cleo")
    sign_in(stranger, "Ada", "wrong")
    made = owner.send("people", {"username": "dora", "password": GOOD, "role": "operator"})[1]
    owner.send(f"people/{made['id']}", {"role": "setter", "active": False}, "patch")
    owner.send("rules", {"base_number": 1, "values": {"safety": "2.5"}, "reason": "said why"})
    entries = owner.get("/api/trail").json()["entries"]
    assert [(e["who"], e["what"], e["address"]) for e in entries][:6] == [
        ("cleo", "rules", "192.0.2.5"),
        ("cleo", "closed", "192.0.2.5"),
        ("cleo", "role", "192.0.2.5"),
        ("cleo", "person", "192.0.2.5"),
        ("Ada", "refused", "198.51.100.9"),
        ("cleo", "signed-in", "192.0.2.5"),
    ]
    assert entries[2]["about"] == "dora: operator, now setter"
    assert "Safety" in entries[0]["about"]
    earlier = owner.get(f"/api/trail?before={entries[4]['id']}").json()
    assert earlier["entries"][0]["what"] == "signed-in" and not earlier["more"]


def test_the_command_asks_for_the_role_and_takes_no_bad_one(monkeypatch):
    def add(name, *said, **more):
        monkeypatch.setattr("sys.stdin", io.StringIO("".join(f"{line}\n" for line in said)))
        call_command("person", name, stdout=io.StringIO(), **more)
        return Person.objects.get(username__iexact=name)

    assert add("dora", "setter", GOOD).role == "setter"
    assert add("DORA", "Planner", GOOD).role == "planner"  # the same one, changed
    assert Person.objects.filter(username__iexact="dora").count() == 1
    for said in (("",), ("king", GOOD), ("setter", "short"), ("setter", "emil emil emil")):
        with pytest.raises(CommandError):
            add("emil", *said)
    assert not Person.objects.filter(username="emil").exists()
    Shop.objects.update(kind="demo")
    with pytest.raises(CommandError, match="This is the demo"):
        add("emil", "owner", GOOD)
