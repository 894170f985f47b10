"""Stop Force, as the list of stops has it."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.force.drawn import drawings
from calc.plan.force.helps import force_helps
from calc.plan.force.limit_analysis import exact_table
from calc.plan.force.show import rules_table, show
from calc.plan.force.solve import FORCE
from calc.plan.stop_kind import Carried, Check, Headline, StopKind
from calc.plan.view import View
from calc.quantities import Figure


def _carries(view: View) -> Iterator[Carried]:
    pressure = view.setup.force.pressure_bar
    yield Carried("pressure", "Gauge", None if pressure is None else Figure(pressure, "bar", "down"), 0, both=True)


def _cap(view: View) -> float | None:
    force = view[FORCE]
    return force.cap_rpm if force else None


def _pressure(view: View) -> float | None:
    return view.setup.force.pressure_bar


FORCE_STOP = StopKind(
    "force",
    "Force",
    "What makes the grip, and what takes it",
    show,
    helps=force_helps,
    tables=rules_table,
    drawings=drawings,
    headlines=(
        Headline("cap", "cap", "rpm", "down", _cap),
        Headline("pressure", "pressure", "bar", "down", _pressure, place=0, told=False),
    ),
    carries=_carries,
    checks=(Check("limit-analysis", lambda view: view[FORCE] is not None, exact_table),),
    says_why=True,
)
