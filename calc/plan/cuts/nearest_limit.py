"""What a cut is nearest to: of everything that limits it, the limit of which most is used."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from calc.plan.cuts.solve import CutFigures
from calc.plan.force.held import LoadHeld
from calc.plan.stop import Fact, said
from calc.quantities import Figure, Sentence
from calc.rules import Rules
from calc.tools.kinds.insert import Insert

NEAR = 0.5  # less of every limit is near to none


@dataclass(frozen=True)
class Near:
    """A limit, and the share of it that is used: 1 at the limit."""

    name: str
    share: float

    @property
    def words(self) -> Sentence:
        """The limit with the share, rounded up: a cut at its limit reads as one."""
        share = Figure(100 * self.share, "%", "up" if self.share > 1 + 1e-9 else "near", (0, 0))
        return Sentence("{n} {x}", n=self.name, x=share)


def _shares(c: CutFigures, load: LoadHeld | None, rules: Rules) -> Iterator[Near]:
    yield Near("spindle", c.over)
    if load is not None:
        used = load.needed_n / load.counted_n if load.counted_n > 0 else math.inf
        yield Near("grip", max(used, 1 / load.held_corner if load.held_corner > 0 else math.inf))
        if load.cap_rpm > 0:
            yield Near("speed cap", load.top_rpm / load.cap_rpm)
    feed, depth, tool = c.planned.feed_mm_rev or 0.0, c.planned.depth_mm or 0.0, c.tool
    window = c.consulted.window
    if window is not None:
        schools = window.schools
        for name, found in (("corner", schools.radius), ("finish", schools.finish)):
            if found is not None and found.feed_max_mm_rev:
                yield Near(name, feed / found.feed_max_mm_rev)
    if tool is not None and isinstance(tool.edge, Insert) and c.planned.by_depth:
        yield Near("breaker's feed", feed / tool.edge.breaker.feed_max)
        yield Near("breaker's depth", depth / tool.edge.breaker.depth_max)
    if c.consulted.life is not None and c.consulted.life.life_min > 0:
        yield Near("edge life", rules.least_life_min / c.consulted.life.life_min)
    bar, asked = c.consulted.bar, c.consulted.bar_asked
    if bar is not None and asked is not None and asked.tolerance_mm and bar.spread_mm is not None:
        yield Near("bar's bend", bar.spread_mm / (asked.tolerance_mm / 4))


def nearest_limit(cut: CutFigures, load: LoadHeld | None, rules: Rules) -> Near | None:
    """The limit that a cut is nearest to as it is planned; None where it uses less than half of every one.

    `load`: the cut in its grip, None while that is not known. The edge's life counts against the least that the house
    rules ask for, everything else against its own limit.
    """
    most = max(_shares(cut, load, rules), key=lambda near: near.share)
    return most if most.share >= NEAR else None


def near_fact(cut: CutFigures, load: LoadHeld | None, rules: Rules) -> Fact:
    """The same as a line of the ledger."""
    near = nearest_limit(cut, load, rules)
    why = Sentence("of everything that limits it the one most used")
    return said(f"cut_{cut.id}_near", "Nearest limit", near.words.text() if near else "none near", why, cut.id)
