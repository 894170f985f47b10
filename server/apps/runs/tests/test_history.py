"""Undo, redo, the history in sentences, earlier drafts viewed and restored."""

import uuid

import pytest

from server.apps.runs.models import Edit, Run
from server.apps.runs.tests.test_edits import LINE, PRESSURE, SPIGOT, fact, names, stop
from server.apps.runs.tests.test_own_runs import item, remove

BLANK = "setups.s1.jaw_blank"
CLAMP = "setups.s1.clamp_rpm"


def undo(client, run, way="undo", key=None):
    return client.send(f"runs/{run.pk}/{way}", {"key": key or str(uuid.uuid4())})


def edit(client, run, path, **entry):
    run.refresh_from_db()
    return client.edit(run, path, **entry)


def texts(client, run, query=""):
    return [e["text"] for e in client.get(f"/api/runs/{run.pk}/history{query}").json()["entries"]]


def test_undo_and_redo_across_stops_by_inverse_edits(demo, planner):
    start = planner.plan(demo)
    edit(planner, demo, SPIGOT, text="3 1/4 in")
    edit(planner, demo, BLANK, value="l3-aluminium-50")
    changed = planner.plan(demo)
    assert (changed["undo"], changed["redo"]) == (True, False)
    _, plan = undo(planner, demo)
    assert fact(plan, BLANK)["value"] == "l3-steel-50"
    assert (plan["undo"], plan["redo"]) == (True, True)
    _, plan = undo(planner, demo)
    assert fact(plan, LINE)["text"].startswith("84 ")
    assert (plan["undo"], plan["redo"], plan["revision"]) == (False, True, 4)
    assert [s["line"] for s in plan["stops"]] == [s["line"] for s in start["stops"]]
    _, plan = undo(planner, demo, "redo")
    assert fact(plan, LINE)["text"].startswith("82.55 ")
    _, plan = undo(planner, demo, "redo")
    assert [s["line"] for s in plan["stops"]] == [s["line"] for s in changed["stops"]]
    assert undo(planner, demo, "redo")[0] == 409
    assert Edit.objects.count() == 6  # nothing is ever taken out of the history


def test_undo_goes_on_where_redo_came_from(demo, planner):
    for text in ("27", "26"):
        edit(planner, demo, PRESSURE, text=text)
    for way, shown in (("undo", "27.0"), ("redo", "26.0"), ("undo", "27.0"), ("undo", "28.0"), ("redo", "27.0")):
        assert fact(undo(planner, demo, way)[1], PRESSURE)["text"] == shown
    edit(planner, demo, CLAMP, text="650")  # a new edit ends what could be redone
    assert undo(planner, demo, "redo")[0] == 409
    assert fact(undo(planner, demo)[1], CLAMP)["text"] == "600"
    assert fact(undo(planner, demo)[1], PRESSURE)["text"] == "28.0"
    status, said = undo(planner, demo)
    assert (status, said["title"]) == (409, "You have nothing to undo in this run.")


def test_undo_is_ones_own_only(demo, planner, signed_in):
    owner = signed_in("owner")
    edit(planner, demo, PRESSURE, text="27")
    edit(owner, demo, CLAMP, text="650")
    assert fact(undo(planner, demo)[1], PRESSURE)["text"] == "28.0"
    assert fact(planner.plan(demo), CLAMP)["text"] == "650"
    assert undo(planner, demo)[0] == 409
    assert fact(undo(owner, demo)[1], CLAMP)["text"] == "600"


def test_undo_is_refused_where_somebody_changed_the_field_since(demo, planner, signed_in):
    owner = signed_in("owner")
    edit(planner, demo, PRESSURE, text="27")
    edit(owner, demo, PRESSURE, text="26")
    status, said = undo(planner, demo)
    assert status == 409
    assert said["title"] == (
        "Gauge pressure is not undone: owner changed it after you, 27\xa0bar → 26\xa0bar. Change it by hand if you "
        "want to."
    )
    undo(owner, demo)  # they took it back, but the field was theirs in between
    assert undo(planner, demo)[0] == 409


def test_a_cut_put_in_by_somebody_else_does_not_keep_one_from_undoing(demo, planner, signed_in):
    edit(planner, demo, "setups.s1.cuts.c2.feed_mm_rev", text="0.2")
    item(signed_in("owner"), demo, "setups.s1.cuts", "Skim", "turn")
    status, plan = undo(planner, demo)
    assert (status, fact(plan, "setups.s1.cuts.c2.feed_mm_rev")["text"]) == (200, "0.15")


def test_undo_in_a_cut_is_refused_where_somebody_took_it_out(demo, planner, signed_in):
    edit(planner, demo, "setups.s1.cuts.c2.feed_mm_rev", text="0.2")
    assert remove(signed_in("owner"), demo, "setups.s1.cuts.c2")[0] == 200
    status, said = undo(planner, demo)
    assert (status, "Rough flange: feed is not undone: owner changed it" in said["title"]) == (409, True)


