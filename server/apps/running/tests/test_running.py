"""Pieces counted and measured, edges and offsets, stops, corrections, files, and who may."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from server import kept_demo
from server.apps.running.models import Correction, Lot, Measured, Piece
from server.apps.runs.models import Run
from server.apps.shelf.models import Tool
from server.conftest import _signed_in

pytestmark = pytest.mark.django_db
SPIGOT, RA, BORE = "s1.size.o1", "s1.finish.o1", "s1.size.i1"
GOOD = "83.982"


@pytest.fixture
def released():
    """The demo's seal carrier, whose release is being set."""

    kept_demo.half_set()
    return Run.objects.get(drawing_number="LH-2041")


@pytest.fixture
def setter(released):
    return _signed_in("setter")


@pytest.fixture
def operator(released):
    return _signed_in("operator")


@pytest.fixture
def planner(released):
    return _signed_in("planner")


def page(person, run, units="metric"):
    return person.get(f"/api/runs/{run.pk}/running?units={units}").json()


def send(person, run, where, /, **given):
    body = {"key": str(uuid.uuid4()), "release": 1, "lot": "s1"} | given
    return person.send(f"runs/{run.pk}/running/{where}", body)


def piece(person, run, **given):
    return send(person, run, "pieces", **given)


def told(answer, field):
    return [e["message"] for e in answer["errors"] if e["field"] == field]


def dimension(page, name=SPIGOT):
    return next(d for d in page["standing"]["dimensions"] if d["id"] == name)


def test_before_the_first_piece_everything_says_what_comes(setter, released):
    found = page(setter, released)
    assert found["head"]["counted"] == 0
    assert found["head"]["left"] == found["head"]["quantity"] == 240
    assert found["standing"]["check"]["pieces"] == 0
    assert found["head"]["pace"].endswith("by the plan")
    assert [lot["key"] for lot in found["lots"]] == ["s1", "s2"]
    assert found["may_mark"]


def test_one_press_counts_a_good_piece_and_the_run_is_running(setter, released):
    status, kept = piece(setter, released)
    assert status == 200
    assert (kept["piece"], kept["page"]["head"]["good"]) == (1, 1)
    assert Run.objects.get(pk=released.pk).place == "running"


def test_the_same_press_counts_once_and_another_under_its_key_is_refused(setter, released):
    key = str(uuid.uuid4())
    for _ in range(2):
        status, kept = piece(setter, released, key=key)
        assert (status, kept["piece"]) == (200, 1)
    assert Lot.objects.get(release__run=released).counted == 1
    assert piece(setter, released, key=key, good=False, reason="burr")[0] == 409


def test_a_measured_piece_is_on_the_chart_in_either_unit(setter, released):
    status, kept = piece(setter, released, values={SPIGOT: GOOD, RA: "1.2"})
    assert (status, kept["level"]) == (200, "good")
    assert kept["told"][0] == "Spigot Ø 84: Within the limits to work to."
    assert dimension(kept["page"])["chart"]["values"] == [83.982]
    inch = dimension(page(setter, released, "inch"))
    assert inch["chart"]["values"] == pytest.approx([83.982 / 25.4], abs=1e-6)
    assert inch["last"].endswith("in")


def test_a_warm_piece_is_kept_at_twenty_degrees(setter, released):
    piece(setter, released, values={SPIGOT: "84.005"}, temp_c=40)
    assert Measured.objects.get(lot__release__run=released).value == pytest.approx(84.005 / (1 + 13e-6 * 20))


@pytest.mark.parametrize(
    ("given", "field", "words"),
    [
        ({"values": {SPIGOT: "wide"}}, SPIGOT, "not"),
        ({"values": {SPIGOT: "0"}}, SPIGOT, "above"),
        ({"values": {"s1.size.none": "84"}}, "s1.size.none", "no such dimension"),
        ({"values": {SPIGOT: "83.95"}, "sure": True}, "good", "count it as scrap"),
        ({"good": False}, "reason", "Say why"),
        ({"values": {SPIGOT: GOOD}, "temp_c": 400}, "temp_c", ""),
    ],
)
def test_what_is_wrong_is_told_at_its_field_and_nothing_is_counted(setter, released, given, field, words):
    status, answer = piece(setter, released, **given)
    assert status == 422, answer
    assert told(answer, field)
    assert words in told(answer, field)[0]
    assert not Piece.objects.filter(lot__release__run=released).exists()


