"""Stop Part, as the list of stops has it."""

from __future__ import annotations

from calc.plan.part.drawn import drawings
from calc.plan.part.show import show
from calc.plan.stop_kind import StopKind

PART_STOP = StopKind(
    "part", "Part", "What the print says", show, per_side=False, drawings=drawings, panels=("drawing",)
)
