"""Pictures of tools and cuts: the feed window, an insert, a thread's flank, a drill, a blade, a bar in its bore."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.cuts.drilling import DrillInput, DrillResult
from calc.cuts.economic_speed import MOST_LIFE_MIN
from calc.cuts.feed_window import FeedWindowInput, FeedWindowResult
from calc.cuts.part_off import PartOffInput, PartOffResult
from calc.cuts.tool_life import ToolLifeInput, ToolLifeResult
from calc.illustrated.graph import Axis, Graph, Level, Line, Style, line_of
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Label, Point, Scene, Shape, arc, box_of, rectangle
from calc.threads.thread import ANGLES, ThreadInput, ThreadResult
from calc.tools.boring_bar import BoringBarInput, BoringBarResult
from calc.tools.insert_code import InsertCode, InsertCodeInput
from calc.tools.outline import outline

FASTEST = 1.6  # times the speed asked for: so far a life is drawn
ROOM = 1.15


def _scene(shapes: tuple[Shape, ...], dimensions: tuple[Dimension, ...], words: Sentence, *labels: Label) -> Scene:
    return Scene(shapes, dimensions, box_of(shapes, dimensions), (words,), labels)


def feed_window(given: FeedWindowInput, found: FeedWindowResult) -> Graph:
    """What each school allows as a bar, and what all of them do."""
    s = found.schools
    rows: list[tuple[str, float, float]] = [
        ("corner radius", s.radius.feed_min_mm_rev or 0.0, s.radius.feed_max_mm_rev or 0.0)
    ]
    if s.finish is not None:
        rows.append(("finish", 0.0, s.finish.feed_max_mm_rev or 0.0))
    if s.breaker is not None:
        rows.append(("chip breaker", s.breaker.feed_min_mm_rev or 0.0, s.breaker.feed_max_mm_rev or 0.0))
    low, high = found.feed_min_mm_rev, found.feed_max_mm_rev
    lines = tuple(
        Line(name, ((a, len(rows) - i + 1), (b, len(rows) - i + 1)), "other") for i, (name, a, b) in enumerate(rows)
    )
    clash = low > high
    shared = Line("they clash" if clash else "all allow", ((min(low, high), 1), (max(low, high), 1)))
    words = Sentence(
        "They clash: at least {a}, at most {b}." if clash else "All allow {a} to {b}.",
        a=Figure(low, "mm/rev", "up"),
        b=Figure(high, "mm/rev", "down"),
    )
    most = 1.5 * max(high, low, *(b for _, _, b in rows))
    style: Style = "danger" if clash else "limit"
    levels = tuple(Level("x", "", x, style) for x in (low, high))
    return Graph(Axis("feed", "mm/rev", 0, most), Axis("", "", 0, len(rows) + 2), (*lines, shared), words, levels)


def life(given: ToolLifeInput, found: ToolLifeResult) -> Graph | None:
    """The life of an edge over the speed; none where it is longer than what is counted."""
    if found.life_min >= MOST_LIFE_MIN:
        return None
    slowest, fastest = 0.5 * given.speed_m_min, FASTEST * given.speed_m_min
    # Taylor's line through the point that was found, up to the most that is counted.
    curve = line_of("", slowest, fastest, lambda v: found.life_min * (given.speed_m_min / v) ** (1 / given.exponent))
    shown = Line("", tuple((x, min(y, MOST_LIFE_MIN)) for x, y in curve.points))
    top = ROOM * MOST_LIFE_MIN
    words = Sentence(
        "At {v} an edge lasts {t}; twenty per cent faster it lasts {u}.",
        v=Figure(given.speed_m_min, "m/min"),
        t=Figure(found.life_min, "min", "down", (1, 1)),
        u=Figure(found.life_min * 1.2 ** (-1 / given.exponent), "min", "down", (1, 1)),
    )
    axes = Axis("surface speed", "m/min", slowest, fastest), Axis("life", "min", 0, top)
    return Graph(*axes, (shown,), words, mark=(given.speed_m_min, found.life_min))


def insert(given: InsertCodeInput, found: InsertCode) -> Scene:
    """The insert from above."""
    points, circle = outline(found), found.ic_mm / 2
    shapes = [Shape("insert", "insert", points), Shape("inscribed", "hidden", arc(circle, 0, 360))]
    low = min(y for _, y in points)
    ic = Dimension("ic", "ic_mm", (-circle, low), (circle, low), -6, Figure(found.ic_mm, "mm", places=(3, 4)), "Ø ")
    right = max(x for x, _ in points)
    radius = Label((right + 2, 0), Sentence("corner {r}", r=Figure(found.corner_radius_mm, "mm")))
    words = Sentence(
        "An insert with an inscribed circle of {d} and a corner of {r}.",
        d=Figure(found.ic_mm, "mm", places=(3, 4)),
        r=Figure(found.corner_radius_mm, "mm"),
    )
    box = box_of(tuple(shapes), (ic,))
    return Scene(tuple(shapes), (ic,), (box[0], box[1], box[2] + 12, box[3]), (words,), (radius,))


PROFILES, SHOWN_THREADS = 40.0, 3  # mm that the picture is wide; threads in it


def thread(given: ThreadInput, found: ThreadResult) -> Scene | None:
    """A few threads from the side, their flanks by the form's angle, and how deep each pass goes."""
    pitch, depth = given.pitch_mm, found.depth_mm
    if depth <= 0:
        return None
    k = PROFILES / (SHOWN_THREADS * pitch)  # drawn larger, in the picture's own scale
    half = math.tan(math.radians(ANGLES[given.form] / 2))
    top = bottom = max(0.0, (pitch - 2 * depth * half) / 2)
    line: list[Point] = []
    for i in range(SHOWN_THREADS):
        x = i * pitch
        line += [(x, depth), (x + top, depth), (x + top + depth * half, 0), (x + top + depth * half + bottom, 0)]
    line.append((SHOWN_THREADS * pitch, depth))
    flank = tuple((k * x, k * y) for x, y in line)
    body = (*flank, (PROFILES, -12.0), (0.0, -12.0))
    cuts: list[Shape] = []
    for each in found.pass_depths_mm:
        at = k * (depth - min(each, depth))
        cuts.append(Shape(f"pass-{len(cuts)}", "hidden", ((0, at), (PROFILES, at)), closed=False))
    shapes = (Shape("thread", "part", body), *cuts)
    places = (3, 4)
    dimensions = (
        Dimension("pitch", "pitch_mm", (0, k * depth), (k * pitch, k * depth), 8, Figure(pitch, "mm", places=places)),
        Dimension(
            "depth", "depth_mm", (PROFILES, 0), (PROFILES, k * depth), 8, Figure(depth, "mm", places=places), "deep "
        ),
    )
    words = Sentence(
        "The thread is {d} deep, cut in {n} passes.", d=Figure(depth, "mm", places=places), n=str(len(cuts))
    )
    return _scene(shapes, dimensions, words)


