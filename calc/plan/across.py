"""Operations that go to the other side of a part: what works in a hole that goes through."""

from __future__ import annotations

from dataclasses import replace

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document

IN_THE_HOLE = ("drill", "bore")


def across(document: Document, index: int, cut: str) -> tuple[PlannedCut, ...]:
    """What goes along when an operation of a side is done from the other end; nothing where it cannot go.

    The hole keeps its order: to the later side goes what is done in it from this operation on, to the earlier one what
    is done up to it.
    """
    if len(document.setups) != 2 or not document.part.profile.goes_through:
        return ()
    hole = [c for c in document.setups[index].cuts if c.kind in IN_THE_HOLE]
    place = next((i for i, c in enumerate(hole) if c.id == cut), None)
    # What goes through to the part-off must be a hole already: the first side keeps its drill.
    if place is None or (index == 0 and hole[place].kind != "bore"):
        return ()
    return tuple(hole[place:] if index == 0 else hole[: place + 1])


def moved_across(document: Document, index: int, cuts: tuple[PlannedCut, ...]) -> Document:
    """The plan with these operations at the other side: in front of its own in the hole, behind its faces, where they
    come from the side before; else behind all of them but the part-off.
    """
    ids = {c.id for c in cuts}
    mine, other = document.setups[index], document.setups[1 - index]
    place = _place(other.cuts, index)
    left = replace(mine, cuts=tuple(c for c in mine.cuts if c.id not in ids))
    right = replace(other, cuts=(*other.cuts[:place], *cuts, *other.cuts[place:]))
    return replace(document, setups=(left, right) if index == 0 else (right, left))


def _place(cuts: tuple[PlannedCut, ...], index: int) -> int:
    """How many of the other side's operations stand before those that come."""
    if index == 0:
        return sum(1 for c in cuts if c.kind == "face")
    return next((i for i, c in enumerate(cuts) if c.kind == "part"), len(cuts))
