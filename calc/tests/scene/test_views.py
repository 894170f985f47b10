"""The views beside the section: what they draw is as large as the figures say."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import pytest

from calc.plan.compute import PlanResult
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.scene.shapes import Point, Scene, Shape
from calc.tests.plans import IN_TOOTH_0, PIE, TOOTHED, drawn, plan, ring_plan, shelf_with


def view(result: PlanResult, name: str) -> Scene:
    found: Scene = drawn(result, name)
    return found


def shapes(scene: Scene, start: str) -> list[Shape]:
    return [s for s in scene.shapes if s.name.startswith(start)]


def radii(points: tuple[Point, ...]) -> list[float]:
    return [math.hypot(x, y) for x, y in points]


def area(points: tuple[Point, ...]) -> float:
    """The shoelace formula."""
    around = zip(points, (*points[1:], points[0]), strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in around)) / 2


def toothed(**facts: object) -> PlanResult:
    return plan(shelf_with(chuck=TOOTHED, blank=IN_TOOTH_0, blanks=(IN_TOOTH_0,)), **facts)


# --- from the front -------------------------------------------------------------------------------


def test_three_jaws_stand_evenly_and_are_bored_to_the_piece() -> None:
    scene = view(toothed(), "front")
    jaws = shapes(scene, "jaw-")
    assert len(jaws) == 3
    for jaw in jaws:
        assert min(radii(jaw.points)) == pytest.approx(42.0)  # bored to Ø84
        assert area(jaw.points) == pytest.approx(area(jaws[0].points))
    middles = [math.atan2(sum(y for _, y in j.points), sum(x for x, _ in j.points)) for j in jaws]
    turns = sorted(math.degrees(m) % 360 for m in middles)
    assert [b - a for a, b in pairwise(turns)] == pytest.approx([120, 120])
    assert radii(shapes(scene, "piece")[0].points) == pytest.approx([42.0] * len(shapes(scene, "piece")[0].points))


def test_the_metal_to_take_is_the_blank_less_the_bored_jaw() -> None:
    scene = view(toothed(), "front")
    blank, jaw = shapes(scene, "unbored-0")[0], shapes(scene, "jaw-0")[0]
    assert area(blank.points) == pytest.approx(40 * 75)
    # A 40 wide strip from the face at 35 to the arc of 42: ∫(√(42² − x²) − 35) over ±20.
    cap = 20 * math.sqrt(42**2 - 400) + 42**2 * math.asin(20 / 42) - 35 * 40
    assert area(blank.points) - area(jaw.points) == pytest.approx(cap, rel=3e-3)  # the arc is drawn in chords


def test_neighbouring_teeth_and_the_t_nut_are_where_the_chuck_says() -> None:
    scene = view(toothed(), "front")
    teeth = {s.name: s.points[0][1] for s in shapes(scene, "tooth-")}
    assert teeth == {"tooth-8": 32.0, "tooth-9": 33.5, "tooth-11": 36.5, "tooth-12": 38.0}  # 20 + 1.5 a tooth
    inside = next(d for d in scene.dimensions if d.name == "tnut")
    assert inside.measured_mm == pytest.approx(105 - 60 - 15) == inside.figure.value


def test_pie_jaws_close_round_the_piece() -> None:
    scene = view(ring_plan(PIE), "front")
    jaws = shapes(scene, "jaw-")
    arcs = [[p for p in j.points if math.hypot(*p) == pytest.approx(74.0)] for j in jaws]
    for at in arcs:  # turned to Ø148, 118° each
        assert math.dist(at[0], at[-1]) == pytest.approx(2 * 74 * math.sin(math.radians(59)))


# --- travel ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("position", [0.0, 0.3, 0.5, 1.0])
def test_opening_and_closing_together_are_the_stroke_on_diameter(position: float) -> None:
    scene = view(plan(setups__s1__jaws__position=position), "travel")
    spans = {d.name: d.measured_mm / 10 for d in scene.dimensions}  # drawn ten times
    assert spans["opens"] + spans["closes"] == pytest.approx(2 * 5.5)
    assert spans["opens"] == pytest.approx(2 * 5.5 * position)


def test_the_spread_of_the_batch_is_drawn_where_it_is() -> None:
    scene = view(plan(part__profile__outside__o1__lower_mm=-0.2), "travel")
    xs = [x / 10 for x, _ in shapes(scene, "spread")[0].points]
    assert (min(xs), max(xs)) == (pytest.approx(-0.2), pytest.approx(0.0))


# --- the wall -------------------------------------------------------------------------------------


def test_the_wall_is_drawn_out_of_round_by_its_figure_times_the_factor_told() -> None:
    result = ring_plan(PIE)
    scene, wall = view(result, "wall"), result.figures[0][FORCE].wall
    times = next(
        float(str(label.text).split("×")[1].replace("\u202f", "")) for label in scene.labels if "×" in str(label.text)
    )
    points = shapes(scene, "wall")[0].points
    outer = radii(points[: len(points) // 2])
    # Gripped inside, the outer wall is what is machined.
    assert (max(outer) - min(outer)) / times == pytest.approx(wall.lobing.out_of_round_mm, rel=1e-6)
    dashed = radii(shapes(scene, "round-outer")[0].points)
    assert dashed == pytest.approx([84.0] * len(dashed))
    assert 0.05 * 84 < max(abs(r - 84) for r in outer) <= 0.1 * 84 + 1e-9


def test_arrows_stand_on_the_side_that_is_gripped() -> None:
    inside = shapes(view(ring_plan(PIE), "wall"), "jaw-")
    assert max(max(radii(j.points)) for j in inside) < 74.0
    outside = shapes(view(plan(), "wall"), "jaw-")
    assert min(min(radii(j.points)) for j in outside) > 42.0


# --- contact --------------------------------------------------------------------------------------


def test_a_piece_of_the_bored_size_touches_all_over_and_others_show_their_gap() -> None:
    scene = view(plan(part__profile__outside__o1__lower_mm=-0.2), "contact")
    said = [str(label.text) for label in scene.labels]
    assert len(shapes(scene, "piece-")) == 3
    assert any("nominal" in s and "touches all over" in s for s in said)
    # Ø83.8 in a bore of Ø84 touches at mid-jaw, so its centre lies 0.1 below; the bore's corner, 20 aside, then
    # stands this far from that centre, and the piece reaches 41.9 of it.
    gap = math.hypot(math.sqrt(42**2 - 20**2) - 0.1, 20) - 41.9
    assert any("smallest" in s and f"gap {gap:.4f}" in s for s in said)


# --- the part -------------------------------------------------------------------------------------


def test_the_part_is_drawn_to_size_with_every_diameter_and_length() -> None:
    scene = view(plan(), "part")
    measures = {d.name: d.measured_mm for d in scene.dimensions}
    assert measures["diameter-o1"] == 84 and measures["diameter-o2"] == 118 and measures["inside-i1"] == 52
    assert measures["length-o1"] == 40 and measures["length-o2"] == 14 and measures["length"] == 54
    half = next(s for s in scene.shapes if s.role == "part")
    # The half-section: 40·(42 − 26) + 14·(59 − 26), less what the edges take.
    assert area(half.points) == pytest.approx(40 * 16 + 14 * 33, abs=1.0)


@pytest.mark.parametrize("name", ["part", "section", "front", "contact", "travel"])
def test_every_view_has_room_for_all_that_it_draws(name: str) -> None:
    scene = view(plan(), name)
    x0, y0, x1, y1 = scene.box
    for one in scene.shapes:
        assert all(x0 - 1e-9 <= x <= x1 + 1e-9 and y0 - 1e-9 <= y <= y1 + 1e-9 for x, y in one.points), one.name
    assert scene.words
    assert len({s.name for s in scene.shapes}) == len(scene.shapes)


def test_a_second_pocket_is_shown_dashed() -> None:
    hold = plan().figures[0][HOLD]
    other = replace(hold.pocket, bore_diameter_mm=122.0)
    from calc.plan.jaws.front import front

    dashed = shapes(front(replace(hold, other=other)), "other-pocket")[0]
    assert dashed.role == "hidden" and radii(dashed.points) == pytest.approx([61.0] * len(dashed.points))
