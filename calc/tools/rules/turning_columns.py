"""Figures of a turning insert in its holder, one at a time: the columns that rules and preferences work on."""

from __future__ import annotations

import math
from typing import Any, cast

import numpy as np

from calc.tools.boring_bar import CHIP_ROOM_SHARE, overhang_limit
from calc.tools.choose import Array, Columns, Job
from calc.tools.designation import SHAPES
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool

# Share of the edge that may cut, by shape; others as the weakest that is like them.
USABLE = {
    "C": 2 / 3,
    "S": 2 / 3,
    "W": 1 / 2,
    "T": 1 / 2,
    "D": 1 / 3,
    "V": 1 / 4,
    "R": 1 / 2,
    "E": 1 / 2,
    "M": 2 / 3,
    "H": 2 / 3,
    "O": 2 / 3,
    "P": 2 / 3,
}
REACH_SPARE_DEG = 2.0


def insert_of(t: Tool) -> Insert:
    """Its insert."""
    return cast(Insert, t.edge)


def holder_of(t: Tool) -> Holder:
    """What carries it."""
    return cast(Holder, t.carrier)


def radius(t: Tool) -> float:
    """Corner radius [mm]."""
    return insert_of(t).decoded.corner_radius_mm


def shape(t: Tool) -> str:
    """Its shape's letter."""
    return insert_of(t).decoded.shape


def usable(t: Tool) -> float:
    """How deep it may cut [mm]: the usable share of its edge, across the approach angle."""
    d = insert_of(t).decoded
    share = USABLE[d.shape] * (d.ic_mm if d.shape == "R" else d.edge_mm)
    return share * math.sin(math.radians(holder_of(t).approach_deg)) if d.shape != "R" else share


def descent(t: Tool) -> float:
    """Steepest contour [deg] it follows down, behind its trailing edge; a round one to its clearance."""
    d, k = insert_of(t).decoded, holder_of(t).approach_deg
    return 45.0 if d.shape == "R" else 180.0 - k - SHAPES[d.shape][1] - REACH_SPARE_DEG


def inside(t: Tool) -> bool:
    """It is a bar."""
    return holder_of(t).side == "inside"


def shank(t: Tool) -> float:
    """Shank or bar [mm]."""
    return holder_of(t).shank_mm


def bore(t: Tool) -> float:
    """Least bore [mm] the bar goes into: its maker's, and room for chips."""
    h = holder_of(t)
    return max(h.min_bore_mm or 0.0, h.shank_mm / CHIP_ROOM_SHARE)


def reach(t: Tool) -> float:
    """How deep it works [mm]."""
    return holder_of(t).reach_mm or math.inf


def most_overhang(t: Tool) -> float:
    """Most overhang [mm] for its shank."""
    h = holder_of(t)
    return overhang_limit(h.modulus_gpa) * h.shank_mm


def approach(t: Tool) -> float:
    """κ [deg]."""
    return holder_of(t).approach_deg


def hand(t: Tool) -> str:
    """Which way it cuts."""
    return holder_of(t).hand


def turret(t: Tool) -> str:
    """What it is seated in."""
    return getattr(t.carrier, "turret", "").casefold()


def toughness(t: Tool) -> Any:
    """Middle of the application range by group, as a row in the order PMKNSH; NaN where it is not meant for it."""
    return [sum(t.edge.groups[g]) / 2 if g in t.edge.groups else math.nan for g in "PMKNSH"]


def tough(c: Columns, j: Job) -> Array:
    """Toughness for the job's group."""
    rows = c.of(toughness)
    return rows[:, "PMKNSH".index(j.group)]


def first_group(t: Tool) -> str:
    """The group that its grade is made for first of all."""
    return next(iter(t.edge.groups))


def purpose(t: Tool) -> str:
    """What its breaker is for."""
    return insert_of(t).purpose


def positive(t: Tool) -> bool:
    """It has clearance of its own."""
    return insert_of(t).decoded.clearance_deg > 0


def single(t: Tool) -> bool:
    """It cuts on one face only."""
    return not insert_of(t).decoded.double_sided


def rake(t: Tool) -> float:
    """Effective rake [deg]."""
    return insert_of(t).rake_deg


def bright(t: Tool) -> float:
    """How well it suits aluminium and copper: uncoated or diamond, sharp, ground, a third each."""
    i = insert_of(t)
    return ((i.coating != "coated") + (i.edge == "sharp") + i.decoded.ground) / 3


def window(t: Tool) -> Any:
    """Breaker window as a row: feed from, to, depth from, to."""
    i = insert_of(t)
    return [i.feed_min, i.feed_max, i.depth_min, i.depth_max]


def wiper(t: Tool) -> bool:
    """It has a wiper flat."""
    return insert_of(t).edge == "wiper"


def edges(t: Tool) -> int:
    """Edges of an insert."""
    return insert_of(t).decoded.edges


def stock(t: Tool) -> int:
    """Inserts in stock."""
    return t.edge.stock


def coolant(t: Tool) -> bool:
    """Coolant comes through it."""
    return getattr(t.carrier or t.edge, "coolant", "") == "through"


def none(c: Columns) -> Array:
    """No tool at all."""
    return np.zeros(len(c.tools), dtype=bool)


def points(c: Columns, value: float | Array = 0.0) -> Array:
    """The same points for every tool."""
    return np.zeros(len(c.tools)) + value


def is_round(t: Tool) -> bool:
    """A round insert."""
    return shape(t) == "R"


def slender(t: Tool) -> bool:
    """A 55° or 35° shape."""
    return shape(t) in "DV"


def ratio(t: Tool) -> float:
    """One over the most overhang [1/mm]."""
    return 1 / most_overhang(t)
