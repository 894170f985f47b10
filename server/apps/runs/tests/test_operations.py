"""Whole operations through the API: proposed, moved, split, settled; tools chosen and found gone."""

import uuid

import pytest

from server.apps.runs.models import Edit, Run
from server.apps.shelf.models import Tool

CUTS = "setups.s1.cuts"


def keyed(**more):
    return {"key": str(uuid.uuid4()), "base_revision": 0} | more


def stop(plan, name, index=0):
    return next(s for s in plan["stops"] if s["name"] == name and s["side"] in (None, index))


def names(plan):
    return [i["name"] for i in next(x for x in stop(plan, "cuts")["lists"])["items"]]


def send(client, run, place, **body):
    return client.send(f"runs/{run.pk}/{place}", keyed(**body))


def test_an_operation_is_moved_and_moved_back_by_undo(planner, demo):
    before = names(planner.plan(demo))
    status, plan = send(planner, demo, "items/move", path=f"{CUTS}.c1", behind="c2")
    assert status == 200
    assert names(plan) == [before[1], before[0], *before[2:]]
    _, undone = planner.send(f"runs/{demo.pk}/undo", {"key": str(uuid.uuid4())})
    assert names(undone) == before
    assert Edit.objects.count() == 2


def test_it_does_not_move_past_the_end(planner, demo):
    status, told = send(planner, demo, "items/move", path=f"{CUTS}.c3", behind="c2")
    assert status == 422
    assert "there already" in told["errors"][0]["message"]
    assert send(planner, demo, "items/move", path="part.profile.outside.o1", behind="o2")[0] == 422
    assert send(planner, demo, "items/move", path=f"{CUTS}.c10", behind="")[0] == 422


def test_one_cut_becomes_roughing_and_finishing(planner, demo):
    status, plan = send(planner, demo, "items/split", path=f"{CUTS}.c2")
    assert status == 200
    assert names(plan)[1:3] == ["Rough flange, roughing", "Rough flange, finishing"]
    rough, finish = Run.objects.get(pk=demo.pk).document["setups"][0]["cuts"][1:3]
    assert (rough["to_diameter_mm"], finish["from_diameter_mm"], finish["to_diameter_mm"]) == (120.0, 120.0, 119.0)
    assert (rough["stage"], finish["stage"]) == ("rough", "finish")


@pytest.mark.parametrize(("cut", "words"), [("c1", "Turning and boring are split"), ("c3", "too little stock")])
def test_what_cannot_be_split_says_why(planner, demo, cut, words):
    status, told = send(planner, demo, "items/split", path=f"{CUTS}.{cut}")
    assert status == 422
    assert words in told["errors"][0]["message"]
    assert Edit.objects.count() == 0


def test_the_proposal_comes_with_tools_and_is_one_edit(planner, demo):
    status, plan = send(planner, demo, "sides/s1/proposal")
    assert status == 200
    assert names(plan)
    assert all(c["tool"] for c in Run.objects.get(pk=demo.pk).document["setups"][0]["cuts"])
    assert "tools for" in stop(plan, "tools")["line"]
    assert Edit.objects.get().path == CUTS


def test_settling_shows_first_and_keeps_only_when_taken(planner, demo):
    before = stop(planner.plan(demo), "cuts")
    status, found = planner.answer(f"runs/{demo.pk}/sides/s1/settle", {"units": "metric"})
    assert status == 200
    assert Edit.objects.count() == 0
    assert len(found["cuts"]) == 3
    assert all(c["binds"] or "nothing" in c["words"] for c in found["cuts"])
    status, plan = send(planner, demo, "sides/s1/settled", question=planner.question)
    assert status == 200
    assert Edit.objects.get().path == "setups.s1"
    assert stop(plan, "force")["state"] == "settled"
    minutes = next(f for f in stop(plan, "cuts")["facts"] if f["name"] == "minutes")["text"]
    assert float(minutes) == pytest.approx(sum(c["after"] for c in found["cuts"]), abs=0.02)
    _, undone = planner.send(f"runs/{demo.pk}/undo", {"key": str(uuid.uuid4())})
    assert stop(undone, "cuts")["facts"] == before["facts"]


