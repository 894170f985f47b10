"""Operations proposed from the part's profile, in the order of the work."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from calc.cuts.feed_window import finish_feed
from calc.cuts.part_off import width_for
from calc.errors import CalcError
from calc.notebook.proven import Proven, most_like
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import DRILL_LEAVES_MM, fitted, job_of, situation_of, worked_steps
from calc.plan.document import Document
from calc.plan.part.solve import PartFigures
from calc.plan.sides.solve import STOCK_GRIPS, is_bar_work, made_on_first
from calc.profile.body import End
from calc.profile.contour import Span
from calc.profile.grips import THIRD
from calc.rules import Rules
from calc.threads.chip import DEPTH_EXTERNAL, DEPTH_INTERNAL
from calc.threads.designation import designation
from calc.tools.choose import choose
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.insert import Insert
from calc.tools.library import EMPTY, Library
from calc.tools.rules.all_rules import BOOKS

ROUGH_DEPTH_MM = 2.0  # of a pass, per side (typical)
ROUGH_BORE_MM = 2.5  # more than this per side is roughed before it is finished (typical)
FINE_RA_UM = 3.2
PROVEN_FROM = 70.0  # how like a proven cut must be to be started from
BAR_PAST_MM = 2.0
INTO_MM = 0.4  # on diameter: a blade goes on into the hole
DIAMETER_STEPS = 0.5
LEAST_MM = 0.02  # less is no cut
TIGHT_BORE_MM = 0.05  # typical: a tolerance below it is bored in two passes after a drill
HELD_CLEAR_MM = 1.5  # of the jaws that hold a third: the clearance, and what a depth is rounded up by
BAND = ", to Ø"
BAND_MM = 8.0  # typical, per side: more is roughed in two cuts, each as deep as its own diameter allows


@dataclass(frozen=True)
class Side:
    """What a side's operations are proposed from."""

    part: PartFigures
    rules: Rules
    worked: End
    index: int
    last: bool
    alone: bool
    bar: bool
    quantity: int | None
    outside: tuple[Span, ...]
    inside: tuple[Span, ...]
    library: Library = EMPTY
    proven: tuple[Proven, ...] = ()
    finished: bool = False  # it is held on something that is finished already

    @property
    def raw_mm(self) -> float:
        """Stock on the held face [mm]."""
        return self.part.face_stock_mm if self.index == 0 and not self.bar and not self.finished else 0.0

    @property
    def stock_mm(self) -> float:
        """Diameter of the stock, across its corners, the part's largest where none is given."""
        stock = self.part.stock
        largest = max(s.step.diameter_mm or 0.0 for s in self.part.body.outside)
        return max(stock.corners * (stock.largest_mm or 0.0), stock.corners * (stock.diameter_mm or largest), largest)

    @property
    def round_mm(self) -> float:
        """Diameter down to which a bar with flats strikes; the stock's own where it has none."""
        stock = self.part.stock
        return (stock.diameter_mm or 0.0) if stock.flats else self.stock_mm


def side_of(
    document: Document,
    part: PartFigures,
    first: End,
    index: int,
    library: Library = EMPTY,
    proven: tuple[Proven, ...] = (),
) -> Side:
    """What is made on a side: seen from the end that is worked."""
    alone = len(document.setups) == 1
    worked: End = first if index == 0 else ("b" if first == "a" else "a")
    made = made_on_first(document, part, first)
    bar = is_bar_work(document, index)
    whole = alone and bar
    seen = worked_steps(part, worked, inside=False)
    mine = [s for s in seen if whole or (s.index in made) == (index == 0)]
    if len(seen) == 1 and not alone and not whole:
        bored = part.body.inside or part.body.inside_b or part.stock.bore_mm
        # A plain ring is bored first, and turned while it is held in the bore; a disc is turned in two goes.
        mine = [_go(seen[0], part.length_mm, index)] if not bored else list(seen) if index > 0 else []
    inside = part.body.inside if worked == "a" else part.body.inside_b
    if alone:
        inside = worked_steps(part, worked, inside=True)
    return Side(
        part,
        document.in_force,
        worked,
        index,
        index == len(document.setups) - 1,
        alone,
        bar,
        document.part.quantity,
        tuple(mine),
        inside,
        library,
        proven,
        document.setups[index].hold.grip not in ("", *STOCK_GRIPS),
    )


def _go(span: Span, length_mm: float, index: int) -> Span:
    """What of a plain solid part is turned on a side: first all but the third that is held, then the rest."""
    first = max(1.0, math.floor(2 * (length_mm * (1 - THIRD) - HELD_CLEAR_MM)) / 2)
    return replace(span, end=first if index == 0 else length_mm - first)


