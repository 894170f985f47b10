"""What an operation takes beside its cutting, by hand."""

from __future__ import annotations

import math
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.route.between import Slide, moves_of, spindle_seconds
from calc.route.cycle import Pieces, cycle_seconds, run_minutes
from calc.route.time import RUN_IN_MM, Path
from calc.working import Working

# 1 m/s along, 0.5 m/s across, 2 m/s²: 100 mm across 0.5/2 + 0.1/0.5 = 0.447 (too short for full speed: 2√(0.1/2)).
SLIDE = Slide(rapid_x=30.0, rapid_z=60.0, acceleration=2.0, change_x_mm=100.0, change_z_mm=800.0)


def moves(kind, before, after, length, passes, **more):
    start = more.pop("start", 0.0)
    return moves_of(SLIDE, Path(kind, before, after, length, float(passes), more.pop("feed", 0.2), **more), start)


def test_a_turned_length_in_two_passes_by_hand():
    found = moves("turn", 40.0, 36.0, 48.0, 2)
    # There: 800 mm along, 0.8/1 + 1/2 = 1.3; home from 48 mm on, 0.848 + 0.5. Across is shorter both times.
    assert (found.there_s, found.home_s) == (pytest.approx(1.3), pytest.approx(1.348))
    # Over: 1 mm off, 2√(0.001/2); 50 mm back, 2√(0.05/2); 1 + 1 mm in, 2√(0.002/2).
    assert found.between_s == pytest.approx(0.04472 + 0.31623 + 0.06325, abs=1e-4)
    assert found.seconds == pytest.approx(found.there_s + found.between_s + found.home_s)


def test_one_pass_goes_back_for_no_other_and_a_bar_leaves_the_bore_first():
    assert moves("turn", 40.0, 36.0, 48.0, 1).between_s == 0
    # Out of the bore 50 mm, 0.316, then home 1.3.
    assert moves("bore", 30.0, 34.0, 48.0, 1).home_s == pytest.approx(1.3 + 0.31623, abs=1e-4)


def test_a_groover_goes_over_by_its_width_and_a_face_goes_back_across():
    # 6 mm wide by 3: two plunges, once over: 2 + 1 out, 3 along, 1 in.
    over = 2 * (0.0030 / 2) ** 0.5 + 2 * (0.003 / 2) ** 0.5 + 2 * (0.001 / 2) ** 0.5
    assert moves("groove", 24.0, 20.0, 6.0, 1, width=3.0).between_s == pytest.approx(over)
    # 40 mm across, 2√(0.04/2), and 1 mm off and on.
    assert moves("face", 80.0, 0.0, 0.0, 2).between_s == pytest.approx(2 * (0.04 / 2) ** 0.5 + 4 * (0.001 / 2) ** 0.5)


@given(st.floats(0, 300), st.floats(1, 300), st.integers(1, 12))
def test_farther_in_longer_and_in_more_passes_never_takes_less(start, length, passes):
    one = moves("turn", 60.0, 40.0, length, passes, start=start)
    for more in ({"start": start + 10}, {"length": length + 10}, {"passes": passes + 1}):
        given_ = {"start": start, "length": length, "passes": passes} | more
        other = moves("turn", 60.0, 40.0, given_["length"], given_["passes"], start=given_["start"])
        # More passes take smaller steps in: one more way back is more than that.
        assert other.seconds > one.seconds - 1e-9


def test_the_spindle_takes_its_share_of_the_whole_change_either_way():
    assert spindle_seconds(Working(), 500, 2000, 4500, 3.0) == pytest.approx(1.0)
    assert spindle_seconds(Working(), 2000, 500, 4500, 3.0) == pytest.approx(1.0)
    assert spindle_seconds(Working(), 800, 800, 4500, 3.0) == 0


@pytest.mark.parametrize(
    ("lanes", "of", "seconds"),
    [
        ("together", Pieces(60, 8, 45, 6), 74),  # 60 + 6 + 8: the main lane rules
        ("together", Pieces(30, 8, 45, 6), 59),  # 45 + 6 + 8: the second does
        ("in-turn", Pieces(60, 8, 45, 6), 119),
        ("one", Pieces(60, 0, 45, 0), 105),
    ],
)
def test_the_cycle_by_hand(lanes, of, seconds):
    assert cycle_seconds(Working(), lanes, of) == pytest.approx(seconds)


def test_the_run_by_hand():
    # 1 836 pieces of 1.2 min at 0.85, and 40 changes of 2 min.
    assert run_minutes(Working(), 72.0, 1836, 0.85, 80.0) == pytest.approx(1836 * 1.2 / 0.85 + 80)


def test_the_cycle_is_what_a_simulation_of_single_events_settles_to():
    """Two lanes piece by piece on random times: each begins when its spindle is free, both hold while it is parted."""
    chance = Random(7)
    for _ in range(300):
        main, part, other, transfer = (chance.uniform(0, 90) for _ in range(4))
        main_free = second_free = 0.0
        done = []
        for _ in range(6):
            meet = max(main_free + main, second_free)
            main_free = meet + transfer + part
            second_free = main_free + other
            done.append(second_free)
        period = done[-1] - done[-2]
        assert cycle_seconds(Working(), "together", Pieces(main, part, other, transfer)) == pytest.approx(period)


def test_a_drill_that_pecks_comes_out_and_goes_back_each_time_by_hand():
    """45 mm by 15: out from 15 and from 30 mm to 2 mm in front; 24 m/min are not reached: 2·√(s/a) each way."""
    path = Path("drill", 0.0, 13.0, 45.0, 1.0, 0.2)
    whole, pecked = moves_of(Slide(), path, 0.0), moves_of(Slide(), path, 0.0, 15.0)
    by_hand = sum(2 * 2 * math.sqrt((deep + RUN_IN_MM) / 1000 / 3.0) for deep in (15, 30))
    assert whole.between_s == 0
    assert pecked.between_s == pytest.approx(by_hand)
    assert (pecked.there_s, pecked.home_s) == (whole.there_s, whole.home_s)
    assert moves_of(Slide(), path, 0.0, 45.0).between_s == 0  # in one