def test_a_cut_taken_out_comes_back_where_it_was_with_all_that_was_said_of_it(demo, planner):
    before = Run.objects.get(pk=demo.pk).document
    remove(planner, demo, "setups.s1.cuts.c2")
    assert names(planner.plan(demo), "cuts") == ["Face", "Finish flange"]
    undo(planner, demo)
    assert Run.objects.get(pk=demo.pk).document == before
    assert texts(planner, demo)[1].startswith("Rough flange taken out")


def test_an_id_that_was_taken_out_is_never_given_again(demo, planner):
    _, plan = item(planner, demo, "setups.s1.cuts", "Skim", "turn")
    made = stop(plan, "cuts")["lists"][0]["items"][-1]["id"]
    remove(planner, demo, f"setups.s1.cuts.{made}")
    assert Run.objects.get(pk=demo.pk).gone == [made]


def test_sending_an_undo_twice_undoes_once(demo, planner):
    for text in ("27", "26"):
        edit(planner, demo, PRESSURE, text=text)
    key = str(uuid.uuid4())
    assert [fact(undo(planner, demo, key=key)[1], PRESSURE)["text"] for _ in range(2)] == ["27.0", "27.0"]
    assert Edit.objects.count() == 3


def test_a_setter_changes_and_undoes_the_chucks_condition_and_nothing_else(demo, signed_in):
    setter = signed_in("setter")
    plan = setter.plan(demo)
    assert [f["path"] for s in plan["stops"] for f in s["facts"] if f["editable"]] == [
        "setups.s1.jaws.feeler_mm",
        "setups.s1.jaws.blue",
        "setups.s1.force.condition",
    ]
    status, plan = edit(setter, demo, "setups.s1.force.condition", value="measured")
    assert (status, stop(plan, "force")["line"]) == (200, "measured factor, measured on missing")
    assert edit(setter, demo, "setups.s1.force.condition_measured", text="0.8")[0] == 200
    assert edit(setter, demo, "setups.s1.force.condition_date", text="2026-11-20")[0] == 200
    status, said = edit(setter, demo, PRESSURE, text="27")
    assert (status, "A setter changes" in said["title"]) == (403, True)
    for _ in range(3):
        assert undo(setter, demo)[0] == 200
    assert fact(setter.plan(demo), "setups.s1.force.condition")["value"] == "unknown"


def test_the_history_reads_as_sentences(demo, planner, signed_in):
    edit(planner, demo, PRESSURE, text="27")
    edit(planner, demo, SPIGOT, text="80")
    edit(planner, demo, BLANK, value="l3-aluminium-50")
    edit(signed_in("setter"), demo, "setups.s1.force.condition", value="today")
    edit(planner, demo, "setups.s1.force.user_max_rpm", text="400")
    undo(planner, demo)
    undo(planner, demo, "redo")
    undo(planner, demo)
    _, plan = item(planner, demo, "setups.s1.cuts", "Skim", "turn")
    skim = stop(plan, "cuts")["lists"][0]["items"][-1]["id"]
    edit(planner, demo, f"setups.s1.cuts.{skim}.feed_mm_rev", text="0.1")
    edit(planner, demo, "name", text="Carrier")
    edit(planner, demo, "put_away", value=True)
    found = texts(planner, demo)[::-1]
    assert found[0].startswith("Gauge pressure 28\xa0bar → 27\xa0bar, cap ")
    assert found[0].count("→") == 2
    assert found[1].startswith("Spigot diameter 84\xa0mm → 80\xa0mm, ")
    assert "bore 84.00\xa0mm → 80.00\xa0mm" in found[1]
    assert found[2].startswith("Top jaw steel 50 high, L3 → aluminium 50 high, L3, cap ")
    assert found[3].startswith("Chuck condition longer or unknown → greased today, cap ")
    assert found[4].startswith("Own speed limit empty → 400\xa0rpm, cap ")
    assert found[4].endswith("now stopped")
    assert found[5].startswith("undone: Own speed limit 400\xa0rpm → empty, cap ")
    assert found[5].endswith("now settled")
    assert found[6].startswith("redone: Own speed limit empty → 400\xa0rpm")
    assert found[7].startswith("undone: ")
    assert found[8].startswith("Skim put in, cap ")
    assert found[8].endswith("→ not known, now open")
    assert found[9] == "Skim: feed empty → 0.1\xa0mm/rev"
    assert found[10] == "Name Seal carrier → Carrier"
    assert found[11] == "put away"
    entries = planner.get(f"/api/runs/{demo.pk}/history").json()["entries"]
    assert [e["by"] for e in entries if e["revision"] == 4] == ["setter"]
    assert "psi" in texts(planner, demo, "?units=inch")[-1]


