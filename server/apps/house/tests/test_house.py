"""House rules: changed with a reason, kept for ever, never twice at once; a plan takes them when it is told to."""

import json

import pytest

from calc.rules import Rules
from server.apps.house import queries
from server.apps.house.models import HouseRules
from server.apps.runs.models import Edit

pytestmark = pytest.mark.django_db
CHANGE = {"values": {"safety": "2.5"}, "reason": "two pieces slipped in May", "base_number": 1}


def change(person, **given):
    return person.send("rules", {**CHANGE, **given})


def rule(page, name):
    return next(r for r in page["rules"] if r["name"] == name)


def test_every_rule_has_its_meaning_and_its_usual_value(planner):
    page = planner.get("/api/rules").json()
    assert page["number"] == 1
    assert all(r["label"] and r["help"] and r["usual"] == r["text"] and r["changed"] is None for r in page["rules"])
    assert rule(page, "gauge_days")["text"] == "90"
    assert rule(page, "raw_stock")["options"][0] == {"value": "nominal", "label": "nominal stock"}


def test_a_change_is_kept_with_who_when_and_why(planner):
    status, page = change(planner, values={"safety": "2.5", "raw_stock": "largest"})
    assert (status, page["number"]) == (200, 2)
    safety = rule(page, "safety")
    assert (safety["text"], safety["usual"]) == ("2.50", "2.00")
    assert (safety["changed"]["number"], safety["changed"]["reason"]) == (2, "two pieces slipped in May")
    assert page["history"][0]["changes"] == [
        "Safety on the grip 2.00 → 2.50",
        "Pocket for raw stock nominal stock → largest piece: always three centres",
    ]
    assert queries.current() == Rules(number=2, safety=2.5, raw_stock="largest")


@pytest.mark.parametrize(
    ("given", "field", "words"),
    [
        ({"values": {"safety": "1.4"}}, "safety", "1.5"),
        ({"values": {"safety": "much"}}, "safety", "not a figure"),
        ({"values": {"raw_stock": "thick"}}, "raw_stock", "Choose"),
        ({"values": {"luck": "1"}}, "luck", "no such house rule"),
        ({"reason": " a "}, "reason", "Write why"),
        ({"values": {"safety": "2"}}, "", "Nothing is changed"),
        ({"values": {"gauge_days": "9.5"}}, "gauge_days", "whole"),
    ],
)
def test_a_wrong_change_gets_its_sentence_and_keeps_nothing(planner, given, field, words):
    status, answer = change(planner, **given)
    assert status == 422
    assert words in next(e["message"] for e in answer["errors"] if e["field"] == field)
    assert not HouseRules.objects.exists()


def test_two_people_at_once_the_second_looks_again(planner, signed_in):
    assert change(signed_in("owner"))[0] == 200
    status, answer = change(planner, values={"worn": "1.4"})
    assert status == 409
    assert "Look at them again" in answer["title"]
    assert HouseRules.objects.count() == 1


def test_who_only_looks_changes_nothing(signed_in):
    setter = signed_in("setter")
    assert change(setter)[0] == 403
    assert setter.get("/api/rules").json()["may_edit"] is False


def test_a_plan_keeps_its_rules_tells_what_todays_would_move_and_takes_them(planner, demo):
    before = planner.plan(demo)
    assert before["rules"] == {"number": 1, "today": 1, "changes": [], "moves": [], "money": False}
    change(planner)
    plan = planner.plan(demo)
    assert (plan["rules"]["number"], plan["rules"]["today"]) == (1, 2)
    assert plan["rules"]["changes"] == ["Safety on the grip 2.00 → 2.50"]
    assert plan["rules"]["moves"][0].startswith("cap 791\xa0rpm → ")
    assert plan["stops"] == before["stops"]  # nothing moved by itself
    status, taken = planner.edit(demo, "rules", value="today")
    assert (status, taken["rules"]["number"], taken["rules"]["moves"]) == (200, 2, [])
    assert Edit.objects.get().new["safety"] == 2.5
    told = planner.get(f"/api/runs/{demo.pk}/history").json()["entries"][0]["text"]
    assert told.startswith("House rules revision 1 → revision 2")


def test_a_single_rule_is_not_changed_in_a_plan_but_departed_from(planner, demo):
    status, answer = planner.edit(demo, "rules.safety", text="1.5")
    assert status == 422
    assert "own page" in answer["errors"][0]["message"]
    body = {"path": "departures", "name": "proven on the last run", "kind": "safety", "base_revision": 0}
    status, plan = planner.send(f"runs/{demo.pk}/items", {**body, "key": "6b8e8a2e-6a0f-4f43-9d7f-4c1f36c4b1d1"})
    assert status == 200, json.dumps(plan)
    force = next(s for s in plan["stops"] if s["name"] == "force")
    made = next(x for x in force["lists"] if x["path"] == "departures")["items"][0]["id"]
    status, plan = planner.edit(demo, f"departures.{made}.value", text="1.8", base_revision=1)
    assert status == 200
    force = next(s for s in plan["stops"] if s["name"] == "force")
    assert next(f for f in force["facts"] if f["name"] == "safety")["text"] == "1.8"
    assert planner.edit(demo, f"departures.{made}.value", text="1.2", base_revision=2)[0] == 422


def test_a_new_run_starts_under_the_rules_of_today(planner, demo):
    change(planner)
    _, made = planner.send("runs", {"name": "Pin", "drawing_number": "LH-1", "machine": "lathe-3", "material": "c45"})
    assert planner.get(f"/api/runs/{made['id']}/plan").json()["rules"]["number"] == 2
