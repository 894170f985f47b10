"""Threads with what takes their burr: the two schools, the passes that go over what is cut, and their order."""

from dataclasses import replace

import pytest

from calc.errors import CalcError
from calc.plan.compute import compute
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS
from calc.profile.steps import TurnedStep
from calc.route.order import Work, sequence_notes
from calc.rules import Rules
from calc.settle.setup import settle_setup
from calc.tests.route.test_propose import bush, cuts_of
from calc.tests.route_shop import plan, proposed, shelf

GROOVER = "g-3/g3-out-25"
THREADER = "m15-outside/t16e-out-25"


def of_thread(cuts):
    return [c for c in cuts if c.kind in ("groove", "thread") or c.cleans]


def partial(taken):
    """The shelf with threading inserts that leave the crest to others."""
    inserts = tuple(replace(e, profile="partial") for e in taken.tools.thread_inserts)
    return replace(taken, tools=replace(taken.tools, thread_inserts=inserts))


def figures_of(document, taken, index=0):
    return compute(document, taken).figures[index]


def codes(document, taken, level):
    figures = figures_of(document, taken)
    return {n.code for n in (*figures[CUTS].notes, *figures[CLEAR].notes) if n.level == level}


def changed(document, name, **facts):
    """The plan with a cut changed, by its name."""
    cuts = tuple(replace(c, **facts) if c.name == name else c for c in document.setups[0].cuts)
    return replace(document, setups=(replace(document.setups[0], cuts=cuts),))


@pytest.fixture(scope="module")
def thread_first():
    """The bush by the school that threads first, with inserts of a partial profile, settled."""
    taken = partial(shelf())
    return settle_setup(proposed(bush(rules=Rules(thread_relief="thread")), taken), taken, 0).document, taken


def test_groove_first_threads_into_the_relief_and_springs():
    cuts = of_thread(cuts_of(bush()))
    assert [(c.name, c.kind, c.cleans) for c in cuts] == [
        ("Groove Relief", "groove", False),
        ("Thread", "thread", False),
        ("Spring pass, Thread", "thread", True),
    ]
    assert cuts[1].tool == cuts[2].tool == THREADER


def test_thread_first_is_proposed_whole():
    cuts = of_thread(cuts_of(bush(rules=Rules(thread_relief="thread")), partial(shelf())))
    assert [(c.name, c.kind, c.cleans) for c in cuts] == [
        ("Thread", "thread", False),
        ("Groove Relief", "groove", False),
        ("Turn again, Thread", "turn", True),
        ("Break edges, Thread", "groove", True),
        ("Spring pass, Thread", "thread", True),
    ]
    again, edges = cuts[2:4]
    assert (again.from_diameter_mm, again.to_diameter_mm, again.depth_mm) == (24.2, 24.0, 0.1)
    assert (edges.from_diameter_mm, edges.to_diameter_mm, edges.start_mm, edges.length_mm) == (24.0, 23.4, 0.0, 16.0)
    assert edges.tool == cuts[1].tool == GROOVER
    assert sequence_notes([Work(c.name, c.kind, c.stage, c.inside, c.cleans) for c in cuts]) == []


def test_an_insert_that_cuts_the_crest_needs_no_turning_again():
    names = [c.name for c in cuts_of(bush(rules=Rules(thread_relief="thread")))]
    assert "Turn again, Thread" not in names
    assert "Break edges, Thread" in names


def test_inside_it_is_bored_again_and_threaded_again():
    inside = (TurnedStep("Nut", 30.0, 20.0, thread="M30x2-6H"), TurnedStep("Bore", 26.0, fit="H9"))
    names = [c.name for c in of_thread(cuts_of(plan(inside=inside), partial(shelf())))]
    assert names == ["Thread Nut", "Bore again, Thread Nut", "Spring pass, Thread Nut"]


def test_no_cut_that_cleans_up_is_said_to_cut_nothing(thread_first):
    document, taken = thread_first
    assert codes(document, taken, "stop") == set()
    assert not codes(document, taken, "caution") & {"cuts-nothing", "cuts-air", "cleans-nothing", "springs-alone"}


