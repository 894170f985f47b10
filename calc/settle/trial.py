"""A candidate put to the whole plan: its figures entered, and the plan's own word on them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from calc.errors import CalcError
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Document
from calc.plan.force.solve import FORCE
from calc.plan.outcome import Figures
from calc.plan.paths import place_of
from calc.plan.solve import solve
from calc.settle.candidates import Candidates
from calc.shelf.taken import Shelf

# What is said of a single load: another cut's does not speak against this one.
OF_LOADS = ("over-cap", "little-grip-kept", "corner-slips", "grip-too-small")


def figures_of(cut: CutFigures, found: Candidates, row: int) -> dict[str, float]:
    """What a candidate enters into the plan."""
    planned = cut.planned
    feed, speed = round(float(found.feed[row]), 6), round(float(found.speed[row]), 6)
    changed: dict[str, float] = {}
    if planned.kind != "thread":
        changed["feed_mm_rev"] = feed
        if planned.by_depth:
            changed["depth_mm"] = round(float(found.depth[row]), 6)
        if planned.slow_feed_mm_rev is not None and planned.feed_mm_rev:
            changed["slow_feed_mm_rev"] = round(feed * planned.slow_feed_mm_rev / planned.feed_mm_rev, 6)
    else:
        changed["passes"] = int(found.passes[row])
    if planned.rpm is None:
        changed["speed_m_min"] = speed
        changed["clamp_rpm"] = float(found.clamp[row])
    return changed


def with_cut(document: Document, index: int, cut: str, changed: Mapping[str, Any]) -> Document:
    """The document with the figures of a cut changed, by its id. Raises CalcError."""
    setup = document.setups[index]
    cuts = tuple(replace(c, **changed) if c.id == cut else c for c in setup.cuts)
    return replace(
        document, setups=tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    )


def keeps_all(figures: Figures, cut: str | None = None) -> bool:
    """The whole plan's own word: nothing of the side's cuts, jaws' force, clearances or spindle is stopped.

    `cut`: only what is of this one, and what is of no cut.
    """
    force, cuts, clear = figures[FORCE], figures[CUTS], figures[CLEAR]
    if force is None or cuts is None or clear is None:
        return False
    if cut is None:
        return not any(n.level == "stop" for n in (*force.notes, *cuts.notes, *clear.notes))
    load, one = force.load_of(cut), next(c for c in cuts.cuts if c.id == cut)
    if load is None or load.is_over or load.held_corner < 1 - 1e-9:
        return False
    of_all = (n for n in force.notes if n.code not in OF_LOADS)
    return not any(n.level == "stop" for n in (*of_all, *one.notes, *clear.by_cut.get(cut, ())))


@dataclass(frozen=True, eq=False)
class Trial:
    """A plan in which a cut is settled: the document, the shelf, the set-up and the cut's id."""

    document: Document
    shelf: Shelf
    index: int
    cut: str

    def accepted(self, found: Candidates, row: int) -> PlannedCut | None:
        """The cut with a candidate's figures, where the whole plan takes it."""
        try:
            changed = with_cut(self.document, self.index, self.cut, figures_of(found.cut, found, row))
        except CalcError:
            return None
        if not keeps_all(solve(changed, self.shelf, self.index), self.cut):
            return None
        cuts = changed.setups[self.index].cuts
        return cuts[place_of(cuts, self.cut)]
