"""What turns with a jaw and pulls outward at speed."""

from __future__ import annotations

from calc.chuck.speed import StackPart
from calc.errors import CalcError, FieldError
from calc.plan.hold.figures import HoldFigures
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Asked
from calc.quantities import Sentence

ALL_ROUND = (StackPart(0.0, 0.0),)


def stack_of(asked: Asked, hold: HoldFigures) -> tuple[StackPart, ...]:
    """Of one jaw: top jaw, master jaw, T-nut and bolts; nothing of a collet. Raises CalcError, Waiting."""
    if hold.presses_all_round:
        return ALL_ROUND
    jaws, chuck = asked.need(JAWS), hold.chuck
    if chuck.master_mass_kg is None or chuck.master_radius_mm is None:
        words = "The mass and centre of master jaw, T-nut and bolts are not on the chuck's record: weigh them."
        raise CalcError([FieldError("", Sentence(words))])
    return (StackPart(jaws.mass.mass_kg, jaws.mass.radius_mm), StackPart(chuck.master_mass_kg, chuck.master_radius_mm))
