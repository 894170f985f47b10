"""Small pictures beside the facts: ranges as bars, curves over diameter, an insert's outline."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.quantities import Figure, Sentence

Points = tuple[tuple[float, float], ...]
STEPS = 60


@dataclass(frozen=True)
class Range:
    """A range as a bar, in the picture's unit; an end that is None is open."""

    label: str
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Bars:
    """Ranges over one scale, what they share, and where the plan stands. `group` is the heading they belong to."""

    name: str
    title: str
    unit: str
    ranges: tuple[Range, ...]
    shared: Range
    at: float | None
    words: Sentence
    group: str = ""


@dataclass(frozen=True)
class Curve:
    """A line of the picture: (x, y) in its units."""

    label: str
    points: Points


@dataclass(frozen=True)
class Curves:
    """Surface speed and rpm against diameter; `mark` is where the spindle tops out, None where it never does."""

    name: str
    title: str
    rpm: Curve
    speed: Curve
    mark: float | None
    mark_words: Sentence
    words: Sentence
    group: str = ""


@dataclass(frozen=True)
class Outline:
    """An insert seen from above [mm], its letters explained."""

    name: str
    title: str
    points: Points
    hole_mm: float
    letters: tuple[tuple[str, str, str], ...]
    words: Sentence
    group: str = ""


def speed_curves(name: str, group: str, outer_mm: float, inner_mm: float, speed_m_min: float, cap_rpm: float) -> Curves:
    """How rpm and surface speed go on the way across, at constant surface speed up to the cap."""
    cap = 1000 * speed_m_min / (math.pi * cap_rpm)
    places = sorted(
        {
            outer_mm,
            inner_mm,
            *(inner_mm + (outer_mm - inner_mm) * i / STEPS for i in range(STEPS + 1)),
            *((cap,) if inner_mm < cap < outer_mm else ()),
        }
    )
    rpm = [(d, min(cap_rpm, 1000 * speed_m_min / (math.pi * d)) if d > 0 else cap_rpm) for d in places]
    tops = cap > inner_mm
    words = Sentence(
        "From Ø{a} inwards the spindle stays at {n} and the surface speed falls to {v} at Ø{b}."
        if tops
        else "The spindle holds {v0} all the way; it reaches {n} at Ø{b}.",
        a=Figure(min(cap, outer_mm), "mm", places=(1, 3)),
        b=Figure(inner_mm, "mm", places=(1, 3)),
        n=Figure(rpm[0][1], "rpm", "down"),
        v=Figure(math.pi * inner_mm * rpm[0][1] / 1000, "m/min"),
        v0=Figure(speed_m_min, "m/min"),
    )
    return Curves(
        name,
        "Speed against diameter",
        Curve("spindle", tuple(rpm)),
        Curve("surface", tuple((d, math.pi * d * n / 1000) for d, n in rpm)),
        min(cap, outer_mm) if tops else None,
        Sentence("tops out at Ø{d}", d=Figure(min(cap, outer_mm), "mm", places=(1, 3))),
        words,
        group,
    )
