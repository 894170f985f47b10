"""What settling starts from: a set-up's figures, what a cut asks of the grip, and what the grip allows."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from calc.errors import FieldProblem
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Document
from calc.plan.force.demand import BRAKING, DEMAND, DemandFigures
from calc.plan.force.held import FASTEST_RPM, crossing
from calc.plan.force.load import load_of, pressed_n
from calc.plan.force.solve import FORCE, ForceFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures
from calc.plan.part.solve import PartFigures
from calc.plan.sides.driven import DRIVEN
from calc.plan.solve import solve
from calc.quantities import Sentence
from calc.settle.candidates import Goal, Settling
from calc.settle.grip import Asking, Grip
from calc.shelf.taken import Shelf


@dataclass(frozen=True, eq=False)
class Known:
    """The figures of a set-up that settling starts from."""

    figures: Figures
    part: PartFigures
    hold: HoldFigures
    force: ForceFigures
    demand: DemandFigures
    cuts: tuple[CutFigures, ...]


def known_of(document: Document, shelf: Shelf, index: int, at: str) -> Known:
    """What settling starts from. Raises FieldProblem at a path where figures are missing."""
    figures = solve(document, shelf, index)
    part, cuts, demand, hold, force = figures[DRIVEN], figures[CUTS], figures[DEMAND], figures[HOLD], figures[FORCE]
    if cuts is None or part is None or not cuts.cuts:
        why = figures.outcome(CUTS).line
        raise FieldProblem(at, Sentence("{why}: settle it when its figures are there.", why=why))
    if force is None or demand is None or hold is None:
        raise FieldProblem(at, Sentence("Settling needs the grip: {why}.", why=figures.outcome(FORCE).line))
    return Known(figures, part, hold, force, demand, cuts.cuts)


def asking_of(known: Known, document: Document, index: int, cut: CutFigures) -> Asking:
    """What a cut asks of the grip."""
    rules = document.in_force
    factor = rules.interrupted if cut.job.interrupted else 1.0
    entered = document.setups[index].hold
    load, pressed = load_of(cut, known.hold, entered), pressed_n(known.hold, entered)
    second = known.force.second_rpm if cut.planned.kind == "part" else None
    most = FASTEST_RPM if second is None else second
    return Asking(known.demand.asked, known.demand.corner_asked, load, rules, factor, pressed, most)


def settling_of(known: Known, document: Document, index: int, cut: CutFigures, goal: Goal) -> Settling:
    """What a cut is settled in."""
    hold = document.setups[index].hold
    thrust = hold.centre_thrust_n if hold.live_centre else None
    return Settling(cut, known.part, document.in_force, goal, asking_of(known, document, index, cut), thrust)


def grip_of(known: Known, document: Document, index: int, static_n: float) -> Grip:
    """The grip at a static force [N], with everything that limits the spindle at it."""
    part, hold, force, setup = known.part, known.hold, known.force, document.setups[index]
    most = [
        ("the machine's speed", part.machine.max_rpm),
        ("the chuck's speed", hold.chuck.max_rpm),
        *((("your own limit", setup.force.user_max_rpm),) if setup.force.user_max_rpm is not None else ()),
        *_inside_limits(known, static_n),
    ]
    for place, load in enumerate(force.loads):
        if load.cut is not None or force.top_rpm <= 0:
            continue
        if load.name != BRAKING:
            if not _holds_parting(known, place, static_n):
                most.append((load.name, 0.0))
            continue

        def needed(rpm: float, beside: int = place) -> float:  # braking grows with the speed that it stops
            return known.demand.each(beside, rpm) * max(rpm / force.top_rpm, 1.0)

        meets = crossing(static_n, force.loss, needed, min(rpm for _, rpm in most))
        if meets is not None:
            most.append(("braking", meets))
    return Grip(static_n, force.loss, hold.side == "od", tuple(most))


def _holds_parting(known: Known, place: int, static_n: float) -> bool:
    """Whether a grip holds the piece at the speed at which the other spindle's side parts it off."""
    demand, force, rpm = known.demand, known.force, known.force.loads[place].top_rpm
    taken = force.loss * rpm * rpm
    worst = force.corner_condition * static_n - taken
    return static_n - taken >= demand.each(place, rpm) and worst >= demand.each_at_corner(place, rpm) / force.safety


def _inside_limits(known: Known, static_n: float) -> list[tuple[str, float]]:
    """Inside grip: where the wall or the guides carry no more of what speed adds."""
    force, hold = known.force, known.hold
    if hold.side == "od":
        return []
    pull = force.fastest.at_top.centrifugal_n / max(force.top_rpm, 1.0) ** 2 * max(1.0, force.transmission)
    found = [
        ("the guides", load.limit.step("n_guides").value)
        for load in force.loads[:1]
        if any(s.symbol == "n_guides" for s in load.limit.working)
    ]
    wall = force.wall.limit_n if force.wall else None
    if wall is not None and pull > 0:
        found.append(("the wall", float(np.sqrt(max(0.0, wall - static_n) / pull))))
    return found