def _fine(span: Span) -> bool:
    """It is finished by a cut of its own: limits, or a fine surface."""
    step = span.step
    return step.limits_mm is not None or (step.ra_um is not None and step.ra_um <= FINE_RA_UM)


def _passes(per_side: float) -> float:
    """Depth [mm per side] that makes equal passes."""
    return round(per_side / max(1, math.ceil(per_side / ROUGH_DEPTH_MM - 1e-9)), 3)


def _face(side: Side) -> Iterator[PlannedCut]:
    stock = side.part.face_stock_mm
    if stock < LEAST_MM:
        return
    bored = side.part.stock.bore_mm or 0.0
    if (
        side.index > 0
        and side.inside == ()
        and side.part.body.bore_at(0.5 if side.worked == "a" else side.part.length_mm - 0.5) > 0
    ):
        bored = side.part.body.bore_at(0.5 if side.worked == "a" else side.part.length_mm - 0.5)
    yield PlannedCut(_named("Face", side), "face", round(side.stock_mm, 3), bored, depth_mm=_passes(stock))


def _called(what: str, span: Span) -> str:
    """ "Finish Bore", but "Thread" for a step that is called so already."""
    return what if span.step.name.casefold() == what.casefold() else f"{what} {span.step.name}"


def _named(what: str, side: Side) -> str:
    return what if side.index == 0 else f"{what}, side {side.index + 1}"


def _turned(side: Side) -> list[Span]:
    """Plain outside steps, the largest first; what rises toward the jaws is turned from the face down to it."""
    turned = (s for s in side.outside if not s.step.groove and not s.step.flats)
    return sorted(turned, key=lambda s: -(s.step.diameter_mm or 0.0))


def _outside(side: Side) -> tuple[list[PlannedCut], list[PlannedCut]]:
    """(roughing, finishing) of the outside steps."""
    rough: list[PlannedCut] = []
    finish: list[PlannedCut] = []
    leave, now = side.rules.finish_stock_mm, side.stock_mm
    for span in _turned(side):
        d = span.step.diameter_mm or 0.0
        fine = _fine(span) or bool(span.step.thread)
        to = d + 2 * leave if fine else d
        if now - to > 2 * LEAST_MM:
            stage = "rough" if fine or now - to > 2 * ROUGH_DEPTH_MM else "both"
            name = _called("Rough", span) if stage == "rough" else _called("Turn", span)
            middle = round((now + to) / 2, 1)
            bands: tuple[float, ...] = (middle, to) if (now - to) / 2 > BAND_MM else (to,)
            if now > side.round_mm > to + 2 * LEAST_MM:  # what strikes is a cut of its own
                bands = (side.round_mm, *(b for b in bands if b < side.round_mm))
            for band in bands:
                rough.append(
                    PlannedCut(
                        f"{name}{BAND}{band:g}" if band != to else name,
                        "turn",
                        round(now, 3),
                        round(band, 3),
                        depth_mm=_passes((now - band) / 2),
                        stage=stage if band == to else "rough",  # type: ignore[arg-type] # one of the two above
                        length_mm=round(span.end, 3),
                    )
                )
                now = band
        if fine:
            before = min(now, d + 2 * leave)
            if before - d > 2 * LEAST_MM:
                finish.append(
                    PlannedCut(
                        _called("Finish", span),
                        "turn",
                        round(before, 3),
                        d,
                        depth_mm=round((before - d) / 2, 3),
                        stage="finish",
                        start_mm=round(span.start, 3),
                        length_mm=round(span.end - span.start, 3),
                    )
                )
            now = min(now, before)
    return rough, finish


def _drill(side: Side) -> PlannedCut | None:
    """The largest drill that leaves the bar something; None where the stock is bored already."""
    if not side.inside or side.part.stock.bore_mm:
        return None
    smallest = min(side.inside, key=lambda s: s.step.diameter_mm or 0.0)
    d = smallest.step.diameter_mm or 0.0
    fine = _fine(smallest) or bool(smallest.step.thread)
    most = d - 2 * DRILL_LEAVES_MM if fine else d
    deep = max(s.end for s in side.inside)
    if smallest.step.length_mm is None:
        deep += max(BAR_PAST_MM, side.raw_mm)
    if most <= 0:
        return None
    cut = PlannedCut(
        "Drill",
        "drill",
        0.0,
        round(math.floor(most / DIAMETER_STEPS) * DIAMETER_STEPS or most, 3),
        length_mm=round(deep, 3),
    )
    return _tooled(cut, side)


def _tight(span: Span) -> bool:
    """Its limits are as narrow as a drilled hole's unevenness."""
    limits = span.step.limits_mm
    return limits is not None and limits[1] - limits[0] < TIGHT_BORE_MM


