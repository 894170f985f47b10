"""How far a boring bar bends, and whether it fits its bore: calculator `boring-bar`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import documented
from calc.fields import Checked, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.working import Working, derived, typical

BEAM = derived("Boring bars")
CHIP_ROOM = typical("a bar of at most 0.7 of the bore leaves room for chips")
CHIP_ROOM_SHARE = 0.7
SHARE_OF_TOLERANCE = 0.25
DAMPING = 0.02  # typical: ζ of a clamped bar
# Overhang over diameter, by the bar's modulus [GPa]: steel below 300, heavy metal to 450, carbide above.
STEEL_BELOW_GPA, HEAVY_BELOW_GPA = 300.0, 450.0


@dataclass(frozen=True)
class BoringBarInput(Checked):
    """Input of `boring-bar`."""

    bore_mm: Annotated[float, Quantity("Bore", "mm", "Diameter the bar works in", above=0, high=2000)]
    bar_mm: Annotated[float, Quantity("Bar", "mm", "Diameter of its shank", above=0, high=500)]
    overhang_mm: Annotated[float, terms.OVERHANG.called(help="From the clamping to the edge")]
    force_n: Annotated[float, Quantity("Passive force", "N", "Of the cut, pushing the bar off", low=0, high=200_000)]
    modulus_gpa: Annotated[float, terms.MODULUS.called(help="Steel 210, heavy metal 380, carbide 560")] = 210.0
    tolerance_mm: Annotated[
        float | None, Quantity("Bore tolerance", "mm", "Whole width of it, on diameter", above=0, high=5, places=(3, 4))
    ] = None
    kc_n_mm2: Annotated[
        float | None, Quantity("Specific force", "N/mm2", "Of the chip, for the chatter hint", above=0, high=20_000)
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BoringBarResult(Explained):
    """How the bar bends, and how far the tolerance stands it. `ok`: it fits, is not out too far, and bends no more."""

    deflection_mm: Annotated[float, Found("Deflection", "mm", "up")]
    overhang_ratio: Annotated[float, Found("Overhang over diameter", places=(2, 2), safe="up")]
    ok: Annotated[bool, Found("Within what is allowed")]
    allowed_mm: Annotated[float | None, Found("Allowed", "mm", "down")]
    stable_width_mm: Annotated[float | None, Found("Stable width of chip", "mm", "down")]


def overhang_limit(modulus_gpa: float) -> float:
    """Most overhang over diameter: 4 steel, 8 heavy metal, 6 carbide (typical).

    >>> overhang_limit(210), overhang_limit(380), overhang_limit(560)
    (4.0, 8.0, 6.0)
    """
    return 4.0 if modulus_gpa < STEEL_BELOW_GPA else 8.0 if modulus_gpa <= HEAVY_BELOW_GPA else 6.0


@documented(BoringBarInput)
def boring_bar(given: BoringBarInput) -> BoringBarResult:
    """How far a boring bar bends under the passive force, and whether it is the right bar for the bore.

    Parameters
        {parameters}
    Returns
        deflection_mm [mm] on radius (it shows twice on diameter); overhang_ratio; ok;
        allowed_mm [mm]: the bend that the tolerance stands, None without one;
        stable_width_mm [mm]: information only, None without a specific force
    Raises
        CalcError for values outside these ranges
    Validity
        A plain round bar clamped rigidly at one end: the least deflection; a weak clamping adds to it.
    Example
        >>> r = boring_bar(BoringBarInput(bore_mm=30, bar_mm=20, overhang_mm=80, force_n=200, tolerance_mm=0.1))
        >>> round(r.deflection_mm, 4), r.overhang_ratio, r.ok
        (0.0207, 4.0, False)

    Reference
        Beam of one clamped end; derived in docs/method.md, “Boring bars”
    """
    w = Working()
    area = w.step("I", "Second moment of area", "pi * D**4 / 64", "mm4", BEAM, D=given.bar_mm)
    bend = w.step(
        "δ",
        "Deflection on radius",
        "F * L**3 / (3 * 1000*E * I)",
        "mm",
        BEAM,
        F=given.force_n,
        L=given.overhang_mm,
        E=given.modulus_gpa,
        I=area,
    )
    ratio = w.step("L/D", "Overhang over diameter", "L / D", "", BEAM, L=given.overhang_mm, D=given.bar_mm)
    room = w.step(
        "D_max", "Largest bar with room for chips", "k * d", "mm", CHIP_ROOM, k=CHIP_ROOM_SHARE, d=given.bore_mm
    )
    limit = overhang_limit(given.modulus_gpa)
    fits, near = given.bar_mm <= room * (1 + 1e-9), ratio <= limit * (1 + 1e-9)
    stiff, allowed = True, None
    if given.tolerance_mm is not None:
        allowed = w.step(
            "δ_a",
            "Bend that the tolerance stands",
            "k_t * T / 2",
            "mm",
            typical("twice the bend within a quarter of the tolerance"),
            k_t=SHARE_OF_TOLERANCE,
            T=given.tolerance_mm,
        )
        stiff = bend <= allowed * (1 + 1e-9)
        if not stiff:
            w.note(
                "caution",
                "bar-bends",
                "The bar bends {x}, {y} on diameter; {a} is a quarter of the tolerance. Take spring passes, a larger "
                "or stiffer bar, or less depth.",
                x=Figure(bend, "mm", "up", (3, 4)),
                y=Figure(2 * bend, "mm", "up", (3, 4)),
                a=Figure(2 * allowed, "mm", "down", (3, 4)),
            )
    if not fits:
        w.note(
            "stop",
            "no-chip-room",
            "A bar of {d} leaves no room for chips in Ø{b}: {m} at most.",
            d=Figure(given.bar_mm, "mm"),
            b=Figure(given.bore_mm, "mm", exact=True),
            m=Figure(room, "mm", "down"),
        )
    if not near:
        w.note(
            "stop",
            "bar-out-too-far",
            "The bar stands out {r} times its diameter; {m} is the most for its material.",
            r=Figure(ratio, "", "up", (1, 1)),
            m=Figure(limit, "", places=(0, 0)),
        )
    width = None
    if given.kc_n_mm2 is not None:
        k = w.step(
            "k",
            "Stiffness at the edge",
            "3 * 1000*E * I / L**3",
            "N/mm",
            BEAM,
            E=given.modulus_gpa,
            I=area,
            L=given.overhang_mm,
        )
        width = w.step(
            "b_lim",
            "Width free of chatter, about",
            "2*k*ζ*(1 + ζ) / k_c",
            "mm",
            typical("a clamped bar damps about 2 %"),
            k=k,
            ζ=DAMPING,
            k_c=given.kc_n_mm2,
        )
        w.note(
            "info",
            "chatter-hint",
            "Below about {b} of chip width the bar stays quiet whatever the speed; above it, it depends on the speed.",
            b=Figure(width, "mm", "down", (2, 3)),
        )
    return BoringBarResult(
        deflection_mm=bend,
        overhang_ratio=ratio,
        allowed_mm=allowed,
        ok=fits and near and stiff,
        stable_width_mm=width,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
