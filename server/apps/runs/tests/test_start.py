"""A whole plan proposed and settled through the API: what is marked, what stays, what cannot be released."""

import uuid

import pytest

from server.apps.runs.models import Edit, Run
from server.apps.runs.tests.test_edits import fact, stop

FOLLOWER = {
    "name": "Gland follower",
    "drawing_number": "LH-2260",
    "machine": "lathe-3",
    "material": "1-4301",
    "outside": "96 x 12; 64 h8 x 26 Ra 1.6",
    "inside": "40 H7",
    "stock_diameter": "100",
    "stock_length": "42",
    "quantity": "60",
}


def keyed(**more):
    return {"key": str(uuid.uuid4())} | more


@pytest.fixture
def follower(planner):
    status, made = planner.send("runs", FOLLOWER)
    assert status == 201, made
    return Run.objects.get(pk=made["id"])


def propose(client, run, base=0):
    return client.send(f"runs/{run.pk}/start", keyed(base_revision=base))


def settle(client, run, base):
    status, found = client.answer(f"runs/{run.pk}/start/settle", {})
    assert status == 200, found
    return client.send(f"runs/{run.pk}/start/settled", keyed(base_revision=base, question=client.question))


def marks(plan):
    return sum(s["proposed"] for s in plan["sides"])


def looks_right(client, run, setup, base):
    return client.send(f"runs/{run.pk}/sides/{setup}/looks-right", keyed(base_revision=base))


def test_one_press_gives_every_stop_a_value_and_a_second_answer_settles_both_sides(planner, follower):
    status, begun = propose(planner, follower)
    assert status == 200, begun
    assert all(s["state"] != "open" for s in begun["stops"])
    assert len(begun["sides"]) == 2
    status, plan = settle(planner, follower, 1)
    assert (status, plan["verdict"]) == (200, "settled")
    assert [s["proposed"] > 20 for s in plan["sides"]] == [True, True]
    pressure = fact(plan, "setups.s1.force.pressure_bar")
    assert pressure["proposed"] is True
    texts = [e["text"] for e in planner.get(f"/api/runs/{follower.pk}/history").json()["entries"]]
    assert [t.partition(",")[0] for t in texts] == ["Set-ups proposed", "Set-ups proposed"]


def test_what_is_touched_is_no_longer_proposed_and_undoing_that_gives_the_mark_back(planner, follower):
    propose(planner, follower)
    _, plan = settle(planner, follower, 1)
    path = "setups.s1.force.pressure_bar"
    before = fact(plan, path)["text"]
    _, touched = planner.edit(follower, path, text="14", base_revision=2)
    assert (fact(touched, path)["proposed"], marks(touched)) == (False, marks(plan) - 1)
    _, undone = planner.send(f"runs/{follower.pk}/undo", keyed())
    assert (fact(undone, path)["proposed"], fact(undone, path)["text"]) == (True, before)


def test_a_plan_with_proposed_values_is_not_released_until_both_sides_look_right(planner, follower):
    propose(planner, follower)
    _, plan = settle(planner, follower, 1)
    page = planner.get(f"/api/runs/{follower.pk}/releases").json()
    assert any("Side 1 and Side 2 still have values that were proposed" in r for r in page["reasons"])
    codes = [c["code"] for c in page["cautions"]]
    body = keyed(base_revision=2, confirmed=codes, note="")
    assert planner.send(f"runs/{follower.pk}/releases", body)[0] == 409
    first, second = (s["id"] for s in plan["sides"])
    _, one = looks_right(planner, follower, first, 2)
    assert [s["proposed"] > 0 for s in one["sides"]] == [False, True]
    status, both = looks_right(planner, follower, second, 3)
    assert (status, marks(both), both["verdict"]) == (200, 0, "settled")
    assert planner.get(f"/api/runs/{follower.pk}/releases").json()["reasons"] == []
    text = planner.get(f"/api/runs/{follower.pk}/history").json()["entries"][0]["text"]
    assert "Side 2 looks right" in text
    _, undone = planner.send(f"runs/{follower.pk}/undo", keyed())
    assert [s["proposed"] > 0 for s in undone["sides"]] == [False, True]
    text = planner.get(f"/api/runs/{follower.pk}/history").json()["entries"][0]["text"]
    assert text == "undone: Side 2 looks right"
    body = keyed(base_revision=5, confirmed=codes, note="")
    assert planner.send(f"runs/{follower.pk}/releases", body)[0] == 409


