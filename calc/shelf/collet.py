"""Collets."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import FITS_CHUCKS, ItemKind
from calc.quantities import Bare, Figure, Sentence

BOX = "Engraved on the collet, or the label of its box"
SHEET = "The collet's data sheet"
FORMS = {"round": "round", "hexagon": "hexagon", "square": "square"}
FORM = Choice("Form", FORMS, "Of its hole", where=BOX)
FACE = Choice("Its hole", {"smooth": "smooth", "serrated": "serrated"}, "Serrated grips harder and marks", where=BOX)


@dataclass(frozen=True)
class Collet(Item):
    """A collet, and the bars that it closes on."""

    __hash__ = Item.__hash__

    nominal_mm: Annotated[
        float, Quantity("Size", "mm", "The largest bar it takes; across flats", above=0, high=500, where=BOX)
    ]
    range_mm: Annotated[
        float,
        Quantity("Closes by", "mm", "On diameter, below its size", low=0, high=50, where=BOX + "; often 0.5 or 1"),
    ]
    bearing_mm: Annotated[
        float,
        Quantity("Bearing length", "mm", "Of the hole that grips", above=0, high=500, where=SHEET + ", or measure"),
    ]
    form: Annotated[Literal["round", "hexagon", "square"], FORM] = "round"
    face: Annotated[Literal["smooth", "serrated"], FACE] = "smooth"
    max_grip_n: Annotated[
        float | None,
        Quantity("Highest grip", "N", "All segments; empty: not checked", above=0, high=2_000_000, where=SHEET),
    ] = None
    runout_mm: Annotated[
        float,
        Quantity(
            "Run-out",
            "mm",
            "At its nose; typical 0.02",
            low=0,
            high=1,
            places=(3, 4),
            where="Indicate a ground pin in it",
        ),
    ] = 0.02

    @property
    def flats(self) -> int:
        """How many flats its hole has; 0 where it is round."""
        return terms.FLATS[self.form]

    @property
    def least_mm(self) -> float:
        """The smallest bar it closes on."""
        return self.nominal_mm - self.range_mm

    def contradictions(self) -> Iterator[FieldError]:
        if self.range_mm >= self.nominal_mm:
            yield FieldError("range_mm", Sentence("A collet closes by less than its own size: give less than that."))

    @property
    def words(self) -> Sentence:
        """What it is, in a few words."""
        return Sentence(
            "{form} {a} to {b}, {face}, bears over {l}",
            form=FORMS[self.form],
            a=Bare(Figure(self.least_mm, "mm", "up", exact=True, places=(2, 3))),
            b=Figure(self.nominal_mm, "mm", "down", exact=True, places=(2, 3)),
            face=self.face,
            l=Figure(self.bearing_mm, "mm", "down", exact=True),
        )


COLLET = ItemKind(
    name="collet",
    plural="collets",
    title="Collets",
    noun="collet",
    item=Collet,
    line=lambda c, _: c.words.text("metric"),
    groups={"name": "What it is", "nominal_mm": "Its size", "face": "How it grips"},
    order=("name", "form", "nominal_mm", "range_mm", "bearing_mm", "face", "max_grip_n", "runout_mm"),
    links=(FITS_CHUCKS,),
)