def test_the_history_comes_in_pages(demo, planner):
    planner.edit(demo, PRESSURE, text="27")
    first = Edit.objects.get()
    Edit.objects.bulk_create(
        Edit(
            run=demo, revision=r, path=PRESSURE, old=27, new=27.5, key=uuid.uuid4(), by=first.by, label="Gauge pressure"
        )
        for r in range(2, 251)
    )
    Run.objects.filter(pk=demo.pk).update(revision=250)
    seen, before = [], ""
    while True:
        page = planner.get(f"/api/runs/{demo.pk}/history{before}").json()
        seen += [e["revision"] for e in page["entries"]]
        if not page["more"]:
            break
        before = f"?before={seen[-1]}"
    assert seen == list(range(250, 0, -1))


def test_an_earlier_draft_is_looked_at_and_brought_back(demo, planner):
    first = planner.plan(demo)
    edit(planner, demo, SPIGOT, text="80")
    edit(planner, demo, BLANK, value="l3-aluminium-50")
    item(planner, demo, "setups.s1.cuts", "Skim", "turn")
    edit(planner, demo, "name", text="Carrier")
    then = planner.plan(demo, at=0)
    assert [s["line"] for s in then["stops"]] == [s["line"] for s in first["stops"]]
    assert (then["at"], then["revision"], then["may_edit"]) == (0, 4, False)
    assert not any(f["editable"] for s in then["stops"] for f in s["facts"])
    between = planner.plan(demo, at=1)
    assert (fact(between, LINE)["text"][:3], fact(between, BLANK)["value"]) == ("80 ", "l3-steel-50")
    assert len(names(planner.plan(demo), "cuts")) == 4  # looking changed nothing
    given = {"revision": 0, "base_revision": 4, "key": str(uuid.uuid4())}
    status, plan = planner.send(f"runs/{demo.pk}/restore", given)
    assert (status, plan["revision"], plan["run"]["name"]) == (200, 5, "Carrier")
    assert [s["line"] for s in plan["stops"]] == [s["line"] for s in first["stops"]]
    assert texts(planner, demo)[0].startswith("back to draft 0, bore ")
    assert planner.send(f"runs/{demo.pk}/restore", given)[1]["revision"] == 5  # the same key again
    _, plan = undo(planner, demo)
    assert (fact(plan, LINE)["text"][:3], fact(plan, BLANK)["value"]) == ("80 ", "l3-aluminium-50")
    assert texts(planner, demo)[0].startswith("undone: the whole plan put back")


def test_a_restore_does_not_run_over_what_somebody_did_meanwhile(demo, planner, signed_in):
    edit(planner, demo, SPIGOT, text="80")
    edit(signed_in("owner"), demo, CLAMP, text="650")
    given = {"revision": 0, "base_revision": 1, "key": str(uuid.uuid4())}
    status, said = planner.send(f"runs/{demo.pk}/restore", given)
    assert (status, "Look at the history again" in said["title"]) == (409, True)
    assert planner.send(f"runs/{demo.pk}/restore", given | {"revision": 9, "base_revision": 2})[0] == 404
    # And an edit from before a restore is a conflict, whatever fact it is of.
    planner.send(f"runs/{demo.pk}/restore", given | {"base_revision": 2})
    assert signed_in("owner").edit(demo, PRESSURE, text="26", base_revision=2)[0] == 409


@pytest.mark.parametrize("seed", range(6))
def test_any_draft_viewed_is_what_it_was(seed, demo, planner):
    import random

    choose = random.Random(seed)
    seen = {0: [s["line"] for s in planner.plan(demo)["stops"]]}
    for _ in range(12):
        demo.refresh_from_db()
        match choose.randrange(5):
            case 0:
                planner.edit(demo, PRESSURE, text=str(choose.randrange(10, 30)))
            case 1:
                planner.edit(demo, BLANK, value=choose.choice(["l3-steel-50", "l3-aluminium-50", "l3-steel-64"]))
            case 2:
                undo(planner, demo, choose.choice(["undo", "redo"]))
            case 3:
                item(planner, demo, "setups.s1.cuts", f"Cut {choose.random():.6f}", "turn")
            case 4:
                given = {"revision": choose.randrange(demo.revision + 1), "base_revision": demo.revision}
                planner.send(f"runs/{demo.pk}/restore", given | {"key": str(uuid.uuid4())})
        now = planner.plan(demo)
        seen[now["revision"]] = [s["line"] for s in now["stops"]]
    for revision, lines in seen.items():
        then = planner.plan(demo, at=revision)
        assert [s["line"] for s in then["stops"]] == lines
