import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.speed import GripAtSpeedInput, StackPart, grip_at_speed
from calc.chuck.speed_limit import SpeedLimitInput, speed_limit
from calc.errors import CalcError
from calc.reading import read

ONE = (StackPart(1.0, 100.0),)  # Σmr 0.1 kg·m; three jaws 0.3
# 3000/π rpm is ω = 100 rad/s: 0.3 × 100² = 3 000 N.
HUNDRED = 3000 / math.pi


def at(rpm, side="od", static=10_000.0, stack=ONE, jaws=3, transmission=1.0):
    return grip_at_speed(GripAtSpeedInput(static, side, stack, rpm, jaws, transmission))


def limit(static=10_000.0, required=7_000.0, side="od", stack=ONE, **more):
    given = {"chuck_max_rpm": 4500, "machine_max_rpm": 4000} | more
    return speed_limit(SpeedLimitInput(static, required, side, stack, **given))


def test_centrifugal_force_by_hand():
    assert at(HUNDRED).centrifugal_n == pytest.approx(3_000)
    assert at(HUNDRED).grip_n == pytest.approx(7_000)
    assert at(HUNDRED, "id").grip_n == pytest.approx(13_000)
    assert at(HUNDRED).kept_fraction == pytest.approx(0.7)
    assert at(HUNDRED, transmission=0.5).grip_n == pytest.approx(8_500)
    two = (StackPart(0.5, 100), StackPart(1.0, 50))
    assert at(HUNDRED, stack=two).centrifugal_n == pytest.approx(3_000)


def test_standing_still_nothing_is_lost():
    assert at(0).grip_n == 10_000
    assert at(0).notes == ()


def test_grip_is_never_below_zero():
    assert at(5000).grip_n == 0


def test_a_third_kept_just_above_at_and_below():
    for share, said in ((1 / 3 + 1e-6, False), (1 / 3 - 1e-6, True)):
        rpm = HUNDRED * math.sqrt((1 - share) * 10_000 / 3_000)
        assert bool(at(rpm).notes) is said


@given(st.floats(0, 6000), st.floats(0, 6000))
def test_more_speed_is_never_more_outside_grip_nor_less_inside(a, b):
    low, high = sorted((a, b))
    assert at(high).grip_n <= at(low).grip_n
    assert at(high, "id").grip_n >= at(low, "id").grip_n


def test_the_cap_is_where_the_curves_cross():
    result = limit()
    assert result.grip_limited_rpm == pytest.approx(HUNDRED)
    assert (result.speed_cap_rpm, result.capped_by) == (result.grip_limited_rpm, "grip")
    assert at(result.speed_cap_rpm).grip_n == pytest.approx(7_000)


@pytest.mark.parametrize(
    ("more", "cap", "by"),
    [
        ({"chuck_max_rpm": 900}, 900, "chuck"),
        ({"machine_max_rpm": 800}, 800, "machine"),
        ({"user_max_rpm": 700}, 700, "user"),
    ],
)
def test_the_least_limit_sets_the_cap(more, cap, by):
    result = limit(**more)
    assert (result.speed_cap_rpm, result.capped_by) == (cap, by)


@pytest.mark.parametrize(("required", "zero"), [(9_999.9, False), (10_000.0, True), (10_000.1, True)])
def test_outside_without_enough_grip_standing_still_no_speed_is_safe(required, zero):
    result = limit(required=required)
    assert (result.speed_cap_rpm == 0) is zero
    assert [n.code for n in result.notes if n.level == "stop"] == (["grip-too-small"] if zero else [])


def test_inside_the_gain_of_speed_is_not_credited():
    assert limit(side="id", required=10_000.0).grip_limited_rpm is None
    assert limit(side="id", required=10_000.0).capped_by == "machine"
    short = limit(side="id", required=10_000.1)
    assert short.speed_cap_rpm == 0
    assert short.notes[0].level == "stop"


@given(st.floats(1000, 90_000), st.floats(0, 89_000), st.floats(0.1, 5), st.floats(10, 150))
def test_a_heavier_jaw_never_lifts_the_cap(static, required, mass, radius):
    light = limit(static, required, stack=(StackPart(mass, radius),))
    heavy = limit(static, required, stack=(StackPart(mass * 1.3, radius),))
    assert heavy.speed_cap_rpm <= light.speed_cap_rpm


def test_an_empty_stack_is_refused():
    with pytest.raises(CalcError):
        read(GripAtSpeedInput, {"static_grip_n": 1, "side": "od", "stack": [], "rpm": 1})
