"""Turning inserts."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Literal

from calc import terms
from calc.cuts.feed_window import Breaker
from calc.errors import CalcError, FieldError
from calc.fields import Choice, Text
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import Sentence
from calc.tools.finish import FinishSeen, finish_problems, finish_seen
from calc.tools.insert_code import InsertCode, InsertCodeInput, insert_code
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
class Insert(Item, Edge):
    """A turning insert."""

    __hash__ = Item.__hash__

    code: Annotated[str, Text("Designation", "ISO 1832 or ANSI B212.4, such as CNMG 120408", most=30, where=BOX)]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, terms.FEED_FROM.called(help="Breaker window", where=BOX)]
    feed_max: Annotated[float, terms.FEED_TO.called(help="Breaker window", where=BOX)]
    depth_min: Annotated[float, terms.DEPTH_FROM.called(help="Breaker window, per side", where=BOX)]
    depth_max: Annotated[float, terms.DEPTH_TO.called(help="Breaker window, per side", where=BOX)]
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    purpose: Annotated[
        Literal["rough", "medium", "finish"],
        Choice(
            "Breaker for",
            {"rough": "roughing", "medium": "medium work", "finish": "finishing"},
            "What it is made for",
            where=BOX,
        ),
    ] = "medium"
    edge: Annotated[
        Literal["honed", "sharp", "wiper"],
        Choice(
            "Edge",
            {"honed": "honed", "sharp": "sharp, polished", "wiper": "with a wiper flat"},
            "How its edge is made",
            where=BOX,
        ),
    ] = "honed"
    rake_deg: Annotated[float, terms.RAKE.called(help="The chip breaker's", where=BOX)] = 6.0
    stock: Annotated[int, STOCK] = 0
    finish: Annotated[
        str,
        Text(
            "Finish against theory",
            "Measured Ra over the theory's, by material, such as c45 1.2 of 3 readings",
            most=2000,
            where="A first piece's finish: its card notes it",
        ),
    ] = ""

    def contradictions(self) -> Iterator[FieldError]:
        yield from application_problems(self.application)
        yield from finish_problems(self.finish)
        try:
            insert_code(InsertCodeInput(self.code))
        except CalcError as error:
            yield from error.errors
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("The window cannot end below where it begins."))
        if self.depth_min > self.depth_max:
            yield FieldError("depth_max", Sentence("The window cannot end below where it begins."))

    @cached_property
    def decoded(self) -> InsertCode:
        """What its designation says."""
        return insert_code(InsertCodeInput(self.code))

    @cached_property
    def seat(self) -> str:
        """What a holder must take: shape, clearance, size and thickness, such as "CN 1204"."""
        d = self.decoded
        figures = d.iso.split()[1][:4] if d.iso else f"{d.ic_mm:.2f}/{d.thickness_mm:.2f}"
        return f"{d.shape}{d.letters[1].symbol} {figures}"

    @cached_property
    def seen(self) -> dict[str, FinishSeen]:
        """What its finish came to at the machine, by the material's key."""
        return finish_seen(self.finish)

    @cached_property
    def breaker(self) -> Breaker:
        """The window in which its chip breaks."""
        return Breaker(self.feed_min, self.feed_max, self.depth_min, self.depth_max)


INSERT = ItemKind(
    name="insert",
    plural="inserts",
    title="Turning inserts",
    noun="turning insert",
    item=Insert,
    line=lambda i, _: f"{i.code} · {i.application} · {in_stock(i.stock)}",
    groups={
        "name": "What it is",
        "feed_min": "Its breaker",
        "substrate": "Its grade",
        "stock": "On the shelf",
        "finish": "Seen at the machine",
    },
    codes={"depth_max": "APMX"},
)
