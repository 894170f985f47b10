"""The grip that the cuts need by limit analysis, beside the closed form: calculator `grip-exact`.

The least sum of the jaws' normal forces for which any sharing of forces among contact points along
the jaws, each within its friction cone, holds the part against a cut in its worst direction.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from numpy.typing import NDArray

from calc.chuck.demand import GRAVITY, CutLoad, GripDemandInput, grip_demand
from calc.describing import calculator
from calc.errors import FieldProblem
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.working import Working, derived

EXACT = derived("The limit analysis")
RAYS = 16  # of the polygon within each friction circle: at most 2 % more grip than with the circle, never less
DIRECTIONS = 12  # of the cut around the part, over the angle between two jaws

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class ExactCut:
    """A cut's true need [N over all jaws], before safety, at its worst angle from a jaw, and the closed form's."""

    name: Annotated[str, Found("Cut")]
    needed_n: Annotated[float, Found("Needed, without safety", "N", "up")]
    angle_deg: Annotated[float, Found("Worst angle of the cut to a jaw", "deg")]
    closed_form_n: Annotated[float, Found("By the closed form", "N", "up")]

    @property
    def share(self) -> float:
        """True need over the closed form's."""
        return self.needed_n / self.closed_form_n if self.closed_form_n > 0 else 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class GripExactResult(Explained):
    """The grip that the worst cut needs by limit analysis, safety included."""

    required_grip_n: Annotated[float, Found("Required grip, all jaws", "N", "up")]
    governing_cut: Annotated[str, Found("Governing cut")]
    closed_form_n: Annotated[float, Found("By the closed form", "N", "up")]
    cuts: Annotated[tuple[ExactCut, ...], Found("Each cut")]


def contact_wrenches(given: GripDemandInput) -> Floats:
    """What one newton of normal force can do at the ends of each jaw, along each ray of its cone.

    Returns shape (6, jaws × 2 × RAYS): force [N] x, y, z and moment [N·mm] about the grip's middle.
    The ends of a jaw's line of contact are enough: what lies between is a mixture of them.
    """
    radius, half = given.grip_diameter_mm / 2, given.grip_length_mm / 2
    columns = []
    for jaw in range(given.jaws):
        angle = 2 * math.pi * jaw / given.jaws
        out, round_ = (
            np.array([math.cos(angle), math.sin(angle), 0.0]),
            np.array([-math.sin(angle), math.cos(angle), 0.0]),
        )
        for z in (-half, half):
            at = radius * out + np.array([0.0, 0.0, z])
            for ray in range(RAYS):
                turn = 2 * math.pi * ray / RAYS
                along = math.cos(turn) * round_ + math.sin(turn) * np.array([0.0, 0.0, 1.0])
                force = -out + given.friction * along
                columns.append(np.concatenate([force, np.cross(at, force)]))
    return np.array(columns).T


def load_wrench(cut: CutLoad, given: GripDemandInput, angle: float, sign: float) -> Floats:
    """The cut's force [N] and moment [N·mm] about the grip's middle, cutting at `angle` [rad], axial force in
    direction `sign`.

    An axial force that a seat carries still tips the part about the cut; the part's weight and imbalance
    push the way the cut does.
    """
    out, round_ = np.array([math.cos(angle), math.sin(angle), 0.0]), np.array([-math.sin(angle), math.cos(angle), 0.0])
    radius, axis = cut.cut_diameter_mm / 2, np.array([0.0, 0.0, 1.0])
    across = (0.0 if cut.torque_only else cut.tangential_n) * round_ - cut.radial_n * out
    force = across + sign * cut.unseated_axial_n * axis
    moment = np.cross(cut.overhang_mm * axis, across) + cut.tangential_n * radius * axis
    moment = moment + np.cross(radius * out, sign * cut.axial_n * axis)
    beside = given.part_mass_kg * (given.offset_mm / 1000 * (2 * math.pi * given.rpm / 60) ** 2 + GRAVITY)
    if beside > 0:
        size = float(np.hypot(across[0], across[1]))
        push = beside * (across / size if size > 0 else -out)
        force, moment = force + push, moment + np.cross(given.centre_overhang_mm * axis, push)
    return np.concatenate([force, moment])


