"""A cut with its tool's figures, and what it asks of a tool."""

from dataclasses import replace

import pytest

from calc.cuts.kinds import KIND
from calc.plan.compute import compute
from calc.plan.cuts.consulted import Ask
from calc.plan.cuts.edge import edges_of, exponent_of, reference_speed, speed_factor
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.minutes import minutes_in_cut
from calc.plan.cuts.operations import LEAVES_OUT
from calc.plan.cuts.tooling import brought, fitted, job_of, length_of, step_of
from calc.plan.part.solve import PART
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.profile.steps import TurnedStep
from calc.rules import Rules
from calc.shelf.material import Material
from calc.tests.route_shop import STEEL, plan, proposed, shelf
from calc.tests.tools.shelf import starting_library

LIB = starting_library()
ROUGH = "cnmg120412-rough-steel/cn1204-out-25"
TURN = PlannedCut("Turn", "turn", 90.0, 51.0, 200.0, feed_mm_rev=0.3, depth_mm=2.0, stage="rough")
FINISH = PlannedCut("Finish", "turn", 51.0, 50.0, 250.0, feed_mm_rev=0.12, depth_mm=0.5, stage="finish")


def part_of(document=None):
    return solve(document or plan(), shelf())[PART]


def test_a_tool_brings_its_corner_and_angles():
    found = fitted(replace(TURN, tool=ROUGH, corner_radius_mm=0.2, approach_deg=45.0), LIB)
    assert (found.planned.corner_radius_mm, found.planned.approach_deg, found.planned.rake_deg) == (1.2, 95.0, 6.0)
    assert brought(found.tool) == ("corner_radius_mm", "approach_deg", "rake_deg")


def test_without_a_tool_what_is_entered_counts():
    assert fitted(TURN, LIB).planned == TURN
    assert fitted(TURN, LIB).tool is None
    assert brought(None) == ()


def test_a_tool_that_is_gone_is_told_and_brings_nothing():
    found = fitted(replace(TURN, tool="gone/holder"), LIB)
    assert found.gone
    assert found.planned.corner_radius_mm == TURN.corner_radius_mm


def test_a_drill_brings_its_size_and_point_and_a_blade_its_width():
    drilled = fitted(PlannedCut("Drill", "drill", 0.0, 12.0, tool="drill-13"), LIB)
    assert (drilled.planned.to_diameter_mm, drilled.planned.point_deg) == (13.0, 140.0)
    parted = fitted(PlannedCut("Part", "part", 36.0, 0.0, tool="p-3/blade-3-20"), LIB)
    assert parted.planned.width_mm == 3.0


def test_a_drill_no_larger_than_its_pilot_is_not_put_in():
    found = fitted(PlannedCut("Drill", "drill", 20.0, 25.0, tool="drill-13"), LIB)
    assert found.planned.to_diameter_mm == 25.0


@pytest.mark.parametrize(
    ("kind", "a", "b", "inside"),
    [
        ("bore", 20, 24, True),
        ("drill", 0, 10, True),
        ("thread", 24, 22, False),
        ("thread", 22, 24, True),
        ("groove", 40, 36, False),
        ("groove", 36, 40, True),
        ("turn", 50, 40, False),
    ],
)
def test_where_a_cut_works(kind, a, b, inside):
    assert PlannedCut("c", kind, float(a), float(b)).inside is inside


def test_roughing_and_finishing_find_the_step_they_make():
    part = part_of()
    assert step_of(TURN, part, "a").step.name == "Pin"
    assert step_of(FINISH, part, "a").step.name == "Pin"
    assert step_of(replace(FINISH, to_diameter_mm=20.0), part, "a") is None


def test_length_is_the_profiles_until_it_is_entered():
    part = part_of()
    assert length_of(TURN, part, "a") == 30.0
    assert length_of(replace(TURN, length_mm=12.5), part, "a") == 12.5
    assert length_of(replace(TURN, start_mm=10.0), part, "a") == 20.0


def test_the_job_has_the_prints_corner_finish_and_shoulder():
    job = job_of(FINISH, part_of(), "a", Rules(), 2.0, 100)
    assert (job.corner_mm, job.ra_um, job.square, job.stage) == (0.8, 1.6, True, "finish")
    assert (job.group, job.shank_mm, job.quantity, job.minutes) == ("P", 25, 100, 2.0)
    assert job.stock_mm == 0.5


