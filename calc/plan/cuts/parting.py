"""Whether a blade parts the piece off, and what must not come after it."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry.base import BaseGeometry

from calc.plan.cuts.taken import CutShape
from calc.profile.half import radii
from calc.working import Note

SLICE_MM = 0.1  # of a slot, looked at
EDGE_MM = 1e-3  # just inside it


def is_through(after: BaseGeometry, cut: CutShape) -> bool:
    """Somewhere in the blade's slot no metal is left: a bore may end within it."""
    thin = min(SLICE_MM, (cut.end - cut.start) / 2)
    places = (cut.start + EDGE_MM, (cut.start + cut.end) / 2, cut.end - thin - EDGE_MM)
    return any(radii(after, z, z + thin) is None for z in places)


def not_through(cut: CutShape) -> Note:
    """What is told of a blade that leaves metal."""
    words = "{name}: it leaves metal where the blade went, and the piece is not off: part to less than is bored there."
    return Note("caution", "not-through", words, name=cut.name)


def after_parting(cut: CutShape, off: str) -> Iterator[Note]:
    """Whether the piece is gone when a cut begins; `off` is what parted it off, empty while it is there."""
    if off:
        words = "{name}: {off} has parted the piece off before it: put the parting last."
        yield Note("stop", "after-parting", words, name=cut.name, off=off)
