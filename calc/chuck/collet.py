"""How hard a collet grips: calculator `collet-grip`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Bare, Figure, Sentence
from calc.results import Explained, Found
from calc.working import Note, Working, derived

COLLET = derived("Collets")
FRICTION, EFFICIENCY = 0.12, 0.9  # typical: steel on greased steel; of what the draw-bar gives
SAME_MM = 1e-6


def cone_grip(w: Working, draw_n: float, half_angle_deg: float, friction: float, efficiency: float) -> float:
    """What a cone makes of a draw force [N]: the grip of all segments.

    >>> round(cone_grip(Working(), 20000, 8, 0.12, 0.9))
    67922

    Reference: wedge with friction, derived in docs/method.md, “Collets”.
    """
    return w.step(
        "F_0",
        "Grip, all segments",
        "F_z * η / tan(α*pi/180 + atan(μ_c))",
        "N",
        COLLET,
        F_z=draw_n,
        η=efficiency,
        α=half_angle_deg,
        μ_c=friction,
    )


def range_note(nominal_mm: float, range_mm: float, smallest_mm: float, largest_mm: float) -> Note | None:
    """What speaks against closing a collet on bars from smallest to largest; None where all lie inside its range."""
    least = nominal_mm - range_mm
    if least - SAME_MM <= smallest_mm and largest_mm <= nominal_mm + SAME_MM:
        return None
    bar = smallest_mm if smallest_mm < least - SAME_MM else largest_mm
    return Note(
        "stop",
        "collet-range",
        "This collet closes on Ø{a} to Ø{b}; the bar is Ø{x}: take the collet for it.",
        a=Bare(Figure(least, "mm", "up", (2, 3))),
        b=Bare(Figure(nominal_mm, "mm", "down", (2, 3))),
        x=Bare(Figure(bar, "mm", exact=True, places=(2, 3))),
    )


@dataclass(frozen=True)
class ColletGripInput(Checked):
    """Input of `collet-grip`."""

    draw_n: Annotated[
        float, Quantity("Draw force", "N", "Pull or push of the draw-bar on the collet", above=0, high=500_000)
    ]
    half_angle_deg: Annotated[
        float, Quantity("Half angle", "deg", "Of the collet's cone, against the axis", above=0, high=45)
    ]
    nominal_mm: Annotated[float, Quantity("Collet's size", "mm", "The largest bar it takes", above=0, high=500)]
    range_mm: Annotated[float, Quantity("Closes by", "mm", "On diameter, below its size", low=0, high=50)]
    bar_mm: Annotated[float, Quantity("Bar", "mm", "Diameter, or across its flats", above=0, high=500)]
    collet_friction: Annotated[
        float, Quantity("Friction on the cone", "", "Greased steel on steel; typical 0.12", low=0, high=1)
    ] = FRICTION
    efficiency: Annotated[
        float, Quantity("Efficiency", "", "Of the draw force that reaches the cone; typical 0.9", above=0, high=1)
    ] = EFFICIENCY
    max_draw_n: Annotated[
        float | None, Quantity("Stated draw force", "N", "By its maker; empty: not checked", above=0, high=500_000)
    ] = None
    max_grip_n: Annotated[
        float | None, Quantity("Stated grip", "N", "By its maker; empty: not checked", above=0, high=2_000_000)
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.range_mm >= self.nominal_mm:
            yield FieldError("range_mm", Sentence("A collet closes by less than its own size: give less than that."))


@dataclass(frozen=True, slots=True, kw_only=True)
class ColletGripResult(Explained):
    """What a collet grips with, and whether it closes on the bar at all."""

    grip_n: Annotated[float, Found("Grip, all segments", "N", "down")]
    in_range: Annotated[bool, Found("Closes on this bar")]


@calculator(ColletGripInput)
def collet_grip(given: ColletGripInput) -> ColletGripResult:
    """Grip of a collet from its draw force: a wedge of its half angle, friction on the cone against it.

    Parameters
        {parameters}
    Returns
        grip_n [N] radial, sum over all segments, never more than is stated; in_range: the bar lies from the smallest to
        the largest that the collet closes on. Outside, or drawn harder than is stated, there is a stop.
    Raises
        CalcError for values outside these ranges
    Validity
        Speed neither takes nor adds, up to the collet chuck's own limit. What closing the segments themselves takes is
        in the efficiency. Below the friction angle the cone holds by itself and has to be pushed off.
    Example
        >>> r = collet_grip(ColletGripInput(20000, 8, 42, 1, 42))
        >>> round(r.grip_n), r.in_range
        (67922, True)

    Reference
        wedge with friction, derived in docs/method.md, “Collets”
    """
    w = Working()
    drawn = given.draw_n
    if given.max_draw_n is not None and drawn > given.max_draw_n * (1 + 1e-9):
        w.note(
            "stop",
            "collet-overdrawn",
            "The collet may be drawn with {limit} and is drawn with {x}: lower the pressure.",
            limit=Figure(given.max_draw_n, "N", "down"),
            x=Figure(drawn, "N", "up"),
        )
        drawn = given.max_draw_n
    grip = cone_grip(w, drawn, given.half_angle_deg, given.collet_friction, given.efficiency)
    if given.max_grip_n is not None:
        label = "No more than is stated is counted"
        grip = w.step("F_0′", label, "min(F_0, F_max)", "N", COLLET, F_0=grip, F_max=given.max_grip_n)
    if math.tan(math.radians(given.half_angle_deg)) <= given.collet_friction:
        w.note("caution", "collet-locks", "This cone holds by itself: it has to be pushed off to let go of the bar.")
    outside = range_note(given.nominal_mm, given.range_mm, given.bar_mm, given.bar_mm)
    if outside is not None:
        w.notes.append(outside)
    return ColletGripResult(grip_n=grip, in_range=outside is None, working=tuple(w.steps), notes=tuple(w.notes))
