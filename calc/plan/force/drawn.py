"""What the stop Force draws: the wall as the jaws squeeze it."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.force.solve import FORCE
from calc.plan.force.wall_drawn import wall_view
from calc.plan.hold.solve import HOLD
from calc.plan.view import View
from calc.scene.shapes import Scene


def views(view: View) -> Iterator[Scene]:
    """The wall, where there is a thin one."""
    hold, force = view[HOLD], view[FORCE]
    if hold is not None and force is not None and force.wall is not None:
        yield wall_view(hold, force.wall)
