from dataclasses import replace
from math import hypot, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.demand import CutLoad, GripDemandInput, grip_demand
from calc.errors import CalcError

TURN = CutLoad("turn", 2510, 1150, 500, 118, 35)
SEATED = GripDemandInput((TURN,), 84, 18.5, 0.12)


def before_safety(given):
    return grip_demand(given).required_grip_n / given.safety


def test_published_examples():
    assert before_safety(SEATED) == pytest.approx(37_081, abs=1)
    loose = CutLoad("bore", 1500, 700, 400, 148, 16, 700)
    assert before_safety(GripDemandInput((loose,), 168, 10, 0.12)) == pytest.approx(16_378, abs=1)


def test_terms_by_hand():
    # Cut and grip at the same Ø100, friction 0.1, 40 mm of grip: arms l/4 + μd/4 = 10 + 2.5.
    cut = CutLoad("c", 300, 100, 400, 100, 25)
    demand = grip_demand(GripDemandInput((cut,), 100, 40, 0.1)).cuts[0]
    assert demand.slip_n == pytest.approx(3_000)
    assert demand.tilt_n == pytest.approx((25 * 500 + 100 * 50) / 12.5)
    assert demand.side_n == pytest.approx(1_000)
    assert demand.required_n == pytest.approx(2 * sqrt(3000**2 + 1400**2 + 1000**2))
    assert demand.mode == "slip"


def test_axial_force_counts_only_where_no_seat_carries_it():
    loose = replace(TURN, unseated_axial_n=1150)
    slip = grip_demand(replace(SEATED, cuts=(loose,))).cuts[0].slip_n
    assert slip == pytest.approx(hypot(2510 * 118 / 84, 1150) / 0.12)


def test_a_drill_not_seated_needs_about_three_times_what_its_torque_alone_would():
    # Ø13 in C45: 13.06 N·m on a part gripped at Ø50, 1 800 N of thrust.
    drill = CutLoad("drill", 2 * 13_060 / 13, 1800, 0, 13, 20, 1800, torque_only=True)
    loose = grip_demand(GripDemandInput((drill,), 50, 30, 0.12)).cuts[0]
    seated = grip_demand(GripDemandInput((replace(drill, unseated_axial_n=0),), 50, 30, 0.12)).cuts[0]
    assert loose.slip_n / seated.slip_n == pytest.approx(hypot(522.4, 1800) / 522.4, rel=1e-3)
    assert loose.slip_n > 3 * seated.slip_n
    assert seated.side_n == 0  # torque on centre pushes nowhere


def test_a_live_centre_takes_tilt_and_side():
    held = grip_demand(replace(SEATED, tailstock=True)).cuts[0]
    assert (held.tilt_n, held.side_n) == (0, 0)
    assert held.required_n == pytest.approx(2 * held.slip_n)


def test_the_worst_cut_governs_and_its_largest_term_is_named():
    light = replace(TURN, name="light", tangential_n=100, axial_n=50, radial_n=50)
    far = CutLoad("far", 300, 100, 300, 80, 400)
    result = grip_demand(replace(SEATED, cuts=(light, far)))
    assert (result.governing_cut, result.governing_mode) == ("far", "tilt")
    assert result.required_grip_n == max(d.required_n for d in result.cuts)


@pytest.mark.parametrize(("safety", "fine"), [(1.499, False), (1.5, True), (2.0, True)])
def test_safety_is_never_below_one_and_a_half(safety, fine):
    if fine:
        assert replace(SEATED, safety=safety).safety == safety
    else:
        with pytest.raises(CalcError):
            replace(SEATED, safety=safety)


@given(st.floats(0.05, 0.3), st.floats(1.01, 1.5), st.floats(5, 60), st.floats(0, 200))
def test_less_friction_less_length_or_more_overhang_never_need_less(friction, more, length, overhang):
    base = GripDemandInput((replace(TURN, overhang_mm=overhang),), 84, length, friction)
    need = before_safety(base)
    assert before_safety(replace(base, friction=friction * more)) <= need
    assert before_safety(replace(base, grip_length_mm=length * more)) <= need
    assert before_safety(replace(base, cuts=(replace(TURN, overhang_mm=overhang * more),))) >= need * (1 - 1e-12)
