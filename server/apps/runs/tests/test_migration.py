"""Runs, edits and releases kept before items had ids, brought to the form of today."""

import gzip
import importlib
import json
import uuid
from functools import reduce
from pathlib import Path

import pytest

from calc.plan.document import Document
from calc.profile.steps import TurnedStep
from calc.reading import read, write
from server.apps.runs.models import Edit, Run
from server.apps.runs.schemas import PlanOut
from server.apps.runs.tests.test_releases import release
from server.foundation.models import Person

FORMS = importlib.import_module("server.apps.runs.migrations._documents")
LATER = [
    importlib.import_module(f"server.apps.runs.migrations.{name}").FACTS
    for name in (
        "0011_documents_with_clamps",
        "0012_documents_with_directions",
        "0013_collets_and_bars",
        "0017_route",
        "0019_by_the_clock",
        "0020_cleaning_up",
        "0022_finish_seen",
        "0023_seen",
    )
]
CLAMPS, BARS = LATER[0], LATER[2]

VERSION_1 = {
    "version": 1,
    "part": {
        "quantity": 5,
        "edge_mm": 0.3,
        "face_stock_mm": 1.0,
        "profile": {
            "outside": [
                {"name": "Spigot", "diameter_mm": 84.0, "length_mm": 40.0, "stock_diameter_mm": None},
                {"name": "Flange", "diameter_mm": 118.0, "length_mm": 14.0, "stock_diameter_mm": 122.0},
            ],
            "inside": [{"diameter_mm": 52.0}],
        },
    },
    "setups": [{"name": "Side 2", "hold": {"depth_mm": 20.0}, "force": {"safety": 2.4, "condition": "today"}}],
}
VERSION_2 = {
    "version": 2,
    "part": {
        "edge_mm": 0.5,
        "profile": {
            "outside": [{"name": "Rim", "diameter_mm": 168.0, "length_mm": 32.0}],
            "inside": [{"name": "Bore", "diameter_mm": 148.0}],
        },
    },
    "sides": {"first_end": "a"},
    "setups": [
        {"name": "Side 1", "hold": {"grip": "stock"}, "cuts": [{"name": "Face", "kind": "face"}]},
        {"name": "Side 2", "hold": {"grip": "inside:Bore"}, "cuts": [{"name": "Turn", "kind": "turn"}]},
    ],
}


def test_a_document_of_version_1_has_one_side_stock_of_its_own_and_a_safety_with_its_reason():
    document = read(Document, FORMS.version_3(VERSION_1))
    assert (document.version, document.part.stock.diameter_mm, document.sides.first_end) == (3, 122.0, "b")
    assert [s.name for s in document.part.profile.inside] == ["Bore"]
    assert document.setups[0].hold.grip == "outside:o1"
    assert document.in_force.safety == 2.4
    assert len(document.departures[0].name) > 10


def test_what_is_held_is_found_by_its_id_and_every_fact_is_filled_in():
    now = FORMS.version_3(VERSION_2)
    assert now["setups"][1]["hold"]["grip"] == "inside:i1"
    assert [c["id"] for s in now["setups"] for c in s["cuts"]] == ["c1", "c2"]
    assert CLAMPS.setup(now["setups"][0])["cuts"][0]["clamp_rpm"] is None
    today = reduce(lambda document, facts: facts.document(document), LATER, now)
    assert write(read(Document, today)) == today | {"proposed": []}
    assert FORMS.version_3(now) == now


def test_what_an_edit_holds_gets_the_facts_of_today():
    cut = {"name": "Face", "kind": "face", "speed_m_min": 90.0, "feed_mm_rev": 0.1}
    held = {"item": cut, "behind": ""}
    assert CLAMPS.value(held)["item"]["clamp_rpm"] is None
    assert CLAMPS.value([cut])[0] == cut | {"clamp_rpm": None}
    assert CLAMPS.value("90") == "90"
    step = write(read(TurnedStep, {"name": "Rim"}))
    assert BARS.value({"item": {n: v for n, v in step.items() if n != "left"}, "behind": ""})["item"] == step


@pytest.mark.parametrize(
    ("path", "now"),
    [
        ("part.profile.outside.0.diameter_mm", "part.profile.outside.o1.diameter_mm"),
        ("setups.1.cuts.0.feed_mm_rev", "setups.s2.cuts.c2.feed_mm_rev"),
        ("setups.7.clamp_rpm", None),
        ("part.quantity", "part.quantity"),
    ],
)
def test_a_typed_text_stays_with_its_fact(path, now):
    assert FORMS.path_3(path, FORMS.version_3(VERSION_2)) == now


