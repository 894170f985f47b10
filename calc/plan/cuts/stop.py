"""Stop Cuts, as the list of stops has it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from calc.plan.cuts.drawn import layers, pictures
from calc.plan.cuts.helps import cuts_helps
from calc.plan.cuts.show import show
from calc.plan.cuts.solve import CUTS
from calc.plan.stop import Stop
from calc.plan.stop_kind import Carried, StopKind
from calc.plan.view import View
from calc.quantities import Figure


def _more(view: View, stop: Stop) -> Stop:
    figures = view[CUTS]
    return replace(stop, helps=cuts_helps(view), pictures=pictures(view, figures) if figures else ())


def _carries(view: View) -> Iterator[Carried]:
    clamp = view.setup.clamp_rpm
    yield Carried("clamp", "Clamp", None if clamp is None else Figure(clamp, "rpm", "down"), 1)


CUTS_STOP = StopKind(
    "cuts",
    "Cuts",
    "What each cut does",
    show,
    (CUTS,),
    more=_more,
    layers=layers,
    carries=_carries,
    panels=("operations", "proven"),
)
