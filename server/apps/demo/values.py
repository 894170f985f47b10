"""The demo's shop and runs as values of the core, without a database: for loading it, and for the command line."""

from __future__ import annotations

import json
import random
from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import cache
from typing import Any

from calc.chuck.calibration import Calibration, condition_of_fit
from calc.chuck.fit import GaugePoint, GripFitInput, grip_fit
from calc.chuck.speed import StackPart, pull_of
from calc.data.materials import starting_materials
from calc.data.tools import starting_tools
from calc.item_kind import FITS_CHUCKS
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document
from calc.plan.part.solve import PART
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.reading import read
from calc.settle.setup import settle_setup
from calc.shelf.all_kinds import KINDS
from calc.shelf.chuck import Chuck
from calc.shelf.taken import SetupShelf, Shelf
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.library import Library
from devices.gauge import Model, grips
from server.apps.demo import shop
from server.apps.demo.runs import RUNS

POINTS = 60  # readings of a gauge run


@dataclass(frozen=True)
class DemoRun:
    """A run of the demo: what it is called, its plan, and what that takes from the shelf."""

    name: str
    drawing_number: str
    units: str
    document: Document
    shelf: Shelf


def _without(row: shop.Row, *names: str) -> shop.Row:
    return {n: v for n, v in row.items() if n not in names}


@cache
def tools() -> Library:
    """Every tool of the demo, in the order of their names, as a shelf has them."""
    found: dict[str, list[Any]] = {}
    for kind, rows in starting_tools().items():
        made = []
        for row in rows:
            value = TOOL_KINDS[kind].read(row)
            stock = shop.STOCK.get(str(row["key"]))
            made.append(value if stock is None else replace(value, stock=stock))
        found[kind] = sorted(made, key=lambda v: str(v.name))
    return Library.of(found)


def _by_key(kind: str, rows: shop.Rows) -> dict[str, Any]:
    return {
        row["key"]: KINDS[kind].read(_without(row, "chart", "machine", "chucks"), row.get("chart", ())) for row in rows
    }


def _of_chuck(kind: str, chuck: str) -> tuple[Any, ...]:
    rows = shop.SHELF.get(kind, [])
    made = _by_key(kind, rows)
    return tuple(sorted((made[r["key"]] for r in rows if chuck in r["chucks"]), key=lambda v: str(v.name)))


def _set(row: shop.Row) -> Any:
    linked = {"chuck_key": row["chuck"], "blank_key": row["blank"]}
    return KINDS["jaw_set"].read(_without(row, "chuck", "blank", "life") | linked)


def _calibration(chuck: Chuck, run: shop.Row, number: int) -> Calibration:
    """What a gauge run of the demo says of its chuck."""
    chance = random.Random(number)  # noqa: S311 - the demo is the same every time
    readings = grips(Model(**run["model"]), POINTS, chance)
    points = tuple(GaugePoint(round(rpm), round(grip)) for rpm, grip in readings)
    stack = (
        StackPart(run["jaw_mass_kg"], run["jaw_radius_mm"]),
        StackPart(chuck.master_mass_kg or 0.0, chuck.master_radius_mm or 0.0),
    )
    fit = grip_fit(GripFitInput(run["side"], points, pull_of(stack, chuck.jaws)))
    condition = condition_of_fit(fit.static_grip_n, run["pressure_bar"], run["grip_height_mm"], chuck.force)
    on = date.today() - timedelta(days=run["days"])
    return Calibration(condition, fit.transmission or 1.0, on.isoformat())


def _setup(taken: shop.Row, machine: str) -> SetupShelf:
    row = next(c for c in shop.CHUCKS if c["key"] == taken["chuck"])
    chuck = _by_key("chuck", [row])[taken["chuck"]]
    fitting: dict[str, Any] = {k.plural: _of_chuck(k.name, chuck.key) for k in KINDS.values() if FITS_CHUCKS in k.links}
    sets = tuple(sorted((_set(s) for s in shop.SETS if s["chuck"] == chuck.key), key=lambda v: str(v.name)))
    jaw_set = next((s for s in sets if s.key == taken.get("jaw_set")), None)
    blank = jaw_set.blank_key if jaw_set else taken.get("jaw_blank")
    measured = chuck.key == shop.MEASURED_CHUCK
    greased = date.today() - timedelta(days=min(shop.GREASED_DAYS_AGO, default=0))
    return SetupShelf(
        chuck=chuck,
        blank=next((b for b in fitting["blanks"] if b.key == blank), None),
        collet=next((c for c in fitting["collets"] if c.key == taken.get("collet")), None),
        on_machine=row["machine"] == machine,
        jaw_set=jaw_set,
        jaw_sets=sets,
        calibration=_calibration(chuck, shop.GAUGE_RUNS[-1], len(shop.GAUGE_RUNS) - 1)
        if measured and shop.GAUGE_RUNS
        else None,
        greased_on=greased.isoformat() if measured and shop.GREASED_DAYS_AGO else None,
        **fitting,
    )


def shelf_of(run: shop.Row) -> Shelf:
    """What a run of the demo takes from the shop."""
    materials = {str(r["key"]): r for r in starting_materials()}
    return Shelf(
        _by_key("machine", shop.MACHINES)[run["machine"]],
        KINDS["material"].read(materials[run["material"]] | {"typical": True}),
        tuple(_setup(s, run["machine"]) for s in run["setups"]),
        tools(),
        today=date.today().isoformat(),
    )


def _with_cuts(document: Document, index: int, cuts: tuple[PlannedCut, ...]) -> Document:
    setups = tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    return replace(document, setups=setups)


def planned(run: shop.Row) -> Document:
    """A run's plan as it is loaded: operations that nobody wrote are proposed, and settled as the chuck stands."""
    return _planned(json.dumps(run, sort_keys=True), repr((shop.GAUGE_RUNS, shop.GREASED_DAYS_AGO)))


@cache  # settling takes seconds, and the same run is planned whenever a demo is loaded or proven
def _planned(written: str, _chucks: str) -> Document:
    run = json.loads(written)
    document: Document = read(Document, run["document"])
    if any(s.cuts for s in document.setups):
        return document
    shelf = shelf_of(run)
    for index in range(len(document.setups)):
        figures = solve(document, shelf, index)
        part, sides = figures[PART], figures[SIDES]
        assert part is not None and sides is not None, "the demo's parts and sides are complete"
        document = _with_cuts(document, index, propose(side_of(document, part, sides.first, index, shelf.tools)))
        document = settle_setup(document, shelf, index).document
    return document


def demo_run(drawing_number: str) -> DemoRun | None:
    """A run of the demo by its drawing number; None where there is none."""
    for run in RUNS:
        if run["drawing_number"].casefold() == drawing_number.casefold():
            return DemoRun(run["name"], run["drawing_number"], run["units"], planned(run), shelf_of(run))
    return None
