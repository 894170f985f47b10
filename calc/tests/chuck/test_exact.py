import math
from dataclasses import replace

import numpy as np
import pytest

from calc.chuck.demand import GRAVITY, CutLoad, GripDemandInput, grip_demand, required_at
from calc.chuck.exact import contact_wrenches, grip_exact, load_wrench
from calc.errors import CalcError

TORQUE = CutLoad("torque", 1000, 0, 0, 50, 0, torque_only=True)


def need(cut, **changes):
    given = GripDemandInput((cut,), 50, 30, 0.1)
    return grip_exact(replace(given, **changes)).cuts[0].needed_n


@pytest.mark.parametrize("jaws", [2, 3, 4, 6])
def test_pure_torque_and_pure_pull_take_friction_alone(jaws):
    assert need(TORQUE, jaws=jaws) == pytest.approx(2 * 25_000 / (50 * 0.1))
    pull = CutLoad("pull", 0, 0, 0, 1, 0, unseated_axial_n=700)
    assert need(pull, jaws=jaws) == pytest.approx(7_000)


@pytest.mark.parametrize(("jaws", "term"), [(3, 2.0), (4, math.sqrt(2)), (6, 2 / math.sqrt(3))])
def test_a_push_across_without_friction_is_the_polygon_of_the_jaws(jaws, term):
    push = CutLoad("push", 0, 0, 1000, 50, 0)
    assert need(push, jaws=jaws, friction=1e-6) == pytest.approx(1000 * term, rel=1e-3)


def test_a_push_across_two_jaws_is_friction_alone():
    push = CutLoad("push", 0, 0, 1000, 50, 0)
    assert need(push, jaws=2) == pytest.approx(1000 / 0.1, rel=0.02)


def test_contacts_and_loads_balance_by_hand():
    # One newton of each jaw alike, without friction: no force and no moment is left.
    given = GripDemandInput((TORQUE,), 50, 30, 1e-12)
    assert contact_wrenches(given).sum(axis=1) == pytest.approx(np.zeros(6), abs=1e-9)
    # A cut at angle 0, 40 mm out: F_t along y, F_r along −x, tipping by 40·F about each.
    load = load_wrench(CutLoad("c", 300, 0, 100, 60, 40), given, 0.0, 1.0)
    assert load == pytest.approx([-100, 300, 0, -40 * 300, -40 * 100, 300 * 30])


def test_a_live_centre_leaves_torque_and_pull():
    cut = CutLoad("turn", 1000, 500, 300, 50, 80)
    assert need(cut, tailstock=True) == pytest.approx(10_000)


def draws(count, seed):
    rng = np.random.default_rng(seed)
    for _ in range(count):
        grip, jaws = rng.uniform(30, 250), int(rng.choice([2, 3, 4, 6]))
        tangential = rng.uniform(200, 4000)
        axial = tangential * rng.uniform(0.1, 0.8)
        cut = CutLoad(
            "c",
            tangential,
            axial,
            tangential * rng.uniform(0.1, 0.6),
            grip * rng.uniform(0.2, 1.6),
            grip * rng.uniform(0.05, 1.5),
            float(rng.choice([0.0, axial])),
        )
        unbalance = float(rng.choice([0.0, rng.uniform(0, 0.3)]))
        yield GripDemandInput(
            (cut,),
            grip,
            rng.uniform(6, 60),
            rng.uniform(0.05, 0.3),
            1.5,
            jaws=jaws,
            part_mass_kg=rng.uniform(0, 5),
            offset_mm=unbalance,
            centre_overhang_mm=grip * rng.uniform(0, 0.8),
            rpm=rng.uniform(0, 3000),
        )


def test_the_closed_form_with_its_least_safety_is_never_below_the_true_need():
    for given in draws(60, 7):
        found = grip_exact(given)
        assert found.cuts[0].needed_n <= found.closed_form_n, given


def test_next_to_no_friction_holds_no_torque():
    with pytest.raises(CalcError, match="No grip holds"):
        grip_exact(GripDemandInput((TORQUE,), 50, 30, 1e-13))


# --- loads beside the cuts, in the closed form -----------------------------------------------------

TURN = CutLoad("turn", 2510, 1150, 500, 118, 35)
HELD = GripDemandInput((TURN,), 84, 18.5, 0.12)


def test_weight_and_imbalance_by_hand():
    # 2 kg, 0.1 mm off, 3 000 rpm: 2·(0.0001·314.16² + 9.80665) = 39.35 N, 20 mm out, on arms of 7.145 mm.
    heavy = replace(HELD, part_mass_kg=2, offset_mm=0.1, rpm=3000, centre_overhang_mm=20)
    beside = 2 * (1e-4 * (math.pi * 100) ** 2 + GRAVITY)
    plain, more = grip_demand(HELD).cuts[0], grip_demand(heavy).cuts[0]
    assert more.slip_n == plain.slip_n
    assert more.tilt_n - plain.tilt_n == pytest.approx(beside * 20 / (18.5 / 4 + 0.12 * 84 / 4))
    assert more.side_n - plain.side_n == pytest.approx(2 * beside)


def test_without_speed_an_imbalance_is_weight_alone():
    still = replace(HELD, part_mass_kg=2, offset_mm=5, centre_overhang_mm=20)
    assert grip_demand(still).required_grip_n == grip_demand(replace(still, offset_mm=0)).required_grip_n


@pytest.mark.parametrize("jaws", [2, 3, 4, 6])
def test_the_demand_as_a_curve_is_the_demand_at_every_speed(jaws):
    given = replace(HELD, jaws=jaws, part_mass_kg=3, offset_mm=0.4, centre_overhang_mm=25, rpm=1200)
    curve = required_at(grip_demand(given), given)
    for rpm in (0, 700, 1200, 3500):
        assert curve(rpm) == pytest.approx(grip_demand(replace(given, rpm=rpm)).required_grip_n)
    held = replace(given, tailstock=True)
    assert required_at(grip_demand(held), held)(9000) == grip_demand(held).required_grip_n


def test_the_terms_of_two_four_and_six_jaws():
    side = {z: grip_demand(replace(HELD, jaws=z)).cuts[0].side_n / math.hypot(2510, 500) for z in (2, 3, 4, 6)}
    assert side == pytest.approx({2: 1 / 0.12, 3: 2, 4: math.sqrt(2), 6: 2 / math.sqrt(3)})
    tilt = {z: grip_demand(replace(HELD, jaws=z)).cuts[0].tilt_n for z in (2, 3, 4, 6)}
    assert tilt[3] == tilt[4] == tilt[6]
    assert tilt[2] == pytest.approx(tilt[3] * (18.5 / 4 + 0.12 * 84 / 4) / (0.12 * 18.5 / 4))
    with pytest.raises(CalcError, match="not for 5"):
        grip_demand(replace(HELD, jaws=5))
