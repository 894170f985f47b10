"""The picture of each cut at its end: what stands in the jaws, what is taken, the tool, and how near it comes."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry.base import BaseGeometry

from calc.plan.cuts.carried import CARRIED, Left
from calc.plan.cuts.clear import CLEAR, Nearest, Second, second_of
from calc.plan.cuts.solve import CUTS
from calc.plan.cuts.taken import RUN_IN_MM, CutShape
from calc.plan.hold.drawn import layers as around
from calc.plan.hold.drawn import standing_of
from calc.plan.part.drawn import Placed
from calc.plan.sides.drawn import placed
from calc.plan.view import View
from calc.profile.half import FAR_MM, polygons, rectangle
from calc.quantities import Bare, Figure, Sentence, counted
from calc.scene.shapes import Dimension, Label, Point, Role, Scene, Shape, box_of, turned
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool
from calc.tools.outline import outline

KEPT = 512  # inserts in their places, cuts drawn
BACK_MM = 46.0  # of a tool so much is drawn behind its tip
BESIDE_MM = 12.0  # of what holds the other end so much is drawn beyond the part
OUT_MM = 30.0  # and so far out beyond the stock
LIT = ("name", "from_diameter_mm", "to_diameter_mm", "length_mm", "start_mm", "clear")


@dataclass(frozen=True)
class _Place:
    """Where drawing happens: the part in its place, and how far the picture reaches [mm]."""

    at: Placed
    left: float
    top: float

    def points(self, line: tuple[Point, ...]) -> tuple[Point, ...]:
        """Points (z from the finished face, r) as points of the scene."""
        return tuple((self.at.end - z, r) for z, r in line)

    def shown(self, shape: BaseGeometry) -> BaseGeometry:
        """What of a shape lies in the picture."""
        return shape.intersection(rectangle(-FAR_MM, self.at.end - self.left, -self.top, self.top))


def _pieces(
    name: str, role: Role, shape: BaseGeometry, place: _Place, cut: CutShape, slides: Point = (0.0, 0.0)
) -> Iterator[Shape]:
    facts = (f"tool_{cut.id}",) if role == "tool" else tuple(f"cut_{cut.id}_{n}" for n in LIT)
    for i, polygon in enumerate(polygons(place.shown(shape))):
        points = place.points(tuple(polygon.exterior.coords))
        yield Shape(f"{name}-{cut.id}-{i}", role, points, facts=facts, group=cut.id, slides=slides)


def slide_of(cut: CutShape) -> Point:
    """From the end of a cut's path back to its begin, as it lies in the picture [mm]."""
    if cut.kind in ("face", "groove", "part"):
        return (0.0, (cut.before - cut.after) / 2)
    return (cut.end - max(cut.begin, -RUN_IN_MM), 0.0)


@lru_cache(maxsize=KEPT)
def insert_at(tool: Tool, approach_deg: float, inside: bool) -> tuple[Point, ...]:
    """A turning insert in its holder (z, r) [mm], the corner of its two edges' tangents at the origin.

    Its main edge stands at the approach angle to the feed, the body of the insert behind it: the corner is turned by
    half its own angle from there. In a bore it is the same seen from the axis.
    """
    assert isinstance(tool.edge, Insert)
    code = tool.edge.decoded
    is_round = code.shape == "R"
    radius = code.ic_mm / 2 if is_round else code.corner_radius_mm
    nose = max(x for x, _ in outline(code)) - radius  # from the insert's middle to the middle of its corner
    way = approach_deg + (0.0 if is_round else code.corner_deg / 2)
    lies = turned(outline(code), way + 180.0)
    middle = turned(((nose, 0.0),), way + 180.0)[0]
    dz, dr = -radius - middle[0], radius - middle[1]
    sign = -1.0 if inside else 1.0
    return tuple((z + dz, sign * (r + dr)) for z, r in lies)


def _tool(cut: CutShape, place: _Place) -> Iterator[Shape]:
    slides = slide_of(cut)
    near = rectangle(cut.end - BACK_MM, cut.end + BACK_MM, -FAR_MM, FAR_MM)
    yield from _pieces("tool", "tool", cut.at_end().intersection(near), place, cut, slides)
    if cut.tool is not None and isinstance(cut.tool.edge, Insert) and cut.kind in ("turn", "face", "bore"):
        at = insert_at(cut.tool, cut.approach_deg, cut.inside)
        points = place.points(tuple((z + cut.end, r + cut.after / 2) for z, r in at))
        yield Shape(f"insert-{cut.id}", "insert", points, facts=(f"tool_{cut.id}",), group=cut.id, slides=slides)


