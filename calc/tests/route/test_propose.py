"""Operations proposed from the profile, and the order checked in words."""

import itertools
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.notebook.proven import Proven
from calc.plan.compute import compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Setup
from calc.plan.hold.inputs import Hold
from calc.plan.part.inputs import Stock
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.profile.steps import TurnedStep
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.route.order import sequence_notes
from calc.rules import Rules
from calc.tests.route_shop import STEEL, plan, proposed, shelf

BAR = Stock("bar", "drawn", 36.0)


def cuts_of(document, taken=None):
    return proposed(document, taken or shelf()).setups[0].cuts


def bush(**more):
    """A threaded bush from bar: thread, relief groove, collar, bored through."""
    outside = (
        TurnedStep("Thread", 24.0, 16.0, thread="M24x1.5-6g", thread_length_mm=14.0),
        TurnedStep("Relief", 21.6, 3.0, groove=True),
        TurnedStep("Collar", 34.0, 23.0),
    )
    document = plan(outside, (TurnedStep("Bore", 14.0, fit="H7", ra_um=1.6),), 36.0, **more)
    return replace(
        document,
        part=replace(document.part, stock=BAR, face_stock_mm=0.5),
        setups=(replace(document.setups[0], hold=Hold(grip="stock", depth_mm=16.0, seat="none")),),
    )


def test_a_shaft_end_is_faced_roughed_and_finished():
    kinds = [(c.kind, c.stage) for c in cuts_of(plan())]
    # The body is the jaws' and the other side's: its largest step is not made here.
    # Nineteen millimetres a side are roughed in two cuts: the inner one may go deeper.
    assert kinds == [("face", "both"), ("turn", "rough"), ("turn", "rough"), ("turn", "finish")]
    face, first, rough, finish = cuts_of(plan())
    assert (first.from_diameter_mm, first.to_diameter_mm, first.name) == (90.0, 70.5, "Rough Pin, to Ø70.5")
    assert (face.from_diameter_mm, face.to_diameter_mm, face.depth_mm) == (90.0, 0.0, 2.0)
    assert (rough.from_diameter_mm, rough.to_diameter_mm, rough.length_mm) == (70.5, 51.0, 30.0)
    assert rough.depth_mm == pytest.approx(1.95)  # 9.75 a side in five equal passes
    assert (finish.from_diameter_mm, finish.to_diameter_mm, finish.depth_mm) == (51.0, 50.0, 0.5)


def test_a_bush_from_bar_is_made_whole_and_parted_off():
    cuts = cuts_of(bush())
    assert [c.kind for c in cuts] == [
        "face",
        "turn",
        "turn",
        "turn",
        "drill",
        "bore",
        "bore",
        "groove",
        "thread",
        "thread",
        "part",
    ]
    groove, thread, spring, part = cuts[-4:]
    assert spring.cleans
    assert (groove.from_diameter_mm, groove.to_diameter_mm, groove.width_mm, groove.start_mm) == (24.0, 21.6, 3.0, 16.0)
    assert (thread.feed_mm_rev, thread.length_mm, thread.thread) == (1.5, 14.0, "M24x1.5-6g")
    assert thread.to_diameter_mm == pytest.approx(24 - 2 * 0.920151, abs=1e-3)
    assert (part.from_diameter_mm, part.to_diameter_mm) == (36.0, 12.6)  # into the drilled Ø13: the bore ends before
    assert sequence_notes(cuts) == []


def test_a_groove_in_a_bore_is_plunged_outward():
    inside = (
        TurnedStep("Bore", 40.0, 20.0, fit="H7"),
        TurnedStep("Ring groove", 43.0, 2.0, groove=True),
        TurnedStep("Deep", 40.0, 20.0, fit="H7"),
    )
    groove = next(c for c in cuts_of(plan(inside=inside)) if c.kind == "groove")
    assert (groove.from_diameter_mm, groove.to_diameter_mm, groove.start_mm, groove.length_mm) == (
        40.0,
        43.0,
        20.0,
        2.0,
    )
    assert groove.tool.startswith("gi-2/")


def test_the_other_school_threads_before_it_grooves():
    kinds = [c.kind for c in cuts_of(bush(rules=Rules(thread_relief="thread")))]
    assert kinds.index("thread") < kinds.index("groove")


def test_the_drill_leaves_the_bar_something_and_the_bar_begins_there():
    cuts = cuts_of(bush())
    drill = next(c for c in cuts if c.kind == "drill")
    even, bore = (c for c in cuts if c.kind == "bore")
    assert drill.to_diameter_mm == 13.0
    # 18 µm of tolerance after a drill: two equal passes.
    assert (even.from_diameter_mm, even.to_diameter_mm, even.depth_mm) == (13.0, 13.5, 0.25)
    assert (bore.from_diameter_mm, bore.to_diameter_mm, bore.stage) == (13.5, 14.0, "finish")