def test_a_bore_asks_for_a_bar_that_reaches_with_a_millimetre_to_spare():
    document = plan(inside=(TurnedStep("Bore", 40.0, 50.0, fit="H7"),))
    job = job_of(PlannedCut("Bore", "bore", 30.0, 40.0, depth_mm=1.0), part_of(document), "a", Rules(), 0.0, None)
    assert (job.side, job.bore_mm, job.reach_mm, job.quantity) == ("inside", 30.0, 51.0, 1)


@pytest.mark.parametrize(("kw", "weak"), [(11.9, True), (12.0, False)])
def test_a_weak_machine_is_one_under_twelve_kilowatts(kw, weak):
    taken = shelf(machine=replace(shelf().machine, power_kw=kw))
    part = solve(plan(), taken)[PART]
    assert job_of(TURN, part, "a", Rules(), 0.0, None).weak is weak


def test_a_thin_wall_is_seen():
    solid = job_of(TURN, part_of(), "a", Rules(), 0.0, None)
    ring = plan(inside=(TurnedStep("Bore", 46.0, 69.0),))
    assert not solid.thin
    assert job_of(TURN, part_of(ring), "a", Rules(), 0.0, None).thin


def test_speed_and_exponent_by_what_the_edge_is():
    coated, bright = (LIB.tool(k) for k in (ROUGH, "ccgt09t304-finish-bright/cc09t3-out-25"))
    aluminium = Material("al", "Al", "N", 700, 0.23, 300, 1200, 2.7, 70)
    assert speed_factor(None, STEEL) == speed_factor(coated, STEEL) == 1.0
    assert speed_factor(bright, STEEL) == 0.7
    assert speed_factor(bright, aluminium) == 1.0
    assert speed_factor(LIB.tool("drill-13"), STEEL) == 0.5
    assert reference_speed(coated, STEEL) == pytest.approx(0.85 * 320)
    assert (exponent_of(coated), exponent_of(bright)) == (0.25, 0.20)
    assert (edges_of(coated), edges_of(None)) == (4, 1)


def test_a_parting_cut_takes_longer_where_its_feed_slows():
    one = PlannedCut("Part", "part", 36.0, 0.0, 120.0, feed_mm_rev=0.1, width_mm=3.0)
    slow = replace(one, slow_feed_mm_rev=0.04)
    longer = minutes_in_cut(slow, 1, 3.0, 3000) - minutes_in_cut(one, 1, 3.0, 3000)
    assert longer == pytest.approx(2.5 / 120 - 2.5 / 300)


def test_a_wide_groove_takes_a_plunge_for_every_width():
    one = PlannedCut("Groove", "groove", 40.0, 36.0, 120.0, feed_mm_rev=0.1, width_mm=3.0)
    assert minutes_in_cut(one, 1, 6.1, 3000) == pytest.approx(3 * minutes_in_cut(one, 1, 3.0, 3000))


def test_a_cut_without_its_figures_takes_no_time():
    assert minutes_in_cut(replace(TURN, feed_mm_rev=None), 1, 30.0, 3000) == 0.0
    assert minutes_in_cut(replace(TURN, speed_m_min=None), 1, 30.0, 3000) == 0.0


@pytest.mark.parametrize("kind", KIND.options)
def test_no_kind_leaves_out_what_it_needs(kind):
    needed = {
        "turn": "depth_mm",
        "face": "depth_mm",
        "bore": "depth_mm",
        "groove": "width_mm",
        "part": "width_mm",
        "thread": "passes",
        "drill": "point_deg",
    }
    assert needed[kind] not in LEAVES_OUT[kind]
    assert ("slow_feed_mm_rev" in LEAVES_OUT[kind]) is (kind != "part")
    assert ("thread" in LEAVES_OUT[kind]) is (kind != "thread")


def stop(document, name, taken=None):
    return compute(document, taken or shelf()).stop(name, 0)