def drill(given: DrillInput, found: DrillResult) -> Scene:
    """The drill in its hole, with the cone of its point and its pilot; where it comes out to clear its chips."""
    r, pilot, deep = given.diameter_mm / 2, given.pilot_mm / 2, given.depth_mm or 2 * given.diameter_mm
    tip = r / math.tan(math.radians(given.point_deg / 2))
    wall = 1.6 * r
    part = [Shape("part", "part", rectangle(-deep - tip - 0.6 * r, -r - wall, 0, r + wall))]
    hole = ((0, -r), (0, r), (-deep, r), (-deep - tip, 0), (-deep, -r))
    body = ((2.2 * r, -r), (2.2 * r, r), (-deep, r), (-deep - tip, 0), (-deep, -r))
    shapes = [*part, Shape("hole", "hole", hole), Shape("drill", "tool", body)]
    if pilot > 0:
        first = rectangle(-deep - tip - 0.6 * r, -pilot, 0, pilot)
        shapes.append(Shape("pilot", "hidden", first))
    for i, out in enumerate(found.pecks_mm[:-1]):
        shapes.append(Shape(f"peck-{i}", "hidden", ((-out, -r - wall / 2), (-out, r + wall / 2)), closed=False))
    shapes.append(Shape("axis", "axis", ((-deep - tip - r, 0), (2.6 * r, 0)), closed=False))
    dimensions = (
        Dimension("depth", "depth_mm", (-deep, r + wall), (0, r + wall), 6, Figure(deep, "mm")),
        Dimension("size", "diameter_mm", (2.2 * r, -r), (2.2 * r, r), 6, Figure(given.diameter_mm, "mm"), "Ø "),
    )
    words = Sentence(
        "A drill of {d}, {t} deep, {p}.",
        d=Figure(given.diameter_mm, "mm"),
        t=Figure(deep, "mm"),
        p=f"out {len(found.pecks_mm) - 1} times to clear" if found.pecks_mm else "in one",
    )
    return _scene(tuple(shapes), dimensions, words)


