from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.errors import CalcError

CHART = ChuckForce(90_000, 30, 60, 80, 0.08, (ChartPoint(5, 15_000), ChartPoint(10, 30_000), ChartPoint(30, 90_000)))
# 0.1 × 10 000 mm² = 1 000 N per bar of draw, × 3 = 3 000 N per bar of grip.
PISTON = ChuckForce(90_000, 40, 60, 80, 0.08, (), 10_000, 3.0, 1.0, 30_000)


def grip(p, h=60.0, c=1.0, book=CHART):
    return chuck_grip(ChuckGripInput(p, h, book, c))


def refused(p, book=CHART):
    with pytest.raises(CalcError) as error:
        grip(p, book=book)
    return error.value.errors[0]


def test_straight_lines_between_chart_points():
    assert grip(5).grip_n == pytest.approx(15_000)
    assert grip(7.5).grip_n == pytest.approx(22_500)
    assert grip(20).grip_n == pytest.approx(60_000)
    assert grip(20).per_jaw_n == pytest.approx(20_000)


@pytest.mark.parametrize("p", [4.99, 30.01, 40])
def test_off_the_chart_is_an_error_not_an_extrapolation(p):
    book = replace(CHART, max_pressure_bar=50)
    error = refused(p, book)
    assert error.field == "pressure_bar"
    assert "chart" in error.message


def test_above_the_cylinder_is_refused_with_the_figure():
    assert "30" in refused(30.5).message


def test_the_actuator_gives_grip_where_there_is_no_chart():
    assert grip(12, book=PISTON).grip_n == pytest.approx(36_000)
    assert grip(12, book=replace(PISTON, efficiency=0.8)).grip_n == pytest.approx(28_800)


def test_draw_and_grip_limits_hold_at_and_just_above():
    assert grip(30, book=PISTON).charted_n == pytest.approx(90_000)
    assert refused(30.01, PISTON).field == "pressure_bar"
    assert "90" in refused(30.01, replace(PISTON, max_draw_n=None)).message


def test_height_costs_what_the_guide_says():
    # (1 + 3·0.08·60/80) / (1 + 3·0.08·100/80) = 1.18 / 1.30
    assert grip(20, 100).height_factor == pytest.approx(1.18 / 1.30)
    assert grip(20, 60).height_factor == 1
    assert grip(20, 10).height_factor == 1  # below the rated height nothing is gained


def test_allowed_grip_follows_the_rated_moment():
    assert grip(20, 120).allowable_grip_n == pytest.approx(45_000)
    assert grip(20, 30).allowable_grip_n == pytest.approx(90_000)
    assert grip(20, 0).allowable_grip_n == pytest.approx(90_000)


def test_overload_just_below_at_and_above_and_whatever_the_condition():
    # At 60·x above the guide the chart's 60 kN × factor meets 90 kN ÷ x; solved by hand for h:
    # 60·1.18/(1 + 0.003h) = 90·60/h  →  70.8 h = 5400 + 16.2 h  →  h = 5400/54.6
    h = 5400 / 54.6
    assert not grip(20, h - 0.01).overloaded
    assert not grip(20, h).overloaded
    result = grip(20, h + 0.01, 0.5)
    assert result.overloaded
    assert [n.code for n in result.notes] == ["chuck-overloaded"]


@given(st.floats(5, 30), st.floats(0, 300), st.floats(0, 300), st.floats(0.1, 1.2))
def test_more_height_is_never_more_grip_and_never_more_than_the_book(p, a, b, c):
    low, high = sorted((a, b))
    assert grip(p, high, c).grip_n <= grip(p, low, c).grip_n * (1 + 1e-12)
    assert grip(p, high, 1.0).grip_n <= CHART.max_grip_n * (1 + 1e-12)
    assert grip(p, high).allowable_grip_n <= grip(p, low).allowable_grip_n


@pytest.mark.parametrize(
    "chart", [(ChartPoint(5, 1),), (ChartPoint(5, 2), ChartPoint(5, 3)), (ChartPoint(5, 5), ChartPoint(9, 4))]
)
def test_a_chart_must_rise_and_have_two_points(chart):
    with pytest.raises(CalcError):
        replace(CHART, chart=chart)


def test_without_chart_and_actuator_grip_is_not_known():
    with pytest.raises(CalcError):
        ChuckForce(90_000, 30, 60, 80)
