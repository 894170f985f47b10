"""Releasing: only what is settled, every caution by name, frozen for good, compared, and all an operator sees."""

import json
import uuid

import pytest

from server import kept_demo
from server.apps.runs.models import Release, Run

pytestmark = pytest.mark.django_db
PRESSURE = "setups.s1.force.pressure_bar"
GENERAL = {"limits", "t-nuts", "deburr", "guards", "gauge", "stand-clear", "chips", "coolant", "aid"}


def page(person, run, units="metric"):
    return person.get(f"/api/runs/{run.pk}/releases?units={units}").json()


def release(person, run, **given):
    asked = page(person, run)
    body = {
        "base_revision": asked["revision"],
        "confirmed": [c["code"] for c in asked["cautions"]],
        "key": str(uuid.uuid4()),
    } | given
    return person.send(f"runs/{run.pk}/releases", body)


def test_a_settled_plan_is_released_and_frozen_with_every_figure_and_working(planner, demo):
    before = planner.plan(demo)
    status, answer = release(planner, demo, note=" first  lot ")
    assert status == 200, answer
    made = answer["releases"][0]
    assert (made["number"], made["revision"], made["by"], made["note"]) == (1, 0, "planner", "first lot")
    assert len(made["confirmed"]) == sum(len(c["lines"]) for c in answer["cautions"])
    assert answer["reasons"] == ["This draft is release 1 already, by planner."]
    # The shelf moves on: what was released does not.
    chuck = demo.setups.first().chuck
    type(chuck).objects.update(max_rpm=300)
    then = planner.plan(demo, release=1)
    for s, t in zip(before["stops"], then["stops"], strict=True):
        assert [f["text"] for f in s["facts"]] == [f["text"] for f in t["facts"]]
        assert (s["line"], s["answers"], s["notes"]) == (t["line"], t["answers"], t["notes"])
        assert not any(f["editable"] for f in t["facts"])
    parts = {p["name"]: p for p in then["parts"]}
    workings = [parts[f"working:{s['key']}:{a['name']}"] for s in then["stops"] for a in s["answers"]]
    assert all(w["steps"] for w in workings)
    assert (then["at"], then["may_edit"], then["release"]["number"]) == (0, False, 1)
    assert "gauge" in {c["code"] for c in answer["cautions"]}
    assert planner.plan(demo, "inch", release=1)["units"] == "inch"


@pytest.fixture
def every_run(db):
    """All of the demo: held in jaws, in collets, in a second spindle."""
    kept_demo.begun()
    return list(Run.objects.all())


def test_every_settled_run_of_the_demo_can_be_released_with_the_programs_it_has(every_run, planner):
    for run in every_run:
        status, answer = release(planner, run)
        assert status == 200, (run.name, answer)
        made = run.releases.get()
        written: set[str] = set()
        bored = [s.item for s in run.setups.all() if s.jaw_blank_id and not s.collet_id]
        for setup in run.setups.all():
            asked = planner.get(f"/api/runs/{run.pk}/sides/{setup.item}/jaw-program?release=1")
            draft = planner.get(f"/api/runs/{run.pk}/sides/{setup.item}/jaw-program")
            if draft.status_code == 200:
                assert "RELEASE 1" in asked.content.decode().upper()
                written.add(setup.item)
            elif setup.item in bored:  # what it lacks yet is told
                assert (asked.status_code, draft.status_code) == (404, 409), run.name
            else:  # nothing is bored in a collet
                assert (asked.status_code, draft.status_code) == (404, 404), run.name
                assert "Nothing is bored" in draft.json()["title"]
        assert set(made.programs["metric"]) == written


def test_cautions_are_those_that_always_hold_and_those_of_this_plan(planner, demo):
    cautions = page(planner, demo)["cautions"]
    codes = [c["code"] for c in cautions]
    assert len(codes) == len(set(codes))
    assert set(codes) >= GENERAL
    assert all(c["general"] == (c["code"] in GENERAL) for c in cautions)
    lines = [line for c in cautions for line in c["lines"]]
    assert any(x["where"] == "Force" and "condition is not known" in x["text"] for x in lines)
    texts = [x["text"] for x in lines]
    assert len(texts) == len(set(texts))


def test_a_caution_whose_figure_moved_since_it_was_shown_is_another_one_to_confirm(planner, demo):
    path, found = "setups.s1.cuts.c1.feed_mm_rev", []
    for revision, feed in enumerate(("0.36", "0.37")):
        assert planner.edit(demo, path, text=feed, base_revision=revision)[0] == 200
        found.append({c["code"] for c in page(planner, demo)["cautions"]})
    told = [next(c for c in codes if c.startswith("feed-above-window")) for codes in found]
    assert told[0] != told[1]
    assert found[0] - {told[0]} == found[1] - {told[1]}


def test_every_caution_is_confirmed_one_by_one(planner, demo):
    codes = [c["code"] for c in page(planner, demo)["cautions"]]
    status, answer = release(planner, demo, confirmed=codes[:-1])
    assert status == 422
    assert "1 not confirmed" in answer["errors"][0]["message"]
    assert not Release.objects.exists()


