"""What a bar gives and how many a run takes: calculator `bar-yield`."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.fields import Checked, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.working import Working, derived

BARS = derived("Bars")
NEARLY = 1e-9  # a piece more or less by the rounding of figures is none


@dataclass(frozen=True)
class BarYieldInput(Checked):
    """Input of `bar-yield`."""

    bar_mm: Annotated[float, Quantity("Length of a bar", "mm", "As it is delivered", above=0, high=20_000)]
    remnant_mm: Annotated[
        float, Quantity("Left over", "mm", "Remnant of the feeder; the last piece must still be held", low=0, high=5000)
    ]
    part_mm: Annotated[float, Quantity("Part", "mm", "Finished length", above=0, high=5000)]
    kerf_mm: Annotated[float, Quantity("Kerf", "mm", "Width of the part-off blade", low=0, high=50)]
    quantity: Annotated[int, terms.PIECES]
    first_facing_mm: Annotated[float, Quantity("First facing", "mm", "Once, off a new bar's end", low=0, high=1000)] = (
        0.0
    )
    facing_mm: Annotated[float, Quantity("Face stock", "mm", "Of every piece", low=0, high=100)] = 0.0
    scrap_fraction: Annotated[
        float, Quantity("Scrap", "", "Share of the good pieces that is made besides", low=0, high=0.5)
    ] = 0.02


@dataclass(frozen=True, slots=True, kw_only=True)
class BarYieldResult(Explained):
    """Pieces of a bar, pieces to make, bars to have."""

    pieces_per_bar: Annotated[int, Found("Pieces of a bar")]
    pieces_to_make: Annotated[int, Found("Pieces to make")]
    bars: Annotated[int | None, Found("Bars")]


def pieces_of_bar(w: Working, bar_mm: float, left_mm: float, first_mm: float, each_mm: float) -> int:
    """Whole pieces of a bar: its length, what is left over, what is faced off once, what a piece takes, all in mm.

    >>> pieces_of_bar(Working(), 3000, 150, 1, 46)
    61

    Reference: derived in docs/method.md, “Bars”.
    """
    text = "max(0, (l - l_r - f_1) / l_p)"
    values = {"l": bar_mm, "l_r": left_mm, "f_1": first_mm, "l_p": each_mm}
    return math.floor(w.step("z", "Pieces of a bar, the whole ones count", text, "", BARS, **values) + NEARLY)


def pieces_to_make(w: Working, quantity: int, scrap: float) -> int:
    """Pieces to make so that `quantity` are good, at this share of scrap (0…0.5).

    >>> pieces_to_make(Working(), 1800, 0.02)
    1836

    Reference: derived in docs/method.md, “Bars”.
    """
    more = w.step("N_m", "Pieces to make, rounded up", "N * (1 + p)", "", BARS, N=float(quantity), p=scrap)
    return math.ceil(more - NEARLY)


@calculator(BarYieldInput)
def bar_yield(given: BarYieldInput) -> BarYieldResult:
    """How many pieces a bar gives, and how many bars a run takes.

    Parameters
        {parameters}
    Returns
        pieces_per_bar, whole; pieces_to_make, scrap included; bars, None where a bar gives none
    Raises
        CalcError for values outside these ranges
    Validity
        Every bar as long as the one given; scrap as a share of the pieces that must be good.
    Example
        >>> r = bar_yield(BarYieldInput(3000, 150, 42, 3, 1800, 1, 1, 0.02))
        >>> r.pieces_per_bar, r.pieces_to_make, r.bars
        (61, 1836, 31)

    Reference
        derived in docs/method.md, “Bars”
    """
    w = Working()
    values = {"L": given.part_mm, "f": given.facing_mm, "b": given.kerf_mm}
    each = w.step("l_p", "One piece takes of the bar", "L + f + b", "mm", BARS, **values)
    pieces = pieces_of_bar(w, given.bar_mm, given.remnant_mm, given.first_facing_mm, each)
    make = pieces_to_make(w, given.quantity, given.scrap_fraction)
    if pieces == 0:
        w.note(
            "stop",
            "bar-too-short",
            "A bar of {x} gives no piece: one takes {e}, and {r} is left over.",
            x=Figure(given.bar_mm, "mm"),
            e=Figure(each, "mm", "up"),
            r=Figure(given.remnant_mm, "mm"),
        )
    return BarYieldResult(
        pieces_per_bar=pieces,
        pieces_to_make=make,
        bars=math.ceil(make / pieces) if pieces else None,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
