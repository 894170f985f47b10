"""The notebook through the API: kept from a plan, written by hand, found, taken, out and in as a file."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from server import kept_demo
from server.apps.notebook.models import ProvenCut
from server.apps.runs.models import Run
from server.conftest import _signed_in

CUT = {
    "kind": "turn",
    "material": "carbon steel C45",
    "iso_group": "P",
    "speed_m_min": "210",
    "feed_mm_rev": "0.28",
    "depth_mm": "2",
    "insert": "CNMG 120408",
}


def write(client, **changed):
    return client.send("notebook/cuts", {"fields": CUT | changed, "key": str(uuid.uuid4())})


def page(client, query=""):
    return client.get(f"/api/notebook/cuts?{query}").json()


def test_the_demo_opens_with_some_forty_cuts_found_by_any_word(planner, demo):
    assert 38 <= page(planner)["count"] <= 45
    some = page(planner, "find=seal+carriers")
    assert some["count"] == 2
    assert all("240 seal carriers" in x["said"]["remarks"] for x in some["lines"])
    assert page(planner, "kind=thread")["count"] == 2
    assert page(planner, "group=N&kind=bore")["count"] == 2
    assert page(planner, "find=no+such+word")["count"] == 0


def test_pages_hold_each_cut_once(planner, demo):
    first, second = page(planner, "page=0"), page(planner, "page=1")
    ids = [x["id"] for x in first["lines"] + second["lines"]]
    assert first["pages"] == 2
    assert len(ids) == len(set(ids)) == first["count"]


def test_a_cut_is_written_once_in_either_unit_system(signed_in, demo):
    setter = signed_in("setter")
    body = {
        "fields": CUT | {"speed_m_min": "690", "feed_mm_rev": "0.011", "depth_mm": "0.08"},
        "units": "inch",
        "key": str(uuid.uuid4()),
    }
    assert setter.send("notebook/cuts", body)[0] == 201
    assert setter.send("notebook/cuts", body)[0] == 201
    row = ProvenCut.objects.get(key=body["key"])
    assert (row.speed_m_min, row.feed_mm_rev, row.depth_mm) == pytest.approx((690 * 0.3048, 0.011 * 25.4, 0.08 * 25.4))
    assert row.by.username == "setter"


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"speed_m_min": "fast"}, "speed_m_min"),
        ({"feed_mm_rev": ""}, "feed_mm_rev"),
        ({"feed_mm_rev": "9"}, "feed_mm_rev"),
        ({"material": " "}, "material"),
        ({"on": "yesterday"}, "on"),
        ({"kind": "milling"}, "kind"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_what_cannot_be_read_is_told_at_its_field(planner, demo, changed, field):
    before = ProvenCut.objects.count()
    status, told = write(planner, **changed)
    assert status == 422
    assert [e["field"] for e in told["errors"]] == [field]
    assert ProvenCut.objects.count() == before


def test_a_planned_cut_that_worked_is_kept_and_offered_first_next_time(signed_in, planner, demo):
    setter = signed_in("setter")
    place = f"runs/{demo.pk}/sides/s1/cuts/c2"
    seen = {"fields": {"chip": "curls", "finish_um": "1.4", "remarks": "quiet"}, "key": str(uuid.uuid4())}
    status, line = setter.send(f"{place}/keep", seen)
    assert status == 201
    assert line["run"].startswith("Seal carrier (LH-2041): Rough flange")
    row = ProvenCut.objects.get(key=seen["key"])
    planned = Run.objects.get(pk=demo.pk).document["setups"][0]["cuts"][1]
    assert (row.speed_m_min, row.feed_mm_rev, row.depth_mm) == (
        planned["speed_m_min"],
        planned["feed_mm_rev"],
        planned["depth_mm"],
    )
    like = planner.get(f"/api/{place}/proven").json()["cuts"]
    assert like[0]["id"] == row.pk
    assert like[0]["score"] >= like[1]["score"]
    assert "same material" in like[0]["why"]


def test_a_proven_cuts_figures_are_taken_as_one_edit(planner, demo):
    worked = ProvenCut.objects.filter(kind="turn", material__startswith="duplex", stage="rough").first()
    body = {"proven": worked.pk, "key": str(uuid.uuid4()), "base_revision": 0}
    status, plan = planner.send(f"runs/{demo.pk}/sides/s1/cuts/c2/proven", body)
    assert status == 200
    assert plan["revision"] == 1
    cut = Run.objects.get(pk=demo.pk).document["setups"][0]["cuts"][1]
    assert (cut["speed_m_min"], cut["feed_mm_rev"], cut["depth_mm"]) == (
        worked.speed_m_min,
        worked.feed_mm_rev,
        worked.depth_mm,
    )


def test_a_cut_that_was_taken_out_is_nowhere_until_it_is_put_back(planner, demo):
    status, kept = write(planner, material="C45 taken out")
    assert status == 201
    row = f"notebook/cuts/{kept['id']}"
    found = lambda: page(planner, "find=taken+out")["count"]  # noqa: E731 # asked three times
    assert found() == 1
    assert planner.delete(f"/api/{row}").status_code == 204
    assert (found(), "taken out" in planner.get("/api/notebook/file").content.decode()) == (0, False)
    assert planner.delete(f"/api/{row}").status_code == 404
    assert planner.send(f"{row}/back", {})[0] == 200
    assert (found(), planner.send(f"{row}/back", {})[0]) == (1, 404)


def test_the_file_comes_back_as_it_went_out(planner, demo):
    text = planner.get("/api/notebook/file").content.decode()
    before = ProvenCut.objects.count()
    answer = planner.send("notebook/file", {"text": text, "keep": "all"})[1]
    assert {x["outcome"] for x in answer["lines"]} == {"same"}
    ProvenCut.objects.all().delete()
    answer = planner.send("notebook/file", {"text": text, "keep": "all"})[1]
    assert (answer["kept"], answer["bad"]) == (before, 0)
    assert planner.get("/api/notebook/file").content.decode() == text


def test_bad_rows_are_answered_and_good_ones_kept_only_when_said(planner, demo):
    before = ProvenCut.objects.count()
    text = "kind,material,speed_m_min,feed_mm_rev\nturn,C45,200,0.2\nturn,C45,fast,0.2\nmill,C45,200,0.2\nturn,C45\n"
    looked = planner.answer("notebook/file/look", {"text": text})[1]
    assert [x["outcome"] for x in looked["lines"]] == ["new", "bad", "bad", "bad"]
    assert "Surface speed" in looked["lines"][1]["messages"][0]
    assert planner.send("notebook/file", {"text": text, "keep": "all"})[1]["kept"] == 0
    assert ProvenCut.objects.count() == before
    assert planner.send("notebook/file", {"text": text, "keep": "good"})[1]["kept"] == 1
    assert ProvenCut.objects.count() == before + 1


@pytest.mark.parametrize("text", ["", "colour\nred", "kind,kind\na,b", 'kind,"mat\nx'])
def test_a_file_that_is_none_says_why(planner, demo, text):
    status, told = planner.answer("notebook/file/look", {"text": text})
    assert status == 422
    assert told["errors"][0]["field"] == "text"


def test_words_that_a_spreadsheet_would_run_are_written_as_words(planner, demo):
    for words in ("=1+1", "＝1+1", "'quoted"):
        write(planner, remarks=words)
        assert f",'{words}," in planner.get("/api/notebook/file").content.decode()


def everything(person, **asked):
    query = "&".join(f"{name}={value}" for name, value in asked.items())
    return person.get(f"/api/notebook/everything?{query}").json()


@pytest.mark.django_db
def test_everything_that_was_noted_is_found_by_one_search(monkeypatch):
    """The demo's machine side: cuts, gauge runs, a feeler, jaws' lives, a worn edge; then a lesson, and coolant."""
    kept_demo.half_set()
    planner, setter = _signed_in("planner"), _signed_in("setter")
    found = everything(planner)
    assert {one["kind"] for one in found["lines"]} >= {"cut", "gauge", "reading", "jaws", "edge"}
    assert found["due"] == []
    assert [one["on"] for one in found["lines"]] == sorted((one["on"] for one in found["lines"]), reverse=True)
    readings = " | ".join(one["words"] for one in everything(planner, kind="reading")["lines"])
    assert "on diameter 0.004 mm. The smallest piece" in readings.replace("\xa0", " ")
    assert "U 0.080 mm larger at the floor" in readings.replace("\xa0", " ")
    (edge,) = everything(planner, kind="edge")["lines"]
    assert edge["words"] == "tool 1, CCGT 09T304: 17 pieces, it was worn"
    assert edge["of"] == "Wear ring (LH-2107)"
    ring = Run.objects.get(drawing_number="LH-2107")
    closing = {"key": str(uuid.uuid4()), "release": 1, "lot": "s1", "lesson": "Measure one in ten."}
    assert setter.send(f"runs/{ring.pk}/running/closing", closing)[0] == 200
    (lesson,) = everything(planner, find="ten wear")["lines"]
    assert lesson["kind"] == "lesson"
    carrier = Run.objects.get(drawing_number="LH-2041")
    reading = {"key": str(uuid.uuid4()), "release": 1, "step": "coolant", "values": {"reading": "5.3"}, "sure": True}
    status, told = setter.send(f"runs/{carrier.pk}/card/readings", reading)
    assert status == 200, told
    (coolant,) = everything(planner, kind="coolant")["lines"]
    assert coolant["of"] == "Lathe 3"
    later = timezone.localdate() + timedelta(days=9)
    monkeypatch.setattr(timezone, "localdate", lambda *_: later)
    assert everything(planner)["due"] == ["Lathe 3: its coolant was measured 9 days ago. Measure it again."]
