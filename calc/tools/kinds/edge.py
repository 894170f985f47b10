"""What is asked of anything that cuts: its grade, and how many there are."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property
from typing import Literal

from calc.errors import CalcError, FieldError
from calc.fields import Choice, Quantity, Text
from calc.tools.ranges import read_range

BOX = "The insert's box"

Substrate = Literal["carbide", "cermet", "hss"]
SUBSTRATE = Choice(
    "Made of",
    {"carbide": "carbide", "cermet": "cermet", "hss": "high-speed steel"},
    "What the edge is made of",
    where=BOX,
)
Coating = Literal["none", "coated", "diamond"]
COATING = Choice("Coating", {"none": "none", "coated": "coated", "diamond": "diamond"}, "Of the edge", where=BOX)
APPLICATION = Text("Application range", "ISO 513, such as P10-P30 M15-M25", most=60, where=BOX)
STOCK = Quantity("In stock", "", "Pieces on the shelf", low=0, high=1_000_000, whole=True, where="Count them")


def in_stock(pieces: int) -> str:
    """How many there are, in words.

    >>> in_stock(12), in_stock(0)
    ('12 in stock', 'none in stock')
    """
    return f"{pieces} in stock" if pieces else "none in stock"


def application_problems(text: str) -> Iterator[FieldError]:
    """What is wrong with an application range as written."""
    try:
        read_range(text)
    except CalcError as error:
        yield from error.errors


class Edge:
    """Anything that cuts."""

    application: str
    substrate: str
    coating: str

    @cached_property
    def groups(self) -> dict[str, tuple[int, int]]:
        """ISO 513 group -> (hardest, toughest)."""
        return read_range(self.application)
