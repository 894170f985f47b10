"""The chart of single pieces by hand: limits, stretches, and what stands out."""

import pytest

from calc.limits.chart import OWN_FROM, chart_of

PLAIN = (10.000, 10.002, 9.999, 10.001, 10.000, 10.002, 9.998, 10.000)


def signs(sizes, *begins):
    return [(i, s) for stretch in chart_of(sizes, begins) for i, s in stretch.signs]


def test_limits_by_hand():
    """Ranges 2 3 2 1 2 4 2 in 1/1000: 16/7; σ = 2.286/1.128 = 2.026, the limits 6.077 either side of 10.00025."""
    (one,) = chart_of(PLAIN, ())
    assert one.line_mm == (pytest.approx(10.00025),) * 2
    assert one.sigma_mm == pytest.approx(0.0020257, abs=1e-6)
    assert one.half_mm == pytest.approx(0.006077, abs=1e-6)
    assert (one.drift, one.signs) == (None, ())


def test_a_new_edge_or_offset_begins_a_stretch_and_a_short_one_goes_by_the_spread_before():
    one, two = chart_of([*PLAIN, 10.02, 10.05, 10.02], [8])
    assert (one.first, one.count, two.first, two.count) == (0, 8, 8, 3)
    assert two.sigma_mm == one.sigma_mm
    assert two.line_mm[0] == pytest.approx(10.03)
    assert (9, "outside") in two.signs  # 0.02 off, of 0.0061
    assert (9, "range") in two.signs  # 0.03, of 3.267·0.002286 = 0.0075


def test_few_pieces_with_nothing_before_them_have_no_limits():
    (one,) = chart_of([10.0, 10.001, 10.2], ())
    assert one.signs == ()
    assert len(PLAIN) == OWN_FROM


def test_a_piece_outside_and_a_jump_are_told():
    assert signs([*PLAIN, *PLAIN, 10.010]) == [(16, "outside"), (16, "range")]


def test_seven_on_one_side_and_seven_rising():
    low, high = [9.998, 9.999] * 4, [10.001, 10.002] * 4
    found = [i for i, s in signs([*low, *high, *low]) if s == "one-side"]
    assert found == [6, 14, 22]  # each told once, at its seventh
    late = [*PLAIN, *PLAIN, 9.998, 9.9985, 9.999, 9.9995, 10.0, 10.0005, 10.001, 10.0015]
    assert (23, "rising") in signs(late)
    assert (23, "falling") in signs([20 - x for x in late])


def test_with_a_proven_drift_the_chart_is_of_what_is_left_off_the_line():
    sizes = [10 + 0.002 * i + e for i, e in enumerate([0, 0.001, -0.001, 0, 0.001, -0.001] * 4)]
    (one,) = chart_of(sizes, ())
    assert one.drift is not None and one.drift.slope == pytest.approx(0.002, abs=2e-4)
    assert one.line_mm[1] - one.line_mm[0] == pytest.approx(one.drift.slope * 23)
    assert one.sigma_mm < 0.0015
    assert one.signs == ()


def test_a_stretch_of_which_not_every_piece_was_measured_stands_about_its_line():
    pieces = [1, 2, 5, 10, 15, 25, 26, 27]
    (one,) = chart_of([10 + 0.001 * n for n in pieces], (), pieces)
    assert one.drift is not None
    assert one.line_mm == pytest.approx((10.001, 10.027))
    assert one.sigma_mm == pytest.approx(0, abs=1e-9)
