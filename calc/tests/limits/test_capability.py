"""Capability: by hand with the tables' chi-square, where nothing can be said, and what moves it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.limits.capability import LEAST, CapabilityInput, capability

# Mean 10, s² = (12·2·0.001² )/24 = 10⁻⁶: a spread of 0.001 exactly.
EVEN = (9.999,) * 12 + (10.0,) + (10.001,) * 12


def found(sizes, low=9.994, high=10.006):
    return capability(CapabilityInput(tuple(sizes), low, high))


def test_twenty_five_pieces_by_hand():
    r = found(EVEN)
    assert (r.n, r.mean_mm, r.sd_mm) == (25, pytest.approx(10.0), pytest.approx(0.001))
    assert (r.cp, r.cpk) == (pytest.approx(2.0), pytest.approx(2.0))
    # χ² of 24: 13.848 at 5 %, 36.415 at 95 %.
    assert r.cp_low == pytest.approx(2 * (13.848 / 24) ** 0.5, rel=1e-4)
    assert r.cp_high == pytest.approx(2 * (36.415 / 24) ** 0.5, rel=1e-4)
    # 1.645·√(1/225 + 4/48) = 0.4874
    assert (r.cpk_low, r.cpk_high) == (pytest.approx(1.5126, abs=1e-3), pytest.approx(2.4874, abs=1e-3))


def test_off_the_middle_the_nearer_limit_counts():
    r = found(EVEN, 9.997, 10.012)
    assert (r.cp, r.cpk) == (pytest.approx(2.5), pytest.approx(1.0))
    assert found(EVEN, 10.002, 10.012).cpk == pytest.approx(-2 / 3)  # the mean is outside


def test_of_too_few_and_of_pieces_alike_it_says_so():
    few = found(EVEN[: LEAST - 1])
    assert (few.cp, few.cpk, few.n) == (None, None, 24)
    assert [n.code for n in few.notes] == ["too-few"]
    alike = found((10.0,) * 30)
    assert (alike.cp, [n.code for n in alike.notes]) == (None, ["all-alike"])


@given(st.lists(st.integers(-60, 60), min_size=25, max_size=60))
def test_cpk_is_never_above_cp_and_each_lies_in_its_interval(steps):
    r = found([10 + x / 10_000 for x in steps])
    if r.cp is not None:
        assert r.cpk <= r.cp * (1 + 1e-12)
        assert r.cp_low < r.cp < r.cp_high
        assert r.cpk_low < r.cpk < r.cpk_high


@pytest.mark.parametrize(
    ("sizes", "low", "field"), [((10.0,), 9.9, "sizes_mm"), ((), 9.9, "sizes_mm"), (EVEN, 10.006, "low_mm")]
)
def test_what_is_no_run_is_told_at_its_field(sizes, low, field):
    with pytest.raises(CalcError) as refused:
        found(sizes, low)
    assert {e.field for e in refused.value.errors} == {field}
