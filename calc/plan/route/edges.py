"""Edges that a run uses up, by the tool that has them: all cuts of one tool wear one edge."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from calc.plan.cuts.edge import edges_of
from calc.plan.cuts.solve import CutFigures
from calc.plan.cuts.tooling import edge_name


@dataclass(frozen=True)
class EdgeNeed:
    """What a run needs of one tool: edges, inserts by designation, how many are on the shelf.

    `per_edge`: pieces that one edge lasts, None where nobody knows.
    """

    name: str
    per_edge: int | None
    edges: int
    inserts: int
    stock: int | None


def tool_of(cut: CutFigures) -> str:
    """What stands at a station for a cut: its tool, or its own where none is chosen."""
    return cut.planned.tool or cut.name


def by_lives(cuts: Sequence[CutFigures]) -> int | None:
    """Whole pieces that an edge lasts by the lives of these cuts; None where the life of none is known.

    An edge that lasts T_i minutes at cut i and is t_i minutes in it wears by t_i/T_i a piece: one over the sum.
    """
    worn = sum(c.minutes / c.consulted.life.life_min for c in cuts if c.consulted.life is not None)
    return max(1, math.floor(1 / worn + 1e-9)) if worn else None


def per_edge(cuts: Sequence[CutFigures]) -> int | None:
    """Whole pieces that an edge lasts which makes all of these cuts: what edges really lasted where somebody said it,
    the least of it; else by their lives. None where neither is known.
    """
    seen = [c.planned.lasted_pieces for c in cuts if c.planned.lasted_pieces is not None]
    return min(seen) if seen else by_lives(cuts)


def needs_of(turret: Sequence[CutFigures], pieces: int) -> list[EdgeNeed]:
    """What a run of so many pieces needs of each tool of a turret."""
    found = []
    for tool in dict.fromkeys(tool_of(c) for c in turret):
        cuts = [c for c in turret if tool_of(c) == tool]
        lasts, has = per_edge(cuts), cuts[0].tool
        edges = math.ceil(pieces / lasts) if lasts else 1
        name = edge_name(has) or f"for {cuts[0].name}: none chosen"
        inserts = math.ceil(edges / edges_of(has))
        found.append(EdgeNeed(name, lasts, edges, inserts, getattr(has.edge, "stock", None) if has else None))
    return found
