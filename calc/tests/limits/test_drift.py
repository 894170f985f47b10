"""Drift: the line and its interval by a second method and by hand, pieces left, and advice that chases no noise."""

from itertools import combinations
from math import ceil, floor, sqrt
from statistics import median

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import theilslopes

from calc.errors import CalcError
from calc.limits.drift import LEAST, MOST, DriftInput, drift, line_of

RISING = (10.000, 10.003, 10.002, 10.006, 10.005, 10.009)
LIMITS = {"low_mm": 9.98, "high_mm": 10.02}
SERIES = st.lists(st.integers(-40, 40), min_size=6, max_size=24).map(lambda found: [10 + x / 1000 for x in found])


def found(sizes, **more):
    return drift(DriftInput(tuple(sizes), **(LIMITS | more)))


def codes(result):
    return {note.code for note in result.notes}


def test_the_line_of_six_pieces_by_hand():
    """The fifteen slopes in 1/1000: 3 1 2 1.25 1.8, −1 1.5 .667 1.5, 4 1.5 2.333, −1 1.5, 4: the eighth is 1.5."""
    line = line_of(RISING)
    assert line.slope == pytest.approx(0.0015)
    # 1.645·√(6·5·17/18) = 8.756: the third from either end, (15 ∓ 8.756)/2 rounded outward.
    assert (line.low, line.high) == (pytest.approx(0.002 / 3), pytest.approx(0.003))
    # On the last piece: 7.5, 9, 6.5, 9, 6.5, 9 over 10: the middle of 7.5 and 9.
    assert line.last == pytest.approx(10.00825)


def by_counting(sizes):
    """Slope and interval with nothing but sorting; the score's spread from its own definition, ties and all."""
    n = len(sizes)
    slopes = sorted((sizes[j] - sizes[i]) / (j - i) for i, j in combinations(range(n), 2))
    groups = [sizes.count(x) for x in set(sizes)]
    variance = (n * (n - 1) * (2 * n + 5) - sum(t * (t - 1) * (2 * t + 5) for t in groups)) / 18
    c = 1.6448536269514722 * sqrt(variance)
    first, last = floor((len(slopes) - c) / 2) - 1, ceil((len(slopes) + c) / 2)
    return median(slopes), slopes[max(0, first)], slopes[min(len(slopes) - 1, last)]


@given(SERIES)
def test_line_and_interval_by_a_second_method(sizes):
    line = line_of(sizes)
    assert (line.slope, line.low, line.high) == pytest.approx(by_counting(sizes), abs=1e-12)
    other = theilslopes(sizes, np.arange(len(sizes)), alpha=0.90)
    assert line.slope == pytest.approx(other.slope, abs=1e-12)
    assert line.low <= other.low_slope + 1e-12 and line.high >= other.high_slope - 1e-12


@given(SERIES, st.integers(-9, 9), st.integers(-50, 50))
def test_a_series_tilted_and_moved_has_its_line_tilted_and_moved(sizes, tilt, move):
    plain, last = line_of(sizes), len(sizes) - 1
    other = line_of([x + tilt / 1000 * i + move / 1000 for i, x in enumerate(sizes)])
    assert other.slope == pytest.approx(plain.slope + tilt / 1000, abs=1e-9)
    assert other.last == pytest.approx(plain.last + tilt / 1000 * last + move / 1000, abs=1e-9)


def test_pieces_that_stand_still_are_seldom_said_to_drift():
    """90 % of the intervals hold the truth; of 400 seeded series of 12 not fewer than 86 %."""
    chance = np.random.default_rng(18)
    held = sum(not line_of(10 + 0.002 * chance.standard_normal(12)).proven for _ in range(400))
    assert held >= 344


def test_pieces_left_by_the_slope_and_for_sure():
    r = found([10 + 0.001 * i for i in range(10)])  # it stands at 10.009, 0.011 below the limit
    assert (r.pieces_left, r.pieces_left_sure) == (11, 11)
    down = found([10 - 0.001 * i for i in range(10)])
    assert down.pieces_left == 11
    noisy = found(RISING)  # at 10.00825: 0.01175 left; 0.0015 a piece, 0.003 at worst
    assert (noisy.pieces_left, noisy.pieces_left_sure) == (7, 3)
    assert found([10.0] * 8).pieces_left is None
    assert found([10.0] * 8).pieces_left_sure is None


