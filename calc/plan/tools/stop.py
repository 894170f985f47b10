"""Stop Tools, as the list of stops has it. It solves nothing of its own: what its tools bring is part of the cuts."""

from __future__ import annotations

from calc.plan.stop_kind import StopKind
from calc.plan.tools.show import show, tables

TOOLS_STOP = StopKind("tools", "Tools", "Which edge does each cut", show, tables=tables, panels=("tools",))
