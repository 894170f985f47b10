"""How hard jaws press a wall against its proof stress: calculator `crushing`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Annotated

import numpy as np

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Flag, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.walls.lobing import HARMONICS, amplitudes, harmonics_of
from calc.walls.ring import SMALLEST_MM, even_stress, ring_contradictions, wall_stress
from calc.working import Source, Working, derived, typical

CRUSHING = derived("Crushing")
MICHELL = Source("standard", "Michell's and Lamé's solutions for the plane annulus")
# Shares of the proof stress (typical): from the first one is warned, above the second the wall yields.
CAUTION_SHARE, STOP_SHARE = 0.5, 0.8
EVEN_SPREAD_MM = 0.05  # a gripped diameter that varies more is not pressed evenly
EVERY_DEG = 1.0


@dataclass(frozen=True)
class CrushingInput(Checked):
    """Input of `crushing`."""

    total_grip_n: Annotated[float, terms.TOTAL_GRIP.called(low=0, above=None)]
    side: Annotated[Side, SIDE]
    outer_diameter_mm: Annotated[
        float, Quantity("Outside diameter", "mm", "Of the wall that is there", low=SMALLEST_MM, high=4000)
    ]
    inner_diameter_mm: Annotated[
        float, Quantity("Inside diameter", "mm", "Of the wall that is there", low=SMALLEST_MM, high=4000)
    ]
    length_mm: Annotated[
        float, Quantity("Ring length", "mm", "In the grip, and √(R·t) on each free side", low=SMALLEST_MM, high=5000)
    ]
    jaws: Annotated[int, terms.JAWS] = 3
    wrap_deg: Annotated[float, terms.WRAP.called(low=0.1, above=None)] = 50.0
    proof_n_mm2: Annotated[float | None, terms.PROOF_STRESS] = None
    uneven: Annotated[
        bool, Flag("Uneven", "The gripped diameter varies by over 0.05 mm: jaws are counted as touching at a point")
    ] = False

    def contradictions(self) -> Iterator[FieldError]:
        yield from ring_contradictions(self)


@dataclass(frozen=True, slots=True, kw_only=True)
class CrushingResult(Explained):
    """The largest stress in the wall, and its share of the proof stress."""

    stress_n_mm2: Annotated[float, Found("Largest stress", "N/mm2", "up")]
    share: Annotated[float | None, Found("Share of the proof stress", places=(2, 2), safe="up")]
    max_grip_n: Annotated[float | None, Found("Grip that it stands", "N", "down")]


@lru_cache(maxsize=256)
def _even_per_newton(one: CrushingInput) -> float:
    """Largest stress [N/mm² per N of grip] under even pressure over each jaw's wrap.

    The even part (Lamé) and every harmonic are added up before the largest is looked for: hoop stress on the free wall,
    hoop less radial stress on the gripped one, whose pressure is summed over the same harmonics.
    """
    inner, outer, half = one.inner_diameter_mm / 2, one.outer_diameter_mm / 2, math.radians(one.wrap_deg / 2)
    gripped, m = outer if one.side == "od" else inner, harmonics_of(one.jaws)
    pressure = amplitudes(one.jaws, gripped, one.length_mm, m, half)
    mean = 1 / (2 * math.pi * gripped * one.length_mm) * half / math.sin(half)  # z·q0·β/π of one newton
    free_even, gripped_even = even_stress(inner, outer, one.side)
    free, held = wall_stress(m, inner, outer, one.side)
    angles = np.radians(np.arange(0.0, 360.0 / one.jaws + EVERY_DEG, EVERY_DEG))
    waves = np.cos(angles[:, None] * m)
    on_free = free_even * mean + waves @ (free * pressure)
    on_held = gripped_even * mean + waves @ (held * pressure)
    return float(max(np.abs(on_free).max(), np.abs(on_held).max()))


def even_stress_n_mm2(given: CrushingInput) -> float:
    """Largest stress [N/mm²] in a wall under even pressure over each jaw's wrap."""
    return given.total_grip_n * _even_per_newton(replace(given, total_grip_n=1.0, proof_n_mm2=None, uneven=False))


