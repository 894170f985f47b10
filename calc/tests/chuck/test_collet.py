"""The grip of a collet, by hand and at its limits."""

from dataclasses import replace
from math import atan, inf, isclose, nextafter, radians, tan

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.collet import ColletGripInput, collet_grip
from calc.errors import CalcError

COLLET = ColletGripInput(20_000, 8, 42, 1, 42)


def codes(one):
    return [n.code for n in collet_grip(one).notes]


def test_by_hand():
    """tan(8° + atan 0.12 = 6.843°) = tan 14.843° = 0.26501; 18 000 / 0.26501 = 67 922."""
    assert collet_grip(COLLET).grip_n == pytest.approx(67_922, abs=1)


def test_without_friction_it_is_a_plain_wedge():
    """1/tan 45° = 1: what is drawn is what grips, at full efficiency."""
    plain = replace(COLLET, half_angle_deg=45, collet_friction=0, efficiency=1)
    assert collet_grip(plain).grip_n == pytest.approx(20_000)


@pytest.mark.parametrize(("bar", "closes"), [(42, True), (41, True), (42.001, False), (40.999, False)])
def test_it_closes_from_its_size_less_its_range_to_its_size(bar, closes):
    found = collet_grip(replace(COLLET, bar_mm=bar))
    assert found.in_range == closes
    assert codes(replace(COLLET, bar_mm=bar)) == ([] if closes else ["collet-range"])


def test_no_more_is_counted_than_is_stated():
    free = collet_grip(COLLET).grip_n
    assert collet_grip(replace(COLLET, max_grip_n=60_000)).grip_n == 60_000
    assert collet_grip(replace(COLLET, max_grip_n=70_000)).grip_n == free
    over = replace(COLLET, max_draw_n=16_000)
    assert codes(over) == ["collet-overdrawn"]
    assert isclose(collet_grip(over).grip_n, free * 16 / 20)
    assert codes(replace(COLLET, max_draw_n=20_000)) == []


def test_a_steep_cone_lets_go_by_itself_and_a_slender_one_does_not():
    locks = 57.29577951308232 * atan(0.12)
    assert codes(replace(COLLET, half_angle_deg=locks * 0.999)) == ["collet-locks"]
    assert codes(replace(COLLET, half_angle_deg=locks * 1.001)) == []


def test_a_range_as_wide_as_the_collet_is_refused_at_its_field():
    with pytest.raises(CalcError) as refused:
        ColletGripInput(20_000, 8, 42, 42, 42)
    assert [e.field for e in refused.value.errors] == ["range_mm"]
    with pytest.raises(CalcError):
        replace(COLLET, efficiency=nextafter(1.0, inf))


@given(st.floats(1, 44), st.floats(0, 0.5), st.floats(0.1, 1))
def test_more_friction_or_a_wider_cone_never_grip_more(angle, friction, efficiency):
    one = replace(COLLET, half_angle_deg=angle, collet_friction=friction, efficiency=efficiency)
    grip = collet_grip(one).grip_n
    assert grip <= 20_000 * efficiency / tan(radians(angle)) * (1 + 1e-12)
    assert collet_grip(replace(one, half_angle_deg=angle + 1)).grip_n <= grip * (1 + 1e-12)
    assert collet_grip(replace(one, collet_friction=friction + 0.1)).grip_n <= grip * (1 + 1e-12)