def _blade(given: PartOffInput) -> Iterator[Shape]:
    r, end, wide = given.diameter_mm / 2, given.end_diameter_mm / 2, given.width_mm
    yield Shape("left", "part", rectangle(-2.2 * r, end, 0, r))
    yield Shape("right", "part", rectangle(wide, end, 2.2 * r, r))
    yield Shape("left-below", "part", rectangle(-2.2 * r, -r, 0, -end))
    yield Shape("right-below", "part", rectangle(wide, -r, 2.2 * r, -end))
    long = max(given.reach_mm or 0.0, r - end)
    yield Shape("blade", "tool", rectangle(0.1 * wide, end + 0.6 * wide, 0.9 * wide, end + long))
    yield Shape("edge", "insert", rectangle(0, end, wide, end + 0.6 * wide))
    yield Shape("axis", "axis", ((-2.4 * r, 0), (2.4 * r, 0)), closed=False)


def part_off(given: PartOffInput, found: PartOffResult) -> Scene:
    """The blade at the end of its way, and below which diameter the spindle tops out."""
    shapes = list(_blade(given))
    if found.cap_diameter_mm < given.diameter_mm:
        at = found.cap_diameter_mm / 2
        shapes.append(Shape("tops-out", "hidden", ((-given.diameter_mm, at), (given.diameter_mm, at)), closed=False))
    r, end = given.diameter_mm / 2, given.end_diameter_mm / 2
    dimensions = [
        Dimension("diameter", "diameter_mm", (-2.2 * r, -r), (-2.2 * r, r), 8, Figure(given.diameter_mm, "mm"), "Ø "),
        Dimension("width", "width_mm", (0, -r), (given.width_mm, -r), -8, Figure(given.width_mm, "mm")),
    ]
    if given.reach_mm is not None:
        reach = Figure(given.reach_mm, "mm")
        x = given.width_mm
        dimensions.append(Dimension("reach", "reach_mm", (x, end), (x, end + given.reach_mm), 10, reach, "reach "))
    words = Sentence("The spindle tops out below Ø{d}.", d=Figure(found.cap_diameter_mm, "mm", places=(1, 3)))
    return _scene(tuple(shapes), tuple(dimensions), words)


def bar(given: BoringBarInput, found: BoringBarResult) -> Scene:
    """The bar in its bore, from its clamping to the edge; how far it bends is told, not drawn to scale."""
    bore, thick, out = given.bore_mm / 2, given.bar_mm / 2, given.overhang_mm
    wall = 0.5 * given.bore_mm
    inside = 0.8 * out
    low = -bore + 0.1 * (bore - thick)
    shapes = (
        Shape("above", "part", rectangle(-inside, bore, 0, bore + wall)),
        Shape("below", "part", rectangle(-inside, -bore - wall, 0, -bore)),
        Shape("bar", "tool", rectangle(-inside, low, out - inside, low + given.bar_mm)),
        Shape("clamped", "jaw", rectangle(out - inside, low - thick / 2, out - inside + thick, low + 2.5 * thick)),
        Shape("edge", "insert", ((-inside, low), (-inside + 4, low), (-inside, -bore))),
        Shape("axis", "axis", ((-inside - 6, 0), (out - inside + thick, 0)), closed=False),
    )
    high = bore + wall
    dimensions = (
        Dimension("overhang", "overhang_mm", (-inside, high), (out - inside, high), 8, Figure(out, "mm")),
        Dimension("bore", "bore_mm", (-inside, -bore), (-inside, bore), -8, Figure(given.bore_mm, "mm"), "Ø "),
    )
    words = Sentence(
        "The bar stands out {n} diameters and bends {d} a side.",
        n=Figure(found.overhang_ratio, "", "up", (1, 1)),
        d=Figure(found.deflection_mm, "mm", "up", (4, 5)),
    )
    return _scene(shapes, dimensions, words)
