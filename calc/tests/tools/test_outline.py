"""The drawn insert: it touches its inscribed circle and keeps its corner radius."""

import math

import pytest

from calc.tools.insert_code import InsertCodeInput, insert_code
from calc.tools.outline import outline


@pytest.mark.parametrize(
    "code",
    [
        "CNMG 120408",
        "SNMG 120412",
        "TNMG 160404",
        "DNMG 150608",
        "VNMG 160408",
        "WNMG 080408",
        "RCMT 1204M0",
        "HNMG 070404",
    ],
)
def test_it_touches_its_circle_everywhere_and_nowhere_goes_inside(code):
    decoded = insert_code(InsertCodeInput(code))
    points = outline(decoded)
    r = decoded.ic_mm / 2
    nearest = min(_distance(points[i - 1], points[i]) for i in range(len(points)))
    assert nearest == pytest.approx(r, rel=6e-3)


def _distance(a, b):
    """From the origin to the stretch between two points."""
    length = math.dist(a, b)
    if length == 0:
        return math.hypot(*a)
    t = max(0.0, min(1.0, -(a[0] * (b[0] - a[0]) + a[1] * (b[1] - a[1])) / length**2))
    return math.hypot(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]))


def test_the_corner_of_an_80_degree_rhombic_stands_where_geometry_says():
    # Sharp tip at r/sin 40; the arc of 0.8 takes 0.8 (1/sin 40 - 1) off it.
    points = outline(insert_code(InsertCodeInput("CNMG 120408")))
    tip = 6.35 / math.sin(math.radians(40)) - 0.8 * (1 / math.sin(math.radians(40)) - 1)
    assert max(x for x, _ in points) == pytest.approx(tip, abs=1e-6)
