"""Time in cut, against small steps added up."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.spindle import Turning
from calc.route.time import RUN_IN_MM, Path, minutes_of
from calc.working import Working


def along_minutes(length, diameter, depth, passes, speed, rpm, feed, cap):
    """Passes along the axis, each `depth` deep; a bore's depth is negative: it grows."""
    kind = "turn" if depth >= 0 else "bore"
    path = Path(kind, diameter, diameter - 2 * depth * passes, length, float(passes), feed)
    return minutes_of(Working(), path, Turning(speed, rpm, cap))


def across_minutes(outer, inner, passes, speed, rpm, feed, cap):
    return minutes_of(Working(), Path("face", outer, inner, 0.0, float(passes), feed), Turning(speed, rpm, cap))


SPEEDS, FEEDS = st.floats(30, 400), st.floats(0.05, 0.6)


def test_a_pass_at_a_fixed_speed_by_hand():
    # (48 + 2) / (0.2 * 500)
    assert along_minutes(48, 100, 2, 1, None, 500, 0.2, 4000) == pytest.approx(0.5)


def test_each_pass_turns_at_the_diameter_it_leaves():
    # 100 -> 90 in two passes of 2.5: at 95 and 90, 150 m/min
    by_hand = sum(50 / (0.2 * 1000 * 150 / (math.pi * d)) for d in (95, 90))
    assert along_minutes(48, 100, 2.5, 2, 150, None, 0.2, 4000) == pytest.approx(by_hand)


def test_a_bore_grows_pass_by_pass():
    by_hand = sum(50 / (0.2 * 1000 * 150 / (math.pi * d)) for d in (52, 54))
    assert along_minutes(48, 50, -1, 2, 150, None, 0.2, 4000) == pytest.approx(by_hand)


def test_the_cap_holds_small_diameters_back():
    free = along_minutes(48, 20, 0.5, 1, 300, None, 0.2, 1e6)
    held = along_minutes(48, 20, 0.5, 1, 300, None, 0.2, 2000)
    assert held == pytest.approx(50 / (0.2 * 2000))
    assert held > free


@given(st.floats(5, 200), st.floats(20, 150), st.integers(1, 9), SPEEDS, FEEDS, st.floats(200, 6000))
def test_more_feed_and_a_higher_cap_never_take_longer(length, diameter, passes, speed, feed, cap):
    depth = diameter / 2 / passes * 0.5
    base = along_minutes(length, diameter, depth, passes, speed, None, feed, cap)
    assert along_minutes(length, diameter, depth, passes, speed, None, feed * 1.3, cap) <= base
    assert along_minutes(length, diameter, depth, passes, speed, None, feed, cap * 1.3) <= base * (1 + 1e-12)
    assert base >= passes * (length + RUN_IN_MM) / (feed * cap) * (1 - 1e-12)


@given(st.floats(20, 150), st.floats(0, 15), st.integers(1, 5), SPEEDS, FEEDS, st.floats(200, 6000))
def test_passes_across_each_take_the_same(outer, inner, passes, speed, feed, cap):
    one = across_minutes(outer, inner, 1, speed, None, feed, cap)
    assert across_minutes(outer, inner, passes, speed, None, feed, cap) == pytest.approx(passes * one)


def test_across_at_a_fixed_speed_by_hand():
    # 20 mm of radius at 0.1 and 800 rpm
    assert across_minutes(60, 20, 1, None, 800, 0.1, 4000) == pytest.approx(20 / 80)
    assert across_minutes(60, 20, 1, None, 800, 0.1, 400) == pytest.approx(20 / 40)


def test_a_thread_runs_in_three_pitches_every_pass():
    # 6 (20 + 4.5) / (1.5 * 1000)
    assert minutes_of(
        Working(), Path("thread", 24.0, 22.0, 20.0, 6.0, 1.5), Turning(None, 1000, 4000)
    ) == pytest.approx(0.098)
