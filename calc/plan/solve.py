"""All figures of a plan, without words: what the stops show and what the helps recompute."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.cuts import CutsFigures, solve_cuts
from calc.plan.document import Document
from calc.plan.force import DemandFigures, ForceFigures, solve_demand, solve_force
from calc.plan.hold import HoldFigures, solve_hold
from calc.plan.jaws import JawsFigures, solve_jaws
from calc.plan.part import PartFigures, solve_part
from calc.plan.shelf import Shelf
from calc.plan.stops import Outcome, attempt


@dataclass(frozen=True)
class Figures:
    """The outcome of every stop, in dependency order."""

    part: Outcome[PartFigures]
    hold: Outcome[HoldFigures]
    jaws: Outcome[JawsFigures]
    cuts: Outcome[CutsFigures]
    demand: Outcome[DemandFigures]
    force: Outcome[ForceFigures]


def setup_path(index: int) -> str:
    """The document path of a set-up."""
    return f"setups.{index}"


@dataclass(frozen=True)
class Near:
    """A plan already solved, whose figures serve again where nothing they rest on has changed."""

    document: Document
    shelf: Shelf
    figures: Figures


def solve(document: Document, shelf: Shelf, index: int = 0, near: Near | None = None) -> Figures:
    """Figures of one set-up. Never raises for bad facts: each outcome says why there is none."""
    at, setup, chosen = setup_path(index), document.setups[index], shelf.setups[index]
    known = near.figures if near else None
    before = near.document.setups[index] if near else setup
    same_part = (
        near is not None
        and document.part is near.document.part
        and shelf.machine is near.shelf.machine
        and shelf.material is near.shelf.material
    )
    same_hold = (
        same_part and near is not None and setup.hold is before.hold and setup.jaws is before.jaws
        and chosen is near.shelf.setups[index]
    )  # fmt: skip
    same_cuts = same_part and setup.cuts is before.cuts and setup.clamp_rpm == before.clamp_rpm
    same_demand = same_hold and same_cuts and setup.force.safety == before.force.safety

    part = known.part if known and same_part else attempt(lambda: solve_part(document, shelf))
    hold = known.hold if known and same_hold else attempt(lambda: solve_hold(at, setup, chosen, part.need("Part")))
    jaws = known.jaws if known and same_hold else attempt(lambda: solve_jaws(at, hold.need("Hold")))
    cuts = known.cuts if known and same_cuts else attempt(lambda: solve_cuts(at, setup, part.need("Part")))
    demand = (
        known.demand
        if known and same_demand
        else attempt(lambda: solve_demand(setup, part.need("Part"), hold.need("Hold"), cuts.need("Cuts")))
    )
    force = attempt(
        lambda: solve_force(
            at, setup, part.need("Part"), hold.need("Hold"), jaws.need("Jaws"), cuts.need("Cuts"), demand.need("Cuts")
        )
    )
    return Figures(part, hold, jaws, cuts, demand, force)
