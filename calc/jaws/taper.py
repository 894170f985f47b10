"""How far a jaw bends away at its tip between boring and gripping: calculator `jaw-taper`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.errors import FieldProblem
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import Source, Working, derived

TAPER = derived("Taper")
BENT = Source("measured", "by feeler, at its card")
NEEDED_MM = 0.02  # typical, per side


@dataclass(frozen=True)
class JawTaperInput(Checked):
    """Input of `jaw-taper`. Forces are of one jaw."""

    force_part_n: Annotated[
        float, Quantity("Force of one jaw on the part", "N", "At production pressure", low=0, high=1e7)
    ]
    force_cut_n: Annotated[float, Quantity("Force of one jaw while bored", "N", "At boring pressure", low=0, high=1e7)]
    lever_mm: Annotated[
        float, Quantity("Lever", "mm", "Clamp plane at the jaw's base to the middle of the grip", above=0, high=500)
    ]
    grip_length_mm: Annotated[float, terms.GRIP_LENGTH]
    width_mm: Annotated[float, terms.JAW_WIDTH.called("Jaw width", "Across")]
    thickness_mm: Annotated[
        float, Quantity("Jaw thickness", "mm", "Radially, what is left behind the bore", above=0, high=1000)
    ]
    modulus_gpa: Annotated[float, terms.MODULUS.called("Modulus of the jaw", "Steel 205, aluminium 70")]
    root_modulus_gpa: Annotated[
        float, Quantity("Modulus of its root", "GPa", "Master jaw, steel 205", above=0, high=1000)
    ] = 205.0
    bends_times: Annotated[float | None, terms.BENDS_TIMES] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class JawTaperResult(Explained):
    """Tip gap per side and the taper on diameter that takes it away."""

    gap_mm: Annotated[float, Found("Gap at the tip", "mm", "up", (4, 5))]
    taper_on_diameter_mm: Annotated[float, Found("Taper on diameter", "mm", places=(4, 5))]
    needed: Annotated[bool, Found("Taper needed")]


@calculator(JawTaperInput)
def jaw_taper(given: JawTaperInput) -> JawTaperResult:
    """The gap that opens at the jaw's tip under production force, and the taper that closes it.

    Parameters
        {parameters}
    Returns
        gap_mm [mm per side] over the grip length (below zero where the jaw was bored at more force than
        it holds with); taper_on_diameter_mm [mm]; needed
    Raises
        CalcError: a grip longer than twice the lever, where the estimate does not hold
    Validity
        Bending, shear and the turning of an elastic root; a lower bound, since the serrated joint gives
        too. A feeler gauge at full pressure replaces it, and `bends_times` keeps for a set what one found.
    Example
        >>> r = jaw_taper(JawTaperInput(10_000, 0, 60, 40, 40, 45, 70))
        >>> round(r.gap_mm, 4), r.needed
        (0.0453, True)

    Reference
        derived in docs/method.md, “Taper”
    """
    if given.grip_length_mm > 2 * given.lever_mm * (1 + 1e-12):
        raise FieldProblem(
            "grip_length_mm",
            Sentence(
                "The estimate holds up to a grip of twice the lever, {x}; give that or less, or measure with a feeler.",
                x=Figure(2 * given.lever_mm, "mm", "down", exact=True),
            ),
        )
    w = Working()
    extra = w.step(
        "ΔF",
        "More force of one jaw than while the jaws are cut",
        "F_p - F_b",
        "N",
        TAPER,
        F_p=given.force_part_n,
        F_b=given.force_cut_n,
    )
    bend = w.step(
        "k_b",
        "Bending",
        "6*h**2 / (1000*E*t**3)",
        "mm/N",
        TAPER,
        h=given.lever_mm,
        E=given.modulus_gpa,
        t=given.thickness_mm,
    )
    shear = w.step("k_s", "Shear", "1.56 / (1000*E*t)", "mm/N", TAPER, E=given.modulus_gpa, t=given.thickness_mm)
    root = w.step(
        "k_r",
        "Turning of the root",
        "4.5*h / (1000*E_r*t**2)",
        "mm/N",
        TAPER,
        h=given.lever_mm,
        E_r=given.root_modulus_gpa,
        t=given.thickness_mm,
    )
    gap = w.step(
        "δ",
        "Gap at the tip, per side",
        "ΔF * l / b * (k_b + k_s + k_r)",
        "mm",
        TAPER,
        ΔF=extra,
        l=given.grip_length_mm,
        b=given.width_mm,
        k_b=bend,
        k_s=shear,
        k_r=root,
    )
    if given.bends_times is not None:
        gap = w.step("δ_m", "The same as this set bends", "q_b*δ", "mm", BENT, q_b=given.bends_times, δ=gap)
    taper = w.step("T", "Taper on diameter over the grip", "2*δ", "mm", TAPER, δ=gap)
    needed = gap >= NEEDED_MM - 1e-12
    if needed:
        w.note(
            "info",
            "taper-needed",
            "Leave {t} more metal at the tip than at the floor, on diameter; then measure.",
            t=Figure(taper, "mm", places=(3, 4)),
        )
    else:
        w.note("info", "no-taper", "Below {x} per side no taper is needed.", x=Figure(NEEDED_MM, "mm"))
    if given.bends_times is None:
        w.note(
            "info",
            "lower-bound",
            "An estimate from below: the serrated joint gives too. Measure with a feeler at full pressure.",
        )
    else:
        w.note("info", "measured-bending", "This set was measured by feeler: it bends so many times the estimate.")
    return JawTaperResult(
        gap_mm=gap, taper_on_diameter_mm=taper, needed=needed, working=tuple(w.steps), notes=tuple(w.notes)
    )