def test_one_undo_takes_the_whole_proposal_back_and_one_redo_brings_it_again(planner, follower):
    empty = Run.objects.get(pk=follower.pk).document
    propose(planner, follower)
    settle(planner, follower, 1)
    settled = Run.objects.get(pk=follower.pk).document
    _, plan = planner.send(f"runs/{follower.pk}/undo", keyed())
    assert (Run.objects.get(pk=follower.pk).document, len(plan["sides"]), marks(plan)) == (empty, 1, 0)
    assert (plan["undo"], plan["redo"]) == (False, True)
    _, plan = planner.send(f"runs/{follower.pk}/redo", keyed())
    assert (Run.objects.get(pk=follower.pk).document, plan["verdict"]) == (settled, "settled")
    _, plan = planner.send(f"runs/{follower.pk}/undo", keyed())
    assert (Run.objects.get(pk=follower.pk).document, plan["undo"]) == (empty, False)


def test_a_proposal_that_was_not_settled_yet_is_undone_alone(planner, follower):
    empty = Run.objects.get(pk=follower.pk).document
    propose(planner, follower)
    planner.send(f"runs/{follower.pk}/undo", keyed())
    assert Run.objects.get(pk=follower.pk).document == empty


def test_what_a_person_decided_stays(planner, follower):
    assert planner.edit(follower, "setups.s1.force.pressure_bar", text="22")[0] == 200
    assert planner.edit(follower, "sides.first_end", value="a", base_revision=1)[0] == 200
    assert planner.edit(follower, "setups.s1.jaw_blank", value="l3-steel-64", base_revision=2)[0] == 200
    propose(planner, follower, 3)
    _, plan = settle(planner, follower, 4)
    assert fact(plan, "setups.s1.force.pressure_bar")["text"] == "22.0"
    assert fact(plan, "setups.s1.force.pressure_bar")["proposed"] is False
    assert stop(plan, "sides")["line"] == "flange end first"
    kept = Run.objects.get(pk=follower.pk)
    assert kept.setups.order_by("pk")[0].jaw_blank.key == "l3-steel-64"


def test_a_figure_of_a_proposed_cut_that_somebody_changed_is_not_settled_away(planner, follower):
    propose(planner, follower)
    settle(planner, follower, 1)
    cut = Run.objects.get(pk=follower.pk).document["setups"][0]["cuts"][0]["id"]
    path = f"setups.s1.cuts.{cut}.feed_mm_rev"
    assert planner.edit(follower, path, text="0.21", base_revision=2)[0] == 200
    assert propose(planner, follower, 3)[0] == 200
    settle(planner, follower, Run.objects.get(pk=follower.pk).revision)
    kept = next(c for c in Run.objects.get(pk=follower.pk).document["setups"][0]["cuts"] if c["id"] == cut)
    assert (kept["feed_mm_rev"], kept["pin_feed"]) == (0.21, False)


@pytest.mark.parametrize(
    ("left_out", "path"),
    [
        ("machine", "machine"),
        ("material", "material"),
        ("stock_diameter", "part.stock.diameter_mm"),
        ("outside", "part.profile.outside.o1.diameter_mm"),
    ],
)
def test_what_is_missing_is_told_at_its_field(left_out, path, planner):
    given = {k: v for k, v in FOLLOWER.items() if k not in (left_out, "stock_length")}
    _, made = planner.send("runs", given)
    status, problem = propose(planner, Run.objects.get(pk=made["id"]))
    assert status == 422
    assert path in [e["field"] for e in problem["errors"]]
    assert Edit.objects.count() == 0


def test_an_operator_proposes_nothing(operator, planner, follower):
    assert propose(operator, follower)[0] == 403
    assert looks_right(operator, follower, "s1", 0)[0] == 403


def test_marks_go_with_a_copy_and_with_a_file(planner, follower):
    propose(planner, follower)
    status, made = planner.send(f"runs/{follower.pk}/copy", {"name": "Another", "drawing_number": "LH-2261"})
    assert status == 201
    assert marks(planner.plan(Run.objects.get(pk=made["id"]))) > 20


def test_a_run_whose_proposal_was_settled_and_undone_can_be_taken_off(planner, follower):
    propose(planner, follower)
    settle(planner, follower, 1)
    planner.send(f"runs/{follower.pk}/undo", keyed())
    assert planner.delete(f"/api/runs/{follower.pk}").status_code == 204
    assert not Edit.objects.filter(run_id=follower.pk).exists()