def test_outside_already_nothing_is_left_and_it_is_a_stop():
    r = found([10.03 + 0.0001 * i for i in range(8)])
    assert (r.pieces_left, r.pieces_left_sure) == (0, 0)
    assert "outside" in codes(r)
    assert r.offset_mm < 0


def test_noise_is_not_chased():
    """Off the middle by less than a quarter of the width nothing is advised, and it says why."""
    r = found([10.009, 10.010, 10.009, 10.010, 10.009, 10.010, 10.009])  # a quarter of 0.04 is 0.010
    assert r.offset_mm == 0
    assert "left-alone" in codes(r)
    # Off by more, but four standard errors are more still: σ = 0.02/1.128, 4σ/√8 = 0.0251.
    rough = found([10.002, 10.022] * 4, low_mm=9.99, high_mm=10.03 - 0.02)
    assert rough.offset_mm == 0


def test_without_a_proven_drift_it_aims_at_the_middle():
    r = found([10.012, 10.013, 10.012, 10.013, 10.012, 10.013], step_mm=0.005)
    assert not codes(r) & {"left-alone"}
    assert r.offset_mm == pytest.approx(-0.015) or r.offset_mm == pytest.approx(-0.01)
    assert (r.offset_mm / 0.005) == pytest.approx(round(r.offset_mm / 0.005))


@pytest.mark.parametrize(("edge", "aimed"), [(4, 9.998), (1000, 9.99), (None, 10.0)])
def test_against_a_drift_it_aims_by_half_of_what_an_edge_drifts_at_most_a_quarter_of_the_width(edge, aimed):
    r = found([10.004 + 0.001 * i for i in range(10)], pieces_per_edge=edge)  # it stands at 10.013
    assert r.offset_mm == pytest.approx(aimed - 10.013)


def test_of_a_long_series_the_newest_count():
    r = found([9.0] * 10 + [10.0] * MOST)
    assert (r.fitted_now_mm, "newest" in codes(r)) == (10.0, True)


@pytest.mark.parametrize(
    ("sizes", "more", "field"),
    [
        ((10.0,) * (LEAST - 1), {}, "sizes_mm"),
        ((10.0,) * LEAST, {"low_mm": 10.0, "high_mm": 10.0}, "low_mm"),
        ((10.0,) * LEAST, {"step_mm": 0.0}, "step_mm"),
        ((10.0,) * LEAST, {"pieces_per_edge": 0}, "pieces_per_edge"),
    ],
)
def test_what_is_no_series_is_told_at_its_field(sizes, more, field):
    with pytest.raises(CalcError) as refused:
        found(sizes, **more)
    assert {e.field.partition(".")[0] for e in refused.value.errors} == {field}


def test_pieces_that_were_not_measured_count_in_the_drift():
    """Every fifth piece of 0.001 a piece, by hand: 0.005 between two, 0.001 a piece; the limit is 4 pieces away."""
    sizes, pieces = tuple(10 + 0.001 * n for n in range(0, 36, 5)), tuple(range(1, 37, 5))
    found = drift(DriftInput(sizes, 9.96, 10.039, pieces=pieces))
    assert found.slope_mm == pytest.approx(0.001)
    assert (found.pieces_left, found.pieces_left_sure) == (4, 4)
    gaps = line_of([10.0, 10.004, 10.005, 10.009, 10.010, 10.020], [1, 5, 6, 10, 11, 21])
    assert gaps.slope == pytest.approx(0.001)
    assert gaps.last == pytest.approx(10.020)


@pytest.mark.parametrize(("pieces", "words"), [((1, 2, 3), "for 6 sizes"), ((1, 2, 2, 3, 4, 5), "Piece 2 comes after")])
def test_piece_numbers_that_do_not_fit_are_told(pieces, words):
    with pytest.raises(CalcError) as told:
        DriftInput((10.0,) * 6, 9.99, 10.01, pieces=pieces)
    assert words in str(told.value)
