"""Stop Route: where the tools stand, in which order they work, and on which spindle."""

from __future__ import annotations

from dataclasses import replace

import pytest

from calc.plan.across import across, moved_across
from calc.plan.compute import compute
from calc.plan.route.balance import balance, moves
from calc.plan.route.solve import ROUTE
from calc.plan.route.strikes import reach_of
from calc.tests.plan.test_route import computed, route, run


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
    bored = max((m for m in offered if m.cuts[0].kind == "bore"), key=lambda m: len(m.cuts))
    second = [c.kind for c in bored.document.setups[1].cuts]
    assert second[: 1 + len(bored.cuts)] == ["face", *["bore"] * len(bored.cuts)]
    assert bored.document.setups[0].cuts[-1].kind == "part"


def test_the_largest_diameter_is_seen_from_either_end_and_nothing_is_cut_where_it_is_held():
    result = computed("collet", turrets=2)
    document = result.views[0].document
    named = {c.name: c for c in document.setups[0].cuts}
    finish = named["Finish Collar"]
    assert [c.name for c in across(document, 0, finish.id)] == ["Finish Collar"]
    assert [c.name for c in across(document, 0, named["Rough Collar"].id)] == ["Rough Collar", "Finish Collar"]
    assert across(document, 0, named["Finish Thread"].id) == ()
    moved = moved_across(document, 0, (finish,))
    # 42 long: what begins 19 behind one face and is 23 long begins at the other.
    assert [(c.start_mm, c.length_mm) for c in moved.setups[1].cuts if c.kind == "turn"] == [(0.0, 23.0)]
    assert moved_across(moved, 1, (moved.setups[1].cuts[-1],)).setups[1] == document.setups[1]
    # The second spindle holds the collar: there it cannot be turned, and the table says so.
    rows = {r.label: r for r in balance(result.views[0], result.views[0][ROUTE]).rows}
    row = rows["Finish Collar on the other spindle"]
    assert row.path is None
    assert "is gripped" in str(row.why_not)


def test_nothing_balances_one_lane_a_shoulder_or_a_blind_hole():
    assert "balance" not in {
        t.name for t in computed("collet", turrets=1).tables(computed("collet", turrets=1).stop("route"))
    }
    known = run("collet")
    bore = known.document.part.profile.inside[0]
    blind = replace(known.document.part.profile, inside=(replace(bore, length_mm=20.0),))
    document = replace(known.document, part=replace(known.document.part, profile=blind))
    assert all(across(document, 0, c.id) == () for c in document.setups[0].cuts if c.inside)


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