def test_a_stopped_or_open_plan_is_not_released(planner, demo):
    planner.edit(demo, PRESSURE, text="6")
    status, answer = release(planner, demo)
    assert (status, "stopped" in answer["title"]) == (409, True)
    demo.refresh_from_db()
    planner.edit(demo, PRESSURE, text="")
    demo.refresh_from_db()
    assert page(planner, demo)["reasons"] == ["A stop of the plan is still open: give what it lacks first."]
    assert release(planner, demo)[0] == 409


def test_two_people_at_once_and_sending_twice(planner, signed_in, demo):
    key = str(uuid.uuid4())
    assert release(planner, demo, key=key)[0] == 200
    assert release(planner, demo, key=key)[0] == 200  # the same, sent again
    assert Release.objects.count() == 1
    status, answer = release(signed_in("owner"), demo)
    assert (status, answer["title"]) == (409, "This draft is release 1 already, by planner.")


def test_a_plan_that_was_changed_meanwhile_is_looked_at_again(planner, demo):
    planner.edit(demo, PRESSURE, text="28.5")
    status, answer = release(planner, demo, base_revision=0)
    assert status == 409
    assert answer["title"].startswith("planner changed this plan since you looked. Look at it again")


def test_rules_that_changed_during_a_release_are_taken_first(planner, demo):
    planner.send("rules", {"base_number": 1, "values": {"worn": "1.31"}, "reason": "measured in spring"})
    status, answer = release(planner, demo)
    assert status == 409
    assert "house rules changed" in answer["title"]
    planner.edit(demo, "rules", value="today")
    assert release(planner, demo)[0] == 200
    assert Release.objects.get().rules == 2


def test_a_change_makes_a_new_draft_and_the_release_stands(planner, demo):
    release(planner, demo)
    planner.edit(demo, PRESSURE, text="29")
    plan = planner.plan(demo)
    assert (plan["revision"], plan["release"]["revision"]) == (1, 0)
    found = planner.get(f"/api/runs/{demo.pk}/releases/1/differences").json()
    rows = {(r["stop"], r["label"]): (r["before"], r["after"]) for r in found["rows"]}
    assert rows["Force", "Gauge pressure"] == ("28.0 bar", "29.0 bar")
    assert ("Force", "Never above") in rows
    assert ("Part", "Quantity") not in rows
    release(planner, demo)
    both = planner.get(f"/api/runs/{demo.pk}/releases/1/differences?other=2").json()
    assert both["rows"] == found["rows"]
    assert planner.get(f"/api/runs/{demo.pk}/releases/7/differences").status_code == 404


def test_operators_see_what_is_released_and_nothing_else(planner, operator, demo):
    assert operator.get(f"/api/runs/{demo.pk}/plan").status_code == 404
    assert operator.get("/api/runs").json()["rows"] == []
    release(planner, demo)
    planner.edit(demo, PRESSURE, text="29")
    seen = operator.plan(demo)
    assert next(f for s in seen["stops"] for f in s["facts"] if f["path"] == PRESSURE)["text"] == "28.0"
    row = operator.get("/api/runs").json()["rows"][0]
    assert (row["needs"], row["verdict"]) == ("release 1", "settled")
    assert "28.0\xa0bar" in next(x["line"] for x in row["lines"] if x["title"] == "Force")
    assert [f["pressure"] for f in row["figures"]] == ["28.0\xa0bar"]  # the release's, not the draft's
    assert operator.get(f"/api/runs/{demo.pk}/pulse").json()["revision"] == 0
    assert operator.get(f"/api/runs/{demo.pk}/history").status_code == 403
    assert release(planner, demo)[0] == 200
    assert operator.plan(demo, at=0)["release"]["number"] == 2


def test_the_program_of_a_release_says_so_and_stays_as_it_was(planner, operator, demo):
    for path, given in {"setups.s1.jaws.program": {"text": "4711"}, "setups.s1.jaws.spindle": {"value": "M03"}}.items():
        demo.refresh_from_db()
        planner.edit(demo, path, **given)
    draft = planner.get(f"/api/runs/{demo.pk}/sides/s1/jaw-program")
    if draft.status_code == 409:
        pytest.fail(json.loads(draft.content)["title"])
    assert "NOT RELEASED" in draft.content.decode()
    assert release(planner, demo)[0] == 200
    text = operator.get(f"/api/runs/{demo.pk}/sides/s1/jaw-program").content.decode()
    assert "RELEASE 1 OF DRAFT 2" in text
    assert "NOT RELEASED" not in text
    assert operator.get(f"/api/runs/{demo.pk}/sides/s6/jaw-program").status_code == 404


def test_a_released_run_is_not_deleted(planner, demo):
    release(planner, demo)
    assert planner.send(f"runs/{demo.pk}", None, "delete")[0] == 409
    assert Run.objects.filter(pk=demo.pk).exists()
