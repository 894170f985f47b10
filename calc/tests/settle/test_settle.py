"""Settling: it keeps every limit, is not beaten by a plain search, and says what binds."""

import itertools
import math
import random
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.solve import CUTS
from calc.plan.force.solve import FORCE
from calc.plan.run_file import read_run
from calc.plan.solve import solve
from calc.profile.steps import TurnedStep
from calc.settle.operation import settle_operation
from calc.settle.setup import settle_setup
from calc.settle.trial import keeps_all, with_cut
from calc.tests.plan.test_refused import FILES
from calc.tests.route_shop import STEEL, plan, proposed, shelf

FIGURES = ("feed_mm_rev", "depth_mm", "speed_m_min")


def ready(taken=None):
    """A settled set-up whose roughing was then slowed down."""
    taken = taken or shelf()
    document = settle_setup(proposed(plan(), taken), taken, 0).document
    slow = document.setups[0].cuts[1].speed_m_min * 0.7
    return with_cut(document, 0, "c2", {"speed_m_min": slow}), taken


def taken_over(document, index, found):
    return with_cut(document, 0, f"c{index + 1}", {n: getattr(found.planned, n) for n in FIGURES})


def test_it_is_faster_and_the_whole_plan_takes_it():
    document, taken = ready()
    found = settle_operation(document, taken, 0, "c2")
    changed = taken_over(document, 1, found)
    assert found.minutes < found.minutes_before
    after = solve(changed, taken)
    assert keeps_all(after, "c2")
    assert after[CUTS].cuts[1].minutes == pytest.approx(found.minutes, rel=1e-9)
    assert after[CUTS].cuts[1].passes == found.passes


def test_the_same_question_has_the_same_answer():
    document, taken = ready()
    one, two = (settle_operation(document, taken, 0, "c2") for _ in range(2))
    assert one.planned == two.planned
    assert str(one.words) == str(two.words)


@pytest.mark.parametrize("index", [0, 1, 2, 3])
def test_a_plain_search_does_not_beat_it(index):
    document, taken = ready()
    found = settle_operation(document, taken, 0, f"c{index + 1}")
    planned = document.setups[0].cuts[index]
    stock = (
        document.part.face_stock_mm
        if planned.kind == "face"
        else abs(planned.from_diameter_mm - planned.to_diameter_mm) / 2
    )
    best = math.inf
    window = solve(document, taken)[CUTS].cuts[index].consulted.window
    for passes, feed, speed in itertools.product(
        (1, 2, 4, 7, 9, 12), (0.1, 0.14, 0.2, 0.28, 0.36, 0.42, 0.5), (150, 200, 250, 290, 320)
    ):
        if not window.feed_min_mm_rev <= feed <= window.feed_max_mm_rev:
            continue
        depth = math.ceil(stock / passes * 1000 - 1e-6) / 1000
        try:
            tried = with_cut(
                document, 0, f"c{index + 1}", {"feed_mm_rev": feed, "depth_mm": depth, "speed_m_min": float(speed)}
            )
        except CalcError:
            continue
        figures = solve(tried, taken)
        one = figures[CUTS].cuts[index]
        tool = one.tool.edge
        inside = tool.depth_min <= depth <= tool.depth_max and depth >= one.planned.corner_radius_mm
        if inside and one.consulted.life.life_min >= 5 and keeps_all(figures, f"c{index + 1}"):
            best = min(best, one.minutes)
    assert found.minutes <= best * (1 + 1e-9)


