"""A tool's own outline in the half-section: what of it must stay clear of jaws, chuck and centre.

Drawn with its tip at the origin: z along the spindle toward the chuck, r outward for a tool that works outside, inward
(r below 0) for one that works in a bore. A holder carries its insert from the side away from the chuck.
"""

from __future__ import annotations

import math

from shapely import Polygon, box
from shapely.geometry.base import BaseGeometry

from calc.tools.kinds.blade import Blade
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool

OUT_MM = 120.0  # a holder is counted this far out from its tip, a bar this far back
HEAD_MM = 32.0  # typical: width of a holder's head along the spindle
RELIEF_DEG = 5.0  # typical: between the trailing edge and the surface it leaves
EDGE_MM = 12.0  # typical length of an edge, where the tool is not chosen
BAR_SHARE = 0.7  # typical: of the bore, where no bar is chosen
BLADE_OUT_MM = 30.0  # typical hang-out of a blade or a groover, where it is not on its record
FLANK_DEG = 30.0  # of a thread's profile
FRONT_MM = 1.5  # typical: a threading insert stands this far before its tip


def _edge_mm(tool: Tool | None) -> float:
    insert = tool.edge if tool else None
    return insert.decoded.edge_mm if isinstance(insert, Insert) else EDGE_MM


def turning(tool: Tool | None, approach_deg: float) -> BaseGeometry:
    """An outside turning tool: its edge leans forward below 90° of approach; behind its tip it rises."""
    edge, kappa = _edge_mm(tool), math.radians(approach_deg)
    forward, up = max(0.0, edge * math.cos(kappa)), edge * math.sin(kappa)
    rise = HEAD_MM * math.tan(math.radians(RELIEF_DEG))
    return Polygon([(0, 0), (forward, up), (forward, OUT_MM), (-HEAD_MM, OUT_MM), (-HEAD_MM, rise)])


def boring(tool: Tool | None, approach_deg: float, bore_mm: float) -> BaseGeometry:
    """A boring bar: its shank lies toward the axis and goes back out of the bore."""
    carrier = tool.carrier if tool else None
    shank = carrier.shank_mm if isinstance(carrier, Holder) else BAR_SHARE * bore_mm
    kappa, edge = math.radians(approach_deg), min(_edge_mm(tool), shank)
    forward, down = max(0.0, edge * math.cos(kappa)), edge * math.sin(kappa)
    rise = min(shank / 4, HEAD_MM * math.tan(math.radians(RELIEF_DEG)))
    return Polygon(
        [(0, 0), (forward, -down), (forward, -shank), (-OUT_MM, -shank), (-OUT_MM, -rise), (-HEAD_MM, -rise)]
    )


def plunging(tool: Tool | None, width_mm: float, depth_mm: float, inside: bool) -> BaseGeometry:
    """A groover or a blade from its chuck-side corner: as wide as its edge as far as it hangs out, then its block."""
    carrier = tool.carrier if tool else None
    reach = carrier.reach_mm if isinstance(carrier, (Blade, Holder)) and not inside else None
    out = max(reach or BLADE_OUT_MM, depth_mm) if not inside else depth_mm + 1.0
    sign = -1.0 if inside else 1.0
    shank = carrier.shank_mm if isinstance(carrier, (Blade, Holder)) else HEAD_MM
    edge = box(-width_mm, min(0.0, sign * out), 0.0, max(0.0, sign * out))
    back = OUT_MM if inside else shank
    far = sign * (out + (shank if inside else OUT_MM))
    block = box(-back, min(sign * out, far), 0.0, max(sign * out, far))
    return edge.union(block)


def threading(tool: Tool | None, inside: bool, bore_mm: float) -> BaseGeometry:
    """A threading tool: its profile, and the part of its insert that stands before its tip."""
    carrier = tool.carrier if tool else None
    up = FRONT_MM / math.tan(math.radians(FLANK_DEG))
    if not inside:
        return Polygon(
            [(0, 0), (FRONT_MM, up), (FRONT_MM, OUT_MM), (-HEAD_MM, OUT_MM), (-HEAD_MM, up), (-FRONT_MM, up)]
        )
    shank = carrier.shank_mm if isinstance(carrier, Holder) else BAR_SHARE * bore_mm
    up = min(up, shank)
    return Polygon([(0, 0), (FRONT_MM, -up), (FRONT_MM, -shank), (-OUT_MM, -shank), (-OUT_MM, -up), (-FRONT_MM, -up)])


def drilling(diameter_mm: float, point_deg: float) -> BaseGeometry:
    """A drill about the axis: the origin is where its full diameter ends on the axis; the point stands before it."""
    r = diameter_mm / 2
    point = r / math.tan(math.radians(point_deg / 2))
    return Polygon([(-OUT_MM * 4, 0), (0, 0), (point, 0), (0, r), (-OUT_MM * 4, r)])
