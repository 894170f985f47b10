"""Inserts that groove or part off."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice
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
    width_mm: Annotated[float, terms.EDGE_WIDTH.called("Width", "Of its edge", where=BOX)]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, terms.FEED_FROM.called(help="Plunging", where=BOX)]
    feed_max: Annotated[float, terms.FEED_TO.called(help="Plunging", where=BOX)]
    corner_radius_mm: Annotated[float, terms.CORNER_RADIUS.called(help="Of its corners", where=BOX)] = 0.2
    use: Annotated[
        Literal["groove", "part", "both"],
        Choice("For", {"groove": "grooving", "part": "parting off", "both": "both"}, "What it is made for", where=BOX),
    ] = "groove"
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    rake_deg: Annotated[float, terms.RAKE.called(where=BOX)] = 6.0
    edges: Annotated[int, terms.EDGES.called(where=BOX)] = 2
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
