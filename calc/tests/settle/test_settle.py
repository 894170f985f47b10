"""Settling: it keeps every limit, is not beaten by a plain search, and says what binds."""

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.chuck.demand import CutLoad, GripDemandInput, grip_demand
from calc.cuts.turning import CutInput, cut
from calc.errors import CalcError
from calc.plan.solve import solve
from calc.profile.steps import TurnedStep
from calc.settle.operation import keeps_all, settle_operation, with_cut
from calc.settle.setup import settle_setup
from calc.settle.vector import forces, required
from calc.tests.route_shop import plan, proposed, shelf


@settings(max_examples=200, deadline=None)
@given(
    st.floats(0.02, 1),
    st.floats(0.05, 8),
    st.sampled_from([0.0, 0.2, 0.4, 0.8, 1.2, 6.0]),
    st.floats(30, 100),
    st.floats(-6, 20),
    st.floats(1, 2),
)
def test_vector_forces_are_the_calculators(feed, depth, corner, approach, rake, wear):
    one = cut(
        CutInput(80, feed, depth, corner, 2220, 0.14, speed_m_min=200, approach_deg=approach, rake_deg=rake, wear=wear)
    )
    many = forces(np.array([feed]), np.array([depth]), corner, approach, rake, 6.0, 2220, 0.14, wear)
    for found, expected in (
        (many.tangential, one.tangential_n),
        (many.feed, one.feed_n),
        (many.passive, one.passive_n),
    ):
        assert found[0] == pytest.approx(expected, rel=1e-9)


@settings(max_examples=200, deadline=None)
@given(
    st.sampled_from([2, 3, 4, 6]),
    st.floats(10, 5000),
    st.floats(10, 3000),
    st.floats(10, 3000),
    st.booleans(),
    st.floats(0, 2),
    st.floats(0, 3000),
    st.booleans(),
    st.booleans(),
)
def test_vector_demand_is_the_calculators(jaws, ft, fa, fr, unseated, offset, rpm, torque_only, centre):
    load = CutLoad("c", ft, fa, fr, 80.0, 30.0, fa if unseated else 0.0, torque_only)
    asked = GripDemandInput((load,), 90.0, 18.0, 0.1, 2.0, centre, jaws, 3.0, offset, 25.0, rpm)
    found = required(
        asked,
        np.array([ft]),
        np.array([fa]),
        np.array([fr]),
        np.array([fa if unseated else 0.0]),
        80.0,
        30.0,
        np.array([rpm]),
        torque_only=torque_only,
    )
    assert found[0] == pytest.approx(grip_demand(asked).required_grip_n, rel=1e-9)


FIGURES = ("feed_mm_rev", "depth_mm", "speed_m_min")


def ready(taken=None):
    """A settled set-up whose roughing was then slowed down."""
    taken = taken or shelf()
    document = settle_setup(proposed(plan(), taken), taken, 0).document
    slow = document.setups[0].cuts[1].speed_m_min * 0.7
    return with_cut(document, 0, 1, {"speed_m_min": slow}), taken


def taken_over(document, index, found):
    return with_cut(document, 0, index, {n: getattr(found.planned, n) for n in FIGURES})


def test_it_is_faster_and_the_whole_plan_takes_it():
    document, taken = ready()
    found = settle_operation(document, taken, 0, 1)
    changed = taken_over(document, 1, found)
    assert found.minutes < found.minutes_before
    after = solve(changed, taken)
    assert keeps_all(after, 1)
    assert after.cuts.value.cuts[1].minutes == pytest.approx(found.minutes, rel=1e-9)
    assert after.cuts.value.cuts[1].passes == found.passes


def test_the_same_question_has_the_same_answer():
    document, taken = ready()
    one, two = (settle_operation(document, taken, 0, 1) for _ in range(2))
    assert one.planned == two.planned
    assert str(one.words) == str(two.words)


@pytest.mark.parametrize("index", [0, 1, 2])
def test_a_plain_search_does_not_beat_it(index):
    document, taken = ready()
    found = settle_operation(document, taken, 0, index)
    planned = document.setups[0].cuts[index]
    stock = (
        document.part.face_stock_mm
        if planned.kind == "face"
        else abs(planned.from_diameter_mm - planned.to_diameter_mm) / 2
    )
    best = math.inf
    window = solve(document, taken).cuts.value.cuts[index].about.window
    for passes, feed, speed in itertools.product(
        (1, 2, 4, 7, 9, 12), (0.1, 0.14, 0.2, 0.28, 0.36, 0.42, 0.5), (150, 200, 250, 290, 320)
    ):
        if not window.feed_min_mm_rev <= feed <= window.feed_max_mm_rev:
            continue
        depth = math.ceil(stock / passes * 1000 - 1e-6) / 1000
        try:
            tried = with_cut(document, 0, index, {"feed_mm_rev": feed, "depth_mm": depth, "speed_m_min": float(speed)})
        except CalcError:
            continue
        figures = solve(tried, taken)
        one = figures.cuts.value.cuts[index]
        tool = one.tool.edge
        inside = tool.depth_min <= depth <= tool.depth_max and depth >= one.planned.corner_radius_mm
        if inside and one.about.life.life_min >= 15 and keeps_all(figures, index):
            best = min(best, one.minutes)
    assert found.minutes <= best * (1 + 1e-9)


