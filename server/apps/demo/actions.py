"""Begin a shop: an empty one, or the demo with its shelf, its runs, and one person of each role."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import Any

from django.db import transaction

from calc.reading import write
from server.apps.demo import notebook, runs, shop
from server.apps.demo.values import planned
from server.apps.gauge.actions.load import load_past
from server.apps.house.actions import load_calendar
from server.apps.notebook.actions.load import load_cuts
from server.apps.runs.actions.load_run import load_run
from server.apps.shelf.actions.load import load_shelf, load_starting_tools, stock_tools
from server.foundation.actions import begin_shop, load_person
from server.foundation.models import Shop
from server.foundation.queries import demo_person


def ready(run: dict[str, Any]) -> dict[str, Any]:
    """A run of the demo as it is loaded, put on the board."""
    document, days = planned(run), runs.BEGINS_IN_DAYS.get(run["drawing_number"])
    if days is not None:
        start = f"{date.today() + timedelta(days)} 06:00"
        document = replace(document, route=replace(document.route, start=start))
    return {**run, "document": write(document)}


@transaction.atomic
def begin(kind: str) -> None:
    """Begin a shop in an empty database. Raises Conflict where one was begun."""
    begin_shop(kind)
    if kind == Shop.Kind.DEMO:
        _fill()


def _fill() -> None:
    for role in ("planner", "owner", "setter", "operator"):
        load_person(role, role)
    load_starting_tools()
    stock_tools(shop.STOCK)
    load_shelf(shop.SHELF)
    load_past(shop.MEASURED_CHUCK, shop.GREASED_DAYS_AGO, shop.GAUGE_RUNS, demo_person("setter"))
    load_calendar(runs.CALENDAR, demo_person("planner"))
    load_cuts(notebook.cuts(date.today()), demo_person("setter"))
    for run in runs.RUNS:
        load_run(ready(run))