def test_the_stop_tools_offers_three_and_tells_the_one_in_force():
    taken = shelf()
    result = compute(proposed(plan(), taken), taken)
    found, tables = result.stop("tools"), result.tables(result.stop("tools"))
    assert [len(t.rows) for t in tables] == [3, 4, 3, 3]  # an outer band takes the tool of the inner one
    assert all(any(r.chosen for r in t.rows) for t in tables)
    assert {p.name for p in found.pictures} == {f"insert_c{n}" for n in (1, 2, 3, 4)}
    assert str(found.line) == "3 tools for 4 cuts"
    assert found.answers[0].figure.value == 4


def test_a_tool_that_no_longer_may_stops_its_cut_and_says_why():
    taken = shelf()
    document = proposed(plan(), taken)
    cuts = list(document.setups[0].cuts)
    cuts[3] = replace(cuts[3], tool="cnmg120412-rough-steel/cn1204-out-25")  # a corner of 1.2 where the print has 0.8
    document = replace(document, setups=(replace(document.setups[0], cuts=tuple(cuts)),))
    result = compute(document, taken)
    found, tables = result.stop("tools"), result.tables(result.stop("tools"))
    assert found.state == "stopped"
    assert "the print allows" in next(n.text for n in found.notes if n.code == "tool-rejected")
    assert tables[3].rows[-1].why_not is not None


def test_more_tools_than_stations_are_stopped():
    taken = shelf(machine=replace(shelf().machine, turret_stations=2))
    found = stop(proposed(plan(), taken), "tools", taken)
    assert "turret-full" in {n.code for n in found.notes}
    assert found.state == "stopped"


def test_a_depth_beyond_the_edge_is_stopped_at_cuts():
    taken = shelf()
    document = proposed(plan(), taken)
    cuts = list(document.setups[0].cuts)
    cuts[1] = replace(cuts[1], depth_mm=9.0)
    found = stop(replace(document, setups=(replace(document.setups[0], cuts=tuple(cuts)),)), "cuts", taken)
    assert "edge-too-deep" in {n.code for n in found.notes}


def test_figures_that_settling_may_leave_have_a_pin():
    taken = shelf()
    facts = {f.name: f for f in stop(proposed(plan(), taken), "cuts", taken).facts}
    assert facts["cut_c2_feed_mm_rev"].pin_path == "setups.s1.cuts.c2.pin_feed"
    assert facts["cut_c2_speed_m_min"].pin_path == "setups.s1.cuts.c2.pin_speed"
    assert facts["cut_c2_to_diameter_mm"].pin_path is None
    assert facts["cut_c2_corner_radius_mm"].path is None  # the tool's


def test_pictures_show_the_feed_window_and_the_way_across():
    taken = shelf()
    found = stop(proposed(plan(), taken), "cuts", taken).pictures
    bars = next(p for p in found if p.name == "window_c4")
    assert [r.label for r in bars.ranges] == ["corner radius", "finish", "chip breaker"]
    assert bars.shared.high == min(r.high for r in bars.ranges)
    across = next(p for p in found if p.name == "across_c1")
    top = max(n for _, n in across.rpm.points)
    assert top == 2500.0  # the clamp
    assert across.mark == pytest.approx(1000 * 250 / (3.141592653589793 * 2500), rel=0.3)
    assert across.speed.points[0][1] == pytest.approx(0.0)  # at the centre the surface stands still


def test_what_cuts_rest_on_is_told_apart_by_the_part_itself_and_by_all_else_as_values():
    part = part_of()
    same = Ask(part, Rules(), None, "a", 1)
    assert same == Ask(part, Rules(), None, "a", 1) and hash(same) == hash(Ask(part, Rules(), None, "a", 1))
    other = part_of(replaced(plan(), "part.edge_mm", 0.5))
    assert same != Ask(other, Rules(), None, "a", 1)
    assert same != Ask(part, Rules(worn=1.4), None, "a", 1)


def test_parting_off_carries_its_caution_and_other_cuts_do_not():
    parting = PlannedCut("Part", "part", 90.0, 0.0, 120.0, feed_mm_rev=0.1, width_mm=3.0)
    document = proposed(plan(), shelf())
    setup = document.setups[0]
    assert "piece-flies" not in {n.code for n in stop(document, "cuts").notes}
    with_it = replace(document, setups=(replace(setup, cuts=(*setup.cuts, parting)),))
    assert "piece-flies" in {n.code for n in stop(with_it, "cuts").notes}
