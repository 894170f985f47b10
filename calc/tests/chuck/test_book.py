"""What a chuck's book says: straight between its points, nothing beyond them, and the same by chart and by piston."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.book import ChartPoint, ChuckForce, allowable_grip, book_grip, draw_force, height_factor
from calc.errors import CalcError
from calc.working import Working

CHART = ChuckForce(90_000, 30, 60, 80, chart=(ChartPoint(5, 15_000), ChartPoint(12, 30_000), ChartPoint(30, 90_000)))
PISTON = ChuckForce(90_000, 30, 60, 80, piston_area_mm2=15_000, force_ratio=2.0)


@pytest.mark.parametrize(
    ("pressure", "grip"),
    [(5, 15_000), (8.5, 22_500), (12, 30_000), (21, 60_000), (30, 90_000)],  # halfway along each line by hand
)
def test_between_two_points_it_is_the_straight_line(pressure, grip):
    w = Working()
    assert book_grip(pressure, CHART, w) == pytest.approx(grip)
    assert [s.symbol for s in w.steps] == ["F_chart"]


@pytest.mark.parametrize("pressure", [0.1, 4.999, 30.001])
def test_off_the_chart_nothing_is_said(pressure):
    with pytest.raises(CalcError, match="off the chuck's chart"):
        book_grip(pressure, CHART, Working())


def test_a_piston_pulls_area_times_pressure_times_efficiency():
    # 20 bar = 2 N/mm²; 2 · 15 000 mm² = 30 kN of draw, twice that of grip
    assert draw_force(20, PISTON, Working()) == pytest.approx(30_000)
    assert book_grip(20, PISTON, Working()) == pytest.approx(60_000)
    worn = replace(PISTON, efficiency=0.9)
    assert book_grip(20, worn, Working()) == pytest.approx(54_000)


@given(st.floats(5, 30), st.floats(5, 30))
def test_more_pressure_is_never_less_grip(one, two):
    low, high = sorted((one, two))
    for book in (CHART, PISTON):
        assert book_grip(low, book, Working()) <= book_grip(high, book, Working()) * (1 + 1e-12)


@given(st.floats(0.1, 300), st.floats(0.1, 300))
def test_a_taller_jaw_never_gets_or_may_have_more(one, two):
    low, high = sorted((one, two))
    for found in (height_factor, allowable_grip):
        assert found(CHART, high, Working()) <= found(CHART, low, Working()) * (1 + 1e-12)
    assert height_factor(CHART, 60, Working()) == 1
    assert allowable_grip(CHART, 60, Working()) == CHART.max_grip_n


def test_a_collet_chuck_has_a_cone_and_no_guides():
    """15 000 mm² at 20 bar draw 30 kN; 0.9 of it over tan(8° + 6.843°) grip 101.9 kN, wherever it holds."""
    book = ChuckForce(120_000, 30, 0, 0, piston_area_mm2=15_000, efficiency=0.9, half_angle_deg=8)
    assert book_grip(20, book, Working()) == pytest.approx(30_000 * 0.9 / 0.26503, rel=1e-3)
    assert height_factor(book, 250, Working()) == 1.0
    assert allowable_grip(book, 250, Working()) == 120_000
    assert draw_force(20, book, Working()) == 30_000  # all that the piston gives: the cone loses its share


def test_height_and_guide_length_are_both_there_or_neither():
    with pytest.raises(CalcError, match="Give both height and guide length"):
        ChuckForce(90_000, 30, 60, 0, piston_area_mm2=15_000, force_ratio=2)