def _least_grip(wrenches: Floats, load: Floats, scale: float, *, supported: bool) -> float:
    """The least sum of normal forces [N] that balances the load; a live centre takes all but pull and torque."""
    from scipy.optimize import linprog

    rows = [2, 5] if supported else list(range(6))
    size = np.array([1.0, 1.0, 1.0, scale, scale, scale])[rows]
    with np.errstate(all="ignore"):
        arms, against = wrenches[rows] / size[:, None], load[rows] / size
    force = max(float(np.abs(against).max()), 1e-12)
    if not (np.isfinite(arms).all() and math.isfinite(force)):
        raise FieldProblem("", "The sizes are too far apart to be solved. Check them.")
    answer = linprog(np.ones(wrenches.shape[1]), A_eq=arms, b_eq=-against / force, method="highs")
    if answer.status != 0:
        return math.inf
    return float(answer.fun) * force


@calculator(GripDemandInput)
def grip_exact(given: GripDemandInput) -> GripExactResult:
    """The grip that the cuts of an operation need by limit analysis, beside the closed form.

    Parameters
        {parameters}
    Returns
        required_grip_n [N] over all jaws, safety included; governing cut; closed_form_n [N] the same by
        `grip-demand`; each cut's true need [N] before safety at its worst angle [deg] from a jaw
    Raises
        CalcError for values outside the ranges; where no grip holds at all (no friction where it is needed)
    Validity
        Rigid part and jaws that touch along lines, Coulomb friction, jaws that share one pull freely. The
        cut is turned through the angle between two jaws in 12 steps, its axial force both ways. The
        friction circle is replaced by a polygon within it, so the need is never told too small for it.
    Example
        >>> cut = CutLoad("torque", 1000, 0, 0, 50, 0, torque_only=True)  # 25 N·m on Ø50: 2·25000/(50·0.1)
        >>> round(grip_exact(GripDemandInput((cut,), 50, 30, 0.1)).cuts[0].needed_n)
        10000

    Reference
        lower-bound theorem of limit analysis; derived in docs/method.md, “The limit analysis”
    """
    w = Working()
    closed = grip_demand(given)
    wrenches = contact_wrenches(given)
    scale = max(given.grip_diameter_mm, given.grip_length_mm) / 2
    found = []
    for cut, plain in zip(given.cuts, closed.cuts, strict=True):
        worst, at = 0.0, 0.0
        signs = (1.0, -1.0) if cut.axial_n or cut.unseated_axial_n else (1.0,)
        for i in range(DIRECTIONS):
            angle = 2 * math.pi / given.jaws * i / DIRECTIONS
            for sign in signs:
                need = _least_grip(wrenches, load_wrench(cut, given, angle, sign), scale, supported=given.tailstock)
                if need > worst:
                    worst, at = need, math.degrees(angle)
        if not math.isfinite(worst):
            raise _no_grip(cut)
        w.step("F_true", f"{cut.name}: least grip by limit analysis", "F", "N", EXACT, F=worst)
        found.append(ExactCut(cut.name, worst, at, plain.required_n / given.safety))
    governs = max(found, key=lambda c: c.needed_n)
    required = w.step(
        "F_req", "Grip needed, safety included", "S*F_true", "N", EXACT, S=given.safety, F_true=governs.needed_n
    )
    if required > closed.required_grip_n * (1 + 1e-9):
        w.note(
            "caution",
            "closed-form-below",
            "The closed form asks {c}, less than this: its safety covers {s} of the need here.",
            c=Figure(closed.required_grip_n, "N", "down"),
            s=Figure(100 * closed.required_grip_n / governs.needed_n, "%", "down"),
        )
    return GripExactResult(
        required_grip_n=required,
        governing_cut=governs.name,
        closed_form_n=closed.required_grip_n,
        cuts=tuple(found),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _no_grip(cut: CutLoad) -> Exception:
    from calc.errors import FieldProblem

    return FieldProblem(
        "cuts", f"No grip holds {cut.name} with this friction. Check the friction and the grip's length."
    )
