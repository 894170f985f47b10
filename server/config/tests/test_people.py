"""Signing in, the throttle, roles, and managing people."""

import threading

import pytest
from django.conf import settings as conf
from django.db import connection

from server import kept_demo
from server.foundation.actions import change_person
from server.foundation.models import Person, Shop

GOOD = "soft-jaws-and-tea"
SESSION = conf.SESSION_COOKIE_NAME


def sign_in(client, name, password):
    return client.send("session", {"username": name, "password": password})


def test_sign_in_with_a_password(demo, nobody):
    Shop.objects.update(kind="real")
    person = Person.objects.create_user("ada", password=GOOD, role="planner")
    assert person.password.startswith("argon2")
    assert sign_in(nobody, "ada", "wrong")[0] == 401
    assert sign_in(nobody, "a\x00da", "wrong")[0] == 422
    status, who = sign_in(nobody, "ada", GOOD)
    assert (status, who["role"], who["may_look_as"]) == (200, "planner", False)
    assert nobody.get("/api/session").status_code == 200


def test_after_some_wrong_passwords_a_name_rests(demo, nobody, settings):
    Person.objects.create_user("ada", password=GOOD, role="planner")
    Person.objects.create_user("ben", password=GOOD, role="setter")
    answers = [sign_in(nobody, "ada", f"wrong {i}")[0] for i in range(settings.AXES_FAILURE_LIMIT)]
    assert answers == [401] * (settings.AXES_FAILURE_LIMIT - 1) + [429]
    status, said = sign_in(nobody, "ada", GOOD)  # even the right one waits now
    assert (status, "Wait 15 minutes" in said["title"]) == (429, True)
    assert sign_in(nobody, "ben", GOOD)[0] == 200  # nobody else does
    elsewhere = type(nobody)(REMOTE_ADDR="192.0.2.9")
    assert sign_in(elsewhere, "ada", GOOD)[0] == 200  # and nobody locks another out from elsewhere


def test_the_demo_people_have_no_password(demo, nobody):
    for role in ("owner", "planner", "setter", "operator"):
        assert sign_in(nobody, role, "")[0] == 401


def test_in_the_demo_any_role_can_be_looked_as_but_only_from_this_machine(demo, nobody, settings, signed_in):
    client = signed_in("operator")
    status, who = client.send("session/look-as", {"role": "owner"})
    assert (status, who["role"], who["may_look_as"]) == (200, "owner", True)
    assert client.get("/api/people").status_code == 200
    assert client.send("session/look-as", {"role": "king"})[0] == 422
    elsewhere = type(nobody)(REMOTE_ADDR="192.0.2.9")
    elsewhere.force_login(Person.objects.get(username="operator"))
    assert elsewhere.send("session/look-as", {"role": "owner"})[0] == 403


@pytest.mark.parametrize("anew", ["another role", "another password"])
def test_a_request_still_on_its_way_with_the_session_before_signs_nobody_out(demo, nobody, settings, signed_in, anew):
    person = Person.objects.get(username="setter")
    person.set_password(GOOD)
    person.save()
    client = signed_in("setter")
    late = type(nobody)()
    late.cookies[SESSION] = client.cookies[SESSION].value
    if anew == "another role":
        assert client.send("session/look-as", {"role": "operator"})[0] == 200
    else:
        assert client.send("session/password", {"old": GOOD, "new": GOOD + "!"})[0] == 204
    answer = late.get("/api/session")
    assert (answer.status_code, answer.cookies) == (401, {})  # a cookie that is deleted here is by now the new one
    assert client.get("/api/session").status_code == 200
    assert client.delete("/api/session").cookies[SESSION]["max-age"] == 0  # signing out deletes it


