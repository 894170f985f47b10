"""Stop Route: what a piece, the run and its set-up take."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta
from itertools import pairwise

import pytest

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import wall
from calc.errors import CalcError
from calc.plan.across import across
from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.hold.solve import JAW_HOLD
from calc.plan.part.solve import PART
from calc.plan.route.balance import balance, moves
from calc.plan.route.edges import tool_of
from calc.plan.route.inputs import Route
from calc.plan.route.levers import levers
from calc.plan.route.lists import times_of, tools_of
from calc.plan.route.solve import ROUTE
from calc.plan.route.strikes import reach_of
from calc.plan.route.tables import hours
from calc.plan.run_file import read_run
from calc.plan.scenes import drawings_of
from calc.said.plan import part_said
from calc.said.reader import Reader
from calc.said.stop import StopPage
from calc.settle.setup import settle_setup
from calc.shelf.jaw_set import JawSet
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


MONDAY = {"start": "2026-11-30 06:00"}
TWO_SHIFTS = Calendar("UTC", "Mon-Fri 06:00-14:00, 14:00-22:00", "Mon-Fri 09:30-09:45, 17:30-18:00")


def planned(name, calendar=TWO_SHIFTS, today="2026-11-28", cuts=None, rules=None, **said):
    known = run(name)
    shelf = replace(known.shelf, calendar=calendar, today=today)
    setups = tuple(
        replace(s, cuts=tuple(replace(c, **(cuts or {}).get(c.id, {})) for c in s.cuts)) for s in known.document.setups
    )
    route = replace(known.document.route, **said)
    rules = replace(known.document.rules, **(rules or {}))
    return compute(replace(known.document, setups=setups, route=route, rules=rules), shelf)


def test_the_finish_is_the_set_up_by_people_and_then_the_run_by_the_clock():
    found = planned("spigot", **MONDAY).views[0][ROUTE].run
    began = datetime(2026, 11, 30, 6)
    assert wall(TWO_SHIFTS, found.clock.begins) == began
    assert found.setup_min < 210  # so that it is over before the first break
    assert wall(TWO_SHIFTS, found.clock.running) == began + timedelta(minutes=found.setup_min)
    left, at = found.setup_min + found.run_min, began
    while left > 915:  # a day of two shifts, less its breaks
        left, at = left - 915, at + timedelta(days=3 if at.weekday() == 4 else 1)
    pause = 15 * (left > 210) + 30 * (left > 675)
    done = at + timedelta(minutes=left + pause)
    assert wall(TWO_SHIFTS, found.clock.done) == pytest.approx(done, abs=timedelta(seconds=1))


def test_without_a_start_it_is_told_from_today_and_says_so():
    answers = {a.name: a for a in planned("spigot").stop("route").answers}
    assert str(answers["finished"].below).startswith("if it is set up today, Mon 30 Nov 06:00")
    assert "finished" not in {a.name for a in planned("spigot", today="").stop("route").answers}


def test_a_start_that_is_past_and_a_run_without_end_are_told():
    late = planned("spigot", start="2026-11-02 06:00").stop("route")
    assert [n.code for n in late.notes if n.code == "start-past"] == ["start-past"]
    rare = Calendar("UTC", "Mon 06:00-06:10", "")
    stop = planned("spigot", calendar=rare, **MONDAY).stop("route")
    assert "never-done" in [n.code for n in stop.notes]
    assert next(str(a.words) for a in stop.answers if a.name == "finished") == "not within 5 years"


@pytest.mark.parametrize("start", ["tomorrow", "2026-02-30 06:00", "2026-12-01 24:30"])
def test_a_start_that_is_no_time_is_refused_in_words(start):
    with pytest.raises(CalcError, match="Write a day and a time"):
        Route(start=start)


def test_bar_work_ends_sooner_where_it_may_run_alone_and_slugs_do_not():
    alone = replace(TWO_SHIFTS, unattended="Mon-Fri 22:00-06:00")

    def done(name, calendar):
        return planned(name, calendar, **MONDAY).views[0][ROUTE].run.clock.done

    assert done("collet", alone) < done("collet", TWO_SHIFTS)
    assert done("spigot", alone) == done("spigot", TWO_SHIFTS)


def test_what_was_timed_counts_in_place_of_what_is_computed():
    before = planned("spigot").views[0][ROUTE]
    first = before.sides[0].operations[0]
    after = planned("spigot", cuts={first.cut.id: {"clocked_s": 77.0}}).views[0][ROUTE]
    timed = after.sides[0].operations[0]
    assert (timed.cut_s, timed.moves_s) == (77.0, 0.0)
    longer = 77 - first.cut_s - first.moves_s
    assert after.cycle_s == pytest.approx(before.cycle_s + longer)
    tables = planned("spigot", cuts={first.cut.id: {"clocked_s": 77.0}})
    tables = list(tables.tables(tables.stop("route")))
    assert f"{first.cut.name} (timed)" in [r.label for r in tables[0].rows]


def test_a_tool_stays_at_the_station_that_it_is_pinned_to():
    cut = planned("spigot").views[0][ROUTE].sides[0].operations[0].cut
    found = planned("spigot", cuts={cut.id: {"station": 7}}).views[0][ROUTE]
    assert {o.station for s in found.sides for o in s.operations if o.tool == tool_of(cut)} == {7}
    stop = planned("spigot", cuts={cut.id: {"station": 199}}).stop("route")
    assert (stop.state, [e.field for e in stop.problems]) == ("stopped", [f"setups.s1.cuts.{cut.id}.station"])


def test_two_tools_at_one_station_and_one_tool_at_two_are_told_at_the_cut():
    made = planned("spigot").views[0][ROUTE].sides[0].operations
    first = made[0].cut
    other = next(o.cut for o in made if o.tool != tool_of(first))
    pins = {first.id: {"station": 3}, other.id: {"station": 3}}
    (error,) = planned("spigot", cuts=pins).stop("route").problems
    assert (error.field, str(error.message)) == (
        f"setups.s1.cuts.{other.id}.station",
        "Station 3 is taken by another tool.",
    )
    both = [o.cut for s in planned("spigot").views[0][ROUTE].sides for o in s.operations]
    first, twin = next((a, b) for a in both for b in both if a.id < b.id and tool_of(a) == tool_of(b))
    pins = {first.id: {"station": 3}, twin.id: {"station": 4}}
    (error,) = planned("spigot", cuts=pins).stop("route").problems
    assert error.field.endswith(f"cuts.{twin.id}.station")
    assert "stays at station 3" in str(error.message)


def test_tools_that_stay_are_neither_put_in_nor_touched_off():
    fresh = planned("spigot").views[0][ROUTE].run
    stay = planned("spigot", stay=4).views[0][ROUTE].run
    assert stay.setup_min == fresh.setup_min - 4 * 5
    all_stay = planned("spigot", stay=60)
    assert all_stay.views[0][ROUTE].run.setup_min == 10 + 15 + 15 + 15
    assert "stay-all" in [n.code for n in all_stay.stop("route").notes]


def test_piece_by_piece_changes_the_jaws_for_each():
    two = planned("wear-ring", follow="pieces").views[0][ROUTE]
    assert (two.cycle_s, two.batches_s) == (two.piecewise_s, pytest.approx(two.piecewise_s - 1200))


@pytest.mark.parametrize("name", ["spigot", "collet"])
def test_every_lever_is_worth_what_pulling_it_gives(name):
    """What the list says of a cut 10 % faster, and of the machine in use more, against the plan computed so."""
    before = planned(name).views[0][ROUTE]
    found = levers(before)
    assert found == sorted(found, key=lambda lever: -lever.run_min)
    assert found[0].run_min > 0
    assert len(found) <= 6
    told = {lever.words: lever for lever in levers(before)}
    for o in (o for s in before.sides for o in s.operations):
        lever = told.get(f"{o.cut.name} cut 10 % faster")
        if lever is None:
            continue
        faster = planned(name, cuts={o.cut.id: {"clocked_s": 0.9 * o.cut_s + o.moves_s}}).views[0][ROUTE]
        assert before.cycle_s - faster.cycle_s == pytest.approx(lever.piece_s, abs=1e-6)
        assert before.run.run_min - faster.run.run_min == pytest.approx(lever.run_min, rel=1e-6)
    used = planned(name, rules={"utilisation_pct": 90.0}).views[0][ROUTE]
    lever = told.get("machine in use 5 % more of the time")
    assert lever is None or before.run.run_min - used.run.run_min == pytest.approx(lever.run_min)


def test_checks_that_stop_the_machine_count_after_every_so_many_pieces_but_not_after_the_last():
    plain = planned("spigot").views[0][ROUTE].run
    checked = planned("spigot", rules={"check_pieces": 49, "check_s": 90.0}).views[0][ROUTE].run
    assert plain.pieces == 245
    assert checked.run_min - plain.run_min == pytest.approx(4 * 1.5)  # after 49, 98, 147, 196


def test_money_is_hidden_until_a_minute_costs_something():
    assert planned("spigot", rules={"edge_cost": 4.0}).views[0][ROUTE].run.cost is None
    assert "cost" not in {a.name for a in planned("spigot").stop("route").answers}
    result = planned("spigot", rules={"minute_cost": 1.5, "edge_cost": 4.0})
    run = result.views[0][ROUTE].run
    by_hand = ((run.setup_min + run.run_min) * 1.5 + run.edges * 4.0) / 240
    assert run.cost == pytest.approx(by_hand)
    assert "cost" in {a.name for a in result.stop("route").answers}


@pytest.mark.parametrize("name", ["spigot"])
def test_settled_for_cheap_a_piece_costs_no_more_and_takes_no_less(name):
    """Dear edges: what is settled for the cheapest piece is cheaper than what is settled for the quickest."""
    known = run(name)
    rules = replace(known.document.rules, minute_cost=0.5, edge_cost=30.0)
    document = replace(known.document, rules=rules)

    def settled(goal):
        made = document
        for side in range(len(made.setups)):
            made = settle_setup(made, known.shelf, side, goal=goal).document
        found = compute(made, known.shelf).views[0][ROUTE]
        return found.run.cost, sum(o.cut_s for s in found.sides for o in s.operations), found.run.edges

    quick, cheap = settled("quickest"), settled("cheapest")
    assert cheap[0] < quick[0]
    assert cheap[1] >= quick[1]
    assert cheap[2] < quick[2]


def test_a_turret_with_kinds_of_station_puts_bars_at_even_numbers():
    found = route("spigot", turret_takes="alternate")
    at = {o.station % 2: o.cut.planned.inside for s in found.sides for o in s.operations}
    assert at == {1: False, 0: True}
    assert sum(t.index_s for t in found.turrets) >= sum(t.index_s for t in route("spigot").turrets)


def test_too_few_stations_are_a_stop_at_the_machine():
    stop = computed("spigot", turret_stations=3).stop("route")
    assert (stop.state, [e.field for e in stop.problems]) == ("stopped", ["machine"])
    assert "no place left" in str(stop.problems[0].message)


def test_a_long_tool_strikes_at_index_where_tools_change_too_near():
    cuts = [o.cut for s in route("spigot").sides for o in s.operations]
    for bar in (c for c in cuts if c.planned.kind == "bore"):
        assert reach_of(bar) == pytest.approx(bar.planned.start_mm + bar.length_mm + 1)
    deepest = max(reach_of(c) for c in cuts)

    def cautions(change_z_mm):
        return [n for n in computed("spigot", change_z_mm=change_z_mm).stop("route").notes if n.level == "caution"]

    assert cautions(deepest + 1) == []
    note = cautions(deepest - 1)[0]
    assert note.code == "strikes-at-index"
    assert f"{deepest + 1:.2f}" in str(note.sentence)  # the rule's millimetre in front of the face


def test_what_would_balance_is_judged_as_the_plan_that_it_makes():
    result = computed("collet", turrets=2)
    found = result.views[0][ROUTE]
    offered = list(moves(result.views[0], found))
    assert offered
    rows = {r.label: r for r in balance(result.views[0], found).rows}
    for move in offered:
        made = compute(move.document, result.views[0].shelf)
        row = rows[f"{' and '.join(c.name for c in move.cuts)} on the other spindle"]
        assert (row.path is None) == (made.verdict == "stopped")
        if row.why_not is None:
            assert made.views[0][ROUTE].cycle_s < found.cycle_s
    # Taken, the hole keeps its order, and the other side's face comes first.
    whole = max(offered, key=lambda m: len(m.cuts)).document
    second = [c.kind for c in whole.setups[1].cuts]
    assert second[: 1 + len(offered[0].cuts)] == ["face", *["bore"] * len(offered[0].cuts)]
    assert whole.setups[0].cuts[-1].kind == "part"


def test_nothing_balances_one_lane_a_shoulder_or_a_blind_hole():
    assert "balance" not in {
        t.name for t in computed("collet", turrets=1).tables(computed("collet", turrets=1).stop("route"))
    }
    known = run("collet")
    bore = known.document.part.profile.inside[0]
    blind = replace(known.document.part.profile, inside=(replace(bore, length_mm=20.0),))
    document = replace(known.document, part=replace(known.document.part, profile=blind))
    assert all(across(document, 0, c.id) == () for c in document.setups[0].cuts)


def test_an_unusual_order_is_told_until_its_reason_is_written():
    known = run("spigot")
    first = known.document.setups[0]
    turned = replace(first, cuts=tuple(reversed(first.cuts)))
    odd = replace(known.document, setups=(turned, *known.document.setups[1:]))
    stop = compute(odd, known.shelf).stop("route")
    told = [n for n in stop.notes if n.code in ("finish-before-rough", "bore-before-drill", "face-late")]
    assert told
    assert {n.level for n in told} == {"caution"}
    assert "order" in {f.name for f in stop.facts}
    kept = replace(odd, route=replace(odd.route, order="the bore is drilled on another lathe"))
    notes = [n for n in compute(kept, known.shelf).stop("route").notes if n.code in {t.code for t in told}]
    assert {n.level for n in notes} == {"info"}
    assert all("the bore is drilled on another lathe" in str(n.sentence) for n in notes)


def test_cuts_of_one_tool_wear_one_edge():
    """Worn by a share of its life in each cut: whole pieces of one over the sum, not of each cut alone."""
    found = route("spigot")
    cuts = [o.cut for s in found.sides for o in s.operations]
    for need, tool in zip(found.run.needs, dict.fromkeys(tool_of(c) for c in cuts), strict=True):
        mine = [c for c in cuts if tool_of(c) == tool]
        worn = sum(c.minutes / c.consulted.life.life_min for c in mine if c.consulted.life)
        assert need.per_edge == (int(1 / worn + 1e-9) if worn else None)
        assert need.edges == (-(-245 // need.per_edge) if worn else 1)
    (table,) = (t for t in computed("spigot").tables(computed("spigot").stop("route")) if t.name == "needs")
    assert [r.label for r in table.rows] == [n.name for n in found.run.needs]
    short = [r for r, n in zip(table.rows, found.run.needs, strict=True) if n.stock is not None and n.stock < n.inserts]
    assert all("short" in str(r.why_not) for r in short)


@pytest.mark.parametrize("name", ["spigot", "wear-ring"])
def test_a_faster_feed_lengthens_a_run_only_where_an_edge_change_does(name):
    before = planned(name).views[0][ROUTE]
    for side in before.sides:
        for o in side.operations:
            feed = o.cut.planned.feed_mm_rev
            if feed is None or o.cut.planned.kind == "thread":
                continue
            after = planned(name, cuts={o.cut.id: {"feed_mm_rev": 1.1 * feed}}).views[0][ROUTE]
            if after is None:  # a slow feed near the centre is kept below it
                continue
            assert after.cycle_s <= before.cycle_s + 1e-9
            if after.run.run_min > before.run.run_min + 1e-9:
                assert after.run.edges > before.run.edges  # and both are told side by side


def test_ten_million_pieces_are_counted_and_have_no_finish():
    known = run("spigot")
    part = replace(known.document.part, quantity=10_000_000)
    shelf = replace(known.shelf, calendar=TWO_SHIFTS, today="2026-11-28")
    stop = compute(replace(known.document, part=part), shelf).stop("route")
    assert stop.state != "open"
    assert "never-done" in [n.code for n in stop.notes]


def test_how_a_machine_moves_is_marked_typical_until_the_shop_tells():
    def bases(**machine):
        return {f.name: f.basis for f in computed("spigot", **machine).stop("route").facts}

    told, guessed = bases(typical=False), bases(typical=True)
    moved = {"route_moves", "route_index", "route_spindle"}
    assert {name for name in guessed if guessed[name] != told[name]} == moved
    assert {guessed[name] for name in moved} == {"typical"}


def test_a_set_that_is_refitted_is_mounted_and_not_bored():
    """A set bored for this very pocket, on its own chuck in its own teeth; with a dent it is bored again."""
    known = run("wear-ring")
    view = compute(known.document, known.shelf).views[0]
    hold, chosen = view[JAW_HOLD], known.shelf.setups[0]
    tooth = hold.mount.tooth if hold.mount else 0

    def first_task(damage_mm):
        used = JawSet(
            "used",
            "Used",
            hold.side,
            hold.pocket.bore_diameter_mm,
            hold.pocket.bore_depth_mm + 1,
            10.0,
            tooth=tooth,
            damage_mm=damage_mm,
            numbers="1-1 2-2 3-3",
            chuck_key=chosen.chuck.key,
            blank_key=chosen.blank.key,
        )
        setups = (replace(chosen, jaw_set=used, jaw_sets=(used,)), *known.shelf.setups[1:])
        task = compute(known.document, replace(known.shelf, setups=setups)).views[0][ROUTE].run.tasks[0]
        return task.words, task.minutes

    assert first_task(0.0) == ("Side 1: jaws refitted, not bored", 10)
    assert first_task(0.2) == ("Side 1: jaws mounted and bored", 25)