def test_no_plain_search_on_random_set_ups_beats_it_by_more_than_a_hundredth():
    """Feed, depth, speed and clamp by themselves on a coarse grid, each put to the whole plan, edge changes counted."""
    chance = random.Random(12)
    for _ in range(3):
        size, long = chance.uniform(30, 80), chance.uniform(15, 45)
        steps = (
            TurnedStep("Pin", round(size, 1), round(long, 1), fit="h7", ra_um=chance.choice([1.6, 3.2]), corner_mm=0.8),
            TurnedStep("Body", round(size, 1) + 12, 40.0),
        )
        taken = shelf()
        document = settle_setup(proposed(plan(steps, stock=round(size, 1) + 16), taken), taken, 0).document
        for one in solve(document, taken)[CUTS].cuts:
            ours = counted(one)
            for _ in range(40):
                feed = chance.choice([0.08, 0.1, 0.12, 0.14, 0.16, 0.2, 0.25, 0.3, 0.4, 0.5])
                passes, speed = chance.randint(1, 12), chance.choice([180.0, 220.0, 260.0, 300.0, 320.0])
                stock = one.planned.depth_mm * one.passes
                depth = math.ceil(stock / passes * 1000 - 1e-6) / 1000
                clamp = one.planned.clamp_rpm * chance.choice([1.0, 1.02, 1.1])
                figures = {"feed_mm_rev": feed, "depth_mm": depth, "speed_m_min": speed, "clamp_rpm": clamp}
                try:
                    figures = solve(with_cut(document, 0, one.id, figures), taken)
                except CalcError:
                    continue
                found = next(c for c in figures[CUTS].cuts if c.id == one.id)
                if keeps_all(figures, one.id) and breaks_its_chip(found):
                    assert counted(found) >= ours * 0.99


def counted(one):
    """Minutes of a piece with its share of the edge changes, two minutes each."""
    return one.minutes * (1 + 2.0 / one.consulted.life.life_min)


def breaks_its_chip(one):
    window, edge, planned = one.consulted.window, one.tool.edge, one.planned
    low, _ = speed_window(planned.kind, one.tool, STEEL)
    return (
        window.feed_min_mm_rev <= planned.feed_mm_rev <= window.feed_max_mm_rev
        and edge.depth_min <= planned.depth_mm <= edge.depth_max
        and planned.depth_mm >= planned.corner_radius_mm
        and one.consulted.life.life_min >= 5
        and one.result.speed_m_min >= low
    )


def test_settled_figures_never_break_a_limit():
    settled = []

    @settings(max_examples=12, deadline=None, derandomize=True, database=None)
    @given(
        st.floats(30, 80),
        st.floats(15, 45),
        st.sampled_from([1.6, 3.2, None]),
        st.floats(10, 32),
        st.integers(600, 3500),
    )
    def ask(diameter, long, ra, pressure, clamp):
        steps = (
            TurnedStep("Pin", round(diameter, 1), round(long, 1), fit="h7", ra_um=ra, corner_mm=0.8),
            TurnedStep("Body", round(diameter, 1) + 12, 40.0),
        )
        document = plan(steps, stock=round(diameter, 1) + 16)
        setup = document.setups[0]
        held = replace(setup, clamp_rpm=float(clamp), force=replace(setup.force, pressure_bar=pressure))
        taken = shelf()
        document = proposed(replace(document, setups=(held,)), taken)
        try:
            whole = settle_setup(document, taken, 0)
        except CalcError:
            # Then not even the gentlest figures of the same cuts keep every limit.
            assert not keeps_all(solve(gentlest(document), taken))
            return
        settled.append(whole)
        after = solve(whole.document, taken)
        assert keeps_all(after)
        force, cuts = after[FORCE], after[CUTS]
        for load in force.loads:
            assert not load.is_over
            assert load.held_corner >= 1 - 1e-9
            assert load.at_top.kept_fraction >= 1 / 3 - 1e-9
        for one in cuts.cuts:
            assert one.over <= 1 + 1e-9
            assert one.consulted.life is None or one.consulted.life.life_min >= 5 * (1 - 1e-6)
            if one.consulted.window is not None:
                assert one.planned.feed_mm_rev <= one.consulted.window.feed_max_mm_rev * (1 + 1e-9)
        assert whole.minutes == pytest.approx(cuts.minutes, rel=1e-6)

    ask()
    assert len(settled) >= 6  # where everything is refused, nothing was tried


def gentlest(document):
    """The same cuts at low feeds, small depths and the low end of speeds."""
    setup = document.setups[0]
    slow = tuple(
        replace(c, speed_m_min=60.0, feed_mm_rev=0.1, depth_mm=0.5) if c.kind in ("turn", "face", "bore") else c
        for c in setup.cuts
    )
    return replace(document, setups=(replace(setup, cuts=slow),))


