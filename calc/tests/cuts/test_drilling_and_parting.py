"""Drills and blades."""

import itertools
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.drilling import DrillInput, drill, pecks
from calc.cuts.part_off import PartOffInput, Stretch, cross_minutes, part_off
from calc.cuts.spindle import Turning
from calc.errors import CalcError
from calc.working import Working


def minutes(outer, inner, speed, feed, cap):
    return cross_minutes(Working(), Stretch(outer, inner, feed), Turning(speed, None, cap))


def test_the_worked_drills():
    one = drill(DrillInput(13, 90, 0.2, 2220, 0.14))
    assert (round(one.rpm), round(one.chip_thickness_mm, 5), round(one.torque_nm, 2), round(one.thrust_n)) == (
        2204,
        0.09397,
        13.06,
        1888,
    )
    two = drill(DrillInput(40, 150, 0.12, 2350, 0.21, pilot_mm=12))
    assert (round(two.torque_nm, 2), round(two.thrust_n)) == (93.88, 3393)


def test_power_and_time_by_hand():
    found = drill(DrillInput(13, 90, 0.2, 2220, 0.14, depth_mm=42))
    assert found.power_kw == pytest.approx(found.torque_nm * 2 * math.pi * found.rpm / 60000 / 0.8)
    tip = 6.5 / math.tan(math.radians(70))
    assert found.minutes == pytest.approx((42 + tip) / (0.2 * found.rpm))


def test_the_spindle_holds_it():
    assert drill(DrillInput(3, 90, 0.05, 2220, 0.14, max_rpm=5000)).rpm == 5000


def test_pecks_from_three_diameters_deep():
    assert pecks(10, 30) == ()
    assert pecks(10, 31) == (30, 31)
    assert pecks(10, 55) == (30, 40, 50, 55)


@given(st.floats(1, 40), st.floats(0.1, 200))
def test_pecks_go_deeper_and_end_at_the_depth(diameter, diameters):
    depth = diameters * diameter
    found = pecks(diameter, depth)
    assert list(found) == sorted(set(found))
    if found:
        assert found[-1] == depth
        assert max(b - a for a, b in itertools.pairwise(found)) <= diameter * (1 + 1e-9)


def test_a_pilot_as_large_as_the_drill_is_refused():
    with pytest.raises(CalcError, match="smaller than the drill"):
        DrillInput(10, 90, 0.1, 2000, 0.2, pilot_mm=10)


def test_facing_to_the_centre_takes_what_the_worked_example_says():
    assert minutes(80, 0, 200, 0.2, 3000) == pytest.approx(0.1345, abs=5e-5)


def test_a_plunge_that_never_tops_out_is_the_integral():
    # 36 -> 20 at 120 m/min, 0.1: pi (36^2 - 20^2) / (4000 * 120 * 0.1)
    assert minutes(36, 20, 120, 0.1, 6000) == pytest.approx(math.pi * 896 / 48000)


@given(st.floats(10, 200), st.floats(0, 9), st.floats(20, 400), st.floats(0.02, 0.4), st.floats(300, 6000))
def test_the_time_is_what_small_steps_add_up_to(outer, inner, v, f, most):
    steps = 4000
    width = (outer - inner) / 2 / steps
    total = sum(width / (f * min(most, 1000 * v / (math.pi * (inner + (2 * i + 1) * width)))) for i in range(steps))
    assert minutes(outer, inner, v, f, most) == pytest.approx(total, rel=1e-3)


def test_slow_near_the_centre_takes_longer_and_tells_its_stretches():
    fast = part_off(PartOffInput(36, 3, 120, 0.1, 3000))
    slow = part_off(PartOffInput(36, 3, 120, 0.1, 3000, slow_feed_mm_rev=0.04))
    assert [(s.from_mm, s.to_mm, s.feed_mm_rev) for s in slow.feeds] == [(36, 5, 0.1), (5, 0, 0.04)]
    # the last 2.5 mm of radius at 3000 rpm: 2.5/(0.04*3000) instead of 2.5/(0.1*3000)
    assert slow.minutes - fast.minutes == pytest.approx(2.5 / 120 - 2.5 / 300)
    assert fast.kerf_mm == 3


@pytest.mark.parametrize(
    ("reach", "most", "ok"), [(20, None, True), (19.9, None, False), (20, 20, True), (21, 20, False)]
)
def test_reach_is_the_radius_and_two_millimetres(reach, most, ok):
    assert part_off(PartOffInput(36, 3, 120, 0.1, 3000, reach_mm=reach, reach_max_mm=most)).reach_ok is ok


def test_a_narrow_blade_is_told():
    codes = lambda w: {n.code for n in part_off(PartOffInput(36, w, 120, 0.1, 3000)).notes}  # noqa: E731
    assert "blade-narrow" in codes(2.9)
    assert "blade-narrow" not in codes(3)


def test_pecks_count_the_steps_to_the_centre():
    assert part_off(PartOffInput(36, 3, 120, 0.1, 3000, peck_mm=0.2)).pecks == 90


def test_what_pecks_without_end_is_refused_in_words():
    assert len(pecks(1, 203)) == 201  # three diameters, then one at a time
    with pytest.raises(CalcError, match="no work for a pecking drill"):
        pecks(1, 203.01)
    given = PartOffInput(100.0, 3.0, 100.0, 0.1, 2000.0, peck_mm=0.05)
    assert part_off(given).pecks == 1000
    with pytest.raises(CalcError, match=r"take 0\.05"):
        replace(given, peck_mm=0.0499)
