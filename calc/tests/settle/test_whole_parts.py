"""Parts that stand nowhere else, proposed and settled whole, and looked at as a setter would before the chuck."""

from dataclasses import replace
from functools import cache
from math import pi, sqrt

import pytest

from calc.errors import CalcError
from calc.plan.compute import compute
from calc.plan.cuts.clear import CLEAR
from calc.plan.force.solve import FORCE
from calc.plan.part.solve import PART
from calc.plan.run_file import read_run
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.profile.lines import read_line
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.settle.setup import settle_setup
from calc.tests.plan.test_refused import FILES

PARTS = {
    "hub": (("70 x 24", "110 h9 x 22"), ("30 H8 x 46",), 115.0),
    "sleeve": (("90 x 30", "105 x 20"), ("60 H7 x 50",), 110.0),
}
TO_THE_JAW = (("90 x 30", "112 x 12"), ("80 H8 x 42",), 115.0)  # its step ends at the face of the jaws that hold it


def steps(lines, letter):
    return tuple(replace(read_line(line, "metric", line), id=f"{letter}{i}") for i, line in enumerate(lines, 1))


def whole(outside, inside, stock_mm):
    """The plan of a part in the jaws of a seal carrier, a set for each side, no cut written."""
    run = read_run((FILES / "twin-spigot.json").read_text(encoding="utf-8"))
    shelf = replace(run.shelf, setups=(replace(run.shelf.setups[0], jaw_set=None),) * 2)
    document, part = run.document, run.document.part
    stock = replace(part.stock, diameter_mm=stock_mm, largest_mm=stock_mm + 0.3, smallest_mm=stock_mm - 0.3)
    profile = replace(part.profile, outside=steps(outside, "o"), inside=steps(inside, "i"))
    setups = tuple(
        replace(s, cuts=(), clamp_rpm=None, hold=replace(s.hold, depth_mm=None, grip="" if i else "stock"))
        for i, s in enumerate(document.setups)
    )
    sides = replace(document.sides, two_step=False, first_end="proposed")
    return replace(document, part=replace(part, profile=profile, stock=stock), sides=sides, setups=setups), shelf


def settled(outside, inside, stock_mm):
    document, shelf = whole(outside, inside, stock_mm)
    for index in range(2):
        figures = solve(document, shelf, index)
        cuts = propose(side_of(document, figures[PART], figures[SIDES].first, index, shelf.tools))
        setups = tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
        document = settle_setup(replace(document, setups=setups), shelf, index).document
    return document, shelf


@cache
def part_of(name):
    return settled(*PARTS[name])


@pytest.mark.parametrize("name", PARTS)
def test_a_part_is_settled_from_its_print_alone(name):
    document, shelf = part_of(name)
    assert [(s.key, n.code) for s in compute(document, shelf).stops for n in s.notes if n.level == "stop"] == []


@pytest.mark.parametrize("index", [0, 1])
@pytest.mark.parametrize("name", PARTS)
def test_a_setter_would_stand_beside_it(name, index):
    """By hand: speed from the clamp, a third of the grip kept, the corner held, the tool a millimetre off."""
    document, shelf = part_of(name)
    figures, clear = solve(document, shelf, index)[FORCE], solve(document, shelf, index)[CLEAR]
    for load in figures.loads:
        cut = load.cut.planned
        slim = max(1e-6, min(cut.from_diameter_mm, cut.to_diameter_mm) or 0.0)
        if cut.kind == "drill":
            slim = cut.to_diameter_mm
        by_hand = min(cut.clamp_rpm or document.setups[index].clamp_rpm, cut.speed_m_min * 1000 / (pi * slim))
        assert load.top_rpm == pytest.approx(by_hand, rel=0.01)
        left = figures.grip.grip_n - figures.loss * load.top_rpm**2
        assert left >= figures.grip.grip_n / 3 * 0.999
        assert left >= load.needed_n * 0.999
        assert load.held_corner >= 0.999
        assert clear.nearest[cut.id].distance_mm >= 1.0 - 1e-6


@pytest.mark.parametrize("name", PARTS)
def test_a_finishing_cut_without_a_finish_on_the_print_leaves_a_turned_surface(name):
    """Ra 3.2 of arcs side by side: f² = 18·√3·r·Ra."""
    document, _ = part_of(name)
    finishing = [c for s in document.setups for c in s.cuts if c.stage == "finish" and c.by_depth]
    assert finishing
    for cut in finishing:
        assert cut.feed_mm_rev <= sqrt(18 * sqrt(3) * cut.corner_radius_mm * 0.0032) * 1.001


def test_a_step_that_ends_at_the_jaws_is_refused_with_the_place():
    with pytest.raises(CalcError, match="runs into the jaws: it goes to 30"):
        settled(*TO_THE_JAW)
