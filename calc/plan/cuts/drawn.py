"""What the stop Cuts draws: what each cut takes in the section, its feed window, speed on the way across."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.cuts.part_off import cap_diameter
from calc.cuts.spindle import Turning, turns
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS, CutFigures, CutsFigures
from calc.plan.part.drawn import Placed
from calc.plan.pictures import Bars, Curve, Curves, Range
from calc.plan.sides.drawn import EVERYWHERE, placed
from calc.plan.view import View
from calc.profile.half import polygons
from calc.profile.half import rectangle as rectangle_mm
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Layer, Point, Role, Shape, Standing, rectangle
from calc.working import Working

STEPS = 60
LIT = ("name", "from_diameter_mm", "to_diameter_mm", "depth_mm", "length_mm", "start_mm", "tangential")


def _region(cut: PlannedCut, at: Placed) -> tuple[Point, ...]:
    """Where a cut takes metal, above the axis."""
    a, b = (cut.from_diameter_mm or 0.0) / 2, (cut.to_diameter_mm or 0.0) / 2
    if cut.kind == "face":
        return rectangle(at.end, min(a, b), at.end + max(at.part.face_stock_mm, cut.depth_mm or 0.0), max(a, b))
    if cut.length_mm is not None or cut.kind == "part":
        near = at.end - cut.start_mm
        long = cut.length_mm if cut.length_mm is not None else cut.width_mm or 3.0
        return rectangle(near - long, min(a, b), near, max(a, b))
    if cut.kind in ("bore", "drill"):
        return rectangle(at.x(0), a, at.end, b)
    fits = [s for s in at.spans if 2 * b >= (s.step.diameter_mm or 0.0) - 1e-9]
    one = max(fits or at.spans[-1:], key=lambda s: (s.step.diameter_mm or 0.0, s.start))
    return rectangle(at.x(one.start), b, at.x(one.end), a)


def _shapes(cuts: tuple[PlannedCut, ...], at: Placed) -> tuple[Shape, ...]:
    """What each cut takes."""
    return tuple(
        Shape(
            f"cut-{c.id}",
            "cut",
            _region(c, at),
            stops=EVERYWHERE,
            facts=(f"tool_{c.id}", *(f"cut_{c.id}_{n}" for n in LIT)),
        )
        for c in cuts
        if c.from_diameter_mm is not None
    )


def _dimensions(cuts: tuple[PlannedCut, ...], at: Placed) -> Iterator[Dimension]:
    """From and to of every cut; shown while the fact is pointed at."""
    for cut in cuts:
        for name, value in (("from_diameter_mm", cut.from_diameter_mm), ("to_diameter_mm", cut.to_diameter_mm)):
            if value:
                fact = f"cut_{cut.id}_{name}"
                ends, off = ((at.end, -value / 2), (at.end, value / 2)), at.right - at.end + 34
                yield Dimension(fact, fact, *ends, off, Figure(value, "mm"), "Ø ", stops=("pointed",))


def _words(figures: CutsFigures | None) -> Iterator[Sentence]:
    def size(value: float | None) -> Figure:
        return Figure(value or 0, "mm", exact=True, places=(2, 3))

    for c in figures.cuts if figures else ():
        cut = c.planned
        sizes = {"a": size(cut.from_diameter_mm), "b": size(cut.to_diameter_mm)}
        deep = Sentence("")
        if cut.depth_mm:
            deep = Sentence(", {d} deep a pass", d=size(cut.depth_mm))
        elif cut.kind == "drill" and cut.length_mm:
            deep = Sentence(", {d} into the part", d=size(cut.length_mm))
        yield Sentence("{name}: from Ø{a} to Ø{b}{deep}.", name=c.name, deep=deep, **sizes)


TOOL_BACK_MM, TOOL_OUT_MM = 26.0, 34.0  # of a tool that much is drawn, back from its tip and out from it
SHOWN_TIMES = 6.0  # a tool that stays farther than so many times the least is not drawn


def _tools(view: View, at: Placed) -> Iterator[Shape | Dimension]:
    """The tools that come near to something, at the end of their path, with the smallest distance."""
    clear, least = view[CLEAR], view.document.in_force.clearance_mm
    for near in clear.nearest.values() if clear else ():
        if near.distance_mm > SHOWN_TIMES * least:
            continue
        cut, tip = near.cut, near.cut.after / 2
        low, high = (max(0.0, tip - TOOL_OUT_MM), tip) if cut.inside else (tip, tip + TOOL_OUT_MM)
        piece = cut.at_end().intersection(rectangle_mm(cut.end - TOOL_BACK_MM, cut.end + TOOL_BACK_MM, low, high))
        facts = (f"cut_{cut.id}_clear", f"tool_{cut.id}")
        for i, polygon in enumerate(polygons(piece)):
            outline = tuple((at.end - z, r) for z, r in polygon.exterior.coords)
            role: Role = "keepout" if near.distance_mm < least else "ghost"
            yield Shape(f"tool-{cut.id}-{i}" if i else f"tool-{cut.id}", role, outline, facts=facts, stops=("cuts",))
        (z0, r0), (z1, r1) = near.tool, near.other
        if near.distance_mm > 0 and (abs(z1 - z0) < 1e-6 or abs(r1 - r0) < 1e-6):
            figure = Figure(near.distance_mm, "mm", "down", (2, 3))
            ends = (at.end - z0, r0), (at.end - z1, r1)
            yield Dimension(f"clear-{cut.id}", facts[0], *ends, 0, figure, "", " clear", stops=("cuts",))


def layers(view: View, standing: Standing) -> Iterator[Layer]:
    """What each cut takes, and its diameters."""
    at, figures, cuts = placed(view, standing), view[CUTS], view.setup.cuts
    if at is None:
        return
    shapes = _shapes(cuts, at) if figures else ()
    near = tuple(_tools(view, at))
    drawn = tuple(s for s in near if isinstance(s, Shape))
    measured = tuple(d for d in near if isinstance(d, Dimension))
    yield Layer(2, (*shapes, *drawn), (*_dimensions(cuts, at), *measured), tuple(_words(figures)))


def pictures(view: View, figures: CutsFigures) -> tuple[Bars | Curves, ...]:
    """Feed windows of the turning cuts, and speed against diameter of what goes across."""
    machine, clamp = view.shelf.machine, view.setup.clamp_rpm
    most = machine.max_rpm if machine else 0.0
    found: list[Bars | Curves] = []
    for c in figures.cuts:
        w, p = c.consulted.window, c.planned
        if w is not None:
            s = w.schools
            rows = [Range("corner radius", s.radius.feed_min_mm_rev, s.radius.feed_max_mm_rev)]
            rows += [Range("finish", None, s.finish.feed_max_mm_rev)] if s.finish else []
            rows += [Range("chip breaker", s.breaker.feed_min_mm_rev, s.breaker.feed_max_mm_rev)] if s.breaker else []
            ends = Figure(w.feed_min_mm_rev, "mm/rev", "up"), Figure(w.feed_max_mm_rev, "mm/rev", "down")
            clash = w.feed_min_mm_rev > w.feed_max_mm_rev
            words = Sentence(
                "They clash: at least {a}, at most {b}." if clash else "All allow {a} to {b}.", a=ends[0], b=ends[1]
            )
            found.append(
                Bars(
                    f"window_{c.id}",
                    "Feed window",
                    "mm/rev",
                    tuple(rows),
                    Range("shared", w.feed_min_mm_rev, w.feed_max_mm_rev),
                    p.feed_mm_rev,
                    words,
                    c.id,
                )
            )
        if p.kind in ("face", "part") and p.speed_m_min is not None and p.rpm is None:
            found.append(_speed_curves(c, p.speed_m_min, min(most, clamp or most)))
    return tuple(found)


def _speed_curves(cut: CutFigures, speed_m_min: float, cap_rpm: float) -> Curves:
    """How rpm and surface speed go on the way across, at constant surface speed up to the cap."""
    a, b = cut.planned.from_diameter_mm or 0.0, cut.planned.to_diameter_mm or 0.0
    outer_mm, inner_mm = max(a, b), min(a, b)
    cap, drive = cap_diameter(Working(), speed_m_min, cap_rpm), Turning(speed_m_min, None, cap_rpm)
    places = sorted(
        {
            outer_mm,
            inner_mm,
            *(inner_mm + (outer_mm - inner_mm) * i / STEPS for i in range(STEPS + 1)),
            *((cap,) if inner_mm < cap < outer_mm else ()),
        }
    )
    rpm = [(d, turns(Working(), drive, d)) for d in places]
    tops = cap > inner_mm
    words = Sentence(
        "From Ø{a} inwards the spindle stays at {n} and the surface speed falls to {v} at Ø{b}."
        if tops
        else "The spindle holds {v0} all the way; it reaches {n} at Ø{b}.",
        a=Figure(min(cap, outer_mm), "mm", places=(1, 3)),
        b=Figure(inner_mm, "mm", places=(1, 3)),
        n=Figure(rpm[0][1], "rpm", "down"),
        v=Figure(math.pi * inner_mm * rpm[0][1] / 1000, "m/min"),
        v0=Figure(speed_m_min, "m/min"),
    )
    return Curves(
        f"across_{cut.id}",
        "Speed against diameter",
        Curve("spindle", tuple(rpm)),
        Curve("surface", tuple((d, math.pi * d * n / 1000) for d, n in rpm)),
        min(cap, outer_mm) if tops else None,
        Sentence("tops out at Ø{d}", d=Figure(min(cap, outer_mm), "mm", places=(1, 3))),
        words,
        cut.id,
    )
