"""What an edge's finish came to, as it is written on its page, and one more reading."""

import pytest

from calc.tools.finish import finish_learnt, finish_problems, finish_seen


def test_it_is_read_by_material():
    seen = finish_seen("c45 1.2 of 3; duplex-1-4462 0.9")
    assert {m: (s.ratio, s.readings) for m, s in seen.items()} == {"c45": (1.2, 3), "duplex-1-4462": (0.9, 1)}
    assert finish_seen("") == {}


@pytest.mark.parametrize("text", ["c45", "1.2", "c45 much", "c45 0.1 of 2", "c45 9 of 2", "C45 1.2", "c45 1.2 of many"])
def test_what_cannot_be_read_is_told_and_counts_for_nothing(text):
    (problem,) = finish_problems(f"steel 1.1 of 2; {text}")
    assert problem.field == "finish" and "such as c45 1.2 of 3" in str(problem.message)
    assert set(finish_seen(f"steel 1.1 of 2; {text}")) == {"steel"}


@pytest.mark.parametrize(
    ("text", "ratio", "then"),
    [
        ("", 1.4, "c45 1.4 of 1"),
        ("c45 1.2 of 3", 1.6, "c45 1.3 of 4"),  # (3 · 1.2 + 1.6)/4
        ("c45 1 of 100", 2.0, "c45 1.1 of 101"),  # (9 · 1 + 2)/10: a hundred of old do not outweigh what is now
        ("brass 0.8 of 2", 1.4, "brass 0.8 of 2; c45 1.4 of 1"),
        ("c45 1.2 of 3", 7.0, "c45 1.2 of 3"),  # something else left that surface
    ],
)
def test_one_more_reading(text, ratio, then):
    assert finish_learnt(text, "c45", ratio) == then
    assert not list(finish_problems(then))
