"""New runs, copies, names, putting away, deleting, lists, and the bench's order and finding."""

import uuid

import pytest
from django.utils import timezone

from server.apps.runs.models import Edit, Run
from server.apps.runs.tests.test_edits import PRESSURE, fact, names, stop

NEW = {
    "name": "Pump shaft",
    "drawing_number": "LH-3001",
    "machine": "lathe-3",
    "material": "c45",
    "outside": "36.5 x 2 3/8 in",
    "quantity": "24",
}


def make(client, **more):
    return client.send("runs", NEW | more)


def bench(client, query=""):
    return client.get(f"/api/runs{query}").json()


def test_a_new_run_opens_on_an_honest_partial_plan(planner):
    status, made = make(planner)
    assert status == 201
    run = Run.objects.get(pk=made["id"])
    plan = planner.plan(run)
    assert fact(plan, "part.profile.outside.o1")["text"] == "36.5 x 60.325"  # 2 3/8 in
    assert {s["name"]: (s["state"], s["line"]) for s in plan["stops"]} == {
        "part": ("settled", "carbon steel C45 · Ø 36.5 × 60.325\xa0mm"),
        "sides": ("settled", "end A first, as proposed"),
        "hold": ("open", "top jaw missing"),  # the machine has one chuck: nothing to choose there
        "jaws": ("open", "waiting on Hold"),
        "force": ("open", "waiting on Hold"),
        "tools": ("open", "a cut missing"),
        "cuts": ("open", "a cut missing"),
        "route": ("open", "waiting on Cuts"),
    }
    assert plan["verdict"] == "open"
    assert not Edit.objects.exists()


def test_what_is_not_known_yet_may_stay_open(planner):
    status, made = planner.send("runs", {"name": "Pin", "drawing_number": "?", "units": "inch"})
    assert status == 201
    plan = planner.plan(Run.objects.get(pk=made["id"]), "inch")
    assert plan["stops"][0]["line"] == "machine, material, body diameter, body length missing"
    assert (plan["run"]["units"], plan["run"]["machine"], plan["run"]["quantity"]) == ("inch", "", None)


BAD = [
    ({"name": " "}, "name", "cannot be empty"),
    ({"name": "x" * 81}, "name", "80"),
    ({"drawing_number": ""}, "drawing_number", "cannot be empty"),
    ({"outside": "36,500 x 3"}, "outside", "two ways"),
    ({"outside": "36.5 x 60; -3 x 4"}, "outside", "Line 2"),
    ({"inside": "bore"}, "inside", "cannot be read"),
    ({"stock_diameter": "-3"}, "stock_diameter", "above 0"),
    ({"stock_length": "long"}, "stock_length", "not a figure"),
    ({"stock_length": "50"}, "stock_length", "60.325\u00a0mm long"),
    ({"stock_form": "plate"}, "stock_form", "Choose"),
    ({"quantity": "2.5"}, "quantity", "whole"),
    ({"machine": "lathe-99"}, "machine", "on the shelf"),
]


@pytest.mark.parametrize(("wrong", "field", "says"), BAD)
def test_a_bad_new_run_is_answered_at_its_fields_and_nothing_is_made(wrong, field, says, planner):
    status, answer = make(planner, **wrong)
    assert status == 422
    assert [e["field"] for e in answer["errors"]] == [field]
    assert says in answer["errors"][0]["message"]
    assert Run.objects.count() == 2


def test_every_bad_field_of_a_new_run_is_answered_at_once(planner):
    _, answer = make(planner, name="", outside="x", quantity="-1")
    assert {e["field"] for e in answer["errors"]} == {"name", "outside", "quantity"}


def test_a_copy_is_a_run_of_its_own(demo, planner):
    planner.edit(demo, PRESSURE, text="27")
    status, made = planner.send(f"runs/{demo.pk}/copy", {"name": "Seal carrier, long", "drawing_number": "LH-2041"})
    assert status == 201
    copy = Run.objects.get(pk=made["id"])
    copied = copy.document | {"route": demo.document["route"]}  # it waits for a place on the board
    assert copy.document["route"]["start"] is None
    assert (copy.revision, copied, copy.standing["verdict"]) == (0, Run.objects.get(pk=demo.pk).document, "settled")
    assert planner.edit(copy, PRESSURE, text="26")[0] == 200
    assert fact(planner.plan(demo), PRESSURE)["text"] == "27.0"


