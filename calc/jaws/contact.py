"""Where bored jaws touch a piece of another size, and the gap left: calculator `jaw-contact`."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldProblem
from calc.fields import Checked, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

CONTACT = derived("Contact")
SAME_MM = 1e-9
Mode = Literal["full", "centre", "edges"]


MODE_WORDS = {"full": "all over", "centre": "at mid-jaw", "edges": "on both corners"}


@dataclass(frozen=True)
class JawContactInput(Checked):
    """Input of `jaw-contact`."""

    side: Annotated[Side, SIDE]
    jaw_diameter_mm: Annotated[float, terms.JAW_DIAMETER]
    part_diameter_mm: Annotated[float, Quantity("Piece diameter", "mm", "As measured", above=0, high=4000)]
    jaw_width_mm: Annotated[float, Quantity("Jaw width", "mm", "Across", above=0, high=1000)]
    wrap_deg: Annotated[
        float | None, terms.WRAP.called("Wrap of one jaw", "Left out: the arc reaches both corners")
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class JawContactResult(Explained):
    """How jaw and piece meet: all over, at mid-jaw, or on both corners; the gap where they do not."""

    mode: Annotated[Mode, Found("Jaw touches", options=MODE_WORDS)]
    gap_mm: Annotated[float, Found("Gap", "mm", places=(4, 5))]


def _half_chord(given: JawContactInput) -> float:
    half = given.jaw_width_mm / 2
    if given.wrap_deg is not None:
        half = min(half, given.jaw_diameter_mm / 2 * math.sin(math.radians(given.wrap_deg / 2)))
    elif 2 * half >= given.jaw_diameter_mm:
        raise FieldProblem(
            "jaw_width_mm", "The jaw is wider than its bore, so the arc ends before the corners: give the wrap."
        )
    if 2 * half >= given.part_diameter_mm:
        raise FieldProblem(
            "part_diameter_mm", "The piece is smaller than the jaw is wide: it falls between the corners."
        )
    return half


@calculator(JawContactInput)
def jaw_contact(given: JawContactInput) -> JawContactResult:
    """How bored jaws touch a piece that is not their size, and the gap that is left.

    Parameters
        {parameters}
    Returns
        mode: full, centre (three lines at mid-jaw) or edges (six lines on the corners);
        gap_mm [mm]: at the corners in mode centre, at mid-jaw in mode edges
    Raises
        CalcError: a jaw wider than its bore without its wrap; a piece smaller than the jaw is wide
    Validity
        Rigid jaw and piece, each jaw moved along its middle line until it touches. What the squeeze
        does to a wall is another question (`wall-lobing` and the contact solve).
    Example
        >>> r = jaw_contact(JawContactInput("od", 99.8, 100, 40))
        >>> r.mode, round(r.gap_mm, 4)
        ('edges', 0.0091)

    Reference
        derived in docs/method.md, “Contact”
    """
    w = Working()
    jaw, piece = given.jaw_diameter_mm / 2, given.part_diameter_mm / 2
    half = _half_chord(given)
    outside = given.side == "od"
    radii = {"R_j": jaw, "R_p": piece, "w": half}
    mode: Mode = "centre" if (jaw > piece) == outside else "edges"
    if abs(jaw - piece) <= SAME_MM:
        mode = "full"
        gap = w.step("gap", "Same radius: touches all over", "R_j - R_p", "mm", CONTACT, R_j=jaw, R_p=jaw)
    elif mode == "centre":
        e = w.step(
            "e",
            "Jaw's centre from the axis",
            "R_j - R_p" if outside else "R_p - R_j",
            "mm",
            CONTACT,
            R_j=jaw,
            R_p=piece,
        )
        formula = "hypot(sqrt(R_j**2 - w**2) - e, w) - R_p" if outside else "R_p - hypot(sqrt(R_j**2 - w**2) + e, w)"
        gap = w.step("gap", "Gap at the corners", formula, "mm", CONTACT, e=e, **radii)
    else:
        e = w.step(
            "e", "Jaw's centre from the axis", "sqrt(R_p**2 - w**2) - sqrt(R_j**2 - w**2)", "mm", CONTACT, **radii
        )
        gap = w.step(
            "gap",
            "Gap at mid-jaw",
            "e + R_j - R_p" if outside else "R_p - R_j - e",
            "mm",
            CONTACT,
            e=e,
            R_j=jaw,
            R_p=piece,
        )
    where = {
        "full": "all over",
        "centre": "at mid-jaw only, three lines",
        "edges": "on both corners of each jaw, six lines",
    }
    w.note(
        "info", f"touches-{mode}", "Touches {where}; gap {g}.", where=where[mode], g=Figure(gap, "mm", places=(4, 5))
    )
    return JawContactResult(mode=mode, gap_mm=gap, working=tuple(w.steps), notes=tuple(w.notes))