def test_their_time_by_hand(thread_first):
    document, taken = thread_first
    found = {c.name: c for c in figures_of(document, taken)[CUTS].cuts}
    thread, spring = found["Thread"], found["Spring pass, Thread"]
    # (14 + 3 · 1.5) / (1.5 · n), once.
    assert spring.minutes == pytest.approx(18.5 / (1.5 * spring.result.rpm))
    assert (spring.passes, thread.passes) == (1, thread.planned.passes)
    assert thread.minutes == pytest.approx(thread.planned.passes * spring.minutes)
    edges = found["Break edges, Thread"].planned
    # Two plunges of 0.3 mm; the speed is the clamp's at this diameter or what the surface speed gives, by the mean.
    n = min(edges.clamp_rpm, 1000 * edges.speed_m_min / (3.14159265 * 24.0))
    most = min(edges.clamp_rpm, 1000 * edges.speed_m_min / (3.14159265 * 23.4))
    assert 2 * 0.3 / (edges.feed_mm_rev * most) <= found["Break edges, Thread"].minutes * 1.0001
    assert found["Break edges, Thread"].minutes <= 2 * 0.3 / (edges.feed_mm_rev * n) * 1.0001


def test_breaking_an_edge_loads_as_much_of_the_blade_as_it_breaks(thread_first):
    document, taken = thread_first
    found = {c.name: c for c in figures_of(document, taken)[CUTS].cuts}
    edges, groove = found["Break edges, Thread"], found["Groove Relief"]
    per_mm = groove.tangential_n / 3.0 / groove.planned.feed_mm_rev ** (1 - 0.14)
    assert edges.tangential_n == pytest.approx(0.3 * per_mm * edges.planned.feed_mm_rev ** (1 - 0.14), rel=1e-6)


def test_a_spring_pass_is_settled_at_its_threads_speed(thread_first):
    document, _ = thread_first
    by = {c.name: c for c in document.setups[0].cuts}
    thread, spring = by["Thread"], by["Spring pass, Thread"]
    assert (spring.speed_m_min, spring.clamp_rpm, spring.passes) == (
        thread.speed_m_min,
        thread.clamp_rpm,
        thread.passes,
    )


def test_a_spring_pass_at_another_speed_is_a_stop(thread_first):
    document, taken = thread_first
    slow = changed(document, "Spring pass, Thread", speed_m_min=40.0)
    assert "spring-speed" in codes(slow, taken, "stop")


def test_a_spring_pass_without_its_thread_is_told(thread_first):
    document, taken = thread_first
    cuts = tuple(c for c in document.setups[0].cuts if c.name != "Thread")
    alone = replace(document, setups=(replace(document.setups[0], cuts=cuts),))
    assert "springs-alone" in codes(alone, taken, "caution")


def test_cleaning_up_where_nothing_stands_is_told(thread_first):
    document, taken = thread_first
    off = changed(document, "Turn again, Thread", from_diameter_mm=30.2, to_diameter_mm=30.0)
    assert "cleans-nothing" in codes(off, taken, "caution")


def test_cleaning_up_into_metal_is_a_stop(thread_first):
    document, taken = thread_first
    # The collar of Ø34 stands there: five millimetres a side more than a burr.
    deep = changed(document, "Turn again, Thread", start_mm=19.0, length_mm=6.0)
    assert {"meets-more", "under-the-print"} & codes(deep, taken, "stop")


@pytest.mark.parametrize(
    ("works", "code"),
    [
        ([("Spring", "thread", True), ("Thread", "thread", False)], "cleans-early"),
        ([("Thread", "thread", False), ("Spring", "thread", True), ("Again", "turn", True)], "spring-early"),
        ([("Thread", "thread", False), ("Spring", "thread", True), ("Relief", "groove", False)], "cleans-early"),
        ([("Thread", "thread", False), ("Again", "turn", True), ("Spring", "thread", True)], None),
        ([("Part off", "part", False), ("Spring", "thread", True)], "part-off-first"),
    ],
)
def test_their_order_is_checked_in_words(works, code):
    notes = sequence_notes([Work(name, kind, "finish", False, cleans) for name, kind, cleans in works])
    assert [n.code for n in notes] == ([code] if code else [])


def test_only_some_kinds_clean_up():
    with pytest.raises(CalcError) as refused:
        PlannedCut("Drill", "drill", 0.0, 10.0, cleans=True)
    assert refused.value.errors[0].field == "cleans"