@pytest.mark.parametrize(("value", "words"), [("52.01", "That is the size of Bore"), ("839.82", "ten times off")])
def test_what_looks_wrong_is_asked_about_and_nothing_is_counted(setter, released, value, words):
    status, answer = piece(setter, released, values={SPIGOT: value})
    assert (status, answer["asks"]) == (409, "sure")
    assert words in answer["title"]
    assert not Piece.objects.filter(lot__release__run=released).exists()


def test_scrap_is_counted_with_its_reason_and_still_to_be_made(setter, released):
    status, kept = piece(setter, released, good=False, reason="burr", values={SPIGOT: "83.955"}, sure=True)
    assert status == 200
    head = kept["page"]["head"]
    assert (head["counted"], head["good"], head["scrap"], head["left"]) == (1, 0, 1, 240)
    assert "piece 1 is scrap: burr" in [one["words"] for one in kept["page"]["log"]]
    assert any("scrap" in s for s in kept["page"]["standing"]["stops"])


def test_a_piece_is_measured_after_it_was_counted_and_not_twice(setter, released):
    assert told(send(setter, released, "sizes", values={SPIGOT: GOOD})[1], "piece") == [
        "No piece was counted yet: count the first one."
    ]
    piece(setter, released)
    piece(setter, released)
    assert send(setter, released, "sizes", piece=1, values={SPIGOT: GOOD})[0] == 200
    status, answer = send(setter, released, "sizes", piece=1, values={SPIGOT: "83.98"})
    assert (status, "83.9820" in told(answer, SPIGOT)[0]) == (422, True)
    assert "Pieces 1 to 2" in told(send(setter, released, "sizes", piece=3, values={SPIGOT: GOOD})[1], "piece")[0]
    assert send(setter, released, "sizes", values={SPIGOT: GOOD})[1]["piece"] == 2


def test_a_piece_measured_outside_the_print_is_scrap_by_that(setter, released):
    piece(setter, released)
    status, kept = send(setter, released, "sizes", values={SPIGOT: "83.96"}, sure=True)
    assert (status, kept["level"], kept["page"]["head"]["good"]) == (200, "stop", 0)
    assert Correction.objects.get().why == "measured outside the print"


def test_a_wrong_entry_is_corrected_and_what_stood_there_is_kept(setter, released, operator):
    piece(setter, released, values={SPIGOT: "83.988"})
    assert told(send(operator, released, "corrections", piece=1, values={SPIGOT: GOOD}, why=" ")[1], "why")
    status, kept = send(operator, released, "corrections", piece=1, values={SPIGOT: GOOD}, why="read wrong")
    assert status == 200, kept
    assert dimension(kept["page"])["chart"]["values"] == [83.982]
    mine = setter.get(f"/api/runs/{released.pk}/running/1/s1/pieces/1").json()
    assert mine["corrected"][0]["words"] == "Spigot Ø 84 83.9820\xa0mm, was 83.9880\xa0mm"
    assert mine["corrected"][0]["by"] == "operator"
    status, kept = send(operator, released, "corrections", piece=1, good=False, reason="dropped", why="seen later")
    assert (status, kept["page"]["head"]["good"]) == (200, 0)
    status, kept = send(operator, released, "corrections", piece=1, good=True, why="it is whole")
    assert (status, kept["page"]["head"]["good"]) == (200, 1)
    assert told(send(operator, released, "corrections", piece=1, values={BORE: "52.01"}, why="x")[1], BORE)


