"""How a size drifts from piece to piece, and the offset that brings it back: calculator `drift`."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from statistics import NormalDist
from typing import Annotated

import numpy as np

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.limits.spread import sigma_of
from calc.limits.working import LIMIT_PLACES
from calc.quantities import Figure, Sentence, about
from calc.results import Explained, Found
from calc.working import Source, Working, derived

DRIFT = derived("Drift and offsets")
SEN = Source("standard", "Theil–Sen line; interval by Sen, 1968", "Sen 1968")
LEAST, MOST = 6, 500  # pieces: fewer say nothing of a line; of more the newest count
LINES_KEPT = 64
SURE = 0.90  # two-sided
_Z = NormalDist().inv_cdf((1 + SURE) / 2)
PIECES_MOST = 1_000_000  # further ahead a straight line says nothing
PLACES = (4, 5)
SLOPE_PLACES = (5, 6)
MM = {"low": -10_000, "high": 10_000, "places": PLACES}


@dataclass(frozen=True)
class DriftInput(Checked):
    """Input of `drift`."""

    sizes_mm: Annotated[
        tuple[float, ...],
        Quantity("Sizes", "mm", "In the order they were made, of one edge and one offset: six at least", **MM),
    ]
    low_mm: Annotated[float, Quantity("Lower limit", "mm", "To work to", **MM)]
    high_mm: Annotated[float, Quantity("Upper limit", "mm", "To work to", **MM)]
    step_mm: Annotated[
        float, Quantity("Step of the offset", "mm", "The least that the control takes", above=0, high=1, places=PLACES)
    ] = 0.001
    pieces_per_edge: Annotated[
        int | None, Quantity("Pieces an edge", "", "Empty: not known, then the drift ahead is not split", 1, 10_000_000)
    ] = None
    pieces: Annotated[
        tuple[int, ...],
        Quantity("Piece numbers", "", "Of the sizes, rising; empty: every piece was measured", 1, 10_000_000),
    ] = ()

    def contradictions(self) -> Iterator[FieldError]:
        if self.pieces and len(self.pieces) != len(self.sizes_mm):
            words = "There are {n} piece numbers for {m} sizes: give one for each, or none."
            yield FieldError("pieces", Sentence(words, n=str(len(self.pieces)), m=str(len(self.sizes_mm))))
        back = next((b for a, b in pairwise(self.pieces) if b <= a), None)
        if back is not None:
            words = "Piece {n} comes after its like or a later one: give the pieces in the order they were made."
            yield FieldError("pieces", Sentence(words, n=str(back)))
        if len(self.sizes_mm) < LEAST:
            words = "There are {n}; a drift takes {m} pieces at least."
            yield FieldError("sizes_mm", Sentence(words, n=str(len(self.sizes_mm)), m=str(LEAST)))
        if self.low_mm >= self.high_mm:
            yield FieldError("low_mm", about("The lower limit must be below the upper one, {x}.", self.high_mm))


@dataclass(frozen=True, slots=True, kw_only=True)
class DriftResult(Explained):
    """The drift with what is sure of it, where it stands now, and what to do."""

    slope_mm: Annotated[float, Found("Drift a piece", "mm", places=SLOPE_PLACES)]
    slope_low_mm: Annotated[float, Found("Between", "mm", places=SLOPE_PLACES)]
    slope_high_mm: Annotated[float, Found("And", "mm", places=SLOPE_PLACES)]
    fitted_now_mm: Annotated[float, Found("Size now, by the line", "mm", places=LIMIT_PLACES)]
    pieces_left: Annotated[int | None, Found("Pieces to the limit", safe="down")]
    pieces_left_sure: Annotated[int | None, Found("Pieces to the limit for sure", safe="down")]
    offset_mm: Annotated[float, Found("Add to the offset", "mm", places=PLACES)]


@dataclass(frozen=True)
class Line:
    """The Theil–Sen line of a series: slope, the ends of its interval, and its value at the last piece."""

    slope: float
    low: float
    high: float
    last: float

    @property
    def proven(self) -> bool:
        """It drifts: the interval leaves 0 out."""
        return self.low > 0 or self.high < 0

    def at(self, back: np.ndarray) -> np.ndarray:
        """Where it is so many pieces back from the last, a number below zero."""
        found: np.ndarray = self.last + self.slope * back
        return found


def back_of(pieces: Sequence[int], count: int) -> np.ndarray:
    """How many pieces each of a series is back from its last, a number below zero; without numbers one after another.

    >>> back_of((), 3).tolist(), back_of((10, 15, 16), 3).tolist()
    ([-2.0, -1.0, 0.0], [-6.0, -1.0, 0.0])
    """
    numbers = np.asarray(pieces if len(pieces) else range(count), dtype=float)
    back: np.ndarray = numbers - numbers[-1]
    return back


def line_of(sizes: Sequence[float], pieces: Sequence[int] = ()) -> Line:
    """The median of all slopes between two pieces, and Sen's interval of it; `pieces`: their numbers, rising.

    The interval takes in the ranks that the normal approximation of Kendall's score leaves outside half a rank of
    each end: rounded outward, so it is never narrower than it says.
    """
    return _line(tuple(sizes), tuple(pieces))


@lru_cache(maxsize=LINES_KEPT)  # chart, drift and advice ask for the same one
def _line(sizes: tuple[float, ...], pieces: tuple[int, ...]) -> Line:
    y = np.asarray(sizes, dtype=float)
    n, back = len(y), back_of(pieces, len(y))
    i, j = np.triu_indices(n, 1)
    slopes = (y[j] - y[i]) / (back[j] - back[i])
    # Pieces are numbered without ties; sizes alike narrow the score's spread, as Kendall has it.
    _, alike = np.unique(y, return_counts=True)
    ties = float((alike * (alike - 1) * (2 * alike + 5)).sum())
    spread = _Z * math.sqrt(max(0.0, (n * (n - 1) * (2 * n + 5) - ties) / 18))
    first = max(0, math.floor((len(slopes) - spread) / 2) - 1)
    last = min(len(slopes) - 1, math.ceil((len(slopes) + spread) / 2))
    slope = float(np.median(slopes))
    slopes.partition((first, last))
    now = float(np.median(y - slope * back))
    return Line(slope, float(slopes[first]), float(slopes[last]), now)


@dataclass(frozen=True)
class Correction:
    """How far a size is off the middle [mm], what that must be more than, and what is then added to the offset."""

    off_mm: float
    worth_mm: float
    offset_mm: float

    @property
    def small(self) -> bool:
        """It is best left alone."""
        return self.off_mm <= self.worth_mm


@dataclass(frozen=True)
class Series:
    """The newest sizes [mm] of one edge and one offset with their line: where they are best aimed at, and when."""

    given: DriftInput
    sizes: np.ndarray
    back: np.ndarray  # pieces back from the last, below zero
    line: Line

    @staticmethod
    def of(given: DriftInput, *, oldest: bool = False) -> Series:
        """Of more than 500 pieces the newest, or the oldest."""
        kept = slice(None, MOST) if oldest else slice(-MOST, None)
        sizes, pieces = given.sizes_mm[kept], given.pieces[kept]
        return Series(given, np.asarray(sizes), back_of(pieces, len(sizes)), line_of(sizes, pieces))

    @property
    def begun(self) -> float:
        """Where it began: on the line at the first piece, where a drift is proven."""
        return float(self.line.at(self.back)[0]) if self.line.proven else self.line.last

    def middle(self, w: Working) -> float:
        """Of the limits [mm]."""
        given = self.given
        return w.step(
            "D_m", "Middle of the limits to work to", "(D_l + D_u)/2", "mm", DRIFT, D_l=given.low_mm, D_u=given.high_mm
        )

    def worth(self, w: Working) -> float:
        """How far off [mm] something must be for a correction not to be noise."""
        scatter = sigma_of(self.sizes - self.line.at(self.back) if self.line.proven else self.sizes)
        noise = w.step("s_e", "Four standard errors", "4*σ/sqrt(n)", "mm", DRIFT, σ=scatter, n=float(len(self.sizes)))
        label, width = "Off the middle, below which it is left alone", self.width
        return w.step("D_w", label, "max(W/4, s_e)", "mm", DRIFT, W=width, s_e=noise)

    @property
    def width(self) -> float:
        """Between the limits [mm]."""
        return self.given.high_mm - self.given.low_mm

    def aim(self, w: Working, middle: float, slope: float) -> float:
        """Where a size is best aimed at [mm]; `slope`: the drift aimed against."""
        if not self.line.proven:
            return middle
        ahead = abs(slope) * (self.given.pieces_per_edge or 0) / 2
        label, v = "Aimed at: against the drift, by half of what an edge drifts", math.copysign(1.0, slope)
        return w.step("D_t", label, "D_m - v*min(W/4, x)", "mm", DRIFT, D_m=middle, v=v, W=self.width, x=ahead)

    def stepped(self, w: Working, wanted: float) -> float:
        """A correction [mm] in whole steps of the control."""
        q = self.given.step_mm
        return w.step("c_o", "In steps of the control", "k*q", "mm", DRIFT, k=float(round(wanted / q)), q=q)

    def correction(self, w: Working, slope: float) -> Correction:
        """What the line where it stands now is worth to be corrected by; `slope`: the drift aimed against."""
        now, middle, worth = self.line.last, self.middle(w), self.worth(w)
        off = abs(now - middle)
        if off <= worth:
            return Correction(off, worth, 0.0)
        target = self.aim(w, middle, slope)
        wanted = w.step("D_d", "Wanted of it", "D_t - D_n", "mm", DRIFT, D_t=target, D_n=now)
        return Correction(off, worth, self.stepped(w, wanted))


def _pieces(now: float, slope: float, low: float, high: float) -> int | None:
    """Whole pieces until a size at `now` meets the limit it moves toward; None where it never does."""
    if not low <= now <= high:
        return 0
    if slope == 0:
        return None
    left = (high - now) / slope if slope > 0 else (now - low) / -slope
    return None if left > PIECES_MOST else math.floor(left + 1e-9)


@calculator(DriftInput)
def drift(given: DriftInput) -> DriftResult:
    """Drift of a size from piece to piece, pieces left to the limit, and the offset that is worth setting.

    Parameters
        {parameters}
    Returns
        slope_mm [mm a piece] with its 90 % interval slope_low_mm, slope_high_mm; fitted_now_mm [mm], where the line is
        at the last piece; pieces_left by the slope, pieces_left_sure by the worse end of the interval: None where no
        limit is in sight, 0 where it is outside already; offset_mm [mm], 0 where the size is best left alone
    Raises
        CalcError: fewer than six sizes, limits the wrong way round
    Validity
        A straight line: one edge, one offset, a machine at its warmth. Of more than 500 sizes the newest count. An
        offset is advised only when the line stands further from the middle than a quarter of the width and than four
        standard errors: smaller corrections make the spread larger.
    Example
        >>> r = drift(DriftInput((10.0, 10.001, 10.002, 10.003, 10.004, 10.005, 10.006, 10.007), 9.99, 10.01))
        >>> round(r.slope_mm, 4), r.pieces_left
        (0.001, 3)

    Reference
        Sen, J. Am. Stat. Assoc. 63 (1968); derived in docs/method.md, “Drift and offsets”
    """
    w, series = Working(), Series.of(given)
    line = series.line
    w.step("m_d", "Drift a piece: the median of all slopes", "m", "mm", SEN, m=line.slope)
    now = w.step("D_n", "Size now: where that line is at the last piece", "D", "mm", SEN, D=line.last)
    found = series.correction(w, line.slope)
    ends = (_pieces(now, end, given.low_mm, given.high_mm) for end in (line.low, line.high))
    sure = [p for p in ends if p is not None]
    _notes(w, given, line, found)
    return DriftResult(
        slope_mm=line.slope,
        slope_low_mm=line.low,
        slope_high_mm=line.high,
        fitted_now_mm=now,
        pieces_left=_pieces(now, line.slope, given.low_mm, given.high_mm),
        pieces_left_sure=min(sure) if sure else None,
        offset_mm=found.offset_mm,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _notes(w: Working, given: DriftInput, line: Line, found: Correction) -> None:
    if not given.low_mm <= line.last <= given.high_mm:
        w.note(
            "stop", "outside", "The line is outside the limits to work to: stop, correct, and measure the next piece."
        )
    if found.small:
        words = (
            "It stands {o} off the middle, within {w}: leave it alone; a smaller correction makes the spread larger."
        )
        w.note("info", "left-alone", words, o=_mm(found.off_mm, "up"), w=_mm(found.worth_mm, "down"))
    if not line.proven:
        w.note(
            "info", "no-drift", "The pieces do not show that it drifts: between both ends it may as well stand still."
        )
    if len(given.sizes_mm) > MOST:
        w.note("info", "newest", "Of {n} pieces the newest {m} count.", n=str(len(given.sizes_mm)), m=str(MOST))


def _mm(value: float, rounding: str) -> Figure:
    return Figure(value, "mm", rounding, PLACES)  # type: ignore[arg-type]
