"""What speaks for and against drills."""

from __future__ import annotations

from typing import cast

import numpy as np

from calc.cuts.chip import Engaged, Metal, chip_of, forces_of
from calc.cuts.drilling import Drilled, drill_forces
from calc.many import MANY
from calc.quantities import Figure, Sentence
from calc.tools.choose import Array, Book, Job, Preference, Rule
from calc.tools.kinds.drill import Drill
from calc.tools.library import Tool
from calc.tools.rules.shared import COOLANT, GRADE, SHARP_GRADE, mm
from calc.tools.rules.turning_columns import none, points, stock


def size(t: Tool) -> float:
    """Drill's diameter [mm]."""
    return cast(Drill, t.edge).diameter_mm


def depth(t: Tool) -> float:
    """How deep it drills [mm]."""
    return cast(Drill, t.edge).reach_mm


def one(t: Tool) -> int:
    """A drill is one edge."""
    return 1


def middle_feed(t: Tool) -> float:
    """Middle of its feeds [mm/rev]: a drill that turns at the least of them alone is too large for the machine."""
    edge = cast(Drill, t.edge)
    return (edge.feed_min + edge.feed_max) / 2


def _torque(d: Array, f: Array, j: Job) -> Array:
    """Torque [N·m] in solid at a feed, of a drill of 140°."""
    one = Engaged(f / 2, d / 2, 0.0, 70.0)
    edge = forces_of(MANY, one, chip_of(MANY, one), Metal(j.kc11, j.mc))
    return drill_forces(MANY, edge.tangential, Drilled(d, 0.0, 140.0))[0]


DRILLING = Book(
    lambda lib: lib.drilling,
    (
        GRADE,
        Rule(
            "too-large",
            lambda c, j: c.of(size) > j.most_mm + 1e-9 if j.most_mm is not None else none(c),
            lambda t, j: Sentence(
                "Ø{a} is over the Ø{b} that print and machine allow", a=mm(size(t), "up"), b=mm(j.most_mm or 0, "down")
            ),
        ),
        Rule(
            "too-short",
            lambda c, j: c.of(depth) < j.reach_mm - 1e-9,
            lambda t, j: Sentence(
                "it drills {a} deep, the hole is {b}", a=mm(depth(t), "down"), b=mm(j.reach_mm, "up")
            ),
        ),
        Rule(
            "torque",
            lambda c, j: _torque(c.of(size), c.of(middle_feed), j) > j.torque_nm if j.torque_nm and j.kc11 else none(c),
            lambda t, j: Sentence(
                "in the middle of its feeds it asks {a}; the spindle has {b}",
                b=Figure(j.torque_nm or 0, "N*m", "down"),
                a=Figure(float(_torque(np.array(size(t)), np.array(middle_feed(t)), j)), "N*m", "up"),
            ),
        ),
    ),
    (
        Preference(
            lambda c, j: 30 * np.minimum(1.0, c.of(size) / j.most_mm) if j.most_mm else points(c),
            lambda t, j: Sentence("leaves {x} a side", x=mm(max(0.0, ((j.most_mm or 0) - size(t)) / 2))),
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    one,
)

# Grooving