def test_the_set_up_is_no_slower_than_its_cuts_one_by_one():
    document, taken = ready()
    whole = settle_setup(document, taken, 0)
    alone = document
    for i in range(len(document.setups[0].cuts)):
        alone = taken_over(alone, i, settle_operation(alone, taken, 0, f"c{i + 1}"))
    assert whole.minutes <= solve(alone, taken)[CUTS].minutes * 1.02  # the set-up's first search is coarser


def test_what_binds_is_told_and_its_going_saves_time():
    document, taken = ready()
    found = settle_operation(document, taken, 0, "c4")  # finishing to Ra 1.6
    assert found.binds.name == "the finish"
    assert found.binds.minutes < found.minutes
    assert "the finish holds it back" in str(found.words)


def test_what_a_limit_costs_is_told_in_time_in_cut_and_only_where_that_is_less():
    """What would only save edges tells no minutes: they would read as a loss."""
    run = read_run((FILES / "twin-spigot.json").read_text(encoding="utf-8"))
    told = settle_setup(run.document, run.shelf, 0).cuts
    bound = [one for one in told if one.binds is not None]
    assert bound
    assert all(one.binds.minutes is None or one.binds.minutes < one.minutes for one in bound)


def test_a_weak_spindle_binds():
    document, taken = ready(shelf(machine=replace(shelf().machine, power_kw=2.0)))
    found = settle_operation(document, taken, 0, "c2")
    assert found.binds.name == "the spindle's power"
    assert solve(taken_over(document, 1, found), taken)[CUTS].cuts[1].over <= 1


def test_pinned_figures_stay():
    document, taken = ready()
    pinned = with_cut(
        document, 0, "c2", {"pin_feed": True, "feed_mm_rev": 0.41, "pin_speed": True, "speed_m_min": 201.0}
    )
    found = settle_operation(pinned, taken, 0, "c2")
    assert (found.planned.feed_mm_rev, found.planned.speed_m_min) == (0.41, 201.0)
    deep = with_cut(document, 0, "c2", {"pin_depth": True, "depth_mm": 1.5})
    assert settle_operation(deep, taken, 0, "c2").planned.depth_mm == 1.5


def test_a_pinned_pressure_stays():
    document, taken = ready()
    setup = document.setups[0]
    pinned = replace(
        document, setups=(replace(setup, force=replace(setup.force, pressure_bar=21.0, pin_pressure=True)),)
    )
    assert settle_setup(pinned, taken, 0).pressure_bar == 21.0


def test_where_nothing_holds_it_says_what_forbids():
    document = plan()
    setup = document.setups[0]
    weak = replace(
        document, setups=(replace(setup, force=replace(setup.force, pressure_bar=4.0, condition="unknown")),)
    )
    taken = shelf()
    weak = proposed(weak, taken)
    # Each cut is judged by itself: that the others are not held as planned does not speak against it.
    alone = settle_operation(weak, taken, 0, "c2")
    assert "the grip at speed holds it back" in str(alone.words)
    heavy = replace(weak.setups[0].cuts[1], pin_depth=True, depth_mm=2.5, pin_feed=True, feed_mm_rev=0.45)
    held = replace(weak.setups[0], force=replace(weak.setups[0].force, pin_pressure=True), cuts=(heavy,))
    alone = replace(weak, setups=(held,))
    with pytest.raises(CalcError, match="the grip at speed forbids them all"):
        settle_operation(alone, taken, 0, "c2")
    with pytest.raises(CalcError, match="No pressure holds"):
        settle_setup(alone, taken, 0)


def test_settling_waits_for_its_figures():
    document, taken = ready()
    bare = replace(document, setups=(replace(document.setups[0], cuts=()),))
    with pytest.raises(CalcError, match="no such cut"):
        settle_operation(bare, taken, 0, "c1")
    open_cut = with_cut(document, 0, "c2", {"feed_mm_rev": None})
    with pytest.raises(CalcError, match="settle it when"):
        settle_operation(open_cut, taken, 0, "c2")
    with pytest.raises(CalcError, match="settle it when"):
        settle_setup(bare, taken, 0)
