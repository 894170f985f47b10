"""Stop Sides, as the list of stops has it."""

from __future__ import annotations

from calc.plan.sides.drawn import layers
from calc.plan.sides.show import show, tables
from calc.plan.stop_kind import StopKind

SIDES_STOP = StopKind(
    "sides",
    "Sides",
    "Which end first, held on what",
    show,
    per_side=False,
    tables=tables,
    layers=layers,
    panels=("start",),
)
