"""The stops of a plan, in the order of the work: none waits on a later one. Everything that is done to every stop reads
this list (docs/decisions/0035).

docs/how-to-add-a-stop.md tells how to add one.
"""

from __future__ import annotations

from calc.plan.cuts.stop import CUTS_STOP
from calc.plan.force.stop import FORCE_STOP
from calc.plan.hold.stop import HOLD_STOP
from calc.plan.jaws.stop import JAWS_STOP
from calc.plan.part.stop import PART_STOP
from calc.plan.route.stop import ROUTE_STOP
from calc.plan.sides.stop import SIDES_STOP
from calc.plan.stop_kind import StopKind
from calc.plan.tools.stop import TOOLS_STOP

ALL_STOPS: list[StopKind] = [PART_STOP, SIDES_STOP, HOLD_STOP, JAWS_STOP, CUTS_STOP, TOOLS_STOP, FORCE_STOP, ROUTE_STOP]


def kind_of(name: str) -> StopKind:
    """The stop of this name. Raises KeyError."""
    for kind in ALL_STOPS:
        if kind.name == name:
            return kind
    raise KeyError(name)