def _bored(side: Side, drilled: float) -> tuple[list[PlannedCut], list[PlannedCut]]:
    rough: list[PlannedCut] = []
    finish: list[PlannedCut] = []
    leave = side.rules.finish_stock_mm
    for span in sorted((s for s in side.inside if not s.step.groove), key=lambda s: s.step.diameter_mm or 0.0):
        d, now = span.step.diameter_mm or 0.0, drilled
        fine = _fine(span) or bool(span.step.thread)
        # A bore that goes through is bored through the stock on the held face too.
        through = side.raw_mm if span.step.length_mm is None else 0.0
        length = round(span.end - span.start + through, 3)
        if d - now < 0.02:
            continue
        if (d - now) / 2 > ROUGH_BORE_MM or (fine and (d - now) / 2 > leave + 1.0):
            to = d - 2 * leave if fine else d
            rough.append(
                PlannedCut(
                    _called("Rough", span),
                    "bore",
                    round(now, 3),
                    round(to, 3),
                    depth_mm=_passes((to - now) / 2),
                    stage="rough",
                    start_mm=round(span.start, 3),
                    length_mm=length,
                )
            )
            now = to
        elif fine and now <= drilled + 1e-9 and _tight(span):  # after a drill two equal passes: the second is even
            middle = round((d + now) / 2, 3)
            rough.append(
                PlannedCut(
                    _called("Even", span),
                    "bore",
                    round(now, 3),
                    middle,
                    depth_mm=round((middle - now) / 2, 3),
                    stage="rough",
                    start_mm=round(span.start, 3),
                    length_mm=length,
                )
            )
            now = middle
        if fine or d - now > 1e-6:
            finish.append(
                PlannedCut(
                    _called("Finish", span) if fine else _called("Bore", span),
                    "bore",
                    round(now, 3),
                    d,
                    depth_mm=round((d - now) / 2, 3),
                    stage="finish" if fine else "both",
                    start_mm=round(span.start, 3),
                    length_mm=length,
                )
            )
    return rough, finish


def _grooves(side: Side) -> list[PlannedCut]:
    found = []
    for steps, sign in ((side.outside, 1.0), (side.inside, -1.0)):
        for i, span in enumerate(steps):
            if not span.step.groove:
                continue
            d = span.step.diameter_mm or 0.0
            beside = [s.step.diameter_mm or 0.0 for s in (*steps[max(0, i - 1) : i], *steps[i + 1 : i + 2])]
            # Of what stands beside it, the nearer one is where the plunge begins to cut.
            proud = [b for b in beside if sign * (b - d) > 0]
            if not proud:
                continue
            width = round(span.end - span.start, 3)
            found.append(
                PlannedCut(
                    _called("Groove", span),
                    "groove",
                    min(proud, key=lambda b: sign * b),
                    d,
                    width_mm=width,
                    start_mm=round(span.start, 3),
                    length_mm=width,
                )
            )
    return found


def _threads(side: Side) -> list[PlannedCut]:
    found = []
    for inside, steps in ((False, side.outside), (True, side.inside)):
        for span in steps:
            named = designation(span.step.thread) if span.step.thread else None
            if named is None:
                continue
            root = round(named.major_mm - 2 * (DEPTH_INTERNAL if inside else DEPTH_EXTERNAL) * named.pitch_mm, 3)
            a, b = (root, named.major_mm) if inside else (named.major_mm, root)
            long = span.step.thread_length_mm or span.end - span.start
            found.append(
                PlannedCut(
                    _called("Thread", span),
                    "thread",
                    a,
                    b,
                    feed_mm_rev=round(named.pitch_mm, 6),
                    thread=span.step.thread,
                    start_mm=round(span.start, 3),
                    length_mm=round(long, 3),
                )
            )
    return found


def _parted(side: Side, hole: float) -> list[PlannedCut]:
    """Parting off a bar, into what is drilled through it: a finished bore ends at the part's own end."""
    if not side.bar:
        return []
    last = side.outside[-1].step.diameter_mm or side.stock_mm if side.outside else side.stock_mm
    end = (
        side.part.body.widest_bore(side.part.length_mm - 2.0, side.part.length_mm)
        if side.worked == "a"
        else side.part.body.widest_bore(0.0, 2.0)
    )
    if end > 0 and 0 < hole < end:
        end = max(0.0, round(hole - INTO_MM, 3))
    width = width_for(side.stock_mm) or 4.0
    return [
        PlannedCut(
            "Part off",
            "part",
            round(max(last, side.stock_mm), 3),
            end,
            width_mm=width,
            # What the second side faces stays on the piece.
            start_mm=side.part.length_mm + (0.0 if side.alone else side.part.face_stock_mm),
        )
    ]


