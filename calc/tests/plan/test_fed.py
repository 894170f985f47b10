"""A feed is held to its corner, to the print's finish and to what the insert's maker states."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.feed_window import Breaker, FeedWindowInput, feed_window
from calc.plan.compute import compute
from calc.plan.cuts.fed import feed_notes
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.paths import replaced
from calc.plan.run_file import read_run

FILES = Path(__file__).parent / "refused"
OF_FEED = ("feed-over-corner", "finish-missed", "feed-over-breaker", "feed-above-window")
BOX = Breaker(0.15, 0.4, 0.5, 4)
GRAVITY = {None: 0, "caution": 1, "stop": 2}


def said(feed, corner, ra=None, breaker=None):
    """Level and code of what is said of a turn's feed, and its words."""
    cut = PlannedCut("Turn", "turn", 50.0, 46.0, 200.0, feed_mm_rev=feed, depth_mm=2.0, corner_radius_mm=corner)
    window = feed_window(FeedWindowInput(corner, ra_um=ra, depth_mm=2.0, breaker=breaker))
    found = feed_notes(cut, window, ra)
    assert len(found) <= 1
    return (found[0].level, found[0].code, str(found[0].text)) if found else (None, None, "")


# By hand: 2r/3 of 0.8 is 0.533; √(18·√3·0.4·3.2/1000) = 0.1998, and √2 of it 0.2825; one and a half of 0.4 is 0.6.
@pytest.mark.parametrize(
    ("asked", "level", "code", "words"),
    [
        ((0.533, 0.8), None, None, ""),
        ((0.54, 0.8), "caution", "feed-above-window", "two thirds"),
        ((0.8, 0.8), "caution", "feed-above-window", "two thirds"),
        ((0.801, 0.8), "stop", "feed-over-corner", "0.80 mm"),
        ((0.199, 0.4, 3.2), None, None, ""),
        ((0.201, 0.4, 3.2), "caution", "feed-above-window", "finish"),
        ((0.282, 0.4, 3.2), "caution", "feed-above-window", "finish"),
        ((0.283, 0.4, 3.2), "stop", "finish-missed", "6.5 µm"),  # 3.2·(0.283/0.1998)² = 6.42, upward
        ((0.4, 1.2, None, BOX), None, None, ""),
        ((0.6, 1.2, None, BOX), "caution", "feed-above-window", "chip breaker"),
        ((0.61, 1.2, None, BOX), "stop", "feed-over-breaker", "0.4 mm/rev"),
    ],
)
def test_each_bound_is_told_from_where_it_begins(asked, level, code, words):
    found = said(*asked)
    assert found[:2] == (level, code)
    assert words in found[2].replace("\u00a0", " ")


@given(
    corner=st.floats(0.1, 2.4),
    ra=st.none() | st.floats(0.4, 12.5),
    breaker=st.none() | st.just(BOX),
    feed=st.floats(0.02, 1.6),
    more=st.floats(1, 3),
)
def test_more_feed_is_never_said_to_be_better(corner, ra, breaker, feed, more):
    less_said, more_said = said(feed, corner, ra, breaker), said(feed * more, corner, ra, breaker)
    assert GRAVITY[more_said[0]] >= GRAVITY[less_said[0]]
    if feed > corner * 1.001:
        assert less_said[0] == "stop"


@pytest.mark.parametrize("file", ["twin-collet", "twin-spigot", "twin-wear-ring", "twin-bush"])
def test_no_cut_of_a_settled_plan_may_be_fed_above_its_corner(file):
    run = read_run((FILES / f"{file}.json").read_text(encoding="utf-8"))
    before = compute(run.document, run.shelf)
    assert not [n.code for s in before.stops for n in s.notes if n.code in OF_FEED]
    for setup in run.document.setups:
        for cut in setup.cuts:
            if not cut.by_depth:
                continue
            fed = replaced(run.document, f"setups.{setup.id}.cuts.{cut.id}.feed_mm_rev", 1.25)
            result = compute(fed, run.shelf)
            assert result.verdict == "stopped"
            codes = {n.code for s in result.stops for n in s.notes if n.level == "stop"}
            assert codes & set(OF_FEED), (cut.name, codes)
