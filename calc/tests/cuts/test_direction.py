"""Spindle and feed against the hand of what cuts."""

import dataclasses

import pytest

from calc.cuts.direction import winds
from calc.tests.tools.test_choose import LIB, ROUGH
from calc.threads.designation import designation
from calc.tools.choose import why_not
from calc.tools.rules.all_rules import BOOKS


@pytest.mark.parametrize(
    ("turns", "feeds", "hand"),
    [("M03", "chuck", "right"), ("M03", "away", "left"), ("M04", "chuck", "left"), ("M04", "away", "right")],
)
def test_a_right_hand_screw_goes_in_with_m03(turns, feeds, hand):
    assert winds(turns, feeds) == hand


def test_a_thread_says_its_hand():
    assert [designation(t).hand for t in ("M16", "M16-LH", "3/4-16 UNF-2A LH")] == ["right", "left", "left"]


@pytest.mark.parametrize(("turns", "feeds"), [("M03", "chuck"), ("M03", "away"), ("M04", "chuck"), ("M04", "away")])
def test_a_holder_is_taken_where_its_hand_is_what_the_cut_winds(turns, feeds):
    key = "cnmg120412-rough-steel/cn1204-out-25"  # right-hand
    rejected = why_not(LIB, BOOKS["turn"], dataclasses.replace(ROUGH, turns=turns, feeds=feeds), key).rejected
    assert (rejected is None) == (turns + feeds in ("M03chuck", "M04away"))
    if rejected is not None:
        assert f"in {turns} needs left" in str(rejected)