def test_one_cut_is_settled_in_inches(planner, demo):
    status, found = planner.answer(f"runs/{demo.pk}/sides/s1/settle", {"cut": "c2", "units": "inch"})
    assert status == 200
    assert "ipr" in found["words"]


def test_somebody_elses_change_since_is_a_conflict(planner, demo):
    planner.send(f"runs/{demo.pk}/edits", keyed(path=f"{CUTS}.c1.feed_mm_rev", text="0.12"))
    planner.answer(f"runs/{demo.pk}/sides/s1/settle", {})
    assert send(planner, demo, "sides/s1/settled", question=planner.question)[0] == 409
    assert send(planner, demo, "items/split", path=f"{CUTS}.c1")[0] == 409
    # Where a cut stands is a fact of its own: moving one merges with a change of its feed.
    assert send(planner, demo, "items/move", path=f"{CUTS}.c1", behind="c2")[0] == 200
    assert send(planner, demo, "items/move", path=f"{CUTS}.c1", behind="c3")[0] == 409


def test_there_is_no_third_side(planner, demo):
    assert planner.answer(f"runs/{demo.pk}/sides/s8/settle", {})[0] == 404
    assert planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c41/tools").status_code == 404
    assert planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c41/proven").status_code == 404


def test_every_tool_is_listed_and_the_rejected_say_why(planner, demo):
    found = planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c2/tools").json()
    assert found["fit"] > 0
    assert found["rejected"] > 0
    assert [t for t in found["tools"] if not t["rejected"]] == found["tools"][: min(found["fit"], 60)]
    one = planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c2/tools?find=VNMG").json()
    assert all("VNMG" in t["name"] for t in one["tools"])


def test_a_chosen_tool_brings_its_figures_and_its_name_to_the_history(planner, demo):
    key = planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c2/tools").json()["tools"][0]["key"]
    status, plan = planner.send(f"runs/{demo.pk}/edits", keyed(path=f"{CUTS}.c2.tool", value=key))
    assert status == 200
    corner = next(f for f in stop(plan, "cuts")["facts"] if f["name"] == "cut_c2_corner_radius_mm")
    assert corner["path"] is None
    assert corner["source"].startswith("of ")
    assert stop(plan, "tools")["pictures"][0]["kind"] == "outline"
    told = planner.get(f"/api/runs/{demo.pk}/history").json()["entries"][0]["text"]
    assert " on " in told
    assert key not in told


def test_a_tool_that_left_the_shelf_stops_its_cut(planner, demo):
    key = planner.get(f"/api/runs/{demo.pk}/sides/s1/cuts/c2/tools").json()["tools"][0]["key"]
    planner.send(f"runs/{demo.pk}/edits", keyed(path=f"{CUTS}.c2.tool", value=key))
    edge = Tool.objects.get(key=key.split("/")[0])
    # While a run takes it, it stays.
    status, told = planner.send(f"shelf/{edge.kind}/items/{edge.key}", None, "delete")
    assert status == 409
    assert "taken by" in told["title"] + str(told)
    _, plan = planner.send(
        f"runs/{demo.pk}/edits", keyed(path=f"{CUTS}.c2.tool", value="no-such/thing", base_revision=1)
    )
    assert stop(plan, "tools")["state"] == "stopped"
    assert "not on the shelf any more" in stop(plan, "tools")["line"]


def test_a_changed_insert_moves_the_plan_that_takes_it(planner, demo):
    send(planner, demo, "sides/s1/proposal")
    plan = planner.plan(demo)
    cut = Run.objects.get(pk=demo.pk).document["setups"][0]["cuts"][0]
    edge = Tool.objects.get(key=cut["tool"].split("/")[0])
    status, item = planner.send(f"shelf/{edge.kind}/preview", {"key": edge.key, "fields": {"rake_deg": "-6"}})
    assert status == 200
    assert [r["id"] for r in item["runs"]] == [demo.pk]
    planner.send(f"shelf/{edge.kind}/items/{edge.key}", {"fields": {"rake_deg": "-6"}, "base_revision": 0}, "patch")
    after = planner.plan(demo)
    force = [
        next(f for f in stop(p, "cuts")["facts"] if f["name"] == f"cut_{cut['id']}_tangential")["text"]
        for p in (plan, after)
    ]
    assert float(force[1]) > float(force[0])
