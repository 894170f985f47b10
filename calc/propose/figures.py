"""A tool for a proposed cut, and its first figures."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from calc.cuts.feed_window import finish_feed
from calc.errors import CalcError
from calc.notebook.proven import Proven, most_like
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import fitted, job_of, situation_of
from calc.propose.side import Side
from calc.tools.choose import choose
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.insert import Insert
from calc.tools.rules.all_rules import BOOKS

PROVEN_FROM = 70.0  # how like a proven cut must be to be started from


def tooled(cut: PlannedCut, side: Side) -> PlannedCut:
    """The cut with the best tool of the shelf for it, where there is one and it has none."""
    if cut.tool:
        return cut
    job = job_of(cut, side.part, side.worked, side.rules, 0.0, side.quantity)
    found = choose(side.library, BOOKS[cut.kind], job)
    return replace(cut, tool=found.first[0].tool.key) if found.first else cut


def figured(cut: PlannedCut, side: Side) -> PlannedCut:
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
