"""What the edge of a cut stands: its speed window, its life's exponent, how many edges there are."""

from __future__ import annotations

from calc.cuts.tool_life import EXPONENTS
from calc.shelf.material import Material
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.insert import Insert
from calc.tools.kinds.thread_insert import ThreadInsert
from calc.tools.library import Tool

# Speed over that of a coated carbide, by what the edge is (typical); aluminium and copper run on bright carbide.
SPEED_FACTORS = {
    ("carbide", "coated"): 1.0,
    ("carbide", "none"): 0.7,
    ("carbide", "diamond"): 1.5,
    ("cermet", "coated"): 1.1,
    ("cermet", "none"): 1.1,
    ("cermet", "diamond"): 1.1,
    ("hss", "none"): 0.25,
    ("hss", "coated"): 0.35,
    ("hss", "diamond"): 0.35,
}
# Of the turning window, by what a drill is made of (typical).
DRILL_SPEEDS = {"carbide": 0.5, "cermet": 0.5, "hss": 0.2}
THREAD_SPEED = 0.6  # of the window's slow end (typical); never above that end itself
REFERENCE_SHARE, REFERENCE_FEED, REFERENCE_DEPTH = 0.85, 0.3, 2.0


def speed_factor(tool: Tool | None, material: Material) -> float:
    """Speed of an edge over a coated carbide's (typical)."""
    if tool is None:
        return 1.0
    edge = tool.edge
    if isinstance(edge, Drill):
        return DRILL_SPEEDS[edge.substrate]
    if material.iso_group == "N" and edge.substrate == "carbide" and edge.coating == "none":
        return 1.0
    return SPEED_FACTORS[edge.substrate, edge.coating]


def reference_speed(tool: Tool | None, material: Material) -> float:
    """Speed [m/min] that lasts fifteen minutes at the reference feed and depth (typical)."""
    return REFERENCE_SHARE * material.speed_high_m_min * speed_factor(tool, material)


def exponent_of(tool: Tool | None) -> float:
    """Taylor's exponent of an edge (typical)."""
    if tool is None or (tool.edge.substrate != "hss" and tool.edge.coating != "none"):
        return EXPONENTS["coated"]
    return EXPONENTS["hss" if tool.edge.substrate == "hss" else "uncoated"]


def edges_of(tool: Tool | None) -> int:
    """Edges of an insert."""
    match tool.edge if tool else None:
        case Insert() as insert:
            return insert.decoded.edges
        case GrooveInsert() | ThreadInsert() as insert:
            return insert.edges
    return 1


def speed_window(kind: str, tool: Tool | None, material: Material) -> tuple[float, float]:
    """Surface speeds [m/min] that are typical for a kind of cut with this edge in this material."""
    # The material's window is a coated carbide's turning; other edges have theirs, and so have drills and threads.
    factor = speed_factor(tool, material) * (DRILL_SPEEDS["carbide"] if kind == "drill" and tool is None else 1.0)
    if kind == "thread":
        slow = factor * material.speed_low_m_min
        return THREAD_SPEED / 2 * slow, THREAD_SPEED * slow
    return factor * material.speed_low_m_min, factor * material.speed_high_m_min
