"""The elastic ring: how both walls of a plane-stress annulus move under pressure on one of them.

Airy's stress function for cos mθ has four terms, r^m, r^(m+2), r^−m, r^(−m+2) (Michell). Each is
scaled by the wall at which it is largest, since the powers span decades.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Any, Protocol

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


class _Ring(Protocol):
    @property
    def outer_diameter_mm(self) -> float: ...
    @property
    def inner_diameter_mm(self) -> float: ...
    @property
    def jaws(self) -> int: ...
    @property
    def wrap_deg(self) -> float: ...


def ring_contradictions(ring: _Ring) -> Iterator[FieldError]:
    """What no ring in jaws can be."""
    if ring.inner_diameter_mm >= ring.outer_diameter_mm:
        outer = Figure(ring.outer_diameter_mm, "mm", exact=True)
        yield FieldError("inner_diameter_mm", Sentence("The inside must be smaller than the outside, {d}.", d=outer))
    elif ring.outer_diameter_mm - ring.inner_diameter_mm < 2 * THINNEST * ring.outer_diameter_mm:
        least = Figure(THINNEST * ring.outer_diameter_mm, "mm", "up")
        yield FieldError("inner_diameter_mm", Sentence("The wall must be at least {t} to compute with.", t=least))
    if ring.wrap_deg > 360 / ring.jaws + 1e-9:
        most = Figure(360 / ring.jaws, "deg", "down")
        yield FieldError("wrap_deg", Sentence("{z} jaws wrap {a} each at most.", z=str(ring.jaws), a=most))


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
        yield from ring_contradictions(self)

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


class _Michell:
    """Michell's four terms of each harmonic, with the factors that a pressure cos mθ on the gripped wall gives them."""

    def __init__(self, harmonics: NDArray[Any], inner: float, outer: float, side: Side) -> None:
        m = np.asarray(harmonics, dtype=float)
        self.harmonics = m
        self.powers = np.stack([m, m + 2, -m, 2 - m], axis=1)
        self._scale = np.array([outer, outer, inner, inner])
        system = np.empty((len(m), 4, 4))
        for row, r in ((0, inner), (2, outer)):
            at = self.terms(r) / r**2
            system[:, row] = (self.powers - m[:, None] ** 2) * at  # radial stress
            system[:, row + 1] = (self.powers - 1) * at  # shear, over m
        load = np.zeros((len(m), 4, 1))
        load[:, 0 if side == "id" else 2] = -1.0
        # Rows differ by decades at high m; equal rows keep the solution as good as the numbers allow.
        size = np.abs(system).max(axis=2, keepdims=True)
        self.factors: Floats = np.linalg.solve(system / size, load / size)[:, :, 0]

    def terms(self, r: float) -> Floats:
        """(r/s)^p of every term."""
        power: Floats = np.exp(self.powers * np.log(r / self._scale))
        return power

    def hoop(self, r: float) -> Floats:
        """Hoop stress at a radius, a row each harmonic [MPa/MPa]."""
        found: Floats = (self.factors * self.powers * (self.powers - 1) * self.terms(r)).sum(axis=1) / r**2
        return found


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
    found = _Michell(harmonics, inner, outer, side)
    m, kappa = found.harmonics, (3 - poisson) / (1 + poisson)
    moves = np.stack([-m, kappa - m - 1, m, kappa + m - 1], axis=1)
    twice_shear = modulus_mpa / (1 + poisson)
    inner_move, outer_move = (
        (found.factors * moves * found.terms(r) / r).sum(axis=1) / twice_shear for r in (inner, outer)
    )
    return inner_move, outer_move


def wall_stress(harmonics: NDArray[Any], inner: float, outer: float, side: Side) -> tuple[Floats, Floats]:
    """(hoop stress on the free wall, hoop less radial stress on the gripped one) [MPa/MPa], for the same pressure.

    Parameters
        as `wall_response`; plane stress raises the same stresses in every elastic metal
    Reference
        Michell's solution; derived in docs/method.md, “Crushing”
    """
    found = _Michell(harmonics, inner, outer, side)
    gripped, free = (outer, inner) if side == "od" else (inner, outer)
    return found.hoop(free), found.hoop(gripped) + 1.0  # the radial stress of a pressure is its negative


def even_stress(inner: float, outer: float, side: Side) -> tuple[float, float]:
    """The same for even pressure all round.

    >>> [round(x, 3) for x in even_stress(45, 55, "od")]  # −2·55²/(55² − 45²), −(55² + 45²)/(55² − 45²) + 1
    [-6.05, -4.05]

    Reference: Lamé's thick ring.
    """
    a, b = inner, outer
    spread = b * b - a * a
    if side == "od":
        return -2 * b * b / spread, -(b * b + a * a) / spread + 1
    return 2 * a * a / spread, (b * b + a * a) / spread + 1


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
