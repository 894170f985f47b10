"""What a live centre must be pressed with, by hand."""

from dataclasses import replace
from math import hypot, radians, tan

import pytest

from calc.chuck.centre import centre_thrust
from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.force.demand import DEMAND
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced
from calc.plan.run_file import read_run
from calc.plan.solve import solve
from calc.settle.setup import settle_setup
from calc.tests.plan.test_refused import FILES
from calc.working import Working

THRUST = "setups.s1.hold.centre_thrust_n"


@pytest.fixture(scope="module")
def shaft():
    """Ø90, held on 30 mm, a journal of Ø80 × 120 turned over a live centre that carries 5 000 N."""
    return read_run((FILES / "twin-centre.json").read_text(encoding="utf-8"))


def codes(run, *changes):
    document = run.document
    for path, value in changes:
        document = replaced(document, path, value)
    result = compute(document, run.shelf)
    return {n.code for s in result.stops for n in s.notes if n.code.startswith("centre")}


def test_a_cone_of_60_degrees_is_pushed_back_with_0_577_of_the_force_across():
    assert centre_thrust(Working(), 3000.0, 4000.0) == pytest.approx(5000 * 0.57735, rel=1e-5)
    assert centre_thrust(Working(), 0.0, 1000.0, 250.0) == pytest.approx(1000 * tan(radians(30)) + 250)


def test_just_enough_thrust_and_just_what_the_bearing_carries(shaft):
    """Roughing: 2.5 mm deep at 0.25 mm; its own forces say what it takes."""
    rough = solve(shaft.document, shaft.shelf, 0)[CUTS].cuts[0]
    least = hypot(rough.tangential_n, rough.radial_n) * tan(radians(30))
    assert codes(shaft, (THRUST, least * 1.0001)) == set()
    assert codes(shaft, (THRUST, least * 0.9999)) == {"centre-lifts"}
    assert codes(shaft, (THRUST, 5000.0)) == set()
    assert codes(shaft, (THRUST, 5000.1)) == {"centre-overloaded"}


def test_what_is_not_known_is_told(shaft):
    assert codes(shaft, (THRUST, None)) == {"centre-thrust-unknown"}
    machine = replace(shaft.shelf.machine, centre_n=None)
    assert codes(replace(shaft, shelf=replace(shaft.shelf, machine=machine))) == {"centre-limit-unknown"}
    assert codes(shaft, ("setups.s1.hold.live_centre", False)) == set()  # then nobody asks


def test_a_feed_away_from_the_chuck_pushes_onto_the_centre(shaft):
    """Its axial force adds to what keeps the centre in, and to what the bearing carries."""
    rough = solve(shaft.document, shaft.shelf, 0)[CUTS].cuts[0]
    away = [(f"setups.s1.cuts.{c.id}.feeds", "away") for c in shaft.document.setups[0].cuts]
    least = hypot(rough.tangential_n, rough.radial_n) * tan(radians(30)) + rough.axial_n
    assert "centre-lifts" in codes(shaft, *away, (THRUST, least * 0.9999))
    assert codes(shaft, *away, (THRUST, least * 1.0001)) == set()
    assert "centre-overloaded" in codes(shaft, *away, (THRUST, 5000.1 - rough.axial_n))


def test_where_nothing_seats_the_part_the_jaws_hold_the_thrust_too(shaft):
    """hypot(F_t·d_c/d_g, F_axial + thrust)/μ: slipping alone asks, a centre takes tilt and side."""
    thrust = 2000.0
    loose = replaced(replaced(shaft.document, THRUST, thrust), "setups.s1.hold.seat", "none")
    figures = solve(loose, shaft.shelf, 0)
    rough, hold = figures[CUTS].cuts[0], figures[HOLD]
    across = rough.tangential_n * rough.diameter_mm / hold.grip.diameter_mm
    slips = hypot(across, rough.axial_n + thrust) / hold.friction
    assert figures[DEMAND].nominal.cuts[0].slip_n == pytest.approx(slips)
    seated = solve(replaced(shaft.document, THRUST, thrust), shaft.shelf, 0)
    assert seated[DEMAND].nominal.cuts[0].slip_n == pytest.approx(across / hold.friction)


def test_settling_leaves_the_centre_in_its_hole(shaft):
    """At 1 100 N a cut may push across with 1 905 N: settled figures do, and no more."""
    low = replaced(shaft.document, THRUST, 1100.0)
    settled = settle_setup(low, shaft.shelf, 0)
    cuts = solve(settled.document, shaft.shelf, 0)[CUTS].cuts
    assert max(hypot(c.tangential_n, c.radial_n) for c in cuts) <= 1100 / tan(radians(30)) * (1 + 1e-9)
    assert compute(settled.document, shaft.shelf).verdict == "settled"
