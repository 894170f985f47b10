"""What speaks for and against threading tools."""

from __future__ import annotations

from typing import cast

import numpy as np

from calc.quantities import Figure, Sentence
from calc.tools.choose import Array, Book, Columns, Job, Preference, Rule
from calc.tools.kinds.thread_insert import ThreadInsert
from calc.tools.library import Tool
from calc.tools.rules.grooving import BORE
from calc.tools.rules.shared import BAR_SEAT, COOLANT, GRADE, SAME_MM, SHANK, SHARP_GRADE, SIDE, TURRET, mm
from calc.tools.rules.turning_columns import stock


def angle(t: Tool) -> float:
    """Profile angle [deg]."""
    return cast(ThreadInsert, t.edge).angle_deg


def pitches(t: Tool) -> list[float]:
    """[from, to] of the pitch [mm]."""
    e = cast(ThreadInsert, t.edge)
    return [e.pitch_min_mm, e.pitch_max_mm]


def full(t: Tool) -> bool:
    """It finishes the crest too."""
    return cast(ThreadInsert, t.edge).profile == "full"


def thread_edges(t: Tool) -> int:
    """Edges of its insert."""
    return cast(ThreadInsert, t.edge).edges


def edge_side(t: Tool) -> bool:
    """The insert itself is for inside threads."""
    return cast(ThreadInsert, t.edge).side == "inside"


def _pitch(c: Columns, j: Job) -> Array:
    p, rows = j.pitch_mm or 0.0, c.of(pitches)
    return (rows[:, 0] > p + SAME_MM) | (rows[:, 1] < p - SAME_MM)


THREADING = Book(
    lambda lib: lib.threading,
    (
        SIDE,
        GRADE,
        SHANK,
        BAR_SEAT,
        TURRET,
        BORE,
        Rule(
            "edge-side",
            lambda c, j: c.of(edge_side) != (j.side == "inside"),
            lambda t, j: Sentence("its profile is for {a} threads", a="inside" if edge_side(t) else "outside"),
        ),
        Rule(
            "angle",
            lambda c, j: np.abs(c.of(angle) - j.angle_deg) > 1e-6,
            lambda t, j: Sentence(
                "its profile is {a}, the thread {b}", a=Figure(angle(t), "deg"), b=Figure(j.angle_deg, "deg")
            ),
        ),
        Rule(
            "pitch",
            _pitch,
            lambda t, j: Sentence(
                "it cuts pitches from {a} to {b}, the thread has {p}",
                a=mm(pitches(t)[0]),
                b=mm(pitches(t)[1]),
                p=Figure(j.pitch_mm or 0, "mm", places=(2, 4)),
            ),
        ),
    ),
    (
        Preference(
            lambda c, j: 15.0 * c.of(full), lambda t, j: Sentence("full profile: finishes crest, flank and root"), 5.0
        ),
        Preference(
            lambda c, j: np.where(c.of(full), 0.0, -3.0),
            lambda t, j: Sentence("partial profile: turn the crest to size before"),
            3.0,
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    thread_edges,
)

# Parting off
