"""Working limits by hand."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.limits.working import WorkingLimitsInput, working_limits


@pytest.mark.parametrize(
    ("more", "low", "high"),
    [
        ({}, 83.9708, 83.9942),  # 0.035 wide, a sixth at each end is 0.0058
        ({"rule": "print", "uncertainty": 0.003}, 83.965, 84.0),
        ({"rule": "uncertainty", "uncertainty": 0.003}, 83.968, 83.997),
        ({"keep_fraction": 0.0}, 83.965, 84.0),
    ],
)
def test_limits_by_hand(more, low, high):
    found = working_limits(WorkingLimitsInput(low=83.965, high=84.0, **more))
    assert (found.low, found.high) == (pytest.approx(low, abs=5e-5), pytest.approx(high, abs=5e-5))


@given(st.floats(-100, 100), st.floats(0, 5), st.floats(0, 0.95))
def test_they_are_never_wider_and_stay_in_the_middle(low, wide, share):
    found = working_limits(WorkingLimitsInput(low=low, high=low + wide, keep_fraction=share))
    assert low - 1e-12 <= found.low <= found.high <= low + wide + 1e-12
    assert found.low + found.high == pytest.approx(2 * low + wide, abs=1e-9)


@pytest.mark.parametrize(
    ("given_", "field"),
    [
        ({"low": 84.0, "high": 83.9}, "low"),
        ({"low": 83.965, "high": 84.0, "rule": "uncertainty", "uncertainty": 0.02}, "uncertainty"),
    ],
)
def test_limits_that_leave_nothing_are_refused(given_, field):
    with pytest.raises(CalcError) as refused:
        working_limits(WorkingLimitsInput(**given_))
    assert field in str([e.field for e in refused.value.errors])
