"""What happened to a lot so far, as it was kept."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

ChangeKind = Literal["edge", "offset"]
WHY = {
    "due": "it was due",
    "worn": "it was worn",
    "size": "the size ran away",
    "broken": "it broke",
    "other": "for another reason",
}
STOPPED = {
    "edge": "an edge is changed",
    "measure": "something is measured",
    "chips": "chips",
    "stock": "no stock, or a bar is changed",
    "alarm": "the machine stopped",
    "size": "a size is wrong",
    "break": "a break",
    "other": "something else",
}
LIVED = ("worn", "size", "broken")  # it did not last longer; one changed when due would have


@dataclass(frozen=True)
class Change:
    """A fresh edge at a tool, or its offset moved [mm, X as a diameter], after so many pieces were counted."""

    edge: str
    kind: ChangeKind
    after: int
    amount_mm: float = 0.0
    why: str = "other"


@dataclass(frozen=True)
class Sizes:
    """What was measured of one dimension, the newest: pieces by number, rising, and values [core unit]."""

    pieces: tuple[int, ...] = ()
    values: tuple[float, ...] = ()


@dataclass(frozen=True)
class Story:
    """Pieces counted so far, good and scrap, what was changed, and what was measured, by dimension.

    `carried`: the share of its life that an edge was worn by when this lot began, by edge.
    """

    counted: int = 0
    good: int = 0
    changes: tuple[Change, ...] = ()
    sizes: Mapping[str, Sizes] = field(default_factory=dict)
    carried: Mapping[str, float] = field(default_factory=dict)

    @property
    def scrap(self) -> int:
        """Pieces that are none."""
        return self.counted - self.good

    def begins(self, edge: str) -> tuple[int, ...]:
        """The pieces from which on an edge, or its offset, was new."""
        return tuple(sorted({c.after + 1 for c in self.changes if c.edge == edge}))
