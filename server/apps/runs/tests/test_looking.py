"""What is sent of a plan: lines in full, parts as they are asked for, and nothing twice."""

from __future__ import annotations

import gzip
import json
import uuid

import pytest

from server.apps.runs.models import Edit
from server.apps.runs.tests.test_releases import release

PRESSURE = "setups.s1.force.pressure_bar"
FORCE = "stop:force-s1"


def looked(client, run, **asked):
    answer = client.get(f"/api/runs/{run.pk}/plan", {"units": "metric", "stop": "force-s1", **asked})
    assert answer.status_code == 200, answer.content
    return answer.json()


def post(client, run, what, **body):
    answer = client.generic("POST", f"/api/runs/{run.pk}/{what}", json.dumps(body), content_type="application/json")
    return answer.status_code, answer.json()


def previewed(client, run, text, **asked):
    status, view = post(client, run, "preview", path=PRESSURE, text=text, stop="force-s1", **asked)
    assert status == 200, view
    return view


def parts(view):
    return {p["name"]: p for p in view["parts"]}


def held(view):
    return [f"{p['name']}={p['digest']}" for p in view["parts"]]


def test_the_open_stop_comes_in_full_and_of_the_others_their_lines(planner, demo):
    view = looked(planner, demo)
    assert [s["key"] for s in view["stops"]][:3] == ["part", "sides", "hold-s1"]
    assert {"state", "line", "notes", "problems"} <= set(view["stops"][0])
    assert view["view"] == "drawing:s1:chart"
    assert set(parts(view)) == {FORCE, "drawing:s1:chart"}
    assert parts(view)[FORCE]["stop"]["heading"] == "What makes the grip, and what takes it"
    assert view["sides"][0]["carry"][0]["name"] == "pressure"
    # A stop that is gone leads to the first of its name, one that never was to the first of all.
    assert set(parts(looked(planner, demo, stop="force-s9"))) == {FORCE, "drawing:s1:chart"}
    assert "stop:part" in parts(looked(planner, demo, stop="nothing"))


def test_the_picture_is_the_one_asked_for_where_the_stop_has_it(planner, demo):
    assert looked(planner, demo, stop="jaws-s1", picture="travel")["view"] == "drawing:s1:travel"
    assert looked(planner, demo, stop="jaws-s1", picture="chart")["view"] == "drawing:s1:section"
    assert looked(planner, demo, stop="part", setup="s1")["view"] == "drawing:s1:part"


def test_what_is_held_and_equal_is_left_out_and_what_differs_comes(planner, demo):
    first = looked(planner, demo)
    again = looked(planner, demo, held=held(first))
    assert [set(p) for p in again["parts"]] == [{"name", "digest"}] * 2
    assert (again["stops"], again["sides"]) == (first["stops"], first["sides"])  # these always come in full
    kept = {"base_revision": 0, "key": str(uuid.uuid4()), "stop": "force-s1", "held": held(first)}
    status, after = post(planner, demo, "edits", path=PRESSURE, text="27", **kept)
    assert status == 200
    assert parts(after)[FORCE]["stop"]["facts"] != parts(first)[FORCE]["stop"]["facts"]
    assert parts(after)[FORCE]["digest"] != parts(first)[FORCE]["digest"]


@pytest.mark.parametrize("asked", [{"units": "inch"}, {"units": "metric", "as": "setter"}])
def test_a_digest_of_other_units_or_of_another_role_is_no_other_ones(planner, signed_in, demo, asked):
    """Also where the content reads the same: what one may do with it does not."""
    first = looked(planner, demo, stop="sides")
    other = signed_in(asked.pop("as", "planner"))
    seen = looked(other, demo, stop="sides", held=held(first), **asked)
    shared = set(parts(first)) & set(parts(seen))
    assert shared
    for name in shared:
        assert parts(seen)[name]["digest"] != parts(first)[name]["digest"], name
        assert len(parts(seen)[name]) == 3, name  # with its content


def test_a_preview_lies_over_the_kept_plan_and_is_never_kept(planner, demo):
    kept = looked(planner, demo)
    one = previewed(planner, demo, "27", held=held(kept))
    assert len(parts(one)[FORCE]) == 3
    # The digests of a preview mean nothing to the next one: its parts are compared with the kept plan's alone.
    two = previewed(planner, demo, kept_pressure(kept), held=held(kept))
    assert [set(p) for p in two["parts"]] == [{"name", "digest"}] * 2
    assert (two["moved"], two["stops"]) == ([], kept["stops"])
    assert Edit.objects.count() == 0
    assert looked(planner, demo)["parts"] == kept["parts"]


def kept_pressure(view):
    return next(f["edit_text"] for f in parts(view)[FORCE]["stop"]["facts"] if f["name"] == "pressure")


