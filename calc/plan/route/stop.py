"""Stop Route, as the list of stops has it."""

from __future__ import annotations

from calc.plan.route.drawn import drawings
from calc.plan.route.show import show
from calc.plan.route.solve import ROUTE
from calc.plan.route.tables import tables
from calc.plan.stop_kind import Headline, StopKind
from calc.plan.view import View


def _cycle(view: View) -> float | None:
    found = view[ROUTE]
    return found.cycle_s / 60 if found else None


ROUTE_STOP = StopKind(
    "route",
    "Route",
    "What a piece, the run and its set-up take",
    show,
    per_side=False,
    after_sides=True,
    tables=tables,
    drawings=drawings,
    panels=("order", "sheets"),
    headlines=(Headline("cycle", "a piece", "min", "up", _cycle),),
)
