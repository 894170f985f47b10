"""What speaks for and against a turning insert in its holder (weights and limits typical)."""

from __future__ import annotations

from typing import Any

import numpy as np

from calc.cuts.direction import winds
from calc.cuts.feed_window import finish_feed
from calc.quantities import Figure, Sentence, counted
from calc.tools.boring_bar import CHIP_ROOM_SHARE
from calc.tools.choose import Array, Book, Columns, Job, Preference, Rule
from calc.tools.designation import SHAPES
from calc.tools.library import Tool
from calc.tools.rules.turning_columns import (
    approach,
    bore,
    bright,
    coolant,
    descent,
    edges,
    first_group,
    hand,
    holder_of,
    insert_of,
    inside,
    is_round,
    most_overhang,
    none,
    points,
    positive,
    purpose,
    radius,
    rake,
    ratio,
    reach,
    shank,
    shape,
    single,
    slender,
    stock,
    tough,
    turret,
    usable,
    window,
    wiper,
)

STRENGTH = {
    "R": 14.0,
    "S": 12.0,
    "O": 12.0,
    "H": 12.0,
    "P": 12.0,
    "M": 10.5,
    "C": 10.0,
    "E": 9.0,
    "W": 8.0,
    "T": 5.0,
    "D": 3.0,
    "V": 0.0,
}
TRIGON_FIRST = 11.0  # a shop whose roughers are trigons puts it before the 80° rhombic
ROUGH_CORNER_MM = 0.4  # a smaller corner breaks out in the bulk of the stock
BULK_MM = 1.0  # of a pass
HEAVY_MM = 2.0  # depth from which slender shapes do not rough
SMALL_BAR_MM = 25.0


def _mm(x: float, rounding: Any = "near") -> Figure:
    return Figure(x, "mm", rounding)


def _takes_bulk(j: Job) -> bool:
    """It roughs, or takes so much in a pass that it does."""
    return j.roughs or (j.stage == "both" and (j.depth_mm or 0.0) >= BULK_MM)


RULES = (
    Rule(
        "side",
        lambda c, j: c.of(inside) != (j.side == "inside"),
        lambda t, j: Sentence("it works {a}, the cut is {b}", a="inside" if inside(t) else "outside", b=j.side),
    ),
    Rule(
        "grade",
        lambda c, j: np.isnan(tough(c, j)),
        lambda t, j: Sentence("its grade is for {r}, not for ISO {g}", r=t.edge.application, g=j.group),
    ),
    Rule(
        "shank",
        lambda c, j: (c.of(shank) != j.shank_mm) & ~c.of(inside) if j.shank_mm else none(c),
        lambda t, j: Sentence("its shank is {a}, the turret takes {b}", a=_mm(shank(t)), b=_mm(j.shank_mm or 0)),
    ),
    Rule(
        "bar-seat",
        lambda c, j: (c.of(shank) > j.bar_seat_mm) & c.of(inside) if j.bar_seat_mm else none(c),
        lambda t, j: Sentence(
            "its bar is {a}, the turret takes {b} at most", a=_mm(shank(t)), b=_mm(j.bar_seat_mm or 0)
        ),
    ),
    Rule(
        "turret",
        lambda c, j: (c.of(turret) != "") & (c.of(turret) != j.turret.casefold()) if j.turret else none(c),
        lambda t, j: Sentence(
            "it is seated in {a}, the turret has {b}", a=getattr(t.carrier, "turret", ""), b=j.turret
        ),
    ),
    Rule(
        "hand",
        lambda c, j: (c.of(hand) != "neutral") & (c.of(hand) != winds(j.turns, j.feeds)),
        lambda t, j: Sentence(
            "it is {a}-hand; feeding {w} the chuck in {m} needs {b}",
            a=hand(t),
            b=winds(j.turns, j.feeds),
            m=j.turns,
            w="away from" if j.feeds == "away" else "toward",
        ),
    ),
    Rule(
        "corner",
        lambda c, j: c.of(radius) > j.corner_mm + 1e-9 if j.finishes and j.corner_mm is not None else none(c),
        lambda t, j: Sentence("its corner is {a}, the print allows {b}", a=_mm(radius(t)), b=_mm(j.corner_mm or 0)),
    ),
    Rule(
        "small-corner",
        lambda c, j: c.of(radius) < ROUGH_CORNER_MM - 1e-9 if _takes_bulk(j) else none(c),
        lambda t, j: Sentence("its corner of {a} is too small to rough with", a=_mm(radius(t))),
    ),
    Rule(
        "shoulder",
        lambda c, j: (c.of(approach) < 90.0) | c.of(is_round) if j.square else none(c),
        lambda t, j: (
            Sentence("a round edge leaves its radius in the shoulder")
            if is_round(t)
            else Sentence("approaching at {k} it leaves the shoulder standing", k=Figure(approach(t), "deg"))
        ),
    ),
    Rule(
        "descent",
        lambda c, j: c.of(descent) < j.falling_deg if j.falling_deg > 0 else none(c),
        lambda t, j: Sentence(
            "it follows {a} down at most, the contour falls {b}",
            a=Figure(max(0.0, descent(t)), "deg", "down"),
            b=Figure(j.falling_deg, "deg", "up"),
        ),
    ),
    Rule(
        "depth",
        lambda c, j: c.of(usable) < j.depth_mm - 1e-9 if j.depth_mm is not None else none(c),
        lambda t, j: Sentence(
            "its edge stands {a} of depth, the cut is {b}", a=_mm(usable(t), "down"), b=_mm(j.depth_mm or 0, "up")
        ),
    ),
    Rule(
        "heavy",
        lambda c, j: c.of(slender) if j.roughs and (j.depth_mm or 0) >= HEAVY_MM else none(c),
        lambda t, j: Sentence(
            "a {s} point does not rough {b} deep", s=SHAPES[shape(t)][0].split(", ")[-1], b=_mm(j.depth_mm or 0)
        ),
    ),
    Rule(
        "bore",
        lambda c, j: c.of(bore) > (j.bore_mm or 0) + 1e-9 if j.side == "inside" else none(c),
        lambda t, j: Sentence(
            "it needs a bore of Ø{a} with room for chips, there is Ø{b}",
            a=_mm(bore(t), "up"),
            b=_mm(j.bore_mm or 0, "down"),
        ),
    ),
    Rule(
        "reach",
        lambda c, j: c.of(reach) < j.reach_mm - 1e-9 if j.side == "inside" else none(c),
        lambda t, j: Sentence("it reaches {a}, the cut is {b} deep", a=_mm(reach(t), "down"), b=_mm(j.reach_mm, "up")),
    ),
    Rule(
        "overhang",
        lambda c, j: c.of(most_overhang) < j.reach_mm - 1e-9 if j.side == "inside" else none(c),
        lambda t, j: Sentence(
            "its {m} shank stands {a} out at most, the cut needs {b}",
            m=holder_of(t).metal,
            a=_mm(most_overhang(t), "down"),
            b=_mm(j.reach_mm, "up"),
        ),
    ),
)


