"""What the stop Force draws: grip against speed, and the wall as the jaws squeeze it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from calc.plan.force.chart import force_chart
from calc.plan.force.solve import FORCE
from calc.plan.force.wall_drawn import wall_view
from calc.plan.hold.solve import HOLD
from calc.plan.stop_kind import Drawing
from calc.plan.view import View


def drawings(view: View) -> Iterator[Drawing]:
    """The chart, and the wall where there is a thin one."""
    hold, force = view[HOLD], view[FORCE]
    if hold is None or force is None:
        return
    yield Drawing("chart", "Grip against speed", ("force",), partial(force_chart, view, force, hold), first=True)
    if force.wall is not None:
        yield Drawing("wall", "The wall", ("hold", "force"), partial(wall_view, hold, force.wall))
