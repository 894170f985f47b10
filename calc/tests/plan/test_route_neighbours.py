"""A long tool beside a short one: it comes round with the turret, and may not meet chuck or jaws."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.plan.compute import compute
from calc.plan.hold.solve import HOLD
from calc.plan.hold.stand import Things
from calc.plan.paths import replaced
from calc.plan.route.neighbours import Held, off_axis, side_by_side, struck
from calc.plan.route.solve import ROUTE
from calc.plan.route.strikes import reach_of
from calc.plan.standing import standing
from calc.route.stations import Apart
from calc.tests.plan.test_route import computed, route


def test_the_neighbour_stands_off_the_axis_by_the_chord():
    # Twelve stations, the tip on the axis: 2·200·sin 15°.
    assert off_axis(200.0, 30.0, 0.0) == pytest.approx(2 * 200 * math.sin(math.radians(15)))
    # Two stations: across the turret, 2·R + r.
    assert off_axis(200.0, 180.0, 50.0) == pytest.approx(450.0)


@given(st.floats(50, 500), st.floats(5, 180), st.floats(0, 200))
def test_more_stations_bring_it_nearer_and_a_larger_diameter_away(radius, apart, tip):
    assert off_axis(radius, apart, tip) <= off_axis(radius, min(180.0, apart * 1.2), tip) + 1e-9
    assert off_axis(radius, apart, tip) <= off_axis(radius, apart, tip + 1.0) + 1e-9


def stops(name, **machine):
    found = computed(name, **machine)
    return [n for n in found.stop("route").notes if n.code == "neighbour-strikes"], found


def test_without_the_turrets_radius_nothing_is_said():
    assert stops("spigot", turret_radius_mm=None)[0] == []


def cuts_of(found):
    return [o.cut for side in found.sides for o in side.operations]


def ring(low, high, deep):
    """A chuck alone: a body between two radii from so deep behind the face on."""
    return Things((), True, deep, deep, deep + 80.0, high, low, low, ())


def test_a_long_tool_strikes_from_the_depth_on_that_it_reaches():
    found = route("spigot", turret_radius_mm=200.0)
    cuts = cuts_of(found)
    long = max(cuts, key=reach_of)
    short = next(c for c in cuts if reach_of(c) == 0 and c.planned.kind == "face")
    machine = computed("spigot", turret_radius_mm=200.0).views[0].shelf.machine
    # Facing to the centre or to a bore: the tip's own radius moves the neighbour out.
    away = off_axis(200.0, 360 / machine.turret_stations, min(short.planned.to_diameter_mm or 0.0, 1e9) / 2)
    reach = reach_of(long)
    for deep, hits in ((reach - 1.0, True), (reach + 3.0, False)):
        of = Held(ring(away - 5, away + 5, deep), 1.0)
        pairs = {(s.cut.id, s.other.id) for s in struck([short], cuts, machine, of)}
        assert ((short.id, long.id) in pairs) is hits


def test_stations_are_found_so_that_none_strikes_and_a_pin_that_does_is_told():
    notes, found = stops("spigot", turret_radius_mm=150.0)
    figures = found.views[0].document, route("spigot", turret_radius_mm=150.0)
    assert notes == []
    turret = figures[1].turrets[0].stations
    cuts = cuts_of(figures[1])
    machine = found.views[0].shelf.machine
    pairs = [
        s.pair
        for side, view in zip(figures[1].sides, found.views, strict=True)
        for s in struck([o.cut for o in side.operations], cuts, machine, held(view))
    ]
    assert pairs  # there is something to be kept apart
    assert not any(side_by_side(turret, p, machine.turret_stations) for p in pairs)


def held(view):
    return Held.of(view[HOLD], view.document.in_force.clearance_mm)


def test_a_pin_that_lets_one_strike_is_told():
    found = computed("spigot", turret_radius_mm=150.0)
    cuts, machine = cuts_of(found.views[0][ROUTE]), found.views[0].shelf.machine
    side, view = found.views[0][ROUTE].sides[0], found.views[0]
    pair = next(struck([o.cut for o in side.operations], cuts, machine, held(view))).pair
    document = view.document
    for number, tool in ((4, pair.one), (5, pair.other)):
        cut = next(c for s in document.setups for c in s.cuts if c.tool == tool)
        at = next(i for i, s in enumerate(document.setups) if cut in s.cuts)
        document = replaced(document, f"setups.{document.setups[at].id}.cuts.{cut.id}.station", number)
    notes = [n for n in compute(document, view.shelf).stop("route").notes if n.code == "neighbour-strikes"]
    assert len(notes) == 1
    assert "beside it, at station 5," in notes[0].text
    assert "Leave a station free between them" in notes[0].text


def test_side_by_side_goes_round():
    at = {"a": 1, "b": 12, "c": 3}
    assert side_by_side(at, Apart("a", "b"), 12)
    assert not side_by_side(at, Apart("a", "c"), 12)


def test_what_the_board_counts_names_the_tools():
    found = computed("spigot")
    assert set(standing(found.views[0].document, found.views[0].shelf).turret) == {
        c.planned.tool for c in cuts_of(route("spigot")) if c.planned.tool
    }