def strength(t: Tool) -> float:
    """Points of its shape."""
    return STRENGTH[shape(t)]


def trigon(t: Tool) -> bool:
    """It is a trigon."""
    return shape(t) == "W"


def _strength(c: Columns, j: Job) -> Array:
    found = c.of(strength)
    if j.rougher == "trigon":
        found = np.where(c.of(trigon), TRIGON_FIRST, found)
    return found * (1.0 if j.roughs else 0.25)


def _says_strength(t: Tool, j: Job) -> Sentence:
    what = SHAPES[shape(t)][0].split(",")[0]
    if shape(t) == "W" and j.rougher == "trigon" and j.roughs:
        return Sentence("trigon: the shop's rougher, six edges")
    if shape(t) == "C" and j.rougher == "rhombic" and j.roughs:
        return Sentence("80° rhombic: the shop's rougher, robust")
    return Sentence("{w} shape: {s}", w=what, s="strong" if strength(t) >= 8 else "slender")


def _corner(c: Columns, j: Job) -> Array:
    r = c.of(radius)
    found = 10 * np.minimum(1, r / 1.2) if j.roughs and not (j.thin or j.weak) else 8 * np.maximum(0, 1 - r / 1.6)
    return found + (4 * np.minimum(1, r / 0.8) if j.interrupted else 0)


def _says_corner(t: Tool, j: Job) -> Sentence:
    r = _mm(radius(t))
    if j.roughs and not (j.thin or j.weak):
        return Sentence("corner {r}: carries the roughing", r=r)
    return (
        Sentence("corner {r}: presses little", r=r)
        if j.thin or j.weak
        else Sentence("corner {r}: clean in the corners", r=r)
    )


def _purpose(c: Columns, j: Job) -> Array:
    wanted = {"rough": "rough", "finish": "finish", "both": "medium"}[j.stage]
    found = c.of(purpose)
    return np.where(found == wanted, 10.0, np.where(found == "medium", 4.0, 0.0))


