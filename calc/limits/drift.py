"""How a size drifts from piece to piece, and the offset that brings it back: calculator `drift`."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from statistics import NormalDist
from typing import Annotated

import numpy as np

from calc.describing import documented
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

    def contradictions(self) -> Iterator[FieldError]:
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

    def residuals(self, sizes: Sequence[float]) -> np.ndarray:
        """How far each of the sizes is off the line."""
        y = np.asarray(sizes, dtype=float)
        off: np.ndarray = y - (self.last + self.slope * (np.arange(len(y)) - (len(y) - 1)))
        return off


def line_of(sizes: Sequence[float]) -> Line:
    """The median of all slopes between two pieces, and Sen's interval of it.

    The interval takes in the ranks that the normal approximation of Kendall's score leaves outside half a rank of
    each end: rounded outward, so it is never narrower than it says.
    """
    y = np.asarray(sizes, dtype=float)
    n = len(y)
    i, j = np.triu_indices(n, 1)
    slopes = np.sort((y[j] - y[i]) / (j - i))
    # Pieces are numbered without ties; sizes alike narrow the score's spread, as Kendall has it.
    _, alike = np.unique(y, return_counts=True)
    ties = float((alike * (alike - 1) * (2 * alike + 5)).sum())
    spread = _Z * math.sqrt(max(0.0, (n * (n - 1) * (2 * n + 5) - ties) / 18))
    first = max(0, math.floor((len(slopes) - spread) / 2) - 1)
    last = min(len(slopes) - 1, math.ceil((len(slopes) + spread) / 2))
    slope = float(np.median(slopes))
    now = float(np.median(y - slope * (np.arange(n) - (n - 1))))
    return Line(slope, float(slopes[first]), float(slopes[last]), now)


def _pieces(now: float, slope: float, low: float, high: float) -> int | None:
    """Whole pieces until a size at `now` meets the limit it moves toward; None where it never does."""
    if not low <= now <= high:
        return 0
    if slope == 0:
        return None
    left = (high - now) / slope if slope > 0 else (now - low) / -slope
    return None if left > PIECES_MOST else math.floor(left + 1e-9)


@documented(DriftInput)
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
    w = Working()
    sizes = given.sizes_mm[-MOST:]
    n, line = len(sizes), line_of(sizes)
    slope = w.step("m_d", "Drift a piece: the median of all slopes", "m", "mm", SEN, m=line.slope)
    now = w.step("D_n", "Size now: where that line is at the last piece", "D", "mm", SEN, D=line.last)
    width = w.step("W", "Between the limits to work to", "D_u - D_l", "mm", DRIFT, D_u=given.high_mm, D_l=given.low_mm)
    middle = w.step("D_m", "Their middle", "D_l + W/2", "mm", DRIFT, D_l=given.low_mm, W=width)
    scatter = sigma_of(line.residuals(sizes) if line.proven else np.asarray(sizes))
    noise = w.step("s_e", "Four standard errors", "4*σ/sqrt(n)", "mm", DRIFT, σ=scatter, n=float(n))
    worth = w.step(
        "D_w", "Off the middle, below which it is left alone", "max(W/4, s_e)", "mm", DRIFT, W=width, s_e=noise
    )
    target = middle
    if line.proven:
        ahead = abs(slope) * given.pieces_per_edge / 2 if given.pieces_per_edge else 0.0
        target = w.step(
            "D_t",
            "Aimed at: against the drift, by half of what an edge drifts",
            "D_m - v*min(W/4, x)",
            "mm",
            DRIFT,
            D_m=middle,
            v=math.copysign(1.0, slope),
            W=width,
            x=ahead,
        )
    off, offset = abs(now - middle), 0.0
    if off > worth:
        wanted = w.step("D_d", "Wanted of it", "D_t - D_n", "mm", DRIFT, D_t=target, D_n=now)
        whole = float(round(wanted / given.step_mm))
        offset = w.step("c_o", "In steps of the control", "k*q", "mm", DRIFT, k=whole, q=given.step_mm)
    ends = (_pieces(now, end, given.low_mm, given.high_mm) for end in (line.low, line.high))
    sure = [p for p in ends if p is not None]
    _notes(w, given, line, off, worth)
    return DriftResult(
        slope_mm=slope,
        slope_low_mm=line.low,
        slope_high_mm=line.high,
        fitted_now_mm=now,
        pieces_left=_pieces(now, slope, given.low_mm, given.high_mm),
        pieces_left_sure=min(sure) if sure else None,
        offset_mm=offset,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _notes(w: Working, given: DriftInput, line: Line, off: float, worth: float) -> None:
    if not given.low_mm <= line.last <= given.high_mm:
        w.note(
            "stop", "outside", "The line is outside the limits to work to: stop, correct, and measure the next piece."
        )
    if off <= worth:
        words = (
            "It stands {o} off the middle, within {w}: leave it alone; a smaller correction makes the spread larger."
        )
        w.note("info", "left-alone", words, o=_mm(off, "up"), w=_mm(worth, "down"))
    if not line.proven:
        w.note(
            "info", "no-drift", "The pieces do not show that it drifts: between both ends it may as well stand still."
        )
    if len(given.sizes_mm) > MOST:
        w.note("info", "newest", "Of {n} pieces the newest {m} count.", n=str(len(given.sizes_mm)), m=str(MOST))


def _mm(value: float, rounding: str) -> Figure:
    return Figure(value, "mm", rounding, PLACES)  # type: ignore[arg-type]
