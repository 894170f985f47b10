"""What speed takes from the grip, or adds to it: calculator `grip-at-speed`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import BOOK, N, Steps, Working, derived

SPEED = derived("What speed costs, or adds")
KEPT_LEAST = 1 / 3  # typical share of the static grip to be kept at speed, commonly required of power chucks


@dataclass(frozen=True)
class StackPart(Checked):
    """One mass that turns with a jaw: top jaw, master jaw, T-nut and bolts."""

    mass_kg: Annotated[float, Quantity("Mass", "kg", "Of one jaw's part", low=0, high=500)]
    radius_mm: Annotated[float, Quantity("Centre radius", "mm", "Centre of mass from the axis", low=0, high=2000)]


StackParts = Annotated[tuple[StackPart, ...], Group("Jaw stack", "All masses of one jaw", least=1, most=12)]
Transmission = Annotated[
    float,
    Quantity(
        "Transmission", "", "Share of centrifugal force that reaches the grip; 1 unless measured", above=0, high=2
    ),
]


@dataclass(frozen=True)
class GripAtSpeedInput(Checked):
    """Input of `grip-at-speed`."""

    static_grip_n: Annotated[float, terms.TOTAL_GRIP.called("Static grip")]
    side: Annotated[Side, SIDE]
    stack: StackParts
    rpm: Annotated[float, terms.SPINDLE_SPEED]
    jaws: Annotated[int, terms.JAWS] = 3
    transmission: Transmission = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class GripAtSpeedResult(Explained):
    """Grip left (outside) or reached (inside) at a speed."""

    centrifugal_n: Annotated[float, Found("Centrifugal force, all jaws", "N", "up")]
    grip_n: Annotated[float, Found("Grip at speed", "N", "down")]
    kept_fraction: Annotated[float, Found("Share of the static grip", places=(3, 3), safe="down")]


def stack_moment(stack: tuple[StackPart, ...], w: Working) -> float:
    """Σ m·r of one jaw stack [kg·mm], as a step.

    >>> stack_moment((StackPart(2.0, 60.0), StackPart(0.5, 40.0)), Working())
    140.0

    Reference: first moment of masses; method of VDI 3106.
    """
    values: dict[str, float] = {}
    for i, part in enumerate(stack, 1):
        values[f"m_{i}"], values[f"r_{i}"] = part.mass_kg, part.radius_mm
    formula = " + ".join(f"m_{i}*r_{i}" for i in range(1, len(stack) + 1))
    return w.step("Σmr", "Mass × radius of one jaw stack", formula, "kg*mm", BOOK, **values)


def centrifugal(w: Steps[N], jaws: int, moment: float, rpm: N) -> N:
    """Centrifugal force [N] of all jaws at a speed [rpm]; `moment` is Σ m·r of one jaw stack [kg·mm].

    >>> round(centrifugal(Working(), 3, 160.475, 2350.0))
    29156

    Reference: F = m·r·ω²; method of VDI 3106.
    """
    omega = w.step("ω", "Angular speed", "2*pi*n/60", "rad/s", SPEED, n=rpm)
    text = "z * S / 1000 * ω**2"
    return w.step("F_c", "Centrifugal force, all jaws", text, "N", SPEED, z=jaws, S=moment, ω=omega)


def pull_of(stack: tuple[StackPart, ...], jaws: int) -> float:
    """Centrifugal force of all jaws at 1 rpm [N/rpm²]: at any speed it is this times the square of it.

    >>> round(pull_of((StackPart(2.45, 65.5),), 3) * 2350**2)
    29156

    Reference: F = m·r·ω².
    """
    w = Working()
    return centrifugal(w, jaws, stack_moment(stack, w), 1.0)


def grip_left(w: Steps[N], side: Side, static: N | float, taken: N, transmission: float = 1.0) -> N:
    """Grip [N] at speed of a grip standing still [N], `taken` the centrifugal force [N] of all jaws.

    >>> grip_left(Working(), "od", 46000.0, 50000.0), grip_left(Working(), "id", 46000.0, 4000.0)
    (0.0, 50000.0)

    Reference: derived in docs/method.md, “What speed costs, or adds”.
    """
    formula = "max(0, F_0 - λ*F_c)" if side == "od" else "F_0 + λ*F_c"
    label = "Grip left at speed" if side == "od" else "Grip reached at speed"
    return w.step("F_n", label, formula, "N", SPEED, F_0=static, λ=transmission, F_c=taken)


@calculator(GripAtSpeedInput)
def grip_at_speed(given: GripAtSpeedInput) -> GripAtSpeedResult:
    """Grip at a spindle speed.

    Parameters
        {parameters}
    Returns
        centrifugal_n [N] all jaws; grip_n [N] ≥ 0; kept_fraction [-] of the static grip
    Raises
        CalcError for values outside these ranges
    Validity
        Rigid jaws; friction in the guides is left out (it holds some grip back while slowing down).
    Example
        >>> r = grip_at_speed(GripAtSpeedInput(46000, "od", (StackPart(2.45, 65.5),), 2350))
        >>> round(r.centrifugal_n)
        29156

    Reference
        method of VDI 3106; derived in docs/method.md, “What speed costs, or adds”
    """
    w = Working()
    moment = stack_moment(given.stack, w)
    taken = centrifugal(w, given.jaws, moment, given.rpm)
    grip = grip_left(w, given.side, given.static_grip_n, taken, given.transmission)
    kept = w.step("F_n/F_0", "Share of the static grip", "F_n / F_0", "", SPEED, F_n=grip, F_0=given.static_grip_n)
    if given.side == "od" and kept < KEPT_LEAST:
        w.note(
            "caution",
            "little-grip-kept",
            "Only {kept} of the static grip is left at {rpm}; a third is commonly required of power chucks.",
            kept=Figure(100 * kept, "%", "down"),
            rpm=Figure(given.rpm, "rpm", "up"),
        )
    return GripAtSpeedResult(
        centrifugal_n=taken, grip_n=grip, kept_fraction=kept, working=tuple(w.steps), notes=tuple(w.notes)
    )
