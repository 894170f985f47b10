"""Ways to hold a side, the best first, and a side held in one with its operations proposed for that."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import setup_path
from calc.plan.hold.inputs import Hold
from calc.plan.part.solve import PART
from calc.plan.paths import replaced
from calc.plan.proposed import key_of
from calc.plan.sides.solve import SIDES, STOCK_GRIPS
from calc.plan.solve import solve
from calc.profile.grips import Grip
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.shelf.chuck import Chuck
from calc.shelf.collet import Collet
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.taken import SetupShelf
from calc.start.marking import REFERENCES
from calc.start.state import Decided, Start, Wanted

FIRST_PRESSURE = 0.6  # of the most that the chuck may have, typical: settling looks for the right one
THIN = 0.25  # wall over radius, typical: a part below it is light and hollow, and goes in aluminium jaws


@dataclass(frozen=True)
class Way:
    """One way to hold a side: on what, and in what."""

    grip: Grip
    holder: SetupShelf


def ways(wanted: Wanted, decided: Decided, plan: Start, index: int) -> list[Way]:
    """Ways to hold a side, the best first: by what is held, then by in what."""
    sides, at = solve(plan.document, plan.shelf, index)[SIDES], setup_path(plan.document, index)
    assert sides is not None  # the part is there
    now = plan.document.setups[index].hold.grip
    grips = [g for g in sides.grips(index) if g.fit]
    if not decided.free(f"{at}.hold.grip", now, Hold().grip):
        grips = [g for g in sides.grips(index) if g.key == now]
    return [Way(grip, holder) for grip in grips for holder in _holders(wanted, decided, plan, (index, grip))]


def _holders(wanted: Wanted, decided: Decided, plan: Start, of: tuple[int, Grip]) -> Iterator[SetupShelf]:
    """What could close on a grip: collets that fit it, then soft jaws, hard ones last and on raw stock only."""
    index, grip = of
    at, taken = setup_path(plan.document, index), plan.shelf.setups[index]
    keep = {
        kind: key_of(taken, kind) for kind in REFERENCES if not decided.free(f"{at}.{kind}", key_of(taken, kind), None)
    }
    bar = plan.document.part.stock.form == "bar"
    chucks = [(h.chuck, h) for h in wanted.holders if h.chuck is not None]
    if len(chucks) > 1:  # with one alone there is nothing that anybody decided
        chucks = [(c, h) for c, h in chucks if keep.get("chuck") in (None, c.key)]
    spindle = "second" if bar and index == 1 else "main"
    chucks = [(c, h) for c, h in chucks if c.spindle == spindle] or chucks
    for chuck, holder in sorted(chucks, key=lambda pair: not pair[0].is_collet):
        if chuck.is_collet:
            if grip.side == "od" and (bar or index == 1):
                yield from (
                    replace(holder, collet=c)
                    for c in holder.collets
                    if _closes(c, grip) and keep.get("collet") in (None, c.key)
                )
            continue
        for blank in sorted(holder.blanks, key=lambda b: _jaw_order(b, grip)):
            if keep.get("jaw_blank") in (None, blank.key) and not (blank.is_hard and grip.finished):
                yield replace(holder, blank=blank)


def _closes(collet: Collet, grip: Grip) -> bool:
    fits = collet.least_mm <= grip.smallest_mm and grip.largest_mm <= collet.nominal_mm
    return fits and collet.flats == grip.flats


def _jaw_order(blank: JawBlank, grip: Grip) -> tuple[bool, bool, float]:
    """Soft before hard; aluminium for what is thin and hollow, steel for the rest; the lowest first."""
    thin = not grip.solid and grip.wall_mm / max(grip.diameter_mm / 2, 1e-9) < THIN
    return (blank.is_hard, (blank.metal == "aluminium") != thin, blank.height_mm)


def held(wanted: Wanted, decided: Decided, plan: Start, index: int, way: Way) -> Start:
    """The plan with a side held in a way, its operations proposed for that; what people decided stays."""
    document = plan.document
    setup, at = document.setups[index], setup_path(document, index)
    holder = replace(way.holder, jaw_set=plan.shelf.setups[index].jaw_set)
    shelf = replace(plan.shelf, setups=tuple(holder if i == index else s for i, s in enumerate(plan.shelf.setups)))
    bar = index == 0 and document.part.stock.form == "bar" and way.grip.key in STOCK_GRIPS
    assert holder.chuck is not None
    for group, fact, value in (
        ("hold", "grip", way.grip.key),
        ("hold", "seat", "none" if bar else "floor"),
        ("force", "pressure_bar", _first_pressure(holder.chuck)),
    ):
        facts = getattr(setup, group)
        path = f"{at}.{group}.{fact}"
        if decided.free(path, getattr(facts, fact), getattr(type(facts)(), fact)):
            document = replaced(document, path, value)
    if decided.cuts_free(setup):
        document = replaced(document, f"{at}.cuts", _operations(wanted, Start(document, shelf), index))
    return Start(document, shelf)


def _first_pressure(chuck: Chuck) -> float:
    charted = chuck.force.chart[-1].pressure_bar if chuck.force.chart else chuck.force.max_pressure_bar
    return round(FIRST_PRESSURE * min(chuck.force.max_pressure_bar, charted), 1)


def _operations(wanted: Wanted, plan: Start, index: int) -> tuple[PlannedCut, ...]:
    figures = solve(plan.document, plan.shelf, index)
    part, sides = figures[PART], figures[SIDES]
    assert part is not None and sides is not None
    made = propose(side_of(plan.document, part, sides.first, index, plan.shelf.tools, wanted.proven))
    return tuple(replace(cut, id=wanted.ids.new()) for cut in made)
