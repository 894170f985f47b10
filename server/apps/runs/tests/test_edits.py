"""Keeping and previewing edits on real PostgreSQL."""

import uuid

import pytest

from server.apps.runs.models import Edit, Run

PRESSURE = "setups.s1.force.pressure_bar"
SPIGOT = "part.profile.outside.o1.diameter_mm"
LINE = "part.profile.outside.o1"


def stop(plan, name):
    return next(s for s in plan["stops"] if s["name"] == name)


def names(plan, name):
    """The names of the items of a stop's list."""
    return [i["name"] for i in stop(plan, name)["lists"][0]["items"]]


def carried(plan, name, side=0):
    """What is carried to the machine."""
    return next(c["text"] for c in plan["sides"][side]["carry"] if c["name"] == name)


def fact(plan, path):
    return next(f for s in plan["stops"] for f in s["facts"] if f["path"] == path)


def test_the_demo_is_settled_under_the_defaults(demo, planner):
    for run in Run.objects.all():
        plan = planner.plan(run)
        assert plan["verdict"] == "settled", [(s["title"], s["line"]) for s in plan["stops"]]
    assert fact(planner.plan(demo), "setups.s1.force.condition")["value"] == "unknown"
    assert next(f for f in stop(planner.plan(demo), "force")["facts"] if f["name"] == "safety")["text"] == "2"


def test_an_edit_is_kept_once_with_its_history(demo, planner):
    status, plan = planner.edit(demo, SPIGOT, text="3 1/4 in")
    assert (status, plan["revision"]) == (200, 1)
    assert fact(plan, LINE)["text"].startswith("82.55 ")
    assert carried(plan, "bore") == "82.55\xa0mm"
    kept = Edit.objects.get()
    assert (kept.path, kept.old, kept.new, kept.typed) == (SPIGOT, 84.0, 82.55, "3 1/4 in")
    assert kept.by.username == "planner"
    assert carried(planner.plan(demo), "bore") == "82.55\xa0mm"


def test_sending_twice_keeps_once(demo, planner):
    key = str(uuid.uuid4())
    first = planner.edit(demo, PRESSURE, text="27", key=key)
    second = planner.edit(demo, PRESSURE, text="27", key=key)
    assert [first[0], second[0]] == [200, 200]
    assert first[1]["revision"] == second[1]["revision"] == 1
    assert Edit.objects.count() == 1
    other = Run.objects.get(drawing_number="LH-2215")
    assert planner.edit(other, PRESSURE, text="12", key=key)[0] == 409


def test_the_same_value_is_no_edit(demo, planner):
    assert planner.edit(demo, PRESSURE, text="28 bar")[1]["revision"] == 0
    assert not Edit.objects.exists()


def test_a_preview_saves_nothing(demo, planner):
    before = planner.plan(demo)
    status, seen = planner.preview(demo, PRESSURE, text="24")
    assert status == 200
    assert stop(seen, "force")["line"] != stop(before, "force")["line"]
    status, seen = planner.preview(demo, "setups.s1.jaw_blank", value="l3-aluminium-50")
    assert "aluminium" in stop(seen, "hold")["line"]
    assert planner.plan(demo) == before
    assert not Edit.objects.exists()


def test_edits_of_different_facts_merge_and_of_the_same_fact_conflict(demo, planner):
    assert planner.edit(demo, PRESSURE, text="27")[0] == 200
    assert planner.edit(demo, SPIGOT, text="83")[0] == 200  # from the same base, another fact
    status, problem = planner.edit(demo, PRESSURE, text="26")
    assert status == 409
    assert (problem["yours"], problem["theirs"]) == ("26", "27")
    assert planner.plan(demo)["revision"] == 2


def test_choices_flags_and_references_are_edits_too(demo, planner):
    for path, value in [
        ("setups.s1.hold.live_centre", True),
        ("setups.s1.hold.seat", "none"),
        ("material", "c45"),
        ("setups.s1.jaw_blank", "l3-aluminium-50"),
    ]:
        demo.refresh_from_db()
        status, plan = planner.edit(demo, path, value=value)
        assert status == 200, plan
        assert fact(plan, path)["value"] == value
        assert fact(planner.plan(demo), path)["value"] == value
    assert Edit.objects.count() == 4
    assert Edit.objects.get(path="material").old == "1-4462"


def test_a_value_made_wrong_by_another_change_stays_and_its_stop_is_stopped(demo, planner):
    status, plan = planner.edit(demo, "part.profile.outside.o1.length_mm", text="20")
    assert status == 200
    hold = stop(plan, "hold")
    assert hold["state"] == "stopped"
    assert hold["problems"][0]["field"] == "setups.s1.hold.depth_mm"
    assert stop(plan, "force")["line"] == "waiting on Hold"
    assert fact(plan, "setups.s1.hold.depth_mm")["text"] == "22.00"