def _sharpness(c: Columns, j: Job) -> Array:
    if not (j.finishes or j.thin or j.weak):
        return points(c)
    weight = 1.5 if j.thin or j.weak else 1.0
    found: Array = weight * (4.0 * c.of(positive) + np.clip(c.of(rake) - 6, -4, 6) / 2)
    return found


def _bright(c: Columns, j: Job) -> Array:
    return c.of(bright) * 15 if j.group == "N" else points(c)


def _grade(c: Columns, j: Job) -> Array:
    t = np.nan_to_num(tough(c, j), nan=25.0)
    made_for: Array = 4.0 * (c.of(first_group) == j.group)
    grade: Array = np.asarray(8 * t / 50 if j.interrupted else 4 * (1 - np.abs(t - 20) / 30))
    return made_for + grade


def _window(c: Columns, j: Job) -> Array:
    if j.depth_mm is None:
        return points(c)
    w = c.of(window)
    return np.where((w[:, 2] <= j.depth_mm) & (j.depth_mm <= w[:, 3]), 6.0, -6.0)


def _finish(c: Columns, j: Job) -> Array:
    if j.ra_um is None or not j.finishes:
        return points(c)
    r, w = c.of(radius), c.of(window)
    top = np.array([finish_feed(j.ra_um, max(x, 1e-6), wiper=bool(y)) for x, y in zip(r, c.of(wiper), strict=True)])
    return np.where(np.maximum(r / 3, w[:, 0]) > top, -8.0, 4.0)


def _small(c: Columns, j: Job) -> Array:
    if j.side == "inside" and (j.bore_mm or 0) <= SMALL_BAR_MM / CHIP_ROOM_SHARE:
        return np.where(c.of(single) & c.of(positive), 6.0, 0.0)
    return points(c)


def _stiff(c: Columns, j: Job) -> Array:
    return -10 * np.minimum(1, j.reach_mm * c.of(ratio)) if j.side == "inside" else points(c)


def _says_window(t: Tool, j: Job) -> Sentence:
    i = insert_of(t)
    inside_it = i.depth_min <= (j.depth_mm or 0) <= i.depth_max
    words = "its breaker works at this depth" if inside_it else "its breaker works from {a} to {b} deep, not here"
    return Sentence(words, a=_mm(i.depth_min), b=_mm(i.depth_max)) if not inside_it else Sentence(words)


def _says_finish(t: Tool, j: Job) -> Sentence:
    top = finish_feed(j.ra_um or 1, max(radius(t), 1e-6), wiper=wiper(t))
    if max(radius(t) / 3, insert_of(t).feed_min) > top:
        return Sentence(
            "Ra {r} asks a feed below {f}: the chip will not break",
            r=Figure(j.ra_um or 0, "um"),
            f=Figure(top, "mm/rev", "down"),
        )
    return Sentence("Ra {r} up to {f}", r=Figure(j.ra_um or 0, "um"), f=Figure(top, "mm/rev", "down"))


def _says_stiff(t: Tool, j: Job) -> Sentence | None:
    if j.side == "outside":
        return None
    return Sentence("Ø{d} bar, {r} diameters out", d=_mm(shank(t)), r=Figure(j.reach_mm / shank(t), "", places=(1, 1)))


PREFERENCES = (
    Preference(_strength, _says_strength, 5.0),
    Preference(_corner, _says_corner, 4.0),
    Preference(
        _purpose,
        lambda t, j: Sentence(
            "breaker for {p}", p={"rough": "roughing", "medium": "medium work", "finish": "finishing"}[purpose(t)]
        ),
        4.0,
    ),
    Preference(_sharpness, lambda t, j: Sentence("positive and free-cutting") if positive(t) else None, 4.0),
    Preference(_bright, lambda t, j: Sentence("bright edge for aluminium and copper"), 9.0),
    Preference(
        _grade,
        lambda t, j: (
            Sentence("{w} grade, {r}", w="tough" if j.interrupted else "fitting", r=t.edge.application)
            if j.group == first_group(t)
            else None
        ),
        4.0,
    ),
    Preference(_window, _says_window, 6.0),
    Preference(_finish, _says_finish, 4.0),
    Preference(lambda c, j: c.of(edges) / 2, lambda t, j: Sentence("{n}", n=counted(edges(t), "edge")), 2.0),
    Preference(_small, lambda t, j: Sentence("single-sided and positive for a small bar"), 6.0),
    Preference(_stiff, _says_stiff, 0.0),
    Preference(lambda c, j: 2.0 * c.of(coolant), lambda t, j: Sentence("coolant through it"), 2.0),
)

TURNING = Book(lambda lib: lib.turning, RULES, PREFERENCES, stock, edges)
