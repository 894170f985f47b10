"""Stop Route: the run by the clock, what moves it, what it uses up and costs."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import wall
from calc.errors import CalcError
from calc.plan.compute import compute
from calc.plan.hold.solve import JAW_HOLD
from calc.plan.route.edges import by_lives, tool_of
from calc.plan.route.inputs import Route
from calc.plan.route.levers import levers
from calc.plan.route.solve import ROUTE
from calc.running.lot import lots_of
from calc.settle.setup import settle_setup
from calc.shelf.jaw_set import JawSet
from calc.tests.plan.test_route import computed, route, run

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


def test_without_a_start_it_is_told_from_the_earliest_and_says_so():
    answers = {a.name: a for a in planned("spigot").stop("route").answers}
    assert str(answers["finished"].below).startswith("if it is set up at the earliest, Mon 30 Nov 06:00")
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


def test_how_long_an_edge_lasted_counts_in_place_of_its_life_and_what_was_computed_stands_beside_it():
    before = planned("spigot").views[0][ROUTE]
    cut = before.sides[0].operations[0].cut
    after = planned("spigot", cuts={cut.id: {"lasted_pieces": 7}})
    found = after.views[0][ROUTE].run
    place = list(dict.fromkeys(tool_of(o.cut) for s in before.sides for o in s.operations)).index(tool_of(cut))
    assert (found.needs[place].per_edge, found.needs[place].edges) == (7, -(-found.pieces // 7))
    fact = next(f for f in after.stop("route").facts if f.name == f"lasted_pieces_{cut.id}")
    assert (fact.value, str(fact.source).split()[0]) == (7, "computed")


def test_of_cuts_with_one_edge_the_least_that_was_seen_counts():
    sides = planned("spigot").views[0][ROUTE].sides
    cuts = [o.cut for s in sides for o in s.operations]
    tool = next(t for t in map(tool_of, cuts) if sum(tool_of(c) == t for c in cuts) > 1)
    first, second = [c for c in cuts if tool_of(c) == tool][:2]
    seen = {first.id: {"lasted_pieces": 40}, second.id: {"lasted_pieces": 30}}
    found = planned("spigot", cuts=seen).views[0][ROUTE].run
    assert 30 in [need.per_edge for need in found.needs]
    assert 40 not in [need.per_edge for need in found.needs]


def test_the_pace_that_was_seen_takes_the_place_of_every_share_and_stop():
    found = planned("spigot", seen_s=600.0)
    run = found.views[0][ROUTE].run
    assert run.run_min == pytest.approx(run.pieces * 10)  # ten minutes a piece
    assert (run.edge_min, run.bar_min, run.check_min) == (0, 0, 0)
    names = {f.name for f in found.stop("route").facts}
    assert "route_edge_min" not in names
    assert "pace-seen" in [n.code for n in found.stop("route").notes]
    run_answer = next(a for a in found.stop("route").answers if a.name == "run")
    assert "pace that was seen" in str(run_answer.below)
    assert sum(lot.minutes_planned for lot in lots_of(found)) == pytest.approx(10)


def test_what_was_seen_and_is_hard_to_believe_is_asked_about():
    before = planned("spigot").views[0][ROUTE]
    cut = before.sides[0].operations[0].cut
    lasts = by_lives([cut])

    def codes(cuts=None, **said):
        return {n.code for n in planned("spigot", cuts=cuts, **said).stop("route").notes}

    assert "edge-lasts-long" not in codes({cut.id: {"lasted_pieces": 4 * lasts}})
    assert "edge-lasts-long" in codes({cut.id: {"lasted_pieces": 4 * lasts + 1}})
    assert "pace-too-fast" not in codes(seen_s=before.cycle_s)
    assert "pace-too-fast" in codes(seen_s=0.9 * before.cycle_s)


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
