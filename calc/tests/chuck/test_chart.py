"""A chart as it is typed, and what it means at heights; figures by hand."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.chart import curves_at_heights, read_chart, write_chart
from calc.errors import CalcError

BOOK = ChuckForce(90_000, 30, 60, 80, 0.08, (ChartPoint(5, 15_000), ChartPoint(30, 90_000)))  # 3 000 N a bar

SAME = [(10.0, 25_000.0), (20.0, 50_500.0)]
READABLE = [
    "10 25\n20 50.5",
    "10\t25\n20\t50.5",
    "10;25\n20;50.5\n",
    "| 10 | 25 |\n| 20 | 50.5 |",
    "pressure grip\nbar kN\n\n10   25\n20 50.5",
    "20 50.5\n10 25",
    "10 bar 25 kN\n20bar 50500N",
    "1 MPa; 25 kN\n2 MPa; 50500 N",
]


@pytest.mark.parametrize("text", READABLE)
def test_two_columns_are_read_however_they_come(text):
    assert read_chart(text) == SAME


def test_a_bare_figure_is_in_the_units_shown():
    points = read_chart("145.0377 5620.22", "inch")  # 10 bar; 25 kN
    assert points[0] == (pytest.approx(10, abs=1e-4), pytest.approx(25_000, rel=1e-5))


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("10 25\n20", "Row 2: Write two figures"),
        ("10 25 3\n20 30", "Row 1: Write two figures"),
        ("10 25\n20 x", "Row 2: "),
        ("10 25\n10 30", "Row 2: 10\xa0bar is there twice"),
        ("10,500 25", "Row 1: “10,500” can be read two ways"),
        ("10 25\n-5 3", "Row 2: Neither"),
        ("10 mm; 25", "Row 1: “mm” is not a unit"),
        ("\n".join(f"{i} {i}" for i in range(1, 70)), "60 rows at most"),
    ],
)
def test_every_bad_row_is_answered_by_its_number(text, says):
    with pytest.raises(CalcError) as caught:
        read_chart(text)
    assert any(e.message.startswith(says) or says in e.message for e in caught.value.errors)


def test_all_bad_rows_are_answered_together():
    with pytest.raises(CalcError) as caught:
        read_chart("10 25\nx y\n20 z\n30 90")
    assert [e.message[:6] for e in caught.value.errors] == ["Row 2:", "Row 3:"]


def test_nothing_typed_is_no_chart():
    assert read_chart(" \n\n") == []
    assert read_chart("pressure grip") == []


points = st.dictionaries(
    st.integers(0, 4000).map(lambda n: n / 10), st.integers(0, 20_000).map(lambda n: n * 100.0), max_size=30
)


@given(points, st.sampled_from(["metric", "inch"]))
def test_what_is_written_is_read_back(found, system):
    ordered = sorted(found.items())
    again = read_chart(write_chart(ordered, system), system)
    assert [p for p, _ in again] == pytest.approx([p for p, _ in ordered], rel=1e-6)
    assert [g for _, g in again] == pytest.approx([g for _, g in ordered], rel=1e-6)


def test_the_chart_at_heights_by_hand():
    low, middle, high = curves_at_heights(BOOK, 3)
    # At the rated height the chart itself, to its end.
    assert (low.height_mm, low.height_factor, low.stops_at_bar, low.overload) == (60, 1, 30, False)
    assert low.points == ((5, 15_000), (30, 90_000))
    # h = 90: k = (1 + 3·0.08·60/80)/(1 + 3·0.08·90/80) = 1.18/1.27; the moment allows 90 000·60/90 = 60 000 N,
    # which charted grip × k reaches at 60 000·1.27/1.18/3 000 = 21.525 bar.
    assert middle.height_factor == pytest.approx(1.18 / 1.27)
    assert middle.allowable_grip_n == pytest.approx(60_000)
    assert middle.stops_at_bar == pytest.approx(60_000 * 1.27 / 1.18 / 3000, rel=2e-9)
    assert middle.points[-1][1] == pytest.approx(60_000, rel=2e-9)
    assert middle.points[-1][1] <= 60_000 * (1 + 2e-9)  # never past it, but for the last bits
    assert middle.overload
    assert high.stops_at_bar == pytest.approx(45_000 * 1.36 / 1.18 / 3000, rel=2e-9)
    assert "no more than 21.5\xa0bar" in str(middle.sentence)


def test_a_chuck_without_a_chart_is_drawn_from_its_piston():
    piston = ChuckForce(150_000, 30, 60, 100, piston_area_mm2=16_000, force_ratio=3, max_draw_n=50_000)
    low, middle, _ = curves_at_heights(piston, 3)
    # p·0.1·16 000·3 = 4 800 N a bar; 150 000 N would need 31.25 bar, more than the cylinder's 30.
    assert (low.stops_at_bar, low.points[-1][1]) == (30, pytest.approx(144_000))
    assert all(g == pytest.approx(4800 * p) for p, g in low.points)
    assert middle.points[-1][1] == pytest.approx(100_000, rel=2e-9)


def test_higher_never_grips_more_and_never_past_what_is_allowed():
    curves = curves_at_heights(BOOK, 3)
    for lower, higher in pairwise(curves):
        assert higher.stops_at_bar <= lower.stops_at_bar
        assert higher.height_factor < lower.height_factor
    for curve in curves:
        assert all(g <= curve.allowable_grip_n * (1 + 2e-9) for _, g in curve.points)
