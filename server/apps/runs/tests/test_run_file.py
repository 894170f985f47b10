"""A run saved as a file and read in again: here, in a shop that has nothing of it, and in one that differs."""

import json

import pytest

from calc.plan.run_file import write_run
from commands.plan import opened
from server.apps.runs.models import Run
from server.apps.shelf.models import Chuck, JawBlank, JawSet, Machine, Material, Plug, Ring, ShelfChange, Tool


def saved(client, run):
    answer = client.get(f"/api/runs/{run.pk}/file")
    assert answer.status_code == 200
    assert f'filename="{run.drawing_number}.json"' in answer["Content-Disposition"]
    return answer.content.decode()


def read_in(client, text):
    return client.send("runs/file", {"text": text})


def figures(plan):
    """What a plan says at every stop."""
    return [(s["key"], s["state"], s["line"]) for s in plan["stops"]]


def test_a_run_read_in_where_it_was_saved_is_the_same_plan(planner, demo):
    before = Tool.objects.count(), ShelfChange.objects.count()
    status, made = read_in(planner, saved(planner, demo))
    assert (status, made["told"]) == (201, [])
    again = Run.objects.get(pk=made["id"])
    assert again.pk != demo.pk
    assert again.document == demo.document
    assert figures(planner.plan(again)) == figures(planner.plan(demo))
    assert (Tool.objects.count(), ShelfChange.objects.count()) == before


def test_in_a_shop_that_has_nothing_of_it_what_it_names_comes_onto_the_shelf_typical(planner, demo):
    text, was = saved(planner, demo), figures(planner.plan(demo))
    named = {k for cut in demo.document["setups"][0]["cuts"] for k in cut["tool"].split("/") if k}
    Run.objects.all().delete()
    for model in (JawSet, JawBlank, Ring, Plug, Chuck, Machine, Material, Tool):
        model.objects.all().delete()
    status, made = read_in(planner, text)
    assert status == 201, made
    assert any(t.startswith("Chuck “") and "put on the shelf" in t for t in made["told"])
    assert set(Tool.objects.values_list("key", flat=True)) == named
    chuck = Chuck.objects.get()
    assert (chuck.machine.key, chuck.blanks.count(), "max_grip_n" in chuck.typical) == ("lathe-3", 1, True)
    now = figures(planner.plan(Run.objects.get(pk=made["id"])))
    # Without the rest of the shelf other tools cannot be looked for; what holds and cuts is the same.
    assert [f for f in now if not f[0].startswith("tools")] == [f for f in was if not f[0].startswith("tools")]


def test_what_differs_here_is_told_and_the_shelfs_own_is_used(planner, demo):
    file = json.loads(saved(planner, demo))
    file["shelf"]["setups"][0]["chuck"]["max_rpm"] = 9000
    file["document"]["rules"]["safety"] = 1.6
    status, made = read_in(planner, json.dumps(file))
    assert status == 201
    assert any("the shelf's own figures are used; the file has others (Top speed)" in t for t in made["told"])
    assert any("this shop's house rules" in t for t in made["told"])
    run = Run.objects.get(pk=made["id"])
    assert run.document["rules"]["safety"] == demo.document["rules"]["safety"] != 1.6
    assert figures(planner.plan(run)) == figures(planner.plan(demo))


@pytest.mark.parametrize(
    ("spoilt", "field", "says"),
    [
        (lambda f: "{", "file", "not a JSON file"),
        (lambda f: json.dumps({"format": "something"}), "format", "no run of Noble Anvil"),
        (lambda f: json.dumps(f | {"name": 7}), "name", "Name"),
        (lambda f: _with(f, ["document", "part", "quantity"], -3), "document.part.quantity", "1"),
        (lambda f: _with(f, ["shelf", "machine", "key"], "No Key!"), "shelf.machine", "small letters"),
        (lambda f: _with(f, ["shelf", "machine", "key"], "other"), "shelf.machine", "under another key"),
    ],
)
def test_a_bad_file_gets_its_sentence_and_nothing_half(planner, demo, spoilt, field, says):
    counts = Run.objects.count(), Machine.objects.count(), ShelfChange.objects.count()
    status, answer = read_in(planner, spoilt(json.loads(saved(planner, demo))))
    assert status == 422
    told = {e["field"]: e["message"] for e in answer["errors"]}
    assert says in told[field]
    assert (Run.objects.count(), Machine.objects.count(), ShelfChange.objects.count()) == counts


def _with(file, path, value):
    *to, last = path
    at = file
    for name in to:
        at = at[name]
    at[last] = value
    return json.dumps(file)


def test_a_chuck_that_is_on_no_known_machine_is_asked_for(planner, demo):
    file = json.loads(saved(planner, demo))
    file["shelf"]["setups"][0]["on_machine"] = False
    file["shelf"]["setups"][0]["chuck"]["key"] = "elsewhere"
    status, answer = read_in(planner, json.dumps(file))
    assert (status, answer["errors"][0]["field"]) == (422, "shelf.setups.0.chuck")


def test_the_command_line_opens_the_same_file(planner, demo, tmp_path):
    text = saved(planner, demo)
    file = tmp_path / "run.json"
    file.write_text(text)
    assert write_run(opened(str(file))) == text


@pytest.mark.parametrize(
    ("force", "counted"),
    [
        ({"condition": "today"}, "auto"),
        ({"condition": "measured", "condition_measured": 1.1, "condition_date": "2026-11-20"}, "auto"),
        ({"condition": "week"}, "auto"),
    ],
)
def test_what_was_seen_of_another_chuck_counts_for_none_here(planner, demo, force, counted):
    file = json.loads(saved(planner, demo))
    setup = file["document"]["setups"][0]
    setup["force"] |= force
    setup["jaws"] |= {"reading_mm": 83.6, "feeler_mm": 0.05, "blue": "tip"}
    status, made = read_in(planner, json.dumps(file))
    assert status == 201
    assert any("What was seen at a machine is not taken" in t for t in made["told"])
    kept = Run.objects.get(pk=made["id"]).document["setups"][0]
    assert kept["force"]["condition"] == counted
    assert (kept["force"]["condition_measured"], kept["force"]["condition_date"]) == (None, None)
    assert (kept["jaws"]["reading_mm"], kept["jaws"]["feeler_mm"], kept["jaws"]["blue"]) == (None, None, "none")


def test_a_jaw_set_of_another_shop_is_no_jaw_set_here(planner, demo):
    plug = Run.objects.get(drawing_number="LH-2215")
    sets = JawSet.objects.count()
    file = json.loads(saved(planner, plug))
    if file["shelf"]["setups"][0]["jaw_set"] is None:
        file["shelf"]["setups"][0]["jaw_set"] = file["shelf"]["setups"][0]["jaw_sets"][0]
    # Another set, which happens to have the same key: refitting it without a cut would be wrong.
    file["shelf"]["setups"][0]["jaw_set"]["bored_mm"] = 30.0
    status, made = read_in(planner, json.dumps(file))
    assert status == 201
    assert any("planned anew, from the blank" in t for t in made["told"])
    setup = Run.objects.get(pk=made["id"]).setups.get()
    assert (setup.jaw_set_id, setup.jaw_blank.key) == (None, file["shelf"]["setups"][0]["blank"]["key"])
    assert JawSet.objects.count() == sets