def test_a_piece_outside_the_print_is_corrected_to_good_by_no_one(setter, released):
    piece(setter, released, good=False, reason="small", values={SPIGOT: "83.96"}, sure=True)
    status, answer = send(setter, released, "corrections", piece=1, good=True, why="it will do")
    assert (status, bool(told(answer, "good"))) == (422, True)


def test_an_offset_begins_a_stretch_and_its_way_is_kept(setter, released):
    for value in ("83.982", "83.983"):
        piece(setter, released, values={SPIGOT: value})
    edge = dimension(page(setter, released))["edge"]
    assert told(send(setter, released, "changes", kind="offset", edge=edge)[1], "amount")
    assert told(send(setter, released, "changes", kind="offset", edge=edge, amount="0")[1], "amount")
    assert told(send(setter, released, "changes", kind="offset", edge=edge, amount="5 mm")[1], "amount")
    assert told(send(setter, released, "changes", kind="offset", edge="main.99", amount="0.01")[1], "edge")
    status, kept = send(setter, released, "changes", kind="offset", edge=edge, amount="-0.008")
    assert status == 200
    assert kept["told"] == ["tool 3, X −0.008\xa0mm."]
    piece(setter, released, values={SPIGOT: GOOD})
    chart = dimension(page(setter, released))["chart"]
    assert [(s["first"], s["last"]) for s in chart["stretches"]] == [(1, 2), (3, 3)]
    assert chart["marks"] == [{"piece": 2, "words": "X −0.008\xa0mm"}]


def test_a_fresh_edge_begins_its_clock_anew_and_every_last_edge_takes_an_insert_from_the_shelf(setter, released):
    piece(setter, released)
    edge = next(e for e in page(setter, released)["standing"]["edges"] if e["station"] == 2)
    insert = Tool.objects.get(key="cnmg120412-rough-stainless")
    before = insert.figures["stock"]
    for n in range(1, 5):
        status, kept = send(setter, released, "changes", kind="edge", edge=edge["key"], why="worn")
        assert status == 200
        insert.refresh_from_db()
        assert insert.figures["stock"] == before - (n == 4)
    assert kept["told"] == [
        "fresh edge on tool 2: it was worn.",
        f"A fresh one from the shelf: {before - 1} left there.",
    ]
    now = next(e for e in kept["page"]["standing"]["edges"] if e["station"] == 2)
    assert now["spares"].startswith(f"{before - 1} on the shelf, the rest takes ")
    assert (now["on_it"], now["told"].endswith("the edge before did 1 (it was worn)")) == (0, True)


def test_it_stands_still_until_it_goes_on_or_a_piece_comes(setter, released):
    ago = timezone.now() - timedelta(minutes=30)
    Run.objects.get(pk=released.pk).releases.update(at=ago - timedelta(hours=1))
    assert told(send(setter, released, "stops", what="stop", why="other")[1], "note")
    status, kept = send(setter, released, "stops", what="stop", why="chips", at=ago.isoformat())
    assert (status, kept["page"]["still"]["why"]) == (200, "chips")
    again = (ago + timedelta(minutes=12)).isoformat()
    status, kept = send(setter, released, "stops", what="on", at=again)
    assert (kept["page"]["still"], kept["told"]) == (None, ["It goes on after 12 min."])
    send(setter, released, "stops", what="stop", why="alarm")
    status, kept = piece(setter, released)
    assert kept["page"]["still"] is None
    assert "stood still 12 min" in kept["page"]["head"]["pace"]


def test_a_clock_that_goes_back_moves_nothing_back(setter, released):
    now = timezone.now()
    piece(setter, released, at=now.isoformat())
    status, kept = piece(setter, released, at=(now - timedelta(days=400)).isoformat())
    assert (status, kept["piece"]) == (200, 2)
    lot = Lot.objects.get(release__run=released)
    assert lot.last_at >= lot.began_at
    assert Piece.objects.get(lot=lot, number=2).at >= Run.objects.get(pk=released.pk).releases.get().at