@settings(max_examples=12, deadline=None)
@given(
    st.floats(30, 80), st.floats(15, 45), st.sampled_from([1.6, 3.2, None]), st.floats(10, 32), st.integers(600, 3500)
)
def test_settled_figures_never_break_a_limit(diameter, long, ra, pressure, clamp):
    steps = (
        TurnedStep("Pin", round(diameter, 1), round(long, 1), fit="h7", ra_um=ra, corner_mm=0.8),
        TurnedStep("Body", round(diameter, 1) + 12, 40.0),
    )
    document = plan(steps, stock=round(diameter, 1) + 16)
    setup = document.setups[0]
    document = replace(
        document, setups=(replace(setup, clamp_rpm=float(clamp), force=replace(setup.force, pressure_bar=pressure)),)
    )
    taken = shelf()
    document = proposed(document, taken)
    try:
        whole = settle_setup(document, taken, 0)
    except CalcError:
        return  # what it says then is tested below
    after = solve(whole.document, taken)
    assert keeps_all(after)
    force, cuts = after.force.value, after.cuts.value
    assert force.top_rpm <= force.limit.speed_cap_rpm * (1 + 1e-9)
    for one in cuts.cuts:
        assert one.over <= 1 + 1e-9
        assert one.about.life is None or one.about.life.life_min >= 15 * (1 - 1e-6)
        if one.about.window is not None:
            assert one.planned.feed_mm_rev <= one.about.window.feed_max_mm_rev * (1 + 1e-9)
    assert whole.minutes == pytest.approx(cuts.minutes, rel=1e-6)


def test_the_set_up_is_no_slower_than_its_cuts_one_by_one():
    document, taken = ready()
    whole = settle_setup(document, taken, 0)
    alone = document
    for i in range(len(document.setups[0].cuts)):
        alone = taken_over(alone, i, settle_operation(alone, taken, 0, i))
    assert whole.minutes <= solve(alone, taken).cuts.value.minutes * 1.02  # the set-up's first search is coarser


def test_what_binds_is_told_and_its_going_saves_time():
    document, taken = ready()
    found = settle_operation(document, taken, 0, 2)  # finishing to Ra 1.6
    assert found.binds.name == "the finish"
    assert found.binds.minutes < found.minutes
    assert "the finish holds it back" in str(found.words)


def test_a_weak_spindle_binds():
    document, taken = ready(shelf(machine=replace(shelf().machine, power_kw=2.0)))
    found = settle_operation(document, taken, 0, 1)
    assert found.binds.name == "the spindle's power"
    assert solve(taken_over(document, 1, found), taken).cuts.value.cuts[1].over <= 1


def test_pinned_figures_stay():
    document, taken = ready()
    pinned = with_cut(document, 0, 1, {"pin_feed": True, "feed_mm_rev": 0.41, "pin_speed": True, "speed_m_min": 201.0})
    found = settle_operation(pinned, taken, 0, 1)
    assert (found.planned.feed_mm_rev, found.planned.speed_m_min) == (0.41, 201.0)
    deep = with_cut(document, 0, 1, {"pin_depth": True, "depth_mm": 1.5})
    assert settle_operation(deep, taken, 0, 1).planned.depth_mm == 1.5


def test_a_pinned_pressure_stays():
    document, taken = ready()
    setup = document.setups[0]
    pinned = replace(
        document, setups=(replace(setup, force=replace(setup.force, pressure_bar=21.0, pin_pressure=True)),)
    )
    assert settle_setup(pinned, taken, 0).pressure_bar == 21.0


def test_where_nothing_holds_it_says_what_forbids():
    document = plan()
    setup = document.setups[0]
    weak = replace(
        document, setups=(replace(setup, force=replace(setup.force, pressure_bar=4.0, condition="unknown")),)
    )
    taken = shelf()
    weak = proposed(weak, taken)
    with pytest.raises(CalcError, match="The other cuts ask more grip than there is"):
        settle_operation(weak, taken, 0, 1)
    heavy = replace(weak.setups[0].cuts[1], pin_depth=True, depth_mm=2.5, pin_feed=True, feed_mm_rev=0.45)
    held = replace(weak.setups[0], force=replace(weak.setups[0].force, pin_pressure=True), cuts=(heavy,))
    alone = replace(weak, setups=(held,))
    with pytest.raises(CalcError, match="the grip at speed forbids them all"):
        settle_operation(alone, taken, 0, 0)
    with pytest.raises(CalcError, match="No pressure and clamp hold"):
        settle_setup(alone, taken, 0)


def test_settling_waits_for_its_figures():
    document, taken = ready()
    bare = replace(document, setups=(replace(document.setups[0], cuts=()),))
    with pytest.raises(CalcError, match="settle it when"):
        settle_operation(bare, taken, 0, 0)
    with pytest.raises(CalcError, match="settle the set-up when"):
        settle_setup(bare, taken, 0)
