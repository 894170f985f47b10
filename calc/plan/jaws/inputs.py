"""How the jaws are bored."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.fields import Checked, Choice, Quantity
from calc.profile.steps import DIAMETER_MOST

BLUE = Choice(
    "Blue shows",
    {"none": "not tried", "base": "first at the part's base", "tip": "first at the tip", "even": "even"},
    "Slow-drying blue round the mouth",
)


SPINDLE = Choice(
    "Spindle turns",
    {"ask": "not said yet", "M03": "M03, clockwise", "M04": "M04, counter-clockwise"},
    "For the tool that will be called",
)


@dataclass(frozen=True)
class Jaws(Checked):
    """How the jaws are bored."""

    floor_min_mm: Annotated[float, terms.FLOOR] = 6.0
    tool_clearance_mm: Annotated[float, terms.TOOL_CLEARANCE] = 1.0
    tooth: Annotated[int | None, terms.TOOTH] = None
    position: Annotated[float, terms.BORED_AT] = 0.5
    cleanup_mm: Annotated[float, terms.CLEANUP] = 1.0
    recess_mm: Annotated[
        float | None,
        Quantity(
            "Recess behind the part",
            "mm",
            "Deep, in the pocket's floor, for a tool that leaves the bore; empty: none",
            above=0,
            high=100,
        ),
    ] = None
    ring_clearance_mm: Annotated[
        float, Quantity("Clearance to the ring", "mm", "Tool to ring or plug, per side", low=0, high=50)
    ] = 3.0
    feeler_mm: Annotated[
        float | None,
        Quantity("Feeler at the tip", "mm", "Measured at full pressure, per side", low=0, high=2, places=(3, 4)),
    ] = None
    blue: Annotated[Literal["none", "base", "tip", "even"], BLUE] = "none"
    taper_step_mm: Annotated[
        float,
        Quantity("Taper step", "mm", "One correction after the blue, on diameter", low=0.001, high=0.1, places=(3, 4)),
    ] = 0.02
    reading_mm: Annotated[float | None, terms.TOUCH_OFF.called(high=DIAMETER_MOST)] = None
    paper_mm: Annotated[float, terms.PAPER] = 0.08
    recut_limit_mm: Annotated[float, Quantity("Most to take", "mm", "Per side at a re-cut", above=0, high=20)] = 1.0
    program: Annotated[
        int | None, Quantity("Program number", "", "Of the jaw program", low=1, high=99_999_999, whole=True)
    ] = None
    spindle: Annotated[Literal["ask", "M03", "M04"], SPINDLE] = "ask"
    boring_speed_m_min: Annotated[
        float, Quantity("Speed for the jaws", "m/min", "Jaws are an interrupted cut", above=0, high=600)
    ] = 80.0
    boring_feed_mm_rev: Annotated[float, Quantity("Feed for the jaws", "mm/rev", "", above=0, high=1)] = 0.12
    boring_depth_mm: Annotated[
        float, Quantity("Depth for the jaws", "mm", "Of one pass, per side", above=0, high=5)
    ] = 1.0