def test_a_name_is_a_fact_with_its_history(demo, planner):
    status, plan = planner.edit(demo, "name", text="Seal carrier B")
    assert (status, plan["run"]["name"], plan["revision"]) == (200, "Seal carrier B", 1)
    assert bench(planner, "?find=carrier b")["total"] == 1
    demo.refresh_from_db()
    assert planner.edit(demo, "drawing_number", text="")[0] == 422
    assert Edit.objects.get().label == "Name"


def test_a_run_put_away_is_off_the_bench_and_rests_until_it_is_brought_back(demo, planner):
    planner.edit(demo, "put_away", value=True)
    assert [r["drawing_number"] for r in bench(planner)["rows"]] == ["LH-2215"]
    away = bench(planner, "?put_away=true")
    assert [r["drawing_number"] for r in away["rows"]] == ["LH-2041"]
    assert (away["planning"], away["away"]) == (1, 1)
    demo.refresh_from_db()
    status, said = planner.edit(demo, PRESSURE, text="27")
    assert (status, "put away" in said["title"]) == (409, True)
    plan = planner.plan(demo)
    assert not any(f["editable"] for s in plan["stops"] for f in s["facts"])
    assert planner.edit(demo, "put_away", value=False)[0] == 200
    assert bench(planner)["total"] == 2


def test_only_a_run_that_was_never_released_is_deleted(demo, planner):
    planner.edit(demo, PRESSURE, text="27")
    planner.send(f"runs/{demo.pk}/undo", {"key": str(uuid.uuid4())})
    Run.objects.filter(pk=demo.pk).update(released_at=timezone.now())
    status, said = planner.send(f"runs/{demo.pk}", None, "delete")
    assert (status, "Put it away instead" in said["title"]) == (409, True)
    Run.objects.filter(pk=demo.pk).update(released_at=None)
    assert planner.send(f"runs/{demo.pk}", None, "delete")[0] == 204
    assert (Run.objects.count(), Edit.objects.count()) == (1, 0)


def item(client, run, path, name, kind=None):
    return client.send(f"runs/{run.pk}/items", {"path": path, "name": name, "kind": kind, "key": str(uuid.uuid4())})


def remove(client, run, path, base=None):
    run.refresh_from_db()
    given = {"path": path, "base_revision": run.revision if base is None else base}
    return client.send(f"runs/{run.pk}/items/remove", given | {"key": str(uuid.uuid4())})


def test_cuts_are_put_in_and_taken_out(demo, planner):
    status, plan = item(planner, demo, "setups.s1.cuts", "Skim", "turn")
    assert status == 200
    assert stop(plan, "cuts")["line"].startswith("skim feed, skim depth, skim from diameter")
    assert names(plan, "cuts") == ["Face", "Rough flange", "Finish flange", "Skim"]
    made = stop(plan, "cuts")["lists"][0]["items"][-1]["id"]
    assert fact(plan, f"setups.s1.cuts.{made}.feed_mm_rev")["group"] == made
    assert {"key": made, "title": "Skim"} in stop(plan, "cuts")["headings"]
    status, plan = remove(planner, demo, f"setups.s1.cuts.{made}")
    assert (status, stop(plan, "cuts")["state"]) == (200, "settled")


def test_a_second_step_makes_a_flange(demo, planner):
    status, plan = item(planner, demo, "part.profile.outside", "Hub: 90 x 10")
    assert (status, stop(plan, "part")["line"]) == (200, "duplex 1.4462 · Ø 118 × 64\xa0mm")
    assert names(plan, "part") == ["Spigot", "Flange", "Hub"]
    hub = stop(plan, "part")["lists"][0]["items"][-1]["id"]
    assert remove(planner, demo, f"part.profile.outside.{hub}")[0] == 200
    status, said = item(planner, demo, "part.profile.outside", "84,500 x 3")
    assert (status, "two ways" in said["errors"][0]["message"]) == (422, True)


