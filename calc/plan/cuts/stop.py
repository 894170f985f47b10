"""Stop Cuts, as the list of stops has it."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.cuts.drawn import layers
from calc.plan.cuts.helps import cuts_helps
from calc.plan.cuts.show import show, tables
from calc.plan.stop_kind import Carried, StopKind
from calc.plan.view import View
from calc.quantities import Figure


def _carries(view: View) -> Iterator[Carried]:
    clamp = view.setup.clamp_rpm
    yield Carried("clamp", "Clamp", None if clamp is None else Figure(clamp, "rpm", "down"), 1)


CUTS_STOP = StopKind(
    "cuts",
    "Cuts",
    "What each cut does",
    show,
    helps=cuts_helps,
    tables=tables,
    layers=layers,
    carries=_carries,
    panels=("operations", "proven"),
)
