"""Threading inserts."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import Sentence
from calc.threads.thread import ANGLES
from calc.tools.kinds.carrier import SEAT, SIDE, Side
from calc.tools.kinds.edge import (
    APPLICATION,
    BOX,
    COATING,
    STOCK,
    SUBSTRATE,
    Coating,
    Edge,
    Substrate,
    application_problems,
    in_stock,
)


@dataclass(frozen=True)
class ThreadInsert(Item, Edge):
    """A threading insert."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    angle_deg: Annotated[
        float,
        Quantity("Profile angle", "deg", "60 metric and unified, 55 Whitworth, 30, 29, 80", low=20, high=90, where=BOX),
    ]
    pitch_min_mm: Annotated[
        float, Quantity("Pitch from", "mm", "Full profile: its one pitch", above=0, high=50, where=BOX)
    ]
    pitch_max_mm: Annotated[float, Quantity("Pitch to", "mm", "Full profile: the same", above=0, high=50, where=BOX)]
    application: Annotated[str, APPLICATION]
    side: Annotated[Side, SIDE] = "outside"
    profile: Annotated[
        Literal["full", "partial"],
        Choice(
            "Profile",
            {"full": "full: finishes the crest too", "partial": "partial: the crest is turned before"},
            "Whether it finishes the crest",
            where=BOX,
        ),
    ] = "full"
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    rake_deg: Annotated[float, terms.RAKE.called(where=BOX)] = 0.0
    edges: Annotated[int, terms.EDGES.called(where=BOX)] = 3
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from application_problems(self.application)
        if self.pitch_min_mm > self.pitch_max_mm:
            yield FieldError("pitch_max_mm", Sentence("The range cannot end below where it begins."))
        if self.profile == "full" and self.pitch_min_mm != self.pitch_max_mm:
            yield FieldError("pitch_max_mm", Sentence("A full profile has one pitch: write the same figure twice."))
        if self.angle_deg not in ANGLES.values():
            known = ", ".join(f"{a:g}" for a in sorted(set(ANGLES.values())))
            yield FieldError("angle_deg", Sentence("Threads have one of these angles: {k}.", k=known))


THREAD_INSERT = ItemKind(
    name="thread_insert",
    plural="thread_inserts",
    title="Threading inserts",
    noun="threading insert",
    item=ThreadInsert,
    line=lambda i, _: f"seat {i.seat} · {i.application} · {in_stock(i.stock)}",
    groups={"name": "What it is", "substrate": "Its grade", "stock": "On the shelf"},
    codes={"pitch_min_mm": "TPN", "pitch_max_mm": "TPX", "edges": "CEDC"},
)
