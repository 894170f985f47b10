"""Stop Hold, as the list of stops has it."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.comparing import blanks_table
from calc.plan.force.real_contact import contact_table
from calc.plan.force.solve import FORCE
from calc.plan.hold.drawn import layers
from calc.plan.hold.figures import ColletHold
from calc.plan.hold.helps import hold_helps
from calc.plan.hold.show import show
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.stop_kind import Carried, Check, Headline, StopKind
from calc.plan.view import View
from calc.quantities import Figure


def _has_wall(view: View) -> bool:
    force = view[FORCE]
    return force is not None and force.wall is not None


def _carries(view: View) -> Iterator[Carried]:
    any_hold, hold = view[HOLD], view[JAW_HOLD]
    if isinstance(any_hold, ColletHold):
        return
    bore = Figure(hold.pocket.bore_diameter_mm, "mm", places=hold.places) if hold else None
    yield Carried("bore", "Turn to Ø" if hold and hold.side == "id" else "Bore Ø", bore, 2)
    yield Carried("depth", "Deep", Figure(hold.pocket.bore_depth_mm, "mm") if hold else None, 3)


def _bore(view: View) -> float | None:
    hold = view[JAW_HOLD]
    return hold.pocket.bore_diameter_mm if hold else None


def _depth(view: View) -> float | None:
    hold = view[JAW_HOLD]
    return hold.pocket.bore_depth_mm if hold else None


HOLD_STOP = StopKind(
    "hold",
    "Hold",
    "How it is held",
    show,
    helps=hold_helps,
    tables=blanks_table,
    layers=layers,
    headlines=(
        Headline("bore", "bore", "mm", "near", _bore, place=2),
        Headline("depth", "deep", "mm", "near", _depth, place=3),
    ),
    carries=_carries,
    checks=(Check("real-contact", _has_wall, contact_table),),
)
