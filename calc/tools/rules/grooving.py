"""What speaks for and against groovers."""

from __future__ import annotations

import math
from typing import cast

from calc.quantities import Sentence
from calc.tools.choose import Book, Preference, Rule
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.library import Tool
from calc.tools.rules.shared import BAR_SEAT, COOLANT, GRADE, SAME_MM, SHANK, SHARP_GRADE, SIDE, TURRET, mm
from calc.tools.rules.turning_columns import none, points, stock


def width(t: Tool) -> float:
    """Width of the edge [mm]."""
    return cast(GrooveInsert, t.edge).width_mm


def corner(t: Tool) -> float:
    """Corner radius [mm]."""
    return cast(GrooveInsert, t.edge).corner_radius_mm


def plunge(t: Tool) -> float:
    """How deep it plunges [mm]."""
    carrier = t.carrier
    return (carrier.reach_mm if isinstance(carrier, (Blade, Holder)) else None) or math.inf


def groove_edges(t: Tool) -> int:
    """Edges of its insert."""
    return cast(GrooveInsert, t.edge).edges


def least_bore(t: Tool) -> float:
    """Least bore [mm] it goes into."""
    return getattr(t.carrier, "min_bore_mm", None) or 0.0


BORE = Rule(
    "bore",
    lambda c, j: c.of(least_bore) > (j.bore_mm or 0) + 1e-9 if j.side == "inside" else none(c),
    lambda t, j: Sentence(
        "it needs a bore of Ø{a}, there is Ø{b}", a=mm(least_bore(t), "up"), b=mm(j.bore_mm or 0, "down")
    ),
)

GROOVING = Book(
    lambda lib: lib.grooving,
    (
        SIDE,
        GRADE,
        SHANK,
        BAR_SEAT,
        TURRET,
        BORE,
        Rule(
            "too-wide",
            lambda c, j: c.of(width) > j.width_mm + SAME_MM if j.width_mm is not None else none(c),
            lambda t, j: Sentence("it is {a} wide, the groove {b}", a=mm(width(t)), b=mm(j.width_mm or 0)),
        ),
        Rule(
            "too-shallow",
            lambda c, j: c.of(plunge) < (j.stock_mm or 0) - 1e-9,
            lambda t, j: Sentence(
                "it plunges {a}, the groove is {b} deep", a=mm(plunge(t), "down"), b=mm(j.stock_mm or 0, "up")
            ),
        ),
        Rule(
            "corner",
            lambda c, j: c.of(corner) > j.corner_mm + 1e-9 if j.corner_mm is not None else none(c),
            lambda t, j: Sentence("its corner is {a}, the print allows {b}", a=mm(corner(t)), b=mm(j.corner_mm or 0)),
        ),
    ),
    (
        Preference(
            lambda c, j: 20 * c.of(width) / j.width_mm if j.width_mm else points(c),
            lambda t, j: (
                Sentence("as wide as the groove: one plunge")
                if abs(width(t) - (j.width_mm or 0)) <= SAME_MM
                else Sentence("{n} plunges side by side", n=str(math.ceil((j.width_mm or 0) / width(t))))
            ),
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    groove_edges,
)

# Threading
