"""Drilling, grooving, parting off and threading as loads of a plan, by hand and by published figures."""

import math
from dataclasses import replace

import pytest

from calc.errors import CalcError
from calc.plan.compute import compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.operations import operation
from calc.plan.cuts.solve import CUTS
from calc.plan.force.solve import FORCE
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.quantities import Figure
from calc.rules import Rules
from calc.tests.plans import DOCUMENT, MATERIAL, SHELF, drawn, helps, plan

SHARP = Rules(worn=1.0)
DRILL = PlannedCut("Drill", "drill", 0.0, 13.0, speed_m_min=90, feed_mm_rev=0.2)
PART = PlannedCut("Part off", "part", 60.0, 0.0, speed_m_min=120, feed_mm_rev=0.1, width_mm=3.0)
THREAD = PlannedCut("Thread", "thread", 24.0, 22.16, rpm=800, feed_mm_rev=1.5)


def figures(cut, rules=SHARP):
    return operation(cut, MATERIAL, 4000, rules)


def test_a_published_drill():
    # Ø13 in C45, v 90, f 0.2, 140°: 2 204 rpm, chip 0.09397 mm, 13.06 N·m, thrust 1 888 N before the chisel edge.
    made = figures(DRILL)
    assert made.result.rpm == pytest.approx(2204, abs=1)
    assert made.result.chip_thickness_mm == pytest.approx(0.09397, abs=1e-5)
    assert made.result.torque_nm == pytest.approx(13.06, abs=0.01)
    assert made.axial_n == pytest.approx(1.3 * 1888, abs=1)
    assert made.torque_only
    assert made.result.tangential_n == pytest.approx(2000 * 13.06 / 13, abs=1)


def test_a_pilot_hole_takes_the_chisel_edge_and_the_middle_of_the_torque():
    whole, opened = figures(DRILL), figures(replace(DRILL, from_diameter_mm=6.5))
    # Same chip: torque goes with d² − d_0², thrust with d − d_0 and without the 1.3.
    assert opened.result.torque_nm == pytest.approx(whole.result.torque_nm * 0.75)
    assert opened.axial_n == pytest.approx(whole.axial_n / 1.3 * 0.5)


def test_a_blade_is_an_edge_as_wide_as_itself():
    # C45: 2220·3·0.1^0.86 N, half of it against the feed.
    made = figures(PART)
    force = 2220 * 3 * 0.1**0.86
    assert made.result.tangential_n == pytest.approx(force)
    assert (made.radial_n, made.axial_n) == (pytest.approx(force / 2), pytest.approx(force / 5))
    assert made.smallest_mm == 0


def test_a_thread_by_hand():
    # P 1.5 outside, six passes: h 0.9202; area (h² tan 30° + 0.375 h)/6 along 2h/cos 30° + 0.375.
    h = 0.613434 * 1.5
    edge = 2 * h / math.cos(math.radians(30)) + 0.375
    area = (h * h * math.tan(math.radians(30)) + 0.375 * h) / 6
    made = figures(THREAD)
    assert made.result.tangential_n == pytest.approx(2220 * edge * (area / edge) ** 0.86)
    inside = figures(replace(THREAD, from_diameter_mm=22.4, to_diameter_mm=24.0))
    assert inside.result.tangential_n < made.result.tangential_n
    assert made.smallest_mm == 24  # one speed for all of it


def with_cut(cut, **more):
    return plan(setups__s1__cuts=(*DOCUMENT.setups[0].cuts, cut), **more)


@pytest.mark.parametrize("cut", [DRILL, PART, THREAD, replace(PART, name="Groove", kind="groove", to_diameter_mm=50.0)])
def test_each_is_a_load_beside_the_others_and_drawn(cut):
    result = with_cut(cut)
    force = result.figures[0][FORCE]
    assert force.asked.nominal.cuts[-1].name == cut.name
    assert force.asked.nominal.cuts[-1].required_n > 0
    labels = {f.label for f in result.stop("cuts").facts if f.group == "c3"}
    assert "Depth per side" not in labels
    region = next(s for s in drawn(result, "section").shapes if s.name == "cut-c3")
    assert len(set(region.points)) == 4  # metal is taken somewhere


def test_a_drill_that_nothing_seats_asks_more_and_pushes_nowhere_across():
    seated = with_cut(DRILL).figures[0][FORCE].asked.nominal.cuts[-1]
    loose = with_cut(DRILL, setups__s1__hold__seat="none").figures[0][FORCE].asked.nominal.cuts[-1]
    assert loose.slip_n > 2 * seated.slip_n


def test_a_drill_beyond_the_spindle_is_helped_by_feed_alone():
    big = replace(DRILL, to_diameter_mm=40.0, feed_mm_rev=0.6)
    result = with_cut(big)
    assert result.stop("cuts").state == "stopped"
    assert {h.path.rsplit(".", 1)[1] for h in helps(result, "cuts")} == {"feed_mm_rev"}


def test_what_is_missing_is_asked_for_by_its_own_name():
    blade = with_cut(replace(PART, width_mm=None)).figures[0].outcome(CUTS)
    assert [label for _, label in blade.missing] == ["Part off blade width"]
    pitch = with_cut(replace(THREAD, feed_mm_rev=None)).figures[0].outcome(CUTS)
    assert [label for _, label in pitch.missing] == ["Thread pitch"]
    with pytest.raises(CalcError, match="ends larger"):
        replace(DRILL, from_diameter_mm=20.0)


@pytest.mark.parametrize("share", [0.97, 0.9999, 1.0001, 1.03])
def test_what_is_asked_of_the_spindle_never_reads_as_more_than_it_has_unless_it_is(share):
    """At a feed that asks this share of the spindle; both printed to 0.01 kW."""
    first, slow, fast = DOCUMENT.setups[0], 0.01, 3.0

    def fed(feed):
        document = replaced(DOCUMENT, f"setups.{first.id}.cuts.{first.cuts[0].id}.feed_mm_rev", feed)
        return document, solve(document, SHELF)[CUTS].cuts[0]

    for _ in range(50):
        feed = (slow + fast) / 2
        slow, fast = (slow, feed) if fed(feed)[1].over > share else (feed, fast)
    document, cut = fed(slow)
    assert cut.over == pytest.approx(share, abs=1e-6)
    fact = next(f for s in compute(document, SHELF).stops for f in s.facts if f.name == f"cut_{cut.id}_power")
    asked = float(Figure(fact.value, "kW", fact.rounding, fact.places).number())
    there = float(str(fact.source).split()[2])
    assert (asked > there) == (cut.over > 1)


@pytest.mark.parametrize("speed", [85.0, 90.0, 95.0])
def test_a_drill_turns_at_one_speed_which_reads_as_one_figure(speed):
    facts = {f.name: f for f in with_cut(replace(DRILL, speed_m_min=speed, clamp_rpm=4000.0)).stop("cuts").facts}
    at_start, at_top = (facts[f"cut_c3_{name}"] for name in ("rpm_here", "top"))
    shown = {Figure(f.value, "rpm", f.rounding, f.places).number() for f in (at_start, at_top)}
    assert len(shown) == 1
