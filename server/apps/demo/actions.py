"""Load the demo once: the shop, its runs, and one person of each role."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from server.apps.demo import shop
from server.apps.runs.actions.load_run import load_run
from server.apps.shelf.actions.load import load_shelf
from server.foundation.actions import load_person


@transaction.atomic
def load_demo() -> bool:
    """Load it if it is not there; gives whether it was loaded now."""
    if not load_person("planner", "planner"):
        return False
    for role in ("owner", "setter", "operator"):
        load_person(role, role)
    load_shelf(shop.MACHINES, shop.CHUCKS, shop.BLANKS)
    for run in shop.RUNS:
        given: dict[str, Any] = dict(run)
        load_run(given)
    return True