def test_a_file_keeps_what_it_can_and_tells_the_rest(setter, released):
    for _ in range(4):
        piece(setter, released)
    text = f"piece;Spigot Ø 84 (mm);Bore\n1;{GOOD};52.01\n2;83,98;\n3;83.983;\n9;{GOOD};\n4;84.9;\n4;;\n3;83.98;\n"
    status, found = send(setter, released, "file", text=text)
    assert (status, found["kept"], found["bad"]) == (200, 3, 4)  # a decimal comma is read as one
    assert [one["line"] for one in found["lines"]] == [5, 6, 7, 8]
    assert "1 to 4 were" in found["lines"][0]["told"]
    assert dimension(found["page"])["chart"]["pieces"] == [1, 2, 3]
    out = setter.get(f"/api/runs/{released.pk}/running/1/s1/pieces.csv").content.decode().splitlines()
    assert out[0] == "piece,good,reason,at,Spigot Ø 84 (mm),Spigot Ra (µm),Bore Ø 52 (mm),Bore Ra (µm)"
    assert out[1].startswith("1,yes,,")
    assert out[1].endswith("83.9820,,52.0100,")


@pytest.mark.parametrize(
    ("text", "words"), [("", "empty"), ("no such;x\n1;2", "first column"), ("piece;Rim\n1;2", "No column is called")]
)
def test_a_file_without_a_head_says_what_is_missing(setter, released, text, words):
    piece(setter, released)
    status, answer = send(setter, released, "file", text=text)
    assert (status, words in told(answer, "text")[0]) == (422, True)


def test_following_what_is_told_a_run_drifts_is_advised_and_corrected(setter, released):
    for n in range(14):
        status, kept = piece(setter, released, values={SPIGOT: f"{83.982 + 0.0008 * n:.4f}"})
        assert status == 200
    found = dimension(kept["page"])
    assert found["advice"]["told"].startswith("after piece 14: X −0.0")
    assert found["advice"]["steps"]
    assert found["chart"]["limit_sure"] is not None
    given = {"kind": "offset", "edge": found["edge"], "amount": found["advice"]["amount_mm"]}
    after = send(setter, released, "changes", **given)[1]["page"]
    assert "too early" in dimension(after)["advice"]["why"]
    assert after["standing"]["check"]["pieces"] == 0


def test_who_looks_knows_when_something_was_kept(setter, released, planner):
    pulse = f"/api/runs/{released.pk}/running/1/s1/pulse"
    assert planner.get(pulse).json() == {"revision": 0, "replaced": False}
    piece(setter, released)
    assert planner.get(pulse).json()["revision"] == 1
    assert not page(planner, released)["may_mark"]
    status, answer = piece(planner, released)
    assert (status, "Setters and operators" in answer["title"]) == (403, True)


def test_nothing_is_counted_of_a_run_that_is_put_away_or_of_no_release(setter, released, planner):
    assert piece(setter, released, release=7)[0] in (403, 404)
    assert piece(setter, released, lot="s9")[0] == 404
    Run.objects.filter(pk=released.pk).update(put_away=True)
    assert piece(setter, released)[0] == 409


def closing(person, run):
    return person.get(f"/api/runs/{run.pk}/running/1/s1/closing").json()


def test_a_lot_is_closed_its_cuts_and_its_lesson_are_found_again(setter, released, planner, operator):
    assert told(send(setter, released, "closing")[1], "lot")
    for n in range(3):
        piece(setter, released, values={SPIGOT: f"83.98{n}"})
    found = closing(setter, released)
    rows = {r["what"]: (r["planned"], r["real"]) for r in found["rows"]}
    assert rows["Good pieces"] == ("240", "3")
    assert found["kept"][0]["words"].startswith("mean 83.981")
    keep = [w["key"] for w in found["worked"]][:2]
    lesson = "Blow the chips out of the groove  every tenth piece."
    assert send(operator, released, "closing", keep=keep)[0] == 403
    assert told(send(setter, released, "closing", keep=["s1.none"])[1], "keep")
    status, closed = send(setter, released, "closing", keep=keep, lesson=lesson)
    assert status == 200, closed
    assert closed["closed_at"] is not None
    assert closed["lessons"][0]["text"] == "Blow the chips out of the groove every tenth piece."
    lines = setter.get("/api/notebook/cuts").json()["lines"]
    assert sum("3 good pieces of Side 1" in line["said"]["remarks"] for line in lines) == 2
    mine = planner.get(f"/api/runs/{released.pk}/last-time").json()["lessons"]
    assert [one["by"] for one in mine] == ["setter"]
    assert page(setter, released)["lot"] == "s2"  # the next one is made
    assert piece(setter, released)[0] == 200
    assert closing(setter, released)["closed_at"] is None