def test_what_moved_is_told_by_the_server_for_lines_carried_figures_and_the_open_stop(planner, demo):
    kept = looked(planner, demo)
    moved = {m["name"]: m["was"] for m in previewed(planner, demo, "27")["moved"]}
    assert moved["carry:s1:pressure"] == kept["sides"][0]["carry"][0]["text"]
    assert moved["stop:force-s1"] == next(s["line"] for s in kept["stops"] if s["key"] == "force-s1")
    assert moved["answer:force-s1:cap"] == parts(kept)[FORCE]["stop"]["answers"][0]["number"]
    facts = {f["name"]: f["text"] for f in parts(kept)[FORCE]["stop"]["facts"]}
    assert moved["fact:force-s1:pressure"] == facts["pressure"]
    assert not any(name.startswith("stop:part") for name in moved)


def test_what_somebody_else_moved_is_told_against_the_draft_one_had(planner, signed_in, demo):
    assert planner.edit(demo, PRESSURE, text="27")[0] == 200
    seen = looked(signed_in("owner"), demo, since=0)
    assert "carry:s1:pressure" in {m["name"] for m in seen["moved"]}
    assert looked(signed_in("owner"), demo, since=1)["moved"] == []
    assert looked(signed_in("owner"), demo)["moved"] == []


def test_late_parts_are_of_the_kept_plan_or_of_an_entry_and_say_of_which(planner, demo):
    names = ["helps:force-s1", "tables:hold-s1", "working:force-s1:cap", "drawing:s1:front", "no:such", "helps:no-s1"]
    status, found = post(planner, demo, "parts", names=names)
    assert (status, found["path"], found["revision"]) == (200, None, 0)
    assert found["moment"] == looked(planner, demo)["moment"]
    assert set(parts(found)) == set(names[:4])  # what the plan has not got is left out
    assert parts(found)["working:force-s1:cap"]["steps"]
    entry = {"path": PRESSURE, "text": "27"}
    _, then = post(planner, demo, "parts", names=names, entry=entry, held=held(found))
    assert then["path"] == PRESSURE
    assert len(parts(then)["working:force-s1:cap"]) == 3  # another cap, another working
    assert len(parts(then)["drawing:s1:front"]) == 2  # the front has nothing to do with the pressure
    assert post(planner, demo, "parts", names=names, entry={"path": PRESSURE, "text": "much"})[0] == 422


def test_the_moment_changes_with_the_draft_and_with_the_shelf(planner, demo):
    first = looked(planner, demo)["moment"]
    assert previewed(planner, demo, "27")["moment"] == first
    chuck = {"fields": {"max_rpm": "3000"}, "base_revision": 0}
    assert planner.send("shelf/chuck/items/lathe-3-chuck", chuck, "patch")[0] == 200
    second = looked(planner, demo)["moment"]
    planner.edit(demo, PRESSURE, text="27")
    assert len({first, second, looked(planner, demo)["moment"]}) == 3


def test_a_release_is_always_whole(planner, operator, demo):
    assert release(planner, demo)[0] == 200
    seen = looked(operator, demo)
    again = looked(operator, demo, held=held(seen))
    assert all(len(p) == 3 for p in again["parts"])
    names = {p["name"] for p in again["parts"]}
    for stop in seen["stops"]:
        assert {f"{what}:{stop['key']}" for what in ("stop", "helps", "tables", "pictures")} <= names
    assert again["at"] == 0


def test_a_preview_asks_the_database_little_and_its_answer_is_small(planner, demo, django_assert_max_num_queries):
    previewed(planner, demo, "27")
    with django_assert_max_num_queries(6):
        answer = planner.generic(
            "POST",
            f"/api/runs/{demo.pk}/preview",
            json.dumps({"path": PRESSURE, "text": "27.5", "stop": "force-s1"}),
            content_type="application/json",
            headers={"Accept-Encoding": "gzip"},
        )
    assert answer["Content-Encoding"] == "gzip"
    assert len(answer.content) <= 8_000
    assert len(gzip.decompress(answer.content)) <= 25_000


def test_the_find_box_asks_for_facts_of_the_plan_in_view(planner, operator, demo):
    found = planner.get("/api/find", {"words": "gauge pressure", "run": demo.pk}).json()
    (hit,) = [h for h in found if h["kind"] == "fact"]
    assert (hit["key"], hit["title"]) == (f"{demo.pk}/force-s1#pressure", "Gauge pressure")
    assert "bar · Force" in hit["detail"]
    psi = planner.get("/api/find", {"words": "gauge pressure", "run": demo.pk, "units": "inch"}).json()
    assert "psi" in next(h["detail"] for h in psi if h["kind"] == "fact")
    assert [h for h in planner.get("/api/find", {"words": "gauge pressure"}).json() if h["kind"] == "fact"] == []
    # Who sees releases alone is told nothing of a draft.
    assert operator.get("/api/find", {"words": "gauge pressure", "run": demo.pk}).json() == []
    assert planner.get("/api/find", {"words": "gauge", "run": 10**6}).status_code == 404