BAD = [
    (PRESSURE, {"text": "abc"}, "not a figure"),
    (PRESSURE, {"text": ""}, None),  # an empty pressure is a missing fact, not a bad one
    (PRESSURE, {"text": "0"}, "above 0"),
    (PRESSURE, {"text": "-5"}, "above 0"),
    (PRESSURE, {"text": "33"}, "cylinder"),
    (PRESSURE, {"text": "3"}, "chart"),
    (PRESSURE, {"text": "28,500"}, "two ways"),
    (PRESSURE, {"text": "28 mm"}, "not a unit"),
    (PRESSURE, {"value": True}, "figure"),
    ("part.quantity", {"text": "2.5"}, "whole"),
    ("part.edge_mm", {"text": ""}, "cannot be empty"),
    ("part.profile.inside.i1.diameter_mm", {"text": "84"}, "smaller than the spigot"),
    ("part.stock.diameter_mm", {"text": "117"}, "does not clean up the flange"),
    ("setups.s1.hold.depth_mm", {"text": "40.01"}, "plain length"),
    ("setups.s1.hold.seat", {"value": "ceiling"}, "offered"),
    ("setups.s1.hold.live_centre", {"value": "yes"}, "yes or no"),
    ("setups.s1.force.condition_date", {"text": "last week"}, "year-month-day"),
    ("setups.s1.clamp_rpm", {"text": "4501"}, "at most"),
    ("machine", {"value": "lathe-99"}, "on the shelf"),
    ("setups.s8.chuck", {"value": "lathe-3-chuck"}, "no such set-up"),
    ("setups.s1.hold", {"text": "1"}, "no such fact"),
    ("setups.s1.cuts.c10.feed_mm_rev", {"text": "1"}, "no such fact"),
    ("setups.00.force.pressure_bar", {"text": "20"}, "no such fact"),
    ("setups.².force.pressure_bar", {"text": "20"}, "no such fact"),
    ("version", {"text": "4"}, "from 3 to 3"),
]


@pytest.mark.parametrize(("path", "entry", "says"), BAD)
def test_bad_input_is_answered_at_its_field_and_saves_nothing(path, entry, says, demo, planner):
    status, answer = planner.edit(demo, path, **entry)
    if says is None:
        assert status == 200
        assert stop(answer, "force")["state"] == "open"
        return
    assert status == 422
    assert [e["field"] for e in answer["errors"]] == [path]
    assert says in answer["errors"][0]["message"]
    demo.refresh_from_db()
    assert (demo.revision, Edit.objects.count()) == (0, 0)


def test_sentences_come_in_the_units_of_the_screen(demo, planner):
    body = {"path": PRESSURE, "text": "600", "units": "inch"}
    said = planner.send(f"runs/{demo.pk}/preview", body | {"units": "inch"})[1]["errors"][0]["message"]
    assert "psi" in said


def test_units_change_what_is_shown_and_never_what_is_kept(demo, planner):
    metric, inch = planner.plan(demo), planner.plan(demo, "inch")
    assert fact(metric, LINE)["text"] == "84 0/-0.035 x 40"
    assert fact(inch, LINE)["edit_text"].startswith("Spigot: 3.30708661 0/-0.00137795276 x 1.57480315")
    assert inch["stops"][0]["answers"][0]["unit"] == "in"
    status, plan = planner.edit(demo, SPIGOT, text="3.25", units="inch")
    assert (status, fact(plan, LINE)["text"][:5]) == (200, "3.25 ")
    assert fact(planner.plan(demo), LINE)["text"].startswith("82.55 ")


def test_help_offered_by_the_plan_is_taken_as_an_edit(demo, planner):
    _, plan = planner.edit(demo, "setups.s1.force.user_max_rpm", text="400")
    offered = stop(plan, "force")["helps"][0]
    assert stop(plan, "force")["state"] == "stopped"
    demo.refresh_from_db()
    _, after = planner.edit(demo, offered["path"], value=offered["value"])
    assert stop(after, "force")["state"] == "settled"


def test_the_bench_says_what_each_run_needs(demo, planner):
    planner.edit(demo, PRESSURE, text="")
    rows = {r["drawing_number"]: r for r in planner.get("/api/runs").json()["rows"]}
    assert rows["LH-2041"]["verdict"] == "open"
    assert rows["LH-2041"]["needs"] == "Force: gauge pressure missing"
    assert rows["LH-2041"]["next"] == "force-s1"
    assert {line["key"]: line["side"] for line in rows["LH-2041"]["lines"]}["force-s1"] == 0
    assert rows["LH-2215"]["units"] == "inch"
    assert any("in" in line["line"] for line in rows["LH-2215"]["lines"])


def test_the_bench_shows_five_figures_of_each_side_in_the_runs_own_units(demo, planner):
    rows = {r["drawing_number"]: r["figures"] for r in planner.get("/api/runs").json()["rows"]}
    [carrier] = rows["LH-2041"]
    assert (carrier["pressure"], carrier["bore"]) == ("28.0\xa0bar", "84.00\xa0mm")
    assert carrier["clamp"].endswith("rpm")
    assert carrier["minutes"].endswith("min")
    assert all(figure.endswith(("in", "psi", "rpm", "min")) for figure in rows["LH-2215"][0].values())
    planner.edit(demo, PRESSURE, text="")
    rows = {r["drawing_number"]: r["figures"] for r in planner.get("/api/runs").json()["rows"]}
    assert (rows["LH-2041"][0]["pressure"], rows["LH-2041"][0]["depth"] != "") == ("", True)
