from dataclasses import replace

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.chuck.pressure import PressureNeededInput, pressure_needed
from calc.chuck.speed import GripAtSpeedInput, StackPart, grip_at_speed
from calc.errors import CalcError

CHART = ChuckForce(90_000, 30, 60, 80, chart=(ChartPoint(5, 15_000), ChartPoint(20, 55_000), ChartPoint(30, 90_000)))
PISTON = ChuckForce(90_000, 30, 60, 80, piston_area_mm2=12_000, force_ratio=2.0, efficiency=0.9, max_draw_n=40_000)
STACK = (StackPart(1.1, 69), StackPart(2.0, 60))
BASE = PressureNeededInput(20_000, "od", STACK, 2000, 60, CHART)


@settings(max_examples=150, deadline=None)
@given(
    st.sampled_from([CHART, PISTON]),
    st.sampled_from(["od", "id"]),
    st.floats(500, 60_000),
    st.floats(0, 3500),
    st.floats(0, 150),
    st.floats(0.3, 1.1),
    st.floats(0.6, 1.2),
)
def test_the_inverse_really_inverts(chuck, side, need, rpm, height, condition, transmission):
    asked = PressureNeededInput(need, side, STACK, rpm, height, chuck, condition, transmission=transmission)
    found = pressure_needed(asked)
    assume(found.pressure_bar is not None)
    grip = chuck_grip(ChuckGripInput(found.pressure_bar, height, chuck, condition))
    assert not grip.overloaded
    at_speed = grip_at_speed(GripAtSpeedInput(grip.grip_n, side, STACK, rpm, transmission=transmission))
    counted = at_speed.grip_n if side == "od" else grip.grip_n
    if chuck.chart and found.pressure_bar == chuck.chart[0].pressure_bar:
        assert counted >= need * (1 - 1e-9)  # the chart's first point is the least there is
    else:
        assert counted == pytest.approx(need, rel=1e-9)


def test_at_no_speed_and_rated_height_it_is_the_chart_read_backwards():
    # 55 000 of 40 000 N more over 15 bar: 35 000 N is half of the way from 5 to 20 bar.
    assert pressure_needed(replace(BASE, rpm=0, required_grip_n=35_000)).pressure_bar == pytest.approx(12.5)
    assert pressure_needed(
        replace(BASE, rpm=0, required_grip_n=35_000, condition_factor=0.5)
    ).pressure_bar == pytest.approx(20 + 10 * 15_000 / 35_000)


def test_inside_the_gain_is_not_credited():
    still = pressure_needed(replace(BASE, rpm=0))
    inside = pressure_needed(replace(BASE, side="id", rpm=3000))
    assert inside.pressure_bar == still.pressure_bar
    assert pressure_needed(replace(BASE, rpm=3000)).static_grip_n > inside.static_grip_n


def test_each_limit_is_named_with_its_figure():
    def by(given):
        found = pressure_needed(given)
        return found.pressure_bar, found.limited_by

    assert by(replace(BASE, rpm=0, required_grip_n=90_100)) == (None, "chuck") or by(
        replace(BASE, rpm=0, required_grip_n=90_100)
    ) == (None, "moment")
    # At 90 mm of height the rated moment allows two thirds.
    assert by(replace(BASE, rpm=0, grip_height_mm=90, required_grip_n=61_000)) == (None, "moment")
    assert pressure_needed(replace(BASE, rpm=0, grip_height_mm=90, required_grip_n=59_000)).pressure_bar is not None
    assert by(replace(BASE, rpm=0, wall_limit_n=19_999)) == (None, "wall")
    low = replace(CHART, max_pressure_bar=10)
    assert by(replace(BASE, rpm=0, chuck=low, required_grip_n=40_000)) == (None, "cylinder")
    short = replace(CHART, chart=CHART.chart[:2])
    assert by(replace(BASE, rpm=0, chuck=short, required_grip_n=56_000)) == (None, "chart")
    weak = replace(PISTON, max_draw_n=12_000)
    assert by(replace(BASE, rpm=0, chuck=weak, required_grip_n=24_500)) == (None, "draw")


def test_a_wall_just_at_and_just_below_what_is_needed():
    assert pressure_needed(replace(BASE, rpm=0, wall_limit_n=20_000)).margin_n == pytest.approx(0)
    assert pressure_needed(replace(BASE, rpm=0, wall_limit_n=20_000)).pressure_bar is not None
    # Inside, the wall carries the speed's gain as well: 3·0.1959·(209.44)² = 25 779 N at 2 000 rpm.
    gain = grip_at_speed(GripAtSpeedInput(1, "id", STACK, 2000)).centrifugal_n
    assert pressure_needed(replace(BASE, side="id", wall_limit_n=20_000 + gain * 1.001)).pressure_bar is not None
    assert pressure_needed(replace(BASE, side="id", wall_limit_n=20_000 + gain * 0.999)).limited_by == "wall"


def test_a_wall_below_the_charts_first_point_has_no_pressure():
    found = pressure_needed(replace(BASE, rpm=0, required_grip_n=8_000, wall_limit_n=12_000))
    assert (found.pressure_bar, found.limited_by) == (None, "wall")
    assert "15.0" in found.notes[0].text


def test_inside_the_jaws_own_pull_loads_the_guides():
    # Grip 30 mm above the jaws' centre: 3·0.1959·ω²·30 of the rated 90 000·60 N·mm.
    tall = replace(BASE, side="id", rpm=3000, grip_height_mm=90, jaw_height_mm=60.0)
    plain = pressure_needed(replace(tall, jaw_height_mm=None))
    assert pressure_needed(tall).margin_n < plain.margin_n
    assert pressure_needed(replace(tall, jaw_height_mm=90.0)).margin_n == pytest.approx(plain.margin_n)


def test_a_chart_above_the_cylinder_is_refused():
    with pytest.raises(CalcError, match="begins above"):
        pressure_needed(replace(BASE, chuck=replace(CHART, max_pressure_bar=4)))
