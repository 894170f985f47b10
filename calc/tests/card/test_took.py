"""What a set-up took, by hand from the times of its ticks."""

import pytest

from calc.card.step import Card, CardStep
from calc.card.took import PAUSE_MIN, task_of, took

TASKS = ("hold.0", "tools", "prove", "first")


def step(name, place, side=None):
    return CardStep(name, place, name, (), side)


CARD = Card(
    (),
    (),
    (
        step("s1.clean", "jaws", 0),
        step("s1.pressure", "hold", 0),
        step("tool.1", "tools"),
        step("s1.dry", "proving", 0),
        step("s1.first-off", "first piece", 0),
        step("s2.size", "jaws", 1),
    ),
    (),
)


def ticks(*found):
    return [(name, 60.0 * minute) for name, minute in found]


def test_a_step_takes_what_lies_between_its_tick_and_the_one_before():
    # Clean at minute 100, pressure 4 later, the tool 6 after that, dry 10, first piece 15.
    found = took(
        CARD,
        ticks(("s1.clean", 100), ("s1.pressure", 104), ("tool.1", 110), ("s1.dry", 120), ("s1.first-off", 135)),
        TASKS,
    )
    assert [s.minutes for s in found.steps] == [None, 4.0, 6.0, 10.0, 15.0]
    assert [found.minutes(t) for t in TASKS] == [4.0, 6.0, 10.0, 15.0]
    assert found.paused_min == 0.0


def test_the_order_in_which_ticks_come_does_not_matter():
    there = ticks(("s1.clean", 100), ("s1.pressure", 104), ("tool.1", 110))
    assert took(CARD, there, TASKS) == took(CARD, there[::-1], TASKS)


def test_whoever_ticks_nothing_for_an_hour_has_gone_to_something_else():
    # The evening before, then the morning after: 14 h lie between them.
    found = took(CARD, ticks(("s1.clean", 0), ("s1.pressure", 5), ("tool.1", 5 + 840), ("s1.dry", 5 + 850)), TASKS)
    assert [s.minutes for s in found.steps] == [None, 5.0, None, 10.0]
    assert found.paused_min == 840.0
    assert found.minutes("tools") is None
    just = took(CARD, ticks(("s1.clean", 0), ("tool.1", PAUSE_MIN)), TASKS)
    assert just.minutes("tools") == PAUSE_MIN


def test_what_is_ticked_again_adds_to_its_step():
    found = took(CARD, ticks(("s1.clean", 0), ("tool.1", 3), ("s1.dry", 10), ("tool.1", 12)), TASKS)
    assert found.minutes("tools") == pytest.approx(3 + 2)
    assert found.minutes("prove") == 7.0


def test_jaws_that_come_with_the_first_side_count_to_it():
    assert task_of(CARD.steps[-1], TASKS) == "hold.0"
    assert task_of(CARD.steps[-1], (*TASKS, "hold.1")) == "hold.1"


def test_nothing_ticked_takes_nothing():
    found = took(CARD, [], TASKS)
    assert (found.steps, found.paused_min, found.minutes("tools")) == ((), 0.0, None)
    assert took(CARD, ticks(("gone", 3)), TASKS).steps == ()  # a step that the card has no more
