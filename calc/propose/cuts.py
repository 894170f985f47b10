"""The cuts that a side asks for, by kind, without tools and figures."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.cuts.part_off import width_for
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import DRILL_LEAVES_MM
from calc.propose.figures import tooled
from calc.propose.side import Side, called, equal_depth, is_fine, is_tight, named, turned

ROUGH_DEPTH_MM = 2.0  # of a pass, per side (typical)
ROUGH_BORE_MM = 2.5  # more than this per side is roughed before it is finished (typical)
BAR_PAST_MM = 2.0
INTO_MM = 0.4  # on diameter: a blade goes on into the hole
DIAMETER_STEPS = 0.5
LEAST_MM = 0.02  # less is no cut
BAND = ", to Ø"
BAND_MM = 8.0  # typical, per side: more is roughed in two cuts, each as deep as its own diameter allows


def face(side: Side) -> Iterator[PlannedCut]:
    """Facing what stock stands on the end that is worked."""
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
    yield PlannedCut(named("Face", side), "face", round(side.stock_mm, 3), bored, depth_mm=equal_depth(stock))


def outside(side: Side) -> tuple[list[PlannedCut], list[PlannedCut]]:
    """(roughing, finishing) of the outside steps."""
    rough: list[PlannedCut] = []
    finish: list[PlannedCut] = []
    leave, now = side.rules.finish_stock_mm, side.stock_mm
    for span in turned(side):
        d = span.step.diameter_mm or 0.0
        fine = is_fine(span) or bool(span.step.thread)
        to = d + 2 * leave if fine else d
        if now - to > 2 * LEAST_MM:
            stage = "rough" if fine or now - to > 2 * ROUGH_DEPTH_MM else "both"
            name = called("Rough", span) if stage == "rough" else called("Turn", span)
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
                        depth_mm=equal_depth((now - band) / 2),
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
                        called("Finish", span),
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


def drill(side: Side) -> PlannedCut | None:
    """The largest drill that leaves the bar something; None where the stock is bored already."""
    if not side.inside or side.part.stock.bore_mm:
        return None
    smallest = min(side.inside, key=lambda s: s.step.diameter_mm or 0.0)
    d = smallest.step.diameter_mm or 0.0
    fine = is_fine(smallest) or bool(smallest.step.thread)
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
    return tooled(cut, side)


def bored(side: Side, drilled: float) -> tuple[list[PlannedCut], list[PlannedCut]]:
    """(roughing, finishing) of the bores, beginning at what is drilled [mm]."""
    rough: list[PlannedCut] = []
    finish: list[PlannedCut] = []
    leave = side.rules.finish_stock_mm
    for span in sorted((s for s in side.inside if not s.step.groove), key=lambda s: s.step.diameter_mm or 0.0):
        d, now = span.step.diameter_mm or 0.0, drilled
        fine = is_fine(span) or bool(span.step.thread)
        # A bore that goes through is bored through the stock on the held face too.
        through = side.raw_mm if span.step.length_mm is None else 0.0
        length = round(span.end - span.start + through, 3)
        if d - now < 0.02:
            continue
        if (d - now) / 2 > ROUGH_BORE_MM or (fine and (d - now) / 2 > leave + 1.0):
            to = d - 2 * leave if fine else d
            rough.append(
                PlannedCut(
                    called("Rough", span),
                    "bore",
                    round(now, 3),
                    round(to, 3),
                    depth_mm=equal_depth((to - now) / 2),
                    stage="rough",
                    start_mm=round(span.start, 3),
                    length_mm=length,
                )
            )
            now = to
        elif fine and now <= drilled + 1e-9 and is_tight(span):  # after a drill two equal passes: the second is even
            middle = round((d + now) / 2, 3)
            rough.append(
                PlannedCut(
                    called("Even", span),
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
                    called("Finish", span) if fine else called("Bore", span),
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


def parted(side: Side, hole: float) -> list[PlannedCut]:
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
