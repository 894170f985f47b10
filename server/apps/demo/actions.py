"""Load the demo once: the shop, its runs, and one person of each role."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from server.apps.demo import shop
from server.apps.gauge.actions.load import load_past
from server.apps.runs.actions.load_run import load_run
from server.apps.shelf.actions.load import load_shelf
from server.foundation.actions import load_person
from server.foundation.queries import demo_person


@transaction.atomic
def load_demo() -> bool:
    """Load it if it is not there; gives whether it was loaded now."""
    if not load_person("planner", "planner"):
        return False
    for role in ("owner", "setter", "operator"):
        load_person(role, role)
    load_shelf(shop.MACHINES, shop.CHUCKS, shop.BLANKS, shop.RINGS, shop.PLUGS, shop.SETS)
    load_past("lathe-3-chuck", shop.GREASED_DAYS_AGO, shop.GAUGE_RUNS, demo_person("setter"))
    for run in shop.RUNS:
        given: dict[str, Any] = dict(run)
        load_run(given)
    return True
