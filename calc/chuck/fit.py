"""The chuck's own curve from a grip gauge run: calculator `grip-fit`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

FIT = derived("Calibration from a gauge run")
R_SQUARED_LEAST = 0.98  # typical: below it the points do not lie on the curve
TRANSMISSION = (0.6, 1.2)  # typical: outside, mass, radius or reading is wrong, or the guides stick
OUTLIER = 3.5  # residual over its scale estimated without that point
OUTLIER_SHARE = 0.02  # of the static grip: below it a gauge's noise is no outlier
LEAST_FOR_OUTLIERS = 5


@dataclass(frozen=True)
class GaugePoint(Checked):
    """One reading of the gauge: the grip, sum over all jaws, at a speed."""

    rpm: Annotated[float, terms.SPINDLE_SPEED]
    grip_n: Annotated[float, Quantity("Grip", "N", "Sum over all jaws", low=0, high=2_000_000)]


@dataclass(frozen=True)
class GripFitInput(Checked):
    """Input of `grip-fit`."""

    side: Annotated[Side, SIDE]
    points: Annotated[tuple[GaugePoint, ...], Group("Readings", "At three speeds or more", least=3, most=5000)]
    calculated_k: Annotated[
        float | None,
        Quantity("Calculated loss", "N/rpm2", "By the jaw stack's mass, all jaws; empty: not known", above=0, high=1),
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        speeds = {p.rpm for p in self.points}
        if len(speeds) < 3:
            yield FieldError(
                "points",
                Sentence("The readings are at {n} different speeds; take them at three at least.", n=str(len(speeds))),
            )
        elif max(speeds) - min(speeds) < 100:
            yield FieldError("points", Sentence("The readings lie within 100 rpm; spread them over the speed range."))


@dataclass(frozen=True, slots=True, kw_only=True)
class GripFitResult(Explained):
    """The fitted curve, how well it fits, and the readings that stand off it."""

    static_grip_n: Annotated[float, Found("Static grip", "N", "down")]
    k_n_per_rpm2: Annotated[float, Found("Loss per rpm²", "N/rpm2", "up")]
    r_squared: Annotated[float, Found("r²", places=(4, 4), safe="down")]
    transmission: Annotated[float | None, Found("Transmission", places=(3, 3))]
    residuals_n: Annotated[tuple[float, ...], Found("Readings off the curve", "N")]
    outliers: Annotated[tuple[int, ...], Found("Readings that do not fit, counted from 0")]


def _outliers(x: np.ndarray, residuals: np.ndarray, static: float) -> tuple[int, ...]:
    """Readings whose residual is too large for the scatter of the others (externally studentised)."""
    n = len(x)
    if n < LEAST_FOR_OUTLIERS:
        return ()
    spread = x - x.mean()
    leverage = 1 / n + spread**2 / (spread**2).sum()
    left = np.maximum(1 - leverage, 1e-9)
    without = np.maximum((residuals**2).sum() - residuals**2 / left, 0.0) / (n - 3)
    scale = np.sqrt(np.maximum(without * left, (1e-9 * max(static, 1.0)) ** 2))
    off = (np.abs(residuals) > OUTLIER * scale) & (np.abs(residuals) > OUTLIER_SHARE * abs(static))
    return tuple(int(i) for i in np.flatnonzero(off))


@calculator(GripFitInput)
def grip_fit(given: GripFitInput) -> GripFitResult:
    """The grip standing still and what speed takes from it (or adds), fitted to gauge readings.

    Parameters
        {parameters}
    Returns
        static_grip_n [N] at no speed; k_n_per_rpm2 [N/rpm²], positive in the direction expected of the
        side; r_squared [-]; transmission [-] = k/calculated_k, None where that is not known;
        residuals_n [N] of each reading; outliers, indices of readings that stand off the curve
    Raises
        CalcError for fewer than three speeds, or speeds within 100 rpm
    Validity
        F = F_0 ∓ k·n²: rigid jaws. Readings while slowing down hold more grip than while speeding up
        (the guides' friction); taken both ways they average. Outliers are told, never left out unasked.
    Example
        >>> points = tuple(GaugePoint(n, 40_000 - 0.002 * n * n) for n in (0, 1000, 2000, 3000))
        >>> r = grip_fit(GripFitInput("od", points, 0.002))
        >>> round(r.static_grip_n), round(r.k_n_per_rpm2, 6), round(r.transmission, 3)
        (40000, 0.002, 1.0)

    Reference
        ordinary least squares in n²; derived in docs/method.md, “Calibration from a gauge run”
    """
    w = Working()
    sign = -1.0 if given.side == "od" else 1.0
    x = np.array([p.rpm**2 for p in given.points])
    y = np.array([p.grip_n for p in given.points])
    mean_x, mean_y = float(x.mean()), float(y.mean())
    sxx, sxy = float(((x - mean_x) ** 2).sum()), float(((x - mean_x) * (y - mean_y)).sum())
    formula = "-S_xy / S_xx" if given.side == "od" else "S_xy / S_xx"
    k = w.step(
        "k",
        "Grip lost with the square of the speed" if given.side == "od" else "Grip gained with the square of the speed",
        formula,
        "N/rpm2",
        FIT,
        S_xy=sxy,
        S_xx=sxx,
    )
    static = w.step(
        "F_0", "Grip standing still", "F + k*x" if given.side == "od" else "F - k*x", "N", FIT, F=mean_y, k=k, x=mean_x
    )
    residuals = y - (static + sign * k * x)
    left, whole = float((residuals**2).sum()), float(((y - mean_y) ** 2).sum())
    if whole <= (1e-9 * max(mean_y, 1.0)) ** 2 * len(y):
        r_squared = 1.0  # all readings alike: a level line, met exactly
    else:
        r_squared = w.step(
            "r²", "Share of the scatter that the curve explains", "1 - SS_r / SS_t", "", FIT, SS_r=left, SS_t=whole
        )
    transmission = None
    if given.calculated_k is not None:
        transmission = w.step(
            "λ", "Transmission: measured over calculated", "k / k_c", "", FIT, k=k, k_c=given.calculated_k
        )
    found = GripFitResult(
        static_grip_n=static,
        k_n_per_rpm2=k,
        r_squared=r_squared,
        transmission=transmission,
        residuals_n=tuple(float(r) for r in residuals),
        outliers=_outliers(x, residuals, static),
        working=tuple(w.steps),
        notes=(),
    )
    _notes(w, given, found)
    return replace(found, notes=tuple(w.notes))


def _notes(w: Working, given: GripFitInput, found: GripFitResult) -> None:
    transmission, outliers = found.transmission, found.outliers
    wrong = "Mass, radius or reading is wrong, or the guides stick."
    if found.static_grip_n <= 0:
        w.note("stop", "no-static-grip", "The fitted grip standing still is not above zero. Look at the readings.")
    if found.k_n_per_rpm2 < 0:
        w.note(
            "caution",
            "wrong-way",
            "The grip {goes} with speed, against what the side says. " + wrong,
            goes="grows" if given.side == "od" else "falls",
        )
    if found.r_squared < R_SQUARED_LEAST:
        w.note(
            "caution",
            "poor-fit",
            "The curve explains {r} of the readings' scatter; {least} is the least that is usual. " + wrong,
            r=Figure(100 * max(found.r_squared, 0.0), "%", "down"),
            least=Figure(100 * R_SQUARED_LEAST, "%"),
        )
    if transmission is not None and not TRANSMISSION[0] <= transmission <= TRANSMISSION[1]:
        w.note(
            "caution",
            "transmission-odd",
            "Transmission comes out as {t}; 0.6 to 1.2 is usual. " + wrong,
            t=Figure(transmission, "", "near", places=(2, 2)),
        )
    if outliers:
        first = given.points[outliers[0]]
        w.note(
            "caution",
            "outliers",
            "{n} of the readings stand off the curve, the first at {rpm}. Look at them, take them "
            "out or measure again.",
            n=str(len(outliers)),
            rpm=Figure(first.rpm, "rpm"),
        )
