"""The fastest and the cheapest speed, by hand and as the bottoms of their curves."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.economic_speed import EconomicSpeedInput, economic_speed


def speeds(exponent=0.25, ref=200.0, change=2.0, edge=4.0, minute=1.0, **more):
    return economic_speed(EconomicSpeedInput(exponent, ref, change, edge, minute, **more))


def test_by_hand():
    found = speeds()  # (1/0.25 − 1) = 3; 3·2 = 6 min; 3·(2 + 4) = 18 min; 200·(15/6)^0.25, 200·(15/18)^0.25
    assert (found.life_fast_min, found.life_cheap_min) == (pytest.approx(6), pytest.approx(18))
    assert (found.speed_fast_m_min, found.speed_cheap_m_min) == (
        pytest.approx(251.5, abs=0.05),
        pytest.approx(191.1, abs=0.05),
    )
    assert found.notes == ()


def test_an_edge_that_costs_nothing_is_cheapest_where_it_is_fastest():
    found = speeds(edge=0.0)
    assert found.speed_cheap_m_min == pytest.approx(found.speed_fast_m_min)


@pytest.mark.parametrize(("change", "told"), [(1.66, 1), (1.67, 0), (15.99, 0), (16.01, 1)])
def test_a_life_outside_the_law_is_told(change, told):
    # 3·t: 4.98 and 5.01 min for the fastest, 3·(t + 4) = 59.97 and 60.03 for the cheapest.
    assert len(speeds(change=change).notes) == told


@given(
    st.floats(0.1, 0.6), st.floats(20, 600), st.floats(0.2, 20), st.floats(0, 50), st.floats(0.1, 10), st.floats(2, 60)
)
def test_neither_can_be_bettered_by_a_little(n, ref, change, edge, minute, known):
    found = speeds(n, ref, change, edge, minute, life_ref_min=known)

    def life(v):
        return known * (ref / v) ** (1 / n)

    def minutes(v):  # of one piece that takes 1/v in cut
        return 1 / v * (1 + change / life(v))

    def money(v):
        return 1 / v * (minute + (change * minute + edge) / life(v))

    for speed, of in ((found.speed_fast_m_min, minutes), (found.speed_cheap_m_min, money)):
        assert of(speed) <= min(of(0.99 * speed), of(1.01 * speed)) * (1 + 1e-12)
