"""The clock of an edge: by the plan, by what edges lasted, with what the lot before wore off it."""

import pytest

from calc.running.edges import clock_of, clocks_of
from calc.running.lot import EdgeAt
from calc.running.story import Change, Story
from calc.tests.running.lots import lot_of

EDGE = EdgeAt("main.3", 3, "an insert", 27, 4, "insert", ("finish",), ("s1.c1",))


def story(counted, *changes, **more):
    return Story(counted, counted, tuple(Change("main.3", "edge", after, why=why) for after, why in changes), **more)


def test_by_the_plan_it_counts_down_and_stays_at_nothing():
    clock = clock_of(EDGE, story(18))
    assert (clock.on_it, clock.lasts, clock.learnt, clock.left) == (18, 27, False, 9)
    assert clock_of(EDGE, story(40)).left == 0


def test_a_change_begins_it_anew_and_two_at_once_are_one():
    clock = clock_of(EDGE, story(30, (20, "due"), (20, "other")))
    assert (clock.on_it, clock.left, clock.lived, clock.used) == (10, 17, ((20, "due"),), 2)


def test_three_edges_that_were_done_say_how_long_one_lasts():
    """29, 26 and 31 lasted: the middle one of three is 29."""
    clock = clock_of(EDGE, story(90, (29, "worn"), (55, "size"), (86, "broken")))
    assert (clock.lasts, clock.learnt, clock.left) == (29, True, 25)


def test_edges_changed_when_they_were_due_teach_nothing():
    clock = clock_of(EDGE, story(81, (27, "due"), (54, "due"), (81, "due")))
    assert (clock.lasts, clock.learnt) == (27, False)


def test_of_an_even_number_the_lower_middle_counts():
    clock = clock_of(EDGE, story(100, (20, "worn"), (44, "worn"), (70, "worn"), (100, "worn")))  # 20, 24, 26, 30
    assert clock.lasts == 24


def test_what_the_lot_before_wore_off_counts_until_it_is_changed():
    worn = story(3, carried={"main.3": 0.5})
    assert clock_of(EDGE, worn).left == 27 // 2 - 3  # 13.5 - 3, down
    fresh = story(13, (10, "worn"), carried={"main.3": 0.5})
    assert clock_of(EDGE, fresh).left == 24


@pytest.mark.parametrize("counted", [0, 1000])
def test_nobody_knows_how_long_an_edge_lasts_that_no_rule_tells_of(counted):
    unknown = EdgeAt("main.4", 4, "a threading insert", None, 3, "t", ("thread",), ("s1.c2",))
    assert clock_of(unknown, Story(counted, counted)).left is None


def test_the_one_that_is_due_first_stands_first():
    clocks = clocks_of(lot_of("flange"), Story(5, 5))
    left = [c.left for c in clocks if c.left is not None]
    assert left == sorted(left)
    assert clocks[0].left == 0  # the rougher does two pieces


@pytest.mark.parametrize(
    ("counted", "pieces", "needed"),
    [
        (18, 9, 0),  # this edge does them
        (18, 9 + 3 * 27, 0),  # and the three others of its insert 81 more
        (18, 9 + 3 * 27 + 1, 1),
        (18, 9 + 3 * 27 + 4 * 27 + 1, 2),
        (0, 0, 0),
    ],
)
def test_inserts_are_counted_by_their_edges(counted, pieces, needed):
    assert clock_of(EDGE, story(counted)).inserts_for(pieces) == needed


def test_edges_that_were_used_are_gone():
    """Four edges of 27 are used: the insert is, too. 27 more pieces after this edge take a fresh one."""
    clock = clock_of(EDGE, story(81, (27, "due"), (54, "due"), (81, "due")))
    assert (clock.used, clock.left) == (4, 27)
    assert [clock.inserts_for(n) for n in (27, 28, 27 + 4 * 27, 27 + 4 * 27 + 1)] == [0, 1, 1, 2]
