"""The bench of the apprentice: what it answers is what the calculators say, and stepping by the blue gets there."""

import math

import pytest

from calc.errors import CalcError
from calc.practice.apprentice import CUTS_MOST, Bench, bring_even, par_of, standing, true_taper

USUAL = Bench()


def test_the_grip_by_hand():
    """At 20 bar the chart gives 66 667 N, a week after greasing 0.85 of it, at 60 mm (1 + 0.24·45/85)/(1 + 0.24·60/85);
    speed takes 3·(1.4·0.072 + 1.2·0.064)·ω².
    """
    found = standing(USUAL)
    static = 2e5 / 3 * 0.85 * (1 + 0.24 * 45 / 85) / (1 + 0.24 * 60 / 85)
    omega = 1500 * math.tau / 60
    assert found.grip.grip_n == pytest.approx(static, rel=1e-6)
    assert found.left.grip_n == pytest.approx(static - 3 * (1.4 * 0.072 + 1.2 * 0.064) * omega**2, rel=1e-6)


def test_more_pressure_bends_more_and_presses_the_ring_further_out_of_round():
    low, high = standing(Bench(pressure_bar=12)), standing(Bench(pressure_bar=24))
    assert high.estimate_mm > low.estimate_mm > 0
    assert high.wall.out_of_round_mm == pytest.approx(2 * low.wall.out_of_round_mm, rel=1e-6)
    assert standing(Bench(pressure_bar=6)).estimate_mm == 0


def test_the_point_moves_on_a_curve_that_stays():
    slow, fast = standing(Bench(rpm=0)), standing(Bench(rpm=2000))
    assert slow.curve.lines == fast.curve.lines
    assert slow.curve.mark == (0, slow.grip.grip_n)
    assert fast.curve.mark == (2000, fast.left.grip_n)


def test_what_is_dangerous_is_told():
    assert "rated moment" in standing(Bench(30, 90, 0, "today")).told[0].text()
    assert "third" in standing(Bench(8, 60, 3000, "week")).told[0].text()
    assert "grease" in standing(Bench(20, 60, 900, "long")).told[0].text()
    assert standing(Bench(15, 45, 900, "today")).told == ()


@pytest.mark.parametrize("seed", range(40))
def test_stepping_by_the_blue_from_the_estimate_on_takes_as_many_cuts_as_said(seed):
    for bench in (USUAL, Bench(30, 90, 0, "today"), Bench(6, 60, 900, "week")):
        taper, cuts = standing(bench).estimate_mm, []
        while True:
            cuts.append(taper)
            found = bring_even(bench, seed, tuple(cuts))
            if found.done:
                break
            assert found.told.text().startswith("Not even yet")
            taper += 0.02 if found.cuts[-1].shows == "tip" else -0.02
        assert len(cuts) == found.par == par_of(standing(bench).estimate_mm, true_taper(bench, seed)) <= CUTS_MOST
        assert "nobody does it in fewer" in found.told.text()


def test_too_much_taper_shows_at_the_base_and_too_little_at_the_tip():
    needed = true_taper(USUAL, 3)
    shows = [bring_even(USUAL, 3, (needed + off,)).cuts[0].shows for off in (-0.011, -0.01, 0.01, 0.011)]
    assert shows == ["tip", "even", "even", "base"]


def test_the_jaws_are_used_up():
    worn = bring_even(USUAL, 1, (0.0,) * CUTS_MOST)
    assert "used up" in worn.told.text()
    with pytest.raises(CalcError, match="new set"):
        bring_even(USUAL, 1, (0.0,) * (CUTS_MOST + 1))
    assert bring_even(USUAL, 1, ()).picture is None