def test_a_rough_bore_where_much_is_left():
    document = plan(inside=(TurnedStep("Bore", 40.0, 50.0, fit="H7"),))
    weak = shelf(machine=replace(shelf().machine, torque_nm=25))
    bores = [c for c in cuts_of(document, weak) if c.kind == "bore"]
    drilled = bores[0].from_diameter_mm
    assert (40.0 - drilled) / 2 > 2.5  # the spindle cannot turn a larger drill
    assert [c.stage for c in bores] == ["rough", "finish"]
    assert bores[0].to_diameter_mm == 39.0


def test_every_proposed_cut_has_a_tool_and_first_figures():
    for cut in cuts_of(bush()):
        assert cut.tool, cut.name
        assert cut.speed_m_min
        assert cut.feed_mm_rev


def test_a_proven_cut_gives_the_first_figures_where_the_shop_wants_it():
    document, taken = plan(), shelf()
    figures = solve(document, taken)
    worked = Proven(
        "turn",
        "C45",
        222.0,
        0.31,
        iso_group="P",
        stage="rough",
        diameter_mm=90.0,
        machine="Lathe",
        insert="CNMG 120412",
    )
    side = side_of(document, figures[PART], figures[SIDES].first, 0, taken.tools, (worked,))
    rough = propose(side)[1]
    assert (rough.speed_m_min, rough.feed_mm_rev) == (222.0, 0.31)
    window = propose(replace(side, rules=Rules(first_speed="window")))[1]
    assert STEEL.speed_low_m_min <= window.speed_m_min <= STEEL.speed_high_m_min
    assert window.speed_m_min != 222.0


def test_the_other_side_makes_the_rest():
    document = replace(plan(), setups=(plan().setups[0], Setup("Two", hold=Hold(grip="outside:o1", depth_mm=20.0))))
    taken = shelf(setups=2)
    figures = solve(document, taken, 1)
    cuts = propose(side_of(document, figures[PART], figures[SIDES].first, 1, taken.tools))
    assert [(c.kind, c.to_diameter_mm) for c in cuts] == [("face", 0.0), ("turn", 84.0)]


SIZES = st.floats(20, 80).map(lambda d: round(d, 1))


@settings(max_examples=40, deadline=None)
@given(SIZES, SIZES, st.floats(5, 40), st.booleans(), st.floats(0, 3))
def test_what_is_proposed_ends_at_the_print_and_never_cuts_below_it(one, two, long, fine, facing):
    small, large = sorted((one, two))
    if large - small < 1:
        large = small + 1
    steps = (TurnedStep("Pin", small, round(long, 1), fit="h7" if fine else ""), TurnedStep("Body", large, 40.0))
    document = plan(steps, stock=large + 4)
    document = replace(document, part=replace(document.part, face_stock_mm=facing))
    cuts = cuts_of(document)
    turned = [c for c in cuts if c.kind == "turn"]
    assert turned[-1].to_diameter_mm == small
    for cut, after in itertools.pairwise(turned):
        assert after.from_diameter_mm <= cut.to_diameter_mm + 1e-6
    assert all(c.to_diameter_mm >= small - 1e-9 for c in turned)
    assert sequence_notes(cuts) == []


def cut(name, kind, a, b, stage="both"):
    return PlannedCut(name, kind, a, b, stage=stage)


FACE, ROUGH, FINISH = (
    cut("Face", "face", 90, 0),
    cut("Rough", "turn", 90, 51, "rough"),
    cut("Finish", "turn", 51, 50, "finish"),
)
DRILL, BORE = cut("Drill", "drill", 0, 20), cut("Bore", "bore", 20, 24)
THREAD, OFF = cut("Thread", "thread", 24, 22), cut("Part off", "part", 90, 0)


@pytest.mark.parametrize(
    ("order", "code"),
    [
        ((OFF, FACE), "part-off-first"),
        ((FINISH, ROUGH), "finish-before-rough"),
        ((BORE, DRILL), "bore-before-drill"),
        ((FINISH, FACE), "face-late"),
        ((THREAD, ROUGH), "thread-early"),
    ],
)
def test_a_wrong_order_is_told_in_words(order, code):
    notes = sequence_notes(order)
    assert [n.code for n in notes] == [code]
    assert order[0].name in notes[0].text
    assert order[1].name in notes[0].text


def test_the_right_order_is_not_told():
    assert sequence_notes((FACE, ROUGH, FINISH, DRILL, BORE, THREAD, OFF)) == []
    # A bore finished before the outside is roughed is no fault.
    assert sequence_notes((cut("Bore", "bore", 20, 24, "finish"), ROUGH)) == []


def cuts_tables(document, taken):
    result = compute(document, taken)
    return result.tables(result.stop("cuts", 0))


def test_a_named_thread_brings_its_published_limits_and_passes():
    taken = shelf()
    tables = cuts_tables(proposed(bush(), taken), taken)
    limits = next(t for t in tables if t.title == "Limits of M24x1.5-6g")
    assert [[c.value for c in row.cells] for row in limits.rows[:3]] == [
        [23.968, 23.732],
        [22.994, 22.844],
        [22.344, 21.92],
    ]
    passes = next(t for t in tables if t.title.startswith("Passes") and t.group == limits.group)
    assert passes.rows[-1].cells[0].value == pytest.approx(0.920151, abs=1e-5)
