"""How far jaws squeeze a thin wall out of round: calculator `wall-lobing`."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace
from functools import lru_cache
from typing import Annotated

import numpy as np

from calc.describing import calculator
from calc.fields import Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.walls.ring import Floats, GrippedRing, RingWall, jaw_response
from calc.working import Source, Working, derived

WALL = derived("Thin walls")
MICHELL = Source("standard", "Michell's solution for the plane annulus")
HARMONICS = 40
EVERY_DEG = 3
WIDE_WRAP_DEG = 80.0
THIN = 0.15  # wall over mean radius, above which the thin-ring figure is no cross-check


@dataclass(frozen=True)
class WallLobingInput(GrippedRing):
    """Input of `wall-lobing`. The wall is the finished one, at the force of the finish cut."""

    allowed_mm: Annotated[
        float | None, Quantity("Allowed", "mm", "Out-of-round; a third of the tolerance is usual", above=0, high=10)
    ] = None


@dataclass(frozen=True, slots=True)
class WallPoint:
    """Where both walls have moved to, radially and outward, at an angle from the middle of a jaw."""

    angle_deg: Annotated[float, Found("Angle", "deg")]
    inner_mm: Annotated[float, Found("Inside moves", "mm")]
    outer_mm: Annotated[float, Found("Outside moves", "mm")]


@dataclass(frozen=True, slots=True, kw_only=True)
class Lobing(Explained):
    """Out-of-round of the machined wall after release, the bound from above, and the grip for what is allowed."""

    out_of_round_mm: Annotated[float, Found("Out of round", "mm", "up", (4, 5))]
    out_of_round_point_mm: Annotated[float, Found("Out of round, jaws at a point", "mm", "up", (4, 5))]
    max_grip_n: Annotated[float | None, Found("Grip that keeps what is allowed", "N", "down")]


@dataclass(frozen=True, slots=True, kw_only=True)
class WallLobingResult(Lobing):
    """The same, and the shape of both walls."""

    shape: Annotated[tuple[WallPoint, ...], Found("Shape of the wall", points=True)]


def harmonics_of(jaws: int, count: int = HARMONICS) -> Floats:
    """The harmonics that equal jaws excite: z, 2z, 3z …"""
    return jaws * np.arange(1, count + 1, dtype=float)


def amplitudes(jaws: int, gripped: float, length: float, m: Floats, half_wrap: float | None) -> Floats:
    """Pressure harmonics [MPa per N of grip] on a wall of a radius and length [mm]; point loads where `half_wrap`
    [rad] is None.
    """
    if half_wrap is None:
        return np.full_like(m, 1 / (math.pi * gripped * length))
    even = 1 / (jaws * 2 * gripped * length * math.sin(half_wrap))
    return 2 * jaws * even * np.sin(m * half_wrap) / (math.pi * m)


@lru_cache(maxsize=16)
def _turns(jaws: int) -> tuple[Floats, Floats]:
    """(angles [deg], cos mθ of every harmonic at each)."""
    m = harmonics_of(jaws)
    angles = np.arange(0, 361, EVERY_DEG, dtype=float)
    return angles, np.cos(np.radians(angles)[:, None] * m)


@dataclass(frozen=True, slots=True)
class _PerNewton:
    """A wall under one newton of grip: it moves in proportion."""

    inner: Floats  # mm/N at each angle
    outer: Floats
    pointed: Floats  # of the machined wall, under point loads


@lru_cache(maxsize=256)
def per_newton(one: GrippedRing) -> _PerNewton:
    """The walls under one newton of grip; kept, since a wall is asked at many forces."""
    outer, inner = one.outer_diameter_mm / 2, one.inner_diameter_mm / 2
    m, (_, waves) = harmonics_of(one.jaws), _turns(one.jaws)
    moves = jaw_response(one.jaws, HARMONICS, RingWall(inner, outer, one.side, one.modulus_gpa * 1000, one.poisson))
    pressed = (one.jaws, one.gripped_mm / 2, one.length_mm, m)
    pressures = amplitudes(*pressed, math.radians(one.wrap_deg / 2))
    pointed = waves @ (amplitudes(*pressed, None) * moves[0 if one.side == "od" else 1])
    inner_wall, outer_wall = (waves @ (pressures * move) for move in moves)
    return _PerNewton(inner_wall, outer_wall, pointed)


def _walls(given: WallLobingInput) -> _PerNewton:
    return per_newton(replace(given, total_grip_n=1.0, allowed_mm=None))


def wall_shape(given: WallLobingInput) -> tuple[WallPoint, ...]:
    """Where both walls have moved to, every 3° from the middle of a jaw."""
    walls, (angles, _) = _walls(given), _turns(given.jaws)
    moved = ((given.total_grip_n * wall).tolist() for wall in (walls.inner, walls.outer))
    return tuple(map(WallPoint, angles.tolist(), *moved))


@calculator(WallLobingInput)
def wall_lobing(given: WallLobingInput) -> WallLobingResult:
    """Out-of-round of a wall machined while three (or z) jaws hold it, and the grip it would stand.

    Parameters
        {parameters}
    Returns
        out_of_round_mm [mm] peak to valley of the machined wall (inner for an outside grip, outer for
        an inside grip); out_of_round_point_mm [mm], point loads, the upper bound; max_grip_n [N] for
        allowed_mm, None without it; shape: both walls every 3° from the middle of a jaw
    Raises
        CalcError: inside not below outside, more wrap than the jaws have room for
    Validity
        Plane stress, even pressure over the wrap, 40 harmonics. Above 80° of wrap the pressure is even
        only while jaw and part agree within about 0.05 mm on diameter.
    Example
        >>> r = wall_lobing(WallLobingInput(30_000, "od", 110, 90, 10, 200, 0.3, 3, 50))
        >>> round(r.out_of_round_mm, 4)
        0.1816

    Reference
        derived in docs/method.md, “Thin walls”; Michell (1899)
    """
    found = lobing(given)
    figures = {f.name: getattr(found, f.name) for f in fields(found)}
    return WallLobingResult(**figures, shape=wall_shape(given))


def lobing(given: WallLobingInput) -> Lobing:
    """`wall_lobing` without the shape, which only a drawing needs."""
    w = Working()
    outer, inner = given.outer_diameter_mm / 2, given.inner_diameter_mm / 2
    walls, force = _walls(given), given.total_grip_n
    per_jaw = w.step("F_j", "Grip of one jaw", "F / z", "N", WALL, F=force, z=given.jaws)
    even = w.step(
        "q_0",
        "Even pressure under a jaw",
        "F_j / (2*R*l*sin(radians(φ/2)))",
        "N/mm2",
        WALL,
        F_j=per_jaw,
        R=given.gripped_mm / 2,
        l=given.length_mm,
        φ=given.wrap_deg,
    )
    first = w.step(
        "a_z",
        "First pressure wave",
        "2*z*q_0*sin(radians(z*φ/2)) / (pi*z)",
        "N/mm2",
        WALL,
        z=given.jaws,
        q_0=even,
        φ=given.wrap_deg,
    )
    machined = walls.inner if given.side == "od" else walls.outer
    crest, valley = force * float(machined.max()), force * float(machined.min())
    shown = {"w_max": crest, "w_min": valley}
    out = w.step("Δ", f"Out-of-round: crest less valley, {HARMONICS} waves", "w_max - w_min", "mm", MICHELL, **shown)
    shown = {"w_max": force * float(walls.pointed.max()), "w_min": force * float(walls.pointed.min())}
    point = w.step("Δ_p", "The same under point loads, the most it can be", "w_max - w_min", "mm", MICHELL, **shown)
    wall, mean = outer - inner, (outer + inner) / 2
    if wall / mean < THIN:
        w.step(
            "Δ_t",
            "Cross-check: thin ring, first wave only",
            "2*abs(a_z)*l*R**4 / (1000*E*I*(z**2 - 1)**2)",
            "mm",
            WALL,
            a_z=first,
            l=given.length_mm,
            R=mean,
            E=given.modulus_gpa,
            I=given.length_mm * wall**3 / 12,
            z=given.jaws,
        )
    most = None
    if given.allowed_mm is not None and out > 0:
        most = w.step(
            "F_w", "Grip that the wall stands", "F * Δ_a / Δ", "N", WALL, F=force, Δ_a=given.allowed_mm, Δ=out
        )
    _notes(given, out, w)
    return Lobing(
        out_of_round_mm=out, out_of_round_point_mm=point, max_grip_n=most, working=tuple(w.steps), notes=tuple(w.notes)
    )


def _notes(given: WallLobingInput, out: float, w: Working) -> None:
    if given.allowed_mm is not None and out > given.allowed_mm * (1 + 1e-9):
        w.note(
            "caution",
            "out-of-round",
            "The wall springs {x} out of round when released; {a} is allowed.",
            x=Figure(out, "mm", "up", (3, 4)),
            a=Figure(given.allowed_mm, "mm", "down", (3, 4)),
        )
    if given.wrap_deg > WIDE_WRAP_DEG:
        w.note(
            "caution",
            "wide-wrap",
            "Pressure this even needs jaw and part to agree within about {x} on diameter: at twice that the figure "
            "doubles.",
            x=Figure(0.05, "mm"),
        )
    if given.jaws == 3:
        w.note(
            "info",
            "three-lobes",
            "A two-point micrometer does not see three lobes: use an indicator or a three-point gauge.",
        )
