"""The pictures show the figures: what a line, a gap or a wall is drawn at is what was computed."""

import math
from dataclasses import replace
from itertools import pairwise

import pytest

from calc.catalog import CALCULATORS
from calc.illustrated.examples import EXAMPLES
from calc.illustrated.jaws_drawn import Touching, gap_across, squeezed
from calc.jaws.contact import JawContactInput, jaw_contact
from calc.reading import read
from calc.said.graph import graph_said


def picture(name, **changes):
    calculator = CALCULATORS[name]
    given = replace(read(calculator.input, EXAMPLES[name]), **changes)
    found = calculator.function(given)
    return given, found, calculator.picture(given, found)


def at(points, x):
    """A line's value at a place, straight between its points."""
    for (x0, y0), (x1, y1) in pairwise(points):
        if x0 <= x <= x1:
            return y0 if x1 == x0 else y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    raise AssertionError(f"{x} is not on the line")


def test_grip_at_speed_ends_where_it_was_computed_and_begins_with_the_static_grip():
    given, found, graph = picture("grip-at-speed")
    (line,) = graph.lines
    assert line.points[0] == (0, given.static_grip_n)
    assert at(line.points, given.rpm) == pytest.approx(found.grip_n, rel=1e-3)
    assert graph.mark == (given.rpm, found.grip_n)
    assert graph.levels[0].at == pytest.approx(given.static_grip_n / 3)
    inside = picture("grip-at-speed", side="id")[2]
    assert inside.lines[0].points[-1][1] > given.static_grip_n
    assert not inside.levels
    assert picture("grip-at-speed", rpm=0.0)[2] is None


def test_the_cap_is_where_grip_and_demand_cross():
    given, found, graph = picture("speed-limit", keep_share=None)
    grip, needed = graph.lines
    assert found.capped_by == "grip"
    assert at(grip.points, found.speed_cap_rpm) == pytest.approx(given.required_grip_n, rel=2e-3)
    assert {y for _, y in needed.points} == {given.required_grip_n}


def test_a_chart_ends_where_the_book_ends_and_passes_through_the_answer():
    given, found, graph = picture("chuck-grip")
    (line,) = graph.lines
    assert (line.points[0][0], line.points[-1][0]) == (6.0, 27.0)
    assert at(line.points, given.pressure_bar) == pytest.approx(found.grip_n)


def test_a_gauge_runs_line_passes_its_own_static_grip():
    given, found, graph = picture("grip-fit")
    assert graph.lines[0].points[0][1] == pytest.approx(found.static_grip_n)
    assert graph.dots == tuple((p.rpm, p.grip_n) for p in given.points)


def test_a_drifts_line_is_at_the_size_now_at_the_last_piece_and_goes_on_by_the_slope():
    given, found, graph = picture("drift")
    through, ahead, low, high = (line.points for line in graph.lines)
    assert through[-1] == ahead[0] == low[0] == high[0] == (12, found.fitted_now_mm)
    for points, slope in ((ahead, found.slope_mm), (low, found.slope_low_mm), (high, found.slope_high_mm)):
        (x0, y0), (x1, y1) = points
        assert (y1 - y0) / (x1 - x0) == pytest.approx(slope)
    assert [level.at for level in graph.levels] == [given.high_mm, given.low_mm]
    assert "7 more pieces" in graph.words.text()
    still = picture("drift", sizes_mm=(83.98,) * 6, pieces=())[2]
    assert "never for sure" in still.words.text()


def test_every_size_is_counted_once_in_the_picture_of_how_the_print_is_kept():
    given, _, graph = picture("capability")
    steps = graph.lines[0].points[1:-1:2]
    assert sum(n for _, n in steps) == len(given.sizes_mm)
    assert picture("capability", sizes_mm=(52.01,) * 30)[2] is None


def test_the_feed_window_shows_each_school_and_marks_a_clash():
    given, found, graph = picture("feed-window")
    assert [line.label for line in graph.lines] == ["corner radius", "finish", "chip breaker", "all allow"]
    assert graph.lines[-1].points == ((found.feed_min_mm_rev, 1), (found.feed_max_mm_rev, 1))
    clash = picture("feed-window", ra_um=1.6)[2]
    assert clash.lines[-1].label == "they clash"
    assert {level.style for level in clash.levels} == {"danger"}
    assert given.breaker is not None


def test_a_life_is_drawn_by_taylors_line_and_not_beyond_what_is_counted():
    given, found, graph = picture("tool-life")
    assert max(y for _, y in graph.lines[0].points) <= 60
    double = found.life_min * (given.speed_m_min / 132) ** 4  # exponent 0.25
    assert at(graph.lines[0].points, 132) == pytest.approx(double, rel=5e-3)
    assert picture("tool-life", speed_m_min=40.0)[2] is None


@pytest.mark.parametrize(("jaw", "part", "where"), [(100.0, 99.8, 20.0), (99.8, 100.0, 0.0)])
def test_a_gap_is_widest_where_it_is_told_and_closed_where_the_jaw_touches(jaw, part, where):
    found = jaw_contact(JawContactInput("od", jaw, part, 40.0))
    touching = Touching("piece", part, found)
    assert gap_across("od", jaw, touching, where) == pytest.approx(found.gap_mm, abs=1e-9)
    assert gap_across("od", jaw, touching, 20.0 - where) == pytest.approx(0, abs=1e-9)


def test_a_wall_is_drawn_moved_by_what_it_moves_times_what_is_said():
    given, found, _ = picture("wall-lobing")
    shapes, times = squeezed(given, found.shape, given.wrap_deg)
    wall = next(s for s in shapes if s.name == "wall")
    radii = [math.hypot(*p) for p in wall.points[: len(found.shape)]]
    moved = [(r - given.outer_diameter_mm / 2) / times for r in radii]
    assert moved == pytest.approx([p.outer_mm for p in found.shape], abs=1e-9)


def test_a_threads_flanks_have_its_angle_and_depth():
    given, found, scene = picture("thread")
    flank = next(s for s in scene.shapes if s.name == "thread").points
    (x0, y0), (x1, y1) = flank[1], flank[2]
    assert math.degrees(math.atan2(x1 - x0, y0 - y1)) == pytest.approx(30)
    pitch = next(d for d in scene.dimensions if d.name == "pitch")
    assert (y0 - y1) / (pitch.end[0] - pitch.start[0]) == pytest.approx(found.depth_mm / given.pitch_mm)


def test_a_drills_point_and_depth_are_to_scale():
    given, _, scene = picture("drill")
    hole = next(s for s in scene.shapes if s.name == "hole").points
    assert min(x for x, _ in hole) == pytest.approx(-48 - 6.5 / math.tan(math.radians(70)))
    assert max(y for _, y in hole) == given.diameter_mm / 2


def test_a_graph_is_told_in_the_units_shown():
    graph = picture("grip-at-speed")[2]
    metric, inch = graph_said(graph, "metric"), graph_said(graph, "inch")
    assert (metric.y.unit, inch.y.unit) == ("kN", "lbf")
    assert metric.lines[0].points[0][1] == pytest.approx(46)
    assert inch.lines[0].points[0][1] == pytest.approx(46_000 / 4.4482216, rel=1e-6)
    assert inch.mark[0] == metric.mark[0] == 2350