def test_an_owner_adds_people_and_changes_them(demo, signed_in, nobody):
    owner = signed_in("owner")
    status, made = owner.send("people", {"username": "ada", "password": GOOD, "role": "setter"})
    assert (status, made["role"], made["active"], made["has_password"]) == (201, "setter", True, True)
    assert sign_in(nobody, "ada", GOOD)[0] == 200
    assert owner.send(f"people/{made['id']}", {"active": False}, "patch")[1]["active"] is False
    assert nobody.get("/api/session").status_code == 401  # signed out at once
    assert sign_in(nobody, "ada", GOOD)[0] == 401
    owner.send(f"people/{made['id']}", {"active": True, "password": "another good one", "role": "planner"}, "patch")
    assert sign_in(nobody, "ada", "another good one")[1]["role"] == "planner"
    assert {p["username"] for p in owner.get("/api/people").json()} == {"ada", "owner", "planner", "setter", "operator"}


BAD = [
    ({"username": "planner"}, "username", "taken"),
    ({"username": "PLANNER"}, "username", "taken"),
    ({"username": "a b"}, "username", "without spaces"),
    ({"username": "x" * 80}, "username", "60"),
    ({"password": "short"}, "password", "10"),
    ({"password": "password123"}, "password", "common"),
    ({"password": "soft-jaws\x00-and-tea"}, "password", "no text has"),
    ({"password": "soft-jaws\x07-and-tea"}, "password", "cannot be typed"),
    ({"password": " " * 14}, "password", "Blanks alone"),
    ({"password": "ab" * 7}, "password", "over and over"),
    ({"password": "ada ada ada ada"}, "password", "little more than the name"),
    ({"username": "toolroom", "password": "toolroom toolroom"}, "password", "name"),
]


@pytest.mark.parametrize(("wrong", "field", "says"), BAD)
def test_bad_people_get_a_sentence_at_the_field(wrong, field, says, demo, signed_in):
    given = {"username": "ada", "password": GOOD, "role": "setter"} | wrong
    status, answer = signed_in("owner").send("people", given)
    assert status == 422
    assert answer["errors"][0]["field"] == field
    assert says in answer["errors"][0]["message"]
    assert Person.objects.count() == 4


def test_one_owner_stays(demo, signed_in):
    owner = signed_in("owner")
    me = Person.objects.get(username="owner").pk
    for change in ({"role": "planner"}, {"active": False}):
        status, answer = owner.send(f"people/{me}", change, "patch")
        assert (status, "only owner" in answer["title"]) == (409, True)
    other = Person.objects.get(username="planner").pk
    assert owner.send(f"people/{other}", {"role": "owner"}, "patch")[0] == 200
    assert owner.send(f"people/{me}", {"role": "planner"}, "patch")[0] == 200
    assert owner.send(f"people/{other}", {"role": "setter"}, "patch")[0] == 403  # an owner no longer
    assert signed_in("planner").send("people/99999", {"role": "setter"}, "patch")[0] == 404


def test_two_owners_cannot_take_each_others_role_at_once(transactional_db):
    kept_demo.begun()
    Person.objects.filter(username="planner").update(role="owner")
    owners = list(Person.objects.filter(role="owner"))
    gate, refused = threading.Barrier(2), []

    def demote(by, whom):
        gate.wait()
        try:
            change_person(whom.pk, {"role": "setter"}, by)
        except Exception as error:
            refused.append(error)
        finally:
            connection.close()

    threads = [threading.Thread(target=demote, args=pair) for pair in (owners, owners[::-1])]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    assert Person.objects.filter(role="owner").count() == 1
    assert len(refused) == 1


def test_ones_own_password(demo, nobody):
    Person.objects.create_user("ada", password=GOOD, role="operator")
    sign_in(nobody, "ada", GOOD)
    other = type(nobody)()
    sign_in(other, "ada", GOOD)
    assert (
        nobody.send("session/password", {"old": "wrong", "new": "another good one"})[1]["errors"][0]["field"] == "old"
    )
    assert nobody.send("session/password", {"old": GOOD, "new": "short"})[1]["errors"][0]["field"] == "password"
    assert nobody.send("session/password", {"old": GOOD, "new": "another good one"})[0] == 204
    assert nobody.get("/api/session").status_code == 200
    assert other.get("/api/session").status_code == 401
