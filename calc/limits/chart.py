"""The chart of single pieces: a line for each stretch of one edge and one offset, its limits, and what stands out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from calc.limits.drift import LEAST, MOST, Line, back_of, line_of
from calc.limits.spread import D2, sigma_of

SIGMAS = 3.0
RANGE_TIMES = 3.267  # of the mean moving range: ISO 7870-2, two values
OWN_FROM = 8  # pieces: a shorter stretch goes by the spread that was known before it
IN_A_ROW = 7

Sign = Literal["outside", "range", "one-side", "rising", "falling"]
WORDS: dict[Sign, str] = {
    "outside": "outside three spreads",
    "range": "a jump from the piece before",
    "one-side": "the seventh in a row on one side of the line",
    "rising": "the seventh in a row that is larger",
    "falling": "the seventh in a row that is smaller",
}


@dataclass(frozen=True)
class Stretch:
    """Pieces of one edge and one offset: from which piece on, the line [mm] at its first and last piece, the spread
    [mm] and its limits about the line, the largest jump [mm] that is usual; None while no spread is known.
    """

    first: int
    count: int
    line_mm: tuple[float, float]
    drift: Line | None  # where it is proven
    sigma_mm: float | None
    signs: tuple[tuple[int, Sign], ...]

    @property
    def half_mm(self) -> float | None:
        """Half of what lies between its limits."""
        return None if self.sigma_mm is None else SIGMAS * self.sigma_mm


def chart_of(sizes_mm: Sequence[float], begins: Sequence[int], pieces: Sequence[int] = ()) -> tuple[Stretch, ...]:
    """The stretches of a series [mm]; `begins`: the places in it, counted from 0, that an edge or an offset was new
    for; `pieces`: the numbers of its pieces, rising, where not every one was measured.

    A stretch stands about its mean, or about its line where a drift is proven: then the chart is of what is left off
    it. One shorter than eight pieces goes by the spread of the one before. Of a stretch of more than 500 pieces the
    line is that of the newest 500.

    Reference: ISO 7870-2 (individuals and moving range); derived in docs/method.md, “The chart of single pieces”.
    """
    edges = sorted({0, *(b for b in begins if 0 < b < len(sizes_mm)), len(sizes_mm)})
    found: list[Stretch] = []
    known: float | None = None
    for first, end in pairwise(edges):
        sizes = np.asarray(sizes_mm[first:end], dtype=float)
        made = _stretch(sizes, pieces[first:end], first, known)
        known = made.sigma_mm
        found.append(made)
    return tuple(found)


def _stretch(sizes: np.ndarray, pieces: Sequence[int], first: int, known: float | None) -> Stretch:
    n = len(sizes)
    line = line_of(sizes[-MOST:].tolist(), pieces[-MOST:]) if n >= LEAST else None
    drift = line if line is not None and line.proven else None
    if drift is not None:
        fitted = drift.at(back_of(pieces, n))
        off, ends = sizes - fitted, (float(fitted[0]), drift.last)
    else:
        mean = float(sizes.mean())
        off, ends = sizes - mean, (mean, mean)
    sigma = sigma_of(off) if n >= OWN_FROM or (known is None and n > 1) else known
    return Stretch(first, n, ends, drift, sigma, tuple(_signs(off, sigma if n >= OWN_FROM or known else None, first)))


def _signs(off: np.ndarray, sigma: float | None, first: int) -> Iterator[tuple[int, Sign]]:
    """What stands out, by piece; a stretch with no spread that may count has no limits to be outside of."""
    if sigma:
        mean_range = sigma * D2
        for i in np.flatnonzero(np.abs(off) > SIGMAS * sigma):
            yield first + int(i), "outside"
        for i in np.flatnonzero(np.abs(np.diff(off)) > RANGE_TIMES * mean_range):
            yield first + int(i) + 1, "range"
    yield from _in_a_row(np.sign(off), ("one-side", "one-side"), first)
    yield from _in_a_row(np.concatenate(([0.0], np.sign(np.diff(off)))), ("falling", "rising"), first)


def _in_a_row(ways: np.ndarray, signs: tuple[Sign, Sign], first: int) -> Iterator[tuple[int, Sign]]:
    """Where a way, below zero or above, is gone for the seventh time in a row."""
    length, before = 0, 0.0
    for i, now in enumerate(ways.tolist()):
        length = 0 if now == 0 else length + 1 if now == before else 1
        before = now
        if length == IN_A_ROW:
            yield first + i, signs[now > 0]
