"""Load the demo once: the shop, its runs, and one person of each role."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Any

from django.db import transaction

from calc.plan.document import Document
from calc.plan.planned_cut import PlannedCut
from calc.plan.solve import solve
from calc.reading import read, write
from calc.route.propose import propose, side_of
from calc.settle.setup import settle_setup
from calc.shelf.taken import Shelf
from server.apps.demo import notebook, runs, shop
from server.apps.gauge.actions.load import load_past
from server.apps.gauge.known import today
from server.apps.notebook.actions.load import load_cuts
from server.apps.runs.actions.load_run import load_run
from server.apps.shelf import queries as shelf
from server.apps.shelf.actions.load import load_shelf, load_starting_tools, stock_tools
from server.foundation.actions import load_person
from server.foundation.queries import demo_person


def ready(run: dict[str, Any]) -> dict[str, Any]:
    """A run of the demo as it is loaded: operations that nobody wrote are proposed, and settled with the chuck."""
    document = read(Document, run["document"])
    if any(s.cuts for s in document.setups):
        return dict(run)
    on_shelf = shelf.current()
    ids = on_shelf.ids
    machine = ids["machine"][run["machine"]]
    setups = tuple(
        replace(
            shelf.setup_shelf(on_shelf, machine, ids["chuck"][s["chuck"]], ids["jaw_blank"][s["jaw_blank"]], None),
            greased_on=today(),
        )
        for s in run["setups"]
    )
    taken = Shelf(
        on_shelf.machines[machine],
        on_shelf.materials[ids["material"][run["material"]]],
        setups,
        on_shelf.tools,
        today(),
    )
    for index in range(len(document.setups)):
        figures = solve(document, taken, index)
        part, sides = figures.part.need("Part"), figures.sides.need("Sides")
        cuts = propose(side_of(document, part, sides.first, index, on_shelf.tools))
        document = replaced_setup(document, index, cuts)
        document = settle_setup(document, taken, index).document
    return {**run, "document": write(document)}


def replaced_setup(document: Document, index: int, cuts: tuple[PlannedCut, ...]) -> Document:
    """The document with a set-up's operations."""
    return replace(
        document, setups=tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    )


@transaction.atomic
def load_demo() -> bool:
    """Load it if it is not there; gives whether it was loaded now."""
    if not load_person("planner", "planner"):
        return False
    for role in ("owner", "setter", "operator"):
        load_person(role, role)
    load_starting_tools()
    stock_tools(shop.STOCK)
    load_shelf(shop.MACHINES, shop.CHUCKS, shop.BLANKS, shop.RINGS, shop.PLUGS, shop.SETS)
    load_past("lathe-3-chuck", shop.GREASED_DAYS_AGO, shop.GAUGE_RUNS, demo_person("setter"))
    load_cuts(notebook.cuts(date.today()), demo_person("setter"))
    for run in runs.RUNS:
        load_run(ready(run))
    return True
