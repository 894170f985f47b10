"""The profile carried from cut to cut: what each leaves is the next one's stock, what the last leaves is the part."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from shapely import MultiPolygon
from shapely.geometry.base import BaseGeometry

from calc.errors import CalcError
from calc.plan.cuts.cleaning import cleaned
from calc.plan.cuts.parting import after_parting, is_through, not_through
from calc.plan.cuts.taken import CutShape
from calc.plan.cuts.tooling import fitted, length_of, worked_steps
from calc.plan.hold.gripped import grip_of
from calc.plan.outcome import Asked, Missing, Solved
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import OTHER, SIDES, is_bar_work, made_first
from calc.profile.body import End
from calc.profile.half import (
    FAR_MM,
    NOTHING_MM2,
    between,
    body_half,
    bores_half,
    flipped,
    radii,
    rectangle,
    solid,
    thick,
)
from calc.quantities import Bare, Figure
from calc.working import Note

KEPT = 128  # sides whose cuts are carried
DEEP_MM = 0.1  # metal thinner than this is within what a size without limits may be off
MEETS_MM = 0.5  # typical: so much more than planned, per side, breaks an edge or throws a part
TOUCHES_MM = 0.02  # less than this on radius is the same size
MOST_GONE = 0.5  # of what a cut is planned to take: with more than this gone it cuts air
NEAR_MM = 1.0  # on diameter: farther from a size of the print a cut is not meant for it
SIZE_MM = 0.0005  # what sizes are rounded to


@dataclass(frozen=True, eq=False)
class Left:
    """What is there after a cut, and what was taken by it."""

    cut: CutShape
    stock: BaseGeometry
    taken: BaseGeometry
    notes: tuple[Note, ...]
    meets_mm: float | None  # the diameter that stands where it begins, where that is more than planned
    parts: bool = False  # the piece is parted off by it


@dataclass(frozen=True, eq=False)
class CarriedFigures:
    """A side from its first cut to its last. Lengths [mm] from the finished face that is worked.

    `assumed`: what earlier work made of it is not planned here, and taken as done.
    """

    start: BaseGeometry
    cuts: tuple[Left, ...]
    assumed: bool
    notes: tuple[Note, ...]

    @property
    def end(self) -> BaseGeometry:
        """What leaves the side."""
        return self.cuts[-1].stock if self.cuts else self.start


def _raw(part: PartFigures, bar: bool) -> BaseGeometry:
    """The stock as it comes, its worked face stock before 0."""
    outer, inner = part.held_radii_mm
    if part.stock.diameter_mm is not None:
        outer = part.stock.corners * part.stock.diameter_mm / 2  # over a whole turn the corners stand there
    f = part.face_stock_mm
    return rectangle(-f, part.length_mm + (FAR_MM / 2 if bar else f), inner, outer)


def _with_end_made(part: PartFigures, held: End, raw: BaseGeometry) -> BaseGeometry:
    """The stock with everything finished that is made from the held end."""
    worked = OTHER[held]
    _, reach = made_first(part, held)
    edge = part.length_mm - reach
    finished = between(body_half(part.body, worked), edge, FAR_MM)
    rest = between(raw, -FAR_MM, edge)
    mine = part.body.inside if held == "a" else part.body.inside_b
    if mine:
        whole = part.length_mm
        bored = bores_half(part.body, worked)
        through = mine[-1].step.length_mm is None
        deep = whole - sum(s.end - s.start for s in mine)
        # One that goes through goes on through the stock that is still on the worked face.
        bored = bored.union(_through(bored)) if through else between(bored, deep, FAR_MM)
        rest = rest.difference(bored)
    return solid(rest.union(finished))


def _through(bored: BaseGeometry) -> BaseGeometry:
    found = radii(bored, -1.0, 1.0)
    return rectangle(-FAR_MM, 1.0, 0.0, found[1]) if found else MultiPolygon()


def _start(asked: Asked, part: PartFigures, held: End) -> tuple[BaseGeometry, bool]:
    """(what stands in the jaws before the first cut, whether that is assumed)."""
    document, index = asked.document, asked.index
    bar = is_bar_work(document, index)
    raw = _raw(part, bar)
    if index > 0:
        before = asked.every[0][CARRIED]
        if before is None or not before.cuts:
            return _with_end_made(part, held, raw), True
        done = before.end
        if is_bar_work(document, 0):  # what is not parted by a cut is sawn off
            done = between(done, -FAR_MM, part.length_mm + part.face_stock_mm)
        return flipped(done, part.length_mm), False
    try:
        finished = grip_of(document, asked.need(SIDES), 0).finished
    except (CalcError, Missing):
        finished = False
    return (_with_end_made(part, held, raw), True) if finished else (raw, False)


def shapes_of(asked: Asked, part: PartFigures, worked: End) -> tuple[CutShape, ...]:
    """The cuts of a set-up that have their diameters."""
    found = []
    for entered in asked.setup.cuts:
        fit = fitted(entered, asked.shelf.tools)
        shape = CutShape.of(fit.planned, length_of(fit.planned, part, worked), fit.tool)
        if shape is not None:
            found.append(shape)
    return tuple(found)


def solve_carried(asked: Asked) -> CarriedFigures:
    """The profile of a side, cut by cut. Raises Waiting."""
    part, sides = asked.need(PART), asked.need(SIDES)
    held = sides.held_end(asked.index)
    worked = OTHER[held]
    start, assumed = _start(asked, part, held)
    return carry(part, worked, _Start(start, assumed), shapes_of(asked, part, worked))


@dataclass(frozen=True, eq=False)
class _Start:
    stock: BaseGeometry
    assumed: bool

    # A start is as its metal is: sides that begin alike are carried alike.
    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, _Start) and self.assumed == other.assumed and self.stock.equals_exact(other.stock, 1e-9)
        )

    def __hash__(self) -> int:
        return hash((self.assumed, *(round(x, 6) for x in self.stock.bounds)))


@lru_cache(maxsize=KEPT)
def carry(part: PartFigures, worked: End, start: _Start, cuts: tuple[CutShape, ...]) -> CarriedFigures:
    """Each cut taken from what the one before it left."""
    least, print_half = body_half(part.body, worked, least=True), body_half(part.body, worked)
    followed, threads = _followed(part, worked), _threads(part, worked)
    stock, left, off = start.stock, [], ""
    for cut in cuts:
        region = cut.region()
        if cut.kind in ("turn", "bore"):  # tapers and arcs are followed, not cut across
            region = region.difference(followed)
        taken = solid(region.intersection(stock))
        after = solid(stock.difference(region)) if cut.kind != "thread" else stock
        notes, parts = [*after_parting(cut, off)], False
        if cut.kind == "part" and not off:
            parts = is_through(after, cut)
            after, off = (between(after, -FAR_MM, cut.start), cut.name) if parts else (after, "")
            notes += [] if parts else [not_through(cut)]
        threaded = cut.kind == "thread" or cut.cleans  # a broken edge of a thread is the thread's own
        notes += [
            *(cleaned(cut, stock) if cut.cleans else _amounts(cut, taken, stock, part)),
            *(_meets(cut, taken) if cut.cleans else ()),
            *_under(cut, solid(taken.difference(threads)) if threaded else taken, least),
        ]
        left.append(Left(cut, after, taken, tuple(notes), _more_than_planned(cut, taken), parts))
        stock = after
    return CarriedFigures(
        start.stock, tuple(left), start.assumed, tuple(_standing(cuts, stock, print_half, part, worked))
    )


def _followed(part: PartFigures, worked: End) -> BaseGeometry:
    """The metal under tapers and arcs, outside."""
    found: BaseGeometry = MultiPolygon()
    body, whole = body_half(part.body, worked), part.length_mm
    for span in part.body.outside:
        if span.step.end_diameter_mm is not None or span.step.arc_mm is not None:
            z0, z1 = (span.start, span.end) if worked == "a" else (whole - span.end, whole - span.start)
            found = found.union(between(body, z0, z1))
    return found


def _threads(part: PartFigures, worked: End) -> BaseGeometry:
    """Where the print has threads: all of those steps, from the axis outward."""
    found: BaseGeometry = MultiPolygon()
    body, whole = part.body, part.length_mm
    flipped_b = [(whole - s.end, whole - s.start, s.step) for s in body.inside_b]
    steps = [*((s.start, s.end, s.step) for s in (*body.outside, *body.inside)), *flipped_b]
    for start, end, step in steps:
        if step.thread:
            z0, z1 = (start, end) if worked == "a" else (whole - end, whole - start)
            found = found.union(rectangle(z0, z1, 0.0, FAR_MM))
    return found


def _mm(value: float, rounding: str = "near") -> Figure:
    return Figure(value, "mm", rounding, (2, 3))  # type: ignore[arg-type] # one of the roundings


def _amounts(cut: CutShape, taken: BaseGeometry, stock: BaseGeometry, part: PartFigures) -> Iterator[Note]:
    """Whether a cut takes what it is planned to take."""
    expected = cut.expected(part.face_stock_mm)
    if taken.area < NOTHING_MM2 or taken.intersection(expected).area < 1e-3 * expected.area:
        yield Note(
            "caution",
            "cuts-nothing",
            "{name}: it cuts nothing: there is no metal where it goes. Take it out, or change where it goes.",
            name=cut.name,
        )
        return
    if expected.intersection(stock).area < (1 - MOST_GONE) * expected.area and cut.kind not in ("drill", "groove"):
        yield Note(
            "caution", "cuts-air", "{name}: most of what it is planned to take is gone before it begins.", name=cut.name
        )
    yield from _meets(cut, taken)


def _more_than_planned(cut: CutShape, taken: BaseGeometry) -> float | None:
    """The diameter [mm] that stands where a cut begins, where that is more metal than it is planned for."""
    if cut.kind in ("drill", "part", "groove", "thread"):
        return None
    z0 = max(cut.begin, -FAR_MM) if cut.kind == "face" else max(0.0, cut.start)
    found = radii(taken, z0, max(cut.end, z0 + 1e-3) if cut.kind != "face" else 0.0)
    if found is None:
        return None
    low, high = found
    more = cut.before / 2 - low if cut.inside else high - cut.before / 2
    return (2 * low if cut.inside else 2 * high) if more > TOUCHES_MM else None


def _meets(cut: CutShape, taken: BaseGeometry) -> Iterator[Note]:
    """Whether more stands where it cuts than it is planned for."""
    there = _more_than_planned(cut, taken)
    if there is None:
        return
    more = abs(there - cut.before) / 2
    yield Note(
        "stop" if more > MEETS_MM else "caution",
        "meets-more",
        "{name}: it is planned from Ø{a} and meets Ø{b}: {x} a side more than its depth was planned for.",
        name=cut.name,
        a=Bare(_mm(cut.before)),
        b=Bare(_mm(there, "down" if cut.inside else "up")),
        x=_mm(more, "up"),
    )


def _under(cut: CutShape, taken: BaseGeometry, least: BaseGeometry) -> Iterator[Note]:
    """Whether a cut goes under the finished profile."""
    wrong = thick(solid(taken.intersection(least)), DEEP_MM)
    if wrong.is_empty:
        return
    z0, r0, z1, r1 = wrong.bounds
    yield Note(
        "stop",
        "under-the-print",
        "{name}: it cuts into the finished part, up to {x} deep, from {a} to {b} behind the face.",
        name=cut.name,
        x=_mm(min(z1 - z0, r1 - r0) + DEEP_MM, "up"),
        a=_mm(max(0.0, z0 - DEEP_MM / 2), "down"),
        b=_mm(z1 + DEEP_MM / 2, "up"),
    )


def _standing(
    cuts: tuple[CutShape, ...], stock: BaseGeometry, body: BaseGeometry, part: PartFigures, worked: End
) -> Iterator[Note]:
    """Metal that is left on a surface which a cut of this side finishes."""
    over = solid(stock.difference(body))
    for cut in cuts:
        if cut.kind == "face":
            place = rectangle(-FAR_MM, 0.0, 0.0, FAR_MM)
        elif cut.kind in ("turn", "bore") and cut.stage == "finish":
            place = _surface(cut)
        else:
            continue
        left = thick(solid(over.intersection(place)), DEEP_MM + 2 * part.edge_mm)
        if left.is_empty:
            continue
        _, r0, _, r1 = left.bounds
        yield Note(
            "stop",
            "stock-left",
            "{name}: metal is left standing on what it finishes, between Ø{a} and Ø{b}.",
            name=cut.name,
            a=Bare(_mm(2 * r0)),
            b=Bare(_mm(2 * r1)),
        )
    yield from _off_size(cuts, part, worked)


def _surface(cut: CutShape) -> BaseGeometry:
    r = cut.after / 2
    z0 = max(0.0, cut.start)
    return rectangle(z0, cut.end, 0.0, r) if cut.inside else rectangle(z0, cut.end, r, FAR_MM)


def _off_size(cuts: tuple[CutShape, ...], part: PartFigures, worked: End) -> Iterator[Note]:
    """Finishing cuts that end outside the print's limits."""
    for cut in cuts:
        if cut.stage != "finish" or cut.kind not in ("turn", "bore"):
            continue
        steps = [
            s.step for s in worked_steps(part, worked, inside=cut.inside) if s.start < cut.end and s.end > cut.start
        ]
        step = min(steps, key=lambda s: abs((s.diameter_mm or 0.0) - cut.after), default=None)
        size, limits = (step.diameter_mm or 0.0, step.limits_mm) if step is not None else (0.0, None)
        if limits is None or abs(size - cut.after) > NEAR_MM or cut.after == size:
            continue
        if limits[0] - SIZE_MM <= cut.after <= limits[1] + SIZE_MM:
            continue
        yield Note(
            "stop",
            "off-size",
            "{name}: it ends at Ø{d}; the print asks for {low} to {high}.",
            name=cut.name,
            d=Bare(Figure(cut.after, "mm", places=(3, 4))),
            low=Bare(Figure(limits[0], "mm", "up", (3, 4))),
            high=Figure(limits[1], "mm", "down", (3, 4)),
        )


CARRIED = Solved("carried", "Cuts", solve_carried)
