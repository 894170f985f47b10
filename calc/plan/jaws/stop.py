"""Stop Jaws, as the list of stops has it."""

from __future__ import annotations

from dataclasses import replace

from calc.plan.jaws.drawn import layers, views
from calc.plan.jaws.helps import jaws_helps
from calc.plan.jaws.program import jaw_program
from calc.plan.jaws.show import show
from calc.plan.jaws.solve import JAWS
from calc.plan.stop import Stop
from calc.plan.stop_kind import StopKind
from calc.plan.view import View


def _more(view: View, stop: Stop) -> Stop:
    return replace(stop, helps=jaws_helps(view), program=jaw_program(view, stop))


JAWS_STOP = StopKind(
    "jaws",
    "Jaws",
    "What to bore, where it sits, what it closes on",
    show,
    (JAWS,),
    more=_more,
    layers=layers,
    views=views,
)