BAD_ITEMS = [
    ("setups.s1.cuts", "", "turn", "a name of up to"),
    ("setups.s1.cuts", "x" * 41, "turn", "40"),
    ("setups.s1.cuts", "Skim", "plane", "turning"),
    ("setups.s1.hold", "Skim", None, "no such list"),
]


@pytest.mark.parametrize(("path", "name", "kind", "says"), BAD_ITEMS)
def test_a_bad_item_is_answered_at_the_list(path, name, kind, says, demo, planner):
    status, answer = item(planner, demo, path, name, kind)
    assert (status, answer["errors"][0]["field"]) == (422, path)
    assert says in answer["errors"][0]["message"]


def test_taking_out_a_cut_that_somebody_changed_is_a_conflict(demo, planner, signed_in):
    owner = signed_in("owner")
    owner.edit(demo, "setups.s1.cuts.c2.feed_mm_rev", text="0.2")
    assert remove(planner, demo, "setups.s1.cuts.c2", base=0)[0] == 409
    assert remove(planner, demo, "setups.s1.cuts.c1", base=0)[0] == 200  # another cut is not concerned
    # A cut is told by its id: what was planned for it from before the list changed is still its own.
    assert owner.edit(demo, "setups.s1.cuts.c2.depth_mm", text="1.4", base_revision=1)[0] == 200
    status, said = owner.edit(demo, "setups.s1.cuts.c1.depth_mm", text="0.4", base_revision=1)
    assert (status, said["theirs"]) == (409, "no longer there")


def test_what_needs_attention_comes_first(demo, planner):
    plug = Run.objects.get(drawing_number="LH-2215")
    planner.edit(plug, "part.quantity", text="601")
    assert [r["drawing_number"] for r in bench(planner)["rows"]] == ["LH-2215", "LH-2041"]  # both settled: newest first
    planner.edit(demo, "setups.s1.force.user_max_rpm", text="400")
    make(planner)
    rows = bench(planner)["rows"]
    assert [(r["drawing_number"], r["verdict"]) for r in rows] == [
        ("LH-2041", "stopped"),
        ("LH-3001", "open"),
        ("LH-2215", "settled"),
    ]
    assert rows[0]["needs"].startswith("Force: ")


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("seal", {"LH-2041"}),
        ("SEAL lh-2041", {"LH-2041"}),
        ("duplex", {"LH-2041"}),
        ("6082 twin", {"LH-2215"}),
        ("lh", {"LH-2041", "LH-2215"}),
        ("settled", {"LH-2041", "LH-2215"}),
        ("seal plug", set()),
        ("%", set()),
        ("", {"LH-2041", "LH-2215"}),
    ],
)
def test_the_bench_finds_by_any_word(words, found, demo, planner):
    rows = planner.get("/api/runs", {"find": words}).json()["rows"]
    assert {r["drawing_number"] for r in rows} == found


def test_the_bench_comes_in_pages(demo, planner):
    for i in range(45):
        planner.send(f"runs/{demo.pk}/copy", {"name": f"Copy {i}", "drawing_number": f"X-{i}"})
    pages = [bench(planner, f"?page={n}") for n in range(3)]
    assert [len(p["rows"]) for p in pages] == [40, 7, 0]
    assert {p["total"] for p in pages} == {47}
    assert len({r["id"] for p in pages for r in p["rows"]}) == 47


def test_the_find_box_finds_runs_and_shelf_items(demo, planner):
    hits = planner.get("/api/find", {"words": "lathe 3"}).json()
    assert {(h["kind"], h["title"]) for h in hits} >= {
        ("run", "Seal carrier"),
        ("machine", "Lathe 3"),
        ("chuck", "Lathe 3 chuck, 8-inch class"),
    }
    assert planner.get("/api/find", {"words": " "}).json() == []
