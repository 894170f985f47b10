"""What speaks for and against blades and groovers that part off."""

from __future__ import annotations

import numpy as np

from calc.cuts.part_off import REACH_SPARE_MM, width_for
from calc.quantities import Sentence
from calc.tools.choose import Array, Book, Columns, Job, Preference, Rule
from calc.tools.kinds.blade import Blade
from calc.tools.library import Tool
from calc.tools.rules.grooving import groove_edges, plunge, width
from calc.tools.rules.shared import COOLANT, GRADE, SHARP_GRADE, TURRET, mm
from calc.tools.rules.turning_columns import none, points, stock


def is_blade(t: Tool) -> bool:
    """It is a blade in a block, not a one-piece groover."""
    return isinstance(t.carrier, Blade)


def block(t: Tool) -> float:
    """Square of its block or shank [mm]."""
    return t.carrier.shank_mm if t.carrier is not None else 0.0


def _wanted_reach(j: Job) -> float:
    return (j.stock_mm or 0.0) + REACH_SPARE_MM


def _width_points(c: Columns, j: Job) -> Array:
    usual = width_for(j.diameter_mm)
    return points(c) if usual is None else 12 - 6 * np.abs(c.of(width) - usual)


PARTING = Book(
    lambda lib: lib.parting,
    (
        GRADE,
        TURRET,
        Rule(
            "shank",
            lambda c, j: c.of(block) != j.shank_mm if j.shank_mm else none(c),
            lambda t, j: Sentence("its block is {a}, the turret takes {b}", a=mm(block(t)), b=mm(j.shank_mm or 0)),
        ),
        Rule(
            "reach",
            lambda c, j: c.of(plunge) < _wanted_reach(j) - 1e-9,
            lambda t, j: Sentence(
                "it hangs out {a} at most; past the centre takes {b}",
                a=mm(plunge(t), "down"),
                b=mm(_wanted_reach(j), "up"),
            ),
        ),
    ),
    (
        Preference(
            _width_points,
            lambda t, j: (
                Sentence("{w} wide: usual for Ø{d}", w=mm(width(t)), d=mm(j.diameter_mm))
                if width(t) == width_for(j.diameter_mm)
                else Sentence(
                    "{w} wide; {u} is usual for Ø{d}",
                    w=mm(width(t)),
                    u=mm(width_for(j.diameter_mm) or 0),
                    d=mm(j.diameter_mm),
                )
            ),
            0.0,
        ),
        Preference(
            lambda c, j: 8.0 * c.of(is_blade),
            lambda t, j: Sentence("a blade in a block: an accident costs an edge, not the holder"),
            5.0,
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    groove_edges,
)
