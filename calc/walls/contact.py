"""The real contact of an elastic wall in bored jaws: one-sided, jaws push and never pull.

The wall is the annulus of `calc.walls.ring`; a jaw is a rigid arc of its true radius that moves
along its middle line. Where wall and arc touch there is pressure, elsewhere a gap: a linear
complementarity problem, solved by pivoting between the two.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Annotated

import numpy as np

from calc import terms
from calc.describing import calculator
from calc.errors import CalcError, FieldError
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.walls.lobing import EVERY_DEG, WallPoint
from calc.walls.ring import Floats, GrippedRing, RingWall, even_response, jaw_response
from calc.working import Working, derived

CELLS = 48  # of half a jaw's arc
HARMONICS = 500
SOLVE = derived("The real contact")


@dataclass(frozen=True)
class WallContactInput(GrippedRing):
    """Input of `wall-contact`."""

    total_grip_n: Annotated[float, terms.TOTAL_GRIP]
    jaw_diameter_mm: Annotated[float, terms.JAW_DIAMETER.called("Jaws bored to", "Diameter as bored or turned")] = (
        field(kw_only=True)
    )


@dataclass(frozen=True, slots=True)
class ContactPoint:
    """Pressure [N/mm²] and gap [mm] at an angle from the middle of a jaw."""

    angle_deg: Annotated[float, Found("Angle", "deg")]
    pressure_mpa: Annotated[float, Found("Pressure", "N/mm2")]
    gap_mm: Annotated[float, Found("Gap", "mm")]


@dataclass(frozen=True, slots=True, kw_only=True)
class WallContactResult(Explained):
    """Out-of-round after release, how much of the arc touches, and where it presses."""

    out_of_round_mm: Annotated[float, Found("Out of round", "mm", "up", (4, 5))]
    touching_share: Annotated[float, Found("Share of the arc that touches", places=(3, 3), safe="down")]
    contact: Annotated[tuple[ContactPoint, ...], Found("Contact along the jaw", points=True)]
    shape: Annotated[tuple[WallPoint, ...], Found("Shape of the wall", points=True)]


@dataclass(frozen=True)
class _Model:
    """The discrete problem: gap = stiff @ pressure + move·cos θ + apart, per half-arc cell."""

    edges: Floats
    middles: Floats
    cosines: Floats
    compliance: Floats  # mm/MPa, cell average under unit pressure in a cell and its mirror image
    force: Floats  # N per MPa along the jaw, of a cell and its mirror image
    apart: float


def _spectrum(z: int, edges: Floats, m: Floats) -> Floats:
    """Pressure harmonics of unit pressure in each cell and its mirror image under every jaw, (K, N)."""
    rise: Floats = np.sin(m[:, None] * edges[None, 1:]) - np.sin(m[:, None] * edges[None, :-1])
    return 2 * z * rise / (math.pi * m[:, None])


def _model(given: WallContactInput, m: Floats, moves: Floats, even: float) -> tuple[_Model, Floats]:
    # Finer toward the end of the arc: a bore that is too small touches there alone.
    edges = math.radians(given.wrap_deg / 2) * (1 - (1 - np.linspace(0, 1, CELLS + 1)) ** 1.5)
    width = np.diff(edges)
    spectrum = _spectrum(given.jaws, edges, m)
    averaged = spectrum / (2 * given.jaws * width / math.pi)  # mean of cos mθ over a cell
    yielding = -moves if given.side == "od" else moves
    compliance: Floats = averaged.T @ (yielding[:, None] * spectrum)
    compliance += abs(even) * given.jaws * width / math.pi
    radius = given.gripped_mm / 2
    force = 2 * radius * given.length_mm * (np.sin(edges[1:]) - np.sin(edges[:-1]))
    middles = (edges[1:] + edges[:-1]) / 2
    apart = (given.jaw_diameter_mm - given.gripped_mm) / 2
    return _Model(edges, middles, np.cos(middles), compliance, force, apart if given.side == "od" else -apart), spectrum


def _pressed(model: _Model, touching: NDArrayBool, per_jaw: float) -> tuple[Floats, float]:
    """Pressures of the cells said to touch, and the jaw's move, so that they carry the force."""
    index = np.flatnonzero(touching)
    n = len(index)
    system = np.zeros((n + 1, n + 1))
    system[:n, :n] = model.compliance[np.ix_(index, index)]
    system[:n, n] = model.cosines[index]
    system[n, :n] = model.force[index]
    right = np.append(np.full(n, -model.apart), per_jaw)
    found = np.linalg.solve(system, right)
    pressure = np.zeros(len(touching))
    pressure[index] = found[:n]
    return pressure, float(found[n])


