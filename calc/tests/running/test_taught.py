"""What a lot teaches its plan: only what it saw enough of, and only while the plan still does it so."""

from dataclasses import replace

from calc.running.edges import clock_of
from calc.running.pace import Pace
from calc.running.story import Change, Story
from calc.running.taught import TEACHES_FROM, pace_taught, taught
from calc.tests.card.test_steps import computed
from calc.tests.running.lots import lot_of

LOT, PLAN = lot_of("flange"), computed("flange").views[0].document
EDGE = next(e for e in LOT.edges if e.key == "main.3")
SETUP, CUT = EDGE.keys[0].split(".")
WORN = [Change("main.3", "edge", after, why="worn") for after in (29, 55, 86)]


def clock(changes=tuple(WORN)):
    return clock_of(EDGE, Story(90, 88, tuple(changes), {}))


def changed(**facts):
    setups = tuple(
        replace(s, cuts=tuple(replace(c, **facts) if (s.id, c.id) == (SETUP, CUT) else c for c in s.cuts))
        for s in PLAN.setups
    )
    return replace(PLAN, setups=setups)


def test_the_low_middle_of_edges_that_were_done_is_offered_at_its_cut():
    """29, 26 and 31 pieces: the middle is 29."""
    (found,) = taught([clock()], PLAN, PLAN)
    assert (found.path, found.value) == (f"setups.{SETUP}.cuts.{CUT}.lasted_pieces", 29)
    assert "29 pieces: the middle of 3 edges, by the plan 67." in found.words.text()


def test_edges_that_were_only_due_and_fewer_than_three_teach_nothing():
    assert not list(taught([clock(WORN[:2])], PLAN, PLAN))
    assert not list(taught([clock([replace(c, why="due") for c in WORN])], PLAN, PLAN))


def test_what_the_plan_cuts_otherwise_now_or_counts_already_is_not_offered():
    assert not list(taught([clock()], PLAN, changed(feed_mm_rev=0.05)))
    assert not list(taught([clock()], PLAN, changed(lasted_pieces=29)))
    assert list(taught([clock()], PLAN, changed(name="another name", station=9, lasted_pieces=31)))
    without = replace(PLAN, setups=tuple(replace(s, cuts=()) for s in PLAN.setups))
    assert not list(taught([clock()], PLAN, without))


def test_the_pace_of_all_lots_is_offered_from_twenty_pieces_on():
    seen, few = Pace(2.0, True, 30.0, None, 0.0), Pace(2.0, False, 30.0, None, 0.0)
    found = pace_taught([(seen, TEACHES_FROM), (seen, 40)], PLAN, PLAN)
    assert (found.path, found.value) == ("route.seen_s", 240.0)
    assert pace_taught([(seen, TEACHES_FROM - 1)], PLAN, PLAN) is None
    assert pace_taught([(seen, 40), (few, 40)], PLAN, PLAN) is None
    assert pace_taught([(seen, 40)], PLAN, changed(feed_mm_rev=0.05)) is None
    again = replace(PLAN, route=replace(PLAN.route, seen_s=240.0))
    assert pace_taught([(seen, 40), (seen, 40)], PLAN, again) is None
    assert pace_taught([], PLAN, PLAN) is None
