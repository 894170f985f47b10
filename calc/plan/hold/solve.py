"""Stop Hold solved: what is gripped, in what, how deep, seated on what, with which friction."""

from __future__ import annotations

from dataclasses import replace

from calc.errors import FieldProblem
from calc.plan.document import Document
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.hold.gripped import grip_of
from calc.plan.hold.in_collet import hold_in_collet
from calc.plan.hold.in_jaws import Beside, hold_in_jaws
from calc.plan.outcome import Asked, Solved, Waiting
from calc.plan.part.solve import PART
from calc.plan.sides.solve import POCKETS_APART_MM, SIDES, SidesFigures
from calc.quantities import Sentence


def two_pockets(document: Document, sides: SidesFigures) -> tuple[int, int]:
    """(set-up of the outer pocket, of the inner one) of two that share one set of jaws. Raises Missing or CalcError."""
    one, two = (grip_of(document, sides, i) for i in (0, 1))
    path = "sides.two_step"
    if one.side != "od" or two.side != "od":
        raise FieldProblem(path, "Two pockets in one set are for outside grips on both sides.")
    if abs(one.diameter_mm - two.diameter_mm) < POCKETS_APART_MM:
        raise FieldProblem(path, "Both sides are held on about the same diameter: one pocket does for both.")
    return (0, 1) if one.diameter_mm > two.diameter_mm else (1, 0)


def _in_two_pockets(asked: Asked) -> dict[int, JawHold]:
    """Both holds in one set of jaws, by set-up; nothing where each side has its own. Raises as `hold_in_jaws`."""
    document = asked.document
    if not document.one_set:
        return {}
    sides = asked.need(SIDES)
    outer, inner = two_pockets(document, sides)
    smallest = grip_of(document, sides, inner)
    one = hold_in_jaws(asked.of(outer), Beside(smallest=smallest))
    two = hold_in_jaws(asked.of(inner), Beside(one, smallest))
    return {outer: replace(one, other=two.pocket), inner: two}


POCKETS = Solved("pockets", "Hold", _in_two_pockets, per_side=False)


def _chuck_fits(asked: Asked) -> None:
    """Raises Missing without a chuck, FieldProblem for one that is not there."""
    at, shelf, machine = asked.at, asked.taken, asked.need(PART).machine
    if shelf.chuck is None:
        return
    path = f"{at}.chuck"
    if not shelf.on_machine:
        words = Sentence("{c} is not on {m}; choose one that is.", c=shelf.chuck.name, m=machine.name)
        raise FieldProblem(path, words)
    if shelf.chuck.spindle == "second" and not machine.has_second:
        said = "{m} has no second spindle on its record: give its speed, power and torque there, or another chuck."
        raise FieldProblem(path, Sentence(said, m=machine.name))


def _find(asked: Asked) -> HoldFigures:
    _chuck_fits(asked)
    chuck = asked.taken.chuck
    if chuck is not None and chuck.is_collet:
        return hold_in_collet(asked, chuck)
    return asked.share(POCKETS)[asked.index] if asked.document.one_set else hold_in_jaws(asked)


def _jaws_only(asked: Asked) -> JawHold:
    hold = asked.need(HOLD)
    if not isinstance(hold, JawHold):
        raise Waiting(HOLD.title)
    return hold


HOLD = Solved("hold", "Hold", _find)
# The same where it is held in jaws; there are no figures of this for a collet.
JAW_HOLD = Solved("jaw_hold", "Hold", _jaws_only)
