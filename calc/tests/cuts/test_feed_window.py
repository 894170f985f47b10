"""Three schools of feed."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from calc.cuts.feed_window import Breaker, FeedWindowInput, feed_window, finish_feed

BREAKER = Breaker(0.15, 0.4, 0.5, 4)


def test_the_worked_examples():
    one = feed_window(FeedWindowInput(0.8, ra_um=3.2, breaker=BREAKER))
    assert (round(one.feed_min_mm_rev, 4), round(one.feed_max_mm_rev, 4), one.bound_by) == (0.2667, 0.2825, "finish")
    two = feed_window(FeedWindowInput(0.8, ra_um=1.6, breaker=BREAKER, depth_mm=2))
    assert (round(two.feed_min_mm_rev, 4), round(two.feed_max_mm_rev, 4)) == (0.2667, 0.1998)
    assert two.chip_breaks is False
    assert "feed-conflict" in {n.code for n in two.notes}


@pytest.mark.parametrize(("depth", "breaks"), [(0.79, False), (0.8, True), (4.0, True), (4.01, False), (None, None)])
def test_the_chip_breaks_from_the_corner_to_the_end_of_the_window(depth, breaks):
    assert feed_window(FeedWindowInput(0.8, depth_mm=depth, breaker=BREAKER)).chip_breaks is breaks


def test_without_a_window_a_deep_cut_says_nothing_of_its_chip():
    assert feed_window(FeedWindowInput(0.8, depth_mm=2)).chip_breaks is None
    assert feed_window(FeedWindowInput(0.8, depth_mm=0.4)).chip_breaks is False


def test_each_school_can_bind():
    assert feed_window(FeedWindowInput(0.4, breaker=BREAKER)).bound_by == "radius"
    assert feed_window(FeedWindowInput(1.6, breaker=BREAKER)).bound_by == "breaker"
    assert feed_window(FeedWindowInput(0.8, ra_um=0.8, breaker=BREAKER)).bound_by == "finish"


def test_a_wiper_may_leave_twice_the_roughness():
    assert finish_feed(1.6, 0.8, wiper=True) == pytest.approx(finish_feed(3.2, 0.8))


@given(st.floats(0.1, 3), st.floats(0.2, 12))
def test_the_finish_is_met_exactly_at_its_feed(radius, ra):
    f = finish_feed(ra, radius)
    assert 1000 * f**2 / (18 * 3**0.5 * radius) == pytest.approx(ra)


@given(st.floats(0.1, 3), st.floats(0.2, 12), st.floats(0.02, 0.3), st.floats(0.31, 1))
def test_the_overlap_is_inside_every_school(radius, ra, low, high):
    found = feed_window(FeedWindowInput(radius, ra_um=ra, breaker=Breaker(low, high, 0.1, 9)))
    assume(found.feed_min_mm_rev <= found.feed_max_mm_rev)
    for school in (found.schools.radius, found.schools.finish, found.schools.breaker):
        if school.feed_min_mm_rev is not None:
            assert school.feed_min_mm_rev <= found.feed_min_mm_rev
        assert found.feed_max_mm_rev <= school.feed_max_mm_rev
