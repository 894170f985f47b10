"""Whether a run keeps its print: calculator `capability`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from statistics import NormalDist
from typing import Annotated

import numpy as np

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.limits.working import LIMIT_PLACES
from calc.quantities import Sentence, about
from calc.results import Explained, Found
from calc.working import Source, Working, derived

CAPABILITY = derived("Capability")
CHI = Source("standard", "chi-square interval of a normal spread, 90 %", "chi-square")
BISSELL = Source("standard", "interval by Bissell, 1990, 90 %", "Bissell 1990")
LEAST, MOST = 25, 100_000  # pieces: fewer than 25 say too little
SURE = 0.90
PLACES = (2, 2)
MM = {"low": -10_000, "high": 10_000, "places": LIMIT_PLACES}


@dataclass(frozen=True)
class CapabilityInput(Checked):
    """Input of `capability`."""

    sizes_mm: Annotated[tuple[float, ...], Quantity("Sizes", "mm", "Of all pieces, two at least", **MM)]
    low_mm: Annotated[float, Quantity("Lower limit", "mm", "Of the print", **MM)]
    high_mm: Annotated[float, Quantity("Upper limit", "mm", "Of the print", **MM)]

    def contradictions(self) -> Iterator[FieldError]:
        if not 2 <= len(self.sizes_mm) <= MOST:
            words = "There are {n}; give {a} to {b} sizes."
            yield FieldError("sizes_mm", Sentence(words, n=str(len(self.sizes_mm)), a="2", b=str(MOST)))
        if self.low_mm >= self.high_mm:
            yield FieldError("low_mm", about("The lower limit must be below the upper one, {x}.", self.high_mm))


@dataclass(frozen=True, slots=True, kw_only=True)
class CapabilityResult(Explained):
    """Mean and spread, and how often the spread goes into the print, with what is sure of it."""

    n: Annotated[int, Found("Pieces")]
    mean_mm: Annotated[float, Found("Mean", "mm", places=LIMIT_PLACES)]
    sd_mm: Annotated[float, Found("Spread s, over all", "mm", "up", places=LIMIT_PLACES)]
    cp: Annotated[float | None, Found("Cp", places=PLACES, safe="down")]
    cp_low: Annotated[float | None, Found("Cp, at least", places=PLACES, safe="down")]
    cp_high: Annotated[float | None, Found("Cp, at most", places=PLACES, safe="up")]
    cpk: Annotated[float | None, Found("Cpk", places=PLACES, safe="down")]
    cpk_low: Annotated[float | None, Found("Cpk, at least", places=PLACES, safe="down")]
    cpk_high: Annotated[float | None, Found("Cpk, at most", places=PLACES, safe="up")]


@calculator(CapabilityInput)
def capability(given: CapabilityInput) -> CapabilityResult:
    """Cp and Cpk of a run against the print, each with its 90 % interval.

    Parameters
        {parameters}
    Returns
        n; mean_mm, sd_mm [mm]; cp, cpk [-] and their intervals, None for fewer than 25 pieces and where all are alike
    Raises
        CalcError: fewer than two sizes, limits the wrong way round
    Validity
        Normal scatter about one mean. While the chart is not stable they are called Pp and Ppk: they tell of this run,
        not of what the machine can do.
    Example
        >>> r = capability(CapabilityInput(tuple(10 + 0.001 * (i % 5 - 2) for i in range(50)), 9.99, 10.01))
        >>> round(r.sd_mm, 5), round(r.cp, 2)
        (0.00143, 2.33)

    Reference
        Bissell, Applied Statistics 39 (1990); derived in docs/method.md, “Capability”
    """
    w = Working()
    sizes = np.asarray(given.sizes_mm, dtype=float)
    n, mean, sd = len(sizes), float(sizes.mean()), float(sizes.std(ddof=1))
    mean = w.step("D_a", "Mean of all pieces", "D", "mm", CAPABILITY, D=mean)
    none = dict.fromkeys(("cp", "cp_low", "cp_high", "cpk", "cpk_low", "cpk_high"))
    found: dict[str, float | None] = dict(none)
    if n < LEAST:
        w.note(
            "info", "too-few", "Of {n} pieces mean and spread are told; Cp and Cpk take {m}.", n=str(n), m=str(LEAST)
        )
    elif sd <= 1e-9 * max(1.0, abs(mean)):
        w.note("info", "all-alike", "All pieces read alike: measure finer to tell what they scatter.")
    else:
        found = _found(w, given, mean, sd, n)
    return CapabilityResult(n=n, mean_mm=mean, sd_mm=sd, working=tuple(w.steps), notes=tuple(w.notes), **found)


def _chi_square(share: float, free: int) -> float:
    """The chi-square below which this share lies. All of scipy's distributions take a second to load: their special
    functions alone do not.
    """
    from scipy.special import chdtri

    return float(chdtri(free, 1 - share))


def _found(w: Working, given: CapabilityInput, mean: float, sd: float, n: int) -> dict[str, float | None]:
    low, high = given.low_mm, given.high_mm
    cp = w.step("C_p", "Print over six spreads", "(D_u - D_l)/(6*s)", "", CAPABILITY, D_u=high, D_l=low, s=sd)
    near = "Distance to the nearer limit over three spreads"
    cpk = w.step("C_pk", near, "min(D_u - D_a, D_a - D_l)/(3*s)", "", CAPABILITY, D_u=high, D_a=mean, D_l=low, s=sd)
    free = float(n - 1)
    ends = [_chi_square(p, n - 1) for p in ((1 - SURE) / 2, (1 + SURE) / 2)]
    cp_low, cp_high = (
        w.step(name, label, "C_p*sqrt(x/f)", "", CHI, C_p=cp, x=end, f=free)
        for (name, label), end in zip((("C_1", "Cp, at least"), ("C_2", "Cp, at most")), ends, strict=True)
    )
    z = NormalDist().inv_cdf((1 + SURE) / 2)
    half = w.step(
        "C_h",
        "Half the interval of Cpk",
        "z*sqrt(1/(9*n) + C_pk**2/(2*f))",
        "",
        BISSELL,
        z=z,
        n=float(n),
        C_pk=cpk,
        f=free,
    )
    return {"cp": cp, "cp_low": cp_low, "cp_high": cp_high, "cpk": cpk, "cpk_low": cpk - half, "cpk_high": cpk + half}
