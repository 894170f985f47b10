"""A plan begun: every stop has something to argue with, and nothing is settled yet."""

from __future__ import annotations

from dataclasses import replace

from calc.errors import CalcError, FieldError, FieldProblem
from calc.plan.compute import some_stops
from calc.plan.cuts.clear import CLEAR
from calc.plan.document import another_side, setup_path
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced
from calc.plan.sides.inputs import Sides
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.plan.trying import LENGTH_STEP_MM
from calc.profile.body import End
from calc.quantities import Sentence
from calc.start.marking import marked
from calc.start.state import Decided, Start, Wanted, decided_of
from calc.start.ways import held, ways

DEEPER_STEPS = 12  # of half a millimetre
TRIED = 10  # ways to hold a side
JUDGED = ("hold", "jaws", "tools")  # what can be judged before the figures are settled, beside clearance


def begin(wanted: Wanted) -> Start:
    """Every stop with a value: the sides, and holds by which hold, jaws, tools and clearance are not stopped, where
    there are such.

    Parameters
        wanted: the plan with machine, material, profile and stock
    Returns
        the plan with all that was free proposed and marked; pressure, speeds and feeds are not settled yet
    Raises
        CalcError with a fault at each fact that is missing, or where nothing on the machine could hold the part

    Reference
        docs/method.md, “A proposed start”
    """
    _require(wanted.begun)
    decided = decided_of(wanted.begun)
    best: Start | None = None
    for first in ends(wanted.begun, decided):
        made = begun_with(wanted, decided, first)
        if made is not None and (best is None or _left(made) < _left(best)):
            best = made
        if best is not None and _left(best) == 0:
            break
    if best is None:
        raise FieldProblem("machine", "No chuck of this machine has jaws or a collet that could hold this part.")
    return best


def _require(plan: Start) -> None:
    """Raise CalcError with a fault at each fact that is missing before anything can be proposed."""
    document, shelf = plan.document, plan.shelf
    missing = [
        FieldError(name, Sentence("Choose the {what}: it is proposed from.", what=name))
        for name, there in (("machine", shelf.machine), ("material", shelf.material))
        if there is None
    ]
    for name in ("outside", "inside", "inside_b"):
        for step in getattr(document.part.profile, name):
            at = f"part.profile.{name}.{step.id}"
            if step.diameter_mm is None:
                missing.append(FieldError(f"{at}.diameter_mm", Sentence("Give the diameter of {s}.", s=step.name)))
            if step.length_mm is None and name == "outside":
                missing.append(FieldError(f"{at}.length_mm", Sentence("Give the length of {s}.", s=step.name)))
    if document.part.stock.diameter_mm is None:
        missing.append(FieldError("part.stock.diameter_mm", Sentence("Give the diameter of the stock.")))
    if missing:
        raise CalcError(missing)
    (part,) = some_stops(document, shelf, 0, "part")
    if part.problems:
        raise CalcError(part.problems)


def ends(plan: Start, decided: Decided) -> list[End]:
    """The ends that may be made first, the better one before the other; the one that was decided alone."""
    sides = solve(plan.document, plan.shelf, 0)[SIDES]
    assert sides is not None  # the part is there
    if not decided.free("sides.first_end", plan.document.sides.first_end, Sides().first_end):
        return [sides.first]
    return [sides.proposed, "b" if sides.proposed == "a" else "a"]


def begun_with(wanted: Wanted, decided: Decided, first: End) -> Start | None:
    """The plan begun with an end made first; None where nothing could hold a side."""
    document = replace(wanted.document, sides=replace(wanted.document.sides, first_end=first))
    plan = _with_sides(Start(document, wanted.shelf), wanted)
    for index in range(len(plan.document.setups)):
        best: tuple[int, Start] | None = None
        for way in ways(wanted, decided, plan, index)[:TRIED]:
            made = held(wanted, decided, plan, index, way)
            left = unsettled(made, index)
            if best is None or left < best[0]:
                best = (left, made)
            if left == 0:
                break
        if best is None:
            return None
        plan = a_third(decided, best[1], index)
    return marked(wanted.begun, plan)


def a_third(decided: Decided, plan: Start, index: int) -> Start:
    """The plan with a side gripped as deep as it takes that a third of the part touches, where that stops nothing."""
    hold, at = solve(plan.document, plan.shelf, index)[HOLD], setup_path(plan.document, index)
    now = plan.document.setups[index].hold.depth_mm
    if not isinstance(hold, JawHold) or not _short(hold) or not decided.free(f"{at}.hold.depth_mm", now, None):
        return plan
    left = unsettled(plan, index)
    for more in range(1, DEEPER_STEPS + 1):
        deep = hold.deep_mm + more * LENGTH_STEP_MM
        made = replace(plan, document=replaced(plan.document, f"{at}.hold.depth_mm", deep))
        deeper = solve(made.document, made.shelf, index)[HOLD]
        if deeper is None or unsettled(made, index) > left:
            return plan
        if not _short(deeper):
            return made
    return plan


def _short(hold: HoldFigures) -> bool:
    return any(n.code == "short-grip" for n in hold.notes)


def _with_sides(plan: Start, wanted: Wanted) -> Start:
    """The plan with a second side, unless a bar is made whole before it is parted off."""
    part = plan.document.part
    if len(plan.document.setups) > 1 or (part.stock.form == "bar" and part.face_stock_mm <= 0):
        return plan
    setups = (*plan.document.setups, another_side(plan.document.setups[0], "Side 2", wanted.ids.new()))
    taken = (*plan.shelf.setups, replace(plan.shelf.setups[-1], jaw_set=None))
    return Start(replace(plan.document, setups=setups), replace(plan.shelf, setups=taken))


def _left(plan: Start) -> int:
    return sum(unsettled(plan, index) for index in range(len(plan.document.setups)))


def unsettled(plan: Start, index: int) -> int:
    """What is not settled of a side's hold, jaws and tools, and what runs into something."""
    clear = solve(plan.document, plan.shelf, index)[CLEAR]
    hits = sum(n.level == "stop" for notes in clear.by_cut.values() for n in notes) if clear else 1
    return hits + sum(s.state != "settled" for s in some_stops(plan.document, plan.shelf, index, *JUDGED))
