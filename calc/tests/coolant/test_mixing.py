"""Coolant."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.coolant.mixing import CoolantInput, coolant
from calc.errors import CalcError


def test_too_weak_by_hand():
    found = coolant(CoolantInput(4, 1.5, 8, 200))  # 6 %, 200*(8-6)/(100-8)
    assert (found.percent, found.add_concentrate_l) == pytest.approx((6, 200 * 2 / 92))
    assert found.add_water_l == found.drain_l == 0


def test_too_strong_by_hand():
    found = coolant(CoolantInput(10, 1, 8, 200))
    assert (found.add_water_l, found.drain_l) == pytest.approx((50, 40))


def test_right_as_it_is():
    found = coolant(CoolantInput(8, 1, 8, 200))
    assert found.add_concentrate_l == found.add_water_l == 0


@given(st.floats(0.1, 40), st.floats(0.5, 40), st.floats(1, 1000))
def test_what_is_added_makes_it_right(percent, target, volume):
    found = coolant(CoolantInput(percent, 1, target, volume))
    oil = percent / 100 * volume
    assert (oil + found.add_concentrate_l) / (volume + found.add_concentrate_l + found.add_water_l) == pytest.approx(
        target / 100
    )
    if found.drain_l:
        assert oil * (1 - found.drain_l / volume) / volume == pytest.approx(target / 100)


def test_a_reading_beyond_all_strength_is_refused():
    with pytest.raises(CalcError, match="check the factor"):
        CoolantInput(50, 2, 8, 200)
