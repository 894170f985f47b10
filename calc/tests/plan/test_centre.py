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
from calc.tests.plans import NO_TOOLS, unsettled
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
    least = 1.2 * hypot(rough.tangential_n, rough.radial_n) * tan(radians(30))  # a fifth more at the worst corner
    assert codes(shaft, (THRUST, least * 1.0001)) == set()
    assert codes(shaft, (THRUST, least * 0.9999)) == {"centre-lifts"}
    assert codes(shaft, (THRUST, 5000.0)) == set()
    assert codes(shaft, (THRUST, 5000.1)) == {"centre-overloaded"}


def test_what_is_not_known_is_told(shaft):
    """The thrust holds the part, so there is no plan without it; the limit spares a bearing, and is told."""
    assert codes(shaft, (THRUST, None)) == {"centre-thrust-unknown"}
    assert compute(replaced(shaft.document, THRUST, None), shaft.shelf).verdict == "stopped"
    bare = replace(shaft, shelf=replace(shaft.shelf, machine=replace(shaft.shelf.machine, centre_n=None)))
    assert codes(bare) == {"centre-limit-unknown"}
    assert unsettled(compute(bare.document, bare.shelf)) == NO_TOOLS
    assert codes(shaft, ("setups.s1.hold.live_centre", False)) == set()  # then nobody asks


def test_a_feed_away_from_the_chuck_pushes_onto_the_centre(shaft):
    """Its axial force adds to what keeps the centre in, and to what the bearing carries."""
    strong = replace(shaft.shelf, machine=replace(shaft.shelf.machine, centre_n=8000.0))
    shaft = replace(shaft, shelf=strong)
    rough = solve(shaft.document, shaft.shelf, 0)[CUTS].cuts[0]
    away = [(f"setups.s1.cuts.{c.id}.feeds", "away") for c in shaft.document.setups[0].cuts]
    least = 1.2 * (hypot(rough.tangential_n, rough.radial_n) * tan(radians(30)) + rough.axial_n)
    assert "centre-lifts" in codes(shaft, *away, (THRUST, least * 0.9999))
    assert codes(shaft, *away, (THRUST, least * 1.0001)) == set()
    assert "centre-overloaded" in codes(shaft, *away, (THRUST, 8000.1 - 1.2 * rough.axial_n))


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
    """At 1 100 N a cut may push across with 1 905 N, a fifth of it kept for the worst corner."""
    low = replaced(shaft.document, THRUST, 1100.0)
    settled = settle_setup(low, shaft.shelf, 0)
    cuts = solve(settled.document, shaft.shelf, 0)[CUTS].cuts
    assert max(hypot(c.tangential_n, c.radial_n) for c in cuts) <= 1100 / 1.2 / tan(radians(30)) * (1 + 1e-9)
    assert unsettled(compute(settled.document, shaft.shelf)) == NO_TOOLS


@pytest.mark.parametrize(
    ("behind", "said"), [(719.9, None), (720.1, "slender"), (1349.9, "slender"), (1350.1, "too-slender")]
)
def test_over_a_centre_work_stands_out_9_diameters_and_at_most_16(shaft, behind, said):
    """Ø90: 120 of journal and what is behind it, less 30 in the jaws; 810 and 1 440 mm are the limits."""
    long = replaced(shaft.document, "part.profile.outside.o2.length_mm", behind)
    codes_of = {n.code for n in solve(long, shaft.shelf, 0)[HOLD].notes}
    assert codes_of & {"slender", "too-slender"} == ({said} if said else set())


def test_over_a_centre_it_bends_as_much_at_3_24_times_the_length():
    worst = max(_propped(a / 200) for a in range(1, 200))
    assert worst == pytest.approx(0.0098, abs=5e-5)
    assert ((1 / 3) / worst) ** (1 / 3) == pytest.approx(3.24, abs=0.01)


def _propped(a):
    """Largest bend [F·L³/EI] of a beam, built in at 0 and supported at 1, under a force at `a`: by superposition."""
    prop = a * a * (3 - a) / 2  # what the support pushes back with, of the force

    def bend(x):
        free = (x * x * (3 * a - x) if x <= a else a * a * (3 * x - a)) / 6
        return free - prop * x * x * (3 - x) / 6

    return max(bend(x / 500) for x in range(501))
