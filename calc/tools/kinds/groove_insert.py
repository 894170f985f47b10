"""Inserts that groove or part off."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import Sentence
from calc.tools.kinds.carrier import SEAT
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
class GrooveInsert(Item, Edge):
    """An insert that grooves or parts off."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    width_mm: Annotated[float, Quantity("Width", "mm", "Of its edge", above=0, high=50, where=BOX)]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, Quantity("Feed from", "mm/rev", "Plunging", above=0, high=5, where=BOX)]
    feed_max: Annotated[float, Quantity("Feed to", "mm/rev", "Plunging", above=0, high=5, where=BOX)]
    corner_radius_mm: Annotated[float, Quantity("Corner radius", "mm", "Of its corners", low=0, high=10, where=BOX)] = (
        0.2
    )
    use: Annotated[
        Literal["groove", "part", "both"],
        Choice("For", {"groove": "grooving", "part": "parting off", "both": "both"}, "What it is made for", where=BOX),
    ] = "groove"
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "Of its edge", low=-30, high=40, where=BOX)] = 6.0
    edges: Annotated[int, Quantity("Edges", "", "Of one insert", low=1, high=6, whole=True, where=BOX)] = 2
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from application_problems(self.application)
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("The window cannot end below where it begins."))


GROOVE_INSERT = ItemKind(
    name="groove_insert",
    plural="groove_inserts",
    title="Grooving and part-off inserts",
    noun="grooving insert",
    item=GrooveInsert,
    line=lambda i, _: f"seat {i.seat} · {i.application} · {in_stock(i.stock)}",
    groups={"name": "What it is", "feed_min": "How it cuts", "stock": "On the shelf"},
    codes={"width_mm": "CW", "corner_radius_mm": "RE", "edges": "CEDC", "rake_deg": "GAMO"},
)
