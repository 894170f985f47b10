"""Paths of a run: which rest on each other, and who may change what is there."""

from __future__ import annotations

import re
from typing import Any

from server.foundation.problems import NotAllowed
from server.foundation.roles import PLANS, SETS, has_role

PLAN = "plan"  # the whole plan, as a restored draft replaces it
RULES = "rules"  # as the shop's own of today replace them
PROFILE = "part.profile"  # as a drawing replaces it
PUT_AWAY = "put_away"
NAMES = ("name", "drawing_number")
OF_THE_RUN = (*NAMES, PUT_AWAY)
REFERENCE = re.compile(r"^(?:(machine|material)|setups\.(\d+)\.(chuck|jaw_blank|jaw_set))$")
# What a setter finds out at the machine.
MEASURED = re.compile(r"^setups\.\d+\.(force\.condition(_measured|_date)?|jaws\.(feeler_mm|blue|reading_mm|paper_mm))$")


def reference_kind(path: str) -> str | None:
    """ "machine", "material", "chuck", "jaw_blank" or "jaw_set" when the path points into the shelf."""
    found = REFERENCE.match(path)
    return (found[1] or found[3]) if found else None


def rests_on(path: str) -> list[str]:
    """Every path whose change is also a change of what is at `path`, except those below it."""
    if path in OF_THE_RUN:
        return [path]
    parts = path.split(".")
    return [PLAN, *(".".join(parts[:end]) for end in range(1, len(parts) + 1))]


def may_change(person: Any, path: str) -> bool:
    """Whether this person may change what is at the path."""
    return has_role(person, SETS if MEASURED.match(path) else PLANS)


def require_may_change(person: Any, path: str) -> Any:
    """The person, where they may change what is at the path. Raises NotAllowed."""
    if may_change(person, path):
        return person
    if has_role(person, SETS):
        raise NotAllowed(
            "A setter changes the chuck's condition and what is measured at the machine. Ask a planner for the rest."
        )
    raise NotAllowed("Only a planner changes a plan. Ask one, or sign in as one.")
