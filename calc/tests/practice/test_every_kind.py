"""Every kind over 500 seeds: one right answer, which the same seed gives again, told in both unit systems and not by
what is shown before it.
"""

import re

import pytest

from calc.errors import CalcError
from calc.illustrated.graph import Graph
from calc.practice.exercise import Choice, grade
from calc.practice.kinds import GROUPS, KINDS
from calc.practice.said import exercise_said, grade_said
from calc.quantities import Sentence, from_core, shown_as
from calc.scene.shapes import Scene

SEEDS = 500
EVERY = list(KINDS.values())


def exercises(kind):
    """So many of a kind, its levels one after another."""
    for seed in range(SEEDS):
        level = 1 + seed % kind.levels
        yield seed, level, kind.exercise(seed, level)


def typed(answer, value, system):
    """A figure as somebody writes it, with all its digits."""
    return repr(from_core(value, answer.unit, shown_as(answer.unit, system)))


def test_kinds_stand_in_the_order_of_the_work():
    order = [key for key, _ in GROUPS]
    places = [order.index(k.group) for k in EVERY]
    assert places == sorted(places)
    assert len(EVERY) >= 20


@pytest.mark.parametrize("kind", EVERY, ids=lambda k: k.name)
def test_one_answer_is_right_and_the_others_are_wrong_with_their_reason(kind):
    seen = set()
    for seed, level, one in exercises(kind):
        if isinstance(one.answer, Choice):
            options = one.answer.options
            assert [o.verdict for o in options].count("right") == 1, (seed, level)
            assert 2 <= len(options) <= 6
            for system in ("metric", "inch"):
                words = [o.words.text(system) for o in options]
                assert len(set(words)) == len(words), (seed, level, system)
                assert all(o.why.text(system) for o in options), (seed, level)
            assert "close" not in [o.verdict for o in options]
            for o in options:
                found = grade(one, o.key, "metric")
                assert (found.verdict == "dangerous") == (found.machine is not None)
            seen.add(one.answer.right.key)
        else:
            asked = one.answer
            assert 0 < asked.right_within < asked.close_within
            assert asked.danger is None or asked.dangers.text()
            assert grade(one, typed(asked, asked.value, "metric"), "metric").verdict == "right"
            seen.add(round(asked.value, 4))
    assert len(seen) > 1  # the answer is not always the same


@pytest.mark.parametrize("kind", EVERY, ids=lambda k: k.name)
def test_the_same_seed_is_the_same_exercise_and_another_is_another(kind):
    told = [exercise_said(kind.exercise(seed, 1), "metric") for seed in range(40)]
    assert told == [exercise_said(kind.exercise(seed, 1), "metric") for seed in range(40)]
    assert len({str(t) for t in told}) > 5


@pytest.mark.parametrize("kind", EVERY, ids=lambda k: k.name)
def test_a_figure_is_graded_at_its_bounds_in_either_unit(kind):
    for seed, _, one in exercises(kind):
        if isinstance(one.answer, Choice) or seed >= 60:
            continue
        asked = one.answer
        steps = (0.999, "right"), (1.001, "close")
        for system in ("metric", "inch"):
            for sign in (-1, 1):
                for times, verdict in steps:
                    value = asked.value + sign * times * asked.right_within
                    assert grade(one, typed(asked, value, system), system).verdict == verdict
                beyond = asked.value + sign * 1.001 * asked.close_within
                side = "above" if sign > 0 else "below"
                wanted = "dangerous" if asked.danger == side else "wrong"
                found = grade(one, typed(asked, beyond, system), system)
                assert found.verdict == wanted
                assert (found.machine is not None) == (wanted == "dangerous")


@pytest.mark.parametrize("kind", EVERY, ids=lambda k: k.name)
def test_what_is_shown_first_does_not_tell_the_answer(kind):
    """A question that is sent has no verdict, no reason and no working; a picture's words do not say the answer."""
    for seed, level, one in exercises(kind):
        if seed >= 60:
            break
        said = exercise_said(one, "metric")
        assert not {"verdict", "why", "working", "rule"} & set(vars(said))
        words = picture_words(one.picture)
        if isinstance(one.answer, Choice):
            right = one.answer.right.words.text()
            assert right not in words, (seed, level)
        elif words:
            figure = one.answer.figure.number()
            assert not re.search(rf"(?<![\d.]){re.escape(figure)}(?![\d.])", words), (seed, level)


def picture_words(picture):
    match picture:
        case Scene():
            return " ".join(w.text() for w in picture.words)
        case Graph():
            return picture.words.text()
    return ""


@pytest.mark.parametrize("kind", EVERY, ids=lambda k: k.name)
def test_a_grade_says_what_is_right_the_rule_and_why_in_both_systems(kind):
    one = kind.exercise(7, kind.levels)
    given = one.answer.options[0].key if isinstance(one.answer, Choice) else "1"
    for system in ("metric", "inch"):
        said = grade_said(one, grade(one, given, system), system)
        assert said.right
        assert len(said.rule) > 30
        assert said.verdict in ("right", "close", "wrong", "dangerous")


@pytest.mark.parametrize("given", ["", "  ", "a lot", None, True, ["1"]])
def test_what_is_no_answer_is_told_at_its_field(given):
    for name in ("grip-left", "ring"):
        with pytest.raises(CalcError) as told:
            grade(KINDS[name].exercise(1, 1), given, "metric")
        assert [e.field for e in told.value.errors] == ["given"]


def test_a_level_that_a_kind_has_not_is_its_nearest():
    kind = KINDS["jaws-close"]
    assert exercise_said(kind.exercise(3, 9), "metric") == exercise_said(kind.exercise(3, 1), "metric")
    assert isinstance(kind.exercise(3, 0).ask, Sentence)