def test_a_lesson_of_the_same_material_is_found_by_another_part(setter, released, planner):
    piece(setter, released)
    send(setter, released, "closing", lesson="Edges break at the interrupted rim.")
    carrier = Run.objects.get(pk=released.pk)
    Run.objects.filter(drawing_number="LH-2215").update(material=carrier.material)
    plug, bush = (Run.objects.get(drawing_number=n) for n in ("LH-2215", "LH-1980"))
    assert planner.get(f"/api/runs/{plug.pk}/last-time").json()["lessons"]
    assert planner.get(f"/api/runs/{bush.pk}/last-time").json() == {"lessons": [], "ran": [], "taught": []}


def test_what_edges_and_pieces_taught_is_offered_and_counts_in_the_plan(setter, released, planner):
    """Twenty pieces ten minutes apart: nine and a half between each two; an edge done after 5, 10 and 15 of them."""
    for n in range(20):
        piece(setter, released)
        if n in (4, 9, 14):
            assert send(setter, released, "changes", kind="edge", edge="main.3", why="worn")[0] == 200
    piece(setter, released, lot="s2")
    lasted = planner.get(f"/api/runs/{released.pk}/last-time").json()["taught"]
    (edge,) = [t for t in lasted if t["path"].endswith("lasted_pieces")]
    assert edge["value"] == 5
    assert "the middle of 3 edges" in edge["words"]
    assert "Release 1" in edge["words"]
    status, plan = planner.edit(Run.objects.get(pk=released.pk), edge["path"], value=5)
    assert status == 200, plan
    lasted = planner.get(f"/api/runs/{released.pk}/last-time").json()["taught"]
    assert not [t for t in lasted if t["path"] == edge["path"]]


def test_the_board_follows_what_really_happens(setter, released, planner):
    def on_board():
        machines = planner.get("/api/board").json()["machines"]
        return next((r for m in machines for r in m["runs"] if r["id"] == released.pk), None)

    for _ in range(3):
        piece(setter, released)
    run = Run.objects.get(pk=released.pk)
    assert run.really["said"] == "Side 1: 3 of 240 good pieces"
    now = timezone.now().timestamp()
    found = on_board()
    assert found["begins"] == pytest.approx(now, abs=120)
    assert found["goes"].startswith("Side 1: 3 of 240 good pieces; planned for")
    assert not found["moves"]
    status, answer = planner.send(
        f"runs/{run.pk}/board", {"key": str(uuid.uuid4()), "base_revision": run.revision, "begins": now + 9e5}
    )
    assert status == 409, answer
    Run.objects.filter(pk=run.pk).update(really=run.really | {"left_min": 0, "at": now})
    assert on_board()["moves"]  # it is made


def test_how_a_part_ran_stands_beside_its_plan(planner):
    ring = Run.objects.get(drawing_number="LH-2107")
    (ran,) = planner.get(f"/api/runs/{ring.pk}/last-time?units=inch").json()["ran"]
    assert ran["words"].startswith("Side 1, release 1, 46 pieces, until ")
    rows = {r["what"]: r["real"] for r in ran["rows"]}
    assert rows["Edge of tool 1, CCGT 09T304"] == "17 pieces, of 1 edge"
    assert rows["Stood still: chips"].startswith("6")