def point_stress(w: Working, given: CrushingInput) -> float:
    """Largest stress [N/mm²] in a thin ring pressed at a point by each jaw.

    Reference: thin ring under equal radial loads; derived in docs/method.md, “Crushing”.
    """
    wall = (given.outer_diameter_mm - given.inner_diameter_mm) / 2
    per_jaw = w.step("F_j", "Grip of one jaw", "F / z", "N", CRUSHING, F=given.total_grip_n, z=given.jaws)
    mean = w.step(
        "R", "Mean radius", "(d_o + d_i) / 4", "mm", CRUSHING, d_o=given.outer_diameter_mm, d_i=given.inner_diameter_mm
    )
    moment = w.step(
        "M", "Moment under a jaw", "F_j*R/2 * (z/pi - 1/tan(pi/z))", "N*mm", CRUSHING, F_j=per_jaw, R=mean, z=given.jaws
    )
    return w.step(
        "σ",
        "Largest stress, jaws at a point",
        "6*M/(l*t**2) + F_j/(2*l*t*tan(pi/z))",
        "N/mm2",
        CRUSHING,
        M=moment,
        F_j=per_jaw,
        l=given.length_mm,
        t=wall,
        z=given.jaws,
    )


@calculator(CrushingInput)
def crushing(given: CrushingInput) -> CrushingResult:
    """The largest stress that jaws raise in a wall, against the proof stress of its material.

    Parameters
        {parameters}
    Returns
        stress_n_mm2 [N/mm²]: hoop stress on the free wall or hoop less radial stress on the gripped one, the larger;
        share of the proof stress, and max_grip_n [N], the grip at 0.8 of it: None without a proof stress
    Raises
        CalcError for values outside these ranges, a wall of nothing, a wrap wider than the jaws have room for
    Validity
        Elastic plane annulus. Even pressure asks that jaw and part agree within 0.05 mm on diameter: where the
        gripped diameter varies more, the thin ring under point loads is taken (`uneven`). Contact stress under the
        jaw's edges is not in it.
    Example
        >>> thin = CrushingInput(30_000, "od", 110, 90, 10, 3, 50, proof_n_mm2=400, uneven=True)
        >>> round(crushing(thin).stress_n_mm2, 1)
        595.2

    Reference
        derived in docs/method.md, “Crushing”; Michell (1899), Lamé
    """
    w = Working()
    if given.uneven:
        stress = point_stress(w, given)
    else:
        found = even_stress_n_mm2(given)
        label = f"Largest stress, even pressure and {HARMONICS} waves"
        stress = w.step("σ", label, "σ_max", "N/mm2", MICHELL, σ_max=found)
    share = most = None
    if given.proof_n_mm2 is not None:
        share = w.step(
            "σ/R",
            "Share of the proof stress",
            "σ / R_p",
            "",
            typical("warned above a half, stopped above 0.8 of the proof stress"),
            σ=stress,
            R_p=given.proof_n_mm2,
        )
        if stress > 0:
            text, source = "F * k * R_p / σ", typical("0.8 of the proof stress")
            values = {"F": given.total_grip_n, "k": STOP_SHARE, "R_p": given.proof_n_mm2, "σ": stress}
            most = w.step("F_y", "Grip that it stands", text, "N", source, **values)
        _notes(w, stress, share)
    return CrushingResult(
        stress_n_mm2=stress, share=share, max_grip_n=most, working=tuple(w.steps), notes=tuple(w.notes)
    )


def _notes(w: Working, stress: float, share: float) -> None:
    if share <= CAUTION_SHARE:
        return
    figures = {"s": Figure(stress, "N/mm2", "up", (0, 0)), "p": Figure(100 * share, "%", "up")}
    if share > STOP_SHARE:
        w.note("stop", "crushed", "The jaws stress the wall to {s}, {p} of its proof stress: it yields.", **figures)
    else:
        w.note("caution", "near-yield", "The jaws stress the wall to {s}, {p} of its proof stress.", **figures)
