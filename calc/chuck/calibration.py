"""What a gauge run says of a chuck: the condition that counts, and how that has gone over time."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Annotated

from calc.chuck.book import ChuckForce
from calc.chuck.fit import R_SQUARED_LEAST, TRANSMISSION, GripFitResult
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.fields import Quantity, Text

TREND_LEAST = 3  # runs
TREND_AHEAD_DAYS = 120  # farther ahead a straight line says nothing


@dataclass(frozen=True)
class Calibration:
    """The latest gauge run of a chuck as plans count with it. `jaw_set` is the set it was taken with, "" if unknown."""

    condition: Annotated[float, Quantity("Condition", "", "Measured over book grip", above=0, high=1.2)]
    transmission: Annotated[float, Quantity("Transmission", "", "Of the pull that reaches the grip", low=0, high=2)]
    on: Annotated[str, Text("Measured on", "ISO date", most=10)]
    jaw_set: Annotated[str, Text("Jaw set", "Its key; empty where it is not known", most=60)] = ""

    def transmission_for(self, jaw_set: str | None) -> float:
        """λ holds for the jaws it was measured with; for others it is 1."""
        return self.transmission if self.jaw_set and self.jaw_set == jaw_set else 1.0

    def counts_until(self, days: int) -> str:
        """The last day on which it counts, ISO."""
        return (date.fromisoformat(self.on) + timedelta(days=days)).isoformat()


def condition_of_fit(static_n: float, pressure_bar: float, grip_height_mm: float, chuck: ChuckForce) -> float:
    """Measured ÷ book grip [-] at the pressure [bar] and height [mm] it was measured at.

    Raises CalcError off the chart.

    >>> from calc.chuck.book import ChartPoint
    >>> book = ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000)))
    >>> condition_of_fit(48000, 20, 60, book)
    0.8

    Reference: derived in docs/method.md, “Calibration from a gauge run”.
    """
    book = chuck_grip(ChuckGripInput(pressure_bar, grip_height_mm, chuck))
    return static_n / book.grip_n


def usable(fit: GripFitResult) -> bool:
    """Whether a fit may count: the points lie on the curve, and what comes out is possible."""
    odd = fit.transmission is not None and not TRANSMISSION[0] <= fit.transmission <= TRANSMISSION[1]
    return fit.static_grip_n > 0 and fit.r_squared >= R_SQUARED_LEAST and not odd


@dataclass(frozen=True)
class Trend:
    """How the condition goes since the chuck was last greased: per 30 days, and when it falls below a limit."""

    per_month: float
    below: str | None  # ISO date, None where it is not in sight
    limit: float


def trend_of(runs: Sequence[tuple[str, float]], limit: float) -> Trend | None:
    """Least-squares line through (ISO date, condition); None with fewer than three runs or all on one day.

    Validity: told at most 120 days ahead; a straight line says nothing beyond.
    """
    if len(runs) < TREND_LEAST:
        return None
    days = [date.fromisoformat(on).toordinal() for on, _ in runs]
    middle, level = sum(days) / len(days), sum(c for _, c in runs) / len(runs)
    spread = sum((d - middle) ** 2 for d in days)
    if spread == 0:
        return None
    slope = sum((d - middle) * (c - level) for d, (_, c) in zip(days, runs, strict=True)) / spread
    below = None
    if slope < 0:
        when = middle + (limit - level) / slope
        if when <= days[-1] + TREND_AHEAD_DAYS:
            below = date.fromordinal(max(math.ceil(when), min(days))).isoformat()
    return Trend(slope * 30, below, limit)