def propose(side: Side) -> tuple[PlannedCut, ...]:
    """A side's operations in the order of the work, each with a tool where the shelf has one, and first figures.

    Order: face, rough outside, finish outside, drill, rough bore, finish bore, grooves and threads by the shop's
    school, part-off.
    """
    rough, finish = _outside(side)
    drilled = _drill(side)
    hole = side.part.stock.bore_mm or 0.0
    if drilled is not None:
        hole = fitted(drilled, side.library).planned.to_diameter_mm or 0.0
    rough_bore, finish_bore = _bored(side, hole) if side.inside else ([], [])
    grooves, threads = _grooves(side), _threads(side)
    relief = [*grooves, *threads] if side.rules.thread_relief == "groove" else [*threads, *grooves]
    cuts = [
        *_face(side),
        *rough,
        *finish,
        *([drilled] if drilled else []),
        *rough_bore,
        *finish_bore,
        *relief,
        *_parted(side, hole),
    ]
    seen: dict[str, int] = {}
    made = []
    for cut in cuts:
        seen[cut.name] = seen.get(cut.name, 0) + 1
        named = cut if seen[cut.name] == 1 else replace(cut, name=f"{cut.name} {seen[cut.name]}")
        made.append(_tooled(named, side))
    return tuple(_figured(cut, side) for cut in _of_one_tool(made))


def _of_one_tool(cuts: list[PlannedCut]) -> Iterator[PlannedCut]:
    """The bands of one roughing cut take the tool of its last."""
    tools = {cut.name: cut.tool for cut in cuts}
    for cut in cuts:
        whole = cut.name.partition(BAND)[0]
        yield replace(cut, tool=tools[whole]) if whole != cut.name and whole in tools else cut


def _tooled(cut: PlannedCut, side: Side) -> PlannedCut:
    if cut.tool:
        return cut
    job = job_of(cut, side.part, side.worked, side.rules, 0.0, side.quantity)
    found = choose(side.library, BOOKS[cut.kind], job)
    return replace(cut, tool=found.first[0].tool.key) if found.first else cut


def _figured(cut: PlannedCut, side: Side) -> PlannedCut:
    """First figures: speed from the material's window, feed from what edge and finish allow.

    Settling makes them good.
    """
    fit = fitted(cut, side.library)
    material, tool = side.part.material, fit.tool
    low, high = speed_window(cut.kind, tool, material)
    share = {"rough": 0.35, "both": 0.5, "finish": 0.8}[cut.stage]
    if cut.kind in ("part", "groove"):
        share = 0.35 if side.rules.part_start == "mid" else 0.8
    speed = low + share * (high - low)
    if cut.kind == "thread":
        speed = high
    more: dict[str, Any] = {"speed_m_min": float(round(speed))}
    edge = tool.edge if tool else None
    if cut.by_depth:
        more["feed_mm_rev"] = _feed(fit.planned, edge if isinstance(edge, Insert) else None, side, cut)
    elif cut.kind in ("drill", "part", "groove"):
        window = (edge.feed_min, edge.feed_max) if isinstance(edge, (Drill, GrooveInsert)) else (0.05, 0.15)
        keen = 0.5 if cut.kind == "drill" else 0.2 if side.rules.part_start == "mid" else 0.9
        more["feed_mm_rev"] = round(window[0] + keen * (window[1] - window[0]), 3)
        if cut.kind == "part":
            more["slow_feed_mm_rev"] = round(more["feed_mm_rev"] * 0.4, 3)
    worked = _proven(cut, side) if side.rules.first_speed == "proven" else None
    if worked is not None:
        more |= {"speed_m_min": worked.speed_m_min} | (
            {} if cut.kind == "thread" else {"feed_mm_rev": worked.feed_mm_rev}
        )
        more.pop("slow_feed_mm_rev", None)
    try:
        return replace(cut, **more)
    except CalcError:
        return cut


def _proven(cut: PlannedCut, side: Side) -> Proven | None:
    """What worked before in as good as the same situation; None where nothing is like enough."""
    found = most_like(situation_of(cut, fitted(cut, side.library).tool, side.part), side.proven, 1)
    return found[0].proven if found and found[0].score >= PROVEN_FROM else None


def _feed(cut: PlannedCut, insert: Insert | None, side: Side, asked: PlannedCut) -> float:
    r = cut.corner_radius_mm
    job = job_of(asked, side.part, side.worked, side.rules, 0.0, side.quantity)
    high = 2 * r / 3
    low = r / 3
    if job.ra_um is not None and cut.stage != "rough":
        high = min(high, finish_feed(job.ra_um, r, wiper=insert is not None and insert.edge == "wiper"))
    if insert is not None:
        low, high = max(low, insert.feed_min), min(high, insert.feed_max)
    keen = 0.35 if cut.stage == "rough" else 0.6
    return max(0.01, math.floor((low + keen * (high - low) if low < high else high) * 1000) / 1000)
