"""The picture of a cut at its end, against the core's own figures and against geometry by hand."""

from math import atan2, degrees, hypot

import pytest
from shapely import Polygon

from calc.plan.cuts.at_work import at_work, insert_at, slide_of
from calc.plan.cuts.carried import CARRIED
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.taken import RUN_IN_MM
from calc.tests.plan.test_refused import computed
from calc.tests.tools.shelf import starting_library

PLANS = ("twin-spigot", "twin-bush", "twin-wear-ring", "twin-kept", "spigot-80")
LIB = starting_library()
VIEWS = [(plan, view) for plan in PLANS for view in computed(plan).views]


@pytest.mark.parametrize(("plan", "view"), VIEWS, ids=[f"{p} {v.index + 1}" for p, v in VIEWS])
class TestPicture:
    def test_the_smallest_clearance_is_as_long_as_it_is_said_to_be(self, plan, view):
        scene, nearest = at_work(view), view[CLEAR].nearest
        lines = {s.group: s for s in scene.shapes if s.role in ("gap", "danger")}
        assert lines
        for cut, line in lines.items():
            (x0, y0), (x1, y1) = line.points
            assert hypot(x1 - x0, y1 - y0) == pytest.approx(nearest[cut].distance_mm, abs=1e-9)
            assert (line.role == "danger") == (nearest[cut].distance_mm < 1.0 - 1e-6)

    def test_each_cut_shows_what_it_took_and_what_it_leaves(self, plan, view):
        """The areas drawn under a cut's id are those of the metal, as far as the picture goes."""
        scene = at_work(view)
        for left in view[CARRIED].cuts:
            mine = [s for s in scene.shapes if s.group == left.cut.id]
            took = sum(Polygon(s.points).area for s in mine if s.name.startswith("taken"))
            assert took == pytest.approx(left.taken.area, rel=1e-6, abs=1e-6)
            assert any(s.role == "tool" for s in mine)
            leaves = sum(Polygon(s.points).area for s in mine if s.name.startswith("stock"))
            assert 0 < leaves <= left.stock.area * (1 + 1e-9)

    def test_every_tool_slides_back_to_where_its_cut_begins(self, plan, view):
        scene = at_work(view)
        for left in view[CARRIED].cuts:
            cut, (dx, dy) = left.cut, slide_of(left.cut)
            if cut.kind in ("face", "groove", "part"):
                assert (dx, cut.after / 2 + dy) == (0.0, cut.before / 2)
            else:
                assert cut.end - dx == max(cut.begin, -RUN_IN_MM)
            moving = [s for s in scene.shapes if s.group == cut.id and s.role in ("tool", "insert")]
            assert all(s.slides == (dx, dy) for s in moving)


@pytest.mark.parametrize(
    ("key", "approach", "inside"),
    [
        ("cnmg120412-rough-steel/cn1204-out-25", 95.0, False),
        ("cnmg120412-rough-steel/cn1204-out-25", 75.0, False),
        ("ccmt09t308-medium-stainless/cc09t3-out-25", 95.0, True),
    ],
)
def test_an_insert_stands_with_its_corner_where_the_cut_ends(key, approach, inside):
    """Its corner touches the surface that is made, and farther forward nothing but an edge that leans forward does;
    its main edge stands at the approach angle to the feed, the next one the corner's angle behind it.
    """
    tool = LIB.tool(key)
    sign = -1 if inside else 1
    points = [(z, sign * r) for z, r in insert_at(tool, approach, inside)]
    code = tool.edge.decoded
    assert min(r for _, r in points) == pytest.approx(0.0, abs=0.02)
    if approach >= 90:
        assert max(z for z, _ in points) == pytest.approx(0.0, abs=0.02)
    nose = (-code.corner_radius_mm, code.corner_radius_mm)
    assert min(abs(hypot(z - nose[0], r - nose[1]) - code.corner_radius_mm) for z, r in points) < 1e-6
    ways = set()
    for (z0, r0), (z1, r1) in zip(points, [*points[1:], points[0]], strict=True):
        if hypot(z1 - z0, r1 - r0) > 3:  # an edge, not the round of a corner
            ways.add(round(degrees(atan2(r1 - r0, z1 - z0)) % 180, 3))
    assert {round(approach, 3), round((approach + code.corner_deg) % 180, 3)} <= ways
