"""Parting with both spindles on the piece: what that asks of the second one, and how fast it lets both turn."""

from __future__ import annotations

from calc.chuck.demand import CutLoad
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.working import Note

OPEN = Note(
    "caution",
    "transfer-open",
    "What the second spindle takes hold of is not planned yet: its grip does not count in the parting's cap.",
)


SLIPS = Note(
    "stop",
    "transfer-slips",
    "The second spindle does not hold the piece while it is parted off: see Force of its side for what would help.",
)


def partings(asked: Asked) -> tuple[CutFigures, ...]:
    """The cuts of the first side that part off what the second spindle holds; none where it holds nothing."""
    if not asked.takes_over:
        return ()
    cuts = asked.every[0][CUTS]
    return tuple(c for c in cuts.cuts if c.planned.kind == "part") if cuts is not None else ()


def parting_load(asked: Asked, hold: HoldFigures, cut: CutFigures) -> CutLoad:
    """What parting asks of the second spindle: each of the two must hold it alone, over the length to the blade."""
    forces = (cut.tangential_n, cut.axial_n, cut.radial_n)
    overhang = max(0.0, asked.need(PART).length_mm - hold.middle_mm)
    name = f"{cut.name}, side 1"
    return CutLoad(name, *forces, cut.diameter_mm, overhang, unseated_axial_n=cut.axial_n)
