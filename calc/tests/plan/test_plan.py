"""The whole plan: what each stop says, and each stop condition just below, at and just above its limit."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.chuck.book import ChuckForce
from calc.chuck.demand import GripDemandInput, grip_demand
from calc.plan.cuts.solve import CUTS
from calc.plan.force.load import load_of
from calc.plan.force.solve import FORCE
from calc.plan.hold.inputs import Hold
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.part.solve import PART
from calc.tests.plans import (
    ALUMINIUM,
    CHUCK,
    MACHINE,
    MATERIAL,
    NO_TOOLS,
    SHELF,
    codes,
    drawn,
    helps,
    plan,
    shelf_with,
    unsettled,
)
from calc.tests.tools.shelf import starting_library

SHELF_WITH_TOOLS = replace(shelf_with(machine=replace(MACHINE, shank_mm=25)), tools=starting_library())
FACER = "cnmg120408-medium-steel/cn1204-out-25"


def force(result):
    return result.figures[0][FORCE]


def test_every_stop_is_settled_and_in_the_order_of_the_work():
    result = plan()
    assert [s.name for s in result.stops] == ["part", "sides", "hold", "jaws", "cuts", "tools", "force", "route"]
    assert unsettled(result) == NO_TOOLS


def test_a_cut_without_a_tool_leaves_its_stop_open_with_a_way_to_the_choice():
    result = plan(SHELF_WITH_TOOLS, setups__s1__cuts__c1__tool=FACER)
    stop = result.stop("tools")
    assert (stop.state, str(stop.line)) == ("open", "1 of 2 chosen")
    assert [(x.label, x.path) for x in stop.lacks] == [("Tool of Turn", "setups.s1.cuts.c2.tool")]
    both = plan(SHELF_WITH_TOOLS, setups__s1__cuts__c1__tool=FACER, setups__s1__cuts__c2__tool=FACER)
    assert both.stop("tools").lacks == ()
    assert unsettled(both) == set()


def test_figures_by_hand():
    f = force(plan())
    # 32 bar on a chart of 2 500 N/bar; middle of the grip 15 + 50 − 10 = 55 above the guide, below its 60.
    assert f.grip.grip_n == pytest.approx(80_000)
    assert f.stack[0].mass_kg == pytest.approx(7.85 * (40 * 75 * 50 - bored()) / 1e6, rel=1e-4)
    assert f.stack[1] == type(f.stack[1])(1.2, 70)


def bored():
    # 20 deep: the disc of radius 42 inside a face at 35 that is 40 wide, by thin strips.
    count = 20_000
    step = 40 / count
    area = sum(max(0.0, (42**2 - (-20 + (i + 0.5) * step) ** 2) ** 0.5 - 35) for i in range(count)) * step
    return area * 20


def test_the_demand_is_the_worn_edge_of_the_worst_cut():
    result = plan()
    cuts = result.figures[0][CUTS].cuts
    fresh = cuts[1].result.tangential_n / 1.3
    assert cuts[1].tangential_n == pytest.approx(fresh * 1.3)
    interrupted = plan(setups__s1__cuts__c2__interrupted=True).figures[0][CUTS].cuts[1]
    assert interrupted.tangential_n == pytest.approx(fresh * 1.3 * 1.25)
    assert force(result).asked.nominal.governing_cut == "Turn"


def test_facing_pushes_across_with_its_feed_and_along_with_its_passive_force():
    face = plan().figures[0][CUTS].cuts[0]
    assert face.radial_n == face.result.feed_n
    assert face.axial_n == face.result.passive_n
    turn = plan().figures[0][CUTS].cuts[1]
    assert (turn.axial_n, turn.radial_n) == (turn.result.feed_n, turn.result.passive_n)


def test_constant_surface_speed_reaches_the_lesser_of_clamp_and_smallest_diameter():
    # 120 m/min at Ø52: 734.6 rpm
    assert plan().figures[0][CUTS].top_rpm == pytest.approx(120_000 / 3.14159265 / 52)
    assert plan(setups__s1__clamp_rpm=600.0).figures[0][CUTS].top_rpm == 600
    to_centre = plan(part__profile__inside=(), setups__s1__cuts__c1__to_diameter_mm=0.0)
    assert to_centre.figures[0][CUTS].top_rpm == 1000
    no_clamp = plan(setups__s1__clamp_rpm=None, setups__s1__cuts__c1__to_diameter_mm=0.0, part__profile__inside=())
    assert no_clamp.figures[0][CUTS].top_rpm == MACHINE.max_rpm
    assert "no-clamp" in codes(no_clamp, "cuts", "caution")


@pytest.mark.parametrize(("past", "stopped"), [(-0.01, False), (0.0, False), (0.01, True)])
def test_the_program_just_below_at_and_above_the_cap(past, stopped):
    cap = force(plan()).cap_rpm
    result = plan(setups__s1__cuts__c2__rpm=cap + past)
    over = {"over-cap", "corner-slips", "little-grip-kept"} & codes(result, "force")
    assert bool(over) is stopped
    assert (result.stop("force").state == "stopped") is stopped


def test_over_the_cap_it_offers_to_hold_the_clamp_and_that_settles_it():
    cap = 500.0
    result = plan(setups__s1__force__user_max_rpm=cap)
    stop = result.stop("force")
    assert stop.state == "stopped"
    offered = result.helps(stop)[0]
    # Of its two cuts only the face turns faster: its own clamp is held, the other's stays.
    assert offered.path == "setups.s1.cuts.c1.clamp_rpm"
    assert offered.value == 500
    assert offered.settles
    taken = plan(setups__s1__force__user_max_rpm=cap, setups__s1__cuts__c1__clamp_rpm=offered.value)
    assert taken.stop("force").state == "settled"


def test_every_help_does_what_it_says():
    result = plan(setups__s1__force__condition="unknown", setups__s1__clamp_rpm=4000.0)
    assert helps(result, "force")
    for offered in helps(result, "force"):
        if offered.path.endswith("jaw_blank"):
            blank = next(b for b in SHELF.setups[0].blanks if b.key == offered.value)
            after = plan(shelf_with(blank=blank), setups__s1__force__condition="unknown")
        else:
            facts = {"setups__s1__force__condition": "unknown", offered.path.replace(".", "__"): offered.value}
            after = plan(**facts)
        said = offered.outcome.parts["n"]
        assert force(after).cap_rpm == pytest.approx(said.value)


@pytest.mark.parametrize(("heaviest_over", "stopped"), [(0.001, False), (0.0, False), (-0.001, True)])
def test_the_jaw_just_below_at_and_above_what_the_book_allows(heaviest_over, stopped):
    mass = plan().figures[0][JAWS].mass.mass_kg
    result = plan(shelf_with(chuck=replace(CHUCK, heaviest_jaw_kg=mass + heaviest_over)))
    assert ("jaw-too-heavy" in codes(result, "jaws")) is stopped
    if stopped:
        assert any(h.path.endswith("jaw_blank") for h in helps(result, "jaws"))


@pytest.mark.parametrize(("depth", "stopped"), [(23.99, False), (24.0, False), (24.01, True)])
def test_the_floor_at_its_least(depth, stopped):
    assert ("floor-too-thin" in codes(plan(setups__s1__hold__depth_mm=depth), "jaws")) is stopped


@pytest.mark.parametrize(("share", "stopped"), [(1.001, False), (1.0, False), (0.999, True)])
def test_the_spindle_just_enough_enough_and_too_weak(share, stopped):
    cuts = plan().figures[0][CUTS].cuts
    power = max(c.result.power_kw for c in cuts)
    result = plan(shelf_with(machine=replace(MACHINE, power_kw=power * share)))
    assert ("spindle-too-weak" in codes(result, "cuts")) is stopped
    if stopped:
        assert all(h.settles for h in helps(result, "cuts"))
        assert helps(result, "cuts")


@pytest.mark.parametrize(("over", "stopped"), [(-1e-4, False), (0.0, False), (1e-4, True)])
def test_the_grip_standing_still_against_the_demand(over, stopped):
    need = force(plan()).asked.nominal.required_grip_n
    result = plan(setups__s1__force__pressure_bar=need / 2500 * (1 - over))
    assert ("grip-too-small" in codes(result, "force")) is stopped or over == 0.0
    # Exactly enough leaves no speed at all: that too is a stop.
    assert (result.stop("force").state == "stopped") is (stopped or over == 0.0 or force(result).cap_rpm < 1000)


def test_an_overloaded_chuck_is_stopped_and_never_offered_more_pressure():
    tall = replace(CHUCK, guide_to_jaw_base_mm=60)
    result = plan(shelf_with(chuck=tall), setups__s1__force__pressure_bar=36.0)
    assert "chuck-overloaded" in codes(result, "force")
    pressures = [h for h in helps(result, "force") if h.path.endswith("pressure_bar")]
    assert pressures
    assert all(h.value < 36 and h.settles for h in pressures)
    near = plan(shelf_with(chuck=tall), setups__s1__force__pressure_bar=pressures[0].value)
    assert not [h for h in helps(near, "force") if h.path.endswith("pressure_bar")]


def test_an_unknown_stack_mass_is_a_stop_never_zero():
    stop = plan(shelf_with(chuck=replace(CHUCK, master_mass_kg=None))).stop("force")
    assert stop.state == "stopped"
    assert "weigh" in str(stop.line)


def test_condition_is_counted_but_hides_no_overload():
    assert force(plan(setups__s1__force__condition="unknown")).grip.grip_n == pytest.approx(40_000)
    assert force(plan(setups__s1__force__condition="week")).grip.grip_n == pytest.approx(68_000)
    facts = {"condition": "measured", "condition_measured": 0.94, "condition_date": "2026-11-20"}
    measured = plan(**{f"setups__s1__force__{k}": v for k, v in facts.items()})
    assert force(measured).grip.grip_n == pytest.approx(75_200)
    assert force(measured).condition_source.basis == "measured"


def test_friction_follows_pair_and_material():
    assert plan(setups__s1__hold__friction="rough").figures[0][HOLD].friction == pytest.approx(0.15)
    bronze = replace(MATERIAL, friction_multiplier=0.9)
    assert plan(shelf_with(material=bronze)).figures[0][HOLD].friction == pytest.approx(0.09)


def test_the_worst_corner_is_worse_than_nominal():
    f = force(plan())
    # slip scales with force ÷ friction: 1.2 / 0.75
    assert f.asked.corner.required_grip_n > f.asked.nominal.required_grip_n * 1.2
    assert f.asked.corner.required_grip_n < f.asked.nominal.required_grip_n * 1.6 * (1 + 1e-9)
    assert f.weakest.held_corner < f.worst.held


def test_the_corner_is_the_demand_of_scaled_loads():
    """Cuts 20 % heavier on three quarters of the friction; the part weighs what it did."""
    f = plan().figures[0]
    cuts = [load_of(c, f[HOLD], Hold()) for c in f[CUTS].cuts]
    forces = ("tangential_n", "axial_n", "radial_n", "unseated_axial_n")
    worse = tuple(replace(c, **{n: 1.2 * getattr(c, n) for n in forces}) for c in cuts)
    weighed = f[FORCE].asked.asked
    asked = GripDemandInput(
        worse,
        84,
        f[HOLD].pocket.grip_length_mm,
        0.75 * f[HOLD].friction,
        part_mass_kg=weighed.part_mass_kg,
        centre_overhang_mm=weighed.centre_overhang_mm,
        rpm=weighed.rpm,
    )
    assert f[FORCE].asked.corner.required_grip_n == pytest.approx(grip_demand(asked).required_grip_n)


def test_aluminium_keeps_more_grip_at_speed():
    assert force(plan(shelf_with(blank=ALUMINIUM))).cap_rpm > force(plan()).cap_rpm


@given(st.floats(6, 39), st.floats(1.0, 1.5))
def test_more_pressure_never_lowers_the_cap(pressure, more):
    low = force(plan(setups__s1__force__pressure_bar=pressure))
    high = force(plan(setups__s1__force__pressure_bar=min(40.0, pressure * more)))
    assert high.cap_rpm >= low.cap_rpm


def test_the_chart_marks_the_cap_where_the_curves_cross():
    chart, f = drawn(plan(), "chart"), force(plan())
    low = f.lowest
    assert low.limit.capped_by == "corner"  # with 15 % less grip at rest, speed takes what it takes
    taken = f.grip.grip_n - chart.cap_n
    assert 0.85 * f.grip.grip_n - taken == pytest.approx(f.asked.each_at_corner(1, 0.0) / 2, rel=1e-9)
    assert [(p.name, p.path) for p in chart.points] == [
        ("Face", "setups.s1.cuts.c1.clamp_rpm"),
        ("Turn", "setups.s1.cuts.c2.clamp_rpm"),
    ]
    assert [p.nearest for p in chart.points] == [load is f.worst for load in f.loads]
    assert all(p.grip_n > p.needed_n for p in chart.points)
    assert chart.curves[0].points[0] == (0, pytest.approx(80_000))
    assert [c.label for c in chart.curves] == ["grip", "worst credible corner", "with aluminium jaws"]


def test_what_is_carried_to_the_machine():
    carry = [(c.name, c.figure.text()) for c in plan().sides[0].carry]
    assert carry == [
        ("pressure", "32.0\xa0bar"),
        ("clamp", "1\u202f000\xa0rpm"),
        ("bore", "84.00\xa0mm"),
        ("depth", "20.00\xa0mm"),
    ]
    assert plan(setups__s1__clamp_rpm=None).sides[0].carry[1].figure is None


def test_braking_is_counted_once_its_time_is_known():
    assert "braking-not-counted" in codes(plan(), "force", "info")
    result = plan(setups__s1__force__brake_s=2.0)
    assert "braking-not-counted" not in codes(result, "force", "info")
    f = force(result)
    part = result.figures[0][PART]
    # J of a solid or bored slug, stopped from the program's top speed in two seconds.
    outer, inner = part.held_radii_mm
    torque = part.held_mass_kg * (outer**2 + inner**2) / 2 / 1e6 * (2 * math.pi * f.top_rpm / 60) / 2.0
    braking = f.asked.nominal.cuts[-1]
    assert braking.name == "Braking"
    assert braking.slip_n == pytest.approx(2000 * torque / 84 / result.figures[0][HOLD].friction)


@pytest.mark.parametrize(
    "wild",
    [{"offset_mm": 100.0}, {"brake_s": 0.1}, {"wanted_rpm": 20_000.0}, {"offset_mm": 100.0, "wanted_rpm": 20_000.0}],
)
def test_wild_loads_are_stopped_or_told_never_broken(wild):
    result = plan(**{f"setups__s1__force__{name}": value for name, value in wild.items()})
    assert all(p.field.startswith(("setups.s1", "part")) for p in result.problems)
    f = force(result)
    if "offset_mm" in wild:
        assert f.cap_rpm < force(plan()).cap_rpm
    if wild.get("wanted_rpm"):
        assert f.wanted.pressure_bar is None


def test_an_imbalance_bends_the_demand_and_lowers_the_cap():
    still, odd = force(plan()), force(plan(setups__s1__force__offset_mm=0.5))
    assert odd.cap_rpm < still.cap_rpm
    cap = odd.lowest.limit.grip_limited_rpm
    moment = sum(p.mass_kg * p.radius_mm for p in odd.stack) / 1000
    left = odd.grip.grip_n - 3 * moment * (2 * math.pi * cap / 60) ** 2
    assert odd.asked.at(cap) == pytest.approx(left, rel=1e-6)
    chart = drawn(plan(setups__s1__force__offset_mm=0.5), "chart")
    assert chart.demand[0][1] < chart.demand[-1][1]


def test_the_wanted_speed_and_its_pressure_are_each_others_inverse():
    f = force(plan(setups__s1__force__wanted_rpm=1500))
    assert f.wanted.pressure_bar is not None
    back = force(plan(setups__s1__force__pressure_bar=f.wanted.pressure_bar))
    assert back.lowest.limit.grip_limited_rpm == pytest.approx(1500, rel=1e-6)


@given(st.floats(8, 39), st.floats(0, 0.4))
def test_the_worst_corner_is_never_above_nominal(pressure, offset):
    f = force(plan(setups__s1__force__pressure_bar=pressure, setups__s1__force__offset_mm=offset))
    assert f.weakest.held_corner <= f.worst.held
    assert f.asked.corner.required_grip_n >= f.asked.nominal.required_grip_n


def test_a_piston_chuck_plans_too():
    book = ChuckForce(100_000, 40, 60, 80, piston_area_mm2=10_000, force_ratio=2.5)
    assert force(plan(shelf_with(chuck=replace(CHUCK, force=book)))).grip.grip_n == pytest.approx(80_000)
    assert CHUCK.force.chart
