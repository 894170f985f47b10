"""A side whose operations are proposed: what is made on it, and from what."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from calc.notebook.proven import Proven
from calc.plan.cuts.tooling import worked_steps
from calc.plan.document import Document
from calc.plan.part.solve import PartFigures
from calc.plan.sides.solve import STOCK_GRIPS, is_bar_work, made_on_first
from calc.profile.body import End
from calc.profile.contour import Span
from calc.profile.grips import THIRD
from calc.rules import Rules
from calc.tools.library import EMPTY, Library

ROUGH_DEPTH_MM = 2.0  # of a pass, per side (typical)
FINE_RA_UM = 3.2
TIGHT_BORE_MM = 0.05  # typical: a tolerance below it is bored in two passes after a drill
HELD_CLEAR_MM = 1.5  # of the jaws that hold a third: the clearance, and what a depth is rounded up by


@dataclass(frozen=True)
class Side:
    """What a side's operations are proposed from."""

    part: PartFigures
    rules: Rules
    worked: End
    index: int
    last: bool
    alone: bool
    bar: bool
    quantity: int | None
    outside: tuple[Span, ...]
    inside: tuple[Span, ...]
    library: Library = EMPTY
    proven: tuple[Proven, ...] = ()
    finished: bool = False  # it is held on something that is finished already

    @property
    def raw_mm(self) -> float:
        """Stock on the held face [mm]."""
        return self.part.face_stock_mm if self.index == 0 and not self.bar and not self.finished else 0.0

    @property
    def stock_mm(self) -> float:
        """Diameter of the stock, across its corners, the part's largest where none is given."""
        stock = self.part.stock
        largest = max(s.step.diameter_mm or 0.0 for s in self.part.body.outside)
        return max(stock.corners * (stock.largest_mm or 0.0), stock.corners * (stock.diameter_mm or largest), largest)

    @property
    def round_mm(self) -> float:
        """Diameter down to which a bar with flats strikes; the stock's own where it has none."""
        stock = self.part.stock
        return (stock.diameter_mm or 0.0) if stock.flats else self.stock_mm


def side_of(
    document: Document,
    part: PartFigures,
    first: End,
    index: int,
    library: Library = EMPTY,
    proven: tuple[Proven, ...] = (),
) -> Side:
    """What is made on a side: seen from the end that is worked."""
    alone = len(document.setups) == 1
    worked: End = first if index == 0 else ("b" if first == "a" else "a")
    made = made_on_first(document, part, first)
    bar = is_bar_work(document, index)
    whole = alone and bar
    seen = worked_steps(part, worked, inside=False)
    mine = [s for s in seen if whole or (s.index in made) == (index == 0)]
    if len(seen) == 1 and not alone and not whole:
        bored = part.body.inside or part.body.inside_b or part.stock.bore_mm
        # A plain ring is bored first, and turned while it is held in the bore; a disc is turned in two goes.
        mine = [_go(seen[0], part.length_mm, index)] if not bored else list(seen) if index > 0 else []
    inside = part.body.inside if worked == "a" else part.body.inside_b
    if alone:
        inside = worked_steps(part, worked, inside=True)
    return Side(
        part,
        document.in_force,
        worked,
        index,
        index == len(document.setups) - 1,
        alone,
        bar,
        document.part.quantity,
        tuple(mine),
        inside,
        library,
        proven,
        document.setups[index].hold.grip not in ("", *STOCK_GRIPS),
    )


def _go(span: Span, length_mm: float, index: int) -> Span:
    """What of a plain solid part is turned on a side: first all but the third that is held, then the rest."""
    first = max(1.0, math.floor(2 * (length_mm * (1 - THIRD) - HELD_CLEAR_MM)) / 2)
    return replace(span, end=first if index == 0 else length_mm - first)


def turned(side: Side) -> list[Span]:
    """Plain outside steps, the largest first; what rises toward the jaws is turned from the face down to it."""
    turned = (s for s in side.outside if not s.step.groove and not s.step.flats)
    return sorted(turned, key=lambda s: -(s.step.diameter_mm or 0.0))


def is_fine(span: Span) -> bool:
    """It is finished by a cut of its own: limits, or a fine surface."""
    step = span.step
    return step.limits_mm is not None or (step.ra_um is not None and step.ra_um <= FINE_RA_UM)


def is_tight(span: Span) -> bool:
    """Its limits are as narrow as a drilled hole's unevenness."""
    limits = span.step.limits_mm
    return limits is not None and limits[1] - limits[0] < TIGHT_BORE_MM


def called(what: str, span: Span) -> str:
    """ "Finish Bore", but "Thread" for a step that is called so already."""
    return what if span.step.name.casefold() == what.casefold() else f"{what} {span.step.name}"


def named(what: str, side: Side) -> str:
    """What a cut of the whole side is called: on a second side with its number."""
    return what if side.index == 0 else f"{what}, side {side.index + 1}"


def equal_depth(per_side: float) -> float:
    """Depth [mm per side] that makes equal passes."""
    return round(per_side / max(1, math.ceil(per_side / ROUGH_DEPTH_MM - 1e-9)), 3)
