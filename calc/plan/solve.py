"""All figures of a plan, without words: what the stops show and what the helps recompute."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any, TypeVar

from calc.plan.about_cut import Ask
from calc.plan.condition import Known
from calc.plan.cuts import CutsFigures, solve_cuts
from calc.plan.demand import DemandFigures, solve_demand
from calc.plan.document import Document
from calc.plan.force import ForceFigures, solve_force
from calc.plan.hold import HoldFigures, grip_of, solve_hold, two_pockets
from calc.plan.jaws import JawsFigures, solve_jaws
from calc.plan.part import PartFigures, solve_part
from calc.plan.sides import OTHER, SidesFigures, solve_sides
from calc.plan.stops import Outcome, attempt
from calc.shelf.taken import SetupShelf, Shelf

T = TypeVar("T")
KEPT = 1024  # outcomes; a plan of two sides asks for about eighty


@dataclass(frozen=True)
class Figures:
    """The outcome of every stop of one set-up, in dependency order."""

    part: Outcome[PartFigures]
    sides: Outcome[SidesFigures]
    hold: Outcome[HoldFigures]
    jaws: Outcome[JawsFigures]
    cuts: Outcome[CutsFigures]
    demand: Outcome[DemandFigures]
    force: Outcome[ForceFigures]


def setup_path(index: int) -> str:
    """The document path of a set-up."""
    return f"setups.{index}"


def shelf_for(document: Document, shelf: Shelf, index: int) -> SetupShelf:
    """What a set-up takes: two pockets in one set share the first side's chuck and jaws."""
    return shelf.setups[document.jaws_of(index)]


def _shared(document: Document, index: int) -> Document:
    """The document as a set-up sees it: the second pocket of a shared set has the first side's jaws."""
    if document.jaws_of(index) == index:
        return document
    first, mine = document.setups[0], document.setups[index]
    same = (mine.jaws.tooth, mine.jaws.position, mine.hold.jaw_height_mm)
    if same == (first.jaws.tooth, first.jaws.position, first.hold.jaw_height_mm):
        return document
    jaws = replace(mine.jaws, tooth=first.jaws.tooth, position=first.jaws.position)
    setup = replace(mine, hold=replace(mine.hold, jaw_height_mm=first.hold.jaw_height_mm), jaws=jaws)
    return replace(document, setups=(*document.setups[:index], setup, *document.setups[index + 1 :]))


def _solve_pockets(document: Document, shelf: Shelf, part: PartFigures, sides: SidesFigures) -> dict[int, HoldFigures]:
    """Both holds in one set of jaws, by set-up."""
    outer, inner = two_pockets(document, sides)
    smallest, taken = grip_of(document, sides, inner), shelf.setups[0]
    one = solve_hold(_shared(document, outer), taken, part, sides, outer, smallest=smallest)
    two = solve_hold(_shared(document, inner), taken, part, sides, inner, outer=one, smallest=smallest)
    return {outer: replace(one, other=two.pocket), inner: two}


@dataclass(frozen=True)
class _Question:
    """What figures rest on, by value, and how they are found."""

    rests_on: tuple[Any, ...]
    find: Callable[[], Any] = field(compare=False)


# A key pressed changes one fact, and a comparison changes one: what does not rest on it stands as it was.
# Values are compared, so figures are the same from whichever plan they come; `KEPT` bounds the memory.
@lru_cache(maxsize=KEPT)
def _kept(question: _Question) -> Outcome[Any]:
    return attempt(question.find)


@lru_cache(maxsize=KEPT // 8)
def _pockets(question: _Question) -> dict[int, HoldFigures]:
    return question.find()  # type: ignore[no-any-return]


def _found(find: Callable[[], T], *rests_on: Any) -> Outcome[T]:
    return _kept(_Question(rests_on, find))


def _hold(
    document: Document, shelf: Shelf, part: Outcome[PartFigures], sides: Outcome[SidesFigures], index: int
) -> Outcome[HoldFigures]:
    if not document.one_set:
        mine = document.setups[index]
        return _found(
            lambda: solve_hold(document, shelf.setups[index], part.need("Part"), sides.need("Sides"), index),
            "hold",
            index,
            sides,
            shelf.setups[index],
            mine.hold,
            mine.jaws,
            document.in_force,
        )
    rests = (sides, shelf.setups, document.in_force, tuple((s.hold, s.jaws) for s in document.setups))
    both = _Question(rests, lambda: _solve_pockets(document, shelf, part.need("Part"), sides.need("Sides")))
    return _found(lambda: _pockets(both)[index], "hold", index, *rests)


def solve(document: Document, shelf: Shelf, index: int = 0) -> Figures:
    """Figures of one set-up. Never raises for bad facts: each outcome says why there is none."""
    at = setup_path(index)
    setup, chosen = _shared(document, index).setups[index], shelf_for(document, shelf, index)
    force, rules = setup.force, document.in_force
    known = Known(rules)
    if force.condition == "auto":  # only then does a plan rest on the day
        on = chosen.jaw_set.key if chosen.jaw_set else None
        known = Known(rules, chosen.calibration, chosen.greased_on, shelf.today, on)
    pushed = (force.pressure_bar, force.condition, force.condition_measured, force.condition_date, known)

    part = _found(lambda: solve_part(document, shelf), "part", document.part, shelf.machine, shelf.material)
    sides = _found(lambda: solve_sides(document, part.need("Part")), "sides", part, document.sides, rules.raw_stock)
    hold = _hold(document, shelf, part, sides, index)
    jaws = _found(
        lambda: solve_jaws(at, setup, chosen, hold.need("Hold"), known), "jaws", index, hold, setup.jaws, pushed, chosen
    )
    cuts = _found(
        lambda: solve_cuts(
            at,
            setup,
            Ask(
                part.need("Part"),
                rules,
                setup.clamp_rpm,
                OTHER[sides.need("Sides").held_end(index)],
                document.part.quantity,
                shelf.tools,
            ),
        ),
        "cuts",
        index,
        part,
        sides,
        setup.cuts,
        setup.clamp_rpm,
        rules,
        document.part.quantity,
        shelf.tools,
    )
    demand = _found(
        lambda: solve_demand(at, setup, part.need("Part"), hold.need("Hold"), cuts.need("Cuts"), rules),
        "demand",
        hold,
        cuts,
        rules,
        force.offset_mm,
        force.brake_s,
    )
    held = _found(
        lambda: solve_force(
            at,
            setup,
            part.need("Part"),
            hold.need("Hold"),
            jaws.need("Jaws"),
            cuts.need("Cuts"),
            demand.need("Cuts"),
            known,
        ),
        "force",
        index,
        jaws,
        demand,
        setup.force,
        known,
    )
    return Figures(part, sides, hold, jaws, cuts, demand, held)


def solve_all(document: Document, shelf: Shelf) -> tuple[Figures, ...]:
    """Figures of every set-up."""
    return tuple(solve(document, shelf, i) for i in range(len(document.setups)))
