"""The elastic ring: how both walls of a plane-stress annulus move under pressure on one of them.

Airy's stress function for cos mθ has four terms, r^m, r^(m+2), r^−m, r^(−m+2) (Michell). Each is
scaled by the wall at which it is largest, since the powers span decades.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Any

import numpy as np
from numpy.typing import NDArray

from calc import terms
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.terms import SIDE, Side

Floats = NDArray[np.float64]

# Below these the series and its equations are no longer good in double precision, and no lathe turns such a wall.
SMALLEST_MM = 0.1
THINNEST = 1e-4  # wall over outside diameter


@dataclass(frozen=True)
class GrippedRing(Checked):
    """A wall in equal jaws: what every question about it is asked with."""

    total_grip_n: Annotated[float, terms.TOTAL_GRIP.called(low=0, above=None)]
    side: Annotated[Side, SIDE]
    outer_diameter_mm: Annotated[float, Quantity("Outside diameter", "mm", "Finished", low=SMALLEST_MM, high=4000)]
    inner_diameter_mm: Annotated[float, Quantity("Inside diameter", "mm", "Finished", low=SMALLEST_MM, high=4000)]
    length_mm: Annotated[
        float,
        Quantity("Ring length", "mm", "In the grip, and up to half a wall either side", low=SMALLEST_MM, high=5000),
    ]
    modulus_gpa: Annotated[float, terms.MODULUS.called(low=0.001, above=None)]
    poisson: Annotated[float, terms.POISSON] = 0.3
    jaws: Annotated[int, terms.JAWS] = 3
    wrap_deg: Annotated[float, terms.WRAP.called(low=0.1, above=None)] = 50.0

    def contradictions(self) -> Iterator[FieldError]:
        if self.inner_diameter_mm >= self.outer_diameter_mm:
            outer = Figure(self.outer_diameter_mm, "mm", exact=True)
            yield FieldError(
                "inner_diameter_mm", Sentence("The inside must be smaller than the outside, {d}.", d=outer)
            )
        elif self.outer_diameter_mm - self.inner_diameter_mm < 2 * THINNEST * self.outer_diameter_mm:
            least = Figure(THINNEST * self.outer_diameter_mm, "mm", "up")
            yield FieldError("inner_diameter_mm", Sentence("The wall must be at least {t} to compute with.", t=least))
        if self.wrap_deg > 360 / self.jaws + 1e-9:
            most = Figure(360 / self.jaws, "deg", "down")
            yield FieldError("wrap_deg", Sentence("{z} jaws wrap {a} each at most.", z=str(self.jaws), a=most))

    @property
    def gripped_mm(self) -> float:
        """Diameter of the gripped wall."""
        return self.outer_diameter_mm if self.side == "od" else self.inner_diameter_mm


@dataclass(frozen=True)
class RingWall:
    """A ring: radii [mm], the side that is gripped, modulus [MPa] and Poisson's number."""

    inner: float
    outer: float
    side: Side
    modulus_mpa: float
    poisson: float


@lru_cache(maxsize=256)
def jaw_response(jaws: int, count: int, wall: RingWall) -> tuple[Floats, Floats]:
    """`wall_response` for the harmonics z, 2z … of equal jaws; kept, since a wall is asked at many forces."""
    harmonics = jaws * np.arange(1, count + 1)
    moves = wall_response(harmonics, wall.inner, wall.outer, wall.side, wall.modulus_mpa, wall.poisson)
    for move in moves:
        move.flags.writeable = False
    return moves


def wall_response(
    harmonics: NDArray[Any], inner: float, outer: float, side: Side, modulus_mpa: float, poisson: float
) -> tuple[Floats, Floats]:
    """Radial movement (inner wall, outer wall) [mm/MPa] for a pressure cos mθ on the gripped wall.

    Parameters
        harmonics: m ≥ 2, shape (K,); inner < outer radius [mm]; modulus_mpa [MPa]; poisson [-]
        side: od, pressure on the outer wall; id, on the inner one
    Returns
        two arrays of shape (K,), positive outward
    Reference
        Michell's solution; derived in docs/method.md, “Thin walls”
    """
    m = np.asarray(harmonics, dtype=float)
    kappa = (3 - poisson) / (1 + poisson)
    powers = np.stack([m, m + 2, -m, 2 - m], axis=1)
    moves = np.stack([-m, kappa - m - 1, m, kappa + m - 1], axis=1)
    scale = np.array([outer, outer, inner, inner])

    def terms(r: float) -> Floats:
        power: Floats = np.exp(powers * np.log(r / scale))  # (r/s)^p
        return power

    system = np.empty((len(m), 4, 4))
    for row, r in ((0, inner), (2, outer)):
        at = terms(r) / r**2
        system[:, row] = (powers - m[:, None] ** 2) * at  # radial stress
        system[:, row + 1] = (powers - 1) * at  # shear, over m
    load = np.zeros((len(m), 4, 1))
    load[:, 0 if side == "id" else 2] = -1.0
    # Rows differ by decades at high m; equal rows keep the solution as good as the numbers allow.
    size = np.abs(system).max(axis=2, keepdims=True)
    found = np.linalg.solve(system / size, load / size)[:, :, 0]
    twice_shear = modulus_mpa / (1 + poisson)
    inner_move, outer_move = ((found * moves * terms(r) / r).sum(axis=1) / twice_shear for r in (inner, outer))
    return inner_move, outer_move


def even_response(inner: float, outer: float, side: Side, modulus_mpa: float, poisson: float) -> tuple[float, float]:
    """The same for even pressure all round: (inner wall, outer wall) [mm/MPa] of radii 0 < inner < outer [mm].

    >>> even_response(45, 55, "od", 200_000, 0.3)[0]  # −2·45·55²/(200 000·(55² − 45²))
    -0.00136125

    Reference: Lamé's thick ring in plane stress; derived in docs/method.md, “Thin walls”.
    """
    a, b = inner, outer
    spread = modulus_mpa * (b * b - a * a)
    if side == "od":
        return -2 * a * b * b / spread, -b * (b * b + a * a) / spread + poisson * b / modulus_mpa
    return a * (b * b + a * a) / spread + poisson * a / modulus_mpa, 2 * b * a * a / spread
