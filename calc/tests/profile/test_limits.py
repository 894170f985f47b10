"""Tolerance classes: published limits of ISO 286-2, and the formulas behind the published grades."""

from __future__ import annotations

import itertools

import pytest

from calc.errors import CalcError
from calc.profile.limits import class_limits, grade_um

# (size, class, upper, lower) in µm as published in ISO 286-2.
PUBLISHED = [
    (84, "h7", 0, -35),
    (52, "H7", 30, 0),
    (14, "H7", 18, 0),
    (148, "H7", 40, 0),
    (40, "g6", -9, -25),
    (40, "f7", -25, -50),
    (25, "e8", -40, -73),
    (60, "d9", -100, -174),
    (3, "c11", -60, -120),
    (40, "k6", 18, 2),
    (40, "m6", 25, 9),
    (40, "n6", 33, 17),
    (40, "p6", 42, 26),
    (70, "r6", 62, 43),
    (55, "s6", 72, 53),
    (40, "js6", 8, -8),
    (40, "k8", 39, 0),
    (40, "K7", 7, -18),
    (40, "M7", 0, -25),
    (40, "N7", -8, -33),
    (40, "P7", -17, -42),
    (40, "K8", 12, -27),
    (40, "N9", 0, -62),
    (40, "P9", -26, -88),
    (40, "F8", 64, 25),
    (40, "G7", 34, 9),
    (40, "D10", 180, 80),
    (300, "M6", -9, -41),
    (3, "K7", 0, -10),
    (40, "JS7", 12.5, -12.5),
    (500, "h6", 0, -40),
    (120, "H8", 54, 0),
    (121, "H8", 63, 0),
    (10, "h9", 0, -36),
    (75, "R7", -32, -62),
    (40, "S7", -34, -59),
]


@pytest.mark.parametrize(("size", "name", "upper", "lower"), PUBLISHED)
def test_published_limits(size: float, name: str, upper: float, lower: float) -> None:
    low, high = class_limits(size, name)
    assert (low * 1000, high * 1000) == (pytest.approx(lower), pytest.approx(upper))


def test_grades_follow_the_standard_factor() -> None:
    """IT6 … IT11 are 10, 16, 25, 40, 64, 100 times i = 0.45·∛D + 0.001·D, rounded (ISO 286-1, annex)."""
    ends = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500]
    for low, high in itertools.pairwise(ends):
        mean = (low * high) ** 0.5
        i = 0.45 * mean ** (1 / 3) + 0.001 * mean
        for grade, times in ((6, 10), (7, 16), (8, 25), (9, 40), (10, 64), (11, 100)):
            assert grade_um(high, grade) == pytest.approx(times * i, rel=0.06, abs=0.7)
        for grade in range(6, 14):
            assert grade_um(high, grade + 5) == pytest.approx(10 * grade_um(high, grade), rel=0.07)


def test_every_grade_is_wider_than_the_finer_one() -> None:
    for size in (2, 5, 40, 300, 500):
        widths = [grade_um(size, n) for n in range(1, 19)]
        assert widths == sorted(widths) and len(set(widths)) == 18


@pytest.mark.parametrize("name", ["q7", "h19", "h0", "H", "7h", "Js6x", "hH7", "", "z9", "K9", "jS6"])
def test_unknown_classes_are_refused(name: str) -> None:
    with pytest.raises(CalcError, match="not a tolerance class"):
        class_limits(40, name)


def test_beyond_the_table_is_refused() -> None:
    with pytest.raises(CalcError, match="ends at"):
        class_limits(500.1, "h7")