NDArrayBool = np.ndarray[tuple[int], np.dtype[np.bool_]]


def _solve(model: _Model, per_jaw: float) -> tuple[Floats, Floats]:
    """(pressure, gap) of every cell. Block pivoting; single pivots once it stops getting better."""
    touching = np.ones(CELLS, dtype=bool)
    fewest, patience = CELLS + 1, 4
    scale = per_jaw / model.force.sum()
    for _ in range(20 * CELLS):
        pressure, move = _pressed(model, touching, per_jaw)
        gap = model.compliance @ pressure + move * model.cosines + model.apart
        wrong = np.where(touching, pressure < -1e-9 * scale, gap < -1e-12)
        count = int(wrong.sum())
        if count == 0:
            return pressure, np.where(touching, 0.0, gap)
        if count < fewest:
            fewest, patience = count, 4
        else:
            patience -= 1
        change = wrong if patience > 0 else np.arange(CELLS) == np.flatnonzero(wrong)[-1]
        kept = touching ^ change
        touching = kept if kept.any() else np.arange(CELLS) == 0
    raise CalcError([FieldError("", Sentence("The contact did not settle for these figures: check them."))])


@calculator(WallContactInput)
def wall_contact(given: WallContactInput) -> WallContactResult:
    """Out-of-round of a wall in jaws bored to any diameter, from the real one-sided contact.

    Parameters
        {parameters}
    Returns
        out_of_round_mm [mm] peak to valley of the machined wall; touching_share [-] of the arc;
        contact: pressure and gap over half a jaw; shape: both walls
    Raises
        CalcError: inside not below outside, too much wrap, a contact that does not settle
    Validity
        Plane stress, rigid frictionless jaws that move along their middle line, 48 cells to half an
        arc, 500 harmonics. The bore and the piece may differ by tenths; larger turns of the arc are
        left out (second order in the difference).
    Example
        >>> tight = wall_contact(WallContactInput(30_000, "od", 110, 90, 30, 200, jaw_diameter_mm=110.0))
        >>> loose = wall_contact(WallContactInput(30_000, "od", 110, 90, 30, 200, jaw_diameter_mm=112.0))
        >>> loose.out_of_round_mm > 3 * tight.out_of_round_mm  # in jaws bored too large the wall is held by lines
        True

    Reference
        derived in docs/method.md, “The real contact”
    """
    outer, inner = given.outer_diameter_mm / 2, given.inner_diameter_mm / 2
    outside, modulus = given.side == "od", given.modulus_gpa * 1000
    m = given.jaws * np.arange(1, HARMONICS + 1, dtype=float)
    moves = jaw_response(given.jaws, HARMONICS, RingWall(inner, outer, given.side, modulus, given.poisson))
    even = even_response(inner, outer, given.side, modulus, given.poisson)
    gripped = 1 if outside else 0
    model, spectrum = _model(given, m, moves[gripped], even[gripped])
    pressure, gap = _solve(model, given.total_grip_n / given.jaws)
    widths = np.diff(model.edges)
    waves = spectrum @ pressure
    angles = np.arange(0, 361, EVERY_DEG, dtype=float)
    turned = np.cos(np.radians(angles)[:, None] * m)
    inner_wall, outer_wall = (turned @ (waves * move) for move in moves)
    machined = inner_wall if outside else outer_wall
    w = Working()
    out = w.step(
        "Δ",
        "Out-of-round: crest less valley",
        "w_max - w_min",
        "mm",
        SOLVE,
        w_max=float(machined.max()),
        w_min=float(machined.min()),
    )
    touching = float(widths[pressure > 0].sum() / widths.sum())
    share = w.step("s_c", "Share of the arc that touches", "s", "", SOLVE, s=touching)
    return WallContactResult(
        out_of_round_mm=out,
        touching_share=share,
        contact=tuple(map(ContactPoint, np.degrees(model.middles).tolist(), pressure.tolist(), gap.tolist())),
        shape=tuple(map(WallPoint, angles.tolist(), inner_wall.tolist(), outer_wall.tolist())),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
