"""Operations that go to the other side of a part: in a hole that goes through, or on the largest diameter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document

IN_THE_HOLE = ("drill", "bore")
SAME_MM = 0.05  # of one size: rather more than any limits of a turned one


def across(document: Document, index: int, cut: str) -> tuple[PlannedCut, ...]:
    """What goes along when an operation of a side is done from the other end; nothing where it cannot go.

    The hole keeps its order: to the later side goes what is done in it from this operation on, to the earlier one what
    is done up to it. So does the turning of the largest diameter, which either end sees.
    """
    if len(document.setups) != 2:
        return ()
    return _on_the_largest(document, index, cut) or _in_the_hole(document, index, cut)


def _from(line: Sequence[PlannedCut], index: int, cut: str) -> tuple[PlannedCut, ...]:
    """What of a line of operations that build on each other goes along."""
    place = next((i for i, c in enumerate(line) if c.id == cut), None)
    if place is None:
        return ()
    return tuple(line[place:] if index == 0 else line[: place + 1])


def _long(document: Document) -> float | None:
    lengths = [s.length_mm for s in document.part.profile.outside]
    return None if None in lengths else sum(x for x in lengths if x is not None)


def _on_the_largest(document: Document, index: int, cut: str) -> tuple[PlannedCut, ...]:
    """Turning that goes no deeper than the largest diameter."""
    sizes = [s.diameter_mm for s in document.part.profile.outside if s.diameter_mm is not None]
    if not sizes or _long(document) is None:
        return ()
    turned = [c for c in document.setups[index].cuts if c.kind == "turn" and c.length_mm is not None]
    return _from([c for c in turned if (c.to_diameter_mm or 0.0) >= max(sizes) - SAME_MM], index, cut)


def _in_the_hole(document: Document, index: int, cut: str) -> tuple[PlannedCut, ...]:
    if not document.part.profile.goes_through:
        return ()
    hole = [c for c in document.setups[index].cuts if c.kind in IN_THE_HOLE]
    # What goes through to the part-off must be a hole already: the first side keeps its drill.
    if index == 0 and any(c.id == cut and c.kind != "bore" for c in hole):
        return ()
    return _from(hole, index, cut)


def moved_across(document: Document, index: int, cuts: tuple[PlannedCut, ...]) -> Document:
    """The plan with these operations at the other side: in front of its own in the hole, behind its faces, where they
    come from the side before; else behind all of them but the part-off.
    """
    ids, long = {c.id for c in cuts}, _long(document)
    mine, other = document.setups[index], document.setups[1 - index]
    place = _place(other.cuts, index)
    cuts = tuple(_seen_from_there(c, long) if c.kind == "turn" and long is not None else c for c in cuts)
    left = replace(mine, cuts=tuple(c for c in mine.cuts if c.id not in ids))
    right = replace(other, cuts=(*other.cuts[:place], *cuts, *other.cuts[place:]))
    return replace(document, setups=(left, right) if index == 0 else (right, left))


def _seen_from_there(cut: PlannedCut, long_mm: float) -> PlannedCut:
    """The same stretch of a part so long, measured from its other face."""
    return replace(cut, start_mm=max(0.0, long_mm - cut.start_mm - (cut.length_mm or 0.0)))


def _place(cuts: tuple[PlannedCut, ...], index: int) -> int:
    """How many of the other side's operations stand before those that come."""
    if index == 0:
        return sum(1 for c in cuts if c.kind == "face")
    return next((i for i, c in enumerate(cuts) if c.kind == "part"), len(cuts))