def _reaches(cut: CutShape, place: _Place) -> Iterator[Dimension]:
    """How deep a tool goes, of what it can; how far a blade hangs out."""
    tool, end = cut.tool, place.at.end
    if tool is None:
        return
    fact = f"tool_{cut.id}"
    carrier, edge = tool.carrier, tool.edge
    can = edge.reach_mm if isinstance(edge, Drill) else getattr(carrier, "reach_mm", None)
    if cut.inside and can and cut.end > 0:
        x = end - cut.end
        deep, most = Figure(cut.end, "mm", "up"), Sentence(", reaches {x}", x=Bare(Figure(can, "mm", "down")))
        ends = ((x, 0.0), (end, 0.0))
        name = f"reach-{cut.id}"
        yield Dimension(name, fact, *ends, -14.0, deep, "goes in ", most, outside="before", group=cut.id)
    elif isinstance(carrier, (Blade, Holder)) and cut.kind in ("groove", "part") and can:
        r, x = cut.after / 2, end - cut.end + cut.width
        figure = Figure(can, "mm", "down")
        ends = ((x, r), (x, r + can))
        yield Dimension(f"reach-{cut.id}", fact, *ends, 14.0, figure, "hangs out ", group=cut.id)


def _clearance(near: Nearest, place: _Place, least: float) -> tuple[Shape, Label]:
    """The smallest distance, from the tool to what it is near to."""
    cut, fact = near.cut, f"cut_{near.cut.id}_clear"
    line = place.points((near.tool, near.other))
    words = Sentence("{x} to {what}", x=Figure(near.distance_mm, "mm", "down", (2, 3)), what=near.what)
    if near.distance_mm <= 0:
        words = Sentence("runs into {what}", what=near.what)
    role: Role = "danger" if near.distance_mm < least - 1e-6 else "gap"
    shape = Shape(f"clear-{cut.id}", role, line, closed=False, facts=(fact,), group=cut.id)
    return shape, Label((line[1][0], line[1][1]), words, fact, anchor="end", group=cut.id)


def _other_spindle(second: Second, cut: CutShape, place: _Place) -> Iterator[Shape]:
    """What holds the other end of the piece while it is parted off."""
    window = rectangle(-BESIDE_MM, FAR_MM, 0.0, FAR_MM)
    for i, (name, shape) in enumerate(second.keep_out().items()):
        role: Role = "chuck" if "the chuck" in name else "jaw"
        yield from _pieces(f"second-{i}", role, shape.intersection(window), place, cut)


@lru_cache(maxsize=KEPT)  # most edits leave most cuts as they were
def _of_cut(
    left: Left, near: Nearest | None, place: _Place, least: float
) -> tuple[list[Shape], list[Label], list[Dimension]]:
    cut = left.cut
    labels: list[Label] = []
    shapes = [
        *_pieces("stock", "part", left.stock, place, cut),
        *_pieces("taken", "cut", left.taken, place, cut),
        *_tool(cut, place),
    ]
    edge = cut.tool.edge if cut.tool else None
    if edge is not None:
        high = max((y for s in shapes if s.role == "tool" for _, y in s.points), default=0.0)
        name = Sentence("{t}", t=edge.code if isinstance(edge, Insert) else edge.name)
        spot = (place.at.right + 4.0, cut.after / 4) if cut.inside else (place.at.end - cut.end + 2.0, high + 3.0)
        labels.append(Label(spot, name, f"tool_{cut.id}", group=cut.id))
    if near is not None and near.distance_mm < FAR_MM / 10:
        line, label = _clearance(near, place, least)
        shapes.append(line)
        labels.append(label)
    return shapes, labels, list(_reaches(cut, place))


def _is_seen(shape: Shape) -> bool:
    """Above the axis, and there while it is cut."""
    return (not shape.stops or "cuts" in shape.stops) and max(y for _, y in shape.points) > 0


def at_work(view: View) -> Scene:
    """Every cut of the side at its end, each under its own id; what stands around it is the same for all."""
    standing = standing_of(view)
    at, carried, clear, figures = placed(view, standing), view[CARRIED], view[CLEAR], view[CUTS]
    if at is None or carried is None:
        return Scene((), (), (0, 0, 1, 1), (Sentence("Nothing can be drawn until Hold and Cuts are complete."),))
    widest = max(carried.start.bounds[3], 1.0)
    place = _Place(at, standing.left, widest + OUT_MM)
    shapes = [s for layer in around(view, standing) for s in layer.shapes if _is_seen(s)]
    labels: list[Label] = []
    dimensions: list[Dimension] = []
    least, second = view.document.in_force.clearance_mm, second_of(view.asked)
    for left in carried.cuts:
        drawn, said, measured = _of_cut(left, clear.nearest.get(left.cut.id) if clear else None, place, least)
        shapes += drawn
        if second is not None and left.cut.kind == "part":
            shapes += _other_spindle(second, left.cut, place)
        labels += said
        dimensions += measured
    shapes.append(Shape("axis", "axis", ((standing.left - 8, 0), (at.right + 12, 0)), closed=False))
    passes = {c.id: c.passes for c in figures.cuts} if figures else {}
    words = tuple(
        Sentence(
            "{name}: Ø{a} to Ø{b}, to {z} behind the face, in {n}.",
            name=left.cut.name,
            a=Figure(left.cut.before, "mm", exact=True, places=(2, 3)),
            b=Figure(left.cut.after, "mm", exact=True, places=(2, 3)),
            z=Figure(max(0.0, left.cut.end), "mm"),
            n=counted(passes.get(left.cut.id, 1), "pass", "passes"),
        )
        for left in carried.cuts
    )
    return Scene(tuple(shapes), tuple(dimensions), box_of(tuple(shapes), tuple(dimensions)), words, tuple(labels))