def test_earlier_edits_are_told_and_taken_back_no_more(demo, planner):
    by = Person.objects.get(username="planner")
    old = {"path": "setups.0.cuts.1.feed_mm_rev", "old": 0.1, "new": 0.15, "label": "Rough flange: feed"}
    Edit.objects.create(run=demo, revision=1, form=1, key=uuid.uuid4(), by=by, **old)
    Run.objects.filter(pk=demo.pk).update(revision=1)
    seen = planner.plan(demo)
    assert (seen["undo"], seen["revision"]) == (False, 1)
    told = planner.get(f"/api/runs/{demo.pk}/history").json()
    assert told["entries"][0]["text"] == "Rough flange: feed 0.1\xa0mm/rev → 0.15\xa0mm/rev"
    assert told["first"] == 1
    answer = planner.get(f"/api/runs/{demo.pk}/plan?at=0")
    assert (answer.status_code, "older form" in answer.json()["title"]) == (404, True)
    demo.refresh_from_db()
    assert planner.edit(demo, "setups.s1.clamp_rpm", text="650")[0] == 200
    assert planner.get(f"/api/runs/{demo.pk}/plan?at=1").status_code == 200


FROZEN = Path(__file__).parent / "frozen" / "form-2.json.gz"


@pytest.fixture
def of_form_2():
    """A view as releases were frozen before they were kept in parts, and the document of the plan."""
    with gzip.open(FROZEN, "rt", encoding="utf-8") as file:
        return json.load(file)


def as_before_ids(view):
    """A plan view in the form that releases were frozen in before items had ids."""
    old = json.loads(json.dumps(view))
    for side in old["sides"]:
        side["carry"] = {c["name"]: c["text"] for c in side["carry"]}
        mine = [s for s in old["stops"] if s["side"] == side["index"]]
        side["chart"] = next(s["chart"] for s in mine if s["name"] == "force")
        side["program"] = next(s["program"] for s in mine if s["name"] == "jaws")
        del side["chart"]["over"], side["id"]
    for stop in old["stops"]:
        titles = {h["key"]: h["title"] for h in stop["headings"]}
        stop["setup"] = stop["side"]
        stop["key"] = stop["name"] if stop["side"] is None else f"{stop['name']}-{stop['side'] + 1}"
        for f in stop["facts"]:
            f["group"] = titles.get(f["group"], f["group"])
        for gone in ("heading", "headings", "chart", "program", "checks", "panels", "links", "side"):
            del stop[gone]
    return old


@pytest.mark.parametrize("form", [1, 2])
def test_a_release_of_before_reads_as_it_was_frozen(demo, planner, operator, of_form_2, form):
    assert release(planner, demo)[0] == 200
    whole, document = of_form_2["view"], of_form_2["document"]
    view = as_before_ids(whole) if form == 1 else whole
    demo.releases.update(form=form, document=document, views={"metric": view, "inch": view})
    shown = operator.plan(demo)
    PlanOut.model_validate(shown)  # of today's form
    assert [s["line"] for s in shown["stops"]] == [s["line"] for s in whole["stops"]]
    parts = {p["name"]: p for p in shown["parts"]}
    for now, then in zip(shown["stops"], whole["stops"], strict=True):
        assert (now["key"], now["state"]) == (then["key"], then["state"])
        assert [(f["label"], f["text"]) for f in now["facts"]] == [(f["label"], f["text"]) for f in then["facts"]]
        assert (now["helps"], now["tables"]) == (then["helps"], then["tables"])
        for answer in then["answers"]:
            steps = [{"symbols": {}} | step for step in answer["steps"]]
            assert parts[f"working:{then['key']}:{answer['name']}"]["steps"] == steps
    for now, then in zip(shown["sides"], whole["sides"], strict=True):
        assert now["carry"] == [c | {"warning": None} for c in then["carry"]]
    drawn = [(p["name"], len(p["scene"]["shapes"])) for p in shown["parts"] if p.get("scene")]
    assert drawn == [(f"drawing:{s['id']}:{x['name']}", len(x["shapes"])) for s in whole["sides"] for x in s["scenes"]]
    force = next(s for s in shown["stops"] if s["key"] == "force-s2")
    assert [o["name"] for o in force["offers"]] == ["chart", "section", "wall"]
    assert parts["drawing:s2:chart"]["chart"]["cap_text"] == _chart(whole, "force-s2")["cap_text"]


def test_a_release_of_form_3_reads_as_it_was_frozen(demo, planner, operator):
    with gzip.open(FROZEN.with_name("form-3.json.gz"), "rt", encoding="utf-8") as file:
        old = json.load(file)
    assert release(planner, demo)[0] == 200
    demo.releases.update(form=3, document=old["document"], views={"metric": old["view"], "inch": old["view"]})
    shown = operator.plan(demo)
    PlanOut.model_validate(shown)
    charts = {p["name"]: p["chart"] for p in shown["parts"] if p.get("chart")}
    then = {p["name"]: p["chart"] for p in old["view"]["parts"] if p.get("chart")}
    assert charts.keys() == then.keys() and charts
    for name, chart in charts.items():
        assert chart["points"] == []
        assert (chart["cap_text"], chart["curves"]) == (then[name]["cap_text"], then[name]["curves"])
    assert [s["carry"] for s in shown["sides"]] == [
        [c | {"warning": None} for c in s["carry"]] for s in old["view"]["sides"]
    ]


def _chart(view, key):
    return next(s["chart"] for s in view["stops"] if s["key"] == key)
