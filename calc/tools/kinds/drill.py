"""Drills."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import Sentence, exact_text
from calc.tools.kinds.edge import (
    APPLICATION,
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
class Drill(Item, Edge):
    """A drill."""

    __hash__ = Item.__hash__

    diameter_mm: Annotated[
        float, Quantity("Diameter", "mm", "Of the hole it makes", above=0, high=300, where="On its shank")
    ]
    reach_mm: Annotated[
        float, Quantity("Reach", "mm", "How deep it can drill", above=0, high=3000, where="The drill's data sheet")
    ]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, terms.FEED_FROM.called(help="Of both edges together", where="The drill's data sheet")]
    feed_max: Annotated[float, terms.FEED_TO.called(help="Of both edges together", where="The drill's data sheet")]
    point_deg: Annotated[float, terms.POINT_ANGLE.called(help="Of its tip", where="The drill's data sheet")] = 140.0
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    coolant: Annotated[
        Literal["outside", "through"],
        Choice(
            "Coolant",
            {"outside": "from outside", "through": "through it"},
            "How it gets to the edge",
            where="Holes at its point",
        ),
    ] = "through"
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from application_problems(self.application)
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("This cannot be below the least feed."))


DRILL = ItemKind(
    name="drill",
    plural="drills",
    title="Drills",
    noun="drill",
    item=Drill,
    line=lambda d, _: f"Ø{exact_text(d.diameter_mm)} · {exact_text(d.reach_mm)} mm deep · {in_stock(d.stock)}",
    groups={"name": "What it is", "feed_min": "How it cuts", "stock": "On the shelf"},
    codes={"diameter_mm": "DC", "reach_mm": "LU", "point_deg": "SIG", "coolant": "CSP"},
)
