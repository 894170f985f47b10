"""What to do at a tool's offset while a run goes on: advice that is worth setting, and what a fresh edge takes back."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.limits.drift import DriftInput, Series
from calc.quantities import Figure, Sentence
from calc.working import Step, Working

LEAST = 12  # pieces of a stretch: asked after every piece, a line of fewer is believed too often
PLACES = (3, 4)


@dataclass(frozen=True)
class Advice:
    """What to add to the offset [mm], 0 where it is left alone, why, and how that came about."""

    offset_mm: float
    why: Sentence
    steps: tuple[Step, ...] = ()


def _sure(series: Series) -> float:
    """The drift that is sure: what a slope seems to be is too much."""
    line = series.line
    return math.copysign(min(abs(line.low), abs(line.high)), line.slope) if line.proven else 0.0


def advised(given: DriftInput) -> Advice:
    """What the pieces of one edge and one offset advise, of which six at least were measured.

    The rule of the drift with two differences, both against chasing noise where one asks after every piece: it takes
    twelve pieces, and aims against what is sure of the slope. Followed over 200 seeded runs it made no more scrap than
    leaving everything alone in any of them; without the two it did in some.

    Reference: derived in docs/method.md, “Drift and offsets”
    """
    if len(given.sizes_mm) < LEAST:
        words = "After {n} measured pieces of this edge and offset it is too early: {m} tell whether it drifts."
        return Advice(0.0, Sentence(words, n=str(len(given.sizes_mm)), m=str(LEAST)))
    w, series = Working(), Series.of(given)
    found = series.correction(w, _sure(series))
    said = {"o": _mm(found.off_mm, "up"), "w": _mm(found.worth_mm, "down")}
    if found.small:
        words = "It stands {o} off the middle, within {w}: a correction now would chase noise."
        return Advice(0.0, Sentence(words, **said), tuple(w.steps))
    if found.offset_mm == 0:
        return Advice(0.0, Sentence("What is off is less than a step of the control."), tuple(w.steps))
    words = "It stands {o} off the middle, more than {w}"
    if series.line.proven:
        said["d"] = Figure(series.line.slope, "mm", places=(5, 6))
        words += ", and drifts by {d} a piece"
    return Advice(found.offset_mm, Sentence(f"{words}.", **said), tuple(w.steps))


def taken_back(given: DriftInput, since_mm: float) -> float:
    """What to add to the offset [mm] where a fresh edge is put in, in steps of the control.

    `given`: the sizes of the old edge's first stretch, six at least; `since_mm`: what was added to the offset since. A
    fresh edge cuts as the old one did when it was fresh: what its wear had asked for is taken back, and where its line
    began off its aim by more than noise and a quarter of the width, that is put right.

    Reference: derived in docs/method.md, “Drift and offsets”
    """
    w, series = Working(), Series.of(given, oldest=True)
    off = series.aim(w, series.middle(w), _sure(series)) - series.begun
    better = off if abs(off) > series.worth(w) else 0.0
    return series.stepped(w, better - since_mm)


def _mm(value: float, rounding: str) -> Figure:
    return Figure(value, "mm", rounding, PLACES)  # type: ignore[arg-type]
