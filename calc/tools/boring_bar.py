"""How far a boring bar bends, and whether it fits its bore: calculator `boring-bar`."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated

import numpy as np

from calc import terms
from calc.describing import calculator
from calc.fields import Checked, Quantity
from calc.many import MANY, Array
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.working import N, Steps, Working, derived, typical

BEAM = derived("Boring bars")
CHIP_ROOM = typical("a bar of at most 0.7 of the bore leaves room for chips")
CHIP_ROOM_SHARE = 0.7
SHARE_OF_TOLERANCE = 0.25
LEAST_CHIP_MM = 0.02  # the thinnest that is counted to cut
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
    lightest_n: Annotated[
        float | None,
        Quantity("Lightest chip", "N", "Passive force of the thinnest stock, edge fresh", low=0, high=200_000),
    ] = None
    heaviest_n: Annotated[
        float | None,
        Quantity("Heaviest chip", "N", "Passive force of the thickest stock, edge fresh", low=0, high=200_000),
    ] = None
    kc_n_mm2: Annotated[
        float | None, Quantity("Specific force", "N/mm2", "Of the chip, for the chatter hint", above=0, high=20_000)
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BoringBarResult(Explained):
    """How the bar bends, and how far the tolerance stands it. `ok`: it fits, is not out too far, and bends no more, or
    where lightest and heaviest chip are known spreads no more.
    """

    deflection_mm: Annotated[float, Found("Deflection", "mm", "up", (4, 5))]
    overhang_ratio: Annotated[float, Found("Overhang over diameter", places=(2, 2), safe="up")]
    ok: Annotated[bool, Found("Within what is allowed")]
    allowed_mm: Annotated[float | None, Found("Allowed", "mm", "down", (4, 5))]
    spread_mm: Annotated[float | None, Found("Spread on diameter", "mm", "up", (4, 5))]
    stable_width_mm: Annotated[float | None, Found("Stable width of chip", "mm", "down")]


def overhang_limit(modulus_gpa: float) -> float:
    """Most overhang over diameter: 4 steel, 8 heavy metal, 6 carbide (typical).

    >>> overhang_limit(210), overhang_limit(380), overhang_limit(560)
    (4.0, 8.0, 6.0)
    """
    return 4.0 if modulus_gpa < STEEL_BELOW_GPA else 8.0 if modulus_gpa <= HEAVY_BELOW_GPA else 6.0


def second_moment(w: Steps[N], bar_mm: float) -> N:
    """Second moment of area of a round bar [mm⁴].

    >>> round(second_moment(Working(), 20.0))
    7854

    Reference: I = π·D⁴/64.
    """
    return w.step("I", "Second moment of area", "pi * D**4 / 64", "mm4", BEAM, D=bar_mm)


def _bend(w: Steps[N], symbol: str, label: str, force: N | float, bar: tuple[BoringBarInput, N]) -> N:
    given, area = bar
    text = "F * L**3 / (3 * 1000*E * I)"
    return w.step(symbol, label, text, "mm", BEAM, F=force, L=given.overhang_mm, E=given.modulus_gpa, I=area)


def spread_of(passive: Callable[[Array], Array], depth: Array, given: BoringBarInput, off_mm: float) -> Array:
    """Spread on diameter [mm] of many depths [mm] whose stock is `off_mm` more or less a side; `passive` gives the
    force [N] of a depth with a fresh edge.
    """
    bar = (given, second_moment(MANY, given.bar_mm))
    heavy = _bend(MANY, "δ_2", "", passive(depth + off_mm), bar)
    light = _bend(MANY, "δ_1", "", passive(np.maximum(depth - off_mm, LEAST_CHIP_MM)), bar)
    found: Array = 2 * np.abs(heavy - light)
    return found


def chatter_width(w: Steps[N], given: BoringBarInput, kc_n_mm2: N | float) -> N:
    """Width of chip [mm] below which a bar stays quiet, at a specific force [N/mm²].

    Reference: the limit of a single mode, 2kζ(1 + ζ)/k_c; docs/method.md, “Boring bars”.
    """
    area = second_moment(w, given.bar_mm)
    text = "3 * 1000*E * I / L**3"
    k = w.step("k", "Stiffness at the edge", text, "N/mm", BEAM, E=given.modulus_gpa, I=area, L=given.overhang_mm)
    damps = typical("a clamped bar damps about 2 %")
    text = "2*k*ζ*(1 + ζ) / k_c"
    return w.step("b_lim", "Width free of chatter, about", text, "mm", damps, k=k, ζ=DAMPING, k_c=kc_n_mm2)


@calculator(BoringBarInput)
def boring_bar(given: BoringBarInput) -> BoringBarResult:
    """How far a boring bar bends under the passive force, and whether it is the right bar for the bore.

    Parameters
        {parameters}
    Returns
        deflection_mm [mm] on radius (it shows twice on diameter); overhang_ratio; ok;
        allowed_mm [mm]: the bend that the tolerance stands, None without one; spread_mm [mm] on diameter between the
        lightest and the heaviest chip, None without them: where it is known it is judged, and the steady bend told;
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
    area = second_moment(w, given.bar_mm)
    bend = _bend(w, "δ", "Deflection on radius", given.force_n, (given, area))
    ratio = w.step("L/D", "Overhang over diameter", "L / D", "", BEAM, L=given.overhang_mm, D=given.bar_mm)
    room = w.step(
        "D_max", "Largest bar with room for chips", "k * d", "mm", CHIP_ROOM, k=CHIP_ROOM_SHARE, d=given.bore_mm
    )
    limit = overhang_limit(given.modulus_gpa)
    fits, near = given.bar_mm <= room * (1 + 1e-9), ratio <= limit * (1 + 1e-9)
    stiff, allowed, spread = True, None, None
    if given.lightest_n is not None and given.heaviest_n is not None:
        low = _bend(w, "δ_1", "Deflection under the lightest chip", given.lightest_n, (given, area))
        high = _bend(w, "δ_2", "Deflection under the heaviest chip", given.heaviest_n, (given, area))
        spread = w.step(
            "Δ", "Spread on diameter, which no offset takes out", "2*abs(δ_2 - δ_1)", "mm", BEAM, δ_1=low, δ_2=high
        )
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
        stiff = bend <= allowed * (1 + 1e-9) if spread is None else spread <= 2 * allowed * (1 + 1e-9)
        if not stiff and spread is not None:
            w.note(
                "stop",
                "bar-spreads",
                "Between the lightest and the heaviest chip the bar gives {x} on diameter; {a} is a quarter of the "
                "tolerance. Take two equal passes, a larger or stiffer bar, or a bore roughed before.",
                x=Figure(spread, "mm", "up", (3, 4)),
                a=Figure(2 * allowed, "mm", "down", (3, 4)),
            )
        elif spread is not None and bend > allowed:
            w.note(
                "info",
                "bar-bends-steadily",
                "The bar bends {y} on diameter under a worn edge: the first-off shows it and the offset takes it out; "
                "its spread is {x}.",
                y=Figure(2 * bend, "mm", "up", (3, 4)),
                x=Figure(spread, "mm", "up", (3, 4)),
            )
        elif not stiff:
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
        width = chatter_width(w, given, given.kc_n_mm2)
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
        spread_mm=spread,
        ok=fits and near and stiff,
        stable_width_mm=width,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
