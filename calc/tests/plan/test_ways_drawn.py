"""What the pictures show of collets, flats and a second spindle, against the core's own figures."""

from dataclasses import replace
from math import cos, hypot, pi, sqrt

import pytest

from calc.plan.compute import compute
from calc.plan.cuts.at_work import at_work
from calc.plan.cuts.clear import CLEAR
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.front import collet_front, front
from calc.plan.scenes import section
from calc.tests.plan.test_ways_to_hold import HARD, changed, plan


def shapes(scene, begins):
    return [s for s in scene.shapes if s.name.startswith(begins)]


def test_a_hexagon_lies_with_a_flat_against_each_of_three_jaws():
    facts = [("part.stock.section", "hexagon")]
    document, shelf = changed("centre", *facts, first={"blank": HARD, "blanks": (HARD,)})
    hold = compute(document, shelf).figures[0][HOLD]
    scene = front(hold)
    (piece,) = shapes(scene, "piece")
    assert len(piece.points) == 6
    assert {round(hypot(x, y), 6) for x, y in piece.points} == {round(90 / sqrt(3), 6)}
    top = max(y for _, y in piece.points)
    assert top == pytest.approx(45.0)  # half of what it is across its flats, against the upright jaw
    assert [s.name for s in scene.shapes if s.name.startswith("jaw")] == ["jaw-0", "jaw-1", "jaw-2"]
    assert shapes(scene, "unbored") == []
    assert min(y for s in shapes(scene, "jaw-0") for _, y in s.points) == pytest.approx(45.0)


@pytest.mark.parametrize(("name", "corners"), [("collet", 1.0), ("hexagon", 1 / cos(pi / 6))])
def test_a_collet_is_drawn_with_its_segments_round_what_it_holds(name, corners):
    run = plan(name)
    hold = compute(run.document, run.shelf).figures[0][HOLD]
    scene = collet_front(hold)
    assert len(shapes(scene, "segment")) == hold.chuck.jaws
    (piece,) = shapes(scene, "piece")
    assert max(hypot(x, y) for x, y in piece.points) == pytest.approx(corners * hold.grip.diameter_mm / 2)
    nose = hold.chuck.nose_mm / 2
    assert all(hypot(x, y) < nose for s in shapes(scene, "segment") for x, y in s.points)


def test_the_collet_bears_as_long_as_is_told_and_its_nose_stands_out_by_its_length():
    run = plan("collet")
    result = compute(run.document, run.shelf)
    hold, scene = result.figures[0][HOLD], section(result.views[0])
    (collet,) = [s for s in scene.shapes if s.name == "collet"]
    along = [x for x, _ in collet.points]
    assert max(along) - min(along) == pytest.approx(hold.collet.bearing_mm)
    assert min(r for _, r in collet.points) == pytest.approx(18.0)
    dimension = next(d for d in scene.dimensions if d.name == "stick-out")
    assert dimension.figure.value == pytest.approx(hold.out_mm)


def test_the_second_spindle_is_drawn_only_where_it_holds_the_piece_and_as_near_as_is_told():
    run = plan("collet")
    result = compute(run.document, run.shelf)
    scene = at_work(result.views[0])
    second = shapes(scene, "second")
    parting = next(c for c in run.document.setups[0].cuts if c.kind == "part")
    assert second and {s.group for s in second} == {parting.id}
    near = result.figures[0][CLEAR].nearest[parting.id]
    assert near.what.endswith("of the second spindle")
    line = next(s for s in scene.shapes if s.name == f"clear-{parting.id}")
    (x0, y0), (x1, y1) = line.points
    assert hypot(x1 - x0, y1 - y0) == pytest.approx(near.distance_mm)
    alone = replace(run.shelf.setups[1], chuck=replace(run.shelf.setups[1].chuck, spindle="main"))
    other = compute(run.document, replace(run.shelf, setups=(run.shelf.setups[0], alone)))
    assert shapes(at_work(other.views[0]), "second") == []
