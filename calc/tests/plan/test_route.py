"""Stop Route: what a piece, the run and its set-up take."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest

from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.part.solve import PART
from calc.plan.route.lists import times_of, tools_of
from calc.plan.route.solve import ROUTE
from calc.plan.route.tables import hours
from calc.plan.run_file import read_run
from calc.plan.scenes import drawings_of
from calc.said.plan import part_said
from calc.said.reader import Reader
from calc.said.stop import StopPage
from calc.tests.pictures import FILES


def run(name):
    return read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))


def computed(name, rules=None, **machine):
    known = run(name)
    shelf = replace(known.shelf, machine=replace(known.shelf.machine, **machine))
    document = replace(known.document, rules=replace(known.document.rules, **(rules or {})))
    return compute(document, shelf)


def route(name, rules=None, **machine):
    return computed(name, rules, **machine).views[0][ROUTE]


def test_a_piece_takes_its_cuts_and_what_is_beside_them():
    result = computed("spigot")
    found = result.views[0][ROUTE]
    for side, view in zip(found.sides, result.views, strict=True):
        assert sum(o.cut_s for o in side.operations) == pytest.approx(60 * view[CUTS].minutes)
        # Loaded by hand: door 4, 20 and 2 for each kg, chuck 2.
        loaded = 4 + 20 + 2 * view[PART].held_mass_kg + 2
        assert side.seconds == pytest.approx(loaded + sum(o.seconds for o in side.operations))
    assert found.cycle_s == pytest.approx(sum(s.seconds for s in found.sides))


def test_a_tool_that_stays_does_not_index_and_the_spindle_hides_behind_the_turret():
    (first, *_), quick = route("spigot").sides, route("spigot", spindle_s=0.001)
    stays = [b for a, b in pairwise(first.operations) if a.tool == b.tool]
    assert stays
    assert all(o.index_s == 0 for o in stays)
    assert all(o.spindle_s == 0 for side in quick.sides for o in side.operations if o.index_s)


def test_two_lanes_meet_at_the_part_off():
    found = route("collet", turrets=2)
    main, second = found.sides
    assert found.lanes == "together"
    by_hand = max(main.seconds - main.part_off_s, second.seconds) + 6 + main.part_off_s
    assert found.cycle_s == pytest.approx(by_hand)
    assert found.cycle_s < route("collet", turrets=1).cycle_s
    assert found.cycle_s / 60 <= 2.2  # what a setter believes of this bush
    assert found.waits_s == ("second", pytest.approx(main.seconds - main.part_off_s - second.seconds))


def test_the_part_off_stands_at_one_time_on_both_lanes_and_both_end_together():
    (picture,) = computed("collet", turrets=2).stop("route").pictures
    lanes = [lane.blocks for lane in picture.lanes]
    parting = [next(b for b in blocks if b.label == "part off, together") for blocks in lanes]
    assert parting[0].start_s == pytest.approx(parting[1].start_s)
    assert parting[0].seconds == pytest.approx(parting[1].seconds)
    for blocks in lanes:
        for one, following in pairwise(blocks):  # without a gap
            assert one.start_s + one.seconds == pytest.approx(following.start_s)
        assert blocks[-1].start_s + blocks[-1].seconds == pytest.approx(picture.cycle_s)


def test_in_turn_the_lane_holds_the_whole_cycle():
    (picture,) = computed("collet", turrets=1).stop("route").pictures
    (lane,) = picture.lanes
    assert sum(b.seconds for b in lane.blocks) == pytest.approx(picture.cycle_s)


def test_the_run_and_its_set_up_by_hand():
    found = route("spigot")
    # 240 and 2 % are 244.8: 245 pieces. Edges that are used up: 2 min each, the first of each tool is in.
    assert found.run.pieces == 245
    assert found.run.edge_min == 2 * (found.run.edges - 6)
    assert found.run.run_min == pytest.approx(found.cycle_s * 245 / 60 / 0.85 + found.run.edge_min)
    # One set for both sides: mounted 10 and bored 15; six tools 5 each; proved 15, first-off 15.
    assert found.run.setup_min == 10 + 15 + 6 * 5 + 15 + 15


@pytest.mark.parametrize(
    ("name", "words"),
    [
        ("spigot", ["Side 1: jaws mounted and bored"]),  # one set for both
        ("wear-ring", ["Side 1: jaws mounted and bored", "Side 2: jaws mounted and bored"]),
        ("collet", ["Bar: collet put in", "Second spindle: collet put in"]),
    ],
)
def test_what_holds_the_part_is_put_in_once_for_each_side_that_has_its_own(name, words):
    assert [t.words for t in route(name).run.tasks][: len(words)] == words


def test_hard_jaws_are_mounted_and_not_bored():
    known = run("tube")
    first = known.shelf.setups[0]
    hard = replace(first.blank, kind="hard", metal="steel", step_mm=12.0, seat_mm=10.0)
    shelf = replace(known.shelf, setups=(replace(first, blank=hard, jaw_set=None),))
    found = compute(known.document, shelf).views[0][ROUTE]
    assert (found.run.tasks[0].words, found.run.tasks[0].minutes) == ("Tube: hard jaws mounted", 10)


def test_bars_of_a_run_are_changed_but_the_first():
    found = route("collet")
    assert found.run.pieces == 1836  # 1 800 and 2 %
    assert found.run.bars_needed == -(-1836 // found.run.bars.pieces)
    assert found.run.bar_min == 3 * (found.run.bars_needed - 1)


def test_a_turret_that_cannot_take_the_tools_is_a_stop():
    stop = computed("spigot", turret_stations=5).stop("route")
    assert stop.state == "stopped"
    assert "5 stations" in str(stop.line)


def test_what_is_missing_is_said_with_the_way_to_it():
    known = run("spigot")
    without = replace(known.document, part=replace(known.document.part, quantity=None))
    said = part_said(compute(without, known.shelf), "stop:route", Reader("metric")).content
    assert isinstance(said, StopPage)
    assert [(x.label, x.stop) for x in said.lacks] == [("quantity", "part")]
    first, second = known.document.setups
    half = replace(known.document, setups=(first, replace(second, cuts=())))
    page = part_said(compute(half, known.shelf), "stop:route", Reader("metric")).content
    assert isinstance(page, StopPage)
    assert [(x.label, x.stop) for x in page.lacks] == [("Cuts", f"cuts-{second.id}")]


@pytest.mark.parametrize(
    ("rules", "less"), [({"utilisation_pct": 95}, True), ({"scrap_pct": 10}, False), ({"edge_change_min": 8}, False)]
)
def test_house_rules_pull_on_the_run(rules, less):
    assert (route("spigot", rules).run.run_min < route("spigot").run.run_min) == less


def test_two_sides_on_one_spindle_are_told_both_ways():
    (one_set,) = computed("spigot").stop("route").notes
    assert "one set of jaws" in str(one_set.sentence)
    two = computed("wear-ring")
    (batches,) = two.stop("route").notes
    # Twice ten minutes of mounting for each piece.
    found = two.views[0][ROUTE]
    assert found.piecewise_s == pytest.approx(found.cycle_s + 1200)
    assert "two batches" in str(batches.sentence)
    assert computed("collet", turrets=2).stop("route").notes == ()


def test_hours_are_said_as_a_person_does():
    assert [hours(x) for x in (0.2, 59, 60, 61.1, 2688.7)] == ["1 min", "59 min", "1 h", "1 h 2 min", "44 h 49 min"]


def test_tools_stand_by_station_with_all_they_do_and_times_add_up():
    found = route("collet", turrets=2)
    head, *tools = tools_of(found)
    assert head[:3] == ["turret", "station", "offset"]
    assert all(row[1] == row[2] for row in tools)
    assert {t[0] for t in tools} == {"main", "second"}
    assert sorted(n for row in tools for n in row[4].split("; ")) == sorted(
        o.cut.name for s in found.sides for o in s.operations
    )
    _, *lines = times_of(found)
    whole = sum(float(line[-1]) for line in lines)
    assert whole == pytest.approx(sum(s.seconds for s in found.sides), abs=0.05 * len(lines))


def test_a_turret_is_drawn_with_every_tool_at_its_station():
    result = computed("collet", turrets=2)
    offered = {d.name: d for d in drawings_of(result.views[0])}
    assert [offered[f"turret-{i}"].title for i in (0, 1)] == ["Main turret", "Second turret"]
    scene = offered["turret-0"].draw()
    found = result.views[0][ROUTE]
    taken = set(found.turrets[0].stations.values())
    assert {s.name for s in scene.shapes if s.role == "piece"} == {f"station_{n}" for n in taken}
    assert len(scene.labels) == result.views[0].shelf.machine.turret_stations
    assert len(scene.words) == len(taken)
    # Station 1 stands upright, the next one clockwise of it.
    first, second = scene.labels[0].point, scene.labels[1].point
    assert first[0] == pytest.approx(0, abs=1e-6)
    assert first[1] > 0 < second[0]
