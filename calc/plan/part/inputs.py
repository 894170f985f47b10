"""What the print says of the part, and what comes to the lathe."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Checked, Choice, Group, Quantity
from calc.profile.grips import corners_of
from calc.profile.steps import DIAMETER_MOST, TurnedStep
from calc.quantities import Sentence, about


@dataclass(frozen=True)
class Profile(Checked):
    """The turned profile: outside steps from end A to end B, bores from either end inward."""

    outside: Annotated[tuple[TurnedStep, ...], Group("Outside steps", "From end A to end B", least=1, most=30)]
    inside: Annotated[tuple[TurnedStep, ...], Group("Bore from end A", "From end A inward", most=20)] = ()
    inside_b: Annotated[tuple[TurnedStep, ...], Group("Bore from end B", "From end B inward", most=20)] = ()

    @property
    def goes_through(self) -> bool:
        """One hole of one size from end to end: it can be worked from either."""
        return len(self.inside) == 1 and self.inside[0].length_mm is None and not self.inside_b

    @property
    def length_mm(self) -> float | None:
        """Finished length, None while a step's length is missing."""
        lengths = [step.length_mm for step in self.outside]
        return None if any(n is None for n in lengths) else sum(n for n in lengths if n is not None)


FORM = Choice(
    "Stock", {"slug": "saw-cut slug", "bar": "bar", "casting": "casting or forging"}, "How it comes to the lathe"
)
SECTION = Choice(
    "Section",
    {"round": "round", "hexagon": "hexagon", "square": "square"},
    "Of bar or slug; a tube is round with a bore",
)
SURFACE = Choice(
    "Its surface",
    {"rough": "rolled, sawn or cast", "drawn": "drawn or ground", "turned": "turned before"},
    "Sets the friction while it is gripped",
)


@dataclass(frozen=True)
class Stock(Checked):
    """What comes to the lathe, with its real size spread."""

    form: Annotated[Literal["slug", "bar", "casting"], FORM] = "slug"
    surface: Annotated[Literal["rough", "drawn", "turned"], SURFACE] = "rough"
    diameter_mm: Annotated[
        float | None, Quantity("Stock diameter", "mm", "Nominal, outside; across flats", above=0, high=DIAMETER_MOST)
    ] = None
    smallest_mm: Annotated[float | None, terms.SMALLEST.called(high=DIAMETER_MOST)] = None
    largest_mm: Annotated[float | None, terms.LARGEST.called(high=DIAMETER_MOST)] = None
    bore_mm: Annotated[
        float | None, Quantity("Stock bore", "mm", "Tube or cored casting; empty if solid", above=0, high=DIAMETER_MOST)
    ] = None
    section: Annotated[Literal["round", "hexagon", "square"], SECTION] = "round"
    length_mm: Annotated[
        float | None,
        Quantity("Bar length", "mm", "As it goes into the spindle; empty: not checked", above=0, high=10_000),
    ] = None

    @property
    def flats(self) -> int:
        """How many flats it has; 0 where it is round."""
        return terms.FLATS[self.section]

    @property
    def corners(self) -> float:
        """Across its corners over across its flats: 2/√3 of a hexagon, √2 of a square; 1 where it is round."""
        return corners_of(self.flats)

    @property
    def fills(self) -> float:
        """Its area over that of the circle across its corners; 1 where it is round."""
        turn = 2 * math.pi / self.flats if self.flats else 0.0
        return math.sin(turn) / turn if self.flats else 1.0

    def contradictions(self) -> Iterator[FieldError]:
        small, large, d = self.smallest_mm, self.largest_mm, self.diameter_mm
        if small is not None and large is not None and small > large:
            yield FieldError("smallest_mm", about("The smallest piece cannot be above the largest, {x}.", large))
            yield FieldError("largest_mm", about("The largest piece cannot be below the smallest, {x}.", small))
        if self.bore_mm is not None and d is not None and self.bore_mm >= d:
            yield FieldError("bore_mm", about("The stock's bore must be smaller than its outside, {x}.", d))
        if self.section != "round" and self.form == "casting":
            yield FieldError("section", Sentence("A casting is planned as round: give its largest diameter."))


@dataclass(frozen=True)
class Part(Checked):
    """What the print says."""

    profile: Annotated[Profile, Group("Profile")]
    stock: Annotated[Stock, Group("Stock")] = field(default_factory=Stock)
    quantity: Annotated[int | None, terms.PIECES.called("Quantity", "Pieces in the run")] = None
    edge_mm: Annotated[float, terms.EDGE_BREAK.called("Edge break", "On the part's ends where a step says nothing")] = (
        0.3
    )
    face_stock_mm: Annotated[float, Quantity("Stock on a face", "mm", "Before facing, each end", low=0, high=50)] = 0.0
    roundness_mm: Annotated[
        float | None,
        Quantity("Roundness", "mm", "From the print; empty: the machined limits rule", above=0, high=5, places=(3, 4)),
    ] = None
