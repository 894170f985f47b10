"""Stop Jaws, as the list of stops has it."""

from __future__ import annotations

from calc.plan.jaws.drawn import drawings, layers
from calc.plan.jaws.helps import jaws_helps
from calc.plan.jaws.program import jaw_program
from calc.plan.jaws.show import show, tables
from calc.plan.stop_kind import StopKind

JAWS_STOP = StopKind(
    "jaws",
    "Jaws",
    "What to set, where it sits, what it closes on",
    show,
    helps=jaws_helps,
    tables=tables,
    layers=layers,
    drawings=drawings,
    program=jaw_program,
)
